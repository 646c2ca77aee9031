"""Twisted together with others: one strand of a twisted band."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.moves.base import Move, Point3, on_circle

_PER_LAY = 16


@dataclass(frozen=True)
class Twist(Move):
    """Clockwise round the band over `sweep_rad` while winding round the band's middle line, `radius_mm` from the axis.

    A strand runs `helix_mm` beside the middle line, one full turn in `lay_mm` of it, beginning at `phase_rad`;
    `hand` is +1 for a right-hand twist, −1 for a left-hand one. Length: that of a helix, √(1 + (2πρ/p)²) a length.
    """

    radius_mm: float
    from_rad: float
    sweep_rad: float
    helix_mm: float
    lay_mm: float
    phase_rad: float
    hand: int
    kind: ClassVar[str] = "twist"
    relative_sigma: ClassVar[float] = 0.03

    @property
    def along_mm(self) -> float:
        """Length of the band's middle line."""
        return self.radius_mm * self.sweep_rad

    @property
    def count(self) -> int:
        """Full turns of the twist, to the nearest."""
        return round(self.along_mm / self.lay_mm)

    @property
    def length_mm(self) -> float:
        longer = math.hypot(1, 2 * math.pi * self.helix_mm / self.lay_mm)
        # A strand that ends on the outside of the bend has lain there longer than on the inside (first order in ρ/R).
        turned = self.hand * 2 * math.pi * self.along_mm / self.lay_mm
        outside = self.hand * self.lay_mm / (2 * math.pi) * (math.sin(self.phase_rad + turned) - math.sin(self.phase_rad))
        return self.along_mm * longer + self.helix_mm / self.radius_mm / longer * outside

    def arithmetic(self) -> str:
        return f"{self.along_mm:.1f} mm × √(1 + (2π × {self.helix_mm:.2f} / {self.lay_mm:.2f})²)"

    def point(self, share: float) -> Point3:
        """Where the strand stands after this share of its way."""
        turn = self.phase_rad + self.hand * 2 * math.pi * self.along_mm * share / self.lay_mm
        r = self.radius_mm + self.helix_mm * math.cos(turn)
        return on_circle(r, self.from_rad + self.sweep_rad * share, self.helix_mm * math.sin(turn))

    def path(self) -> list[Point3]:
        steps = max(8, math.ceil(self.along_mm / self.lay_mm * _PER_LAY))
        return [self.point(k / steps) for k in range(steps + 1)]
