"""Coils that bind a row of wires round the band."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.hulls import Bundle
from pliant_coil.core.moves.base import Move, Point3, on_circle
from pliant_coil.core.profiles import Profile


@dataclass(frozen=True)
class Binding(Move):
    """`coils` of `profile` side by side round `bundle`, whose middle runs `radius_mm` from the axis.

    The first begins `from_mm` along the band from its bottom. Source: √(hull² + width²) a coil.
    """

    coils: int
    bundle: Bundle
    profile: Profile
    radius_mm: float
    from_mm: float
    kind: ClassVar[str] = "bind"
    relative_sigma: ClassVar[float] = 0.04

    @property
    def length_mm(self) -> float:
        return self.coils * math.hypot(self.bundle.loop_mm(self.profile.centroid_mm), self.profile.width_mm)

    @property
    def count(self) -> int:
        return self.coils

    def arithmetic(self) -> str:
        loop = self.bundle.loop_mm(self.profile.centroid_mm)
        return f"{self.coils} × √({loop:.2f}² round the row + {self.profile.width_mm:.2f}²) mm"

    def path(self) -> list[Point3]:
        coil = self.bundle.coil_points(self.profile.centroid_mm, 4, self.coils, self.profile.width_mm)
        return [on_circle(self.radius_mm + out, math.pi + (self.from_mm + s) / self.radius_mm, z) for s, z, out in coil]
