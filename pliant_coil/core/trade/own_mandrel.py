"""A maker's own mandrel: what it measures at its marks, and the line by which its marks are off."""

from collections.abc import Sequence
from typing import Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.words.refusal import refuse

MandrelKind = Literal["tapered", "grooved", "stepped"]
MIDDLE_MM = 17.0
"""Inside diameter about which a mandrel's line is told: US 6 1/2 or so."""
_OFF_SD_MM, _SLOPE_SD, _READ_SD_MM = 0.20, 0.02, 0.04
"""What marks are off by among mandrels, and how that grows along them [mm a mm]; what a caliper reads on a taper (common practice, no source)."""
FURTHEST_MM = 1.5
"""A mark that is further off than this was read wrongly, or is another system's."""


@dataclass(frozen=True, slots=True)
class Line:
    """By how much marks are off: `off_mm` at the middle, and `slope` more for each millimetre of diameter."""

    off_mm: float = 0.0
    slope: float = 0.0

    def true_mm(self, marked_mm: float) -> float:
        """What the mandrel measures where its mark names this inside diameter."""
        return marked_mm + self.off_mm + self.slope * (marked_mm - MIDDLE_MM)

    def marked_mm(self, inside_diameter_mm: float) -> float:
        """The inside diameter that its mark names where it measures this: `true_mm` turned round."""
        return (inside_diameter_mm - self.off_mm + self.slope * MIDDLE_MM) / (1 + self.slope)


def fitted(marks: Sequence[tuple[float, float]]) -> Line:
    """The line of marks (inside diameter that is named, and what it measures there [mm]).

    Bayesian least squares about what mandrels are usually off by, so that one mark already says something and none says nothing.
    """
    weight = 1 / _READ_SD_MM**2
    a11, a12, a22 = 1 / _OFF_SD_MM**2, 0.0, 1 / _SLOPE_SD**2
    b1 = b2 = 0.0
    for named, measured in marks:
        along, off = named - MIDDLE_MM, measured - named
        a11 += weight
        a12 += weight * along
        a22 += weight * along**2
        b1 += weight * off
        b2 += weight * along * off
    determinant = a11 * a22 - a12**2
    return Line((a22 * b1 - a12 * b2) / determinant, (a11 * b2 - a12 * b1) / determinant)


def check_mark(place: int, named_mm: float, measured_mm: float) -> None:
    """Raise `Refusal` for a mark that can't be what it measures."""
    if abs(measured_mm - named_mm) > FURTHEST_MM:
        refuse(
            f"marks.{place}.measured_mm",
            f"{measured_mm:.2f} mm is far from the {named_mm:.2f} mm that this mark names",
            "the diameter across the mandrel, by caliper, at that very mark",
        )
