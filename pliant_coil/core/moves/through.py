"""Through a bead's hole."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.moves.base import Move, Point3


@dataclass(frozen=True)
class Through(Move):
    """Straight through the hole of a bead that is as long as the hole."""

    start: Point3
    end: Point3
    kind: ClassVar[str] = "through"
    relative_sigma: ClassVar[float] = 0.01

    @property
    def length_mm(self) -> float:
        return math.dist(self.start, self.end)

    def arithmetic(self) -> str:
        return f"the bead's hole, {self.length_mm:.2f} mm long"

    def path(self) -> list[Point3]:
        return [self.start, self.end]
