"""The mandrel: its marks, its taper, and the tools that read a ring's size."""

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.trade.sizes import ON_THE_MARK_MM, SYSTEMS, US_STEP_MM, nearest_mark
from pliant_coil.core.words.figures import length_text
from pliant_coil.core.words.say import Figure, Reader

RANGE_MM = (SYSTEMS["us"].to_diameter_mm(1), SYSTEMS["us"].to_diameter_mm(16))
"""Inside diameters on an ordinary mandrel, US 1 to 16 (common practice, no source)."""
TAPER = 1 / 16
"""Diameter gained per length of an ordinary mandrel: a US size in 13 mm (common practice, no source)."""
QUARTER_US_MM = US_STEP_MM / 4


def along_mm(diameter_difference_mm: float) -> float:
    """How far along an ordinary mandrel a difference of inside diameter [mm] lies."""
    return diameter_difference_mm / TAPER


@dataclass(frozen=True, slots=True)
class Along(Figure):
    """Where an inside diameter [mm] lies along an ordinary mandrel: from the nearest mark of the reader's first system."""

    inside_diameter_mm: float

    def written(self, reader: Reader) -> str:
        at = reader.mandrel.marked_mm(self.inside_diameter_mm) if reader.mandrel else self.inside_diameter_mm
        mark = nearest_mark(at, SYSTEMS[reader.systems[0]])
        if mark.label is None or abs(mark.remainder_mm) < ON_THE_MARK_MM:
            return mark.text
        side = "past" if mark.remainder_mm > 0 else "before"
        return f"{length_text(abs(along_mm(mark.remainder_mm)), reader.units)} {side} {mark.system.code.upper()} {mark.label}"
