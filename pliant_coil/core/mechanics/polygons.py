"""Closed outlines by their corners: how they turn, their parallels, the half of one above a line. Lengths in mm, angles in rad."""

import math

from pliant_coil.core.mechanics.curves import Point


def turn_at(corners: tuple[Point, ...], k: int) -> float:
    """How far the way turns at a corner, positive outwards."""
    a, b, c = corners[k - 1], corners[k], corners[(k + 1) % len(corners)]
    turn = math.atan2(c[1] - b[1], c[0] - b[0]) - math.atan2(b[1] - a[1], b[0] - a[0])
    return (turn + math.pi) % (2 * math.pi) - math.pi


def roundest(corners: tuple[Point, ...]) -> float:
    """The largest radius [mm] that all its corners can have together: of two beside each other, each takes r·tan(turn/2) of the side between."""
    takes = [math.tan(abs(turn_at(corners, k)) / 2) for k in range(len(corners))]
    return min(math.dist(corners[k - 1], corners[k]) / max(1e-9, takes[k - 1] + takes[k]) for k in range(len(corners)))


def sharp_angles(corners: tuple[Point, ...]) -> list[float]:
    """The angles inside its outward corners; half a turn where it has none."""
    return [math.pi - turn for k in range(len(corners)) if (turn := turn_at(corners, k)) > math.radians(8)] or [math.pi]


def parallel(corners: tuple[Point, ...], by: float) -> tuple[Point, ...]:
    """The outline's parallel outside, its corners mitred."""
    found = []
    n = len(corners)
    for k in range(n):
        a, b, c = corners[k - 1], corners[k], corners[(k + 1) % n]
        n1, n2 = _outside(a, b), _outside(b, c)
        scale = by / (1 + n1[0] * n2[0] + n1[1] * n2[1])
        found.append((b[0] + (n1[0] + n2[0]) * scale, b[1] + (n1[1] + n2[1]) * scale))
    return tuple(found)


def _outside(a: Point, b: Point) -> Point:
    length = math.dist(a, b)
    return ((b[1] - a[1]) / length, -(b[0] - a[0]) / length)


def near_half(corners: tuple[Point, ...], level: float) -> tuple[tuple[Point, ...], float, float]:
    """The near half of a closed curve above a line along the band: from the fork to the neck, and where both lie."""
    n = len(corners)
    points: list[Point] = []
    # From the neck's tip by the near side: up through the level, and down through it again at the fork.
    for k in range(n):
        a, b = corners[k], corners[(k + 1) % n]
        crosses = (a[1] - level) * (b[1] - level) < 0
        if a[1] >= level - 1e-12 and (points or a[1] > level or abs(a[1] - level) < 1e-9):
            points.append(a)
        if crosses:
            share = (level - a[1]) / (b[1] - a[1])
            points.append((a[0] + (b[0] - a[0]) * share, level))
            if b[1] < level:
                break
        elif points and b[1] <= level + 1e-12 and a[1] > level:
            points.append(b)
            break
    half = tuple(reversed(points))
    return half, -half[0][0], half[-1][0]
