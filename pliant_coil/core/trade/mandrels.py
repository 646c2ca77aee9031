"""The mandrel: its marks, its taper, and the tools that read a ring's size."""

from pliant_coil.core.trade.sizes import SYSTEMS, US_STEP_MM

RANGE_MM = (SYSTEMS["us"].to_diameter_mm(1), SYSTEMS["us"].to_diameter_mm(16))
"""Inside diameters on an ordinary mandrel, US 1 to 16 (common practice, no source)."""
TAPER = 1 / 16
"""Diameter gained per length of an ordinary mandrel: a US size in 13 mm (common practice, no source)."""
QUARTER_US_MM = US_STEP_MM / 4


def along_mm(diameter_difference_mm: float) -> float:
    """How far along an ordinary mandrel a difference of inside diameter [mm] lies."""
    return diameter_difference_mm / TAPER
