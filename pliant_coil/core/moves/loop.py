"""Part of a turn to a few turns on a jaw or rod: an eye, a lip, a seat's hoop; and a scroll, rolled in on itself."""

import math
from dataclasses import replace
from typing import ClassVar, Self

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3, steps_for
from pliant_coil.core.mechanics.hulls import outside_mm
from pliant_coil.core.moves.base import Counted, Move
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Number, Thickness
from pliant_coil.core.words.say import Say, say


def _along(at: Point3, u: Point3, a: float, v: Point3, b: float) -> Point3:
    return (at[0] + u[0] * a + v[0] * b, at[1] + u[1] * a + v[1] * b, at[2] + u[2] * a + v[2] * b)


@dataclass(frozen=True)
class Loop(Move):
    """`turns` of inside diameter `inside_mm`, beginning at `at` in direction `along`, curling towards `towards` (unit vectors).

    Length: π(D + d) a turn, the neutral line of a closed loop.
    """

    inside_mm: float
    wire_mm: float
    at: Point3
    along: Point3
    towards: Point3
    turns: float = 1.0
    kind: ClassVar[str] = "loop"
    seconds: ClassVar[float] = 20.0
    hand: ClassVar[HandKind] = "loop"
    counted: ClassVar[Counted | None] = Counted("turn", step=0.25, least=0.25, most=6)

    @property
    def count(self) -> float:
        return self.turns

    @property
    def length_mm(self) -> float:
        return math.pi * (self.inside_mm + self.wire_mm) * self.turns

    @property
    def bent_to_mm(self) -> float:
        return (self.inside_mm + self.wire_mm) / 2

    def arithmetic(self) -> Say:
        turns = say("{turns} × ", turns=Number(self.turns, 2)) if self.turns != 1 else Say("")
        return say(
            "{turns}π × ({inside} inside + {wire} wire)", turns=turns, inside=Thickness(self.inside_mm), wire=Thickness(self.wire_mm)
        )

    def _point(self, radius: float, turn: float) -> Point3:
        return _along(self.at, self.along, radius * math.sin(turn), self.towards, radius * (1 - math.cos(turn)))

    @property
    def ends(self) -> Point3:
        """Where it ends."""
        return self._point((self.inside_mm + self.wire_mm) / 2, 2 * math.pi * self.turns)

    def path(self) -> list[Point3]:
        r = (self.inside_mm + self.wire_mm) / 2
        sweep = 2 * math.pi * self.turns
        steps = steps_for(r, sweep, least=max(4, round(24 * self.turns)))
        out = outside_mm(r, sweep / steps)
        # The corners stand a little outside, so that the sides are as long as the arcs; its ends stay where they are.
        return [self._point(r if k in (0, steps) else out, sweep * k / steps) for k in range(steps + 1)]

    def _counted(self, count: float) -> Self:
        return replace(self, turns=count)

    def _after(self, done: float) -> Self:
        turn = 2 * math.pi * done
        u, v = self.along, self.towards
        here = _along(self.at, u, (r := (self.inside_mm + self.wire_mm) / 2) * math.sin(turn), v, r * (1 - math.cos(turn)))
        along = _along((0.0, 0.0, 0.0), u, math.cos(turn), v, math.sin(turn))
        towards = _along((0.0, 0.0, 0.0), u, -math.sin(turn), v, math.cos(turn))
        return replace(self, turns=self.turns - done, at=here, along=along, towards=towards)


@dataclass(frozen=True)
class Eye(Loop):
    """A small eye at a wire's end."""

    kind: ClassVar[str] = "eye"
    seconds: ClassVar[float] = 30.0
    hand: ClassVar[HandKind] = "scroll"


@dataclass(frozen=True)
class Scroll(Move):
    """An Archimedean spiral of `turns` at a wire's end, from the outside in, `pitch_mm` narrower each turn down to `inner_mm`.

    It begins at `at` in direction `along` and rolls towards `towards`. Length: that of the spiral r = a + bθ,
    ½b[t√(1+t²) + arsinh t] with t = r/b, between its two radii.
    """

    inner_mm: float
    pitch_mm: float
    turns: float
    at: Point3
    along: Point3
    towards: Point3
    kind: ClassVar[str] = "scroll"
    seconds: ClassVar[float] = 60.0
    hand: ClassVar[HandKind] = "scroll"

    @property
    def outer_mm(self) -> float:
        """The neutral line's first radius."""
        return self.inner_mm + self.pitch_mm * self.turns

    @property
    def length_mm(self) -> float:
        b = self.pitch_mm / (2 * math.pi)
        return _spiral_mm(self.outer_mm, b) - _spiral_mm(self.inner_mm, b)

    @property
    def bent_to_mm(self) -> float:
        return self.inner_mm

    def arithmetic(self) -> Say:
        return say(
            "a spiral of {turns} turns from {outer} down to {inner}",
            turns=Number(self.turns, 2),
            outer=Thickness(self.outer_mm),
            inner=Thickness(self.inner_mm),
        )

    def path(self) -> list[Point3]:
        steps = max(12, math.ceil(self.turns * 24))
        points = []
        for k in range(steps + 1):
            turn = 2 * math.pi * self.turns * k / steps
            r = self.outer_mm - self.pitch_mm * turn / (2 * math.pi)
            points.append(_along(self.at, self.along, r * math.sin(turn), self.towards, self.outer_mm - r * math.cos(turn)))
        return points


def _spiral_mm(radius_mm: float, b: float) -> float:
    t = radius_mm / b
    return b / 2 * (t * math.hypot(1, t) + math.asinh(t))
