"""The mark-out: where on the straight wire each stretch lies, what to mark, and where the plier's jaw stands."""

from collections.abc import Sequence
from typing import Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.moves.placed import Placed


@dataclass(frozen=True, slots=True)
class Mark:
    """A mark at a distance [mm] from the wire's first end: one to make, or where a jaw stands."""

    at_mm: float
    label: str
    kind: Literal["mark", "jaw"]


def marks(moves: Sequence[Placed]) -> list[Mark]:
    """The marks of a whole piece, from its first end."""
    found: list[Mark] = []
    at = 0.0
    for placed in moves:
        move, length = placed.move, placed.length_mm
        if move.mark:
            share = 1 - move.mark_share if placed.backwards else move.mark_share
            found.append(Mark(at + share * length, move.mark, "mark"))
        for stands in move.jaws_mm:
            jaw = length - stands if placed.backwards else stands
            found.append(Mark(max(0.0, at + jaw), f"jaw: {move.label}", "jaw"))
        at += length
    return found
