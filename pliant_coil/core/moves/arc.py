"""Round the mandrel: part of a turn, or turns side by side as one helix."""

import math
from dataclasses import replace
from itertools import pairwise
from typing import ClassVar, Self

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3, steps_for
from pliant_coil.core.moves.base import Counted, Move, on_circle
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Degrees, Thickness
from pliant_coil.core.words.say import Say, say


@dataclass(frozen=True)
class Arc(Move):
    """Round the ring's axis from `from_rad` over `sweep_rad` (negative: anticlockwise), drifting along the finger from z to z.

    `radius_mm` is the neutral line's. Length: that of a helix, √((Rθ)² + Δz²).
    """

    radius_mm: float
    from_rad: float
    sweep_rad: float
    z_from_mm: float
    z_to_mm: float
    kind: ClassVar[str] = "arc"
    hand: ClassVar[HandKind] = "arc"

    @property
    def length_mm(self) -> float:
        return math.hypot(self.radius_mm * self.sweep_rad, self.z_to_mm - self.z_from_mm)

    def arithmetic(self) -> Say:
        across = Thickness(2 * self.radius_mm)
        drift = abs(self.z_to_mm - self.z_from_mm)
        if drift < 0.005:
            return say("{angle} of a circle {across} across its neutral line", angle=Degrees(abs(self.sweep_rad)), across=across)
        return say(
            "{angle} of a circle {across} across its neutral line, moving {drift} along the finger",
            angle=Degrees(abs(self.sweep_rad)),
            across=across,
            drift=Thickness(drift),
        )

    def path(self) -> list[Point3]:
        steps = steps_for(self.radius_mm, self.sweep_rad)
        drift = self.z_to_mm - self.z_from_mm
        return [
            on_circle(self.radius_mm, self.from_rad + self.sweep_rad * k / steps, self.z_from_mm + drift * k / steps)
            for k in range(steps + 1)
        ]


@dataclass(frozen=True)
class Swaying(Arc):
    """An arc that a strand sways beside: `aside` are angles from the top [rad] and how far it stands off there [mm], linear in between.

    Length: that of a helix from each angle to the next, Σ √((RΔθ)² + Δz²).
    """

    aside: tuple[tuple[float, float], ...]
    kind: ClassVar[str] = "arc"

    @property
    def length_mm(self) -> float:
        return sum(math.hypot(self.radius_mm * (then - angle), z - at) for (angle, at), (then, z) in pairwise(self.aside))

    def path(self) -> list[Point3]:
        whole = steps_for(self.radius_mm, self.sweep_rad)
        angles = {self.from_rad + self.sweep_rad * k / whole for k in range(whole + 1)} | {angle for angle, _ in self.aside}
        return [on_circle(self.radius_mm, angle, self._aside_mm(angle)) for angle in sorted(angles, reverse=self.sweep_rad < 0)]

    def _aside_mm(self, angle: float) -> float:
        """How far it stands off at an angle."""
        before = max((station for station in self.aside if station[0] <= angle), default=self.aside[0])
        after = min((station for station in self.aside if station[0] >= angle), default=self.aside[-1])
        if after[0] == before[0]:
            return before[1]
        return before[1] + (after[1] - before[1]) * (angle - before[0]) / (after[0] - before[0])


@dataclass(frozen=True)
class Turns(Arc):
    """`turns` times round, counted: the first may begin and the last may end beside the top."""

    turns: int
    kind: ClassVar[str] = "turns"
    seconds: ClassVar[float] = 20.0
    counted: ClassVar[Counted | None] = Counted("turn", most=40)

    @property
    def count(self) -> float:
        return self.turns

    @property
    def _turn(self) -> tuple[float, float]:
        """One whole turn of it: its angle, and how far it goes along the finger."""
        sign = 1 if self.sweep_rad > 0 else -1
        return sign * 2 * math.pi, (self.z_to_mm - self.z_from_mm) / abs(self.sweep_rad) * 2 * math.pi

    def _counted(self, count: float) -> Self:
        angle, drift = self._turn
        more = count - self.turns
        return replace(self, turns=round(count), sweep_rad=self.sweep_rad + more * angle, z_to_mm=self.z_to_mm + more * drift)

    def _after(self, done: float) -> Self:
        made = self._counted(done)
        return replace(
            self,
            turns=round(self.turns - done),
            from_rad=self.from_rad + made.sweep_rad,
            sweep_rad=self.sweep_rad - made.sweep_rad,
            z_from_mm=made.z_to_mm,
        )
