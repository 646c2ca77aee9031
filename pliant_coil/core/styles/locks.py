"""Lock wraps round a shoulder of the band, for the finish and for heads that lock themselves."""

import math

from pliant_coil.core.moves.base import Cause
from pliant_coil.core.moves.placed import WIDEST_WIRES
from pliant_coil.core.moves.straight import Lead
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles.handed_on import LOCKS, End, FormedBand
from pliant_coil.core.trade.wire import Wire


def wrap_at(
    band: FormedBand, wire: Wire, wraps: float, angle_rad: float, *, edge: int, turned: bool, label: str = "lock", cause: Cause = LOCKS
) -> Wrap:
    """Wraps of `wire` round the band's strands from this angle on, away from the top, on the right side or `turned` to the left.

    They begin beside the strands, on the edge of the band that the tail comes to (`edge` −1 or +1 along the finger).
    """
    bundle = band.host(angle_rad, turned)
    return Wrap(
        label,
        wraps,
        bundle,
        wire.profile,
        band.inside_mm / 2,
        angle_rad,
        start=(edge * 1e3, band.strand_wire.centroid_mm),
        inside_mm=wire.height_mm,
        cause=cause,
        host="the band",
    )


def led_to(wrap: Wrap, end: End, turned: bool) -> Lead | None:
    """The way from where a tail stands to where its wraps begin, where they aren't side by side; seen on the right side like the wraps.

    Where the finger's circle is in the way it lies on it.
    """
    x, y, z = end.at
    at = (-x, y, -z) if turned else end.at
    far = math.dist(at, wrap.begins) > WIDEST_WIRES * end.wire.width_mm
    return Lead("to the edge", at, wrap.begins, wrap.band_radius_mm + end.wire.height_mm / 2) if far else None


def edge_of(band: FormedBand, end: End) -> int:
    """On which edge of the strands a tail stands, as seen from its own side: −1 or +1 along the finger."""
    angle, z = seen(end)
    zs = band.strand_z(math.copysign(angle, end.at[0]) if end.at[0] else angle)
    middle = (min(zs) + max(zs)) / 2
    return -1 if z < (-middle if end.side == "left" else middle) else 1


def seen(end: End) -> tuple[float, float]:
    """A tail's angle from the top and its place along the finger, seen as if it stood on the right."""
    x, y, z = end.at
    return abs(math.atan2(x, y)), -z if end.side == "left" else z
