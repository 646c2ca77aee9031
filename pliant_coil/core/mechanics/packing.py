"""How many wires pass a hole.

Source: the smallest circle that holds k equal circles (published packing ratios; R. L. Graham et al., 1998).
"""

from pliant_coil.core.words.refusal import refuse

ENCLOSING_RATIO = (1.0, 2.0, 2.1547, 2.4142, 2.7013, 3.0, 3.0)
"""Diameter of the smallest circle round k equal circles of diameter 1, for k = 1 … 7."""
CLEARANCE_MM = 0.05
"""What a wire needs to be threaded at all (common practice, no source)."""


def hole_needed_mm(wire_mm: float, passes: int) -> float:
    """Hole diameter [mm] that `passes` (1 to 7) wires of `wire_mm` need, with clearance."""
    if not 1 <= passes <= len(ENCLOSING_RATIO):
        refuse("", f"{passes} wires through one hole", f"1 to {len(ENCLOSING_RATIO)}")
    return wire_mm * ENCLOSING_RATIO[passes - 1] + CLEARANCE_MM


def passes_that_fit(wire_mm: float, hole_mm: float) -> int:
    """How many wires of `wire_mm` go through a hole of `hole_mm`; 0 when not even one does."""
    return sum(1 for k in range(1, len(ENCLOSING_RATIO) + 1) if hole_needed_mm(wire_mm, k) <= hole_mm + 1e-9)
