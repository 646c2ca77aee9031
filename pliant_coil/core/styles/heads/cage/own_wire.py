"""A cage's own wire on a closed band: laid under the stone, wrapped round the band on both sides, its ends the tails of the passes."""

import math

from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.placed import EndCare, Piece, Placed
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles.handed_on import LOCKS, End, FormedBand, Ledger, Side
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.say import Say

ROLE = "coil"
_PIECE = "coil.1"
_ON_TOP = (0.0, 1e3)


def round_band(band: FormedBand) -> Bundle:
    """Once round a closed band with all that lies on it, as (along the finger, away from its inner side)."""
    thick = band.thickness_mm
    half = band.width_mm / 2 + max(0.0, band.lining_mm)
    rounding = min(thick / 2, half)
    sides = (rounding - half, half - rounding) if half > rounding else (0.0,)
    levels = (rounding, thick - rounding) if thick > 2 * rounding else (rounding,)
    return Bundle(tuple((z, out) for z in sides for out in levels), rounding)


def wrapped(band: FormedBand, wire: Wire, wraps: float, angle_rad: float, *, edge: int = 0, turned: bool = False) -> Wrap:
    """Wraps round it from this angle on, away from the top, seen on the right; they begin and end on its outside, whatever edge they come to."""
    around = round_band(band)
    # It runs straight under the band for a part of each wrap, and reaches on by half of that, and by a corner.
    straight = max(z for z, _ in around.points) - min(z for z, _ in around.points) + math.pi * around.rounding_mm
    return Wrap(
        "lock",
        wraps,
        around,
        wire.profile,
        band.inside_mm / 2,
        angle_rad,
        start=_ON_TOP,
        inside_mm=wire.height_mm,
        cause=LOCKS,
        inside_to=wraps - 0.5 + straight / 2 / around.loop_mm(wire.profile.centroid_mm),
        host="the band",
    )


def anchored(band: FormedBand, wire: Wire, wraps: float, lock_rad: float) -> tuple[Piece, dict[Side, End], Ledger]:
    """The wire as it lies before the first pass, its two tails, and the shoulders with its wraps on them."""
    radius = band.inside_mm / 2 + band.thickness_mm + wire.height_mm / 2
    under = Arc("under the stone", radius, -lock_rad, 2 * lock_rad, 0.0, 0.0, mark="middle", mark_share=0.5, host="the band")
    wrap = wrapped(band, wire, wraps, lock_rad)
    moves = (
        Placed(f"{ROLE}.left.anchor", wrap, turned=True, backwards=True),
        Placed(f"{ROLE}.under", under),
        Placed(f"{ROLE}.right.anchor", wrap),
    )
    x, y, z = wrap.ends
    ends: dict[Side, End] = {
        "left": End(_PIECE, "first", "left", 0, (-x, y, -z), wire, ROLE, "left"),
        "right": End(_PIECE, "last", "right", 0, (x, y, z), wire, ROLE, "right"),
    }
    free = lock_rad + wrap.advance_mm / (band.inside_mm / 2)
    ledger = Ledger().wrapped("left", wraps, free).wrapped("right", wraps, free)
    return Piece(_PIECE, ROLE, wire, moves, ends=(EndCare.DRAWN, EndCare.DRAWN), use=Say("for the cage")), ends, ledger
