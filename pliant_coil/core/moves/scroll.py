"""A small scroll: the wire's end rolled in on itself."""

import math
from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.moves.base import Move, Point3, on_circle

_PER_TURN = 24


@dataclass(frozen=True)
class Scroll(Move):
    """An Archimedean spiral of `turns`, from `inner_mm` (the neutral line's first radius), `pitch_mm` wider each turn.

    It lies flat on the band at `at_rad`, beside the wire that it ends. Source of the length: the Archimedean spiral
    r = a + bθ, ½b[t√(1+t²) + arsinh t] with t = r/b, between its two radii.
    """

    inner_mm: float
    pitch_mm: float
    turns: float
    radius_mm: float
    at_rad: float
    z_mm: float
    leading: bool
    kind: ClassVar[str] = "scroll"
    relative_sigma: ClassVar[float] = 0.06

    @property
    def outer_mm(self) -> float:
        """The neutral line's last radius."""
        return self.inner_mm + self.pitch_mm * self.turns

    @property
    def length_mm(self) -> float:
        b = self.pitch_mm / (2 * math.pi)
        return _spiral_mm(self.outer_mm, b) - _spiral_mm(self.inner_mm, b)

    @property
    def count(self) -> int:
        return 1

    def arithmetic(self) -> str:
        return f"a spiral of {self.turns:g} turns from {self.inner_mm:.2f} to {self.outer_mm:.2f} mm"

    def path(self) -> list[Point3]:
        steps = math.ceil(self.turns * _PER_TURN)
        points = []
        for k in range(steps + 1):
            turn = 2 * math.pi * self.turns * k / steps
            r = self.inner_mm + self.pitch_mm * turn / (2 * math.pi)
            points.append(on_circle(self.radius_mm, self.at_rad + r * math.cos(turn) / self.radius_mm, self.z_mm + r * math.sin(turn)))
        return points if self.leading else points[::-1]


def _spiral_mm(radius_mm: float, b: float) -> float:
    t = radius_mm / b
    return b / 2 * (t * math.hypot(1, t) + math.asinh(t))
