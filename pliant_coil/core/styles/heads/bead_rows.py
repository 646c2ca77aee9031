"""Bead rows: a row of beads on the band's wire and one on each tail beside it, loose enough to roll."""

import math
from typing import ClassVar, Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.moves.bead_row import BeadRow, Strung, bowed_past_mm
from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.bead_lists import Row, row_of, row_words
from pliant_coil.core.styles.beads import landing, lead_start
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import Form, FormedBand, HeadWork, Opening, Top, Warn, Wires
from pliant_coil.core.styles.parameters import choice, degrees, millimetres, number
from pliant_coil.core.styles.stones import Bead, PlacedStone
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Count, Degrees, Length, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

_FILL_MM = 3.0
"""The bead that a row is filled with where only `fill` is said."""
_BARER_MM = 3.0
"""So much more bare wire at each end of a side row than of the middle one looks forgotten (common practice, no source)."""
_ROOM_FOR_BEND_MM = 1.5
_BARE_MM = 2.5
"""Bare wire that a filled row leaves at each end."""
_LOWEST_RAD = math.radians(75)


@dataclass(frozen=True)
class _Facts:
    middle: Strung
    sides: tuple[tuple[Bead, ...], tuple[Bead, ...]]
    strung: tuple[Strung, Strung]
    reach_rad: float
    bow_mm: float


class BeadRows(HeadStyle):
    """Three rows of beads that roll, over the top of the finger."""

    title: ClassVar[str] = "Bead rows"
    usual_locks: ClassVar[int] = 3
    least_locks: ClassVar[int] = 1
    style: Literal["bead-rows"] = choice("bead-rows", "Head")
    middle_beads: Row = choice(row_of(3, 5.0), "Middle row", "In their order, such as 3 × 5 or 4 8 4.")
    side_beads: Literal["fill"] | Row = choice(row_of(4, 3.0), "Each side row", "Or fill: as many small beads as find room.")
    side_beads_left: Row | None = choice(None, "Left side row", "The same as the right one unless given.", rare=True)
    rows: int = number(3, "Rows", 2, 3)
    play_mm: float = millimetres(1.5, "Play", 0, 4, "Bare wire in each row so that the beads roll; none fixes them.")
    reach_deg: float | None = degrees(None, "Wraps begin at", 35, 75, "From the top; just past the longest row unless given.", rare=True)
    spread_mm: float = millimetres(0.0, "Side rows stand off by", 0, 3, rare=True)
    cross_over: Literal["over", "under"] = choice("over", "First wrap goes", "Over the band's wires, or under them.", rare=True)

    def fits(self, band: BandStyle) -> Say:
        return lacks(band, Top.THROUGH, Top.TAILS)

    def check(self, target_mm: float, wires: Wires) -> None:
        for field, beads in (
            ("middle_beads", self.middle_beads),
            ("side_beads", self.side_beads),
            ("side_beads_left", self.side_beads_left),
        ):
            if isinstance(beads, tuple):
                if not 1 <= len(beads) <= 8:
                    refuse(
                        f"head.{field}", say("{n} don't make a row", n=Count(len(beads), "bead", "beads")), "1 to 8 beads, such as 3 × 5"
                    )
                for k, bead in enumerate(beads):
                    bead.check(f"head.{field}.{k}")

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        if form.locks < 1:
            refuse("finish.wraps_each_side", "loose rows come off without wraps", "at least 1 wrap each side")
        if band.under_head_mm(wires):
            refuse("band.turns", "more turns put wires under the beads", "1 turn each way")
        wire = wires["band"]
        inside, radius = form.diameter_mm / 2, band.centre_line_mm(form.diameter_mm, wires)
        middle = Strung(_sizes(self.middle_beads), inside, radius)
        right = self._filled(middle, wire) if self.side_beads == "fill" else self.side_beads
        assert isinstance(right, tuple)
        sides = (right, self.side_beads_left or right)
        strung = (Strung(_sizes(sides[0]), inside, radius), Strung(_sizes(sides[1]), inside, radius))
        least = max(row.angle_rad for row in (middle, *strung)) / 2 + wire.height_mm / 2 / radius
        reach = least if self.reach_deg is None else math.radians(self.reach_deg)
        if reach < least - 1e-9:
            refuse(
                "head.reach_deg",
                "the rows reach further down than that",
                say("{least} or more", least=Degrees(math.ceil(math.degrees(least)) * math.pi / 180)),
            )
        if middle.angle_rad / 2 > _LOWEST_RAD or reach > _LOWEST_RAD + 1e-9:
            longest = "middle_beads" if middle.angle_rad >= max(s.angle_rad for s in strung) else "side_beads"
            n = len(self.middle_beads if longest == "middle_beads" else right)
            refuse(
                f"head.{longest}",
                "the row goes round the sides of the finger",
                say("{n} at most, or smaller ones", n=Count(max(1, n - 1), "bead", "beads")),
            )
        facts = _Facts(middle, sides, strung, reach, self._bow(right, wire))
        return Opening(foot_rad=middle.angle_rad / 2, shoulder_rad=reach, across=True, facts=facts)

    def _bow(self, side: tuple[Bead, ...], wire: Wire) -> float:
        """How far a side row is bent aside: two balls on a table touch with √(b·b′) between their middles."""
        beside = max(b.diameter_mm for b in self.middle_beads), max(b.diameter_mm for b in side)
        return max(0.0, math.sqrt(beside[0] * beside[1]) - wire.height_mm + self.spread_mm)

    def _filled(self, middle: Strung, wire: Wire) -> tuple[Bead, ...]:
        """As many beads as leave a little bare wire at both ends."""
        found = row_of(2, _FILL_MM)
        for n in range(3, 9):
            beads = row_of(n, _FILL_MM)
            strung = Strung(_sizes(beads), middle.inside_mm, middle.radius_mm)
            reach = max(middle.angle_rad, strung.angle_rad) / 2 + wire.height_mm / 2 / middle.radius_mm
            x, y = middle.radius_mm * math.sin(reach), middle.radius_mm * math.cos(reach)
            row = BeadRow("row", strung, (-x, y, 0.0), (x, y, 0.0), self.play_mm, self._bow(beads, wire))
            if row.length_mm - self.play_mm - n * _FILL_MM < 2 * _BARE_MM or reach > _LOWEST_RAD:
                break
            found = beads
        return found

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        facts: _Facts = opening.facts
        slot = band.slots[0]
        row = BeadRow("middle row", facts.middle, slot.left, slot.right, self.play_mm, mark="middle bead", mark_share=0.5)
        stones = list(self._placed(row, self.middle_beads, "head.middle_beads", wires, turned=False))
        onward, tails = {}, []
        for k, end in enumerate(band.ends):
            turned = end.side == "right"
            start = lead_start(end)
            stop, tail = landing(band, end, facts.reach_rad, -1)
            side = 1 if turned else 0
            if self.rows == 3 or not k:
                beads, field = facts.sides[side], "head.side_beads"
                led = BeadRow("side row", facts.strung[side], start, stop, self.play_mm, -facts.bow_mm)
                stones += self._placed(led, beads, field, wires, turned=turned)
            else:
                led = BeadRow(
                    "over the top",
                    Strung((band.strand_height_mm,), form.diameter_mm / 2, facts.middle.radius_mm),
                    start,
                    stop,
                    0.0,
                    -self._beside_mm(wires),
                )
            onward[end.key] = (Placed(f"{tail.name}.row", led, turned=turned, backwards=end.which == "first"),)
            tails.append(tail)
        return HeadWork(
            through={0: (Placed("head.row", row),)},
            onward=onward,
            stones=tuple(stones),
            tails=tuple(tails),
            ledger=band.ledger,
            tied=True,
            height_mm=max(b.diameter_mm for b in (*self.middle_beads, *facts.sides[0], *facts.sides[1])),
            facts=(facts, onward),
        )

    def _beside_mm(self, wires: Wires) -> float:
        """How far a bare tail is led round the middle row's largest bead."""
        return bowed_past_mm(max(b.diameter_mm for b in self.middle_beads), wires["band"].height_mm)

    def _placed(self, row: BeadRow, beads: tuple[Bead, ...], field: str, wires: Wires, *, turned: bool) -> list[PlacedStone]:
        found = []
        for k, (bead, (x, y, z)) in enumerate(zip(beads, row.middles(), strict=True)):
            at = (-x, y, -z) if turned else (x, y, z)
            b = bead.diameter_mm
            found.append(
                PlacedStone("bead", f"{field}.{k}.hole_mm", at, b, b, b, hole_mm=bead.hole_mm, passing=((wires["band"], 1),), gem=bead)
            )
        return found

    def phrase(self, band: BandStyle) -> Say:
        side = say("as many {size} beads as fit", size=Thickness(_FILL_MM)) if self.side_beads == "fill" else row_words(self.side_beads)
        return say("{middle}, {side} beside them", middle=row_words(self.middle_beads), side=side)

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        facts, onward = work.facts
        wire = band.strand_wire
        middle = next(p.move for p in work.through[0] if isinstance(p.move, BeadRow))
        found = []
        for placed in (p for led in onward.values() for p in led):
            row: BeadRow = placed.move
            room = row.length_mm - self.play_mm - 2 * _ROOM_FOR_BEND_MM
            if placed.move.label == "side row" and sum(row.strung.beads) > room:
                text = say(
                    "The side row's beads need {need}, there are {room}: one fewer.", need=Length(sum(row.strung.beads)), room=Length(room)
                )
                found.append(Warn("row-too-full", text, "head.side_beads"))
                break
            barer = row.length_mm - sum(row.strung.beads) - (middle.length_mm - sum(middle.strung.beads))
            if placed.move.label == "side row" and barer > 2 * _BARER_MM:
                more = max(1, math.floor(barer / row.strung.beads[-1]))
                text = say("The side row stays bare at its ends: there is room for {n}.", n=Count(more, "bead more", "beads more"))
                found.append(Warn("row-bare", text, "head.side_beads"))
                break
        if self.play_mm and wire.height_mm < 0.5:
            found.append(
                Warn(
                    "bends-in-wear",
                    say("Loose rows of so thin a wire bend open in wear: {least} or more.", least=Thickness(0.6)),
                    "wires.band.diameter",
                )
            )
        if self.play_mm > 3 and wire.temper == "soft":
            found.append(Warn("row-loose", Say("So much play in soft wire works the wraps loose."), "head.play_mm"))
        largest = max(b.diameter_mm for b in facts.sides[0])
        if largest > 1.5 * max(b.diameter_mm for b in self.middle_beads):
            found.append(Warn("row-in-valley", Say("Side beads so much larger leave the middle row in a valley."), "head.side_beads"))
        if facts.sides[0] != facts.sides[1]:
            found.append(Warn("rows-differ", Say("The side rows differ: the head leans to one side."), "head.side_beads_left"))
        wide = 2 * (wire.height_mm + facts.bow_mm) + largest
        if wide > 10:
            text = say("The rows are {wide} wide on the finger: wide heads wear tighter.", wide=Length(wide))
            found.append(Warn("rows-wide", text, "sizing.room_for_width"))
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        facts, onward = work.facts
        rows = [p for led in onward.values() for p in led]
        chord = 2 * facts.middle.radius_mm * math.sin(facts.reach_rad / 2)
        sides = facts.sides[0]
        first_wrap = "over the wires" if self.cross_over == "over" else "under the wires"
        return [
            Task(
                "thread",
                Phase.WIRE,
                say(
                    "Thread the middle row, {row}, in order to the middle mark; the rest lie on a mat in theirs.",
                    row=row_words(self.middle_beads),
                ),
                makes=("head.row",),
                checks=(look("Each kind of bead slides on the very wire.", "Another wire, or other beads."),),
                cautions=(cautions.STONE,),
            ),
            Task(
                "side-rows",
                Phase.HEAD,
                say(
                    "Off the mandrel, thread {row} on {which}; bend or tape its end so that none falls off.",
                    row=row_words(sides),
                    which="each tail" if self.rows == 3 else "one tail",
                ),
                checks=(look("As many on both tails." if self.rows == 3 else "All of them."),),
                stage="thread",
            ),
            Task(
                "bow",
                Phase.HEAD,
                say(
                    "Lay each over the top along the middle row to the far shoulder, and bow it with the fingers to lie beside the largest bead, {bow} off the straight line.",
                    bow=Thickness(facts.bow_mm),
                ),
                makes=tuple(p.id for p in rows),
                checks=(
                    Check(
                        Say("Both flare alike; the beads roll under a finger."),
                        say("Tight: let out {play}.", play=Thickness(max(self.play_mm, 0.5))),
                    ),
                    reads(
                        0.2,
                        Say("It has usually grown: pull both tails until it reads right again. After the first wrap it can't be changed."),
                    ),
                ),
                stage="rows",
            ),
            Task(
                "shoulders",
                Phase.HEAD,
                say(
                    "Mark both shoulders, {chord} from the middle bead, straight across: there each tail goes {way} into its first wrap.",
                    chord=Length(chord),
                    way=first_wrap,
                ),
                checks=(look("Left as far as right."),),
            ),
        ]


def _sizes(beads: tuple[Bead, ...]) -> tuple[float, ...]:
    return tuple(bead.diameter_mm for bead in beads)
