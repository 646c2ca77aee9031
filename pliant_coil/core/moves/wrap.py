"""Round a bundle: the lock beside a bead, a binding, a tie."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.hulls import Bundle
from pliant_coil.core.moves.base import Move, Obstacle, Point3, on_circle
from pliant_coil.core.profiles import Profile


@dataclass(frozen=True)
class Wrap(Move):
    """`wraps` taut loops of `profile` round `bundle`, side by side, advancing along the band.

    The band's inner side runs `band_radius_mm` from the axis; the first wrap starts at `from_rad` and each next one
    lies a wire's width further clockwise.
    """

    wraps: int
    bundle: Bundle
    profile: Profile
    band_radius_mm: float
    from_rad: float
    cause: str
    kind: ClassVar[str] = "wrap"
    relative_sigma: ClassVar[float] = 0.04

    _PER_CORNER: ClassVar[int] = 8

    @property
    def loop_mm(self) -> float:
        """Once round the bundle, without the advance."""
        return self.bundle.loop_mm(self.profile.centroid_mm)

    @property
    def length_mm(self) -> float:
        return self.wraps * math.hypot(self.loop_mm, self.profile.width_mm)

    @property
    def count(self) -> int:
        return self.wraps

    @property
    def _pitch_rad(self) -> float:
        return self.profile.width_mm / self.band_radius_mm

    @property
    def obstacle(self) -> Obstacle:
        # A round wire touches at its own middle: from the first wrap's to the last's.
        first, last = (self.from_rad + k * self._pitch_rad for k in (0.5, self.wraps - 0.5))
        return Obstacle(self.cause, first, last, self.profile.height_mm)

    def arithmetic(self) -> str:
        grown = self.bundle.rounding_mm + self.profile.centroid_mm
        loop = f"{self.bundle.hull_perimeter_mm:.2f} round the wires' hull + 2π × {grown:.3f}"
        return f"{self.wraps} × √(({loop})² + {self.profile.width_mm:.2f}²) mm"

    def path(self) -> list[Point3]:
        coil = self.bundle.coil_points(self.profile.centroid_mm, self._PER_CORNER, self.wraps, self.profile.width_mm)
        return [on_circle(self.band_radius_mm + out, self.from_rad + s / self.band_radius_mm, z) for s, z, out in coil]
