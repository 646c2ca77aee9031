"""Twisted together with others: one strand of a twisted band."""

import math
from dataclasses import replace
from typing import ClassVar, Self

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3, steps_for
from pliant_coil.core.mechanics.twisting import Cord
from pliant_coil.core.moves.base import Counted, Move, on_circle
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Length, Thickness
from pliant_coil.core.words.say import NOTHING, Say, say

_PER_LAY = 24
_SEEN_MM = 0.05


@dataclass(frozen=True)
class Twist(Move):
    """Clockwise over `along_mm` of the band's middle line, `radius_mm` from the axis, winding round it.

    `phase_rad` is where the strand begins (0: away from the finger), `hand_of` +1 for a right-hand twist, −1 for a
    left-hand one; `flat` is the cord's height over its round thickness after tapping. Length: that of a helix,
    √(1 + (2πr/lay)²) a length of cord, and what a part of a turn that isn't made up for lies further out than in; tapping
    makes more cord of the same wire (the stretch is `worked`).
    """

    cord: Cord
    radius_mm: float
    from_rad: float
    along_mm: float
    phase_rad: float
    hand_of: int
    flat: float = 1.0
    kind: ClassVar[str] = "twist"
    seconds: ClassVar[float] = 90.0
    hand: ClassVar[HandKind] = "twist"
    counted: ClassVar[Counted | None] = Counted("turn", step=0.25, least=0.25)

    @property
    def count(self) -> float:
        """Full turns of the twist, to a quarter."""
        return max(0.25, round(4 * self.along_mm / self.cord.lay_mm) / 4)

    @property
    def length_mm(self) -> float:
        return self.along_mm * self.cord.wire_per_mm + self._further_out_mm

    @property
    def _further_out_mm(self) -> float:
        turned = self._turned_rad(1.0)
        out = self.cord.helix_mm * self.flat * (math.sin(turned) - math.sin(self.phase_rad))
        return self.hand_of * out * self.cord.lay_mm / (2 * math.pi * self.radius_mm * self.cord.wire_per_mm)

    def _turned_rad(self, share: float) -> float:
        return self.phase_rad + self.hand_of * 2 * math.pi * self.along_mm * share / self.cord.lay_mm

    @property
    def advance_mm(self) -> float:
        return self.along_mm

    def arithmetic(self) -> Say:
        more = self._further_out_mm
        apart = NOTHING
        if abs(more) >= _SEEN_MM:
            apart = say(" + {more} further out", more=Thickness(more)) if more > 0 else say(" − {less} further in", less=Thickness(-more))
        return say(
            "{along} × √(1 + (2π × {helix} / {lay})²){apart}",
            along=Length(self.along_mm),
            helix=Thickness(self.cord.helix_mm),
            lay=Thickness(self.cord.lay_mm),
            apart=apart,
        )

    def point(self, share: float) -> Point3:
        """Where the strand stands after this share of its way."""
        turn = self._turned_rad(share)
        out = self.cord.helix_mm * math.cos(turn) * self.flat
        angle = self.from_rad + self.along_mm * share / self.radius_mm
        return on_circle(self.radius_mm + out, angle, self.cord.aside_mm(self.flat) * math.sin(turn))

    def path(self) -> list[Point3]:
        turns = math.ceil(self.along_mm / self.cord.lay_mm * _PER_LAY)
        steps = max(8, turns, 2 * steps_for(self.radius_mm, self.along_mm / self.radius_mm))
        return [self.point(k / steps) for k in range(steps + 1)]

    def _counted(self, count: float) -> Self:
        return replace(self, along_mm=self.along_mm * count / self.count)

    def _after(self, done: float) -> Self:
        made = self.along_mm * done / self.count
        turned = self.hand_of * 2 * math.pi * made / self.cord.lay_mm
        return replace(
            self, along_mm=self.along_mm - made, from_rad=self.from_rad + made / self.radius_mm, phase_rad=self.phase_rad + turned
        )
