"""The mark-out: where on the straight wire each stretch lies, what to mark, and where the plier's jaw stands."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from pliant_coil.core.moves import Move


@dataclass(frozen=True, slots=True)
class Mark:
    """A mark at a distance [mm] from the wire's first end: one to make, or where a jaw stands."""

    at_mm: float
    label: str
    kind: Literal["mark", "jaw"]


def marks(moves: Sequence[Move]) -> list[Mark]:
    """The marks of a whole piece, from its first end."""
    found: list[Mark] = []
    at = 0.0
    for move in moves:
        if move.mark:
            found.append(Mark(at + move.mark_share * move.length_mm, move.mark, "mark"))
        if move.jaw_mm is not None:
            found.append(Mark(at + move.jaw_mm, f"jaw: {move.label}", "jaw"))
        at += move.length_mm
    return found
