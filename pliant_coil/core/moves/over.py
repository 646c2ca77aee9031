"""Taut over a round body that stands on the band, from one foot to the other."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.moves.base import Move, Point3


@dataclass(frozen=True)
class Over(Move):
    """From the foot at (−foot_x, foot_y) over a circle about (0, centre_y) to the foot at (foot_x, foot_y), clockwise.

    `radius_mm` is the neutral line's on the body. The wire leaves each foot along the tangent to that circle.
    Needs feet outside the circle and not above its centre.
    """

    foot_x_mm: float
    foot_y_mm: float
    centre_y_mm: float
    radius_mm: float
    z_mm: float
    kind: ClassVar[str] = "over"
    relative_sigma: ClassVar[float] = 0.04

    @property
    def _tangent(self) -> tuple[float, float]:
        """Length of a tangent [mm], and the angle from the top [rad] at which it meets the body."""
        drop = self.centre_y_mm - self.foot_y_mm
        away = math.hypot(self.foot_x_mm, drop)
        length = math.sqrt(max(0.0, away * away - self.radius_mm**2))
        meets = math.atan2(self.foot_x_mm, -drop) - math.acos(min(1.0, self.radius_mm / away))
        return length, meets

    @property
    def length_mm(self) -> float:
        length, meets = self._tangent
        return 2 * length + 2 * meets * self.radius_mm

    def arithmetic(self) -> str:
        length, meets = self._tangent
        return f"up {length:.2f}, {math.degrees(2 * meets):.0f}° over the top {2 * meets * self.radius_mm:.2f}, down {length:.2f} mm"

    def path(self) -> list[Point3]:
        _, meets = self._tangent
        steps = 24
        angles = [-meets + 2 * meets * k / steps for k in range(steps + 1)]
        top = [(self.radius_mm * math.sin(a), self.centre_y_mm + self.radius_mm * math.cos(a), self.z_mm) for a in angles]
        return [(-self.foot_x_mm, self.foot_y_mm, self.z_mm), *top, (self.foot_x_mm, self.foot_y_mm, self.z_mm)]
