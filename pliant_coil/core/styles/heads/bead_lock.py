"""Bead lock: a bead on the wire, the tails led past it and wrapped beside it."""

import math
from dataclasses import replace
from functools import partial
from typing import Any, ClassVar, Literal

from pydantic import Field

from pliant_coil.core.moves.base import Move
from pliant_coil.core.moves.passing import pass_beside, pass_over, pass_under
from pliant_coil.core.moves.placed import Placed, named
from pliant_coil.core.moves.seat import Seat
from pliant_coil.core.moves.straight import Lead
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.bead_lists import Row, row_words
from pliant_coil.core.styles.beads import check_reach, drilled, landing, lead_start, seat_on, snagging, stand_mm, standing
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, HeadWork, Opening, Top, Warn, Wires
from pliant_coil.core.styles.parameters import choice
from pliant_coil.core.styles.stones import Bead, PlacedStone
from pliant_coil.core.styles.tasks import Phase, Task, look, reads
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

_SCRATCHED = ("soft-stone", "pearl-or-shell", "amber-or-resin")
"""What wire drawn over it marks (common practice, no source)."""
_BETWEEN_FINGERS = math.radians(80)
"""From the top: wraps further round press on the next fingers (common practice, no source)."""
_HANGS = 0.6
"""Difference of neighbours, as a share of the larger: a smaller one would touch nothing (common practice, no source)."""


class BeadLock(HeadStyle):
    """A bead on legs; each tail past its foot to the other side, and wrapped there."""

    title: ClassVar[str] = "Bead lock"
    hides_splice = "beside the first lock, under the bead"
    least_locks: ClassVar[int] = 1
    style: Literal["bead-lock"] = choice("bead-lock", "Head")
    bead: Bead = Field(default_factory=Bead, title="Bead")
    beads: Row = choice((), "Several beads", "In their order, such as 4 6 4; they take the one bead's place.", rare=True)
    pass_by: Literal["beside", "under-over", "under-both", "none"] = choice(
        "beside", "Tails pass", "One on each face; one under the bead and one over it; both under it; or, wound one way, none."
    )
    first_tail: Literal["right", "left"] = choice("right", "First tail", "Which passes the nearer face, or goes under.", rare=True)

    @property
    def whole(self) -> Bead:
        """The bead, or all that stand on one wire as one: as long as they are together, as wide and high as the largest."""
        if not self.beads:
            return self.bead
        long, large = sum(b.length for b in self.beads), max(b.width for b in self.beads)
        hole = min(b.hole_mm for b in self.beads)
        return Bead.model_construct(
            shape="oval", diameter_mm=large, length_mm=long, width_mm=large, height_mm=max(b.height for b in self.beads), hole_mm=hole
        )

    def _stones(self, seat: Seat, wires: Wires) -> tuple[PlacedStone, ...]:
        """Each bead where it stands on the wire."""
        if not self.beads:
            return (drilled(self.bead, seat, wires),)
        found, at = [], -self.whole.length / 2
        for k, bead in enumerate(self.beads):
            placed = drilled(bead, seat, wires)
            middle = (at + bead.length / 2, seat.axis_y_mm, 0.0)
            found.append(replace(placed, field=f"head.beads.{k}.hole_mm", centre=middle))
            at += bead.length
        return tuple(found)

    def fits(self, band: BandStyle) -> Say:
        return lacks(band, Top.TAILS)

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        if self.beads:
            for k, bead in enumerate(self.beads):
                bead.check(f"head.beads.{k}")
                beside = self.beads[k - 1] if k else bead
                if abs(bead.height - beside.height) > _HANGS * max(bead.height, beside.height):
                    refuse(f"head.beads.{k}.diameter_mm", "the smaller bead hangs in the air beside the larger one", "beads more alike")
        else:
            self.bead.check("head.bead")
        if form.locks < 1:
            refuse("finish.wraps_each_side", say("{bead} doesn't hold without a lock", bead=self.whole.words), "at least 1 wrap each side")
        if self.pass_by == "none" and Top.THROUGH in band.tops():
            refuse("head.pass_by", "the tails of a band wound both ways have to come past the bead", "beside, under-over or under-both")
        lift = wires["band"].height_mm if self.pass_by in ("under-over", "under-both") else 0.0
        seat = seat_on(form.diameter_mm, band, wires, self.whole, stand_mm(band, wires, self.whole) + lift)
        check_reach(seat, self.whole)
        return Opening(foot_rad=seat.bends_rad, shoulder_rad=seat.shoulder_rad, across=True, facts=seat)

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        seat: Seat = opening.facts
        slot = band.slots[0]
        through = named("head", seat.moves(slot.left[2], slot.right[2], "bead", "bead"))
        both = len(band.ends) == 2 and band.ends[0].side != band.ends[1].side
        onward, tails = {}, []
        for k, end in enumerate(band.ends):
            if not both and end.name != "long":
                tails.append(end)
                continue
            led, tail = self._led(band, seat, end, under=self._goes_under(k, both))
            onward[end.key] = led
            tails.append(tail)
        height = seat.axis_y_mm - form.diameter_mm / 2 + self.whole.height / 2
        return HeadWork(
            through={0: through},
            onward=onward,
            stones=self._stones(seat, wires),
            tails=tuple(tails),
            ledger=band.ledger,
            tied=True,
            height_mm=height,
            facts=seat,
        )

    def _goes_under(self, k: int, both: bool) -> bool:
        if self.pass_by == "under-over":
            return not both or k == (1 if self.first_tail == "right" else 0)
        return self.pass_by == "under-both"

    def _led(self, band: FormedBand, seat: Seat, end: End, *, under: bool) -> tuple[tuple[Placed, ...], End]:
        """A tail past the bead to the shoulder that it will wrap."""
        moves: list[Move] = []
        turned, backwards = end.side == "right", end.which == "first"
        start = lead_start(end)
        if end.name == "long":
            # The leg comes down where the wire then lies on the band's edge; from there it is led past the bead, or wraps at once.
            at, tail = landing(band, _other_side(end), seat.shoulder_rad, -1)
            down = Lead("down", (-start[0], start[1], -start[2]), at)
            first = Placed("long.down", down)
            if self.pass_by == "none":
                return (first,), tail
            moves.append(down)
            start = (-at[0], at[1], -at[2])
        face = -1 if self.first_tail == "right" else 1
        stop, tail = landing(band, end, seat.shoulder_rad, face)
        if under:
            passing: Move = pass_under("under", start, stop, radius_mm=band.radius_mm)
        elif self.pass_by == "under-over":
            d = seat.wire_mm
            passing = pass_over("over", start, stop, centre_y_mm=seat.axis_y_mm, a_mm=seat.leg_x_mm + d, b_mm=self.whole.height / 2 + d / 2)
        else:
            bead = standing(seat, self.whole)
            foot = seat.axis_y_mm - bead.reach_mm / math.sqrt(2)
            drop = max(0.0, foot - seat.shoulder_y_mm)
            passing = pass_beside(
                "past the bead", start, stop, body=partial(bead.body, -math.pi / 4), drop_mm=drop, radius_mm=band.radius_mm, face=face
            )
        found = [Placed("long.down", moves[0])] if moves else []
        found.append(Placed(f"{tail.name}.pass", passing, turned=turned, backwards=backwards))
        return tuple(found), tail

    def phrase(self, band: BandStyle) -> Say:
        ways = {"under-over": ", one tail under and one over", "under-both": ", both tails under it"}
        words = row_words(self.beads) if self.beads else self.bead.words
        return say("{bead}{way}", bead=words, way=ways.get(self.pass_by, ""))

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        found = snagging(self.whole, work.facts)
        if band.form.locks == 1:
            found.append(Warn("one-wrap-slips", Say("One wrap slips under a bead: two hold."), "finish.wraps_each_side"))
        if self.whole.width > 1.6 * self.whole.length and self.pass_by == "beside":
            found.append(Warn("pass-bulges", Say("Past so wide a bead the tails bulge on both faces: lead them under it."), "head.pass_by"))
        if self.pass_by == "under-over" and any(bead.made_of in _SCRATCHED for bead in self.beads or (self.bead,)):
            found.append(
                Warn("pass-scratches", Say("The wire over it shows and may scratch it: lead both tails under it instead."), "head.pass_by")
            )
        seat: Seat = work.facts
        last = seat.shoulder_rad + (band.form.locks - 0.5) * band.strand_wire.width_mm / (band.inside_mm / 2)
        if last > _BETWEEN_FINGERS:
            text = Say("The last wraps come between the fingers and are felt there: fewer wraps, or a smaller bead.")
            found.append(Warn("locks-far", text, "finish.wraps_each_side"))
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        one_way = any(end.name == "long" for end in band.ends)
        thread = Task(
            "thread",
            Phase.FORM if one_way else Phase.WIRE,
            say(
                "Bend the long tail up square at the left foot, thread {bead}, and bend it square down at the other side."
                if one_way
                else "Thread {bead} to its mark and fold both halves down square beside it, jaws at the inner jaw marks; at the outer ones they turn off along the mandrel.",
                bead=self.whole.words,
            ),
            makes=tuple(p.id for p in work.through.get(0, ())),
            checks=(look("The bead may slide but doesn't rattle."),),
            cautions=(cautions.STONE,),
        )
        led = tuple(p.id for moves in work.onward.values() for p in moves)
        if not led:
            return [thread]
        passes = {
            "beside": "Lead one tail past the nearer face of the bead, the other past the farther face, tight to its foot.",
            "under-over": "Pass one tail under the bead, flat to the mandrel, and the other over it to its own side, tight.",
            "under-both": "Pass both tails under the bead, side by side, tight.",
            "none": "Lead the tail down on the band's edge.",
        }[self.pass_by]
        if one_way and self.pass_by != "none":
            way = "under the bead" if self._goes_under(1, False) else "past the nearer face of the bead"
            passes = f"Lead the long tail down, then {way}, tight to its foot, to the left shoulder."
        back = Say("Wind it again now: after the first wrap it can't be changed.")
        return [
            thread,
            Task(
                "pass",
                Phase.HEAD,
                Say(passes),
                makes=led,
                checks=(look("The tails leave on opposite sides." if not one_way else "It lies tight."), reads(0.15, back)),
            ),
        ]

    @classmethod
    def from_version_1(cls, head: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        head.setdefault("pass_by", "under-over")
        return head


def _other_side(end: End) -> End:
    return replace(end, side="left" if end.side == "right" else "right")
