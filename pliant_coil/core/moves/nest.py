"""Turns round a standing body, climbing until its hole is hidden."""

import math
from dataclasses import replace
from functools import lru_cache
from typing import ClassVar, Self

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point, Point3, at_shares, circle_points, ellipse_points
from pliant_coil.core.mechanics.curves import length_mm as along_mm
from pliant_coil.core.mechanics.hulls import convex_hull
from pliant_coil.core.moves.base import Counted, Move
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Number, Thickness
from pliant_coil.core.words.say import Say, say

_LEVELS = 8
_PER_TURN = 48


@dataclass(frozen=True)
class StandingBead:
    """A bead on two legs: half its length, width and height, the wire's diameter, and the height of its hole's axis [mm].

    Hulls are those of the wire's neutral line round the bead and its two legs.
    """

    half_length_mm: float
    half_width_mm: float
    half_height_mm: float
    wire_mm: float
    axis_y_mm: float

    @property
    def leg_x_mm(self) -> float:
        return self.half_length_mm + self.wire_mm / 2

    @property
    def reach_mm(self) -> float:
        """q: from the hole's axis to a wire that lies on the bead."""
        return self.half_height_mm + self.wire_mm / 2

    @property
    def is_round(self) -> bool:
        return self.half_length_mm == self.half_width_mm == self.half_height_mm

    def body(self, angle_rad: float) -> tuple[Point, ...]:
        """The outline that a wire lies on at this angle above the hole's axis, seen from above as (x, z)."""
        grown, level = self.wire_mm / 2, math.cos(angle_rad)
        return _outline((self.half_length_mm + grown) * level, (self.half_width_mm + grown) * level, self.leg_x_mm, self.wire_mm)

    def grown(self) -> "StandingBead":
        """The same with a layer of wire on it: a wire thicker all round."""
        d = self.wire_mm
        return StandingBead(self.half_length_mm + d, self.half_width_mm + d, self.half_height_mm + d, d, self.axis_y_mm)

    def around_mm(self, angle_rad: float) -> float:
        """Once round bead and legs at this angle; for a round bead in closed form."""
        if not self.is_round:
            hull = self.body(angle_rad)
            return sum(math.dist(hull[k - 1], hull[k]) for k in range(len(hull)))
        a, b, e = self.reach_mm * math.cos(angle_rad), self.wire_mm, self.leg_x_mm
        # Two discs of the legs and the bead's between them: tangents, and what is left of the arcs.
        gamma = math.acos(max(-1.0, min(1.0, (a - b) / e)))
        return 4 * math.sqrt(max(0.0, e * e - (a - b) ** 2)) + 4 * gamma * b + 2 * (math.pi - 2 * gamma) * a


@lru_cache(maxsize=256)
def _outline(a_mm: float, b_mm: float, leg_x_mm: float, leg_radius_mm: float) -> tuple[Point, ...]:
    """The hull of a bead's section of these semi-axes and its two legs: the same at every size of a ring."""
    legs = [p for side in (-1, 1) for p in circle_points(side * leg_x_mm, 0.0, leg_radius_mm, _PER_TURN // 2)]
    return convex_hull((*ellipse_points(a_mm, b_mm, _PER_TURN), *legs))


@dataclass(frozen=True)
class Nest(Move):
    """`turns` (in halves) round `bead`, from one angle above its hole's axis to another [rad].

    It begins at the left leg and goes past the nearer face first (`sense` +1) or the farther one (−1).
    """

    bead: StandingBead
    turns: float
    from_rad: float
    to_rad: float
    sense: int = 1
    kind: ClassVar[str] = "nest"
    seconds: ClassVar[float] = 45.0
    hand: ClassVar[HandKind] = "nest"
    counted: ClassVar[Counted | None] = Counted("turn", step=0.5, least=0.5, most=8, spared_by=0.5, spared_to=0.5)

    @property
    def count(self) -> float:
        return self.turns

    @cached_property
    def around_mm(self) -> float:
        """Mean length of a turn without its climb (Simpson's rule): low down, where the legs stand out, it changes fast."""
        parts = 16 if self.bead.is_round else 4
        climb = (self.to_rad - self.from_rad) / parts
        weights = [1 if k in (0, parts) else 4 if k % 2 else 2 for k in range(parts + 1)]
        return sum(weight * self.bead.around_mm(self.from_rad + climb * k) for k, weight in enumerate(weights)) / (3 * parts)

    @cached_property
    def length_mm(self) -> float:
        # As it is drawn, which is through so many points: a round half-way up says what its curves take more.
        middle = (self.from_rad + self.to_rad) / 2
        level = self._levels[_LEVELS // 2]
        drawn = along_mm([_at(level, k / _PER_TURN) for k in range(_PER_TURN + 1)])
        return along_mm(self._way) * self.bead.around_mm(middle) / drawn

    def arithmetic(self) -> Say:
        return say(
            "{turns} × {around} a turn, on average, and {climb} higher at its end, along its way",
            turns=Number(self.turns),
            around=Thickness(self.around_mm),
            climb=Thickness(self.bead.reach_mm * (math.sin(self.to_rad) - math.sin(self.from_rad))),
        )

    @cached_property
    def _levels(self) -> list[list[tuple[float, Point]]]:
        """Rounds at some heights, each from the left end past the nearer face, by the share of the way."""
        found = []
        for k in range(_LEVELS + 1):
            angle = self.from_rad + (self.to_rad - self.from_rad) * k / _LEVELS
            hull = list(self.bead.body(angle))
            first = min(range(len(hull)), key=lambda i: hull[i][0])
            turned = [*hull[first:], *hull[:first], hull[first]]
            found.append(at_shares(turned, 2 * _PER_TURN))
        return found

    def point(self, turned: float) -> Point3:
        """Where the wire stands after so many turns."""
        share = turned / self.turns
        level = share * _LEVELS
        low = min(int(level), _LEVELS - 1)
        (x0, z0), (x1, z1) = (_at(self._levels[k], turned % 1.0) for k in (low, low + 1))
        part = level - low
        angle = self.from_rad + (self.to_rad - self.from_rad) * share
        y = self.bead.axis_y_mm + self.bead.reach_mm * math.sin(angle)
        return (x0 + (x1 - x0) * part, y, self.sense * (z0 + (z1 - z0) * part))

    @property
    def begins(self) -> Point3:
        """Where it begins: beside the left leg."""
        return self._beside(0.0, self.from_rad)

    @property
    def ends(self) -> Point3:
        """Where it ends: beside the leg where its last half turn is done."""
        return self._beside(self.turns, self.to_rad)

    def _beside(self, turned: float, angle: float) -> Point3:
        side = 1 if round(2 * turned) % 2 else -1
        return (side * (self.bead.leg_x_mm + self.bead.wire_mm), self.bead.axis_y_mm + self.bead.reach_mm * math.sin(angle), 0.0)

    def path(self) -> list[Point3]:
        return self._way

    @cached_property
    def _way(self) -> list[Point3]:
        steps = max(2, round(self.turns * _PER_TURN))
        # A whole turn's end is its beginning again: just short of it the way isn't cut.
        return [self.point(self.turns * min(k / steps, 1 - 1e-9)) for k in range(steps + 1)]

    def _counted(self, count: float) -> Self:
        return replace(self, turns=count)

    def _made(self, done: float) -> Self:
        # Stopped half-way it has only climbed so far; planned with other turns it climbs as high.
        return replace(self, turns=done, to_rad=self.from_rad + (self.to_rad - self.from_rad) * done / self.turns)

    def _after(self, done: float) -> Self:
        # What is left climbs from where it stands; a half turn on, it begins at the other leg.
        angle = self.from_rad + (self.to_rad - self.from_rad) * done / self.turns
        return replace(self, turns=self.turns - done, from_rad=angle)


def _at(way: list[tuple[float, Point]], share: float) -> Point:
    low, high = 0, len(way) - 1
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if way[middle][0] <= share else (low, middle)
    (s0, (x0, z0)), (s1, (x1, z1)) = way[low], way[high]
    part = (share - s0) / (s1 - s0) if s1 > s0 else 0.0
    return (x0 + (x1 - x0) * part, z0 + (z1 - z0) * part)
