"""What a tool says: a line for each press of its key, `17.12 mm`, `0.674 in` or `0.84 g` (docs/devices.md)."""

import re
from dataclasses import dataclass
from typing import Literal

from pliant_coil.core.words.figures import MM_PER_INCH

LONGEST = 80
"""Characters of a line; a tool that says more in one is something else."""
_LINE = re.compile(r"([+-]?\d{1,6}(?:[.,]\d{1,6})?)\s*(mm|in|g)", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Said:
    """What was measured: a length [mm] or a mass [g]."""

    value: float
    unit: Literal["mm", "g"]


def read_line(text: str) -> Said | None:
    """What a line says; nothing where it says nothing that is measured."""
    found = _LINE.fullmatch(text.strip()) if len(text) <= LONGEST else None
    if found is None:
        return None
    value, unit = float(found[1].replace(",", ".")), found[2].lower()
    if unit == "g":
        return Said(value, "g")
    return Said(value * MM_PER_INCH if unit == "in" else value, "mm")
