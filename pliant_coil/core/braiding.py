"""Flat braids: how a strand runs across the band, and over and under the others.

Strands zigzag across the band. On its way from one side a strand goes over the first a = ⌊(n − 1)/2⌋ that it meets and
under the rest; from the other side over the first n − 1 − a: over two and over three with six strands. Lengths in mm.
Source of the pattern: common practice; of the geometry: worked out for this project.

A flat braid's width is often given as n·d/(2 cos α). Wires that wide would have to pass through each other where they
change layers, so the braid here is looser (`LOOSENESS`), and its layers stand just so far apart that wires clear.
"""

import math
from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import pairwise

LOOSENESS = {3: 2.2, 4: 1.9, 6: 1.55, 8: 1.5}
"""Width of a braid made by hand over n·d/(2 cos α) (common practice, no source; the maker's own width overrules it)."""
_CLEAR = 1.0
"""Distance of two strands' middles where they pass, in wire diameters."""
_PER_CROSSING = 6


def braid_width_mm(strands: int, wire_mm: float, angle_rad: float) -> float:
    """Width of a flat braid whose strands lie at `angle_rad` to its length."""
    return LOOSENESS[strands] * strands * wire_mm / (2 * math.cos(angle_rad))


def braid_angle_rad(strands: int, wire_mm: float, width_mm: float) -> float | None:
    """The inverse: the angle of a braid that was measured so wide; None for one that is too narrow to be braided."""
    cosine = LOOSENESS[strands] * strands * wire_mm / (2 * width_mm)
    return math.acos(cosine) if 0 < cosine < 1 else None


@dataclass(frozen=True)
class Braid:
    """`strands` wires of `wire_mm` at `angle_rad` to the band's length."""

    strands: int
    wire_mm: float
    angle_rad: float

    @cached_property
    def width_mm(self) -> float:
        return braid_width_mm(self.strands, self.wire_mm, self.angle_rad)

    @cached_property
    def _reach_mm(self) -> float:
        """How far a strand's middle goes to either side of the band's middle."""
        return (self.width_mm - self.wire_mm) / 2

    @cached_property
    def period_mm(self) -> float:
        """Length of the braid in which a strand goes across and back."""
        return 4 * self._reach_mm / math.tan(self.angle_rad)

    @cached_property
    def layer_mm(self) -> float:
        """How far a strand lies above or below the middle: what lets a changing strand pass between two others."""
        beside = 2 * self._reach_mm / self.strands * math.cos(self.angle_rad)
        clear = _CLEAR * self.wire_mm
        return math.sqrt(max((clear / 2) ** 2, clear**2 - beside**2))

    @cached_property
    def thickness_mm(self) -> float:
        return 2 * self.layer_mm + self.wire_mm

    def across(self, phase: float) -> tuple[float, float]:
        """Where a strand stands at `phase` of its period: along the finger and away from it, from the braid's middle."""
        u = phase % 1.0
        z = self._reach_mm * (4 * u - 1 if u < 0.5 else 3 - 4 * u)
        return z, self.layer_mm * self._layer(u)

    def _layer(self, u: float) -> float:
        """+1 over, −1 under; a half-cosine between, midway between the crossings where it changes."""
        n, over = self.strands, (self.strands - 1) // 2
        m = 2 * n * u
        for centre, half, sign in ((0.0, 1.0, 1), (over + 0.5, 0.5, -1), (n, 1.0, 1), (2 * n - over - 0.5, 0.5, -1), (2 * n, 1.0, 1)):
            if abs(m - centre) <= half:
                return sign * math.sin(math.pi / 2 * (m - centre) / half)
        return 1.0 if 0 < m < over + 0.5 or n < m < 2 * n - over - 0.5 else -1.0

    def points(self, phase: float, length_mm: float) -> list[tuple[float, float, float]]:
        """A strand's neutral line over a length of braid: along it, along the finger, away from it."""
        step = self.period_mm / (2 * self.strands * _PER_CROSSING)
        count = max(2, math.ceil(length_mm / step))
        return [(length_mm * k / count, *self.across(phase + length_mm * k / count / self.period_mm)) for k in range(count + 1)]

    @property
    def wire_per_mm(self) -> float:
        """Wire that each strand takes for a millimetre of braid: 1 / cos α and what going over and under adds."""
        return _laid(self)[-1] / self.period_mm

    @property
    def repeat(self) -> tuple[tuple[tuple[float, float, float], ...], ...]:
        """Every strand over one period: along the braid, along the finger, away from it."""
        return _repeat(self)

    def wire_over_mm(self, phase: float, length_mm: float) -> float:
        """Wire that a strand beginning at `phase` takes for this length of braid."""
        return self._taken(phase + length_mm / self.period_mm) - self._taken(phase)

    def _taken(self, phase: float) -> float:
        laid = _laid(self)
        periods, part = divmod(phase, 1.0)
        at = part * (len(laid) - 1)
        k = min(int(at), len(laid) - 2)
        return periods * laid[-1] + laid[k] + (laid[k + 1] - laid[k]) * (at - k)


@lru_cache(maxsize=64)
def _repeat(braid: Braid) -> tuple[tuple[tuple[float, float, float], ...], ...]:
    def rounded(phase: float) -> tuple[tuple[float, float, float], ...]:
        return tuple((round(s, 3), round(z, 3), round(out, 3)) for s, z, out in braid.points(phase, braid.period_mm))

    return tuple(rounded(k / braid.strands) for k in range(braid.strands))


@lru_cache(maxsize=64)
def _laid(braid: Braid) -> tuple[float, ...]:
    """Wire laid down from the beginning of a period to each of its points."""
    laid = [0.0]
    for p, q in pairwise(braid.points(0.0, braid.period_mm)):
        laid.append(laid[-1] + math.dist(p, q))
    return tuple(laid)
