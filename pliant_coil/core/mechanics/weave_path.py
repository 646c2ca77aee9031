"""How a fine wire lies in a weave: a cycle as data, a list of legs round and across the base wires, and what walks them.

In the plane across the band, round a base wire, 180° is its near side, 270° under it, 0° its far side. Lengths in mm.
Derivation in docs/handbook.md.
"""

import math
from collections.abc import Iterable, Iterator
from functools import lru_cache

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import outside_mm
from pliant_coil.core.mechanics.program import Group

LEAN, SLIGHT = 0.25, 0.1
"""How far wraps lean, in widths of their wire: those that don't advance by a quarter, the others a little on their middle third."""
SLACK = 0.075
"""How far a wrap stands off between two base wires, over the loop's radius: fine wire is never quite taut there."""
UNDER = 0.3
"""So much of it below: there the mandrel presses it flat."""
_PART_DEG = 30


@dataclass(frozen=True)
class Lay:
    """What lies in the weave: the program's groups and the wires they go round."""

    groups: tuple[Group, ...]
    base_wires: int
    base_mm: float
    wire_mm: float
    pitch_mm: float
    step_mm: float

    def z_mm(self, wire: int) -> float:
        return (wire - (self.base_wires - 1) / 2) * self.pitch_mm

    @property
    def loop_radius_mm(self) -> float:
        return (self.base_mm + self.wire_mm) / 2


@dataclass(frozen=True, slots=True)
class Round:
    """Part of a loop round one base wire. `lean` shifts its ends along the wire without advancing [its own widths]."""

    wire: int
    from_deg: float
    to_deg: float
    advance: float = 0.0
    lean: tuple[float, float] = (0.0, 0.0)


@dataclass(frozen=True, slots=True)
class Across:
    """Straight from one base wire to another, leaning over on its middle third, under them or over them."""

    from_wire: int
    to_wire: int
    under: bool
    lean: tuple[float, float]


Leg = Round | Across


def _quarter(wire: int, from_deg: float, advance: float, upright: str = "") -> Iterator[Leg]:
    """A quarter of a loop; on its `upright` third, "first" or "last", it only goes round, and makes up for it before or after."""
    if upright == "first":
        yield Round(wire, from_deg, from_deg + 30)
        yield Round(wire, from_deg + 30, from_deg + 90, advance)
    elif upright == "last":
        yield Round(wire, from_deg, from_deg + 60, advance)
        yield Round(wire, from_deg + 60, from_deg + 90)
    else:
        yield Round(wire, from_deg, from_deg + 90, advance)


def _under(g: Group, shared: set[int], slight: float) -> Iterator[Leg]:
    """From a group's near side under it to its far side, half a step on."""
    single = g.wires == 1
    yield from _quarter(g.first, 180, 0.25, "first" if single and g.first - 1 in shared else "")
    yield Across(g.first, g.last, True, (slight, -slight))
    yield from _quarter(g.last, 270, 0.25, "last" if single and g.last in shared else "")


def _over(g: Group, shared: set[int], slight: float) -> Iterator[Leg]:
    """From a group's far side over it to its near side, half a step on."""
    single = g.wires == 1
    yield from _quarter(g.last, 0, 0.25, "first" if single and g.last in shared else "")
    yield Across(g.last, g.first, False, (slight, -slight))
    yield from _quarter(g.first, 90, 0.25, "last" if single and g.first - 1 in shared else "")


def _splice(g: Group, following: Group, shared: set[int], slight: float) -> Iterator[Leg]:
    """Round `g` with the wraps of `following` put in on its far side: AB1 B1."""
    yield Round(g.first, 180, 270, lean=(0.0, LEAN))
    yield Across(g.first, g.last, True, (LEAN + slight, -LEAN - slight))
    yield Round(g.last, 270, 360, lean=(-LEAN, 0.0))
    for _ in range(following.wraps):
        yield from _over(following, shared, slight)
        yield from _under(following, shared, slight)
    yield Round(g.last, 0, 90, lean=(0.0, LEAN))
    yield Across(g.last, g.first, False, (LEAN + slight, -LEAN - slight))
    yield Round(g.first, 90, 180, lean=(-LEAN, 0.0))


def _change(from_wire: int, to_wire: int) -> Iterator[Leg]:
    """Under or over the wires between, to where the next group begins."""
    for wire in range(from_wire, to_wire):
        yield Round(wire, 180, 270, lean=(0.0, LEAN))
        yield Round(wire, 270, 300, lean=(LEAN, LEAN))
        yield Round(wire, 300, 360, lean=(LEAN, 0.0))
    for wire in range(from_wire - 1, to_wire - 1, -1):
        yield Round(wire, 0, 60, lean=(0.0, -LEAN))
        yield Round(wire, 60, 90, lean=(-LEAN, -LEAN))
        yield Round(wire, 90, 180, lean=(-LEAN, 0.0))


def _is_spliced(groups: tuple[Group, ...], k: int) -> bool:
    after = k + 1
    return after < len(groups) and groups[after].last == groups[k].last and groups[after].first > groups[k].first


def legs(groups: tuple[Group, ...]) -> Iterator[Leg]:
    """One cycle of a program, leg by leg."""
    # Wraps that are all alike lie side by side as they are.
    slight = SLIGHT if len(groups) > 1 else 0.0
    # Where loops on neighbouring wires share the gap between them, they pass it upright, or they would meet aslant.
    shared = {g.first for k, g in enumerate(groups) if _is_spliced(groups, k)}
    k = 0
    while k < len(groups):
        g, splice = groups[k], _is_spliced(groups, k)
        for _ in range(g.wraps - splice):
            yield from _under(g, shared, slight)
            yield from _over(g, shared, slight)
        if splice:
            yield from _splice(g, groups[k + 1], shared, slight)
        k += 1 + splice
        yield from _change(g.first, groups[k % len(groups)].first)


def walk(way: Iterable[Leg], lay: Lay, slack: float) -> tuple[list[Point3], float]:
    """The points of a way of legs, and how far along the base wires it comes."""
    r, step = lay.loop_radius_mm, lay.step_mm
    points: list[Point3] = []
    along = 0.0
    for leg in way:
        if isinstance(leg, Round):
            parts = max(1, round(abs(leg.to_deg - leg.from_deg) / _PART_DEG))
            out = outside_mm(r, math.radians(abs(leg.to_deg - leg.from_deg)) / parts)
            z = lay.z_mm(leg.wire)
            for part in range(parts + 1):
                share = part / parts
                angle = math.radians(leg.from_deg + (leg.to_deg - leg.from_deg) * share)
                shifted = along + step * leg.advance * share + lay.wire_mm * (leg.lean[0] + (leg.lean[1] - leg.lean[0]) * share)
                points.append((shifted, z + out * math.cos(angle), out * math.sin(angle)))
            along += step * leg.advance
        elif leg.from_wire != leg.to_wire:
            start, end = lay.z_mm(leg.from_wire), lay.z_mm(leg.to_wire)
            # Under them the mandrel presses it flat.
            height = -r * (1 + UNDER * slack) if leg.under else r * (1 + slack)
            points.append((along + lay.wire_mm * leg.lean[0], start + (end - start) / 3, height))
            points.append((along + lay.wire_mm * leg.lean[1], end + (start - end) / 3, height))
    return points, along


@lru_cache(maxsize=64)
def cycle_points(lay: Lay, cycle_mm: float) -> list[Point3]:
    """The wire's neutral line over one cycle: along the base wires, along the finger, away from it."""
    # Only where wraps of others lie beside it between the base wires does a wrap stand off from them.
    mixed = any(_is_spliced(lay.groups, k) for k in range(len(lay.groups))) or len({g.first for g in lay.groups}) > 1
    points, along = walk(legs(lay.groups), lay, SLACK if mixed else 0.0)
    # What the wire lays down along its own way and what the fullest base wire carries are one length for every
    # program that lies without tilting; one that tilts is drawn closer.
    scale = cycle_mm / along
    return [(s * scale, z, out) for s, z, out in points]


@lru_cache(maxsize=64)
def halves_points(lay: Lay) -> tuple[list[Point3], list[Point3]]:
    """Both halves of a folded wire over one cycle: each wraps its own pair, then passes by the other's wraps."""
    found = []
    r = lay.loop_radius_mm
    before = 0.0
    # It passes by round its outer wire and on the outer half of the ways to it and back: beside the middle wire the other's wraps lie.
    quarter, half_way = math.pi / 2 * r, lay.pitch_mm / 2
    for k, g in enumerate(lay.groups):
        rest = lay.step_mm * sum(other.wraps for other in lay.groups if other is not g)
        points: list[Point3] = []
        outwards = -1 if k == 0 else 1
        outer, inner = (lay.z_mm(w) for w in ((g.first, g.last) if k == 0 else (g.last, g.first)))
        over = (outer, (outer + inner) / 2, inner)
        at = before if k else 0.0
        for wrap in range(g.wraps):
            for part in range(13):
                # Each begins on its outer wire, and goes under to the middle one first; the second half is the first one's mirror image.
                along = lay.step_mm * (wrap + part / 12)
                turned = abs(6 - part) / 6 - 0.5
                past = (half_way + quarter * 2 * turned) / (half_way + quarter) / 2
                if part < 6:
                    past = -past if wrap == 0 else 0.0
                elif wrap < g.wraps - 1:
                    past = 0.0
                out, height = outwards * r * math.cos(math.pi * part / 6), -r * math.sin(math.pi * part / 6)
                places = {3: over, 9: over[::-1]}.get(part, (outer if turned > 0 else inner,))
                points += [(along + (rest * past if z == outer else 0.0), z + out, height) for z in places]
        found.append([(s + at, z, out) for s, z, out in points])
        before += lay.step_mm * g.wraps
    return found[0], found[1]
