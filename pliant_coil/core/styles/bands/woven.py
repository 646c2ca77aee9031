"""Woven: two to four base wires held side by side by a fine wire in a repeating program, made flat, then bent.

Two marks, and they are not the same. The band is *formed* at a mark, which decides the size. The *guide*, a scrap of wire
bent round the mandrel, decides only how much of the way round is woven (docs/handbook.md).
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import partial
from typing import Any, ClassVar, Literal

from pydantic import Field

from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.mechanics.program import LETTERS, program_text, read_program
from pliant_coil.core.mechanics.weave import Weave, can_be_folded
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import on_band, on_circle
from pliant_coil.core.moves.grip import Fold
from pliant_coil.core.moves.loop import Eye
from pliant_coil.core.moves.placed import EndCare, Fate, Piece, Placed
from pliant_coil.core.moves.stitch import Hitch
from pliant_coil.core.moves.straight import Straight
from pliant_coil.core.moves.weaving import Weaving
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.contract import (
    Anchor,
    BandStyle,
    Effect,
    End,
    Form,
    FormedBand,
    Joined,
    Opening,
    Side,
    SizedBy,
    Slot,
    Top,
    Warn,
    Wires,
    springback,
)
from pliant_coil.core.styles.parameters import WireSpec, choice, millimetres, number
from pliant_coil.core.styles.repeats import Chart, ChartPass, ChartWire, Guide, Repeats
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.trade.sizes import MandrelMark
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Count, Length, Thickness, Tolerance, number_words
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

USUAL_PROGRAMS = {2: "A3 AB1", 3: "AB2 BC2", 4: "AB2 BC2 CD2 BC2"}
NECK_TAKES_MM = 0.5
"""What a neck or the eyes' stems can take up of a length that isn't whole cycles."""
_MOST_SHARE = 0.5
"""Of the way round that a head may leave unwoven: a weave may stop at the mandrel's sides."""


@dataclass(frozen=True)
class Laid:
    """The circle and the woven length that go with it, and what is left over."""

    radius_mm: float
    inside_mm: float
    weave: Weave
    cycles: int
    woven_mm: float
    """What there is to fill."""

    @property
    def made_mm(self) -> float:
        return self.cycles * self.weave.cycle_mm


class Woven(BandStyle):
    """Base wires round the finger, woven from one side of the head's gap to the other."""

    title: ClassVar[str] = "Woven"
    hides_splice = "on the same base wire, on the finger’s far side: its first wraps go over the old end, both ends between the base wires"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {
        "base": WireSpec(diameter="0.8 mm"),
        "weave": WireSpec(diameter="0.4 mm", from_reel=True),
    }
    main_role: ClassVar[str] = "base"
    style: Literal["woven"] = choice("woven", "Band")
    base_wires: int = number(2, "Base wires", 2, 4)
    program: str | None = Field(
        None,
        title="Weave program",
        max_length=80,
        description="Three wraps on A, then one round A and B: A3 AB1. By the base wires unless given.",
    )
    packing: float = number(1.0, "Packing", 1, 3, "1 where the wraps touch; more for an airy weave.")
    base_gap_mm: float | None = millimetres(None, "Gap between base wires", 0, 3, "As wide as the weave wire unless given.", rare=True)
    head_gap_mm: float = millimetres(8.0, "Open at the top", 0, 40, "Round the band, left unwoven.", bare=True)
    start: Literal["end", "third", "middle", "fold"] | None = choice(
        None,
        "Begin weaving",
        "At an end, at a third, in the middle; or with one wire folded on the first base wire, as is usual with three.",
    )
    lean: Literal["same", "mirrored"] = choice("same", "Wraps lean", "All one way, or mirrored about the middle.", rare=True)
    direction: Literal["left to right", "right to left"] = choice("left to right", "Direction", "Which way one weave wire goes.", rare=True)
    weave_wires: int = number(1, "Weave wires", 1, 2, "Two start from the middle, one each way.", rare=True)
    end_wraps: int | None = number(
        None, "Wraps that finish each end", 0, 3, "On the first base wire; as the program ends unless given.", rare=True
    )
    ends_mm: float = millimetres(40.0, "Bare ends", 10, 150, "Of each base wire, left standing at the top.", rare=True, bare=True)
    guide_wire_mm: float | None = millimetres(
        None, "Guide wire", 0.2, 3, "Thickness of the scrap that is bent as a length guide; the base wire itself unless given.", rare=True
    )
    close: Literal["head", "eyes"] = choice("head", "Closed by", "A head, or eyes on its own ends, bound together.")
    eye_mm: float = millimetres(1.5, "Eyes, inside", 0.8, 4, rare=True)
    stem_mm: float = millimetres(0.4, "Before each eye", 0, 1.5, rare=True)

    @property
    def begins(self) -> str:
        """Where the weave begins, as set or as usual."""
        if self.start is not None:
            return self.start
        groups = read_program(self.said_program, self.base_wires, "band.program")
        return "fold" if can_be_folded(groups, self.base_wires) and self.weave_wires == 1 else "end"

    @property
    def said_program(self) -> str:
        return self.program if self.program is not None else USUAL_PROGRAMS[self.base_wires]

    def tops(self) -> frozenset[Top]:
        if self.close == "eyes":
            return frozenset({Top.CLOSED})
        return frozenset({Top.GAP, Top.ROOT}) if self.base_wires == 2 else frozenset({Top.GAP})

    def ends_each_side(self) -> int:
        return self.base_wires

    def centre_line_mm(self, inside_mm: float, wires: Wires) -> float:
        return inside_mm / 2 + wires["weave"].size_mm + wires["base"].size_mm / 2

    def weave(self, wires: Wires) -> Weave:
        """The program on these wires."""
        base, fine = wires["base"].size_mm, wires["weave"].size_mm
        gap = fine if self.base_gap_mm is None else self.base_gap_mm
        groups = read_program(self.said_program, self.base_wires, "band.program")
        return Weave(groups, self.base_wires, base, fine, gap, self.packing, folded=self.begins == "fold")

    def check(self, target_mm: float, wires: Wires) -> None:
        for role in ("base", "weave"):
            if wires[role].profile.name != "round":
                refuse(f"wires.{role}.profile", f"a weave with {wires[role].profile.name} {role} wire isn't reckoned here", "round")
        weave = self.weave(wires)
        if weave.wire_mm > weave.base_mm:
            refuse(
                "wires.weave.diameter",
                "the weave wire is thicker than the base wires and would bend them",
                say("up to {most}", most=Thickness(weave.base_mm)),
            )
        if self.begins == "fold" and not can_be_folded(weave.groups, self.base_wires):
            refuse("band.start", "one folded wire works two pairs of three base wires", "AB2 BC2 on three base wires, or begin at an end")
        if self.weave_wires == 2 and self.begins not in ("middle", "end"):
            refuse("band.weave_wires", "two weave wires start from the middle, one each way", "1, or begin in the middle")
        if self.close == "eyes" and self.eye_mm < 2 * weave.wire_mm:
            refuse(
                "band.eye_mm",
                "two rounds of the weave's tail don't go through so small an eye",
                say("at least {least}", least=Thickness(2 * weave.wire_mm)),
            )

    def form(self, form: Form, wires: Wires, opening: Opening) -> FormedBand:
        weave, base, fine = self.weave(wires), wires["base"], wires["weave"]
        tied = bool(opening.bare_mm or opening.root or opening.ties or self.close == "eyes")
        effects: tuple[Effect, ...] = ()
        # Soft wire is pressed past its mark until it reads it; harder wire springs back each time it is let go.
        if not tied and base.temper != "soft":
            effects = (springback(form.diameter_mm, base),)
        closed = opening.root or self.close == "eyes"
        laid = self._closed(form, weave, opening) if closed else self._open(form, weave, opening, sum(e.inside_mm for e in effects))
        if laid.cycles < 2 or (not closed and laid.woven_mm < _MOST_SHARE * math.pi * 2 * laid.radius_mm - 2 * opening.bare_mm - 1):
            refuse(
                "head.style" if opening.gap_rad is not None else "band.head_gap_mm",
                say("the head leaves only {left} of band to weave", left=Length(max(0.0, laid.woven_mm))),
                "a smaller head or gap, or a larger size",
            )
        pieces, slots, ends = self._base(base, laid, opening)
        fine_pieces, tails = self._fine(
            fine, laid, (math.pi - opening.gap_rad) * laid.radius_mm if opening.lead_mm and opening.gap_rad is not None else None
        )
        apart = [weave.z_mm(k) for k in range(self.base_wires)]
        return FormedBand(
            form=form,
            pieces=(*pieces, *fine_pieces),
            inside_mm=laid.inside_mm,
            strands=self.base_wires,
            width_mm=apart[-1] - apart[0] + weave.base_mm,
            thickness_mm=weave.base_mm + 2 * weave.wire_mm,
            strand_z=lambda _: tuple(apart),
            strand_wire=base,
            strand_height_mm=base.height_mm,
            ends=(*ends, *tails),
            slots=slots,
            anchors=self._anchors(laid),
            effects=effects,
            joined=Joined.BAND if self.close == "eyes" else Joined.HEAD,
            sized_by=SizedBy.LENGTH if closed else SizedBy.MARK,
            repeats=self._repeats(laid, form, opening, closed=closed),
            tied=tied,
            facts=laid,
        )

    def _open(self, form: Form, weave: Weave, opening: Opening, sprung_mm: float) -> Laid:
        """L = (2π − γ)R + 2T − 2b, filled with whole cycles; what springs open keeps its length."""
        inside = form.diameter_mm + sprung_mm
        formed = form.diameter_mm / 2 + weave.wire_mm + weave.base_mm / 2
        gap = 2 * opening.gap_rad if opening.gap_rad is not None else self.head_gap_mm / formed
        length = (2 * math.pi - gap) * formed + 2 * opening.lead_mm - 2 * opening.bare_mm
        cycles = form.repeats("cycles", self._whole(length / weave.cycle_mm))
        return Laid(inside / 2 + weave.wire_mm + weave.base_mm / 2, inside, weave, cycles, length)

    def _whole(self, cycles: float) -> int:
        """Whole cycles that fit; as many on both sides where they start from the middle."""
        fits = math.floor(cycles + 0.02)
        return 2 * (fits // 2) if self.begins == "middle" or self.weave_wires == 2 else fits

    def _closed(self, form: Form, weave: Weave, opening: Opening) -> Laid:
        """A closed loop: its length in whole cycles is the size. What the neck or stems take up is told as bare."""
        radius = form.diameter_mm / 2 + weave.wire_mm + weave.base_mm / 2
        span = opening.span_mm if opening.root else self.eyes_span_mm(weave)
        length = 2 * math.pi * radius - span
        cycles = form.repeats("cycles", max(1, round(length / weave.cycle_mm)))
        rest = length - cycles * weave.cycle_mm
        taken = max(-NECK_TAKES_MM, min(NECK_TAKES_MM, rest))
        woven = cycles * weave.cycle_mm + taken
        radius = (woven + span) / (2 * math.pi)
        return Laid(radius, 2 * (radius - weave.wire_mm - weave.base_mm / 2), weave, cycles, woven)

    def eyes_span_mm(self, weave: Weave) -> float:
        """What both sides' eyes and stems take of the way round."""
        return 2 * (self.eye_mm + 2 * weave.base_mm) + 2 * self.stem_mm

    def _base(self, wire: Wire, laid: Laid, opening: Opening) -> tuple[list[Piece], tuple[Slot, ...], list[End]]:
        half = laid.woven_mm / 2 / laid.radius_mm
        if opening.root:
            return self._rooted(wire, laid, opening, half)
        bare = opening.bare_mm / laid.radius_mm
        pieces, ends = [], []
        sides: tuple[tuple[Side, float], tuple[Side, float]] = (("right", math.pi - half), ("left", -(math.pi - half)))
        for lane in range(self.base_wires):
            z = laid.weave.z_mm(lane)
            name = f"base.{lane + 1}"
            share = {"middle": 0.5, "third": 1 / 3, "end": 0.0, "fold": 0.0}[self.begins]
            if self.direction == "right to left":
                share = 1 - share
            woven = Arc(
                "woven",
                laid.radius_mm,
                math.pi - half,
                2 * half,
                z,
                z,
                mark="begin weaving" if lane in (0, 1) else "",
                mark_share=share,
                host="the mandrel",
            )
            moves = [Placed(f"{name}.woven", woven)]
            if opening.lead_mm and opening.gap_rad is not None:
                # Up to the head it leaves the circle as a tangent, woven all the way.
                bent = math.pi - opening.gap_rad
                lead = laid.woven_mm / 2 - bent * laid.radius_mm - opening.corner_mm
                arc = replace(woven, from_rad=math.pi - bent, sweep_rad=2 * bent)
                ups = []
                for side_sign in (-1, 1):
                    edge = bent * laid.radius_mm
                    a, b = (on_band(laid.radius_mm, side_sign * (edge + more), 0.0, z, edge) for more in (0.0, lead))
                    ups.append(Straight("woven, straight", a, b))
                moves = [
                    Placed(f"{name}.first.lead", ups[0], backwards=True),
                    Placed(f"{name}.woven", arc),
                    Placed(f"{name}.last.lead", ups[1]),
                ]
                ends.append(End(name, "first", "right", lane, ups[0].end, wire, "base", f"right.{lane + 1}"))
                ends.append(End(name, "last", "left", lane, ups[1].end, wire, "base", f"left.{lane + 1}"))
                pieces.append(Piece(name, "base", wire, tuple(moves), ends=(EndCare.CUT, EndCare.CUT)))
                continue
            if bare:
                first = Arc("bare", laid.radius_mm, math.pi - half - bare, bare, z, z)
                last = Arc("bare", laid.radius_mm, math.pi + half, bare, z, z)
                moves = [Placed(f"{name}.first.bare", first), *moves, Placed(f"{name}.last.bare", last)]
            care = EndCare.CUT
            if self.close == "eyes":
                moves = self._with_eyes(name, moves, laid, wire, z, sides)
            elif opening.gap_rad is None:
                first_end, last_end = (self._free_end(laid, angle, z) for _, angle in sides)
                moves = [
                    Placed(f"{name}.first.end", first_end, fate=Fate.TRIM, backwards=True),
                    *moves,
                    Placed(f"{name}.last.end", last_end, fate=Fate.TRIM),
                ]
                care = EndCare.SAWN
            else:
                right = on_circle(laid.radius_mm, math.pi - half - bare, z)
                left = on_circle(laid.radius_mm, math.pi + half + bare, z)
                ends.append(End(name, "first", "right", lane, right, wire, "base", f"right.{lane + 1}"))
                ends.append(End(name, "last", "left", lane, left, wire, "base", f"left.{lane + 1}"))
            pieces.append(Piece(name, "base", wire, tuple(moves), ends=(care, care)))
        return pieces, (), ends

    def _anchors(self, laid: Laid) -> tuple[Anchor, ...]:
        """Its eyes, where it closes itself with them."""
        if self.close != "eyes":
            return ()
        half = laid.woven_mm / 2 / laid.radius_mm
        d = laid.weave.base_mm
        middle, top = laid.radius_mm + (self.eye_mm + d) / 2, laid.radius_mm + self.eye_mm + 1.5 * d
        return tuple(
            Anchor(
                on_circle(middle, side * (math.pi - half - self.stem_mm / laid.radius_mm), laid.weave.z_mm(lane)), top, self.eye_mm + 2 * d
            )
            for side in (-1, 1)
            for lane in (0, self.base_wires - 1)
        )

    def _free_end(self, laid: Laid, angle: float, z: float) -> Straight:
        foot = on_circle(laid.radius_mm, angle, z)
        up = on_circle(self.ends_mm, angle, 0.0)
        return Straight("for the head", foot, (foot[0] + up[0], foot[1] + up[1], z))

    def _with_eyes(
        self, name: str, moves: list[Placed], laid: Laid, wire: Wire, z: float, sides: tuple[tuple[Side, float], tuple[Side, float]]
    ) -> list[Placed]:
        found = list(moves)
        for side, angle in sides:
            sign = -1 if side == "right" else 1
            stem_rad = sign * self.stem_mm / laid.radius_mm
            end = angle + stem_rad
            at = on_circle(laid.radius_mm, end, z)
            along = (sign * math.cos(end), -sign * math.sin(end), 0.0)
            outwards = (math.sin(end), math.cos(end), 0.0)
            stem = Arc("stem", laid.radius_mm, angle, stem_rad, z, z)
            eye = Eye("eye", self.eye_mm, wire.size_mm, at, along, outwards)
            which = "first" if side == "right" else "last"
            extra = [Placed(f"{name}.{which}.stem", stem), Placed(f"{name}.{which}.eye", eye)]
            if not self.stem_mm:
                extra = extra[1:]
            if which == "first":
                found = [*(_outwards(p) for p in reversed(extra)), *found]
            else:
                found += extra
        return found

    def _rooted(self, wire: Wire, laid: Laid, opening: Opening, half: float) -> tuple[list[Piece], tuple[Slot, ...], list[End]]:
        """One wire whose middle is the head: its two tails are the lanes, from the neck round to the fork."""
        neck = opening.neck_mm / laid.radius_mm
        fork = neck + 2 * half
        zs = (laid.weave.z_mm(0), laid.weave.z_mm(1))
        lanes = []
        for lane, z in enumerate(zs):
            arc = Arc("woven", laid.radius_mm, neck, 2 * half, z, z, mark="begin weaving" if lane == 1 else "", host="the mandrel")
            lanes.append(Placed(f"base.lane{lane + 1}.woven", arc, backwards=lane == 0))
        piece = Piece("base.1", "base", wire, tuple(lanes), ends=(EndCare.CUT, EndCare.CUT))
        feet = [on_circle(laid.radius_mm, neck, z) for z in zs]
        slot = Slot("base.1", 1, 0, feet[0], feet[1])
        ends = [
            End("base.1", "first", "left", 0, on_circle(laid.radius_mm, fork, zs[0]), wire, "base", "fork.1"),
            End("base.1", "last", "left", 1, on_circle(laid.radius_mm, fork, zs[1]), wire, "base", "fork.2"),
        ]
        return [piece], (slot,), ends

    def _fine(self, fine: Wire, laid: Laid, straight: float | None) -> tuple[list[Piece], list[End]]:
        weave, cycles = laid.weave, laid.cycles
        radius, made = laid.radius_mm, laid.made_mm
        label = program_text(weave.groups)
        leftwards = self.direction == "right to left"
        begin = made / 2 if leftwards else -made / 2
        sense = -1 if leftwards else 1
        moves: tuple[Placed, ...]
        if self.begins == "fold":
            # Each half lies round its own pair; the fold holds the middle base wire where the weave begins.
            halves = [
                Weaving(label, weave, cycles, radius, begin, backwards=leftwards, half=k, straight_from_mm=straight, host="the base wires")
                for k in (0, 1)
            ]
            ways = [m.begins for m in halves]
            fold = Fold("fold", weave.base_mm, weave.wire_mm, (ways[0], ways[1]), mark="fold", mark_share=0.5)
            moves = (
                Placed("weave.first.weave", halves[0], backwards=True),
                Placed("weave.fold", fold),
                Placed("weave.last.weave", halves[1]),
            )
            ends = [self._tail("weave.1", "first", 0, halves[0], fine), self._tail("weave.1", "last", 1, halves[1], fine)]
            return [Piece("weave.1", "weave", fine, moves)], ends
        # Where the weave begins on a straight lead, its first wrap isn't drawn.
        plain = self._plain("start", 1, laid, begin, -sense)
        start = plain if straight is None else Hitch("start", plain.length_mm, Say("one wrap on the first base wire"))
        if self.weave_wires == 2 or self.begins == "middle":
            half = cycles // 2
            out = Weaving(label, weave, half, radius, 0.0, straight_from_mm=straight, host="the base wires")
            back = Weaving(
                label,
                weave,
                half,
                radius,
                0.0,
                backwards=True,
                mirrored=self.lean == "mirrored",
                straight_from_mm=straight,
                host="the base wires",
            )
            if self.weave_wires == 2:
                return [
                    Piece("weave.1", "weave", fine, (Placed("weave.1.weave", back),)),
                    Piece("weave.2", "weave", fine, (Placed("weave.2.weave", out),)),
                ], [self._tail("weave.1", "last", 0, back, fine), self._tail("weave.2", "last", 0, out, fine)]
            moves = (Placed("weave.near.weave", back, backwards=True), Placed("weave.far.weave", out))
            ends = [self._tail("weave.1", "first", 0, back, fine), self._tail("weave.1", "last", 0, out, fine)]
            return [Piece("weave.1", "weave", fine, moves)], ends
        if self.begins == "third":
            near = max(1, round(cycles / 3))
            at = begin + sense * near * weave.cycle_mm
            # The short side first, with the tail; then the work is turned like a page and goes on from the reel.
            short = Weaving(label, weave, near, radius, at, backwards=not leftwards, straight_from_mm=straight, host="the base wires")
            long = Weaving(label, weave, cycles - near, radius, at, backwards=leftwards, straight_from_mm=straight, host="the base wires")
            moves = (Placed("weave.near.weave", short, backwards=True), Placed("weave.far.weave", long))
            ends = [self._tail("weave.1", "first", 0, short, fine), self._tail("weave.1", "last", 0, long, fine)]
            return [Piece("weave.1", "weave", fine, moves)], ends
        whole = Weaving(label, weave, cycles, radius, begin, backwards=leftwards, straight_from_mm=straight, host="the base wires")
        closing = self._plain("finish", self.end_wraps, laid, begin + sense * made, sense) if self.end_wraps else None
        placed = [Placed("weave.start", start, backwards=True), Placed("weave.weave", whole)]
        if closing:
            placed.append(Placed("weave.finish", closing))
        ends = [self._tail("weave.1", "last", 0, whole, fine)]
        return [Piece("weave.1", "weave", fine, tuple(placed))], ends

    def _plain(self, label: str, wraps: int, laid: Laid, at_mm: float, towards: int) -> Wrap:
        """Plain wraps on the first base wire, before the program begins or after it ends."""
        weave = laid.weave
        base = weave.base_mm / 2
        angle = math.pi + at_mm / laid.radius_mm
        r = (weave.base_mm + weave.wire_mm) / 2
        return Wrap(
            label,
            wraps,
            Bundle(((weave.z_mm(0), 0.0),), base),
            Profile("round", weave.wire_mm),
            laid.radius_mm,
            angle,
            towards,
            start=(weave.z_mm(0) - r, 0.0),
            pitch_mm=weave.step_mm,
            host="the first base wire",
        )

    def _tail(self, piece: str, which: Literal["first", "last"], k: int, move: Weaving, fine: Wire) -> End:
        at: Point3 = move.ends
        side: Side = "right" if at[0] > 0 else "left"
        return End(piece, which, side, k, at, fine, "weave", f"{piece}.{which}")

    def guide(self, laid: Laid, form: Form) -> Guide:
        """The scrap that is bent, marked at the gap and straightened: as long as the weave."""
        weave = laid.weave
        thick = weave.base_mm if self.guide_wire_mm is None else self.guide_wire_mm
        return Guide(thick, form.diameter_mm + 2 * weave.wire_mm + weave.base_mm - thick, laid.woven_mm)

    def _repeats(self, laid: Laid, form: Form, opening: Opening, *, closed: bool) -> Repeats:
        weave = laid.weave
        return Repeats(
            name="cycles",
            kind="weave",
            program=program_text(weave.groups),
            count=laid.cycles,
            repeat_mm=weave.cycle_mm,
            made_mm=laid.made_mm,
            target_mm=laid.woven_mm,
            wire_per_repeat_mm=weave.wire_per_cycle_mm,
            repeat_changes_mm=weave.cycle_mm / math.pi if closed else 0.0,
            chart=partial(_chart, weave),
            guide=None if closed else self.guide(laid, form),
            mirrored=self.begins == "middle" and self.lean == "mirrored",
        )

    def advise(self, band: FormedBand, opening: Opening) -> list[Warn]:
        weave = band.facts.weave
        found = []
        if weave.wire_mm > 0.5 * weave.base_mm + 1e-9:
            text = say(
                "{fine} on {base} base wires twists the band and tires the fingers; {better} lies flatter.",
                fine=Thickness(weave.wire_mm),
                base=Thickness(weave.base_mm),
                better=Thickness(round(0.45 * weave.base_mm, 1)),
            )
            found.append(Warn("weave-wire-heavy", text, "wires.weave.diameter"))
        if self.packing > 1.25:
            found.append(Warn("weave-loose", Say("So open a weave slips along its base wires."), "band.packing"))
        return found

    def phrase(self) -> Say:
        return say("{wires} wires woven {program}", wires=number_words(self.base_wires), program=self.said_program.strip())

    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        laid: Laid = band.facts
        tasks: list[Task] = []
        guide = band.repeats.guide if band.repeats else None
        if guide:
            tasks.append(
                Task(
                    "guide",
                    Phase.FLAT,
                    say(
                        "Bend a scrap of {thick} wire round the mandrel at {at}, mark where both ends of the gap fall, and straighten it: your length guide.",
                        thick=Thickness(guide.wire_mm),
                        at=MandrelMark(guide.bent_at_mm),
                    ),
                    checks=(Check(say("Between the marks it is {length}.", length=Length(guide.length_mm))),),
                )
            )
        tasks += self._weaving(band, laid, guide)
        tasks += self._closing(band, opening, laid)
        return tasks

    def _weaving(self, band: FormedBand, laid: Laid, guide: Guide | None) -> list[Task]:
        weave = laid.weave
        program = program_text(weave.groups)
        made = tuple(p.id for piece in band.pieces if piece.role == "weave" for p in piece.moves)
        begin = {
            "end": say(
                "Hold the fine wire behind the first base wire at the mark, one wrap on it; bring in the {others}, {gap} apart, and go on with the weave.",
                others="second" if self.base_wires == 2 else "others one by one",
                gap=Thickness(weave.gap_mm),
            ),
            "third": say(
                "At the mark, a third from the end, lay the fine wire with its short side towards the near end; three wraps on A, bring in the other, "
                "{gap} apart, and weave the near side first with the tail.",
                gap=Thickness(weave.gap_mm),
            ),
            "middle": say(
                "At the middle mark lay the fine wire with its middle on the base wires, {gap} apart, and weave outwards.",
                gap=Thickness(weave.gap_mm),
            ),
            "fold": say(
                "Fold the fine wire at its middle, slip it on the middle base wire at the mark and draw it tight; lay the other two beside it, {gap} "
                "apart: one half goes round the first pair, the other round the second.",
                gap=Thickness(weave.gap_mm),
            ),
        }["middle" if self.weave_wires == 2 else self.begins]
        words = say(
            "Weave {program}, {words}, {cycles}: {length} in all. Push the wraps together after every group.",
            program=program,
            words=program_words(weave),
            cycles=Count(laid.cycles, "repeat", "repeats"),
            length=Length(laid.made_mm),
        )
        ten = min(10, laid.cycles)
        even = Check(
            say(
                "Every {ten} repeats are {length} long; base wires parallel, no light between wraps.",
                ten=ten,
                length=Length(ten * weave.cycle_mm),
            ),
            Say("Longer: it is loose, push it together; the count changes, not the size. Splayed: squeeze it flat in nylon jaws."),
        )
        tasks = [
            Task(
                "begin",
                Phase.FLAT,
                begin,
                checks=(look("It doesn't slide when pushed with a nail.", "Unwrap and draw it tighter."),),
                stage="weave",
            ),
            Task("weave", Phase.FLAT, words, makes=made, checks=(even,), cautions=(cautions.PAUSE,), count=laid.cycles),
        ]
        if self.begins == "third":
            tasks.append(
                Task(
                    "turn",
                    Phase.FLAT,
                    Say(
                        "The near side done, turn the work over like a page, left end to the right, A still nearest to you, and weave on from the reel."
                    ),
                    stage="weave",
                )
            )
        if guide:
            tasks.append(
                Task(
                    "compare",
                    Phase.FLAT,
                    Say("Lay the weave on the guide."),
                    checks=(
                        Check(
                            say("It is as long within half a repeat, {half}.", half=Length(weave.cycle_mm / 2)),
                            Say("Take off or add repeats at both ends alike."),
                        ),
                    ),
                )
            )
        return tasks

    def _closing(self, band: FormedBand, opening: Opening, laid: Laid) -> list[Task]:
        ends = say(
            "Finish the fine ends: what the head needs is coiled aside; the others are cut {stands} long between the base wires, on the side away from the "
            "finger, and rolled down in the direction of the wrap.",
            stands=Tolerance(1),
        )
        tasks = [
            Task(
                "fine-ends",
                Phase.FLAT,
                ends,
                checks=(look("A fingertip, then a thread, finds no end."),),
                cautions=(cautions.CUT,),
                stage="finish the weave",
            )
        ]
        if opening.root:
            return tasks
        start = MandrelMark(band.form.diameter_mm)
        if self.close == "eyes":
            eyes = say(
                "Turn each end, {stem} beyond the weave, outwards into an eye {eye} inside.",
                stem=Length(self.stem_mm),
                eye=Thickness(self.eye_mm),
            )
            bind = Say(
                "Form it round the mandrel until the eyes of both sides face each other, and bind each pair with the weave's tail, two rounds, drawn down; "
                "then two or three wraps on a base wire, trim, press in."
            )
            made = tuple(p.id for piece in band.pieces for p in piece.moves if p.id.endswith(("eye", "stem")))
            tasks.append(Task("eyes", Phase.FLAT, eyes, makes=made, checks=(look("All eyes alike and shut."),), count=2 * self.base_wires))
            tasks.append(
                Task(
                    "form",
                    Phase.FORM,
                    bind,
                    checks=(reads(0.1, Say("The weave's length is the size: take off or add repeats.")),),
                    cautions=(cautions.FINE_PULL,),
                )
            )
            return tasks
        gap = 2 * math.pi * laid.radius_mm - laid.woven_mm
        tasks.append(
            Task(
                "form",
                Phase.FORM,
                say(
                    "Warm it in the hand and lay its middle on the mandrel at {start}; press both sides round with the thumbs until they pass each other, "
                    "and let go. Use a mallet only if it is soft.",
                    start=start,
                ),
                makes=tuple(p.id for piece in band.pieces if piece.role == "base" for p in piece.moves),
                checks=(
                    Check(say("{gap} stay open at the top, both ends level, the better face outside.", gap=Length(gap))),
                    reads(0.1, Say("Otherwise form it again, a mark smaller if it sprang open: nothing is locked yet.")),
                ),
            )
        )
        return tasks

    @classmethod
    def from_version_1(cls, band: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        band.setdefault("program", "A3 AB1")
        if band.get("weave_wires") == 2:
            band["start"], band["lean"] = "middle", "mirrored"
        band.setdefault("start", "end")
        return band


def _outwards(placed: Placed) -> Placed:
    return replace(placed, backwards=True)


def _chart(weave: Weave) -> Chart:
    wires = tuple(ChartWire(LETTERS[k], weave.z_mm(k), weave.base_mm) for k in range(weave.base_wires))
    return Chart(weave.wire_mm, wires, tuple(ChartPass(round(w.at_mm, 4), w.first, w.last) for w in weave.chart()))


def program_words(weave: Weave) -> Say:
    """The program as it is spoken: `three on A, one round A and B`."""
    parts = []
    for g in weave.groups:
        wraps = number_words(g.wraps)
        names = " and ".join(g.name) if g.wires <= 2 else ", ".join(g.name)
        parts.append(f"{wraps} on {names}" if g.wires == 1 else f"{wraps} round {names}")
    return Say(", ".join(parts))
