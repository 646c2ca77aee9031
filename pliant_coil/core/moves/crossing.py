"""Across another turn at the back: two strands change sides, one over the other."""

import math
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import ClassVar

from pliant_coil.core.moves.base import Move, Obstacle, Point3, on_circle

_STEPS = 36


@dataclass(frozen=True)
class Crossing(Move):
    """Clockwise from `from_rad` over `sweep_rad` while the wire goes to the other lane, over or under its twin.

    Both strands of a crossing turn half round each other: a strand stands (d/2) cos πu beside the middle, and the
    upper one d sin πu above the lower, u from 0 to 1, so their middles stay a wire's width `wire_mm` apart all along.
    The length is that of the space curve. `pressed_mm` is what the upper strand's springing presses the lower one in.
    """

    radius_mm: float
    from_rad: float
    sweep_rad: float
    wire_mm: float
    left_to_right: bool
    over: bool
    pressed_mm: float
    cause: str
    kind: ClassVar[str] = "crossing"
    relative_sigma: ClassVar[float] = 0.04

    @cached_property
    def length_mm(self) -> float:
        points = self.path()
        return sum(math.dist(a, b) for a, b in pairwise(points))

    @property
    def obstacle(self) -> Obstacle | None:
        if self.over:
            return None
        middle = self.from_rad + self.sweep_rad / 2
        return Obstacle(self.cause, middle, middle, self.pressed_mm)

    def arithmetic(self) -> str:
        rise = f", rising {self.wire_mm:.2f} mm over the other" if self.over else ""
        return f"{math.degrees(self.sweep_rad):.0f}° round the back, {self.wire_mm:.2f} mm aside{rise}: the length of the curve"

    def path(self) -> list[Point3]:
        side = -0.5 if self.left_to_right else 0.5
        points = []
        for k in range(_STEPS + 1):
            turn = math.pi * k / _STEPS
            rise = self.wire_mm * math.sin(turn) if self.over else 0.0
            angle = self.from_rad + self.sweep_rad * k / _STEPS
            points.append(on_circle(self.radius_mm + rise, angle, side * self.wire_mm * math.cos(turn)))
        return points
