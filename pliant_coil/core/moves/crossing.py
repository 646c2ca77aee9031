"""Across another turn at the back: two strands change sides, one over the other."""

import math
from typing import ClassVar

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point3, length_mm
from pliant_coil.core.moves.base import Cause, Move, Obstacle, on_circle
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Degrees, Thickness
from pliant_coil.core.words.say import Say, say

_STEPS = 24
_EIGHTHS = 8
"""Where a strand that is pressed in counts as standing inside: at each but the first and the last, where it doesn't yet."""


@dataclass(frozen=True)
class Crossing(Move):
    """Clockwise from `from_rad` over `sweep_rad` while the wire goes from z to z, over or under its twin.

    Both strands of a crossing turn half round each other: a strand stands `wire_mm`/2 cos πu beside the middle, and the
    upper one rises by `wire_mm` sin πu, u from 0 to 1, so their middles stay a wire's width apart all along. The
    length is that of the space curve. `pressed_mm` is what the upper strand's springing presses the lower one in.
    """

    radius_mm: float
    from_rad: float
    sweep_rad: float
    wire_mm: float
    z_from_mm: float
    z_to_mm: float
    over: bool
    pressed_mm: float
    cause: Cause
    kind: ClassVar[str] = "crossing"
    seconds: ClassVar[float] = 20.0
    hand: ClassVar[HandKind] = "curve"

    @cached_property
    def length_mm(self) -> float:
        return length_mm(self.path())

    @property
    def obstacles(self) -> tuple[Obstacle, ...]:
        if self.over:
            return ()
        places = ((self.from_rad + self.sweep_rad * k / _EIGHTHS, self._dip_mm(k / _EIGHTHS)) for k in range(1, _EIGHTHS))
        return tuple(Obstacle(self.cause, angle, angle, dip) for angle, dip in places)

    def _dip_mm(self, share: float) -> float:
        """How far the lower strand is pressed in, so far along."""
        return self.pressed_mm * math.sin(math.pi * share)

    def arithmetic(self) -> Say:
        text = "{angle} round the back, {aside} aside"
        if self.over:
            text += ", rising {wire} over the other"
        aside = abs(self.z_to_mm - self.z_from_mm)
        return say(
            text + ": the length of the curve", angle=Degrees(abs(self.sweep_rad)), aside=Thickness(aside), wire=Thickness(self.wire_mm)
        )

    def path(self) -> list[Point3]:
        middle, half = (self.z_from_mm + self.z_to_mm) / 2, (self.z_from_mm - self.z_to_mm) / 2
        points = []
        for k in range(_STEPS + 1):
            turn = math.pi * k / _STEPS
            # The lower strand gives way by what it is pressed in; the upper one lies on it.
            rise = (self.wire_mm * math.sin(turn) if self.over else 0.0) - self._dip_mm(k / _STEPS)
            angle = self.from_rad + self.sweep_rad * k / _STEPS
            points.append(on_circle(self.radius_mm + rise, angle, middle + half * math.cos(turn)))
        return points
