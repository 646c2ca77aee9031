"""Round a bundle: the lock beside a bead, a binding, a tie, a coil on a row of wires."""

import math
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from typing import ClassVar, Self

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.moves.base import Cause, Counted, Move, Obstacle, on_circle
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.words.figures import Number, Thickness
from pliant_coil.core.words.say import Say, say

_PER_CORNER = 6


@dataclass(frozen=True)
class Wrap(Move):
    """`wraps` taut loops of `profile` round `bundle`, side by side, advancing along the band.

    The bundle lies in (along the finger, away from it) with its zero `band_radius_mm` from the axis. The first wrap
    starts at `from_rad`, each next one lies a wire's width further, clockwise (`towards` +1) or anticlockwise (−1). It
    begins where the loop comes nearest to `start`, going in through the ring first. `inside_mm` is how far it stands
    into the band, 0 for wraps that lie elsewhere.
    """

    wraps: float
    bundle: Bundle
    profile: Profile
    band_radius_mm: float
    from_rad: float
    towards: int = 1
    start: tuple[float, float] = (0.0, 0.0)
    inside_mm: float = 0.0
    cause: Cause | None = None
    pitch_mm: float | None = None
    """Advance of a wrap; the wire's own width unless given."""
    inside_to: float | None = None
    """After how many wraps it stands inside for the last time: at the last one's crest unless given."""
    kind: ClassVar[str] = "wrap"
    seconds: ClassVar[float] = 8.0
    hand: ClassVar[HandKind] = "wrap"
    counted: ClassVar[Counted | None] = Counted("wrap", step=0.5, least=0.5, spared_to=2)

    @property
    def loop_mm(self) -> float:
        """Once round the bundle, without the advance."""
        return self.bundle.loop_mm(self.profile.centroid_mm)

    @property
    def _pitch(self) -> float:
        return self.profile.width_mm if self.pitch_mm is None else self.pitch_mm

    @cached_property
    def length_mm(self) -> float:
        return self.wraps * math.hypot(self.loop_mm, self._pitch)

    @property
    def bent_to_mm(self) -> float | None:
        # Round a square wire's edges it bends as sharply as they are: nobody reckons that.
        return self.bundle.rounding_mm + self.profile.centroid_mm if self.bundle.rounding_mm else None

    @property
    def count(self) -> float:
        return self.wraps

    @property
    def advance_mm(self) -> float:
        return self.wraps * self._pitch

    @property
    def obstacles(self) -> tuple[Obstacle, ...]:
        if self.cause is None or self.inside_mm <= 0:
            return ()
        # From where the wraps begin to the crest of the last one; a half wrap's crest lies half-way along it.
        crest = max(self.wraps / 2, self.wraps - 0.5) if self.inside_to is None else self.inside_to
        reach = self.towards * crest * self._pitch / self.band_radius_mm
        first, last = sorted((self.from_rad, self.from_rad + reach))
        return (Obstacle(self.cause, first, last, self.inside_mm),)

    def arithmetic(self) -> Say:
        return say(
            "{wraps} × √(({hull} round the wires' hull + 2π × {grown})² + {pitch}²)",
            wraps=Number(self.wraps),
            hull=Thickness(self.bundle.hull_perimeter_mm),
            grown=Thickness(self.bundle.rounding_mm + self.profile.centroid_mm),
            pitch=Thickness(self._pitch),
        )

    @cached_property
    def _loop(self) -> Sequence[tuple[float, float]]:
        """The loop from its beginning, going inside first."""
        return opened_inwards(self.bundle, self.profile.centroid_mm, self._first)

    @cached_property
    def _first(self) -> tuple[float, float]:
        return self.bundle.nearest(self.start, self.profile.centroid_mm)

    @property
    def begins(self) -> Point3:
        """Where it begins, in ring coordinates."""
        # Not by the loop's corners: every form that is tried asks where its tails come to, and draws nothing.
        z, out = self._first
        return on_circle(self.band_radius_mm + out, self.from_rad, z)

    @property
    def ends(self) -> Point3:
        """Where it ends; for whole wraps above where it began."""
        z, out = self._part_way(self.wraps % 1)
        return on_circle(self.band_radius_mm + out, self.from_rad + self.towards * self.advance_mm / self.band_radius_mm, z)

    @cached_property
    def _sides(self) -> list[float]:
        loop = self._loop
        return [math.dist(loop[k - 1], loop[k % len(loop)]) for k in range(1, len(loop) + 1)]

    def _part_way(self, share: float) -> tuple[float, float]:
        """The place so far round the loop."""
        if not share:
            return self._first
        loop, left = self._loop, share * sum(self._sides)
        for k, side in enumerate(self._sides):
            if left <= side:
                (z0, out0), (z1, out1) = loop[k], loop[(k + 1) % len(loop)]
                return (z0 + (z1 - z0) * left / side, out0 + (out1 - out0) * left / side)
            left -= side
        return loop[0]

    def path(self) -> list[Point3]:
        loop, sides = self._loop, self._sides
        around = sum(sides)
        points = []
        pitch_rad = self.towards * self._pitch / self.band_radius_mm
        gone, k, whole = 0.0, 0, self.wraps * around
        while True:
            z, out = loop[k % len(loop)]
            points.append(on_circle(self.band_radius_mm + out, self.from_rad + pitch_rad * gone / around, z))
            side = sides[k % len(loop)]
            if gone + side > whole + 1e-9:
                break
            gone += side
            k += 1
        if whole - gone > 1e-6:
            # A part of a wrap may end between two corners.
            z, out = self._part_way(self.wraps % 1)
            points.append(on_circle(self.band_radius_mm + out, self.from_rad + pitch_rad * self.wraps, z))
        return points

    def _counted(self, count: float) -> Self:
        return replace(self, wraps=count)

    def _after(self, done: float) -> Self:
        on = self.towards * done * self._pitch / self.band_radius_mm
        half = abs(done - round(done)) > 0.25
        start = self._loop[len(self._loop) // 2] if half else self.start
        return replace(self, wraps=self.wraps - done, from_rad=self.from_rad + on, start=start)


@lru_cache(maxsize=256)
def opened_inwards(bundle: Bundle, grown_mm: float, start: tuple[float, float]) -> Sequence[tuple[float, float]]:
    """The loop round `bundle` that begins at `start`, a point of it, and goes inside first; a drawing asks for the same few again and again."""
    loop = _opened_at(bundle.loop_points(grown_mm, _PER_CORNER), start)
    quarter = max(1, len(loop) // 4)
    inwards = sum(out for _, out in loop[1 : quarter + 1]) <= sum(out for _, out in loop[-quarter:])
    return loop if inwards else [loop[0], *reversed(loop[1:])]


def _opened_at(loop: list[tuple[float, float]], start: tuple[float, float]) -> list[tuple[float, float]]:
    """`loop` beginning at `start`, which becomes a corner of it on the side that it is nearest to."""
    best, least = 0, math.inf
    for k, a in enumerate(loop):
        b = loop[(k + 1) % len(loop)]
        dx, dy = b[0] - a[0], b[1] - a[1]
        length = dx * dx + dy * dy
        share = max(0.0, min(1.0, ((start[0] - a[0]) * dx + (start[1] - a[1]) * dy) / length)) if length else 0.0
        point = (a[0] + dx * share, a[1] + dy * share)
        distance = math.dist(point, start)
        if distance < least - 1e-12:
            best, least = k, distance
    turned = loop[best + 1 :] + loop[: best + 1]
    return [start, *(p for p in turned if math.dist(p, start) > 1e-9)]
