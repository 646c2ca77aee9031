"""Nest: a bead stands on the band; wire circles its foot, climbing until its hole is hidden, and comes down to the shoulders."""

import math
from dataclasses import dataclass, replace
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.moves.base import Move
from pliant_coil.core.moves.nest import Nest, StandingBead
from pliant_coil.core.moves.placed import Placed, named
from pliant_coil.core.moves.seat import Seat
from pliant_coil.core.moves.straight import Lead
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.beads import check_reach, drilled, landing, lead_start, seat_on, snagging, stand_mm, standing
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, HeadWork, Ledger, Opening, Side, Top, Warn, Wires
from pliant_coil.core.styles.locks import wrap_at
from pliant_coil.core.styles.parameters import choice, degrees, number
from pliant_coil.core.styles.stones import Bead
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.words.figures import Length, Times
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say


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
    cover: Literal["hole", "low"] = choice("hole", "Climbs to", "The hole's upper edge, or stays under it.", rare=True)
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
        top = math.asin(min(1.0, self.bead.hole_mm / 2 / bead.reach_mm)) if self.cover == "hole" else -math.radians(10)
        return -math.radians(self.nest_start_deg), top

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
            led, tail = self._nested(band, facts, end, turns, ledger)
            onward[end.key] = (*before, *led)
            tails.append(tail)
        return HeadWork(
            through={0: through},
            onward=onward,
            stones=(drilled(self.bead, seat, wires),),
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

    def _nested(self, band: FormedBand, facts: _Facts, end: End, turns: float, ledger: Ledger) -> tuple[tuple[Placed, ...], End]:
        """Up to the bead, round it, down to a shoulder, seen as if the tail came up on the left."""
        turned, backwards = end.side == "right", end.which == "first"
        start = lead_start(end)
        low, high = self._angles(facts.bead)
        nest = Nest("nest", facts.bead, turns, low, high, 1 if self.sense == "cw" else -1)
        first, last = nest.begins, nest.ends
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
        moves: list[tuple[str, Move]] = [("rise", Lead("rise", start, first)), ("nest", nest), ("drop", Lead("drop", last, down))]
        found = tuple(Placed(f"{name}.{part}", move, turned=turned, backwards=backwards) for part, move in moves)
        return found, tail

    def phrase(self, band: BandStyle) -> Say:
        return say("{bead} in a nest", bead=self.bead.words)

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        return snagging(self.bead, work.facts.seat)

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        one = any(end.name == "long" for end in band.ends)
        facts: _Facts = work.facts
        nests = [p for moves in work.onward.values() for p in moves if p.id.endswith(("rise", "nest"))]
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
                "Thread {bead} to the middle mark and fold both halves down square beside it, jaws at the jaw marks.", bead=self.bead.words
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
        tail = "the tail" if one else ("both tails side by side" if self.nest_from == "both-together" else "each tail from its own side")
        turns = say(
            "Lead {tail} round the bead's foot, {turns}, each turn a little above the last until the hole is hidden; {around} of wire a turn.",
            tail=tail,
            turns=Times(nest.turns),
            around=Length(nest.around_mm),
        )
        hidden = Check(
            Say("From above, the hole is hidden."), Say("A turn that jumps over the bead: lever it down with the plier tips at once.")
        )
        tasks.append(Task("nest", Phase.HEAD, turns, makes=tuple(p.id for p in nests), checks=(hidden,)))
        where = "on the left" if one else "each to its shoulder"
        tasks.append(Task("drop", Phase.HEAD, Say(f"Come down, {where}, tight to the nest."), makes=drops, checks=(reads(0.15),)))
        return tasks


def _with_ledger(band: FormedBand, ledger: Ledger) -> FormedBand:
    """The band with another ledger: what the head has wrapped meanwhile."""
    return band if ledger is band.ledger else replace(band, ledger=ledger)
