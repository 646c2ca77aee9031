"""Beads strung along the band, resting on the finger; bowed aside where they lie beside a larger row."""

import math
from dataclasses import replace
from itertools import pairwise
from typing import ClassVar, Self

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point, Point3, length_mm
from pliant_coil.core.mechanics.roots import where_it_reaches
from pliant_coil.core.moves.base import Counted, Move, on_circle
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Count, Thickness
from pliant_coil.core.words.say import Say, say


@dataclass(frozen=True)
class Strung:
    """Beads so long in order, touching, their undersides `inside_mm` from the axis, the wire running on to a circle of `radius_mm`.

    They are as high as they are long unless `heights` says otherwise.

    Angles from the row's middle [rad], clockwise. The wire runs straight from hole to hole; where that would bend it inwards it passes a
    small bead's place straight, and the bead hangs on it. Derivation in docs/handbook.md.
    """

    beads: tuple[float, ...]
    inside_mm: float
    radius_mm: float
    heights: tuple[float, ...] = ()

    def places(self) -> list[Point]:
        """Angle from the row's middle and distance from the axis of every bead's middle."""
        rho = [self.inside_mm + high / 2 for high in self.heights or self.beads]
        angles = [0.0]
        for k in range(1, len(rho)):
            angles.append(angles[-1] + _apart_rad(rho[k - 1], rho[k], (self.beads[k - 1] + self.beads[k]) / 2))
        return [(angle - angles[-1] / 2, r) for angle, r in zip(angles, rho, strict=True)]

    @cached_property
    def _stations(self) -> list[Point]:
        """Angle and distance from the axis of each bead's middle that bends the wire, from the row's left end."""
        found: list[Point] = []
        for at, r in self.places():
            while len(found) > 1 and _bends_inwards(found[-2], found[-1], (at, r)):
                found.pop()
            found.append((at, r))
        return found

    @cached_property
    def angle_rad(self) -> float:
        """From where the wire leaves the circle to where it comes back to it."""
        first, last = self._stations[0], self._stations[-1]
        return last[0] - first[0] + self._runs_down(first[1]) + self._runs_down(last[1])

    def _runs_down(self, rho: float) -> float:
        return math.acos(min(1.0, self.radius_mm / rho))

    @cached_property
    def length_mm(self) -> float:
        """Wire from circle to circle: straight from hole to hole, and a tangent at each end."""
        flat = [on_circle(r, at, 0.0) for at, r in self._stations]
        ends = sum(math.sqrt(max(0.0, r**2 - self.radius_mm**2)) for _, r in (self._stations[0], self._stations[-1]))
        return length_mm(flat) + ends

    def corners(self, lift_mm: float = 0.0) -> list[Point]:
        """Angle from the row's middle and distance from the axis of the wire's corners, from circle to circle."""
        begin = self._stations[0][0] - self._runs_down(self._stations[0][1])
        middle = begin + self.angle_rad / 2
        found = [(at - middle, r + lift_mm) for at, r in self._stations]
        return [(-self.angle_rad / 2, self.radius_mm), *found, (self.angle_rad / 2, self.radius_mm)]


def _apart_rad(one: float, other: float, apart_mm: float) -> float:
    """The angle at the axis between places that lie so far from it, and so far apart."""
    return math.acos(max(-1.0, min(1.0, (one**2 + other**2 - apart_mm**2) / (2 * one * other))))


def bowed_past_mm(bead_mm: float, wire_mm: float) -> float:
    """How far a bare wire on the table is bowed aside past a ball on it: they touch at √(b·d), and it lies a wire beside already."""
    return max(0.0, math.sqrt(bead_mm * wire_mm) - wire_mm)


def _bends_inwards(a: Point, b: Point, c: Point) -> bool:
    (ax, ay, _), (bx, by, _), (cx, cy, _) = (on_circle(r, at, 0.0) for at, r in (a, b, c))
    return (bx - ax) * (cy - by) - (by - ay) * (cx - bx) > 1e-12


@dataclass(frozen=True)
class BeadRow(Move):
    """A row of beads from `start` to `end`, both on the band's circle; the wire follows that circle up to where the row leaves it.

    `play_mm` is bare wire left so that the beads roll: the row then stands off the finger a little. `bow_mm` is how far its middle is bent
    aside (negative: towards the nearer face). `made` is which share of the beads this is, of a row that was stopped half-way.
    """

    strung: Strung
    start: Point3
    end: Point3
    play_mm: float = 0.0
    bow_mm: float = 0.0
    made: tuple[int, int] | None = None
    kind: ClassVar[str] = "bead-row"
    seconds: ClassVar[float] = 20.0
    hand: ClassVar[HandKind] = "curve"
    counted: ClassVar[Counted | None] = Counted("bead", most=16)

    @property
    def count(self) -> float:
        first, last = self.made or (0, len(self.strung.beads))
        return last - first

    @cached_property
    def _reach(self) -> tuple[float, float]:
        return math.atan2(self.start[0], self.start[1]), math.atan2(self.end[0], self.end[1])

    @cached_property
    def base_mm(self) -> float:
        """The row's length before it is bowed: along the circle to the first bead, from hole to hole, and along the circle again."""
        first, last = self._reach
        return self.strung.length_mm + (last - first - self.strung.angle_rad) * self.strung.radius_mm + self.play_mm

    @cached_property
    def chord_mm(self) -> float:
        """From end to end without the bow: as long as its base, and as far along the finger as it drifts."""
        return math.hypot(self.base_mm, self.end[2] - self.start[2])

    @cached_property
    def _bend_mm(self) -> float:
        """Radius of the bow."""
        bow = abs(self.bow_mm)
        return (self.chord_mm**2 / 4 + bow**2) / (2 * bow)

    @cached_property
    def whole_mm(self) -> float:
        """Wire of the whole row."""
        if not self.bow_mm:
            return self.chord_mm
        return 2 * self._bend_mm * math.asin(min(1.0, self.chord_mm / (2 * self._bend_mm)))

    @property
    def _shares(self) -> tuple[float, float]:
        first, last = self.made or (0, len(self.strung.beads))
        return first / len(self.strung.beads), last / len(self.strung.beads)

    @property
    def length_mm(self) -> float:
        first, last = self._shares
        return self.whole_mm * (last - first)

    def arithmetic(self) -> Say:
        beads = Count(len(self.strung.beads), "bead", "beads")
        play = say(" + {play} of play", play=Thickness(self.play_mm)) if self.play_mm else Say("")
        if not self.bow_mm:
            return say(
                "{beads}: {row} from hole to hole and down at both ends{play}",
                beads=beads,
                row=Thickness(self.chord_mm - self.play_mm),
                play=play,
            )
        return say(
            "{beads}: an arc over a chord of {base}{play}, bowed {bow} aside",
            beads=beads,
            base=Thickness(self.chord_mm - self.play_mm),
            play=play,
            bow=Thickness(abs(self.bow_mm)),
        )

    def _base(self, lift_mm: float) -> list[Point3]:
        """The row in the ring's plane, corner by corner, its circle cut into chords."""
        first, last = self._reach
        corners = self.strung.corners(lift_mm)
        points = _arc(self.strung.radius_mm, first, corners[0][0])
        points += [on_circle(r, at, 0.0) for at, r in corners[1:-1]]
        return points + _arc(self.strung.radius_mm, corners[-1][0], last)

    @cached_property
    def _lift_mm(self) -> float:
        """How far the row stands off the finger when its play is drawn up."""
        if self.play_mm <= 0:
            return 0.0
        most = self.play_mm + 3 * max(self.strung.beads)
        return where_it_reaches(self.base_mm, lambda lift: length_mm(self._base(lift)), 0.0, most)

    @cached_property
    def _laid(self) -> list[tuple[float, Point3]]:
        """The row as it lies, bowed, by the share of its base."""
        base = self._base(self._lift_mm)
        whole = length_mm(base) or 1.0
        found, gone = [(0.0, self.start)], 0.0
        for a, b in pairwise(base):
            side = math.dist(a, b)
            parts = max(1, math.ceil(side / 0.6))
            for k in range(1, parts + 1):
                share = (gone + side * k / parts) / whole
                x, y = a[0] + (b[0] - a[0]) * k / parts, a[1] + (b[1] - a[1]) * k / parts
                found.append((share, (x, y, self._aside(share))))
            gone += side
        return [*found[:-1], (1.0, self.end)]

    def _aside(self, share: float) -> float:
        line = self.start[2] + (self.end[2] - self.start[2]) * share
        if not self.bow_mm:
            return line
        off = (share - 0.5) * self.chord_mm
        rise = math.sqrt(max(0.0, self._bend_mm**2 - off**2)) - (self._bend_mm - abs(self.bow_mm))
        return line + math.copysign(rise, self.bow_mm)

    def path(self) -> list[Point3]:
        first, last = self._shares
        return [point for share, point in self._laid if first - 1e-9 <= share <= last + 1e-9]

    def middles(self) -> list[Point3]:
        """Where the beads' middles stand, in their order."""
        lifted = replace(self.strung, inside_mm=self.strung.inside_mm + self._lift_mm)
        found = []
        for angle, r in lifted.places():
            x, y, _ = on_circle(r, angle, 0.0)
            share = min(self._laid, key=lambda laid: math.dist((x, y), laid[1][:2]))[0]
            found.append((x, y, self._aside(share)))
        return found

    def _counted(self, count: float) -> Self:
        beads = self.strung.beads
        more = round(count) - len(beads)
        kept = beads[: round(count)] if more <= 0 else (*beads, *(beads[-1],) * more)
        return replace(self, strung=replace(self.strung, beads=kept), made=None)

    def _made(self, done: float) -> Self:
        first, _ = self.made or (0, 0)
        return replace(self, made=(first, first + round(done)))

    def _after(self, done: float) -> Self:
        first, last = self.made or (0, len(self.strung.beads))
        return replace(self, made=(first + round(done), last))


def _arc(radius: float, first: float, last: float) -> list[Point3]:
    """Along the circle from angle to angle, cut into chords; one point when they are the same."""
    steps = max(1, math.ceil((last - first) / 0.1)) if last > first else 0
    return [on_circle(radius, first + (last - first) * k / max(1, steps), 0.0) for k in range(steps + 1)]
