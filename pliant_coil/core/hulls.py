"""The loop that a taut wire makes round a bundle of others: the convex hull of their outlines, grown.

A bundle is given by points and one rounding radius: centres and the radius for round wires, corners and 0 for others.
"""

import math
from dataclasses import dataclass
from functools import cached_property, lru_cache

from pliant_coil.core.profiles import Point, Profile


@dataclass(frozen=True)
class Bundle:
    """Wires held together, seen along their length: `points` [mm], each rounded by `rounding_mm`."""

    points: tuple[Point, ...]
    rounding_mm: float

    @cached_property
    def hull(self) -> tuple[Point, ...]:
        """Corners of the convex hull of `points`, counter-clockwise; one or two points when they lie in line."""
        return convex_hull(self.points)

    @cached_property
    def hull_perimeter_mm(self) -> float:
        """Once round the corners of `hull`, without the rounding."""
        corners = self.hull
        return sum(math.dist(corners[k], corners[k - 1]) for k in range(len(corners)))

    def loop_mm(self, centroid_mm: float) -> float:
        """Length [mm] of a closed loop whose neutral line runs `centroid_mm` outside the bundle: hull + 2π(r + c)."""
        return self.hull_perimeter_mm + 2 * math.pi * (self.rounding_mm + centroid_mm)

    def loop_points(self, centroid_mm: float, per_corner: int) -> list[Point]:
        """The same loop as points, counter-clockwise from below, `per_corner` to each rounded corner."""
        grown = self.rounding_mm + centroid_mm
        corners = self.hull
        if len(corners) == 1:
            turn = 2 * math.pi / (3 * per_corner)
            (x, y) = corners[0]
            return [(x + grown * math.sin(k * turn), y - grown * math.cos(k * turn)) for k in range(3 * per_corner)]
        around: list[Point] = []
        for k, (x, y) in enumerate(corners):
            before, after = corners[k - 1], corners[(k + 1) % len(corners)]
            start = math.atan2(y - before[1], x - before[0]) - math.pi / 2
            sweep = (math.atan2(after[1] - y, after[0] - x) - math.pi / 2 - start) % (2 * math.pi)
            for step in range(per_corner):
                angle = start + sweep * step / (per_corner - 1)
                around.append((x + grown * math.cos(angle), y + grown * math.sin(angle)))
        return around


def convex_hull(points: tuple[Point, ...]) -> tuple[Point, ...]:
    """Corners of the convex hull, counter-clockwise (Andrew's monotone chain)."""
    ordered = sorted(set(points))
    if len(ordered) <= 2:
        return tuple(ordered)

    def chain(along: list[Point]) -> list[Point]:
        kept: list[Point] = []
        for p in along:
            while len(kept) >= 2 and _turn(kept[-2], kept[-1], p) <= 1e-12:
                kept.pop()
            kept.append(p)
        return kept

    return tuple(chain(ordered)[:-1] + chain(ordered[::-1])[:-1])


def _turn(a: Point, b: Point, c: Point) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


@lru_cache(maxsize=256)
def row(profile: Profile, strands: int) -> Bundle:
    """`strands` wires of one profile side by side on the mandrel, as (along the finger, away from it) from the row's middle."""
    pitch = profile.width_mm
    middles = [(k - (strands - 1) / 2) * pitch for k in range(strands)]
    if profile.name == "round":
        # Only the outermost centres matter to the hull; the rest lie on the line between them.
        ends = (middles[0],) if strands == 1 else (middles[0], middles[-1])
        return Bundle(tuple((z, profile.size_mm / 2) for z in ends), profile.size_mm / 2)
    corners = profile.outline(96)
    return Bundle(tuple((z + x, y) for z in (middles[0], middles[-1]) for x, y in corners), 0.0)
