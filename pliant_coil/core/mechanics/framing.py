"""A frame of two wires round a flat bead's edge: where it leaves the band, how it turns into the edge, and how far it goes.

Seen from above, x along the band and z along the finger. Everything is of the right-hand pair, which comes in along z = 0, turns away to
+z on the shoulder's circle, touches the edge and follows it to beside the other pair. Lengths in mm, angles in rad (docs/handbook.md, §20).
"""

import math
from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache
from typing import Literal

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point, length_mm
from pliant_coil.core.mechanics.roots import where_it_reaches

EdgeShape = Literal["round", "oval", "rectangle", "drop"]
_STEP_RAD = math.radians(0.5)


@dataclass(frozen=True)
class Edge:
    """A convex outline, alike on both sides of the band's line, by the direction of its outward normal.

    `long_mm` along the band, `wide_mm` along the finger; `corner_mm` rounds a rectangle's corners and a drop's tip. A drop's tip points to
    +x, or to −x where it is `turned`. `shift_mm` moves it along the band.
    """

    shape: EdgeShape
    long_mm: float
    wide_mm: float
    corner_mm: float = 0.0
    turned: bool = False
    shift_mm: float = 0.0

    def at(self, normal_rad: float) -> Point:
        """The outline's point whose normal has this direction, from 0 (along the band) to π; of a straight side, its end further on."""
        c, s = math.cos(normal_rad), math.sin(normal_rad)
        a, b = self.long_mm / 2, self.wide_mm / 2
        match self.shape:
            case "rectangle":
                r = self.corner_mm
                side = 1.0 if normal_rad < math.pi / 2 else -1.0
                x, z = side * (a - r) + r * c, (b - r) + r * s
            case "drop":
                x, z = self._drop(c, s, a, b)
            case _:
                size = math.hypot(a * c, b * s)
                x, z = a * a * c / size, b * b * s / size
        return x + self.shift_mm, z

    def _drop(self, c: float, s: float, a: float, b: float) -> Point:
        """A large circle, a small one at the tip, and the lines that touch both."""
        tip = self.corner_mm
        apart = 2 * a - b - tip
        leans = (b - tip) / apart
        seen = -c if self.turned else c
        radius, middle = (tip, a - tip) if seen > leans else (b, b - a)
        x = middle + radius * seen
        return (-x if self.turned else x), radius * s


@dataclass(frozen=True)
class Frame:
    """The right-hand pair round `edge`: the inner wire's middle line runs `off_mm` outside it, the outer's a pitch further."""

    edge: Edge
    off_mm: float
    pitch_mm: float
    shoulder_mm: float
    wire_mm: float
    level_mm: float
    """Height of the frame's plane above the finger's axis."""

    def _offset(self, normal_rad: float, off_mm: float) -> Point:
        x, z = self.edge.at(normal_rad)
        return x + off_mm * math.cos(normal_rad), z + off_mm * math.sin(normal_rad)

    @cached_property
    def _seen_from_above(self) -> "Frame":
        return _known(replace(self, level_mm=0.0))

    @property
    def parts_rad(self) -> float:
        """φ: where the frame leaves the shoulder's turn; 0 where it touches a straight side across the band."""
        return self._seen_from_above._parts_rad

    @cached_property
    def _parts_rad(self) -> float:
        """φ: where the frame leaves the shoulder's turn; 0 where it touches a straight side across the band."""
        reach = self.off_mm + self.pitch_mm / 2 + self.shoulder_mm
        return _root(lambda normal: self._offset(normal, reach)[1] - self.shoulder_mm, 0.0, math.pi / 2)

    @cached_property
    def meets_mm(self) -> float:
        """x_c: how far from the bead's axis the band comes up."""
        return self._offset(self.parts_rad, self.off_mm + self.pitch_mm / 2 + self.shoulder_mm)[0]

    def line(self, inner: bool) -> tuple[Point, ...]:
        """A wire's middle line, from where the band comes up to beside the other pair."""
        above = self._seen_from_above
        return above._inner if inner else above._outer

    @cached_property
    def _inner(self) -> tuple[Point, ...]:
        return self._line(inner=True)

    @cached_property
    def _outer(self) -> tuple[Point, ...]:
        return self._line(inner=False)

    def _line(self, *, inner: bool) -> tuple[Point, ...]:
        aside = self.pitch_mm / 2 if inner else -self.pitch_mm / 2
        turn = self.shoulder_mm + aside
        off = self.off_mm if inner else self.off_mm + self.pitch_mm
        sweep = math.pi / 2 - self.parts_rad
        steps = max(1, math.ceil(sweep / _STEP_RAD))
        angles = [-math.pi / 2 - sweep * k / steps for k in range(steps + 1)]
        # Round the shoulder's middle, from straight below it to the frame.
        points = [(self.meets_mm + turn * math.cos(angle), self.shoulder_mm + turn * math.sin(angle)) for angle in angles]
        # Beside the other pair: half of both pairs' widths off the middle.
        beside = (self.pitch_mm + self.wire_mm) / 2
        end = _root(lambda normal: beside - self._offset(normal, self.off_mm)[1], math.pi / 2, math.pi)
        around = end - self.parts_rad
        steps = math.ceil(around / _STEP_RAD)
        points += [self._offset(self.parts_rad + around * k / steps, off) for k in range(1, steps + 1)]
        if end > math.pi - 1e-9:
            # A straight side across the band: followed as far as the other pair leaves room.
            points.append((points[-1][0], beside))
        return tuple(points)

    def arc_mm(self, inner: bool) -> float:
        """Length of a wire's shoulder turn and its way round the bead."""
        return length_mm(self.line(inner))


def band_lead(frame: Frame, radius_mm: float) -> tuple[float, float]:
    """Where the band leaves its circle to come up to the frame as a tangent, from the top [rad], and how long that is [mm]."""
    reach = math.hypot(frame.meets_mm, frame.level_mm)
    if reach <= radius_mm:
        return math.atan2(frame.meets_mm, frame.level_mm), 0.0
    return math.atan2(frame.meets_mm, frame.level_mm) + math.acos(radius_mm / reach), math.sqrt(reach**2 - radius_mm**2)


@lru_cache(maxsize=64)
def _known(frame: Frame) -> Frame:
    """The same frame again, with all that was worked out of it: how it looks from above has nothing to do with how high it stands."""
    return frame


def _root(rising: Callable[[float], float], low: float, high: float) -> float:
    """Where `rising` passes 0 between two angles: the nearer one where it doesn't."""
    return where_it_reaches(0.0, rising, low, high, close=1e-10)
