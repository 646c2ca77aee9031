"""Round the mandrel."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.moves.base import Move, Point3, on_circle


@dataclass(frozen=True)
class Arc(Move):
    """Clockwise round the ring's axis from `from_rad` over `sweep_rad`, drifting along the finger from z to z.

    `radius_mm` is the neutral line's: half the form diameter and the wire's centroid height.
    """

    radius_mm: float
    from_rad: float
    sweep_rad: float
    z_from_mm: float
    z_to_mm: float
    kind: ClassVar[str] = "arc"
    relative_sigma: ClassVar[float] = 0.01

    _STEP_RAD: ClassVar[float] = math.radians(5)

    @property
    def length_mm(self) -> float:
        return math.hypot(self.radius_mm * self.sweep_rad, self.z_to_mm - self.z_from_mm)

    def arithmetic(self) -> str:
        turns = f"{math.degrees(self.sweep_rad):.0f}° of a circle {2 * self.radius_mm:.2f} mm across its neutral line"
        drift = self.z_to_mm - self.z_from_mm
        return f"{turns}, moving {drift:.2f} mm along the finger" if drift else turns

    def path(self) -> list[Point3]:
        steps = max(1, math.ceil(self.sweep_rad / self._STEP_RAD))
        drift = self.z_to_mm - self.z_from_mm
        return [
            on_circle(self.radius_mm, self.from_rad + self.sweep_rad * k / steps, self.z_from_mm + drift * k / steps)
            for k in range(steps + 1)
        ]
