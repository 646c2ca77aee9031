"""Wires twisted together, and strip twisted about itself: lengths, sections, strain. Lengths in mm, stress in MPa.

Sources: the helix; the mean over a turn of the thickness that a flattened cord keeps; strain of a bent and twisted round
bar. Derivations and check values in docs/handbook.md.
"""

import math
from functools import lru_cache

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.hammering import GROWTH, lengthened

_SAMPLES = 360
_QUARTER, _NEWTON = 16, 3


@dataclass(frozen=True)
class Cord:
    """`wires` round wires of `wire_mm` twisted together, one full turn in `lay_mm`."""

    wires: int
    wire_mm: float
    lay_mm: float

    @property
    def helix_mm(self) -> float:
        """How far a strand runs beside the middle line: n equal wires lie on a circle of d / sin(π/n)."""
        return self.wire_mm / math.sin(math.pi / self.wires) / 2

    @property
    def thickness_mm(self) -> float:
        """Of the round cord, where it is thickest: 2r + d."""
        return 2 * self.helix_mm + self.wire_mm

    @property
    def wire_per_mm(self) -> float:
        """Wire of each strand for a millimetre of cord: √(1 + (2πr/lay)²)."""
        return math.hypot(1, 2 * math.pi * self.helix_mm / self.lay_mm)

    @property
    def lay_angle_rad(self) -> float:
        return math.atan(2 * math.pi * self.helix_mm / self.lay_mm)

    @property
    def strain(self) -> float:
        """Equivalent strain at a strand's surface, bending and twist together."""
        alpha, r, half = self.lay_angle_rad, self.helix_mm, self.wire_mm / 2
        bending = math.sin(alpha) ** 2 * half / r
        twist = 2 * math.pi / self.lay_mm * math.cos(alpha) ** 2 * half
        return math.sqrt(bending**2 + twist**2 / 3)

    def flattening(self, thickness_mm: float) -> float:
        """Mean of ln(height / t) over a turn, where the cord is higher than t: how much tapping has driven it down."""
        return _flattening(self.wires, self.wire_mm, thickness_mm)

    def aside_mm(self, flat: float) -> float:
        """How far a strand runs beside the middle line along the finger, where `flat` of its helix's height is left (0 < flat ≤ 1).

        As far as keeps the wire of a turn: metal doesn't get less by being spread.
        """
        return _aside_mm(self, flat)

    def tapped_growth(self, thickness_mm: float) -> float:
        """Share by which tapping to this thickness lengthens the cord: g times its flattening."""
        return GROWTH * self.flattening(thickness_mm)


@lru_cache(maxsize=64)
def _aside_mm(cord: Cord, flat: float) -> float:
    across, up = 2 * math.pi / cord.lay_mm, cord.helix_mm * flat
    quarter = [math.pi / 2 * (k + 0.5) / _QUARTER for k in range(_QUARTER)]
    # For slopes that are small it is what keeps the mean of their squares; the rest comes off in steps of Newton's.
    aside = math.sqrt(2 * cord.helix_mm**2 - up**2)
    for _ in range(_NEWTON):
        ways = [math.hypot(1, across * up * math.sin(turned), across * aside * math.cos(turned)) for turned in quarter]
        grows = sum(across**2 * aside * math.cos(turned) ** 2 / way for turned, way in zip(quarter, ways, strict=True))
        aside -= (sum(ways) - _QUARTER * cord.wire_per_mm) / grows
    return aside


@lru_cache(maxsize=64)
def _flattening(wires: int, wire_mm: float, thickness_mm: float) -> float:
    cord = Cord(wires, wire_mm, 1.0)
    total = 0.0
    for k in range(_SAMPLES):
        turned = 2 * math.pi * (k + 0.5) / _SAMPLES
        heights = [math.cos(turned + 2 * math.pi * strand / wires) for strand in range(wires)]
        height = wire_mm + cord.helix_mm * (max(heights) - min(heights))
        total += math.log(max(1.0, height / thickness_mm))
    return total / _SAMPLES


@dataclass(frozen=True)
class Strip:
    """A round wire of `wire_mm` hammered flat to `thickness_mm`, then twisted one turn in `lay_mm` (0: left flat)."""

    wire_mm: float
    thickness_mm: float
    lay_mm: float

    @property
    def width_mm(self) -> float:
        """Width of the flat: a flat-sided oval of the wire's own area."""
        t = self.thickness_mm
        return (math.pi * self.wire_mm**2 / 4 - math.pi * t**2 / 4) / t + t

    @property
    def mean_mm(self) -> float:
        """Mean thickness of the twisted strip, where other wires lie on it."""
        return (self.width_mm + self.thickness_mm) / 2 if self.lay_mm else self.thickness_mm

    @property
    def axis_share(self) -> float:
        """By how much twisting shortens the axis: 1 − (πb/lay)²/6."""
        return 1 - (math.pi * self.width_mm / self.lay_mm) ** 2 / 6 if self.lay_mm else 1.0

    @property
    def strip_per_wire(self) -> float:
        """Millimetres of strip from one of plain wire."""
        return lengthened(self.wire_mm, self.thickness_mm) * self.axis_share

    @property
    def strain(self) -> float:
        """Equivalent strain from the hammer: (2/√3)·ln(d/t)."""
        return 2 / math.sqrt(3) * math.log(self.wire_mm / self.thickness_mm)


def hardened_mpa(yield_mpa: float, strain: float, flow: tuple[float, float]) -> float:
    """Flow stress after so much strain: K·εⁿ (Hollomon), never below what the wire had.

    `flow` is K [MPa] and n of the annealed metal.
    """
    strength, exponent = flow
    return max(yield_mpa, float(strength * strain**exponent))
