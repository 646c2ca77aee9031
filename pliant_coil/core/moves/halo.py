"""Turns round a stone in the plane of its hole, each outside the last, or climbing up it."""

import math
from dataclasses import replace
from typing import ClassVar, Literal, Self

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point, Point3, length_mm
from pliant_coil.core.moves.base import Counted, Move
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Number, Thickness
from pliant_coil.core.words.say import Say, say

_PER_TURN = 64


@dataclass(frozen=True)
class Halo(Move):
    """`turns` round an outline of these half-axes (along the band, along the finger), a strip `pitch_mm` wide.

    Flat, it comes in from `turns` strips outside the stone to its hole: n·P + πn²b for a circle of circumference P. Climbing, it comes
    down the stone (half height `half_height_mm`) a strip a turn, to half a strip under the hole's plane. It ends at the left.
    """

    half_length_mm: float
    half_width_mm: float
    half_height_mm: float
    turns: float
    pitch_mm: float
    axis_y_mm: float
    climbing: bool = False
    outer: float | None = None
    """How many turns lie under it where it begins; as many as there are unless it was begun before."""
    kind: ClassVar[str] = "nest"
    seconds: ClassVar[float] = 45.0
    hand: ClassVar[HandKind] = "nest"
    counted: ClassVar[Counted | None] = Counted("turn", step=1, least=1, most=4)

    @property
    def count(self) -> float:
        return self.turns

    @property
    def _first(self) -> float:
        return self.turns if self.outer is None else self.outer

    def _at(self, gone: float) -> Point3:
        """After so many turns, from the outside in."""
        left = self._first - gone
        angle = math.pi + 2 * math.pi * gone
        if self.climbing:
            # Round the stone at its height: the wire's middle half a strip outside.
            high = (left - 0.5) * self.pitch_mm
            grown = self.pitch_mm / 2
            share = math.sqrt(max(0.05, 1 - (high / (self.half_height_mm + grown)) ** 2))
            a, b = (self.half_length_mm + grown) * share, (self.half_width_mm + grown) * share
            return (a * math.cos(angle), self.axis_y_mm + high, b * math.sin(angle))
        off = left * self.pitch_mm
        return ((self.half_length_mm + off) * math.cos(angle), self.axis_y_mm, (self.half_width_mm + off) * math.sin(angle))

    @cached_property
    def _points(self) -> list[Point3]:
        steps = max(8, round(self.turns * _PER_TURN))
        return [self._at(self.turns * k / steps) for k in range(steps + 1)]

    @cached_property
    def length_mm(self) -> float:
        # Chords of a circle cut in n parts are short by π²/6n² of it.
        return length_mm(self._points) * (1 + math.pi**2 / (6 * _PER_TURN**2))

    @property
    def begins(self) -> Point3:
        """Where it begins, on the outside at the left."""
        return self._at(0.0)

    @property
    def ends(self) -> Point3:
        """Where it ends, at the hole on the left."""
        return self._at(self.turns)

    def crossed(self, side: Literal[1, -1]) -> tuple[Point, ...]:
        """Where its turns cross the stone's middle plane, in front (1) or behind: (along the finger, up)."""
        quarter = 0.75 if side > 0 else 0.25
        return tuple((z, y) for _, y, z in (self._at(quarter + turn) for turn in range(math.ceil(self.turns - quarter))))

    def arithmetic(self) -> Say:
        if self.climbing:
            return say(
                "{turns} turns up the stone, {strip} a turn: the length of the curve",
                turns=Number(self.turns),
                strip=Thickness(self.pitch_mm),
            )
        return say("{turns} × once round the stone + π × {turns}² × {strip}", turns=Number(self.turns), strip=Thickness(self.pitch_mm))

    def path(self) -> list[Point3]:
        return list(self._points)

    def _counted(self, count: float) -> Self:
        return replace(self, turns=count)

    def _made(self, done: float) -> Self:
        return replace(self, turns=done, outer=self._first)

    def _after(self, done: float) -> Self:
        return replace(self, turns=self.turns - done, outer=self._first - done)
