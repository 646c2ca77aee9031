"""A row of equal loops, each a step further than the last, wound round something that stands."""

import math
from dataclasses import replace
from typing import ClassVar, Self

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import outside_mm
from pliant_coil.core.moves.base import Counted, Move
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Number, Thickness
from pliant_coil.core.words.say import Say, say

_PER_LOOP = 20


@dataclass(frozen=True)
class Spiral:
    """A row wound round the y axis at `height_mm`: its radius grows by `growth_mm` a turn.

    Archimedean: arc length s from r₀ turns by ψ = (√(r₀² + 2κs) − r₀)/κ, κ = growth/2π, to within a thousandth for such slow growth.
    """

    first_mm: float
    growth_mm: float
    height_mm: float
    from_rad: float
    sense: int

    @property
    def _kappa(self) -> float:
        return self.growth_mm / (2 * math.pi)

    def turned_rad(self, along_mm: float) -> float:
        """How far it has gone round after this length."""
        return (math.sqrt(self.first_mm**2 + 2 * self._kappa * along_mm) - self.first_mm) / self._kappa

    def radius_mm(self, along_mm: float) -> float:
        """Its radius there."""
        return self.first_mm + self._kappa * self.turned_rad(along_mm)

    def frame(self, along_mm: float) -> tuple[Point3, Point3, Point3]:
        """The point there, its direction and outwards, as unit vectors."""
        r = self.radius_mm(along_mm)
        angle = self.from_rad + self.sense * self.turned_rad(along_mm)
        c, s = math.cos(angle), math.sin(angle)
        return (r * c, self.height_mm, r * s), (-self.sense * s, 0.0, self.sense * c), (c, 0.0, s)


@dataclass(frozen=True)
class LoopRow(Move):
    """`loops` of inside diameter `inside_mm`, a step apart, along `spiral`; splayed outwards from upright by `splay_rad`.

    Length: m·(π(D + d) + step).
    """

    loops: int
    inside_mm: float
    wire_mm: float
    step_mm: float
    spiral: Spiral
    splay_rad: float
    kind: ClassVar[str] = "loop-row"
    seconds: ClassVar[float] = 15.0
    hand: ClassVar[HandKind] = "loop"
    counted: ClassVar[Counted | None] = Counted("loop", most=40)
    begun_mm: float = 0.0
    """How far along the spiral it begins."""

    @property
    def count(self) -> float:
        return self.loops

    @property
    def each_mm(self) -> float:
        """Wire of one loop and its step."""
        return math.pi * (self.inside_mm + self.wire_mm) + self.step_mm

    @property
    def length_mm(self) -> float:
        return self.loops * self.each_mm

    @property
    def advance_mm(self) -> float:
        return self.loops * self.step_mm

    @property
    def bent_to_mm(self) -> float:
        return (self.inside_mm + self.wire_mm) / 2

    def arithmetic(self) -> Say:
        return say(
            "{loops} × (π × ({inside} inside + {wire} wire) + {step} to the next)",
            loops=Number(self.loops),
            inside=Thickness(self.inside_mm),
            wire=Thickness(self.wire_mm),
            step=Thickness(self.step_mm),
        )

    def path(self) -> list[Point3]:
        r = (self.inside_mm + self.wire_mm) / 2
        out = outside_mm(r, 2 * math.pi / _PER_LOOP)
        points = [self.spiral.frame(self.begun_mm)[0]]

        def goes_on(j: float) -> None:
            points.append(self.spiral.frame(self.begun_mm + j * self.step_mm)[0])

        up = (math.cos(self.splay_rad), math.sin(self.splay_rad))
        for j in range(self.loops):
            goes_on(j + 0.25)
            (x, y, z), (tx, _, tz), (nx, _, nz) = self.spiral.frame(self.begun_mm + (j + 0.5) * self.step_mm)
            for k in range(_PER_LOOP + 1):
                v = 2 * math.pi * k / _PER_LOOP
                size = r if k in (0, _PER_LOOP) else out
                along, rise = size * math.sin(v), r - size * math.cos(v)
                points.append((x + along * tx + rise * up[1] * nx, y + rise * up[0], z + along * tz + rise * up[1] * nz))
            goes_on(j + 0.75)
            goes_on(j + 1)
        return points

    def _counted(self, count: float) -> Self:
        return replace(self, loops=round(count))

    def _after(self, done: float) -> Self:
        return replace(self, loops=round(self.loops - done), begun_mm=self.begun_mm + done * self.step_mm)
