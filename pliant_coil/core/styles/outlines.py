"""Outlines of frames and signs: closed figures in a plane, symmetric about the band's direction; by name, or from an SVG path."""

import math
from collections.abc import Callable
from functools import lru_cache
from itertools import pairwise
from typing import Literal

from pliant_coil.core.mechanics.curves import Point
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import say

OutlineName = Literal["diamond", "square", "rectangle", "round", "oval", "marquise", "heart", "star", "polygon", "path"]
CURVE_CORNERS = 96
"""Corners of an outline that is a curve."""
_STAR_INNER = math.cos(math.radians(72)) / math.cos(math.radians(36))
"""Notch radius over tip radius of a five-pointed star whose sides run on into each other."""
_LONGEST_PATH = 4000
_ASKEW = 0.04


def outline_corners(name: OutlineName, *, side: float, across: float, width: float, points: int, path: str = "") -> tuple[Point, ...]:
    """Corners from the neck's tip (+ along the band) by the near side (+ along the finger) round.

    `side` of a diamond, square, rectangle or polygon; `across` the length along the band of the others; `width` along the finger. All in mm.
    """
    s, r = side, across / 2
    match name:
        case "diamond":
            a = s / math.sqrt(2)
            return ((a, 0.0), (0.0, a), (-a, 0.0), (0.0, -a))
        case "square" | "rectangle":
            a, b = s / 2, (s if name == "square" else width) / 2
            return ((a, 0.0), (a, b), (-a, b), (-a, 0.0), (-a, -b), (a, -b))
        case "round":
            return _curve(lambda t: (r * math.cos(t), r * math.sin(t)))
        case "oval":
            return _curve(lambda t: (r * math.cos(t), width / 2 * math.sin(t)))
        case "marquise":
            return _marquise(r, width / 2)
        case "heart":
            return _heart(across, width)
        case "polygon":
            out = s / (2 * math.sin(math.pi / points))
            return tuple(
                (round(out * math.cos(2 * math.pi * k / points), 12), round(out * math.sin(2 * math.pi * k / points), 12))
                for k in range(points)
            )
        case "star":
            inner = r * (_STAR_INNER if points == 5 else 0.5)
            tips = [(r if k % 2 == 0 else inner, math.pi * k / points) for k in range(2 * points)]
            return tuple((radius * math.cos(angle), radius * math.sin(angle)) for radius, angle in tips)
        case _:
            return from_svg(path, across)


def end_for_end(corners: tuple[Point, ...]) -> tuple[Point, ...]:
    """The same outline turned end for end: what faced the fork begins it."""
    half = [(a, z) for a, z in corners[: len(corners) // 2 + 1] if z > -1e-9]
    if half[-1][1] > 1e-9:
        # A side faces the fork: the wire crosses the band's line in its middle.
        half.append((half[-1][0], 0.0))
    return _closed([(-a, z) for a, z in reversed(half)])


def _curve(at: Callable[[float], Point]) -> tuple[Point, ...]:
    return tuple(at(2 * math.pi * k / CURVE_CORNERS) for k in range(CURVE_CORNERS))


def _closed(half: list[Point]) -> tuple[Point, ...]:
    """The near half, from the neck's tip to the fork's, and its mirror image back."""
    return (*half, *((a, -z) for a, z in reversed(half[1:-1])))


def _marquise(r: float, b: float) -> tuple[Point, ...]:
    """Two arcs that meet in points on the band's line."""
    radius = (r * r + b * b) / (2 * b)
    half = math.asin(min(1.0, r / radius))
    steps = CURVE_CORNERS // 2
    near = []
    for k in range(steps + 1):
        angle = half - 2 * half * k / steps
        near.append((radius * math.sin(angle), radius * math.cos(angle) - (radius - b)))
    return _closed([(r, 0.0), *near[1:-1], (-r, 0.0)])


def _heart(long: float, wide: float) -> tuple[Point, ...]:
    """Tip at the neck, cleft at the fork: a straight leg, then a lobe of three quarters of a circle, and its mirror image."""
    r = wide / 4
    tip = long - r
    # From the tip the leg touches the lobe's circle, whose middle lies r beside the line at the fork's end.
    reach = math.hypot(tip, r)
    touch = math.atan2(r, -tip) - math.acos(min(1.0, r / reach))
    steps = CURVE_CORNERS // 2
    leg_end = (r * math.cos(touch), r + r * math.sin(touch))
    parts = 10
    half: list[Point] = [(tip + (leg_end[0] - tip) * k / parts, leg_end[1] * k / parts) for k in range(parts + 1)]
    sweep = 1.5 * math.pi - touch
    half += [(r * math.cos(touch + sweep * k / steps), r + r * math.sin(touch + sweep * k / steps)) for k in range(1, steps + 1)]
    middle = (tip - r) / 2
    return _closed([(a - middle, max(0.0, z)) for a, z in half])


@lru_cache(maxsize=32)
def from_svg(path: str, across_mm: float) -> tuple[Point, ...]:
    """The outline that the `d` of an SVG path draws, its length along the band made `across_mm`. Raises `Refusal` for what isn't one.

    The path's x runs along the band. It has to be closed, of one piece, and alike on both sides of the band's line.
    """
    from svgelements import Path

    field, accepted = "head.path", "the d of a closed SVG path, such as M 0 0 C 2 3 6 3 8 0 C 6 -3 2 -3 0 0 Z"
    if not path.strip() or len(path) > _LONGEST_PATH:
        refuse(field, "no outline stands there", accepted)
    try:
        drawn = Path(path)
        pieces = list(drawn.as_subpaths())
        whole = [drawn.point(k / (4 * CURVE_CORNERS)) for k in range(4 * CURVE_CORNERS)]
        points = [(float(p.x), float(p.y)) for p in whole]
    except Exception:  # the reader raises whatever its parser meets
        refuse(field, "that can't be read as an SVG path", accepted)
    if len(pieces) != 1 or not all(math.isfinite(v) for p in points for v in p):
        refuse(field, say("the path has {n} pieces", n=str(len(pieces))), "one closed piece")
    xs, ys = [x for x, _ in points], [y for _, y in points]
    long, middle, level = max(xs) - min(xs), (max(xs) + min(xs)) / 2, (max(ys) + min(ys)) / 2
    if long <= 0 or max(ys) - min(ys) <= 0:
        refuse(field, "it encloses nothing", accepted)
    scale = across_mm / long
    # SVG's y runs downwards; the outline is read from its right end, by the near side.
    flat = [((x - middle) * scale, -(y - level) * scale) for x, y in points]
    first = max(range(len(flat)), key=lambda k: flat[k][0])
    turned = flat[first:] + flat[:first]
    if sum(a[0] * b[1] - b[0] * a[1] for a, b in pairwise([*turned, turned[0]])) < 0:
        turned = [turned[0], *reversed(turned[1:])]
    left = min(range(len(turned)), key=lambda k: turned[k][0])
    near, far = turned[: left + 1], turned[left:] + turned[:1]
    return _closed(_alike(near, [(a, -z) for a, z in reversed(far)], across_mm))


def _alike(near: list[Point], far: list[Point], across_mm: float) -> list[Point]:
    """Half of a symmetric outline, evenly cut. Raises `Refusal` when both halves differ."""
    steps = CURVE_CORNERS // 2
    halves = [_even(half, steps) for half in (near, far)]
    if max(math.dist(a, b) for a, b in zip(*halves, strict=True)) > _ASKEW * across_mm:
        refuse(
            "head.path",
            "its two halves differ: the wire that doubles it wouldn't fit both",
            "an outline alike on both sides of the band's line",
        )
    middle = [((a[0] + b[0]) / 2, (a[1] + b[1]) / 2) for a, b in zip(*halves, strict=True)]
    return [(middle[0][0], 0.0), *middle[1:-1], (middle[-1][0], 0.0)]


def _even(points: list[Point], steps: int) -> list[Point]:
    sides = [math.dist(a, b) for a, b in pairwise(points)]
    whole = sum(sides)
    found, gone, k = [points[0]], 0.0, 0
    for n in range(1, steps):
        aim = whole * n / steps
        while k < len(sides) - 1 and gone + sides[k] < aim:
            gone += sides[k]
            k += 1
        share = (aim - gone) / sides[k] if sides[k] else 0.0
        (x0, y0), (x1, y1) = points[k], points[k + 1]
        found.append((x0 + (x1 - x0) * share, y0 + (y1 - y0) * share))
    return [*found, points[-1]]
