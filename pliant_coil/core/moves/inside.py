"""The largest circle inside a ring: what a mandrel reads.

The inner outline is a circle, and whatever metal stands inside it. The circle that fits is found by exchanging
contact points: three points of the outline that surround the centre carry a circle; whatever part of the outline lies
deepest inside it takes the place of one of them, until nothing does. (The linear programme behind it: a point p
bounds r² − |c|² by |p|² − 2p·c; the exchange is its dual simplex step.)
"""

import math
from collections.abc import Iterable
from functools import lru_cache

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.moves.base import Obstacle
from pliant_coil.core.trade.profiles import Point

_TURN = 2 * math.pi
_TOUCHING_MM = 1e-6
_OPPOSITE_MM = 0.05
"""A centre this near to half-way between two contacts may be larger on their other side."""
_ASIDE_MM = 0.06
_MOST_AIMS = 30
_BESIDE, _SIDE = 0.1, 1.5
"""Clear of the top, and within a right angle of it [rad], a point on either side and the bottom surround the middle."""


@dataclass(frozen=True, slots=True)
class InsideCircle:
    """Centre and radius [mm] of a circle inside the ring, in ring coordinates."""

    x_mm: float
    y_mm: float
    radius_mm: float


_Span = tuple[float, float, float]
"""An obstacle as seen from the axis: its first angle, how far it goes on [rad], its distance from the axis [mm]."""
_Triangle = tuple[Point, Point, Point]


def largest_circle(radius_mm: float, obstacles: Iterable[Obstacle]) -> InsideCircle:
    """The largest circle, not concentric, inside a band of this inside radius with `obstacles` inside it."""
    return _largest(radius_mm, tuple(obstacles))


@lru_cache(maxsize=512)
def _largest(radius_mm: float, obstacles: tuple[Obstacle, ...]) -> InsideCircle:
    spans: list[_Span] = [(o.from_rad, o.to_rad - o.from_rad, radius_mm - o.height_mm) for o in obstacles]
    if not spans:
        return InsideCircle(0.0, 0.0, radius_mm)
    corners = [
        (rho * math.sin(angle), rho * math.cos(angle))
        for start, sweep, rho in spans
        for angle in ((start, start + sweep) if sweep else (start,))
    ]
    aims: list[Point] = []
    aim, contacts = (0.0, 0.0), _likely(radius_mm, spans)
    best = (0.0, 0.0, 0.0)
    for _ in range(_MOST_AIMS):
        for _ in range(60):
            x, y, radius = _circumcircle(contacts)
            deepest, distance = _nearest(radius_mm, spans, corners, x, y)
            if distance >= radius - _TOUCHING_MM:
                break
            contacts = _exchange(contacts, deepest, aim)
        if distance > best[0] + _TOUCHING_MM:
            best = distance, x, y
            # Contacts that surround their own centre can't be improved on; otherwise the circle can still grow that way.
            if not _surrounds(contacts, (x, y)):
                aims.append((x, y))
            # Nor can those that hold it between two of them, but for the other side of these.
            aims += _beside_two(contacts, x, y)
        if not aims:
            break
        aim = aims.pop()
        contacts = _surrounding(radius_mm, spans, aim)
    distance, x, y = best
    return InsideCircle(x, y, distance)


def _beside_two(contacts: _Triangle, x: float, y: float) -> list[Point]:
    """Where two contacts lie opposite each other, a place on either side of the line between them."""
    for k in range(3):
        one, other = contacts[k - 1], contacts[k - 2]
        if math.hypot(one[0] + other[0] - 2 * x, one[1] + other[1] - 2 * y) < 2 * _OPPOSITE_MM:
            share = _ASIDE_MM / math.dist(one, other)
            across = ((other[1] - one[1]) * share, (one[0] - other[0]) * share)
            return [(x + across[0], y + across[1]), (x - across[0], y - across[1])]
    return []


def _surrounding(radius_mm: float, spans: list[_Span], aim: Point) -> _Triangle:
    """Three points of the outline round `aim`: at the bottom, and a third of a turn either way."""
    if math.hypot(*aim) >= radius_mm:
        raise ArithmeticError("the centre left the ring")
    return _contacts(radius_mm, spans, -math.pi / 3, math.pi / 3)


def _likely(radius_mm: float, spans: list[_Span]) -> _Triangle:
    """The same round the middle, but with the lowest corner of what stands on either side of the top: where most rings touch, with what lies at the bottom."""
    low_left, low_right = -math.pi / 3, math.pi / 3
    found_left, found_right = -_BESIDE, _BESIDE
    for start, sweep, _ in spans:
        end = start + sweep
        if found_right < end < _SIDE:
            found_right = low_right = end
        if -_SIDE < start < found_left:
            found_left = low_left = start
    return _contacts(radius_mm, spans, low_left, low_right)


def _contacts(radius_mm: float, spans: list[_Span], left_rad: float, right_rad: float) -> _Triangle:
    """The outline's points at the bottom, and in a direction to the right and to the left."""
    left, bottom, right = (_outline_at(radius_mm, spans, direction) for direction in (left_rad, math.pi, right_rad))
    return bottom, right, left


def _outline_at(radius_mm: float, spans: list[_Span], direction: float) -> Point:
    rho = radius_mm
    for start, sweep, face in spans:
        if face < rho and (direction - start) % _TURN <= sweep:
            rho = face
    return rho * math.sin(direction), rho * math.cos(direction)


def _nearest(radius_mm: float, spans: list[_Span], corners: list[Point], x: float, y: float) -> tuple[Point, float]:
    """The point of the outline nearest to (x, y), and its distance: on the band, on an obstacle's face, or at its end."""
    off = math.hypot(x, y)
    if off < 1e-12:
        off, x_unit, y_unit = 0.0, 0.0, -1.0
    else:
        x_unit, y_unit = x / off, y / off
    rho = radius_mm
    angle = math.atan2(x_unit, y_unit)
    for start, sweep, face in spans:
        if face < rho and (angle - start) % _TURN <= sweep:
            rho = face
    best, least = (rho * x_unit, rho * y_unit), (rho - off) ** 2
    for point in corners:
        distance = (point[0] - x) ** 2 + (point[1] - y) ** 2
        if distance < least:
            best, least = point, distance
    return best, math.sqrt(least)


def _circumcircle(contacts: _Triangle) -> tuple[float, float, float]:
    (ax, ay), (bx, by), (cx, cy) = contacts
    bx, by, cx, cy = bx - ax, by - ay, cx - ax, cy - ay
    cross = 2 * (bx * cy - by * cx)
    b2, c2 = bx * bx + by * by, cx * cx + cy * cy
    ux, uy = (cy * b2 - by * c2) / cross, (bx * c2 - cx * b2) / cross
    return ax + ux, ay + uy, math.hypot(ux, uy)


def _surrounds(contacts: _Triangle, p: Point) -> bool:
    """Whether `p` lies inside them or on a side: nowhere to the right of one side and to the left of another."""
    (ax, ay), (bx, by), (cx, cy) = contacts
    x, y = p
    first = (bx - ax) * (y - ay) - (by - ay) * (x - ax)
    second = (cx - bx) * (y - by) - (cy - by) * (x - bx)
    third = (ax - cx) * (y - cy) - (ay - cy) * (x - cx)
    slack = 1e-9
    return (first >= -slack and second >= -slack and third >= -slack) or (first <= slack and second <= slack and third <= slack)


def _in_line(contacts: _Triangle) -> bool:
    (ax, ay), (bx, by), (cx, cy) = contacts
    return abs((bx - ax) * (cy - ay) - (by - ay) * (cx - ax)) <= 1e-9


def _exchange(contacts: _Triangle, new: Point, aim: Point) -> _Triangle:
    """`contacts` with `new` in the place of one, so that they still surround `aim`.

    Where `aim` lies on a side, two choices do; the one with the lower bound is taken, or the exchange could go in circles.
    """
    a, b, c = contacts
    choices = [t for t in ((a, b, new), (a, new, c), (new, b, c)) if _surrounds(t, aim) and not _in_line(t)]
    if len(choices) == 1:
        return choices[0]
    return min(choices, key=lambda t: _bound(t, aim), default=(new, b, c))


def _bound(contacts: _Triangle, aim: Point) -> float:
    x, y, radius = _circumcircle(contacts)
    return radius * radius - x * x - y * y + 2 * (aim[0] * x + aim[1] * y)
