"""One strand of a flat braid, and wire whose way isn't drawn."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.braiding import Braid
from pliant_coil.core.moves.base import Move, Point3, on_circle


@dataclass(frozen=True)
class Strand(Move):
    """A strand of `braid` over `sweep_rad` of a band whose middle runs `radius_mm` from the axis.

    `phase` says where in its zigzag it begins; `measured` is what the maker's own first centimetres took over what
    was reckoned. Length: that of the space curve.
    """

    braid: Braid
    radius_mm: float
    from_rad: float
    sweep_rad: float
    phase: float
    measured: float
    backwards: bool
    kind: ClassVar[str] = "strand"
    relative_sigma: ClassVar[float] = 0.06

    @property
    def length_mm(self) -> float:
        return self.braid.wire_over_mm(self.phase, self.radius_mm * self.sweep_rad) * self.measured

    def arithmetic(self) -> str:
        flat = 1 / math.cos(self.braid.angle_rad)
        crimp = self.braid.wire_per_mm / flat
        own = f" × {self.measured:.3f} by your own first centimetres" if self.measured != 1 else ""
        return f"{self.radius_mm * self.sweep_rad:.1f} mm × {flat:.3f} (1/cos α) × {crimp:.3f} for going over and under{own}"

    def path(self) -> list[Point3]:
        points = [
            on_circle(self.radius_mm + out, self.from_rad + s / self.radius_mm, z)
            for s, z, out in self.braid.points(self.phase, self.radius_mm * self.sweep_rad)
        ]
        return points[::-1] if self.backwards else points


@dataclass(frozen=True)
class Loose(Move):
    """Wire that has its length but no drawn way: a fold round the starting eye, an end that is tucked in."""

    loose_mm: float
    why: str
    kind: ClassVar[str] = "loose"
    relative_sigma: ClassVar[float] = 0.1

    @property
    def length_mm(self) -> float:
        return self.loose_mm

    def arithmetic(self) -> str:
        return self.why

    def path(self) -> list[Point3]:
        return []
