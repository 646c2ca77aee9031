"""The weave program: how it is written, read, laid along the base wires, and how much of it fits.

A program is a row of groups such as `A3 AB1`: three wraps on wire A, then one round A and B. Base wires are lettered
from one edge. Lengths in mm. Source: worked out for this project (a taut wire round round wires, wrap beside wrap).
"""

import math
import re
from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import pairwise

from pliant_coil.core.hulls import Bundle, outside_mm
from pliant_coil.core.refusal import refuse

LETTERS = "ABCD"
MOST_WRAPS = 20
MOST_GROUPS = 12

PRESETS = {
    "A3 AB1": "three and one, on two wires",
    "A2 AB1": "two and one, on two wires",
    "AB1": "round both",
    "A1 AB1 B1": "one, both, one: both edges alike",
    "AB2 BC2": "two and two, on three wires",
    "AB1 BC1": "one and one, on three wires",
}
"""Programs that makers use (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Group:
    """`wraps` wraps round the base wires `first` to `last`, numbered from 0."""

    first: int
    last: int
    wraps: int

    @property
    def name(self) -> str:
        return LETTERS[self.first : self.last + 1]


@dataclass(frozen=True, slots=True)
class Pass:
    """A wrap as the chart shows it: where along the cycle it lies, and round which base wires."""

    at_mm: float
    first: int
    last: int


_GROUP = re.compile(r"([A-Za-z]+)\s*(\d*)")


def read_program(text: str, base_wires: int, field: str) -> tuple[Group, ...]:
    """Read a program for `base_wires` wires (2 to 4). Raises `Refusal` at `field`, pointing at the character."""
    example = "A3 AB1, or AB2 BC2 for three wires"
    groups: list[Group] = []
    at = 0
    while at < len(text):
        if text[at] in " ,":
            at += 1
            continue
        match = _GROUP.match(text, at)
        if not match:
            refuse(field, f"“{text[at]}” at character {at + 1} is no wire's letter", example)
        groups.append(_group(match, base_wires, field))
        at = match.end()
    if not groups:
        refuse(field, "the program is empty", example)
    if len(groups) > MOST_GROUPS:
        refuse(field, f"a cycle of {len(groups)} groups is more than can be kept in the hand", f"up to {MOST_GROUPS} groups")
    for wire in range(base_wires - 1):
        if not any(g.first <= wire < g.last for g in groups):
            refuse(field, f"nothing holds {LETTERS[wire]} and {LETTERS[wire + 1]} together", f"a group such as {LETTERS[wire : wire + 2]}1")
    return tuple(groups)


def _group(match: re.Match[str], base_wires: int, field: str) -> Group:
    letters, count = match.group(1).upper(), match.group(2)
    where = f"“{match.group(0)}” at character {match.start() + 1}"
    known = LETTERS[:base_wires]
    for letter in letters:
        if letter not in known:
            refuse(field, f"{where} names wire {letter}, and there is no such base wire", f"wires {known[0]} to {known[-1]}")
    first, last = LETTERS.index(letters[0]), LETTERS.index(letters[-1])
    if letters != LETTERS[first : last + 1]:
        refuse(field, f"{where} isn't a row of neighbours", f"letters side by side in order, such as {known[:2]}")
    if not count or not 1 <= int(count[:6]) <= MOST_WRAPS:
        said = "has no number of wraps" if not count else f"asks for {int(count[:6])} wraps"
        refuse(field, f"{where} {said}", f"1 to {MOST_WRAPS}")
    return Group(first, last, int(count))


def program_text(groups: tuple[Group, ...]) -> str:
    """A program as it is written: `A3 AB1`."""
    return " ".join(f"{g.name}{g.wraps}" for g in groups)


def wires_named(program: str) -> int:
    """How many base wires a program's letters ask for."""
    return max(LETTERS.index(letter) for letter in program if letter in LETTERS) + 1


@dataclass(frozen=True)
class Weave:
    """A program on real wires: `base_mm` and `wire_mm` are diameters, `gap_mm` lies between base wires.

    `packing` is 1 for wraps that touch, more for loose ones.
    """

    groups: tuple[Group, ...]
    base_wires: int
    base_mm: float
    wire_mm: float
    gap_mm: float
    packing: float

    @property
    def pitch_mm(self) -> float:
        """From base wire to base wire."""
        return self.base_mm + self.gap_mm

    def z_mm(self, wire: int) -> float:
        """Where a base wire lies along the finger, from the band's middle."""
        return (wire - (self.base_wires - 1) / 2) * self.pitch_mm

    @property
    def carried(self) -> int:
        """The largest number of wraps that any one base wire carries in a cycle."""
        return max(sum(g.wraps for g in self.groups if g.first <= wire <= g.last) for wire in range(self.base_wires))

    @property
    def cycle_mm(self) -> float:
        """How far one cycle takes the weave along the base wires."""
        return self.wire_mm * self.packing * self.carried

    def loop_mm(self, group: Group) -> float:
        """One wrap of `group`, with its own advance."""
        bundle = Bundle(((self.z_mm(group.first), 0.0), (self.z_mm(group.last), 0.0)), self.base_mm / 2)
        return math.hypot(bundle.loop_mm(self.wire_mm / 2), self.wire_mm * self.packing)

    @property
    def links(self) -> int:
        """Half loops in which the wire goes under or over a base wire only to get to the next group, in a cycle."""
        return sum(steps for _, steps in _links(self.groups))

    @cached_property
    def wire_per_cycle_mm(self) -> float:
        """Weave wire that one cycle takes: its wraps, where they follow each other on the same first wire.

        Where the wire has to change wires (`A1 AB1 B1`, `AB2 BC2`) the curve of the whole cycle is the definition.
        """
        if _changes_wires(self.groups):
            return sum(math.dist(p, q) for p, q in pairwise(self.cycle_points()))
        return sum(g.wraps * self.loop_mm(g) for g in self.groups)

    def passes(self) -> list[Pass]:
        """Every wrap of a cycle where it lies, for the chart: each base wire is filled from its own end."""
        taken = [0] * self.base_wires
        found = []
        for g in self.groups:
            wires = range(g.first, g.last + 1)
            for _ in range(g.wraps):
                at = max(taken[w] for w in wires)
                for w in wires:
                    taken[w] = at + 1
                found.append(Pass((at + 0.5) * self.wire_mm * self.packing, g.first, g.last))
        return found

    def cycle_points(self) -> list[tuple[float, float, float]]:
        """The wire's neutral line over one cycle: along the base wires, along the finger, away from it [mm]."""
        return _cycle_points(self)


def _spliced(group: Group, following: Group | None) -> bool:
    """Whether `following` is wrapped where `group` has come to its far side: AB1 B1."""
    return following is not None and following.last == group.last and following.first > group.first


def _changes_wires(groups: tuple[Group, ...]) -> bool:
    """Whether the wire has to change base wires between groups, or goes round both ways at once."""
    return bool(_links(groups)) or any(_spliced(g, after) for g, after in pairwise(groups))


def _links(groups: tuple[Group, ...]) -> list[tuple[int, int]]:
    """After which group the wire has to go how many base wires further, before the next group can begin."""
    found = []
    k = 0
    while k < len(groups):
        after = k + 1
        if _spliced(groups[k], groups[after] if after < len(groups) else None):
            after += 1
        following = groups[after % len(groups)]
        steps = abs(following.first - groups[k].first)
        if steps:
            found.append((k, steps))
        k = after
    return found


_LEAN, _SLIGHT = 0.25, 0.1
"""How far wraps lean, in wraps: those that don't advance by a quarter, the others a little on their middle third."""
_SLACK = 0.075
"""How far a wrap stands off between two base wires, over the loop's radius: fine wire is never quite taut there."""


@lru_cache(maxsize=64)
def _cycle_points(weave: Weave) -> list[tuple[float, float, float]]:
    r = (weave.base_mm + weave.wire_mm) / 2
    step = weave.wire_mm * weave.packing
    points: list[tuple[float, float, float]] = []
    along = 0.0

    def arc(wire: int, from_deg: float, to_deg: float, advance: float, lean: tuple[float, float] = (0.0, 0.0)) -> None:
        """Round a base wire in the plane across the band: 180° is its near side, 270° under it, 0° its far side.

        `lean` shifts the ends of the arc along the wire without advancing.
        """
        nonlocal along
        parts = max(1, round(abs(to_deg - from_deg) / 30))
        out = outside_mm(r, math.radians(abs(to_deg - from_deg)) / parts)
        for part in range(parts + 1):
            share = part / parts
            angle = math.radians(from_deg + (to_deg - from_deg) * share)
            shifted = along + advance * share + lean[0] + (lean[1] - lean[0]) * share
            points.append((shifted, weave.z_mm(wire) + out * math.cos(angle), out * math.sin(angle)))
        along += advance

    # Only where wraps of others lie beside it between the base wires does a wrap stand off from them.
    slack = _SLACK if _changes_wires(weave.groups) else 0.0

    def across(g: Group, under: bool, lean: tuple[float, float]) -> None:
        """Straight from one edge of a group to the other, leaning over on its middle third: wraps on the edges keep clear."""
        ends = (g.first, g.last) if under else (g.last, g.first)
        (start, end), out = (weave.z_mm(wire) for wire in ends), (-r if under else r) * (1 + slack)
        if start != end:
            points.append((along + lean[0], start + (end - start) / 3, out))
            points.append((along + lean[1], end + (start - end) / 3, out))

    # A wrap passes under its wires a quarter of a step after it began and over them at three quarters. What goes
    # across without advancing leans by a quarter, so that it lies midway between its neighbours there too.
    lean = _LEAN * step
    # Wraps that are all alike lie side by side as they are.
    slight = _SLIGHT * step if len(weave.groups) > 1 else 0.0

    def quarter(wire: int, from_deg: float, advance: float, flat: str = "") -> None:
        """A quarter of a loop; on its `flat` third, "first" or "last", it only goes round, and makes up for it before or after."""
        if flat == "first":
            arc(wire, from_deg, from_deg + 30, 0.0)
            arc(wire, from_deg + 30, from_deg + 90, advance)
        elif flat == "last":
            arc(wire, from_deg, from_deg + 60, advance)
            arc(wire, from_deg + 60, from_deg + 90, 0.0)
        else:
            arc(wire, from_deg, from_deg + 90, advance)

    # Where loops on neighbouring wires share the gap between them, they pass it upright, or they would meet aslant.
    shared = {g.first for g, after in pairwise(weave.groups) if _spliced(g, after)}

    def near_to_far(g: Group, advance: float) -> None:
        single = g.first == g.last
        quarter(g.first, 180, advance / 2, "first" if single and g.first - 1 in shared else "")
        across(g, True, (slight, -slight))
        quarter(g.last, 270, advance / 2, "last" if single and g.last in shared else "")

    def far_to_near(g: Group, advance: float) -> None:
        single = g.first == g.last
        quarter(g.last, 0, advance / 2, "first" if single and g.last in shared else "")
        across(g, False, (slight, -slight))
        quarter(g.first, 90, advance / 2, "last" if single and g.first - 1 in shared else "")

    k = 0
    links = dict(_links(weave.groups))
    while k < len(weave.groups):
        g = weave.groups[k]
        following = weave.groups[k + 1] if k + 1 < len(weave.groups) else None
        spliced = _spliced(g, following)
        for _ in range(g.wraps - spliced):
            near_to_far(g, step / 2)
            far_to_near(g, step / 2)
        if spliced and following:
            arc(g.first, 180, 270, 0.0, (0.0, lean))
            across(g, True, (lean + slight, -lean - slight))
            arc(g.last, 270, 360, 0.0, (-lean, 0.0))
            for _ in range(following.wraps):
                far_to_near(following, step / 2)
                near_to_far(following, step / 2)
            arc(g.last, 0, 90, 0.0, (0.0, lean))
            across(g, False, (lean + slight, -lean - slight))
            arc(g.first, 90, 180, 0.0, (-lean, 0.0))
        if k in links:
            following = weave.groups[(k + 1 + spliced) % len(weave.groups)]
            if following.first > g.first:
                for wire in range(g.first, following.first):
                    arc(wire, 180, 270, 0.0, (0.0, lean))
                    arc(wire, 270, 300, 0.0, (lean, lean))
                    arc(wire, 300, 360, 0.0, (lean, 0.0))
            else:
                for wire in range(g.first - 1, following.first - 1, -1):
                    arc(wire, 0, 60, 0.0, (0.0, -lean))
                    arc(wire, 60, 90, 0.0, (-lean, -lean))
                    arc(wire, 90, 180, 0.0, (-lean, 0.0))
        k += 1 + spliced
    # What the wire lays down along its own way and what the fullest base wire carries are one length for every
    # program that lies without tilting; one that tilts is drawn closer.
    scale = weave.cycle_mm / along
    return [(s * scale, z, out) for s, z, out in points]
