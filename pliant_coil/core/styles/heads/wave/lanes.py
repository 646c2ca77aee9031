"""The lanes of a stack waved over its free top: where they lie, what they take, where neighbours meet."""

import math
from bisect import bisect_left
from collections.abc import Mapping, Sequence
from functools import lru_cache
from itertools import pairwise

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.curves import length_mm as along_mm
from pliant_coil.core.mechanics.roots import where_it_reaches
from pliant_coil.core.moves.base import on_circle
from pliant_coil.core.styles.handed_on import Stack
from pliant_coil.core.styles.soldered import Soldered, seam_at, seam_of, tube_at

_PARTS = 32
_TUBE_STANDS_OUT_MM = 0.4
"""Of a tube's length, over the lanes' own height, in drawings."""


@dataclass(frozen=True)
class Waves:
    """The lanes of a stack, waved over the free top: all lengths in mm, angles from the top [rad]."""

    stack: Stack
    half_waves: int
    amplitude_mm: tuple[float, ...]
    """Swing of each lane to one side; 0 for a flat one."""
    fan_rad: float
    free_rad: float
    """Half of the free top."""
    jitter: float
    """How far crests wander, as a share of a half wave, all lanes together."""

    @cached_property
    def packed_mm(self) -> tuple[float, ...]:
        n, t = self.stack.rings, self.stack.thick_mm
        return tuple((k - (n - 1) / 2) * t for k in range(n))

    @cached_property
    def places_mm(self) -> tuple[float, ...]:
        """Rest lines at the top: neighbours a contact apart."""
        found = [0.0]
        for a, b in pairwise(self.amplitude_mm):
            found.append(found[-1] + self.stack.thick_mm + a + b)
        return tuple(z - found[-1] / 2 for z in found)

    @property
    def radius_mm(self) -> float:
        """Of the lanes' middle line before they are waved."""
        return (self.stack.inside_mm + self.stack.wide_mm) / 2

    @property
    def half_wave_mm(self) -> float:
        return 2 * (self.free_rad - self.fan_rad) * self.radius_mm / self.half_waves

    @property
    def strain(self) -> float:
        """At the sharpest crest: a strip bent in its own plane."""
        kappa = math.pi * self.half_waves / (2 * (self.free_rad - self.fan_rad))
        return self.stack.thick_mm * max(self.amplitude_mm) * kappa**2 / (2 * self.radius_mm**2)

    def _phase(self, angle: float, free_rad: float) -> tuple[float, float]:
        """How far the waves have come at an angle [rad], nodes at whole multiples of π and crests between them; and how fast that rises."""
        waved = free_rad - self.fan_rad
        turns = math.pi * self.half_waves / (2 * waved)
        wander, around = self.jitter * waved / self.half_waves, math.pi / free_rad
        at = turns * (angle + wander * math.sin(around * angle)) + (math.pi / 2 if self.half_waves % 2 else 0.0)
        return at, turns * (1 + wander * around * math.cos(around * angle))

    def _wave(self, lane: int, angle: float, free_rad: float) -> tuple[float, float]:
        """A lane's swing at an angle, and how fast it changes."""
        at, rises = self._phase(angle, free_rad)
        swing = (1 if lane % 2 else -1) * self.amplitude_mm[lane]
        return swing * math.sin(at), swing * math.cos(at) * rises

    def aside(self, lane: int, angle: float, free_rad: float) -> float:
        """Where a lane lies along the finger at an angle from the top, its free top reaching to ±`free_rad`."""
        packed, place = self.packed_mm[lane], self.places_mm[lane]
        u = max(0.0, min(1.0, (free_rad - abs(angle)) / self.fan_rad))
        wave, _ = self._wave(lane, angle, free_rad)
        return packed + (place - packed + wave) * u * u * (3 - 2 * u)

    def free_mm(self, lane: int, radius_mm: float) -> tuple[float, float]:
        """Length of a lane's free top on a circle of this radius, and half its angle: the soldered part keeps its length."""
        free = math.pi - self.radius_mm * (math.pi - self.free_rad) / radius_mm
        step, part = 2 * free / _PARTS, self.places_mm[lane] - self.packed_mm[lane]
        whole = 0.0
        for k in range(_PARTS):
            # In the middle of each part: √(r² + z′²).
            angle = -free + (k + 0.5) * step
            u = (free - abs(angle)) / self.fan_rad
            wave, slope = self._wave(lane, angle, free)
            if u < 1:
                slope = slope * u * u * (3 - 2 * u) - math.copysign(6 * u * (1 - u) / self.fan_rad, angle) * (part + wave)
            whole += math.hypot(radius_mm, slope)
        return whole * step, free

    def taken_mm(self, lane: int) -> float:
        """What the waves take of a lane's length."""
        return self.free_mm(lane, self.radius_mm)[0] - 2 * self.free_rad * self.radius_mm

    @cached_property
    def reads_mm(self) -> tuple[float, ...]:
        """Radius of each lane's middle line when it is trued round again with its own metal."""
        metal = 2 * self.free_rad * self.radius_mm
        flat = dict[float, float]()
        found = []
        for lane in range(self.stack.rings):
            # Both flat outer rings give up alike.
            known = flat.get(round(abs(self.places_mm[lane]), 6)) if not self.amplitude_mm[lane] else None
            radius = self.radius_mm - self.taken_mm(lane) / (2 * math.pi) if known is None else known
            if known is None:
                for _ in range(2):
                    # All but the waves' own take grows with the radius: 2π a millimetre.
                    radius -= (self.free_mm(lane, radius)[0] - metal) / (2 * math.pi)
                if not self.amplitude_mm[lane]:
                    flat[round(abs(self.places_mm[lane]), 6)] = radius
            found.append(radius)
        return tuple(found)

    def _reached(self, phase: float, free_rad: float) -> float:
        """The angle at which the waves have come so far."""
        waved = free_rad - self.fan_rad
        return where_it_reaches(phase, lambda angle: self._phase(angle, free_rad)[0], -waved, waved)

    @cached_property
    def seam_rad(self) -> float:
        """Where seams in line stand best: at the node nearest the top, which is the top itself with an even number of crests."""
        return self._reached(math.pi, self.free_rad) if self.half_waves % 2 else 0.0

    def crests_rad(self, free_rad: float) -> tuple[float, ...]:
        """Where the waves stand furthest to one side and to the other in turn, from left to right, the free top reaching to ±`free_rad`."""
        first = -(self.half_waves // 2)
        return tuple(self._reached(math.pi * (k + 0.5), free_rad) for k in range(first, first + self.half_waves))

    @property
    def seams_rad(self) -> tuple[float, ...]:
        """Where each ring's seam stands: those in line move to the node."""
        seams = (seam_of(self.stack.seams_rad, lane) for lane in range(self.stack.rings))
        return tuple(seam if self.stack.seams_rad[1:] else self.seam_rad for seam in seams)

    @cached_property
    def seam_clear_mm(self) -> float:
        """From the nearest seam to the crest beside it, along the wire; endless where the seams stand outside the waves."""
        waved = self.free_rad - self.fan_rad
        among = [seam for seam in self.seams_rad if abs(seam) < waved]
        crests = self.crests_rad(self.free_rad)
        return min((abs(seam - crest) * self.radius_mm for seam in among for crest in crests), default=math.inf)

    def meets(self, lane: int, crest: int) -> bool:
        """Whether a lane and the next one meet at a crest; at the others there is a window between them."""
        return (crest + self.half_waves // 2 + lane) % 2 == 1

    @property
    def contacts(self) -> tuple[int, ...]:
        """Per gap between neighbours, where one swings up and the other down."""
        return tuple(sum(self.meets(lane, crest) for crest in range(self.half_waves)) for lane in range(self.stack.rings - 1))

    @cached_property
    def nearest_share(self) -> float:
        """How near neighbours' middle lines come to each other, measured square to them, as a share of a lane's thickness."""
        steps = 2 * _PARTS
        angles = [-self.free_rad + 2 * self.free_rad * k / steps for k in range(steps + 1)]
        lanes = [[self.aside(lane, angle, self.free_rad) for angle in angles] for lane in range(self.stack.rings)]
        step = 2 * self.free_rad * self.radius_mm / steps
        least = math.inf
        for low, high in pairwise(lanes):
            for k in range(1, steps):
                slope = (low[k + 1] - low[k - 1] + high[k + 1] - high[k - 1]) / (4 * step)
                least = min(least, (high[k] - low[k]) / math.hypot(1, slope))
        return least / self.stack.thick_mm

    @property
    def wide_mm(self) -> float:
        """Over all at the top, between the outer lanes' rest lines and their metal."""
        return self.places_mm[-1] - self.places_mm[0] + self.stack.thick_mm

    @property
    def window_mm(self) -> float:
        """Largest round setting between a waved lane and its neighbour."""
        a = max(self.amplitude_mm)
        both = sum(1 for x, y in pairwise(self.amplitude_mm) if x and y)
        if not both:
            return 2 * a
        t, wave = self.stack.thick_mm, 2 * self.half_wave_mm
        least = min(
            2 * (math.hypot(x, t / 2 + a + a * math.cos(2 * math.pi * x / wave)) - t / 2) for x in (wave / 2 * k / 40 for k in range(41))
        )
        return min(4 * a, least)


@lru_cache(maxsize=128)
def waves_of(stack: Stack, half_waves: int, amplitudes: tuple[float, ...], fan_rad: float, free_rad: float, jitter: float) -> Waves:
    """The same waves are asked for by every plan of a ring whose other parts change."""
    return Waves(stack, half_waves, amplitudes, fan_rad, free_rad, jitter)


def lane_points(waves: Waves, lane: int, radius: float, foot: float, metal: float, first: Point3, last: Point3) -> list[Point3]:
    """A lane over the free top, from its left foot to its right one; what it has over stands proud in the middle."""

    steps = 3 * _PARTS
    # Where it lies along the finger, and how far a bulge reaches out there, whatever the bulge is.
    angles = [-foot + 2 * foot * k / steps for k in range(steps + 1)]
    asides = [waves.aside(lane, angle, foot) for angle in angles]
    bulges = [math.cos(math.pi * angle / (2 * foot)) ** 2 for angle in angles]

    def at(proud: float) -> list[Point3]:
        points = [on_circle(radius + proud * bulge, angle, z) for angle, z, bulge in zip(angles, asides, bulges, strict=True)]
        points[0], points[-1] = first, last
        return points

    return at(where_it_reaches(metal, lambda proud: along_mm(at(proud)), 0.0, 2.0))


def soldered(waves: Waves, foot: float, lanes: Mapping[int, Sequence[Point3]], tube_mm: float, tubes: int) -> list[Soldered]:
    """Seams that the free top takes in, contacts of neighbours, and so many tubes in the windows nearest the top."""
    thick, wide = waves.stack.thick_mm, waves.stack.wide_mm
    found = []
    for lane, seam in enumerate(waves.seams_rad):
        if abs(seam) <= foot:
            x, y, z = _at(lanes[lane], seam)
            found.append(seam_at(math.hypot(x, y), seam, z, thick_mm=thick, wide_mm=wide))
    windows = []
    for crest, angle in enumerate(waves.crests_rad(foot)):
        for lane in range(waves.stack.rings - 1):
            (x0, y0, z0), (x1, y1, z1) = _at(lanes[lane], angle), _at(lanes[lane + 1], angle)
            middle = ((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2)
            if waves.meets(lane, crest):
                found.append(Soldered("contact", (middle,)))
            else:
                # The widest first, and of those the nearest to the top.
                windows.append((round(z0 - z1, 3), round(abs(angle), 3), abs(lane + 1 - waves.stack.rings / 2), angle, middle))
    for *_, angle, (x, y, z) in sorted(windows)[:tubes]:
        found.append(tube_at(math.hypot(x, y), angle, z, across_mm=tube_mm, high_mm=wide + _TUBE_STANDS_OUT_MM))
    return found


def _at(lane: Sequence[Point3], angle: float) -> Point3:
    """The point of a lane at an angle from the top."""
    k = min(max(1, bisect_left(lane, angle, key=lambda p: math.atan2(p[0], p[1]))), len(lane) - 1)
    (x0, y0, z0), (x1, y1, z1) = lane[k - 1], lane[k]
    before, after = math.atan2(x0, y0), math.atan2(x1, y1)
    share = (angle - before) / (after - before)
    return (x0 + (x1 - x0) * share, y0 + (y1 - y0) * share, z0 + (z1 - z0) * share)
