"""Bands: a file a style."""

USUAL = "turned"
"""The one that a ring file means when it names none."""
