"""A wire bent at corners in the ring's plane: straights with a bend at each corner between them."""

import math

from pliant_coil.core.mechanics.curves import Point
from pliant_coil.core.moves.base import Move
from pliant_coil.core.moves.bend import Bend
from pliant_coil.core.moves.straight import Straight


def bent(corners: list[Point], labels: list[str], *, radius_mm: float, wire_mm: float, z_mm: float = 0.0) -> list[Move]:
    """From the first corner to the last, (x, y) in the ring's plane, all turning clockwise; `labels` name the straights.

    Each bend has the neutral radius `radius_mm`. The first is made with the jaws on the side of the wire's middle, the rest against what it
    then carries.
    """
    moves: list[Move] = []
    start = corners[0]
    for k in range(1, len(corners)):
        a, b = corners[k - 1], corners[k]
        into = math.atan2(b[0] - a[0], b[1] - a[1])
        if k == len(corners) - 1:
            moves.append(Straight(labels[k - 1], (*start, z_mm), (*b, z_mm)))
            break
        c = corners[k + 1]
        turn = (math.atan2(c[0] - b[0], c[1] - b[1]) - into) % (2 * math.pi)
        cut = radius_mm * math.tan(turn / 2)
        stop = (b[0] - cut * math.sin(into), b[1] - cut * math.cos(into))
        moves.append(Straight(labels[k - 1], (*start, z_mm), (*stop, z_mm)))
        # Turning clockwise, the centre lies to the right of the way.
        centre = (stop[0] + radius_mm * math.cos(into), stop[1] - radius_mm * math.sin(into), z_mm)
        moves.append(Bend("bend", centre, radius_mm, into - math.pi / 2, turn, wire_mm, jaw="after" if k == 1 else None))
        out = into + turn
        start = (b[0] + cut * math.sin(out), b[1] + cut * math.cos(out))
    return moves
