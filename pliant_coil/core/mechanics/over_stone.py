"""A wire's taut way over a stone from one lock point to the other, in a plane through both. Derivations in docs/handbook.md, §21.

Lock points lie at (± x, y): along the band, and below the stone's bottom (negative). Lengths in mm, angles in rad.
"""

import math
from abc import ABC, abstractmethod

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point, Point3
from pliant_coil.core.mechanics.hulls import convex_hull

_ARC_PARTS = 24


class LockedUnder(ValueError):
    """Lock points so near that they lie under the stone: no wire gets from there over it."""


@dataclass(frozen=True)
class Section:
    """A taut way over the stone in a plane, symmetric about its middle: from one lock point to the other.

    The plane's coordinates are (along it, away from the line through both lock points).
    """

    points: tuple[Point, ...]
    crosses_mm: float
    """Where it crosses the top, along the finger."""
    tilt_rad: float = 0.0
    turn_rad: float = 0.0
    lock: Point = (0.0, 0.0)

    def in_space(self, bottom_mm: float) -> list[Point3]:
        """The way in ring coordinates, the stone's bottom at this height."""
        x_l, y_l = self.lock
        found: list[Point3] = []
        for u, s in self.points:
            if self.turn_rad:
                found.append((u * math.cos(self.turn_rad), bottom_mm + y_l + s, u * math.sin(self.turn_rad)))
            else:
                found.append((u, bottom_mm + y_l + s * math.cos(self.tilt_rad), s * math.sin(self.tilt_rad)))
        found[0], found[-1] = (-x_l, bottom_mm + y_l, 0.0), (x_l, bottom_mm + y_l, 0.0)
        return found

    @property
    def aside(self) -> Point3:
        """Square to the plane."""
        if self.turn_rad:
            return (-math.sin(self.turn_rad), 0.0, math.cos(self.turn_rad))
        return (0.0, -math.sin(self.tilt_rad), math.cos(self.tilt_rad))


@dataclass(frozen=True)
class Body(ABC):
    """A stone that wires go over: its length along the band, its width along the finger, its height."""

    length_mm: float
    width_mm: float
    height_mm: float

    @abstractmethod
    def over(self, lock: Point, d: float, tilt: float) -> Section:
        """The way of a wire `d` thick in a plane tilted from upright. Raises `LockedUnder`."""

    @abstractmethod
    def crosses(self, lock: Point, tilt: float) -> float:
        """How far from the middle a way in a tilted plane crosses the top."""

    def across(self, lock: Point, d: float, turn: float) -> Section:
        """The way in an upright plane turned from the band's direction, as over an ellipsoid. Raises `LockedUnder`."""
        a, b, c = self.length_mm / 2, self.width_mm / 2, self.height_mm / 2
        x_l, y_l = lock
        half = a * b / math.hypot(b * math.cos(turn), a * math.sin(turn))
        points = _tangents(x_l * math.cos(turn), c - y_l, half + d / 2, c + d / 2)
        return Section(tuple(points), 0.0, turn_rad=turn, lock=lock)


class Ellipsoid(Body):
    """A stone that is rounded all over."""

    def over(self, lock: Point, d: float, tilt: float) -> Section:
        s0, half, high = self._cut(lock, tilt)
        return Section(tuple(_tangents(lock[0], s0, half + d / 2, high + d / 2)), (s0 + high) * math.sin(tilt), tilt_rad=tilt, lock=lock)

    def crosses(self, lock: Point, tilt: float) -> float:
        s0, _, high = self._cut(lock, tilt)
        return (s0 + high) * math.sin(tilt)

    def _cut(self, lock: Point, tilt: float) -> tuple[float, float, float]:
        """The ellipse in which the tilted plane cuts it: its middle from the lock line, and its half-axes."""
        a, b, c = self.length_mm / 2, self.width_mm / 2, self.height_mm / 2
        _, y_l = lock
        cos, sin = math.cos(tilt), math.sin(tilt)
        q = cos**2 / c**2 + sin**2 / b**2
        s0 = (c - y_l) * cos / (c**2 * q)
        k = max(1e-6, 1 - (y_l - c) ** 2 / c**2 + q * s0**2)
        return s0, a * math.sqrt(k), math.sqrt(k / q)


@dataclass(frozen=True)
class Slab(Body):
    """A slab with rounded edges."""

    edge_radius_mm: float

    def over(self, lock: Point, d: float, tilt: float) -> Section:
        # The hull of its section and both lock points.
        x_l, y_l = lock
        low, top = -y_l / math.cos(tilt), self._top(lock, tilt)
        r = min(self.edge_radius_mm, (top - low) / 2, self.length_mm / 2) + d / 2
        a = self.length_mm / 2 + d / 2
        corners = [
            (sx * (a - r) + r * math.cos(math.pi * k / 16), s + r * math.sin(math.pi * k / 16))
            for sx in (-1, 1)
            for s in (low + r - d / 2, top - r + d / 2)
            for k in range(32)
        ]
        hull = list(convex_hull(((-x_l, 0.0), (x_l, 0.0), *corners)))
        # Counter-clockwise from the right lock point over the top to the left one.
        first = hull.index((x_l, 0.0)) if (x_l, 0.0) in hull else 0
        turned = hull[first:] + hull[:first]
        way = turned[: turned.index((-x_l, 0.0)) + 1] if (-x_l, 0.0) in turned else turned
        return Section(tuple(reversed(way)), top * math.sin(tilt), tilt_rad=tilt, lock=lock)

    def crosses(self, lock: Point, tilt: float) -> float:
        return self._top(lock, tilt) * math.sin(tilt)

    def _top(self, lock: Point, tilt: float) -> float:
        """How high it reaches in the tilted plane."""
        top, sin = (self.height_mm - lock[1]) / math.cos(tilt), abs(math.sin(tilt))
        return min(top, self.width_mm / 2 / sin) if sin > 1e-9 else top


def _tangents(x_l: float, s0: float, half: float, high: float) -> list[Point]:
    """From (−x_l, 0) straight to where it touches the ellipse about (0, s0), over it, and down the other side."""
    x, y = x_l / half, -s0 / high
    reach = math.hypot(x, y)
    if reach <= 1:
        raise LockedUnder
    t0 = math.atan2(y, x) + math.acos(1 / reach)
    arc = [t0 + (math.pi / 2 - t0) * k / _ARC_PARTS for k in range(_ARC_PARTS + 1)]
    right = [(half * math.cos(t), s0 + high * math.sin(t)) for t in arc]
    return [(-x_l, 0.0), *((-u, s) for u, s in right), *reversed(right[:-1]), (x_l, 0.0)]
