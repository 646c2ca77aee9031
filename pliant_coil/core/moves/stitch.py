"""Sewing: through a hole, an eye or under strands, and back."""

import math
from collections.abc import Callable, Sequence
from dataclasses import field, replace
from typing import ClassVar, Self

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point, Point3, at_shares
from pliant_coil.core.moves.base import Counted, Move, Obstacle
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Number, Thickness
from pliant_coil.core.words.say import Say, say


@dataclass(frozen=True)
class Stitch(Move):
    """`stitches` of `each_mm`, and the ways between them.

    They run hidden, under what they hold: only what is led a `way` is drawn. `inside` is what passes between finger and band.
    """

    stitches: int
    each_mm: float
    between_mm: float = 0.0
    """Ways from stitch to stitch, all together."""
    inside: tuple[Obstacle, ...] = ()
    way: Callable[[], Sequence[Point3]] | None = field(default=None, compare=False)
    kind: ClassVar[str] = "stitch"
    seconds: ClassVar[float] = 25.0
    hand: ClassVar[HandKind] = "sew"
    counted: ClassVar[Counted | None] = Counted("stitch", most=60)

    @property
    def count(self) -> float:
        return self.stitches

    @property
    def length_mm(self) -> float:
        return self.stitches * self.each_mm + self.between_mm

    @property
    def obstacles(self) -> tuple[Obstacle, ...]:
        return self.inside

    def arithmetic(self) -> Say:
        between = say(" + {between} from one to the next", between=Thickness(self.between_mm)) if self.between_mm else Say("")
        return say("{n} × {each}{between}", n=Number(self.stitches), each=Thickness(self.each_mm), between=between)

    def path(self) -> list[Point3]:
        return list(self.way()) if self.way else []

    def _counted(self, count: float) -> Self:
        per = self.between_mm / self.stitches
        return replace(self, stitches=round(count), between_mm=per * round(count))

    def _after(self, done: float) -> Self:
        return self._counted(self.stitches - done)


def rounds_along(loop: Sequence[Point], start: Point, rounds: int, from_mm: float, step_mm: float) -> list[Point3]:
    """So many times round a closed loop, from its corner nearest to `start`, each a step on from the last: (along, and the loop's two)."""
    first = min(range(len(loop)), key=lambda k: math.dist(loop[k], start))
    once = at_shares([*loop[first:], *loop[:first], loop[first]], len(loop))
    again = [(from_mm + step_mm * (turn + share), *point) for turn in range(rounds) for share, point in once[1:]]
    return [(from_mm, *loop[first]), *again]


@dataclass(frozen=True)
class Hitch(Move):
    """Fine wire drawn round what it holds where nobody sees it: its length, and how that comes about. It isn't drawn."""

    mm: float
    why: Say
    kind: ClassVar[str] = "hitch"
    hand: ClassVar[HandKind] = "wrap"

    @property
    def length_mm(self) -> float:
        return self.mm

    def arithmetic(self) -> Say:
        return self.why

    def path(self) -> list[Point3]:
        return []
