"""Bead lock: a bead on the wire, the tails led past it and wrapped beside it."""

import math
from dataclasses import replace
from typing import Any, ClassVar, Literal

from pydantic import Field

from pliant_coil.core.moves.base import Move
from pliant_coil.core.moves.bead_row import Strung
from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.moves.straight import Lead
from pliant_coil.core.styles.bead_lists import Row, row_words
from pliant_coil.core.styles.beads import REACH_REFUSES, check_reach, landing, lead_start, seat_on, snagging, stand_mm
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, HeadWork, Opening, Top, Warn, Wires
from pliant_coil.core.styles.heads.bead_lock import steps
from pliant_coil.core.styles.heads.bead_lock.stands import InARow, OnLegs, Stand
from pliant_coil.core.styles.parameters import choice
from pliant_coil.core.styles.stones import Bead
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.figures import Count
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

    @property
    def words(self) -> Say:
        """`a 7 mm bead`, or the beads of a row."""
        return row_words(self.beads) if self.beads else self.bead.words

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
            refuse("finish.wraps_each_side", say("{bead} won't hold without a lock", bead=self.words), "at least 1 wrap each side")
        if self.pass_by == "none" and Top.THROUGH in band.tops():
            refuse("head.pass_by", "the tails of a band wound both ways have to come past the bead", "beside, under-over or under-both")
        stand = self._stand(form, band, wires)
        return Opening(foot_rad=stand.foot_rad, shoulder_rad=stand.shoulder_rad, across=True, facts=stand)

    def _stand(self, form: Form, band: BandStyle, wires: Wires) -> Stand:
        """How they stand on this form. Raises `Refusal` for what goes round the sides of the finger."""
        wire = wires["band"]
        lift = wire.height_mm if self.pass_by in ("under-over", "under-both") else 0.0
        under = stand_mm(band, wires, self.whole) + lift
        radius = band.centre_line_mm(form.diameter_mm, wires)
        passes_at = radius + (wire.height_mm if band.under_head_mm(wires) else 0.0)
        if not self.beads:
            seat = seat_on(form.diameter_mm, band, wires, self.bead, under)
            check_reach(seat, self.bead)
            return OnLegs(self.bead, seat, passes_at)
        lengths, heights = tuple(b.length for b in self.beads), tuple(b.height for b in self.beads)
        strung = Strung(lengths, form.diameter_mm / 2 + under, radius, heights)
        if strung.angle_rad / 2 > REACH_REFUSES:
            fewer = say("{n} at most, or smaller ones", n=Count(max(1, len(self.beads) - 1), "bead", "beads"))
            refuse("head.beads", say("{beads} go half round the finger", beads=row_words(self.beads)), fewer)
        return InARow(self.beads, strung, wire.height_mm, passes_at)

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        stand: Stand = opening.facts
        slot = band.slots[0]
        both = len(band.ends) == 2 and band.ends[0].side != band.ends[1].side
        onward, tails = {}, []
        for k, end in enumerate(band.ends):
            if not both and end.name != "long":
                tails.append(end)
                continue
            led, tail = self._led(band, stand, end, under=self._goes_under(k, both))
            onward[end.key] = led
            tails.append(tail)
        return HeadWork(
            through={0: stand.through(slot)},
            onward=onward,
            stones=stand.stones(slot, wires),
            tails=tuple(tails),
            ledger=band.ledger,
            tied=True,
            height_mm=stand.top_mm - form.diameter_mm / 2,
            facts=stand,
        )

    def _goes_under(self, k: int, both: bool) -> bool:
        if self.pass_by == "under-over":
            return not both or k == (1 if self.first_tail == "right" else 0)
        return self.pass_by == "under-both"

    def _led(self, band: FormedBand, stand: Stand, end: End, *, under: bool) -> tuple[tuple[Placed, ...], End]:
        """A tail past the bead to the shoulder that it will wrap."""
        moves: list[Move] = []
        turned, backwards = end.side == "right", end.which == "first"
        start = lead_start(end)
        if end.name == "long":
            # The leg comes down where the wire then lies on the band's edge; from there it is led past the bead, or wraps at once.
            at, tail = landing(band, _other_side(end), stand.shoulder_rad, -1)
            down = Lead("down", (-start[0], start[1], -start[2]), at)
            first = Placed("long.down", down)
            if self.pass_by == "none":
                return (first,), tail
            moves.append(down)
            start = (-at[0], at[1], -at[2])
        face = -1 if self.first_tail == "right" else 1
        stop, tail = landing(band, end, stand.shoulder_rad, face)
        if under:
            passing = stand.under(start, stop)
        elif self.pass_by == "under-over":
            passing = stand.over(start, stop)
        else:
            passing = stand.beside(start, stop, face)
        found = [Placed("long.down", moves[0])] if moves else []
        found.append(Placed(f"{tail.name}.pass", passing, turned=turned, backwards=backwards))
        return tuple(found), tail

    def phrase(self, band: BandStyle) -> Say:
        ways = {"under-over": ", one tail under and one over", "under-both": ", both tails under it"}
        return say("{bead}{way}", bead=self.words, way=ways.get(self.pass_by, ""))

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        stand: Stand = work.facts
        found = snagging(self.bead, stand.shoulder_rad) if not self.beads else []
        if band.form.locks == 1:
            found.append(Warn("one-wrap-slips", Say("One wrap slips under a bead: two hold."), "finish.wraps_each_side"))
        if self.whole.width > 1.6 * self.whole.length and self.pass_by == "beside":
            found.append(Warn("pass-bulges", Say("Past so wide a bead the tails bulge on both faces: lead them under it."), "head.pass_by"))
        if self.pass_by == "under-over" and any(bead.made_of in _SCRATCHED for bead in self.beads or (self.bead,)):
            found.append(
                Warn("pass-scratches", Say("The wire over it shows and may scratch it: lead both tails under it instead."), "head.pass_by")
            )
        last = stand.shoulder_rad + (band.form.locks - 0.5) * band.strand_wire.width_mm / (band.inside_mm / 2)
        if last > _BETWEEN_FINGERS:
            text = Say("The last wraps come between the fingers and are felt there: fewer wraps, or a smaller bead.")
            found.append(Warn("locks-far", text, "finish.wraps_each_side"))
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        return steps.tasks(self, band, work)

    @classmethod
    def from_version_1(cls, head: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        head.setdefault("pass_by", "under-over")
        return head


def _other_side(end: End) -> End:
    return replace(end, side="left" if end.side == "right" else "right")
