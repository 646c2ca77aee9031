"""Where one move of a wire hands on to the next: drawn as the one wire that it is.

A move ends in its own lane and the next begins in its own, beside it by up to a wire's width: a tail comes up beside the
strands that it will wrap. Wire drifts over between them; both are drawn easing towards the middle of the step. The step's
length is within the drift of a helix (0.1 mm on 8 mm) and is not reckoned.
"""

import math
from itertools import pairwise

from pliant_coil.core.mechanics.curves import Point3, length_mm
from pliant_coil.core.moves.placed import WIDEST_WIRES, Fate, Piece

_EASED_OVER = 5.0
"""A step is spread over so many times itself."""


def drawn(piece: Piece) -> list[list[Point3]]:
    """The neutral line of each of the piece's moves, in order, meeting the one before; empty for what isn't drawn."""
    paths = [placed.path() for placed in piece.moves]
    before: int | None = None
    for k, placed in enumerate(piece.moves):
        if placed.fate is Fate.KERF:
            before = None
        if not paths[k]:
            continue
        if before is not None:
            step = math.dist(paths[before][-1], paths[k][0])
            wide = max(worked.width_mm or piece.wire.width_mm for worked in (piece.moves[before].worked, placed.worked))
            if 1e-9 < step <= WIDEST_WIRES * wide:
                middle = _between(paths[before][-1], paths[k][0], 0.5)
                paths[before] = _eased(paths[before][::-1], middle, step)[::-1]
                paths[k] = _eased(paths[k], middle, step)
        before = k
    return paths


def _eased(points: list[Point3], to: Point3, step_mm: float) -> list[Point3]:
    """The line begun at `to`, coming back to itself further on."""
    shift = (to[0] - points[0][0], to[1] - points[0][1], to[2] - points[0][2])
    along = length_mm(points)
    reach = min(along, _EASED_OVER * step_mm) or 1.0
    found, gone = [to], 0.0
    for a, b in pairwise(points):
        side = math.dist(a, b)
        if gone < reach < gone + side and len(points) > 2:
            # The drift ends within a long side: it gets a corner there.
            found.append(_between(a, b, (reach - gone) / side))
        gone += side
        left = max(0.0, 1 - gone / reach)
        found.append((b[0] + shift[0] * left, b[1] + shift[1] * left, b[2] + shift[2] * left))
    return found


def _between(a: Point3, b: Point3, share: float) -> Point3:
    return (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share, a[2] + (b[2] - a[2]) * share)
