"""Nest: a bead stands on the band; wire circles its foot, climbing until its hole is hidden, and comes down to the shoulders."""

import math
from dataclasses import replace
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.moves.base import Move
from pliant_coil.core.moves.nest import Nest, StandingBead
from pliant_coil.core.moves.placed import Placed, named
from pliant_coil.core.moves.seat import Seat
from pliant_coil.core.moves.straight import Lead
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.beads import check_reach, drilled, landing, lead_start, lopsided, seat_on, snagging, stand_mm, standing
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, HeadWork, Ledger, Opening, Side, Top, Warn, Wires
from pliant_coil.core.styles.locks import wrap_at
from pliant_coil.core.styles.parameters import choice, degrees, millimetres, number
from pliant_coil.core.styles.stones import Bead
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.words.figures import Length, Number, Thickness, Times
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import NOTHING, Say, say

_LOW_RAD = -math.radians(10)
"""How far a nest climbs that stays under the hole: just below the bead's middle."""
_OPEN_MM = 0.3
_STIFF_MM = 1.0
_CHIPS = ("glass", "soft-stone", "pearl-or-shell")
"""What a square bend against it chips (common practice, no source)."""


@dataclass(frozen=True)
class _Facts:
    seat: Seat
    bead: StandingBead


class NestHead(HeadStyle):
    """A bead in a nest of one tail or both."""

    title: ClassVar[str] = "Nest"
    hides_splice = "beside the first lock, under the nest"
    usual_locks: ClassVar[int] = 3
    least_locks: ClassVar[int] = 1
    style: Literal["nest"] = choice("nest", "Head")
    bead: Bead = Field(default_factory=Bead, title="Bead")
    nest_from: Literal["both-opposite", "both-together", "one-tail"] | None = choice(
        None, "Nest made of", "Both tails, each from its own side or side by side; of one tail on a band wound one way."
    )
    nest_turns: float | None = number(
        None, "Turns of each tail", 0.5, 4, "In halves: one and a half, or two and a half of one tail, unless given."
    )
    nest_start_deg: float = degrees(45.0, "First turn below the middle", 20, 60, "How far under the bead's widest line it sits.", rare=True)
    cover: Literal["hole", "low"] | float = millimetres(
        "hole", "Climbs to", 0, 6, "The hole's upper edge, or stays under it, or so far above the hole's middle.", rare=True
    )
    anchor_wraps: int = number(1, "Wraps after the bead", 0, 2, "Wound one way: on the far shoulder, before the nest.", rare=True)
    sense: Literal["cw", "ccw"] = choice("cw", "Way round", "Seen from above.", rare=True)

    def fits(self, band: BandStyle) -> Say:
        return lacks(band, Top.TAILS)

    def _one_tail(self, band: BandStyle) -> bool:
        return Top.THROUGH not in band.tops()

    def turns(self, one_tail: bool) -> float:
        """Turns of each tail, as set or as usual."""
        return self.nest_turns if self.nest_turns is not None else (2.5 if one_tail else 1.5)

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        self.bead.check("head.bead")
        if form.locks < 1:
            refuse("finish.wraps_each_side", "a nest springs open without wraps", "at least 1 wrap each side")
        one = self._one_tail(band)
        if self.nest_from is not None and (self.nest_from == "one-tail") != one:
            fits = "one-tail" if one else "both-opposite or both-together"
            refuse("head.nest_from", "the band's winding leaves other tails for the nest", fits)
        turns = self.turns(one)
        if abs(2 * turns - round(2 * turns)) > 1e-9:
            refuse("head.nest_turns", "a nest is counted in half turns", "such as 1, 1.5 or 2")
        if one and round(2 * turns) % 2 == 0:
            refuse(
                "head.nest_turns", "one tail has to come down on the left, beside where it began", "an odd number of half turns: 1.5, 2.5"
            )
        seat = seat_on(form.diameter_mm, band, wires, self.bead, stand_mm(band, wires, self.bead))
        check_reach(seat, self.bead)
        # Bound first, the band leaves the place beside the leg to the wraps that anchor the long tail.
        anchored = self.anchor_wraps * seat.wire_mm / (form.diameter_mm / 2) if one else 0.0
        facts = _Facts(seat, standing(seat, self.bead))
        return Opening(foot_rad=seat.bends_rad, shoulder_rad=seat.shoulder_rad + anchored, across=True, facts=facts)

    def _angles(self, bead: StandingBead) -> tuple[float, float]:
        start = -math.radians(self.nest_start_deg)
        if self.cover == "low":
            return start, _LOW_RAD
        climbs = self.bead.hole_mm / 2 if self.cover == "hole" else self.cover
        return start, math.asin(min(1.0, climbs / bead.reach_mm))

    def _layers(self, bead: StandingBead, turns: float, tails: int) -> tuple[float, float]:
        """Turns of a tail on the bead, and those that find no room there and lie on the first ones."""
        first = max(1, math.floor(self._closing(bead) / tails + 1e-9))
        return (turns, 0.0) if tails * turns <= self._closing(bead) or turns <= first else (float(first), turns - first)

    def _gap_mm(self, bead: StandingBead, turns: float) -> float:
        """Light between the turns of all tails together; nothing where they lie close."""
        return max(0.0, (self._closing(bead) - 1) * bead.wire_mm / turns - bead.wire_mm)

    def _closing(self, bead: StandingBead) -> float:
        """Turns, of all tails together, that lie wire on wire from the first one to the last."""
        low, high = self._angles(bead)
        return 1 + bead.reach_mm * (high - low) / bead.wire_mm

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        facts: _Facts = opening.facts
        seat = facts.seat
        slot = band.slots[0]
        through = named("head", seat.moves(slot.left[2], slot.right[2], "bead", "bead"))
        onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
        tails: list[End] = []
        ledger = band.ledger
        one = any(end.name == "long" for end in band.ends)
        for end in band.ends:
            if one and end.name != "long":
                tails.append(end)
                continue
            # Laid side by side, one tail first goes half round to the other, and the other half a turn further at the end: else both come
            # down on one side.
            turns = self.turns(one) + (0.5 if self.nest_from == "both-together" else 0)
            before: tuple[Placed, ...] = ()
            if one:
                before, end, ledger = self._anchored(band, seat, end)
            led, tail = self._nested(band, facts, end, turns, ledger, tails=1 if one else len(band.ends))
            onward[end.key] = (*before, *led)
            tails.append(tail)
        return HeadWork(
            through={0: through},
            onward=onward,
            stones=(drilled(self.bead, (0.0, seat.axis_y_mm, 0.0), wires),),
            tails=tuple(tails),
            ledger=ledger,
            tied=True,
            height_mm=seat.axis_y_mm - form.diameter_mm / 2 + self.bead.height / 2,
            facts=facts,
        )

    def _anchored(self, band: FormedBand, seat: Seat, end: End) -> tuple[tuple[Placed, ...], End, Ledger]:
        """The long tail down its leg, under the band and round it, before it goes into the nest."""
        ledger = band.ledger
        from_rad = seat.shoulder_rad
        wrap = wrap_at(band, end.wire, max(self.anchor_wraps, 0.5), from_rad, edge=-1, turned=False, label="anchor")
        down = Placed("long.down", Lead("down", end.at, wrap.begins))
        if not self.anchor_wraps:
            return (down,), replace(end, at=wrap.begins), ledger
        free = max(from_rad + wrap.advance_mm / (band.inside_mm / 2), ledger.right.free_rad)
        return (down, Placed("long.anchor", wrap)), replace(end, at=wrap.ends), ledger.wrapped("right", self.anchor_wraps, free)

    def _nested(
        self, band: FormedBand, facts: _Facts, end: End, turns: float, ledger: Ledger, *, tails: int
    ) -> tuple[tuple[Placed, ...], End]:
        """Up to the bead, round it, down to a shoulder, seen as if the tail came up on the left."""
        turned, backwards = end.side == "right", end.which == "first"
        start = lead_start(end)
        low, high = self._angles(facts.bead)
        sense = 1 if self.sense == "cw" else -1
        on_bead, over = self._layers(facts.bead, turns, tails)
        nest = Nest("nest", facts.bead, on_bead, low, high, sense)
        # Back down over the first ones: the bead is a wire thicker all round there.
        second = Nest("over", facts.bead.grown(), over, high, low, sense) if over else None
        first, last = nest.begins, (second or nest).ends
        # Whole turns come down where they began, half ones on the other side.
        goes_right = round(2 * turns) % 2 == 1
        side: Side = "right" if goes_right != turned else "left"
        edge = -1 if goes_right else 1
        arriving = end if goes_right else replace(end, side="left" if end.side == "right" else "right")
        down, tail = landing(_with_ledger(band, ledger), arriving, facts.seat.shoulder_rad, edge)
        if not goes_right:
            # Seen from where the tail came up, its own side is the left one.
            down = (-down[0], down[1], -down[2])
        name = "long" if end.name == "long" else side
        tail = replace(tail, name=name)
        moves: list[tuple[str, Move]] = [("rise", Lead("rise", start, first)), ("nest", nest)]
        moves += [("over", second)] if second else []
        moves.append(("drop", Lead("drop", last, down)))
        found = tuple(Placed(f"{name}.{part}", move, turned=turned, backwards=backwards) for part, move in moves)
        return found, tail

    def phrase(self, band: BandStyle) -> Say:
        return say("{bead} in a nest", bead=self.bead.words)

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        facts: _Facts = work.facts
        wire = band.strand_wire
        found = snagging(self.bead, facts.seat.shoulder_rad)
        if self.bead.height < 4 * wire.height_mm:
            text = say(
                "{bead} sinks out of sight in {wire} wire: one turn, or finer wire.", bead=self.bead.words, wire=Thickness(wire.height_mm)
            )
            found.append(Warn("bead-sinks", text, "wires.band.diameter"))
        if isinstance(self.cover, int | float) and self.cover < self.bead.hole_mm / 2:
            found.append(Warn("hole-shows", Say("The bends at the hole stay visible: climb higher."), "head.cover"))
        if any(p.id.endswith("over") for led in work.onward.values() for p in led):
            most = Number(self._closing(facts.bead), 0)
            text = say("So many turns don't find room on the bead: those beyond {most} of all tails lie on the first ones.", most=most)
            found.append(Warn("second-layer", text, "head.nest_turns"))
        if self.bead.made_of in _CHIPS and (wire.height_mm >= _STIFF_MM or wire.temper != "soft"):
            found.append(
                Warn(
                    "bead-chips",
                    Say("Bent square against it such wire chips the bead: bend over the jaw, a wire away from it."),
                    "head.bead",
                )
            )
        return found + lopsided(work)

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        one = any(end.name == "long" for end in band.ends)
        facts: _Facts = work.facts
        nests = [p for moves in work.onward.values() for p in moves if p.id.endswith(("rise", "nest", "over"))]
        drops = tuple(p.id for moves in work.onward.values() for p in moves if p.id.endswith("drop"))
        anchors = tuple(p.id for moves in work.onward.values() for p in moves if p.id.endswith(("down", "anchor")))
        nest = next(p.move for p in nests if isinstance(p.move, Nest))
        seat = tuple(p.id for p in work.through.get(0, ()))
        leg = facts.seat.axis_y_mm - facts.seat.radius_mm * math.cos(facts.seat.foot_rad)
        tasks = []
        if one:
            says = say(
                "Bend the long tail up square at the left foot, {leg} above the band square again, thread {bead}, bend it square down; then under the band and "
                "{anchor} round it.",
                leg=Length(leg),
                bead=self.bead.words,
                anchor=Times(self.anchor_wraps) if self.anchor_wraps else "not yet",
            )
            sits = look("The bead sits home and doesn't turn.")
            tasks.append(Task("seat", Phase.HEAD, says, makes=(*seat, *anchors), checks=(sits, reads(0.15)), cautions=(cautions.STONE,)))
        else:
            says = say(
                "Thread {bead} to the middle mark and fold both halves down square beside it, jaws at the inner jaw marks; at the outer ones they turn off along the mandrel.",
                bead=self.bead.words,
            )
            tasks.append(
                Task(
                    "thread",
                    Phase.WIRE,
                    says,
                    makes=seat,
                    checks=(look("The bead may slide but doesn't rattle."),),
                    cautions=(cautions.STONE,),
                )
            )
        total = sum(p.move.turns for p in nests if isinstance(p.move, Nest)) / (1 if one else 2)
        lies = NOTHING
        gap = self._gap_mm(facts.bead, (1 if one else 2) * total)
        if gap > _OPEN_MM:
            lies = say("It is an open nest: {gap} of light between the turns.", gap=Length(gap))
        tail = "the tail" if one else ("both tails side by side" if self.nest_from == "both-together" else "each tail from its own side")
        turns = say(
            "Lead {tail} round the bead's foot, {turns}, each turn a little above the last until the hole is hidden; {around} of wire a turn.",
            tail=tail,
            turns=Times(total),
            around=Length(nest.around_mm),
        )
        hidden = Check(
            Say("From above, the hole is hidden."), Say("A turn that jumps over the bead: lever it down with the plier tips at once.")
        )
        tasks.append(Task("nest", Phase.HEAD, turns + lies, makes=tuple(p.id for p in nests), checks=(hidden,)))
        where = "on the left" if one else "each to its shoulder"
        tasks.append(Task("drop", Phase.HEAD, Say(f"Come down, {where}, tight to the nest."), makes=drops, checks=(reads(0.15),)))
        return tasks


def _with_ledger(band: FormedBand, ledger: Ledger) -> FormedBand:
    """The band with another ledger: what the head has wrapped meanwhile."""
    return band if ledger is band.ledger else replace(band, ledger=ledger)
