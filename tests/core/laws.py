"""Laws that every drawn ring keeps, as figures to be held against a bound."""

import math
from collections.abc import Iterator
from itertools import pairwise

from pliant_coil.core.plan.model import Plan

INTO_THE_CIRCLE_MM, APART_MM = 0.02, 0.02
"""At most."""


def into_the_circle(told: Plan) -> Iterator[tuple[str, float]]:
    """Each drawn stretch, and how far its metal reaches into the circle that the mandrel reads [mm]; negative for what stands clear."""
    drawing = told.drawing
    assert drawing is not None
    wires = {(wire.role, wire.piece): wire for wire in told.wires}
    for strand in drawing.strands:
        wire = wires[strand.role, strand.piece]
        # A half-round lies flat side in: its neutral line stands 4/(3π) of its radius above it (any table of sections).
        below = 2 / (3 * math.pi) * wire.width_mm if wire.profile == "half-round" else strand.height_mm / 2
        least = min(math.hypot(x - drawing.inside_x_mm, y - drawing.inside_y_mm) for x, y, _ in strand.points)
        yield strand.id, drawing.inside_radius_mm - (least - below)


def apart(told: Plan) -> Iterator[tuple[str, str, float]]:
    """Each stretch and the next one of its wire, where nothing is sawn between them, and how far apart they are drawn [mm]."""
    assert told.drawing is not None
    for one, then in pairwise(told.drawing.strands):
        sawn_between = "kerf" in then.id or then.move != one.move + 1
        if (one.role, one.piece) == (then.role, then.piece) and not sawn_between:
            yield one.id, then.id, math.dist(one.points[-1], then.points[0])
