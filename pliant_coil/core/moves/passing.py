"""A tail past a body, foot to foot; and a wire led along a given curve over the band."""

import math
from collections.abc import Callable, Sequence
from functools import lru_cache
from typing import ClassVar

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import TOLERANCE_MM, Point, Point3, at_shares, circle_points, dense, taut_past
from pliant_coil.core.mechanics.curves import length_mm as along_mm
from pliant_coil.core.moves.base import Obstacle, SpaceCurve, on_circle
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Length, Share
from pliant_coil.core.words.say import Say, say


@dataclass(frozen=True)
class Pass(SpaceCurve):
    """Past a body: beside it, over it or under it."""

    kind: ClassVar[str] = "pass"
    seconds: ClassVar[float] = 60.0
    hand: ClassVar[HandKind] = "curve"


@dataclass(frozen=True)
class LoosePass(SpaceCurve):
    """Over a stone, laid looser than taut by `slack_share`; small jogs at round pliers take the slack up again, sideways along `aside`.

    Length: that of the taut way, and the slack. A jog makes no length.
    """

    slack_share: float = 0.0
    jogs: int = 0
    jog_length_mm: float = 5.0
    aside: Point3 = (0.0, 0.0, 1.0)
    kind: ClassVar[str] = "pass"
    seconds: ClassVar[float] = 60.0
    hand: ClassVar[HandKind] = "cage"

    @property
    def length_mm(self) -> float:
        return self._along_mm * (1 + self.slack_share)

    def arithmetic(self) -> Say:
        return say("{taut} taut, {slack} looser", taut=Length(self._along_mm), slack=Share(self.slack_share))

    def path(self) -> list[Point3]:
        taut = dense(self.points, 0.4)
        if not self.jogs or not self.slack_share:
            return taut
        low, high = 0.0, 3.0
        for _ in range(24):
            middle = (low + high) / 2
            low, high = (middle, high) if along_mm(self._jogged(taut, middle)) < self.length_mm else (low, middle)
        return self._jogged(taut, high)

    def _jogged(self, taut: list[Point3], swing: float) -> list[Point3]:
        """The taut way with whole waves of this swing over its middle."""
        whole = self._along_mm
        long = min(0.8 * whole, self.jogs * self.jog_length_mm)
        first = (whole - long) / 2
        found, gone = [], 0.0
        for k, point in enumerate(taut):
            gone += math.dist(taut[k - 1], point) if k else 0.0
            share = (gone - first) / long
            off = swing * math.sin(2 * math.pi * self.jogs * share) if 0 < share < 1 else 0.0
            found.append((point[0] + off * self.aside[0], point[1] + off * self.aside[1], point[2] + off * self.aside[2]))
        return found


@dataclass(frozen=True)
class Course(SpaceCurve):
    """Along a given curve over the band; `inside` is what it puts inside where it dips under another wire."""

    inside: tuple[Obstacle, ...] = ()
    kind: ClassVar[str] = "course"
    seconds: ClassVar[float] = 45.0
    hand: ClassVar[HandKind] = "curve"

    @property
    def obstacles(self) -> tuple[Obstacle, ...]:
        return self.inside


def pass_beside(
    label: str, start: Point3, end: Point3, *, body: Callable[[], Sequence[Point]], drop_mm: float, radius_mm: float, face: int = -1
) -> Pass:
    """From foot to foot past one face of `body` (−1 the nearer one), seen from above as (x, z); it rises by `drop_mm` half-way.

    Where its feet stand far down the sides it lies on the band, whose wires run `radius_mm` from the axis.
    """

    def way() -> Sequence[Point3]:
        return _way_beside(start, end, tuple(body()), drop_mm=drop_mm, radius_mm=radius_mm, face=face)

    return Pass(label, way, say("taut round the near side of the bead and its feet, rising on the way: the length of the curve"))


def off_band(point: Point3, radius_mm: float) -> Point3:
    """The same, or straight out of the finger on to the circle of this radius."""
    x, y, z = point
    reach = math.hypot(x, y)
    return point if reach >= radius_mm else (x * radius_mm / reach, y * radius_mm / reach, z)


@lru_cache(maxsize=16)
def _way_beside(start: Point3, end: Point3, body: tuple[Point, ...], *, drop_mm: float, radius_mm: float, face: int) -> list[Point3]:
    """Both tails of a ring go the same way, each seen from its own side."""
    flip = -face
    taut = taut_past((start[0], flip * start[2]), (end[0], flip * end[2]), [(x, flip * z) for x, z in body])
    points = []
    # A chord of n stands off half a wave of its rise by π²/8n² of that.
    parts = max(8, math.ceil(math.pi * math.sqrt(drop_mm / 8 / TOLERANCE_MM)))
    for share, (x, z) in at_shares(taut, parts):
        level = start[1] + (end[1] - start[1]) * share
        points.append(off_band((x, level + drop_mm * math.sin(math.pi * share), flip * z), radius_mm))
    return points


def pass_over_row(label: str, start: Point3, end: Point3, tops: Sequence[tuple[float, float, float]]) -> Pass:
    """From foot to foot over several beads, each given by its middle and how far from it the wire runs: (x, y, radius)."""

    def way() -> list[Point3]:
        around = [(px, -py) for x, y, radius in tops for px, py in circle_points(x, y, radius)]
        taut = taut_past((start[0], -start[1]), (end[0], -end[1]), around)
        return [(x, -y, start[2] + (end[2] - start[2]) * share) for share, (x, y) in at_shares(taut, 24)]

    return Pass(label, way, say("taut over the beads from foot to foot: the length of the curve"))


def pass_under(label: str, start: Point3, end: Point3, *, radius_mm: float) -> Pass:
    """From foot to foot between body and finger, on the band's own circle."""

    def way() -> list[Point3]:
        first, last = math.atan2(start[0], start[1]), math.atan2(end[0], end[1])
        steps = 12
        between = [(first + (last - first) * k / steps, start[2] + (end[2] - start[2]) * k / steps) for k in range(1, steps)]
        return [start, *(on_circle(radius_mm, angle, z) for angle, z in between), end]

    return Pass(label, way, say("along the band's circle from foot to foot, under the bead"))


def pass_over(label: str, start: Point3, end: Point3, *, centre_y_mm: float, a_mm: float, b_mm: float) -> Pass:
    """From foot to foot over the body: up, half an ellipse of these semi-axes, down."""

    def way() -> list[Point3]:
        points = [start]
        steps = 24
        for k in range(steps + 1):
            angle = -math.pi / 2 + math.pi * k / steps
            z = start[2] + (end[2] - start[2]) * k / steps
            points.append((a_mm * math.sin(angle), centre_y_mm + b_mm * math.cos(angle), z))
        points.append(end)
        return points

    return Pass(label, way, say("up, half the way round an ellipse that clears the bead, and down"))
