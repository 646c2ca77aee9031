"""A bend at pliers, or against a bead."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.moves.base import Move, Point3


@dataclass(frozen=True)
class Bend(Move):
    """In the ring's plane, about `centre`, the neutral line `radius_mm` away, from `from_rad` over `sweep_rad`.

    Angles as in the ring: from the top, clockwise positive. `wire_mm` is the wire's diameter: a bend lands about
    that far past the jaw (common practice, no source), so the jaw stands that much short of it.
    """

    centre: Point3
    radius_mm: float
    from_rad: float
    sweep_rad: float
    wire_mm: float
    jaw_at_end: bool = False
    """The pliers hold the far side: the jaw stands past the bend's end instead of before its start."""
    kind: ClassVar[str] = "bend"
    relative_sigma: ClassVar[float] = 0.05

    @property
    def length_mm(self) -> float:
        return self.radius_mm * abs(self.sweep_rad)

    @property
    def jaw_mm(self) -> float:
        return self.length_mm + self.wire_mm if self.jaw_at_end else -self.wire_mm

    def arithmetic(self) -> str:
        return f"{math.degrees(abs(self.sweep_rad)):.0f}° with the neutral line {self.radius_mm:.2f} mm from the corner"

    def path(self) -> list[Point3]:
        x, y, z = self.centre
        steps = 6
        angles = [self.from_rad + self.sweep_rad * k / steps for k in range(steps + 1)]
        return [(x + self.radius_mm * math.sin(a), y + self.radius_mm * math.cos(a), z) for a in angles]
