"""Several times round the mandrel, side by side: each turn keeps its lane and steps to the next one at the top."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.measures import times_words
from pliant_coil.core.moves.base import Move, Point3, on_circle

_STEP_RAD = math.radians(5)


@dataclass(frozen=True)
class Turns(Move):
    """Clockwise from `from_rad` over `sweep_rad`, the neutral line `radius_mm` from the axis.

    Each time the top is passed, the wire steps `lane_mm` along the finger, within `step_half_rad` to either side of
    the top: under the head, or where the ends will lie. Source of the length: the parts of a helix.
    """

    radius_mm: float
    from_rad: float
    sweep_rad: float
    z_from_mm: float
    lane_mm: float
    step_half_rad: float
    kind: ClassVar[str] = "arc"
    relative_sigma: ClassVar[float] = 0.01

    @property
    def _steps(self) -> range:
        """The tops, in turns, at which the wire changes lanes: those well inside the sweep."""
        turn, slack = 2 * math.pi, 1e-9
        first = math.ceil((self.from_rad + self.step_half_rad) / turn - slack)
        last = math.floor((self.from_rad + self.sweep_rad - self.step_half_rad) / turn + slack)
        return range(first, last + 1)

    @property
    def z_to_mm(self) -> float:
        """Where along the finger it ends."""
        return self.z_from_mm + len(self._steps) * self.lane_mm

    @property
    def length_mm(self) -> float:
        stepping = 2 * self.step_half_rad * self.radius_mm
        return self.radius_mm * self.sweep_rad + len(self._steps) * (math.hypot(stepping, self.lane_mm) - stepping)

    def arithmetic(self) -> str:
        turned = f"{math.degrees(self.sweep_rad):.0f}° of a circle {2 * self.radius_mm:.2f} mm across its neutral line"
        steps = len(self._steps)
        return f"{turned}, stepping {times_words(steps)} by {abs(self.lane_mm):.2f} mm" if steps else turned

    def _lane(self, angle: float) -> float:
        passed = sum(min(1.0, max(0.0, (angle - 2 * math.pi * k) / (2 * self.step_half_rad) + 0.5)) for k in self._steps)
        return self.z_from_mm + passed * self.lane_mm

    def path(self) -> list[Point3]:
        end = self.from_rad + self.sweep_rad
        even = max(1, math.ceil(self.sweep_rad / _STEP_RAD))
        angles = {self.from_rad + self.sweep_rad * k / even for k in range(even + 1)}
        angles |= {2 * math.pi * k + side * self.step_half_rad for k in self._steps for side in (-1, 1)}
        return [on_circle(self.radius_mm, a, self._lane(a)) for a in sorted(angles) if self.from_rad - 1e-9 <= a <= end + 1e-9]
