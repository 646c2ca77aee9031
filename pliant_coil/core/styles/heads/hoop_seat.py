"""Hoop seat: each tail makes one hoop; a round bead sinks into them, and fine wire through the bead binds it to them."""

import math
from collections.abc import Mapping
from dataclasses import replace
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.bending import released_diameter_mm
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.moves.base import Move
from pliant_coil.core.moves.hoop_wrap import Hoop, HoopWrap
from pliant_coil.core.moves.loop import Loop
from pliant_coil.core.moves.placed import WIDEST_WIRES, Piece, Placed
from pliant_coil.core.moves.straight import Lead, Through
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, HeadWork, Ledger, Opening, Top, Warn, Wires
from pliant_coil.core.styles.locks import wrap_at
from pliant_coil.core.styles.parameters import WireSpec, choice, degrees, millimetres, number
from pliant_coil.core.styles.stones import Bead, PlacedStone
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.words.figures import Count, Length, Share, Thickness, Times
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

_LEAST_SUNK = 0.15
_HANGS_MM = 4.0
_CLOSE_MM = 0.15


@dataclass(frozen=True)
class _Seat:
    """Hoops and bead: all heights from the ring's axis [mm]."""

    wire_mm: float
    """How high the wire of the hoops stands, as it was worked."""
    hoop_mm: float
    """Radius of a hoop's middle line."""
    above_mm: float
    """k: the bead's middle above the upper hoop's plane."""
    upper_mm: float
    """y of the upper hoop's plane, or of the bead's middle less k for hoops that face each other."""
    lift_mm: float
    strands: int
    shoulder_rad: float
    rod_mm: float

    @property
    def inside_mm(self) -> float:
        return 2 * self.hoop_mm

    @property
    def bead_y_mm(self) -> float:
        return self.upper_mm + self.above_mm


class HoopSeat(HeadStyle):
    """A round bead in two hoops of the band's tails."""

    title: ClassVar[str] = "Hoop seat"
    hides_splice = "anywhere round the hoops"
    least_locks: ClassVar[int] = 1
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"bind": WireSpec(diameter="0.3 mm")}
    style: Literal["hoop-seat"] = choice("hoop-seat", "Head")
    bead: Bead = Field(default_factory=lambda: Bead(diameter_mm=8.0, hole_mm=1.0), title="Bead")
    sunk_share: float = number(0.35, "Sunk in", 0.02, 0.48, "How much of the bead lies below the upper hoop.")
    rod_mm: float | None = millimetres(
        None, "Rod of the hoops", 2, 14, "Decides how far the bead sinks; worked out unless given.", rare=True
    )
    seat: Literal["stacked", "facing"] = choice("stacked", "Hoops", "One upon the other, or tilted like an open shell.")
    tilt_deg: float = degrees(45.0, "Tilt of facing hoops", 20, 70, rare=True)
    lock_on: Literal["band", "hoops"] = choice(
        "band", "Tails wrap", "Hoop and shoulder together, or the two hoops only: nothing goes inside."
    )
    bind_wraps: Literal["fill"] | int = number(
        4, "Fine wraps at each place", 3, 30, "On both sides of both mouths. Or fill: as many as find room."
    )
    hole_axis: Literal["along", "across"] = choice("along", "Hole lies", "Along the finger, or across it.", rare=True)

    def fits(self, band: BandStyle) -> Say:
        return lacks(band, Top.TAILS)

    def check(self, target_mm: float, wires: Wires) -> None:
        self.bead.check("head.bead")

    def seated(self, form: Form, band: BandStyle, wires: Wires) -> _Seat:
        """The seat on a band formed at this diameter. Raises `Refusal` for a bead that drops through or hangs in the air."""
        wire, inside = wires["band"], form.diameter_mm / 2
        radius = band.centre_line_mm(form.diameter_mm, wires)
        # Worked flat and twisted it stands higher than the wire it is made of.
        d, b = max(wire.height_mm, 2 * (radius - inside)), self.bead.diameter_mm
        touch = b / 2 + d / 2
        if self.rod_mm is None:
            above = b * (0.5 - self.sunk_share)
            hoop = math.sqrt(touch**2 - above**2)
            rod = 2 * (2 * hoop - d) - released_diameter_mm(2 * hoop - d, wire.profile, wire.metal.youngs_modulus_mpa, wire.yield_mpa)
        else:
            rod = self.rod_mm
            hoop = (released_diameter_mm(rod, wire.profile, wire.metal.youngs_modulus_mpa, wire.yield_mpa) + d) / 2
            if hoop >= touch:
                refuse(
                    "head.rod_mm",
                    say("{bead} drops through hoops turned on {rod}", bead=self.bead.words, rod=Thickness(rod)),
                    say("{most} or less", most=Thickness(math.floor(10 * (2 * touch - d - 0.4)) / 10)),
                )
            above = math.sqrt(touch**2 - hoop**2)
        if hoop >= radius * math.sin(math.radians(75)):
            refuse("head.bead.diameter_mm", say("{bead} is too large for this ring", bead=self.bead.words), "a smaller bead")
        lanes = [*band.under_head_mm(wires), *((0.0,) if Top.THROUGH in band.tops() else ())]
        near = min((abs(z) for z in lanes), default=touch)
        # The bead's foot on the strand under it, or on the finger's line.
        stands = inside + max(b / 2, d / 2 + math.sqrt(max(0.0, touch**2 - near**2)) if near < touch else 0.0)
        lowest = math.sqrt((inside + 1.5 * d) ** 2 - hoop**2)
        if self.lock_on == "hoops":
            # Its wraps go under the hoops, where there is no band: clear of the finger.
            lowest = max(lowest, inside + 1.5 * d)
        upper = max(lowest + d, stands - above)
        lift = upper - lowest - d
        if lift > _HANGS_MM:
            refuse(
                "head.sunk_share",
                say("the hoops hang {lift} above the band", lift=Length(lift)),
                "a smaller hoop: less of the bead sunk in, or a smaller bead",
            )
        return _Seat(d, hoop, above, upper, lift, len(lanes), math.asin(hoop / radius), rod)

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        if form.locks < 1:
            refuse("finish.wraps_each_side", "hoops open without a lock", "at least 1 wrap each side")
        seat = self.seated(form, band, wires)
        # Wound both ways a strand runs on under the bead; wound one way the long tail comes up at the left foot.
        foot = 0.0 if Top.THROUGH in band.tops() else seat.shoulder_rad
        return Opening(foot_rad=foot, shoulder_rad=seat.shoulder_rad, across=True, facts=seat)

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        seat: _Seat = opening.facts
        d = seat.wire_mm
        ends = [replace(end, side="left", at=band.slots[0].left) if end.name == "long" else end for end in band.ends]
        if len(ends) < 2:
            refuse("band.gather", "the short tail is used up, and each hoop needs a tail", "none")
        onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
        ledger = band.ledger
        for end in ends:
            found, ledger = self._tail(band, seat, end, ledger, lower=end.side == "left", d=d)
            turned, backwards = end.side == "left", end.which == "first"
            onward[end.key] = tuple(Placed(f"{end.side}.{part}", move, turned=turned, backwards=backwards) for part, move in found)
        b = self.bead.diameter_mm
        middle = (0.0, seat.bead_y_mm, 0.0)
        stone = PlacedStone(
            "bead", "head.bead.hole_mm", middle, b, b, b, hole_mm=self.bead.hole_mm, passing=((wires["bind"], 1),), gem=self.bead
        )
        return HeadWork(
            onward=onward,
            pieces=(self._binding(form, seat, d, wires),),
            stones=(stone,),
            ledger=ledger,
            tied=True,
            height_mm=seat.bead_y_mm + b / 2 - form.diameter_mm / 2,
            facts=seat,
        )

    def _hoop(self, seat: _Seat, d: float, *, lower: bool) -> Hoop:
        """A tail's hoop as if it came up on the right; its angle 0 there, running towards −z first."""
        if self.seat == "stacked":
            return Hoop((0.0, seat.upper_mm - (d if lower else 0.0), 0.0), seat.hoop_mm, (0.0, 1.0, 0.0), (1.0, 0.0, 0.0))
        tilt = math.radians(self.tilt_deg)
        c, s = math.cos(tilt), math.sin(tilt)
        # On its own side of the bead: its outer edge up, its middle k from the bead's.
        centre = (seat.above_mm * s, seat.bead_y_mm - seat.above_mm * c, 0.0)
        return Hoop(centre, seat.hoop_mm, (-s, c, 0.0), (c, s, 0.0))

    def _tail(
        self, band: FormedBand, seat: _Seat, end: End, ledger: Ledger, *, lower: bool, d: float
    ) -> tuple[list[tuple[str, Move]], Ledger]:
        """Up from the shoulder, round the hoop, and into the lock; seen as if the tail came up on the right."""
        wire, locks, side = end.wire, band.form.locks, end.side
        turns = 1.25 if self.lock_on == "hoops" else 1.0
        x, y, z = end.at
        start = (-x, y, -z) if side == "left" else end.at
        hoop = self._hoop(seat, d, lower=lower)
        first, (ox, oy, oz) = hoop.at(0.0), hoop.zero
        loop = Loop("hoop", 2 * seat.hoop_mm - d, d, first, hoop.along(0.0), (-ox, -oy, -oz), turns)
        found: list[tuple[str, Move]] = [("rise", Lead("rise", start, first)), ("hoop", loop)]
        if self.lock_on == "hoops":
            stacked = self.seat == "stacked"
            bundle = Bundle(((0.0, -d / 2), (0.0, d / 2)) if stacked else ((0.0, 0.0),), d / 2)
            both = replace(hoop, centre=(0.0, seat.upper_mm - d / 2, 0.0)) if stacked else hoop
            step = d / seat.hoop_mm
            locked = HoopWrap("lock", locks, bundle, wire.profile, both, 2.5 * math.pi, step, host="both hoops")
            if math.dist(loop.ends, locked.begins) > WIDEST_WIRES * band.pieces[0].wire.width_mm:
                found.append(("on", Lead("to the lock", loop.ends, locked.begins)))
            return [*found, ("lock", locked)], ledger
        from_rad = max(seat.shoulder_rad, ledger.of(side).free_rad)
        plain = wrap_at(band, wire, locks, from_rad, edge=1, turned=side == "left")
        zs = [z for z, _ in plain.bundle.points]
        out = plain.bundle.points[0][1]
        lanes = round((max(zs) - min(zs)) / d) + 1
        on_top = out + (d if lanes % 2 else d * math.sqrt(3) / 2)
        over = Bundle((*plain.bundle.points, ((min(zs) + max(zs)) / 2, on_top)), plain.bundle.rounding_mm)
        # It begins where the tail comes down: on the slope from the hoop's wire to the band's edge.
        lock = replace(plain, bundle=over, start=(max(zs) + d, on_top), host="hoop and band")
        reach = from_rad + lock.advance_mm / (band.inside_mm / 2)
        return [*found, ("drop", Lead("drop", loop.ends, lock.begins)), ("lock", lock)], ledger.wrapped(side, locks, reach)

    def most_wraps(self, seat: _Seat, d: float, w: float, locks: int) -> int:
        """Fine wraps that find room between a mouth and the lock."""
        return max(0, math.floor((seat.hoop_mm * math.pi / 2 - locks * d / 2 - w) / w))

    def wraps(self, seat: _Seat, d: float, w: float, locks: int) -> int:
        """Fine wraps at each of the four places."""
        return max(1, self.most_wraps(seat, d, w, locks)) if self.bind_wraps == "fill" else self.bind_wraps

    def _binding(self, form: Form, seat: _Seat, d: float, wires: Wires) -> Piece:
        """The fine wire: from its middle in the bead out of both mouths, and round the hoops on both sides of each."""
        fine = wires["bind"]
        w, b = fine.width_mm, self.bead.diameter_mm
        wraps = self.wraps(seat, d, w, form.locks)
        stacked = self.seat == "stacked"
        quarter = 0.0 if self.hole_axis == "across" else math.pi / 2
        plane = seat.upper_mm - d / 2 if stacked else seat.upper_mm
        hoop = Hoop((0.0, plane, 0.0), seat.hoop_mm, (0.0, 1.0, 0.0), (1.0, 0.0, 0.0))
        bundle = Bundle(((0.0, -d / 2), (0.0, d / 2)) if stacked else ((0.0, 0.0),), d / 2)
        step = w / seat.hoop_mm
        # Tails locked round the hoops end at the mouths: the fine wire goes on beside them.
        off = form.locks * d / 2 / seat.hoop_mm if self.lock_on == "hoops" else 0.0
        sides = []
        for sign in (1, -1):
            mouth = math.pi + quarter if sign > 0 else quarter
            # Angle 3/2 π is towards +z: the hoop runs towards −z first.
            one = HoopWrap("bind", wraps, bundle, fine.profile, hoop, mouth + off + step / 2, step, host="the hoops")
            two = HoopWrap("bind", wraps, bundle, fine.profile, hoop, mouth - off - step / 2, -step, host="the hoops")
            out = (0.0, seat.bead_y_mm, sign * b / 2) if quarter else (-sign * b / 2, seat.bead_y_mm, 0.0)
            name = "far" if sign > 0 else "near"
            moves: list[tuple[str, Move]] = [
                ("way", Lead("to the hoops", out, one.begins)),
                ("bind1", one),
                ("cross", Lead("back over", one.ends, two.begins)),
                ("bind2", two),
            ]
            sides.append([Placed(f"bind.{name}.{part}", move, backwards=sign < 0) for part, move in moves])
        far, near = sides
        start: Point3 = (0.0, seat.bead_y_mm, -b / 2) if quarter else (b / 2, seat.bead_y_mm, 0.0)
        end: Point3 = (0.0, seat.bead_y_mm, b / 2) if quarter else (-b / 2, seat.bead_y_mm, 0.0)
        through = Placed("bind.through", Through("bead", start, end, mark="bead", mark_share=0.5))
        return Piece("bind.1", "bind", fine, (*reversed(near), through, *far))

    def phrase(self, band: BandStyle) -> Say:
        return say("{bead} sunk into two hoops", bead=self.bead.words)

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        seat: _Seat = work.facts
        d, b = seat.wire_mm, self.bead.diameter_mm
        w = next(piece.wire.width_mm for piece in work.pieces)
        found = []
        if b / 2 + d / 2 - seat.hoop_mm < _CLOSE_MM / 2:
            found.append(
                Warn(
                    "bead-nearly-through",
                    Say("A tenth decides whether this bead drops through: measure it across its hole."),
                    "head.bead.diameter_mm",
                )
            )
        sunk = 0.5 - seat.above_mm / b
        if sunk < _LEAST_SUNK:
            found.append(
                Warn("bead-only-rests", Say("The bead only rests on the hoops; the fine wire must hold all of it."), "head.sunk_share")
            )
        if seat.lift_mm > 0.3:
            text = say("The bead's foot needs room: the hoops stand {lift} above the band.", lift=Length(seat.lift_mm))
            found.append(Warn("hoops-lifted", text, "head.sunk_share"))
        if seat.hoop_mm + d > 0.35 * band.inside_mm:
            found.append(Warn("head-wide", Say("The hoops reach over the sides of the finger."), "head.bead.diameter_mm"))
        most = self.most_wraps(seat, d, w, band.form.locks)
        if self.bind_wraps != "fill" and self.bind_wraps > most:
            text = say("Only {most} find room on each side of a mouth.", most=Count(most, "fine wrap", "fine wraps"))
            found.append(Warn("binding-too-full", text, "head.bind_wraps"))
        if seat.above_mm < (d + w) / 2:
            found.append(
                Warn(
                    "hole-behind-hoop",
                    Say("The hole sits behind the hoop: thread the fine wire before the bead is seated."),
                    "head.sunk_share",
                )
            )
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        seat: _Seat = work.facts
        onward = {p.id: p for led in work.onward.values() for p in led}
        d, b = seat.wire_mm, self.bead.diameter_mm
        fine = work.pieces[0].wire.width_mm
        wraps = self.wraps(seat, d, fine, band.form.locks)
        sunk = 0.5 - seat.above_mm / b
        hoops = tuple(i for i in onward if i.endswith(("rise", "hoop")))
        locks = tuple(i for i in onward if i.endswith(("drop", "lock")))
        turns = "one full turn" if self.lock_on == "band" else "a turn and a quarter"
        bundle = "the two hoops" if self.lock_on == "hoops" else "hoop and shoulder"
        tasks = [
            Task(
                "hoops",
                Phase.GATHER,
                say(
                    "With each tail turn a hoop, {turns}, on the {rod} rod, close to the band; both the same way round as seen from above.",
                    turns=turns,
                    rod=Thickness(seat.rod_mm),
                ),
                makes=hoops,
                checks=(
                    Check(
                        say("The bead sits in it to about {sunk} of its height; from above both hoops cover each other.", sunk=Share(sunk)),
                        Say("It drops through: a thinner rod. It stands too high: a thicker one."),
                    ),
                ),
                count=2,
                stage="hoops",
            )
        ]
        if seat.lift_mm > 0.3:
            says = say("Stand both hoops {lift} above the band.", lift=Thickness(seat.lift_mm))
            tasks.append(
                Task(
                    "lift",
                    Phase.GATHER,
                    says,
                    checks=(look("With the bead in, its foot touches nothing, or just the strand."),),
                    stage="hoops",
                )
            )
        tasks += [
            Task(
                "lock-hoops",
                Phase.GATHER,
                say(
                    "Hold the hoops with pliers; pass each tail through the ring and round {bundle}, {times}, close; trim it at the side.",
                    bundle=bundle,
                    times=Times(band.form.locks),
                ),
                makes=locks,
                checks=(
                    look("As many on both sides; the hoops don't turn."),
                    reads(0.15, Say("This is the last reading before the bead: stretch it, or undo one side.")),
                ),
                cautions=(cautions.CUT, cautions.LAST_EASY),
                count=band.form.locks,
                stage="lock",
            ),
            Task(
                "seat",
                Phase.HEAD,
                Say(
                    "Fine wire's middle through the bead; set the bead into the hoops, lead the ends out on opposite sides and draw both until it sits."
                ),
                makes=("bind.through", "bind.far.way", "bind.near.way"),
                checks=(look("It sits level; the hole isn't seen from above."),),
                cautions=(cautions.STONE,),
            ),
            Task(
                "bind",
                Phase.HEAD,
                say(
                    "At each mouth wind the fine wire round the hoops, {n} on one side of it, then {n} on the other, side by side; the last pull with pliers. "
                    "Room for {most}, and {each} of wire a wrap.",
                    n=Count(wraps, "wrap", "wraps"),
                    most=str(self.most_wraps(seat, d, fine, band.form.locks)),
                    each=Length(2 * d + math.pi * (d + fine)),
                ),
                makes=tuple(p.id for p in work.pieces[0].moves if p.id.endswith(("bind1", "bind2", "cross"))),
                checks=(look("The bead doesn't turn.", "One wrap more on each side of both mouths, drawn with pliers."),),
                cautions=(cautions.FINE_PULL,),
                count=4 * wraps,
            ),
            Task(
                "trim",
                Phase.TRIM,
                Say("Cut the fine ends inside the seat and press them in."),
                checks=(look("A finger finds no end."),),
                cautions=(cautions.CUT, cautions.EDGES),
            ),
        ]
        return tasks
