"""Close turns on a rod; and a close coil of fine wire that is itself wound again, like a wire."""

import math
from dataclasses import replace
from typing import ClassVar

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import outside_mm
from pliant_coil.core.moves.base import Counted, Move, on_circle
from pliant_coil.core.moves.hoop_wrap import Hoop
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Number, Thickness
from pliant_coil.core.words.say import Say, say

_PER_TURN = 32


@dataclass(frozen=True)
class Coil(Move):
    """`turns` of wire on a rod, each a `pitch_mm` beside the last (negative: below it), kept as a hoop or cut in parts.

    It lies about `hoop`, whose radius is that of the wire's middle line, from `from_rad` on; wound on a thinner rod it sprang open to it.
    Length: √((π(rod + d))² + pitch²) a turn.
    """

    hoop: Hoop
    turns: float
    pitch_mm: float
    from_rad: float = 0.0
    wound_mm: float | None = None
    """Radius of its middle line on the rod, where it sprang open since."""
    kind: ClassVar[str] = "coil"
    seconds: ClassVar[float] = 5.0
    hand: ClassVar[HandKind] = "coil"
    counted: ClassVar[Counted | None] = Counted("turn", step=0.5, least=0.5, most=200)

    @property
    def count(self) -> float:
        return self.turns

    @property
    def bent_to_mm(self) -> float:
        """Radius of its middle line on the rod."""
        return self.hoop.radius_mm if self.wound_mm is None else self.wound_mm

    @property
    def length_mm(self) -> float:
        return self.turns * math.hypot(2 * math.pi * self.bent_to_mm, self.pitch_mm)

    @property
    def advance_mm(self) -> float:
        return self.turns * self.pitch_mm

    def arithmetic(self) -> Say:
        return say(
            "{turns} × √((π × {across} across its middle line)² + {pitch}²)",
            turns=Number(self.turns, 2),
            across=Thickness(2 * self.bent_to_mm),
            pitch=Thickness(abs(self.pitch_mm)),
        )

    def path(self) -> list[Point3]:
        steps = max(8, math.ceil(self.turns * _PER_TURN))
        sweep = 2 * math.pi * self.turns * self.bent_to_mm / self.hoop.radius_mm
        out = outside_mm(self.hoop.radius_mm, sweep / steps) - self.hoop.radius_mm
        middle = self.advance_mm / 2
        return [
            self.hoop.at(self.from_rad + sweep * k / steps, 0.0 if k in (0, steps) else out, self.advance_mm * k / steps - middle)
            for k in range(steps + 1)
        ]

    def _counted(self, count: float) -> "Coil":
        return replace(self, turns=count)

    def _after(self, done: float) -> "Coil":
        return replace(self, turns=self.turns - done, from_rad=self.from_rad + 2 * math.pi * done)


LEANING = 0.96
"""Turns of fine wire that find room on the inside of an outer turn, over those that would if they didn't lean.

Found numerically: turns of the curve in space brought together until the nearest two are a wire apart (docs/handbook.md).
"""
_PER_FINE_TURN = 10


@dataclass(frozen=True)
class CoilOfCoil(Move):
    """`outer_turns` of a coil of wire `wire_mm` on a rod `inner_rod_mm`, wound again on a rod `outer_rod_mm`.

    A close coil can't be squeezed on the inside of the bend: its turns touch there and fan open outside. The barrel lies
    along x with its middle on the y axis, `axis_y_mm` from the ring's axis; `bowed` it follows the circle of that radius
    about the ring's axis, and its outer turns touch on the side of the finger.
    """

    wire_mm: float
    inner_rod_mm: float
    outer_rod_mm: float
    outer_turns: int
    axis_y_mm: float
    bowed: bool = False
    kind: ClassVar[str] = "coil-of-coil"
    seconds: ClassVar[float] = 90.0
    hand: ClassVar[HandKind] = "coil again"
    counted: ClassVar[Counted | None] = Counted("outer turn", most=12)

    @property
    def coil_mm(self) -> float:
        """Outside of the first coil."""
        return self.inner_rod_mm + 2 * self.wire_mm

    @property
    def barrel_mm(self) -> float:
        """Outside of the barrel."""
        return self.outer_rod_mm + 2 * self.coil_mm

    @property
    def touch_mm(self) -> float:
        """How far from the ring's axis the outer turns of a bowed barrel touch: at the middle of those that lie on the finger."""
        return self.axis_y_mm - (self.outer_rod_mm + self.coil_mm) / 2

    @property
    def wound_mm(self) -> float:
        """How long the outer turns lie before they are bowed: each against the last."""
        return self.outer_turns * self.coil_mm

    @property
    def half_rad(self) -> float:
        """What half of a bowed barrel covers of the ring."""
        return self.wound_mm / (2 * self.touch_mm)

    @property
    def pitch_mm(self) -> float:
        """From one outer turn to the next, along the barrel's axis."""
        return self.coil_mm * (self.axis_y_mm / self.touch_mm if self.bowed else 1.0)

    @property
    def barrel_length_mm(self) -> float:
        """Along its axis."""
        return self.outer_turns * self.pitch_mm

    @property
    def turns_per_outer(self) -> float:
        """Turns of fine wire in an outer turn: they touch on the inside of the bend."""
        return LEANING * math.hypot(math.pi * (self.outer_rod_mm + self.wire_mm), self.pitch_mm) / self.wire_mm

    @property
    def wire_per_outer_mm(self) -> float:
        """Fine wire in an outer turn."""
        middle = math.hypot(math.pi * (self.outer_rod_mm + self.coil_mm), self.pitch_mm)
        n = self.turns_per_outer
        return n * math.hypot(math.pi * (self.inner_rod_mm + self.wire_mm), middle / n)

    @property
    def first_coil_mm(self) -> float:
        """Length of the first coil, close, that the outer turns need."""
        return self.outer_turns * self.turns_per_outer * self.wire_mm

    @property
    def first_turns(self) -> float:
        """Turns of the first coil that the outer turns need."""
        return self.outer_turns * self.turns_per_outer

    @property
    def length_mm(self) -> float:
        return self.outer_turns * self.wire_per_outer_mm

    @property
    def count(self) -> float:
        return self.outer_turns

    @property
    def advance_mm(self) -> float:
        return self.barrel_length_mm

    def arithmetic(self) -> Say:
        return say(
            "{outer} outer turns of {n} fine ones, {each} of wire an outer turn",
            outer=Number(self.outer_turns),
            n=Number(self.turns_per_outer),
            each=Thickness(self.wire_per_outer_mm),
        )

    @property
    def begins(self) -> Point3:
        """Where its wire begins."""
        return self._along([0.0])[0]

    @property
    def ends(self) -> Point3:
        """Where its wire ends."""
        return self._along([1.0])[0]

    def path(self) -> list[Point3]:
        steps = max(8, round(self.outer_turns * self.turns_per_outer * _PER_FINE_TURN))
        return self._along([k / steps for k in range(steps + 1)])

    def _along(self, shares: list[float]) -> list[Point3]:
        """Its wire's places at these shares of the way."""
        radius, rise, n = (self.outer_rod_mm + self.coil_mm) / 2, self.pitch_mm / (2 * math.pi), self.turns_per_outer
        r = (self.inner_rod_mm + self.wire_mm) / 2
        slope = math.hypot(radius, rise)
        left = self.barrel_length_mm / 2
        points = []
        for share in shares:
            theta = 2 * math.pi * self.outer_turns * share
            fine = n * theta
            # Along the barrel x; the helix's normal (0, −c, −s) points to its axis, the binormal stands on normal and tangent.
            c, s = math.cos(theta), math.sin(theta)
            a, b = r * math.cos(fine), r * math.sin(fine)
            along, aside = rise * theta - left, b * radius / slope
            y, z = self.axis_y_mm + radius * c - a * c + b * rise * s / slope, radius * s - a * s - b * rise * c / slope
            points.append(on_circle(y, along / self.axis_y_mm + aside / y, z) if self.bowed else (along + aside, y, z))
        return points

    def _counted(self, count: float) -> "CoilOfCoil":
        return replace(self, outer_turns=round(count))

    def _after(self, done: float) -> "CoilOfCoil":
        return replace(self, outer_turns=round(self.outer_turns - done))
