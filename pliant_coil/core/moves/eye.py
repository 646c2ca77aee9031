"""A small eye at a wire's end, turned outwards in the band's own surface."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.moves.base import Move, Point3, on_circle

_STEPS = 24


@dataclass(frozen=True)
class Eye(Move):
    """One full turn of inside diameter `inside_mm`, flat on the band at `at_rad`, its middle beside the wire.

    `side` is −1 or +1: to which side along the finger. Source: π(D + d), the neutral line of a closed loop.
    """

    inside_mm: float
    wire_mm: float
    radius_mm: float
    at_rad: float
    z_mm: float
    side: float
    kind: ClassVar[str] = "eye"
    relative_sigma: ClassVar[float] = 0.06

    @property
    def length_mm(self) -> float:
        return math.pi * (self.inside_mm + self.wire_mm)

    @property
    def count(self) -> int:
        return 1

    def arithmetic(self) -> str:
        return f"π × ({self.inside_mm:g} inside + {self.wire_mm:.2f} wire) mm"

    def path(self) -> list[Point3]:
        r = (self.inside_mm + self.wire_mm) / 2
        points = []
        for k in range(_STEPS + 1):
            turn = 2 * math.pi * k / _STEPS
            along, aside = r * math.sin(turn), self.side * r * (1 - math.cos(turn))
            points.append(on_circle(self.radius_mm, self.at_rad + along / self.radius_mm, self.z_mm + aside))
        return points
