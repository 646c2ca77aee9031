"""Turned: the same wire laid side by side round the mandrel, as one helix, both ways from the middle or one way."""

import math
from collections.abc import Mapping
from dataclasses import replace
from typing import Any, ClassVar, Literal

from pliant_coil.core.moves.arc import Turns
from pliant_coil.core.moves.base import on_circle
from pliant_coil.core.moves.placed import Piece, Placed
from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.gathering import Gather, StrandZ, Winding, bind_early, check_gather, early_wraps, gathering, with_early
from pliant_coil.core.styles.handed_on import Effect, End, Form, FormedBand, Opening, Slot, Top, Wires, springback, usual_shoulder_rad
from pliant_coil.core.styles.parameters import WireSpec, choice, millimetres, number
from pliant_coil.core.styles.strips import Strip, StripParameters, strip_tasks
from pliant_coil.core.styles.tasks import Check, Phase, Task, reads
from pliant_coil.core.trade.sizes import MandrelMark
from pliant_coil.core.words.figures import Count, Times
from pliant_coil.core.words.say import Say, say

Laid = tuple[list[Placed], Slot, list[End], StrandZ]


class Turned(BandStyle):
    """Turns side by side: both ways from the middle, or one way from a short tail."""

    title: ClassVar[str] = "Turned"
    hides_splice = "beside the first lock, where the head covers both ends"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="20 AWG")}
    main_role: ClassVar[str] = "band"
    style: Literal["turned"] = choice("turned", "Band")
    winding: Winding = choice("both-ways", "Winding", "Both ways from the middle, or one way from a short tail.")
    turns: int | None = number(None, "Turns", 1, 4, "How often each tail goes all the way round; once, or twice when wound one way.")
    gather: Gather = choice(
        "none",
        "Bound before the head",
        "Wound one way: the short tail binds the band at once. Both ways: each tail once under all turns, or wrapped round its shoulder.",
    )
    gather_wraps: int | None = number(None, "Wraps before the head", 1, 4, "Three with the short tail, one with the tails.", rare=True)
    short_tail_mm: float | None = millimetres(None, "Short tail", 30, 90, "Never less than its wraps and what is held.", rare=True)
    worked: StripParameters | None = choice(None, "Worked flat and twisted", rare=True)

    @property
    def round(self) -> int:
        """Turns of each tail, or of the whole of it wound one way."""
        return self.turns if self.turns is not None else (1 if self.both_ways else 2)

    @property
    def both_ways(self) -> bool:
        return self.winding == "both-ways"

    def gathered(self, opening: Opening) -> Gather:
        """How it is bound before the head is made: as chosen, or as the head asks."""
        return opening.gather if opening.gather and self.gather == "none" else self.gather

    def centre_line_mm(self, inside_mm: float, wires: Wires) -> float:
        return inside_mm / 2 + Strip.of(wires["band"], self.worked).stands_mm

    def tops(self) -> frozenset[Top]:
        return frozenset({Top.THROUGH, Top.TAILS}) if self.both_ways else frozenset({Top.TAILS})

    def check(self, target_mm: float, wires: Wires) -> None:
        check_gather(self.gather, self.winding)
        if self.worked:
            self.worked.check(wires["band"], "band.worked")

    def under_head_mm(self, wires: Wires) -> tuple[float, ...]:
        pitch = self._strip(wires).lane_mm
        turns = self.round
        if self.both_ways:
            return tuple(side * j * pitch for j in range(1, turns) for side in (-1, 1))
        return tuple((turns / 2 - j) * pitch for j in range(1, turns))

    def _strip(self, wires: Wires) -> Strip:
        return Strip.of(wires["band"], self.worked)

    def form(self, form: Form, wires: Wires, opening: Opening) -> FormedBand:
        wire = wires["band"]
        strip = self._strip(wires)
        effects: tuple[Effect, ...] = ()
        gather = self.gathered(opening)
        wraps = early_wraps(gather, self.gather_wraps)
        tied = bool(form.locks) or wraps > 0
        if not tied:
            effects = (springback(form.diameter_mm, strip.wire, strip.worked.yield_mpa(wire)),)
        inside = form.diameter_mm + sum(e.inside_mm for e in effects)
        formed, radius = form.diameter_mm / 2 + strip.stands_mm, inside / 2 + strip.stands_mm
        shoulder = opening.shoulder_rad if opening.shoulder_rad is not None else usual_shoulder_rad(radius, strip.wire)
        if self.both_ways:
            band = self._both_ways(form, strip, opening, shoulder, radius=radius, opened=formed / radius)
        else:
            band = self._one_way(form, strip, opening, shoulder, radius=radius, opened=formed / radius)
        moves, slot, ends, strand_z = band
        early, ends, ledger = bind_early(gather, wraps, ends, strip, inside, strand_z)
        placed, slot = with_early(moves, slot, early)
        strands = 2 * self.round if self.both_ways else self.round
        pieces = (Piece("band.1", "band", wire, tuple(placed)),)
        return FormedBand(
            form=form,
            pieces=pieces,
            inside_mm=inside,
            strands=strands,
            width_mm=(strands - 1) * strip.lane_mm + strip.wire.width_mm,
            thickness_mm=2 * strip.stands_mm if self.worked else wire.height_mm,
            strand_z=strand_z,
            strand_wire=strip.wire,
            strand_height_mm=strip.wire.height_mm,
            ends=tuple(ends),
            slots=(slot,),
            effects=effects,
            ledger=ledger,
            tied=tied,
            facts=strip,
        )

    def _both_ways(self, form: Form, strip: Strip, opening: Opening, shoulder: float, *, radius: float, opened: float) -> Laid:
        pitch, turns = strip.lane_mm, self.round
        foot = opening.foot_rad
        last = 2 * math.pi * turns + (-shoulder if opening.across else shoulder)
        # A free band springs open: the same wire on a larger circle comes less far round.
        last = foot + (last - foot) * opened

        def z(angle: float) -> float:
            return -pitch * angle / (2 * math.pi)

        move = Turns("round", radius, foot, last - foot, z(foot), z(last), turns, mark="" if foot else "middle", host="the mandrel")
        right = Placed("right.turns", move, worked=strip.worked)
        left = Placed("left.turns", _unmarked(move), worked=strip.worked).mirrored()
        at = on_circle(radius, last, z(last))
        arrives: Literal["left", "right"] = "left" if opening.across else "right"
        other: Literal["left", "right"] = "right" if opening.across else "left"
        ends = [
            End("band.1", "first", other, 0, (-at[0], at[1], -at[2]), strip.wire, "band", other),
            End("band.1", "last", arrives, 0, at, strip.wire, "band", arrives),
        ]
        slot = Slot("band.1", 1, 0, on_circle(radius, -foot, -z(foot)), on_circle(radius, foot, z(foot)))

        # On the right: the right half's own passes and the left half's arrivals; the left side is the same turned.
        lanes = (*(-j for j in range(turns)), *range(1, turns + 1))

        def strand_z(angle: float) -> tuple[float, ...]:
            a, lane = abs(angle) / (2 * math.pi), pitch if angle >= 0 else -pitch
            return tuple([lane * (j - a) for j in lanes])

        return [left, right], slot, ends, strand_z

    def _one_way(self, form: Form, strip: Strip, opening: Opening, shoulder: float, *, radius: float, opened: float) -> Laid:
        pitch, turns = strip.lane_mm, self.round
        if opening.across:
            # From the short tail at the right shoulder round to the left foot, where the long tail rises.
            first, last = shoulder, 2 * math.pi * turns - opening.foot_rad
        else:
            first, last = -shoulder, 2 * math.pi * turns + shoulder
        middle = (first + last) / 2
        first, last = middle - (middle - first) * opened, middle + (last - middle) * opened

        def z(angle: float) -> float:
            return pitch * (turns / 2 - angle / (2 * math.pi))

        move = Turns("round", radius, first, last - first, z(first), z(last), turns, mark="start", host="the mandrel")
        placed = [Placed("right.turns", move, worked=strip.worked)]
        short: Literal["left", "right"] = "right" if opening.across else "left"
        ends = [End("band.1", "first", short, 0, on_circle(radius, first, z(first)), strip.wire, "band", short)]
        foot = on_circle(radius, last, z(last))
        slot = Slot("band.1", 1, 0, foot, (-foot[0], foot[1], foot[2]))
        if opening.across:
            right = slot.right
            ends.append(End("band.1", "last", "right", 0, right, strip.wire, "band", "long"))
        else:
            ends.append(End("band.1", "last", "right", 0, foot, strip.wire, "band", "right"))

        def strand_z(angle: float) -> tuple[float, ...]:
            first_pass = 0 if angle >= 0 else 1
            return tuple(z(angle + 2 * math.pi * j) for j in range(first_pass, first_pass + turns))

        return placed, slot, ends, strand_z

    def phrase(self) -> Say:
        worked = self.worked.phrase() if self.worked else Say("")
        way = "each way" if self.both_ways else "one way"
        return say(f"turned {{times}} {way}{{worked}}", times=Times(self.round), worked=worked)

    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        tasks = strip_tasks(self.worked, band.facts, band.pieces[0])
        start = MandrelMark(band.form.diameter_mm)
        held = "the head" if opening.foot_rad else "the mark"
        turns = Times(self.round)
        if self.both_ways:
            ends_at = "up on the other side of the head" if opening.across else "over the top to its own shoulder"
            text = say(
                "Hold {held} on top of the mandrel at {start}; wind each tail {turns} all the way round, one on each side of it, and {ends_at}.",
                held=held,
                start=start,
                turns=turns,
                ends_at=ends_at,
            )
            behind = 2 * self.round
        else:
            held = "the stone on top of" if opening.from_head else "the start mark and the short tail against"
            text = say(
                "Hold {held} the mandrel at {start}; wind the long tail {turns} all the way round, close beside itself.",
                held=held,
                start=start,
                turns=turns,
            )
            behind = self.round
        lies = say(
            "{wires} side by side at the back, touching; none has climbed on another.", wires=Count(behind, "wire lies", "wires lie")
        )
        tasks.append(
            Task(
                "form",
                Phase.FORM,
                text,
                makes=tuple(p.id for p in band.pieces[0].moves if p.id.endswith("turns")),
                checks=(Check(lies), reads(0.1, Say("Otherwise pull both tails at once against the thumb, or wind it again."))),
                count=self.round,
            )
        )
        early = tuple(p.id for p in band.pieces[0].moves if p.id.endswith("early"))
        gather = self.gathered(opening)
        return tasks + gathering(gather, early_wraps(gather, self.gather_wraps), early)

    @classmethod
    def from_version_1(cls, band: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        band.setdefault("turns", 1)
        finish = document.get("finish")
        if isinstance(finish, dict) and finish.pop("short_tail", None) == "early" and band.get("winding") == "one-way":
            band["gather"] = "short-tail"
            wraps = finish.get("wraps_each_side", 2)
            # Version 1 counted the finish's wraps for both sides; it could have none.
            band["gather_wraps"] = min(4, max(1, wraps)) if isinstance(wraps, int) else 2
        return band


def _unmarked(move: Turns) -> Turns:
    return replace(move, mark="") if move.mark else move
