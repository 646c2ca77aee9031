"""Bands: a file a style."""
