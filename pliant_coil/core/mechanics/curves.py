"""Curves in space: how long they are, how finely they are drawn, how a taut wire goes past a body. Lengths in mm."""

import math
from bisect import bisect_left
from collections.abc import Iterable, Sequence
from itertools import pairwise
from operator import itemgetter

from pliant_coil.core.mechanics.hulls import convex_hull, lower_chain

Point = tuple[float, float]
Point3 = tuple[float, float, float]

TOLERANCE_MM = 0.02
"""How far a drawing may stand off the curve that it draws."""
CHORD_MM = 1.0
"""What is laid flat follows the finger in chords: one so long stands off the smallest finger's circle by the tolerance."""
_SAME_MM = 1e-9


def length_mm(points: Sequence[Point] | Sequence[Point3]) -> float:
    """Length of a polyline, in a plane or in space."""
    return sum(map(math.dist, points, points[1:]))


def steps_for(radius_mm: float, sweep_rad: float, least: int = 1) -> int:
    """Into how many chords an arc is cut so that none stands off it by more than the tolerance."""
    step = 2 * math.acos(max(0.0, 1 - TOLERANCE_MM / max(radius_mm, TOLERANCE_MM)))
    return max(least, math.ceil(abs(sweep_rad) / step - 1e-9))


def circle_points(x_mm: float, y_mm: float, radius_mm: float, count: int = 48) -> list[Point]:
    """Points on a circle."""
    return [
        (x_mm + radius_mm * math.sin(2 * math.pi * k / count), y_mm + radius_mm * math.cos(2 * math.pi * k / count)) for k in range(count)
    ]


def ellipse_points(a_mm: float, b_mm: float, count: int = 48) -> list[Point]:
    """Points on an ellipse about the origin."""
    return [(a_mm * math.sin(2 * math.pi * k / count), b_mm * math.cos(2 * math.pi * k / count)) for k in range(count)]


def taut_past(start: Point, end: Point, body: Iterable[Point]) -> list[Point]:
    """The way of a taut wire from `start` to `end`, left to right, past the lower side of a convex body: part of a hull."""
    dx, dy = end[0] - start[0], end[1] - start[1]
    in_the_way = [p for p in body if dx * (p[1] - start[1]) < dy * (p[0] - start[0])]
    ordered = sorted({start, end, *in_the_way})
    if ordered[0] == start and ordered[-1] == end:
        return lower_chain(ordered)
    hull = list(convex_hull(tuple(ordered)))
    if start not in hull or end not in hull:
        return [start, end]
    # Counter-clockwise from the start, a hull runs along its lower side first.
    first = hull.index(start)
    turned = hull[first:] + hull[:first]
    return turned[: turned.index(end) + 1]


def round_circle(start: Point3, end: Point3, radius_mm: float) -> list[Point3]:
    """The way of a taut wire from `start` to `end` outside a circle about the axis, and as near to it as both; z changes evenly along it.

    Straight where the circle isn't in the way; otherwise along it, between the tangents from both ends.
    """
    from_axis = math.hypot(start[0], start[1]), math.hypot(end[0], end[1])
    radius = min(radius_mm, *from_axis)
    angles = math.atan2(start[0], start[1]), math.atan2(end[0], end[1])
    between = (angles[1] - angles[0] + math.pi) % (2 * math.pi) - math.pi
    free = [math.acos(radius / r) if r else 0.0 for r in from_axis]
    along = abs(between) - sum(free)
    if along <= 0 or radius <= 0:
        return [start, end]
    straight = [math.sqrt(max(0.0, r * r - radius * radius)) for r in from_axis]
    whole = straight[0] + radius * along + straight[1]
    found, steps, sign = [start], steps_for(radius, along), math.copysign(1.0, between)
    for k in range(steps + 1):
        angle = angles[0] + sign * (free[0] + along * k / steps)
        share = (straight[0] + radius * along * k / steps) / whole
        found.append((radius * math.sin(angle), radius * math.cos(angle), start[2] + (end[2] - start[2]) * share))
    return [*found, end]


def at_shares(points: Sequence[Point], count: int) -> list[tuple[float, Point]]:
    """The corners of a way and at least `count` points between them, each with the share of the way that lies before it."""
    sides = list(map(math.dist, points, points[1:]))
    whole = sum(sides) or 1.0
    found: list[tuple[float, Point]] = [(0.0, points[0])]
    gone = 0.0
    for (a, b), side in zip(pairwise(points), sides, strict=True):
        parts = max(1, round(count * side / whole))
        for k in range(1, parts + 1):
            share = k / parts
            found.append(((gone + side * share) / whole, (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share)))
        gone += side
    return found


class Way:
    """A polyline to go along [mm]; past its ends it goes straight on. Raises `ValueError` for one that has no length."""

    def __init__(self, points: Sequence[Point3]) -> None:
        self._sides: list[tuple[float, Point3, Point3]] = []
        """How far along each side begins, its first corner, its direction."""
        self._last = points[-1]
        gone = 0.0
        for a, b in pairwise(points):
            side = math.dist(a, b)
            if side:
                self._sides.append((gone, a, ((b[0] - a[0]) / side, (b[1] - a[1]) / side, (b[2] - a[2]) / side)))
            gone += side
        if not self._sides:
            raise ValueError("a way has at least two points")
        self.length_mm = gone

    @classmethod
    def flat(cls, points: Sequence[Point]) -> "Way":
        """A way in a plane."""
        return cls([(x, y, 0.0) for x, y in points])

    def at(self, along_mm: float) -> tuple[Point3, Point3]:
        """The point so far along it, and its direction there."""
        began, (x, y, z), u = self._sides[max(0, bisect_left(self._sides, along_mm, key=itemgetter(0)) - 1)]
        rest = along_mm - began
        return (x + u[0] * rest, y + u[1] * rest, z + u[2] * rest), u

    def part(self, begin_mm: float, end_mm: float) -> list[Point3]:
        """What of it lies between two places."""
        corners = [*((began, corner) for began, corner, _ in self._sides), (self.length_mm, self._last)]
        between = [corner for reach, corner in corners if begin_mm + _SAME_MM < reach < end_mm - _SAME_MM]
        return [self.at(begin_mm)[0], *between, self.at(end_mm)[0]]


def turtle(start: Point, heading_rad: float, parts: tuple[tuple[float, float], ...], step_rad: float = 0.2) -> list[Point]:
    """Straights and arcs one after the other, as points: each part is (length, turn), a turn of 0 a straight.

    Headings count anticlockwise from the first coordinate, turns to the left are positive. Straights are cut too, at most 1 mm apart,
    for what is laid on a circle follows it.
    """
    points = [start]
    x, y = start
    for length, turn in parts:
        steps = max(1, math.ceil(abs(turn) / step_rad) if turn else math.ceil(length))
        for _ in range(steps):
            # A chord as long as its arc, in the direction of its middle: the ends close to within a thousandth.
            heading_rad += turn / steps / 2
            x, y = x + length / steps * math.cos(heading_rad), y + length / steps * math.sin(heading_rad)
            points.append((x, y))
            heading_rad += turn / steps / 2
    return points


def dense(points: Sequence[Point3], step_mm: float) -> list[Point3]:
    """The same polyline with corners at most `step_mm` apart."""
    found = [points[0]]
    for a, b in pairwise(points):
        parts = max(1, math.ceil(math.dist(a, b) / step_mm))
        found += [
            (a[0] + (b[0] - a[0]) * k / parts, a[1] + (b[1] - a[1]) * k / parts, a[2] + (b[2] - a[2]) * k / parts)
            for k in range(1, parts + 1)
        ]
    return found
