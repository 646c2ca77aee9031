"""The fine wire that holds the turns round a stone while the band is made, and comes out again."""

from functools import partial

from pliant_coil.core.mechanics.curves import Point, Point3, ellipse_points, length_mm, taut_past
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.moves.grip import to_hold
from pliant_coil.core.moves.halo import Halo
from pliant_coil.core.moves.placed import EndCare, Fate, Piece, Placed
from pliant_coil.core.moves.stitch import Stitch, rounds_along
from pliant_coil.core.trade.wire import Wire

ROUNDS = 3
"""Rounds of the tie on each side (common practice, no source)."""
_TWIST_MM = 15.0
_PER_CORNER = 8


def tie(halo: Halo, mean_mm: float, fine: Wire) -> Piece:
    """Round all turns in front, over the stone, round all turns behind; its ends are twisted together. Strips count as round, `mean_mm` thick."""
    front, behind = (Bundle(halo.crossed(side), mean_mm / 2) for side in (1, -1))
    over = _over(halo, fine, front, behind)
    rounds = Stitch(
        "temporary tie",
        2 * ROUNDS,
        (front.loop_mm(fine.centroid_mm) + behind.loop_mm(fine.centroid_mm)) / 2,
        length_mm(over),
        way=partial(_way, fine, front, behind, over),
    )
    moves = (
        Placed("tie.twist1", to_hold("to twist", _TWIST_MM), fate=Fate.REMOVED),
        Placed("tie.rounds", rounds, fate=Fate.REMOVED),
        Placed("tie.twist2", to_hold("to twist", _TWIST_MM), fate=Fate.REMOVED),
    )
    return Piece("tie.1", "tie", fine, moves, ends=(EndCare.SAWN, EndCare.SAWN))


def _over(halo: Halo, fine: Wire, front: Bundle, behind: Bundle) -> list[Point]:
    """From the top of the turns in front over the stone to that of those behind, taut, as (along the finger, up)."""
    loops = (bundle.loop_points(fine.centroid_mm, _PER_CORNER) for bundle in (front, behind))
    first, last = (max(loop, key=lambda p: p[1]) for loop in loops)
    grown = fine.height_mm / 2
    body = ellipse_points(halo.half_width_mm + grown, halo.half_height_mm + grown)
    # The way past its lower side, seen upside down; from right to left.
    way = taut_past((-first[0], -first[1]), (-last[0], -last[1]), [(z, halo.axis_y_mm * -1 + y) for z, y in body])
    return [(-z, -y) for z, y in way]


def _way(fine: Wire, front: Bundle, behind: Bundle, over: list[Point]) -> list[Point3]:
    """The rounds lie beside each other along the band, about the middle of the turns."""
    w = fine.width_mm
    begin = -w * ROUNDS
    first = rounds_along(front.loop_points(fine.centroid_mm, _PER_CORNER), over[0], ROUNDS, begin, w)
    then = rounds_along(behind.loop_points(fine.centroid_mm, _PER_CORNER), over[-1], ROUNDS, 0.0, w)
    return [(x, y, z) for x, z, y in (*first, *((0.0, *p) for p in over[1:-1]), *then)]
