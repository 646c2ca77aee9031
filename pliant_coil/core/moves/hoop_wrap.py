"""Wraps round a hoop: wires that run in a circle of their own, wherever it stands on the ring; and wraps that carry a bead."""

import math
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from typing import ClassVar, Self

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point, Point3
from pliant_coil.core.mechanics.hulls import Bundle, convex_hull
from pliant_coil.core.moves.base import Counted, Move
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.words.figures import Number, Thickness
from pliant_coil.core.words.say import Say, say

_PER_CORNER = 6


@dataclass(frozen=True)
class Hoop:
    """A circle in space: its middle, the radius of its wires' middle line, its axis, and where its angle 0 points (unit vectors)."""

    centre: Point3
    radius_mm: float
    axis: Point3
    zero: Point3

    @cached_property
    def _aside(self) -> Point3:
        (ax, ay, az), (zx, zy, zz) = self.axis, self.zero
        return (ay * zz - az * zy, az * zx - ax * zz, ax * zy - ay * zx)

    def at(self, angle_rad: float, out_mm: float = 0.0, up_mm: float = 0.0) -> Point3:
        """The point at an angle, `out_mm` outside the middle line and `up_mm` along the axis."""
        r = self.radius_mm + out_mm
        c, s = r * math.cos(angle_rad), r * math.sin(angle_rad)
        (cx, cy, cz), (zx, zy, zz), (sx, sy, sz), (ax, ay, az) = self.centre, self.zero, self._aside, self.axis
        return (cx + c * zx + s * sx + up_mm * ax, cy + c * zy + s * sy + up_mm * ay, cz + c * zz + s * sz + up_mm * az)

    def along(self, angle_rad: float) -> Point3:
        """Its direction there, as a unit vector."""
        c, s = -math.sin(angle_rad), math.cos(angle_rad)
        (zx, zy, zz), (sx, sy, sz) = self.zero, self._aside
        return (c * zx + s * sx, c * zy + s * sy, c * zz + s * sz)


@dataclass(frozen=True)
class HoopWrap(Move):
    """`wraps` taut loops of `profile` round wires that lie in `hoop`, given as (outwards, along its axis) from its middle line.

    The first begins at `from_rad`, on the hoop's inside, each goes on by `step_rad` (signed). Length: √(loop² + advance²) a wrap.
    """

    wraps: float
    bundle: Bundle
    profile: Profile
    hoop: Hoop
    from_rad: float
    step_rad: float
    kind: ClassVar[str] = "wrap"
    seconds: ClassVar[float] = 8.0
    hand: ClassVar[HandKind] = "wrap"
    counted: ClassVar[Counted | None] = Counted("wrap", step=0.5, least=0.5)

    @property
    def loop_mm(self) -> float:
        """Once round the wires, without the advance."""
        return self.bundle.loop_mm(self.profile.centroid_mm)

    @property
    def pitch_mm(self) -> float:
        """How far each goes on along the hoop's middle line."""
        return abs(self.step_rad) * self.hoop.radius_mm

    @property
    def goes_on_mm(self) -> float:
        """How far each goes on along the hoop, as its own wire does."""
        return self.pitch_mm

    @cached_property
    def length_mm(self) -> float:
        return self.wraps * math.hypot(self.loop_mm, self.goes_on_mm)

    @property
    def count(self) -> float:
        return self.wraps

    @property
    def advance_mm(self) -> float:
        return self.wraps * self.pitch_mm

    @property
    def bent_to_mm(self) -> float | None:
        return self.bundle.rounding_mm + self.profile.centroid_mm if self.bundle.rounding_mm else None

    def arithmetic(self) -> Say:
        return say(
            "{wraps} × √({loop}² round the wires + {pitch}² along the hoop)",
            wraps=Number(self.wraps),
            loop=Thickness(self.loop_mm),
            pitch=Thickness(self.goes_on_mm),
        )

    @cached_property
    def _loop(self) -> Sequence[Point]:
        """The loop from its innermost point, going up the hoop's axis first."""
        around = self.bundle.loop_points(self.profile.centroid_mm, _PER_CORNER)
        first = min(range(len(around)), key=lambda k: (round(around[k][0], 6), around[k][1]))
        turned = around[first:] + around[:first]
        return turned if turned[1][1] >= turned[-1][1] else [turned[0], *reversed(turned[1:])]

    @property
    def begins(self) -> Point3:
        """Where it begins, in ring coordinates."""
        return self.hoop.at(self.from_rad, *self._loop[0])

    @property
    def ends(self) -> Point3:
        """Where it ends."""
        return self.path()[-1]

    def path(self) -> list[Point3]:
        loop = self._loop
        n = len(loop)
        sides = [math.dist(loop[k], loop[(k + 1) % n]) for k in range(n)]
        around = sum(sides)
        points, gone, k = [], 0.0, 0
        whole = self.wraps * around
        while gone < whole - 1e-9:
            points.append(self.hoop.at(self.from_rad + self.step_rad * gone / around, *loop[k % n]))
            gone += sides[k % n]
            k += 1
        (u0, v0), (u1, v1) = loop[(k - 1) % n], loop[k % n]
        part = 1 - (gone - whole) / (sides[(k - 1) % n] or 1.0)
        points.append(self.hoop.at(self.from_rad + self.step_rad * self.wraps, u0 + (u1 - u0) * part, v0 + (v1 - v0) * part))
        return points

    def _counted(self, count: float) -> Self:
        return replace(self, wraps=count)

    def _after(self, done: float) -> Self:
        return replace(self, wraps=self.wraps - done, from_rad=self.from_rad + self.step_rad * done)


@dataclass(frozen=True)
class BeadTurn(HoopWrap):
    """A wrap that carries a bead outside the hoop: round both wires, and through the bead that sits astride of them.

    `bead_mm` is its diameter, `reach_mm` how far its middle stands outside the wires' middle line. The wire runs round the hull of the
    wires and the two mouths of the bead's hole (docs/handbook.md).
    """

    bead_mm: float = 2.0
    reach_mm: float = 1.0
    kind: ClassVar[str] = "bead-turn"
    seconds: ClassVar[float] = 25.0
    hand: ClassVar[HandKind] = "wrap"
    counted: ClassVar[Counted | None] = Counted("bead", step=0.5, least=0.5)

    @cached_property
    def _around(self) -> tuple[tuple[Point, ...], float]:
        return _round_a_bead(self.bundle.points, self.bundle.rounding_mm + self.profile.centroid_mm, self.bead_mm, self.reach_mm)

    @property
    def goes_on_mm(self) -> float:
        # Most of its wire runs outside the hoop's middle line, and further round for it.
        return self.pitch_mm * (1 + self._around[1] / self.hoop.radius_mm)

    @cached_property
    def loop_mm(self) -> float:
        """B = b + 2t + spread + 2ρα, two tangents and what is left of the arcs: closed form for two wires side by side or one."""
        rho = self.bundle.rounding_mm + self.profile.centroid_mm
        half = max(v for _, v in self.bundle.points)
        x, h = self.bead_mm / 2 - half, self.reach_mm
        reach = math.hypot(x, h)
        if reach <= rho or len({u for u, _ in self.bundle.points}) > 1:
            hull = self._around[0]
            return sum(math.dist(hull[k - 1], hull[k]) for k in range(len(hull)))
        tangent = math.sqrt(reach**2 - rho**2)
        alpha = math.pi / 2 + math.atan2(h, x) - math.acos(rho / reach)
        return self.bead_mm + 2 * tangent + 2 * half + 2 * rho * alpha

    @cached_property
    def _loop(self) -> Sequence[Point]:
        around = list(self._around[0])
        first = min(range(len(around)), key=lambda k: (round(around[k][0], 6), around[k][1]))
        turned = around[first:] + around[:first]
        return turned if turned[1][1] >= turned[-1][1] else [turned[0], *reversed(turned[1:])]

    @property
    def bead_at(self) -> Point3:
        """The middle of the (first) bead."""
        return self.hoop.at(self.from_rad + self.step_rad / 2, self.reach_mm)


@lru_cache(maxsize=64)
def _round_a_bead(wires: tuple[Point, ...], grown_mm: float, bead_mm: float, reach_mm: float) -> tuple[tuple[Point, ...], float]:
    """The wire round these wires and the mouths of a bead's hole, and how far outside the middle line it runs on average.

    The same for every hoop of those wires: a ring has many such beads, of a few sizes.
    """
    discs = tuple(
        (u + grown_mm * math.cos(math.pi * k / 24), v + grown_mm * math.sin(math.pi * k / 24)) for u, v in wires for k in range(48)
    )
    around = convex_hull((*discs, (reach_mm, -bead_mm / 2), (reach_mm, bead_mm / 2)))
    sides = [(math.dist(around[k - 1], around[k]), (around[k - 1][0] + around[k][0]) / 2) for k in range(len(around))]
    return around, sum(side * u for side, u in sides) / sum(side for side, _ in sides)
