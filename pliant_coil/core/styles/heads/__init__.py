"""Heads: a file a style."""

USUAL = "none"
"""The one that a ring file means when it names none."""
