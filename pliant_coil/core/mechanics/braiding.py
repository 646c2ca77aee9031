"""Flat braids: how a strand runs across the band, and over and under the others. Lengths in mm.

Strands zigzag across the band. From one side a strand goes over the first ⌊(n − 1)/2⌋ that it meets and under the rest;
from the other side over n − 1 less as many: over two and over three with six strands (common practice). Width, spacing of
the bights and the wire that changes of layer take: derivations in docs/handbook.md.
"""

import math
from functools import lru_cache

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point3, length_mm


@dataclass(frozen=True)
class Braid:
    """`strands` wires of `wire_mm` at `angle_rad` to the band's length."""

    strands: int
    wire_mm: float
    angle_rad: float

    @property
    def width_mm(self) -> float:
        """Of the braid at its closest: n·d / (2 cos α)."""
        return self.strands * self.wire_mm / (2 * math.cos(self.angle_rad))

    @property
    def bight_mm(self) -> float:
        """From bight to bight along an edge: d / sin α."""
        return self.wire_mm / math.sin(self.angle_rad)

    @property
    def period_mm(self) -> float:
        """Length in which a strand goes across and back: n bights."""
        return self.strands * self.bight_mm

    @property
    def wire_per_mm(self) -> float:
        """Wire of a strand for a millimetre of braid: 1/cos α, and four changes of layer a period, each d high over 2d/sin 2α."""
        over = 2 * self.wire_mm / math.sin(2 * self.angle_rad)
        change = math.hypot(over, self.wire_mm) - over
        return 1 / math.cos(self.angle_rad) + 4 * change / self.period_mm

    def across(self, phase: float) -> tuple[float, float]:
        """Where a strand stands at `phase` of its period: along the finger and away from it, from the braid's middle."""
        u = phase % 1.0
        z = self.width_mm / 2 * (4 * u - 1 if u < 0.5 else 3 - 4 * u)
        return z, self.wire_mm / 2 * max(-1.0, min(1.0, self._swing * self._layer(u)))

    @property
    def _swing(self) -> float:
        """With three and four strands changes of layer meet: they swing further, so that the wire they take stays theirs."""
        return 1.0 if self.strands > 4 else _swing(self)

    @cached_property
    def _changes(self) -> tuple[tuple[float, int], ...]:
        """Where in its period, in half crossings, a strand changes layer, and to which: +1 over, −1 under."""
        n, over = self.strands, (self.strands - 1) // 2
        return ((0.0, 1), (over + 0.5, -1), (float(n), 1), (2 * n - over - 0.5, -1), (2.0 * n, 1))

    def _layer(self, u: float) -> float:
        """+1 over, −1 under; each change takes two crossings, and where two changes meet they add up."""
        m = 2 * self.strands * u
        return -1 + sum(2 * to * min(1.0, max(0.0, (m - centre + 1) / 2)) for centre, to in self._changes)

    def points(self, phase: float, length_mm: float) -> list[Point3]:
        """A strand's neutral line over a length of braid: along it, along the finger, away from it."""
        corners = sorted({0.0, 0.5, *((c + side / 2) / (2 * self.strands) for c, _ in self._changes for side in (-2, -1, 0, 1, 2))})
        period = self.period_mm
        first, last = phase, phase + length_mm / period
        stops = {first, last}
        for turn in range(math.floor(first), math.ceil(last) + 1):
            stops |= {turn + c for c in corners if first < turn + c < last}
        return [((p - first) * period, *self.across(p)) for p in sorted(stops)]

    def repeat(self) -> tuple[tuple[Point3, ...], ...]:
        """Every strand over one period: along the braid, along the finger, away from it."""
        return _repeat(self)


@dataclass(frozen=True)
class _Swung(Braid):
    """A braid tried with another swing."""

    tried: float

    @property
    def _swing(self) -> float:
        return self.tried


def angle_from_width_rad(strands: int, wire_mm: float, width_mm: float) -> float | None:
    """The angle of a braid that was measured so wide: cos α = n·d / (2W); None for one too narrow to be braided."""
    cosine = strands * wire_mm / (2 * width_mm)
    return math.acos(cosine) if 0 < cosine < 1 else None


@lru_cache(maxsize=64)
def _swing(braid: Braid) -> float:
    wanted = braid.period_mm * braid.wire_per_mm
    low, high = 0.5, 4.0
    for _ in range(24):
        middle = (low + high) / 2
        drawn = _Swung(braid.strands, braid.wire_mm, braid.angle_rad, middle)
        low, high = (middle, high) if length_mm(drawn.points(0.0, braid.period_mm)) < wanted else (low, middle)
    return low


@lru_cache(maxsize=64)
def _repeat(braid: Braid) -> tuple[tuple[Point3, ...], ...]:
    return tuple(tuple(braid.points(k / braid.strands, braid.period_mm)) for k in range(braid.strands))
