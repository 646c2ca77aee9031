"""Heads: a file a style."""
