"""The mark-out: where on the straight wire each stretch lies, what to mark, and where the plier's jaw stands."""

from collections.abc import Iterable
from typing import Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.moves.placed import Placed


@dataclass(frozen=True, slots=True)
class Mark:
    """A mark at a distance [mm] from the wire's first end: one to make, or where a jaw stands."""

    at_mm: float
    label: str
    kind: Literal["mark", "jaw"]


def marks(stretches: Iterable[tuple[Placed, float, float]]) -> list[Mark]:
    """The marks of a whole piece, from its first end, by its moves, where each begins and what it takes [mm]."""
    found: list[Mark] = []
    for placed, at, length in stretches:
        move = placed.move
        if move.mark:
            share = 1 - move.mark_share if placed.backwards else move.mark_share
            found.append(Mark(at + share * length, move.mark, "mark"))
        for stands in move.jaws_mm:
            jaw = length - stands if placed.backwards else stands
            found.append(Mark(max(0.0, at + jaw), f"jaw: {move.label}", "jaw"))
    return found
