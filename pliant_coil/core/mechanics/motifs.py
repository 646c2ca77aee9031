"""Small figures bent into a wire on its way: each begins and ends on the way, and stands up from it or lies beside it.

Points are (along the way, aside, up) [mm], from the origin to (`chord`, 0, 0): so much of the way the figure spares. Docs/handbook.md, §21.
"""

import math
from collections.abc import Callable, Mapping

from pliant_coil.core.mechanics.curves import Point, Point3

LOOP_ROD_MM, LOOPS_HIGH_MM = 3.0, 4.0
CRESCENT_RODS_MM = (5.0, 4.0)
_CRESCENT_RAD = math.radians(250)
"""How far a crescent's outer arc goes round."""
_SPIRAL_TURNS = 2.0
_WAVES = 3
_STEP_RAD = 0.15


def _arc(centre: Point, radius: float, begin: float, sweep: float) -> list[Point]:
    """An arc, anticlockwise positive; its corners stand so that it is as long as the arc it replaces."""
    parts = max(2, math.ceil(abs(sweep) / _STEP_RAD))
    half = abs(sweep) / parts / 2
    out = radius * half / math.sin(half)
    between = [begin + sweep * (k + 0.5) / parts for k in range(parts)]
    # The ends stay where they are, the corners between lie on rays through the middles of their arcs.
    inner = [(centre[0] + out * math.cos(t), centre[1] + out * math.sin(t)) for t in between]
    ends = [(centre[0] + radius * math.cos(t), centre[1] + radius * math.sin(t)) for t in (begin, begin + sweep)]
    return [ends[0], *inner, ends[1]]


def _two_loops(wire_mm: float) -> list[Point3]:
    """Up, once round a rod, across, once round it again, and down: two loops that stand beside each other on the way."""
    rho = (LOOP_ROD_MM + wire_mm) / 2
    high = apart = LOOPS_HIGH_MM
    left = _arc((-rho, high), rho, 0.0, 2 * math.pi)
    right = _arc((apart + rho, high), rho, math.pi, 2 * math.pi)
    flat = [(0.0, 0.0), *left, *right, (apart, 0.0)]
    # A loop's end lies a wire's width before its beginning.
    return [(x, wire_mm * (k / (len(flat) - 1) - 0.5) * 2 if 0 < k < len(flat) - 1 else 0.0, y) for k, (x, y) in enumerate(flat)]


def _spiral(wire_mm: float) -> list[Point3]:
    """A flat spiral, rolled inwards; from its middle the wire comes straight out again on top of it."""
    inner, pitch = 0.6 * wire_mm, 1.15 * wire_mm
    outer = inner + pitch * _SPIRAL_TURNS
    turn = 2 * math.pi * _SPIRAL_TURNS
    parts = math.ceil(turn / _STEP_RAD)
    rolled = []
    for k in range(parts + 1):
        r, angle = outer - pitch * _SPIRAL_TURNS * k / parts, math.pi + turn * k / parts
        rolled.append((outer + r * math.cos(angle), r * math.sin(angle), 0.0))
    last = rolled[-1]
    return [*rolled, (last[0] + wire_mm, 0.0, wire_mm), (2 * outer, 0.0, wire_mm), (2 * outer + wire_mm, 0.0, 0.0)]


def _waves(swing_mm: float, length_mm: float) -> list[Point3]:
    """Waves from side to side."""
    parts = _WAVES * 16
    whole = _WAVES * length_mm
    return [(whole * k / parts, swing_mm * math.sin(2 * math.pi * _WAVES * k / parts), 0.0) for k in range(parts + 1)]


def _crescent(wire_mm: float) -> list[Point3]:
    """Over the larger rod, and back over the smaller one to where it began: a crescent that stands on both its tips."""
    outer, inner = ((rod + wire_mm) / 2 for rod in CRESCENT_RODS_MM)
    left_out = math.pi - _CRESCENT_RAD / 2
    half = outer * math.sin(left_out)
    within = math.asin(min(1.0, half / inner))
    begins = -math.pi / 2 - left_out
    over = _arc((half, outer * math.cos(left_out)), outer, begins, -_CRESCENT_RAD)
    back = _arc((half, -inner * math.cos(within)), inner, math.pi / 2 - within, 2 * within)
    flat = [*over, *back[1:]]
    return [(x, wire_mm * math.sin(math.pi * k / (len(flat) - 1)), y) for k, (x, y) in enumerate(flat)]


_FIGURES: Mapping[str, Callable[[float], list[Point3]]] = {"spiral": _spiral, "crescent": _crescent, "two-loops": _two_loops}


def motif(name: str, wire_mm: float, *, jog_mm: float, jog_length_mm: float) -> list[Point3]:
    """The figure of this name in a wire, waves twice as high as a jog of this swing and length."""
    return _waves(2 * jog_mm, jog_length_mm) if name == "wave" else _FIGURES[name](wire_mm)
