"""A stretch that stays straight."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.moves.base import Move, Point3


@dataclass(frozen=True)
class Straight(Move):
    """From one point to another in ring coordinates [mm]."""

    start: Point3
    end: Point3
    kind: ClassVar[str] = "straight"
    relative_sigma: ClassVar[float] = 0.02

    @property
    def length_mm(self) -> float:
        return math.dist(self.start, self.end)

    def arithmetic(self) -> str:
        return f"straight, {self.length_mm:.2f} mm"

    def path(self) -> list[Point3]:
        return [self.start, self.end]
