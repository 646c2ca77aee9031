"""How steady a hand is, by kind of move: own noise of a single ring, and the bias that moves of a kind share.

Shares of the length. Before any record of the maker's own: common practice, no source.
"""

import math
from collections.abc import Sequence
from typing import Literal, Protocol

from pliant_coil.core.frozen import dataclass

HandKind = Literal[
    "arc", "straight", "wrap", "weave", "loop", "coil", "scroll", "twist", "braid", "spike", "frame", "prong", "nest", "cage", "curve",
    "lead", "sew", "coil again", "none",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class Steadiness:
    """`noise` is one ring's own standard deviation, `bias` what a maker's hand is off by in all moves of the kind."""

    noise: float
    bias: float


HAND: dict[HandKind, Steadiness] = {
    "arc": Steadiness(0.01, 0.015),
    "straight": Steadiness(0.02, 0.02),
    "wrap": Steadiness(0.04, 0.06),
    "weave": Steadiness(0.05, 0.08),
    "loop": Steadiness(0.04, 0.06),
    "coil": Steadiness(0.02, 0.03),
    "scroll": Steadiness(0.06, 0.08),
    "twist": Steadiness(0.02, 0.03),
    "braid": Steadiness(0.04, 0.06),
    "spike": Steadiness(0.05, 0.08),
    "frame": Steadiness(0.03, 0.05),
    "prong": Steadiness(0.03, 0.05),
    "nest": Steadiness(0.08, 0.10),
    "cage": Steadiness(0.08, 0.10),
    "curve": Steadiness(0.06, 0.10),
    "lead": Steadiness(0.10, 0.10),
    "sew": Steadiness(0.10, 0.15),
    "coil again": Steadiness(0.04, 0.10),
    "none": Steadiness(0.0, 0.0),
}


class KnownHand(Protocol):
    """What finished rings have shown of a maker's hand."""

    @property
    def known_rings(self) -> int:
        """How many of them counted."""

    def expects(self, moves: Sequence[tuple[HandKind, float]]) -> tuple[float, float]:
        """How much more than planned these moves take (kind, planned length), and the standard deviation of all [mm]."""


def makers_at_large(moves: Sequence[tuple[HandKind, float]]) -> float:
    """Standard deviation [mm] of what these moves take in a hand that nothing is known of: each one's own noise, and each kind's bias."""
    by_kind: dict[HandKind, float] = {}
    for kind, length in moves:
        by_kind[kind] = by_kind.get(kind, 0.0) + length
    noise = sum((HAND[kind].noise * length) ** 2 for kind, length in moves)
    return math.sqrt(noise + sum((HAND[kind].bias * length) ** 2 for kind, length in by_kind.items()))
