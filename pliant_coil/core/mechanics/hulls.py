"""The loop that a taut wire makes round a bundle of others: the convex hull of their outlines, grown.

A bundle is given by points and one rounding radius: centres and the radius for round wires, corners and 0 for others.
"""

import math
from functools import lru_cache

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.trade.profiles import Point, Profile

OFF_THE_ARC_MM = 0.006
"""How far a corner of a polyline may stand outside the arc that it is as long as; a side of t radians stands out by r·t²/24."""

_ON_THE_EDGE_MM = 1e-9


@dataclass(frozen=True)
class Bundle:
    """Wires held together, seen along their length: `points` [mm], each rounded by `rounding_mm`."""

    points: tuple[Point, ...]
    rounding_mm: float

    @cached_property
    def hull(self) -> tuple[Point, ...]:
        """Corners of the convex hull of `points`, counter-clockwise; one or two points when they lie in line."""
        # A row of round wires is given by its ends.
        return convex_hull(self.points) if len(self.points) > 2 else tuple(sorted(set(self.points)))

    @cached_property
    def hull_perimeter_mm(self) -> float:
        """Once round the corners of `hull`, without the rounding."""
        corners = self.hull
        return sum(math.dist(corners[k], corners[k - 1]) for k in range(len(corners)))

    def loop_mm(self, centroid_mm: float) -> float:
        """Length [mm] of a closed loop whose neutral line runs `centroid_mm` outside the bundle: hull + 2π(r + c)."""
        return self.hull_perimeter_mm + 2 * math.pi * (self.rounding_mm + centroid_mm)

    def nearest(self, to: Point, centroid_mm: float) -> Point:
        """The point of the same loop that is nearest to one in its plane; of one on the bundle's own edge, the point outside it."""
        corners = self.hull
        grown, (x, y) = self.rounding_mm + centroid_mm, to
        least, at, side = math.inf, corners[0], (0.0, 0.0)
        inside = len(corners) > 2
        # Between two corners there is one side, not two.
        for k, b in enumerate(corners if inside else corners[:1]):
            a = corners[k - 1]
            dx, dy = b[0] - a[0], b[1] - a[1]
            along, square = (x - a[0]) * dx + (y - a[1]) * dy, dx * dx + dy * dy
            p = a if along <= 0 else b if along >= square else (a[0] + dx * along / square, a[1] + dy * along / square)
            if dx * (y - a[1]) < dy * (x - a[0]):
                inside = False
            far = (x - p[0]) ** 2 + (y - p[1]) ** 2
            if far < least:
                least, at, side = far, p, (dx, dy)
        away = math.sqrt(least)
        if away > _ON_THE_EDGE_MM:
            out = grown / away * (-1 if inside else 1)
            return at[0] + (x - at[0]) * out, at[1] + (y - at[1]) * out
        # Corners go counter-clockwise: what lies to the right of a side is outside.
        long = math.hypot(*side)
        return (at[0] + side[1] / long * grown, at[1] - side[0] / long * grown) if long else (at[0], at[1] - grown)

    def loop_points(self, centroid_mm: float, per_corner: int) -> list[Point]:
        """The same loop as points, counter-clockwise from below: `per_corner` to each rounded corner, more where it is wide and turns far.

        No point stands further off the loop than `OFF_THE_ARC_MM`.
        """
        grown = self.rounding_mm + centroid_mm
        corners = self.hull
        most = math.sqrt(24 * OFF_THE_ARC_MM / grown)
        if len(corners) == 1:
            (x, y) = corners[0]
            count = max(3 * per_corner, math.ceil(2 * math.pi / most))
            out = outside_mm(grown, 2 * math.pi / count)
            turns = (2 * math.pi * k / count for k in range(count))
            return [(x + out * math.sin(turn), y - out * math.cos(turn)) for turn in turns]
        around: list[Point] = []
        for k, (x, y) in enumerate(corners):
            before, after = corners[k - 1], corners[(k + 1) % len(corners)]
            start = math.atan2(y - before[1], x - before[0]) - math.pi / 2
            sweep = (math.atan2(after[1] - y, after[0] - x) - math.pi / 2 - start) % (2 * math.pi)
            steps = max(per_corner - 1, math.ceil(sweep / most))
            out = outside_mm(grown, sweep / steps)
            for step in range(steps + 1):
                angle = start + sweep * step / steps
                around.append((x + out * math.cos(angle), y + out * math.sin(angle)))
        return around


@lru_cache(maxsize=64)
def convex_hull(points: tuple[Point, ...]) -> tuple[Point, ...]:
    """Corners of the convex hull, counter-clockwise (Andrew's monotone chain)."""
    ordered = sorted(set(points))
    if len(ordered) <= 2:
        return tuple(ordered)

    return tuple(lower_chain(ordered)[:-1] + lower_chain(ordered[::-1])[:-1])


def lower_chain(ordered: list[Point]) -> list[Point]:
    """The lower side of the hull of points that are sorted, from the first to the last; of points sorted backwards, the upper side."""
    kept: list[Point] = []
    for p in ordered:
        x, y = p
        while len(kept) >= 2:
            (ax, ay), (bx, by) = kept[-2], kept[-1]
            if (bx - ax) * (y - ay) - (by - ay) * (x - ax) > 1e-12:
                break
            kept.pop()
        kept.append(p)
    return kept


def outside_mm(radius_mm: float, step_rad: float) -> float:
    """Where the corners of a polyline stand so that its sides are as long as the arcs of `radius_mm` they replace."""
    half = step_rad / 2
    return radius_mm * half / math.sin(half) if half else radius_mm


def row_at(profile: Profile, middles_mm: tuple[float, ...]) -> Bundle:
    """Wires of one profile lying side by side on the mandrel with their middles there, as (along the finger, away from it)."""
    ends = (min(middles_mm), max(middles_mm))
    if profile.name == "round":
        # Only the outermost centres matter to the hull; the rest lie on the line between them.
        half = profile.size_mm / 2
        return Bundle(((ends[0], half), (ends[1], half)) if ends[1] > ends[0] else ((ends[0], half),), half)
    corners = profile.outline(96)
    return Bundle(tuple((z + x, y) for z in ends for x, y in corners), 0.0)


def row(profile: Profile, strands: int) -> Bundle:
    """`strands` wires side by side, about the row's middle."""
    return row_at(profile, tuple((k - (strands - 1) / 2) * profile.width_mm for k in (0, strands - 1)))
