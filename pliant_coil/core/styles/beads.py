"""A bead standing on a band: its seat, how high it stands, how its tails are led past it, and what to say of it."""

import math

from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.moves.nest import StandingBead
from pliant_coil.core.moves.seat import Seat
from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.handed_on import End, FormedBand, HeadWork, Side, Warn, Wires
from pliant_coil.core.styles.locks import wrap_at
from pliant_coil.core.styles.stones import Bead, PlacedStone
from pliant_coil.core.words.figures import Count, Length, Number
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import say

REACH_WARNS, REACH_REFUSES = math.radians(60), math.radians(75)
"""How far down the sides a bead's shoulders may come."""


def stand_mm(band: BandStyle, wires: Wires, bead: Bead) -> float:
    """How high the bead's underside stands above the finger, by the strands that pass under it."""
    wire = wires["band"]
    half, d = min(bead.height, bead.width) / 2, wire.height_mm
    reach = half + d / 2
    stands = [d / 2 + math.sqrt(max(0.0, reach**2 - z**2)) - half for z in band.under_head_mm(wires) if abs(z) < reach]
    return max(stands, default=0.0)


def seat_on(form_mm: float, band: BandStyle, wires: Wires, bead: Bead, stand: float) -> Seat:
    """The bead's seat on a band formed at this inside diameter."""
    wire = wires["band"]
    return Seat(bead.length / 2, form_mm / 2 + stand + bead.height / 2, band.centre_line_mm(form_mm, wires), wire.height_mm)


def standing(seat: Seat, bead: Bead) -> StandingBead:
    """The bead as wires lie round it."""
    return StandingBead(bead.length / 2, bead.width / 2, bead.height / 2, seat.wire_mm, seat.axis_y_mm)


def check_reach(seat: Seat, bead: Bead) -> None:
    """Raise `Refusal` for a bead too long for the ring."""
    if seat.leg_x_mm + 1.5 * seat.wire_mm < seat.radius_mm * math.sin(REACH_REFUSES):
        return
    most = 2 * (seat.radius_mm * math.sin(REACH_WARNS) - 2 * seat.wire_mm)
    field = "head.bead.diameter_mm" if bead.shape == "round" else "head.bead.length_mm"
    refuse(field, say("{bead} is too long for this ring", bead=bead.words), say("up to {most} stands well", most=Length(math.floor(most))))


def lead_start(end: End) -> Point3:
    """Where a tail arrives, seen as if it came up on the left and were led to the right."""
    x, y, z = end.at
    return (-x, y, -z) if end.side == "right" else end.at


def landing(band: FormedBand, end: End, shoulder_rad: float, edge: int) -> tuple[Point3, End]:
    """Where a tail comes down on the other side (seen as led to the right), and the tail as it then stands."""
    side: Side = "left" if end.side == "right" else "right"
    turned = side == "left"
    at = wrap_at(band, end.wire, 1, max(shoulder_rad, band.ledger.of(side).free_rad), edge=edge, turned=turned).begins
    actual = (-at[0], at[1], -at[2]) if turned else at
    name = side if end.name in ("left", "right") else end.name
    return at, End(end.piece, end.which, side, end.lane, actual, end.wire, end.role, name)


def drilled(bead: Bead, middle: Point3, wires: Wires, field: str = "head.bead.hole_mm") -> PlacedStone:
    """The bead on the ring, with the wire that passes its hole once."""
    return PlacedStone(
        "bead",
        field,
        middle,
        bead.length,
        bead.width,
        bead.height,
        hole_mm=bead.hole_mm,
        passing=((wires["band"], 1),),
        gem=bead,
    )


def snagging(bead: Bead, shoulder_rad: float) -> list[Warn]:
    """A bead that is long for its ring."""
    if shoulder_rad <= REACH_WARNS:
        return []
    text = say("{bead} is long for this ring: its shoulders come far down the sides.", bead=bead.words)
    return [Warn("bead-too-wide", text, "head.bead.diameter_mm")]


def lopsided(work: HeadWork) -> list[Warn]:
    """Wraps that differ by more than one from side to side."""
    left, right = work.ledger.left.wraps, work.ledger.right.wraps
    if abs(left - right) <= 1:
        return []
    fewer, more = ("left", right) if left < right else ("right", left)
    text = say(
        "{more} on one side and {less} on the {side}: the ring sits crooked. {missing} more there.",
        more=Count(round(more), "wrap", "wraps"),
        less=Number(min(left, right), 0),
        side=fewer,
        missing=Number(abs(left - right), 0),
    )
    return [Warn("wraps-differ", text, "finish.wraps_each_side")]
