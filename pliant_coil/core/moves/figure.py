"""Straights and arcs in a plane of their own, flat or laid on the band: a sign, an outline, the wire that doubles it."""

import math
from typing import ClassVar

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point, Point3
from pliant_coil.core.moves.base import Move, SpaceCurve, on_circle
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Thickness
from pliant_coil.core.words.say import Say, say

_STRAIGHT_RAD = math.radians(5)
"""A corner that turns by less is a place on a side."""


@dataclass(frozen=True)
class Figure(Move):
    """A figure drawn through `corners`, (along the band from its own middle, along the finger); each corner is rounded.

    It is laid on the circle of `radius_mm` with its middle at `at_rad`: bending it there keeps its lengths. `rounding_mm`
    is the neutral radius of the corners, 0 where they are followed as they are (curves given by many corners). Length:
    Σ sides less 2·tan(α/2) − α of the radius at each corner.
    """

    corners: tuple[Point, ...]
    rounding_mm: float
    radius_mm: float
    at_rad: float = 0.0
    closed: bool = False
    at_pliers_mm: float = 0.0
    """The wire's diameter where its corners are bent at pliers: a bend lands about that far past the jaw."""
    kind: ClassVar[str] = "figure"
    seconds: ClassVar[float] = 45.0
    hand: ClassVar[HandKind] = "frame"

    @property
    def _sides(self) -> float:
        corners = self.corners
        around = sum(math.dist(corners[k - 1], corners[k]) for k in range(1, len(corners)))
        return around + (math.dist(corners[-1], corners[0]) if self.closed else 0.0)

    def _bent(self) -> list[tuple[Point, Point, Point, float]]:
        """Each corner between its neighbours, with the angle it turns through."""
        corners = self.corners
        n = len(corners)
        found = []
        for k in range(n if self.closed else n - 1):
            if not self.closed and k == 0:
                continue
            a, b, c = corners[k - 1], corners[k], corners[(k + 1) % n]
            turn = math.atan2(c[1] - b[1], c[0] - b[0]) - math.atan2(b[1] - a[1], b[0] - a[0])
            found.append((a, b, c, (turn + math.pi) % (2 * math.pi) - math.pi))
        return found

    @property
    def length_mm(self) -> float:
        if not self.rounding_mm:
            return self._sides
        saved = sum(2 * math.tan(abs(turn) / 2) - abs(turn) for *_, turn in self._bent())
        return self._sides - saved * self.rounding_mm

    @property
    def corners_mm(self) -> tuple[float, ...]:
        """Where along it the middle of each corner lies."""
        found, gone = [], 0.0
        for a, b, _, turn in self._bent():
            saved = (2 * math.tan(abs(turn) / 2) - abs(turn)) * self.rounding_mm
            gone += math.dist(a, b)
            if abs(turn) > _STRAIGHT_RAD:
                found.append(gone - saved / 2)
            gone -= saved
        return tuple(found)

    @property
    def jaws_mm(self) -> tuple[float, ...]:
        if not self.at_pliers_mm:
            return ()
        # On the side of the wire's middle, from which the corners are measured; the one there is bent at its own mark.
        middle = self.length_mm / 2
        off = [(corner, corner - middle) for corner in self.corners_mm]
        return tuple(corner - math.copysign(self.at_pliers_mm, away) for corner, away in off if abs(away) > self.at_pliers_mm)

    def arithmetic(self) -> Say:
        return say(
            "{sides} along its sides, less {saved} saved in the bends",
            sides=Thickness(self._sides),
            saved=Thickness(self._sides - self.length_mm),
        )

    def flat(self) -> list[Point]:
        """The figure in its own plane, corners rounded."""
        if not self.rounding_mm:
            return [*self.corners, self.corners[0]] if self.closed else list(self.corners)
        points: list[Point] = [] if self.closed else [self.corners[0]]
        for a, b, c, turn in self._bent():
            cut = self.rounding_mm * math.tan(abs(turn) / 2)
            points += _rounded(a, b, c, turn, cut=cut, radius=self.rounding_mm)
        return [*points, points[0]] if self.closed else [*points, self.corners[-1]]

    def path(self) -> list[Point3]:
        points = []
        flat = self.flat()
        for k, (a, z) in enumerate(flat):
            if k:
                before = flat[k - 1]
                # Long sides follow the circle they are laid on.
                parts = max(1, math.ceil(abs(a - before[0]) / self.radius_mm / 0.12))
                for part in range(1, parts):
                    share = part / parts
                    along = before[0] + (a - before[0]) * share
                    points.append(on_circle(self.radius_mm, self.at_rad + along / self.radius_mm, before[1] + (z - before[1]) * share))
            points.append(on_circle(self.radius_mm, self.at_rad + a / self.radius_mm, z))
        return points


def _rounded(a: Point, b: Point, c: Point, turn: float, *, cut: float, radius: float) -> list[Point]:
    if abs(turn) < 1e-6:
        return [b]
    into, out = math.dist(a, b) or 1.0, math.dist(b, c) or 1.0
    u = ((b[0] - a[0]) / into, (b[1] - a[1]) / into)
    w = ((c[0] - b[0]) / out, (c[1] - b[1]) / out)
    first = (b[0] - u[0] * cut, b[1] - u[1] * cut)
    side = 1 if turn > 0 else -1
    centre = (first[0] - u[1] * radius * side, first[1] + u[0] * radius * side)
    start = math.atan2(first[1] - centre[1], first[0] - centre[0])
    steps = max(2, math.ceil(abs(turn) / 0.25))
    found = [
        (centre[0] + radius * math.cos(start + turn * k / steps), centre[1] + radius * math.sin(start + turn * k / steps))
        for k in range(steps)
    ]
    return [*found, (b[0] + w[0] * cut, b[1] + w[1] * cut)]


@dataclass(frozen=True)
class FigurePart(SpaceCurve):
    """One part of a sign that is bent of several, each counted at the bench: a leg, a lobe, a tip."""

    kind: ClassVar[str] = "figure"
    seconds: ClassVar[float] = 45.0
    hand: ClassVar[HandKind] = "frame"
