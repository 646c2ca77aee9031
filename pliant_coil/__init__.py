"""Pliant Coil: from a finger size to a cut, formed and locked wire ring."""

__version__ = "1.0.0"
