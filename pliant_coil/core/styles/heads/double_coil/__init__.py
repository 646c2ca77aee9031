"""Double coil: a coil of fine wire wound again into a barrel, threaded on the band's wire across the finger."""

import math
from collections.abc import Mapping
from dataclasses import replace
from typing import ClassVar, Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import Move, on_circle
from pliant_coil.core.moves.bend import Bend
from pliant_coil.core.moves.bent import bent
from pliant_coil.core.moves.coil import CoilOfCoil
from pliant_coil.core.moves.grip import to_hold
from pliant_coil.core.moves.passing import Course
from pliant_coil.core.moves.placed import Fate, Piece, Placed, named
from pliant_coil.core.moves.straight import Lead, Straight
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles.beads import lead_start
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import LOCKS, End, Form, FormedBand, HeadWork, Joined, Opening, Top, Warn, Wires
from pliant_coil.core.styles.heads.double_coil import steps
from pliant_coil.core.styles.parameters import WireSpec, choice, millimetres, number
from pliant_coil.core.styles.stones import PlacedStone
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.figures import Count, Length, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

_MOST_BOWED_RAD = math.radians(70)
"""Further round a barrel presses on the next fingers (common practice, no source)."""
HOLD_MM = 15.0
"""Wire that holds a winding to its rod at each end (common practice, no source)."""


@dataclass(frozen=True)
class Barrel:
    coil: CoilOfCoil
    end_x_mm: float
    foot_rad: float
    corners: tuple[tuple[float, float], ...]
    aside_mm: float
    """How far beside the middle lane tails pass it, resting on the finger."""


class DoubleCoil(HeadStyle):
    """A barrel of coiled coil on the band's wire."""

    title: ClassVar[str] = "Double coil"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"coil": WireSpec(diameter="0.65 mm")}
    style: Literal["double-coil"] = choice("double-coil", "Head")
    inner_rod_mm: float = millimetres(1.5, "First rod", 0.8, 3)
    outer_rod_mm: float = millimetres(1.5, "Second rod", 1.0, 4, "At least a little thicker than the band's wire.")
    outer_turns: int = number(4, "Turns of the coil kept", 2, 7)
    build: Literal["once", "above-and-below"] = choice("once", "Band passes it", "Once, through it; or its tails also above and below.")
    lies: Literal["straight", "bowed"] = choice("straight", "Barrel lies", "Straight across the top, or bowed to the finger.")
    leaves: Literal["tangent", "square"] = choice(
        "tangent", "Wire leaves it", "Levelled to the band, or bent square down; a bowed one is always left square.", rare=True
    )
    close_wraps: int = number(1, "Its ends closed by", 0, 2, "Wraps of the fine wire round the band wire.", rare=True)
    again: int = number(0, "Further passes", 0, 1, rare=True)

    def fits(self, band: BandStyle) -> Say:
        if Top.CLOSED in band.tops():
            return Say("its rings are closed before a barrel could be threaded on")
        return lacks(band, Top.THROUGH) if self.build == "once" else lacks(band, Top.THROUGH, Top.TAILS)

    def barrel(self, inside_mm: float, radius: float, wires: Wires) -> Barrel:
        """The barrel on a band of this inside diameter. Raises `Refusal` when it can't be threaded or stands too long."""
        coil_wire, band_wire = wires["coil"], wires["band"]
        d, d_b = coil_wire.size_mm, band_wire.height_mm
        if self.outer_rod_mm < d_b + 0.1 - 1e-9:
            refuse(
                "head.outer_rod_mm",
                "the barrel won't go on the band's wire",
                say("a rod of {rod} or thicker, or a thinner band wire", rod=Thickness(d_b + 0.2)),
            )
        if self.inner_rod_mm < d:
            refuse("head.inner_rod_mm", "the coil's wire cracks on so thin a rod", say("{least} or thicker", least=Thickness(d)))
        coil = CoilOfCoil("double coil", d, self.inner_rod_mm, self.outer_rod_mm, self.outer_turns, 0.0)
        axis = inside_mm / 2 + coil.barrel_mm / 2
        coil = replace(coil, axis_y_mm=axis, bowed=self.lies == "bowed")
        if coil.bowed:
            return self._bowed(coil, radius, d_b)
        x_e = coil.barrel_length_mm / 2 + d_b / 2
        too_long = say("a barrel of {length} is too long for this ring", length=Length(coil.barrel_length_mm))
        if coil.barrel_length_mm > 1.2 * inside_mm:
            refuse("head.outer_turns", too_long, f"{max(2, self.outer_turns - 1)} turns, or thinner wire")
        if self.leaves == "square":
            if x_e >= radius:
                refuse("head.leaves", too_long, "tangent, or fewer turns")
            foot = math.asin(x_e / radius)
        else:
            reach = math.hypot(x_e, axis)
            foot = math.atan2(x_e, axis) + math.acos(radius / reach)
        down = (radius * math.sin(foot), radius * math.cos(foot))
        corners = ((-down[0], down[1]), (-x_e, axis), (x_e, axis), down)
        return Barrel(coil, x_e, foot, corners, math.sqrt(coil.barrel_mm * d_b))

    def _bowed(self, coil: CoilOfCoil, radius: float, d_b: float) -> Barrel:
        """A barrel that follows the finger: the wire rides in the middle of it and drops to the band at both its ends."""
        foot = coil.half_rad + d_b / 2 / coil.axis_y_mm
        if foot > _MOST_BOWED_RAD:
            refuse(
                "head.outer_turns",
                say("a barrel of {n} goes too far round this ring", n=Count(self.outer_turns, "turn", "turns")),
                f"{max(2, self.outer_turns - 1)} turns, or thinner wire",
            )
        tops, feet = ([(side * r * math.sin(foot), r * math.cos(foot)) for side in (-1, 1)] for r in (coil.axis_y_mm, radius))
        corners = (feet[0], tops[0], tops[1], feet[1])
        return Barrel(coil, tops[1][0], foot, corners, math.sqrt(coil.barrel_mm * d_b))

    def _led_through(self, barrel: Barrel, wire_mm: float) -> list[Move]:
        """The band's wire from foot to foot: up, through the barrel, down."""
        corners = list(barrel.corners)
        if not barrel.coil.bowed:
            return bent(corners, ["leg", "barrel", "leg"], radius_mm=wire_mm, wire_mm=wire_mm)
        # From the leg on to the barrel's circle, in a bend that touches both.
        axis, foot, r = barrel.coil.axis_y_mm, barrel.foot_rad, wire_mm
        delta = math.asin(r / (axis - r))
        leg = math.sqrt((axis - r) ** 2 - r**2)
        moves: list[Move] = []
        for side in (-1, 1):
            turned = on_circle(axis - r, side * (foot - delta), 0.0)
            from_rad = -foot - math.pi / 2 if side < 0 else foot - delta
            bend = Bend("bend", turned, r, from_rad, math.pi / 2 + delta, wire_mm, jaw="after" if side < 0 else None)
            ends = [(*corners[0], 0.0), on_circle(leg, side * foot, 0.0)] if side < 0 else [on_circle(leg, foot, 0.0), (*corners[3], 0.0)]
            straight = Straight("leg", ends[0], ends[1])
            moves += [straight, bend] if side < 0 else [bend, straight]
        through = Arc("barrel", axis, -(foot - delta), 2 * (foot - delta), 0.0, 0.0)
        return [*moves[:2], through, *moves[2:]]

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        barrel = self.barrel(form.diameter_mm, band.centre_line_mm(form.diameter_mm, wires), wires)
        both = self.build == "above-and-below"
        if both and form.locks < 1:
            refuse("finish.wraps_each_side", "the tails hold nothing without a lock", "at least 1 wrap each side")
        return Opening(foot_rad=barrel.foot_rad, shoulder_rad=barrel.foot_rad, across=both, facts=barrel)

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        barrel: Barrel = opening.facts
        wire = band.strand_wire
        slot = band.slots[0]
        moves = self._led_through(barrel, wire.height_mm)
        middle = len(moves) // 2
        through = named("head", [replace(m, mark="barrel's middle", mark_share=0.5) if k == middle else m for k, m in enumerate(moves)])
        onward, tails = {}, []
        if self.build == "above-and-below":
            for end in band.ends:
                onward[end.key] = self._passed(form, band, barrel, end)
        else:
            tails = list(band.ends)
        stone = PlacedStone(
            "barrel",
            "head.outer_rod_mm",
            (0.0, barrel.coil.axis_y_mm, 0.0),
            2 * barrel.end_x_mm,
            barrel.coil.barrel_mm,
            barrel.coil.barrel_mm,
            shape="barrel",
        )
        return HeadWork(
            through={slot.lane: through},
            onward=onward,
            pieces=(self._coil_piece(barrel, wires),),
            stones=(stone,),
            tails=tuple(tails),
            ledger=band.ledger,
            tied=band.tied or self.build == "above-and-below",
            height_mm=barrel.coil.barrel_mm,
            facts=barrel,
        )

    def _coil_piece(self, barrel: Barrel, wires: Wires) -> Piece:
        """The fine wire: what is kept of it, its closing ends, and what holds it to the rods."""
        fine, band_wire = wires["coil"], wires["band"]
        coil = barrel.coil
        held = to_hold("rod", HOLD_MM + coil.wire_per_outer_mm / 2)
        moves: list[Placed] = [Placed("coil.first.rod", held, fate=Fate.HELD)]
        closes = []
        if self.close_wraps:
            # Each end of the fine wire goes once more round the band's wire, where that comes out of the barrel.
            for which, sign in (("first", -1), ("last", 1)):
                closes.append((which, self._close(fine.profile.width_mm, coil, band_wire.height_mm, sign, wires)))
        if closes:
            first = closes[0][1]
            moves.append(Placed("coil.first.close", first, backwards=True))
            moves.append(Placed("coil.first.lead", Lead("to the barrel", coil.begins, first.begins), backwards=True))
        moves.append(Placed("coil.barrel", coil))
        if closes:
            last = closes[1][1]
            moves.append(Placed("coil.last.lead", Lead("from the barrel", coil.ends, last.begins)))
            moves.append(Placed("coil.last.close", last))
        moves.append(Placed("coil.last.rod", held, fate=Fate.HELD))
        return Piece("coil.1", "coil", fine, tuple(moves))

    def _close(self, w: float, coil: CoilOfCoil, band_mm: float, sign: int, wires: Wires) -> Wrap:
        """Wraps round the band's wire at an end of the barrel: they lie across the ring's top."""
        radius = coil.axis_y_mm
        return Wrap(
            "close",
            self.close_wraps,
            Bundle(((0.0, 0.0),), band_mm / 2),
            wires["coil"].profile,
            radius,
            sign * (coil.barrel_length_mm / 2 - self.close_wraps * w) / radius,
            sign,
            start=(0.0, 9.0),
            host="the band's wire",
        )

    def _passed(self, form: Form, band: FormedBand, barrel: Barrel, end: End) -> tuple[Placed, ...]:
        """A tail past the barrel along the finger, and round the leg on the other side, seen as led to the right."""
        turned, backwards = end.side == "right", end.which == "first"
        start = lead_start(end)
        radius = band.radius_mm
        face = -barrel.aside_mm
        wire = end.wire
        # Close to the barrel on its leg, which stands above the finger there: an end further down would lie inside the band.
        (x0, y0), (x1, y1) = barrel.corners[2], barrel.corners[3]
        leg, long = math.dist((x0, y0), (x1, y1)), form.locks * wire.width_mm
        middle, low = (
            (x0 + (x1 - x0) * along / leg, y0 + (y1 - y0) * along / leg) for along in (wire.height_mm + long / 2, wire.height_mm + long)
        )
        out = math.hypot(*middle)
        wrap = Wrap(
            "lock",
            form.locks,
            Bundle(((0.0, 0.0),), wire.height_mm / 2),
            wire.profile,
            out,
            math.atan2(*middle) - long / 2 / out,
            start=(-9.0, 0.0),
            inside_mm=max(0.0, band.inside_mm / 2 + 1.5 * wire.height_mm - math.hypot(*low)),
            cause=LOCKS,
            host="the leg",
        )
        stop = wrap.begins
        points: list[Point3] = []
        steps = 30
        first, last = -barrel.foot_rad, barrel.foot_rad
        for k in range(steps + 1):
            share = k / steps
            angle = first + (last - first) * share
            # Out to its place beside the barrel over the first third, back over the last.
            out = min(1.0, 3 * share, 3 * (1 - share))
            z_line = start[2] + (stop[2] - start[2]) * share
            points.append((radius * math.sin(angle), radius * math.cos(angle), z_line + (face - z_line) * math.sin(math.pi / 2 * out)))
        points[0], points[-1] = start, stop
        beside = Course("past the barrel", lambda: points, Say("over the top beside the barrel: the length of the curve"))
        name = "left" if turned else "right"
        moves: list[tuple[str, Move]] = [("pass", beside), ("lock", wrap)]
        return tuple(Placed(f"{name}.{part}", move, turned=turned, backwards=backwards) for part, move in moves)

    def phrase(self, band: BandStyle) -> Say:
        return say("a double coil of {turns}", turns=Count(self.outer_turns, "turn", "turns"))

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        barrel: Barrel = work.facts
        coil = barrel.coil
        found = []
        d_b = band.strand_wire.height_mm
        if self.outer_rod_mm > d_b + 0.8:
            found.append(
                Warn(
                    "barrel-rattles",
                    Say("The barrel rattles on so thin a band wire: close it with wraps at both ends."),
                    "head.outer_rod_mm",
                )
            )
        if self.inner_rod_mm / coil.wire_mm > 4:
            found.append(Warn("coil-limp", Say("So wide a coil is limp and flattens in wear."), "head.inner_rod_mm"))
        if self.outer_rod_mm / coil.coil_mm < 0.35:
            found.append(Warn("coil-gapes", Say("The coil gapes too far on so thin a rod."), "head.outer_rod_mm"))
        if not coil.bowed and coil.barrel_length_mm > 0.95 * band.inside_mm:
            found.append(Warn("barrel-long", Say("The barrel is nearly as long as the ring is wide."), "head.outer_turns"))
        if band.joined is Joined.OPEN and d_b < 1.0 and band.strand_wire.temper == "soft":
            found.append(Warn("band-flimsy", Say("A soft open band this thin bends out of shape under a barrel."), "wires.band.diameter"))
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        return steps.tasks(self, band, work)
