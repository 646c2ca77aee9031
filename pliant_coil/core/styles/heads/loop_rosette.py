"""Loop rosette: a small bead tied into two loops of the band's wire, rows of equal loops wound round it and splayed."""

import math
from collections.abc import Mapping
from dataclasses import replace
from functools import partial
from typing import Any, ClassVar, Literal

from pydantic import Field, model_validator

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import Cause, Move, SpaceCurve
from pliant_coil.core.moves.loop import Loop
from pliant_coil.core.moves.loop_row import LoopRow, Spiral
from pliant_coil.core.moves.passing import off_band
from pliant_coil.core.moves.placed import Piece, Placed
from pliant_coil.core.moves.stitch import Stitch
from pliant_coil.core.moves.straight import Lead, Through
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.beads import landing
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, HeadWork, Opening, Side, Top, Warn, Wires
from pliant_coil.core.styles.locks import wrap_at
from pliant_coil.core.styles.parameters import WireSpec, choice, degrees, millimetres, number
from pliant_coil.core.styles.stones import Bead, PlacedStone
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Count, Degrees, Length, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

TIED = Cause("tie-inside", "the tie round the band")
_JAW_STEP_MM = 0.5
_CRACKS = {"soft": 0.33, "half-hard": 0.2, "hard": 0.2}


@dataclass(frozen=True)
class Way(SpaceCurve):
    """Round the rosette and down to a shoulder."""

    kind: ClassVar[str] = "lead"
    hand: ClassVar[HandKind] = "lead"


@dataclass(frozen=True)
class _Rosette:
    seat_mm: float
    half_rad: float
    lean_rad: float
    bead_y_mm: float
    height_mm: float
    rows: tuple[LoopRow, LoopRow]
    """The one wound first, and the one outside it, seen from above."""


class LoopRosette(HeadStyle):
    """A flower of the band's own wire."""

    title: ClassVar[str] = "Loop rosette"
    hides_splice = "under the petals"
    least_locks: ClassVar[int] = 1
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"tie": WireSpec(diameter="0.3 mm")}
    style: Literal["loop-rosette"] = choice("loop-rosette", "Head")

    @model_validator(mode="before")
    @classmethod
    def _splays_together(cls, given: Any) -> Any:
        """Both rows' splay may be written as one: `splay_deg` [inner, outer]."""
        if not isinstance(given, dict) or not isinstance(both := given.get("splay_deg"), list | tuple) or len(both) != 2:
            return given
        rest = {name: value for name, value in given.items() if name != "splay_deg"}
        return {"splay_inner_deg": both[0], "splay_outer_deg": both[1], **rest}

    bead: Bead = Field(default_factory=lambda: Bead(diameter_mm=5.0, hole_mm=0.6), title="Bead")
    petal_mm: float = millimetres(4.0, "Petals, inside", 2, 8, "The jaw that the loops are turned on.")
    petal_inner_mm: float | None = millimetres(None, "Petals of the first row", 2, 8, "As the others unless given.", rare=True)
    loops_inner: Literal["fill"] | int = number(6, "Loops of the first row", 4, 16, "Or fill: as many as go once round.")
    loops_outer: Literal["fill"] | int = number(8, "Loops of the second row", 4, 16, "Or fill.")
    overlap_share: float = number(0.2, "Petals overlap", 0, 0.5)
    seat_loops: int = number(2, "Loops of the seat", 2, 2, rare=True)
    seat_loop_mm: float | None = millimetres(None, "Seat loops, inside", 2, 6, "Three quarters of the bead unless given.", rare=True)
    tie_wraps: int = number(2, "Tie wraps each side", 1, 4, rare=True)
    first_tail: Literal["right", "left"] = choice("right", "Wound first", rare=True)
    splay_inner_deg: float = degrees(40.0, "First row splayed by", 0, 85, "From upright.", rare=True)
    splay_outer_deg: float = degrees(70.0, "Second row splayed by", 0, 85, "From upright.", rare=True)
    order: Literal["loops-first", "bead-first"] = choice("loops-first", "Order", "Loops, then the bead; or the bead first.", rare=True)

    def fits(self, band: BandStyle) -> Say:
        return lacks(band, Top.THROUGH, Top.TAILS)

    def check(self, target_mm: float, wires: Wires) -> None:
        self.bead.check("head.bead")
        wire = wires["band"]
        for field, inside in (("petal_mm", self.petal_mm), ("petal_inner_mm", self.petal_inner_mm), ("seat_loop_mm", self.seat_loop_mm)):
            if inside is not None and wire.height_mm / (inside + wire.height_mm) > _CRACKS[wire.temper]:
                least = wire.height_mm * (1 / _CRACKS[wire.temper] - 1)
                refuse(
                    f"head.{field}",
                    say("{wire} cracks round so thin a jaw", wire=wire.words),
                    say("{least} or more", least=Thickness(math.ceil(10 * least) / 10)),
                )

    def _seat(self, d: float) -> float:
        """Inside diameter of a seat loop: the nearest jaw to three quarters of the bead."""
        if self.seat_loop_mm is not None:
            return self.seat_loop_mm
        return max(2.0, round(0.75 * self.bead.diameter_mm / _JAW_STEP_MM) * _JAW_STEP_MM)

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        if form.locks < 1:
            refuse("finish.wraps_each_side", "the rows unwind without wraps", "at least 1 wrap each side")
        d, b = wires["band"].height_mm, self.bead.diameter_mm
        seat = self._seat(d)
        if b > seat + 3 or b < seat + 0.2:
            least, most = max(2.0, b - 3), b - 0.3
            refuse(
                "head.seat_loop_mm",
                say("{bead} doesn't sit in {loop} loops", bead=self.bead.words, loop=Thickness(seat)),
                say("{least} to {most}", least=Thickness(least), most=Thickness(most)),
            )
        lean = math.acos(min(1.0, (seat + d) / (b + d)))
        if lean > math.radians(60):
            refuse("head.seat_loop_mm", "the loops lie flat and the bead tips", "larger seat loops")
        radius = band.centre_line_mm(form.diameter_mm, wires)
        half = math.asin(min(1.0, (seat / 2 + 1.5 * d) / radius))
        height = form.diameter_mm / 2 + 1.5 * d
        rows = self._rows(d, seat, height)
        rosette = _Rosette(seat, half, lean, radius + (b + d) / 2, height, rows)
        return Opening(foot_rad=half, shoulder_rad=half, across=True, gather="tail-wraps", facts=rosette)

    def _rows(self, d: float, seat: float, height: float) -> tuple[LoopRow, LoopRow]:
        """Both rows: the first from the bead outwards, the second where that ends, on the other side and the other way round."""
        found: list[LoopRow] = []
        first = max(self.bead.diameter_mm / 2, seat / 2 + d) + d
        sizes = (self.petal_mm if self.petal_inner_mm is None else self.petal_inner_mm, self.petal_mm)
        counts: tuple[Literal["fill"] | int, ...] = (self.loops_inner, self.loops_outer)
        splays = (self.splay_inner_deg, self.splay_outer_deg)
        from_left = self.first_tail == "right"
        for k, (inside, count, splay) in enumerate(zip(sizes, counts, splays, strict=True)):
            step = (1 - self.overlap_share) * (inside + 2 * d)
            loops = math.ceil(2 * math.pi * (first + d / 2) / step) if count == "fill" else count
            # The right tail has come up on the left, the left one on the right.
            left = from_left == (k == 0)
            spiral = Spiral(first, 2 * d, height + (k * d if k else 0.0), math.pi if left else 0.0, 1 if k == 0 else -1)
            row = LoopRow("petals", loops, inside, d, step, spiral, math.radians(splay))
            found.append(row)
            first = spiral.radius_mm(row.advance_mm)
        return found[0], found[1]

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        rosette: _Rosette = opening.facts
        slot = band.slots[0]
        through = self._seated(rosette, band, slot.left[2], slot.right[2])
        # The right tail stands on the left.
        order = sorted(band.ends, key=lambda end: (end.side == "left") != (self.first_tail == "right"))
        onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
        tails: list[End] = []
        taken: Side | None = None
        for k, end in enumerate(order):
            row = rosette.rows[k]
            turned = row.spiral.turned_rad(row.advance_mm)
            halves = math.ceil(turned / math.pi - 1e-9)
            began: Side = end.side
            side: Side = began if halves % 2 == 0 else ("left" if began == "right" else "right")
            if side == taken:
                # Both would end on one side: the second goes half round once more.
                halves += 1
                side = "left" if side == "right" else "right"
            taken = side
            led, tail = self._led(band, row, end, side, halves * math.pi - turned)
            onward[end.key] = tuple(Placed(f"{end.name}.{name}", move, backwards=end.which == "first") for name, move in led)
            tails.append(replace(tail, name=end.name))
        b = self.bead.diameter_mm
        stone = PlacedStone(
            "bead",
            "head.bead.hole_mm",
            (0.0, rosette.bead_y_mm, 0.0),
            b,
            b,
            b,
            hole_mm=self.bead.hole_mm,
            passing=((wires["tie"], 1),),
            gem=self.bead,
        )
        outer = rosette.rows[1]
        rise = (outer.inside_mm + 2 * outer.wire_mm) * math.cos(outer.splay_rad)
        return HeadWork(
            through={slot.lane: through},
            onward=onward,
            pieces=(self._tie(band, rosette, wires),),
            stones=(stone,),
            tails=tuple(tails),
            ledger=band.ledger,
            tied=True,
            height_mm=max(rosette.bead_y_mm + b / 2, rosette.height_mm + rise) - form.diameter_mm / 2,
            facts=rosette,
        )

    def _seated(self, rosette: _Rosette, band: FormedBand, z_left: float, z_right: float) -> tuple[Placed, ...]:
        """Along the lane to its middle, two loops that open like a book, and on."""
        d, radius = band.strand_wire.height_mm, band.radius_mm
        half, c, s = rosette.half_rad, math.cos(rosette.lean_rad), math.sin(rosette.lean_rad)
        foot: Point3 = (0.0, radius, 0.0)
        moves: list[tuple[str, Move]] = [("in", Arc("to the seat", radius, -half, half, z_left, 0.0))]
        for k, sign in enumerate((1, -1), 1):
            moves.append(
                (
                    f"seat{k}",
                    Loop("seat", rosette.seat_mm, d, foot, (1.0, 0.0, 0.0), (0.0, c, sign * s), mark="seat's middle" if k == 2 else ""),
                )
            )
        moves.append(("out", Arc("from the seat", radius, 0.0, half, 0.0, z_right)))
        return tuple(Placed(f"head.{name}", move) for name, move in moves)

    def _led(self, band: FormedBand, row: LoopRow, end: End, side: Side, left_rad: float) -> tuple[list[tuple[str, Move]], End]:
        """Up to the row, its loops, and round the rosette down to a shoulder."""
        path = row.path()
        # `landing` takes a tail to the side that it didn't come up on.
        arriving = replace(end, side="left" if side == "right" else "right")
        _, tail = landing(band, arriving, band.ledger.of(side).free_rad, -1 if side == "right" else 1)
        stop = tail.at
        radius = row.spiral.radius_mm(row.advance_mm)
        begin = row.spiral.from_rad + row.spiral.sense * row.spiral.turned_rad(row.advance_mm)
        way = Way(
            "round to the shoulder",
            partial(_round, row.spiral, radius, begin, left_rad, stop),
            Say("round the rosette and down: the length of the curve"),
        )
        return [("rise", Lead("rise", end.at, path[0])), ("row", row), ("way", way)], tail

    def _tie(self, band: FormedBand, rosette: _Rosette, wires: Wires) -> Piece:
        """Through the bead, down through a loop on each side, and round the band beneath the seat."""
        fine, d = wires["tie"], band.strand_wire.height_mm
        b = self.bead.diameter_mm
        down = Stitch("down", 1, b / 2 + 2 * d)
        lying = self.tie_wraps * fine.width_mm / (band.inside_mm / 2)
        sides = []
        for name, sign in (("far", 1), ("near", -1)):
            wrap = wrap_at(band, fine, self.tie_wraps, max(0.0, rosette.half_rad - lying), edge=1, turned=sign < 0, label="tie", cause=TIED)
            backwards = sign < 0
            sides.append(
                [
                    Placed(f"tie.{name}.down", down, backwards=backwards),
                    Placed(f"tie.{name}.wraps", wrap, turned=sign < 0, backwards=backwards),
                ]
            )
        through = Through("bead", (0.0, rosette.bead_y_mm, -b / 2), (0.0, rosette.bead_y_mm, b / 2), mark="bead", mark_share=0.5)
        far, near = sides
        return Piece("tie.1", "tie", fine, (*reversed(near), Placed("tie.through", through), *far))

    def phrase(self, band: BandStyle) -> Say:
        inner, outer = (Say("a full row") if n == "fill" else say("{n}", n=str(n)) for n in (self.loops_inner, self.loops_outer))
        return say("{bead} in a rosette of {inner} and {outer} loops", bead=self.bead.words, inner=inner, outer=outer)

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        rosette: _Rosette = work.facts
        inner, outer = rosette.rows
        found = []
        for row, field in ((inner, "loops_inner"), (outer, "loops_outer")):
            turned = row.spiral.turned_rad(row.advance_mm) / (2 * math.pi)
            need = math.ceil(2 * math.pi * (row.spiral.first_mm + row.wire_mm / 2) / row.step_mm)
            if turned < 0.75:
                text = say("{n} don't reach round: {need} close the row.", n=Count(row.loops, "loop", "loops"), need=str(need))
                found.append(Warn("row-short", text, f"head.{field}"))
            elif turned > 1.5:
                found.append(
                    Warn("row-long", Say("So long a row covers itself: petals inside can't be reached with pliers."), f"head.{field}")
                )
        highest = max(row.spiral.height_mm + (row.inside_mm + 2 * row.wire_mm) * math.cos(row.splay_rad) for row in rosette.rows)
        if highest < rosette.bead_y_mm:
            found.append(
                Warn("petals-low", Say("The petals end below the bead's middle: they hide nothing of its sides."), "head.petal_mm")
            )
        wide = 2 * (
            outer.spiral.radius_mm(outer.advance_mm) + outer.wire_mm / 2 + (outer.inside_mm + 2 * outer.wire_mm) * math.sin(outer.splay_rad)
        )
        if wide > 26:
            found.append(Warn("rosette-wide", say("Splayed, the rosette is {wide} wide and catches.", wide=Length(wide)), "head.petal_mm"))
        if band.form.locks + max(band.ledger.left.wraps, band.ledger.right.wraps) > 5:
            found.append(Warn("locks-far", Say("So many wraps reach far down the sides and cost size."), "finish.wraps_each_side"))
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        rosette: _Rosette = work.facts
        inner, outer = rosette.rows
        ids = {p.id for led in work.onward.values() for p in led}
        names = [p.id.split(".")[0] for led in work.onward.values() for p in led if p.id.endswith("row")]
        first, second = (names[0], names[1]) if len(names) > 1 else (names[0], names[0])
        tie = work.pieces[0]
        seat = Task(
            "seat",
            Phase.FLAT,
            say(
                "At the middle mark turn two loops on the {jaw} jaw, side by side, not crossed; pull both halves straight out.",
                jaw=Thickness(rosette.seat_mm),
            ),
            makes=tuple(p.id for p in work.through[0]),
            checks=(look("Both loops alike."),),
            count=2,
        )
        loops = Task(
            "loops",
            Phase.HEAD,
            say(
                f"On the {self.first_tail} tail, which is wound first, {{inner}}, on the other {{outer}}, each on the {{jaw}} jaw: hold tight, pull the wire round the jaw and across in front of the last loop, "
                "{step} to the next; straighten before each.",
                inner=Count(inner.loops, "loop", "loops"),
                outer=Count(outer.loops, "loop", "loops"),
                jaw=Thickness(self.petal_mm),
                step=Thickness(outer.step_mm),
            ),
            makes=tuple(i for i in ids if i.endswith("row")),
            checks=(
                Check(
                    say(
                        "Three loops take {three} of wire and make {long} of row.",
                        three=Length(3 * outer.each_mm),
                        long=Length(3 * outer.step_mm),
                    ),
                    say("A short tail: each loop fewer gives back {each}; rows may differ.", each=Length(outer.each_mm)),
                ),
            ),
            count=inner.loops + outer.loops,
        )
        bead = [
            Task(
                "open-seat",
                Phase.HEAD,
                say(
                    "Open the two seat loops like a book, about {lean} each, until the bead sits between them on the band.",
                    lean=Degrees(rosette.lean_rad),
                ),
                checks=(look("It touches both loops and the band.", "It slips through: close them. It rides on top: open them more."),),
                stage="seat",
            ),
            Task(
                "tie",
                Phase.HEAD,
                say(
                    "Bead on the fine wire's middle; one end down through each loop, pull down hard, {n} round the band on both sides; trim on top.",
                    n=Count(self.tie_wraps, "wrap", "wraps"),
                ),
                makes=tuple(p.id for p in tie.moves),
                checks=(look("Nothing of it stands or is felt inside."),),
                cautions=(cautions.FINE_PULL, cautions.STONE),
            ),
        ]
        wind = [
            Task(
                "wind-first",
                Phase.HEAD,
                Say("Wind the first row tightly round the bead, and bring its tail down to the shoulder where it ends."),
                makes=tuple(i for i in ids if i.startswith(f"{first}.") and not i.endswith("row")),
                checks=(look("It looks squashed and stands upright: right at this stage."),),
                stage="rows",
            ),
            Task(
                "wind-second",
                Phase.HEAD,
                Say("The second row the other way round, outside the first; its tail to the other shoulder."),
                makes=tuple(i for i in ids if i.startswith(f"{second}.") and not i.endswith("row")) if second != first else (),
                checks=(reads(0.2, Say("It grew while the rows were made: round it and tap before the last wraps.")),),
                stage="rows",
            ),
            Task(
                "splay",
                Phase.ROUND,
                say(
                    "Splay the petals one by one with chain-nose pliers inside the loop, never across the wire: the outer row first, to {outer}, the inner to {inner}.",
                    outer=Degrees(outer.splay_rad),
                    inner=Degrees(inner.splay_rad),
                ),
                checks=(look("Every petal once: bent again and again it cracks."),),
                cautions=(cautions.STONE,),
            ),
        ]
        middle = [loops, *bead] if self.order == "loops-first" else [*bead, loops]
        return [seat, *middle, *wind]


def _round(spiral: Spiral, radius: float, begin: float, left_rad: float, stop: Point3) -> list[Point3]:
    """On round the rosette at its edge, coming in and down to the shoulder over the last of the way."""
    steps = max(4, math.ceil(left_rad / 0.15))
    out = math.hypot(stop[0], stop[2])
    aim = math.atan2(stop[2], stop[0])
    end = begin + spiral.sense * left_rad
    # The shoulder's own place, beside the end of the round by less than half a turn.
    off = (aim - end + math.pi) % (2 * math.pi) - math.pi
    points = []
    for k in range(steps + 1):
        share = k / steps
        eased = share * share * (3 - 2 * share)
        angle = begin + (end + off - begin) * share
        r = radius + (out - radius) * eased
        x, y, z = r * math.cos(angle), spiral.height_mm + (stop[1] - spiral.height_mm) * eased, r * math.sin(angle)
        # It lies on the band where it comes down far beside the head.
        points.append(off_band((x, y, z), math.hypot(stop[0], stop[1])))
    return points
