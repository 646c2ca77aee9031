"""A weave program laid along real base wires: how far a cycle goes, and how much fine wire it takes. Lengths in mm.

Source: a taut wire round round wires, wrap beside wrap; derivation and check values in docs/handbook.md.
"""

import math
from dataclasses import replace

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point3, length_mm
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.mechanics.program import Group
from pliant_coil.core.mechanics.weave_path import Lay, cycle_points, halves_points


@dataclass(frozen=True, slots=True)
class ChartWrap:
    """A wrap as the chart shows it: where along the cycle it lies, and round which base wires."""

    at_mm: float
    first: int
    last: int


@dataclass(frozen=True)
class Weave:
    """A program on real wires: `base_mm` and `wire_mm` are diameters, `gap_mm` lies between base wires.

    `packing` is 1 for wraps that touch, more for loose ones. `folded` works it with the two halves of one wire, each
    round its own pair, so that neither ever changes base wires.
    """

    groups: tuple[Group, ...]
    base_wires: int
    base_mm: float
    wire_mm: float
    gap_mm: float
    packing: float
    folded: bool = False

    @property
    def pitch_mm(self) -> float:
        """From base wire to base wire."""
        return self.base_mm + self.gap_mm

    def z_mm(self, wire: int) -> float:
        """Where a base wire lies along the finger, from the band's middle."""
        return (wire - (self.base_wires - 1) / 2) * self.pitch_mm

    @property
    def step_mm(self) -> float:
        """Advance of one wrap."""
        return self.wire_mm * self.packing

    @cached_property
    def carried(self) -> int:
        """The largest number of wraps that any one base wire carries in a cycle."""
        return max(sum(g.wraps for g in self.groups if g.first <= wire <= g.last) for wire in range(self.base_wires))

    @cached_property
    def cycle_mm(self) -> float:
        """How far one cycle takes the weave along the base wires."""
        return self.step_mm * self.carried

    def loop_mm(self, wires: int) -> float:
        """Once round so many neighbouring base wires, without the advance."""
        apart = (wires - 1) * self.pitch_mm
        return Bundle(((0.0, 0.0), (apart, 0.0)), self.base_mm / 2).loop_mm(self.wire_mm / 2)

    def wrap_mm(self, wires: int) -> float:
        """One wrap round so many base wires, with its advance: √(loop² + advance²)."""
        return math.hypot(self.loop_mm(wires), self.step_mm)

    @cached_property
    def wire_per_cycle_mm(self) -> float:
        """Weave wire that one cycle takes, of both halves where it is folded.

        The sum of the wraps; where one wire has to cross over to other base wires on the way (`AB2 BC2` unfolded), the
        length of the cycle's curve.
        """
        if self.folded:
            return sum(self.half_mm(g) for g in self.groups)
        if crosses_over(self.groups):
            return length_mm(self.cycle_points())
        return sum(g.wraps * self.wrap_mm(g.wires) for g in self.groups)

    def half_mm(self, group: Group) -> float:
        """Wire that the half of a folded wire which wraps `group` takes a cycle: its wraps, and what looseness adds between them."""
        return group.wraps * self.wrap_mm(group.wires) + self.past_mm

    @cached_property
    def past_mm(self) -> float:
        """What a half of a folded wire takes more to pass the other's wraps than if those touched, a cycle."""
        if self.packing == 1:
            return 0.0
        close, group = replace(self, packing=1.0), self.groups[0]
        whole = length_mm(self.half_points(0)) - length_mm(close.half_points(0))
        return whole - group.wraps * (self.wrap_mm(group.wires) - close.wrap_mm(group.wires))

    def chart(self) -> list[ChartWrap]:
        """Every wrap of a cycle where it lies: each base wire is filled from its own end."""
        taken = [0] * self.base_wires
        found = []
        for g in self.groups:
            wires = range(g.first, g.last + 1)
            for _ in range(g.wraps):
                at = max(taken[w] for w in wires)
                for w in wires:
                    taken[w] = at + 1
                found.append(ChartWrap((at + 0.5) * self.step_mm, g.first, g.last))
        return found

    @property
    def _lay(self) -> Lay:
        return Lay(self.groups, self.base_wires, self.base_mm, self.wire_mm, self.pitch_mm, self.step_mm)

    def cycle_points(self) -> list[Point3]:
        """The wire's neutral line over one cycle: along the base wires, along the finger, away from it."""
        return cycle_points(self._lay, self.cycle_mm)

    def half_points(self, half: int) -> list[Point3]:
        """The same for one half (0 or 1) of a folded wire, which only ever wraps its own pair."""
        return halves_points(self._lay)[half]


def spliced(group: Group, following: Group | None) -> bool:
    """Whether `following` is wrapped where `group` has come to its far side: AB1 B1."""
    return following is not None and following.last == group.last and following.first > group.first


def crosses_over(groups: tuple[Group, ...]) -> bool:
    """Whether the wire has to change base wires between groups."""
    at = 0
    while at < len(groups):
        after = at + 1
        if after < len(groups) and spliced(groups[at], groups[after]):
            after += 1
        if groups[after % len(groups)].first != groups[at].first:
            return True
        at = after
    return False


def can_be_folded(groups: tuple[Group, ...], base_wires: int) -> bool:
    """Whether the two halves of one wire can work it side by side: two groups on three wires that share the middle one."""
    return base_wires == 3 and len(groups) == 2 and all(g.wires == 2 for g in groups) and groups[0].wraps == groups[1].wraps
