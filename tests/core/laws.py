"""Laws that every drawn ring keeps, as figures to be held against a bound."""

import math
from collections.abc import Iterator
from itertools import pairwise

from pliant_coil.core.plan.model import Plan

INTO_THE_CIRCLE_MM, APART_MM = 0.02, 0.02
"""At most."""
_OF_LENGTH = {"coil-of-coil": 0.015}
"""Kinds of moves whose closed form and path may differ by more than half a per cent: a coil of a coil is thousands of turns, drawn in chords."""
_CHORD_MM = 0.02
"""A drawn arc is cut into chords, which come so much further in than it."""


def into_the_circle(told: Plan) -> Iterator[tuple[str, float]]:
    """Each drawn stretch, and how far its metal reaches into the circle that the mandrel reads [mm]; negative for what stands clear."""
    drawing = told.drawing
    assert drawing is not None
    wires = {(wire.role, wire.piece): wire for wire in told.wires}
    for strand in drawing.strands:
        wire = wires[strand.role, strand.piece]
        # A half-round lies flat side in: its neutral line stands 4/(3π) of its radius above it (any table of sections).
        below = 2 / (3 * math.pi) * wire.width_mm if wire.profile == "half-round" else strand.height_mm / 2
        flat = [(x - drawing.inside_x_mm, y - drawing.inside_y_mm) for x, y, _ in strand.points]
        corners = min(math.hypot(x, y) for x, y in flat)
        sides = min((_from_origin(a, b) for a, b in pairwise(flat)), default=corners)
        yield strand.id, drawing.inside_radius_mm - (min(corners, sides + _CHORD_MM) - below)


def _from_origin(a: tuple[float, float], b: tuple[float, float]) -> float:
    """How near the stretch from one point to the next comes."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    length = dx * dx + dy * dy
    share = max(0.0, min(1.0, -(a[0] * dx + a[1] * dy) / length)) if length else 0.0
    return math.hypot(a[0] + share * dx, a[1] + share * dy)


def apart(told: Plan) -> Iterator[tuple[str, str, float]]:
    """Each stretch and the next one of its wire, where nothing is sawn between them, and how far apart they are drawn [mm]."""
    assert told.drawing is not None
    for one, then in pairwise(told.drawing.strands):
        sawn_between = "kerf" in then.id or then.move != one.move + 1
        if (one.role, one.piece) == (then.role, then.piece) and not sawn_between:
            yield one.id, then.id, math.dist(one.points[-1], then.points[0])


def as_long_as_drawn(kind: str, drawn_mm: float, reckoned_mm: float) -> bool:
    """Whether closed form and path agree, for a kind of move."""
    return math.isclose(drawn_mm, reckoned_mm, rel_tol=_OF_LENGTH.get(kind, 0.005), abs_tol=0.03)
