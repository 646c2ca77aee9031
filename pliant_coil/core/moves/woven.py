"""Weave: one wire's way round the base wires of a woven band."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.moves.base import Move, Point3, on_circle
from pliant_coil.core.weaving import Weave


@dataclass(frozen=True)
class Weaving(Move):
    """`cycles` of `weave` along the base wires, whose neutral line runs `radius_mm` from the axis.

    The stretch begins `from_mm` along the band, counted from its bottom, clockwise positive; `backwards` goes the
    other way, so that two halves mirror each other.
    """

    weave: Weave
    cycles: int
    radius_mm: float
    from_mm: float
    backwards: bool
    kind: ClassVar[str] = "weave"
    relative_sigma: ClassVar[float] = 0.05

    @property
    def length_mm(self) -> float:
        return self.cycles * self.weave.wire_per_cycle_mm

    @property
    def count(self) -> int:
        return self.cycles

    def arithmetic(self) -> str:
        wraps = " + ".join(f"{g.wraps} × {self.weave.loop_mm(g):.2f} on {g.name}" for g in self.weave.groups)
        return f"{self.cycles} × {self.weave.wire_per_cycle_mm:.2f} mm a repeat ({wraps}, and changing wires where it does)"

    def path(self) -> list[Point3]:
        cycle = self.weave.cycle_points()
        sense = -1 if self.backwards else 1
        points = []
        for k in range(self.cycles):
            start = k * self.weave.cycle_mm
            for s, z, out in cycle:
                angle = math.pi + (self.from_mm + sense * (start + s)) / self.radius_mm
                points.append(on_circle(self.radius_mm + out, angle, z))
        return points
