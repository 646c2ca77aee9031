"""Rows of beads in a ring file: bead by bead, or written as makers write them: `3 × 5`, `4 8 4`."""

import re
from typing import Annotated, Any

from pydantic import BeforeValidator

from pliant_coil.core.styles.stones import Bead
from pliant_coil.core.words.figures import Count, Thickness
from pliant_coil.core.words.say import Say, listed, say

_USUAL_HOLE_MM = 1.0
_PART = re.compile(r"(?:(\d{1,2})x)?(\d+(?:\.\d+)?)")


def read_row(given: Any) -> Any:
    """A row as text made into beads; anything else as it is."""
    if not isinstance(given, str):
        return given
    parts = _PART.findall(re.sub(r"\s*[x×*]\s*", "x", given))
    sizes = [float(size) for times, size in parts for _ in range(int(times or 1))]
    return [{"diameter_mm": size, "hole_mm": _USUAL_HOLE_MM} for size in sizes[:20]]


Row = Annotated[tuple[Bead, ...], BeforeValidator(read_row)]
"""Beads in their order; a text such as `3 × 5` or `4 8 4` is read too."""


def row_of(count: int, diameter_mm: float) -> tuple[Bead, ...]:
    """So many beads alike."""
    return (Bead(diameter_mm=diameter_mm, hole_mm=_USUAL_HOLE_MM),) * count


def row_words(beads: tuple[Bead, ...]) -> Say:
    """`three 5 mm beads`, or each size in its turn."""
    sizes = [bead.diameter_mm for bead in beads]
    if len(set(sizes)) == 1:
        return say("{n} of {size}", n=Count(len(beads), "bead", "beads"), size=Thickness(sizes[0]))
    return say("beads of {sizes}", sizes=listed([Thickness(size) for size in sizes]))
