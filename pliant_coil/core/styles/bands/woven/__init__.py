"""Woven: two to four base wires held side by side by a fine wire in a repeating program, made flat, then bent.

Two marks, and they are not the same. The band is *formed* at a mark, which decides the size. The *guide*, a scrap of wire
bent round the mandrel, decides only how much of the way round is woven (docs/handbook.md).
"""

import math
from collections.abc import Mapping
from functools import partial
from typing import Any, ClassVar, Literal

from pydantic import Field

from pliant_coil.core.mechanics.program import LETTERS, program_text, read_program
from pliant_coil.core.mechanics.weave import Weave, can_be_folded
from pliant_coil.core.styles.bands.woven import steps
from pliant_coil.core.styles.bands.woven import wires as wires_of
from pliant_coil.core.styles.bands.woven.wires import Laid
from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.handed_on import Effect, Form, FormedBand, Joined, Opening, SizedBy, Top, Warn, Wires, springback
from pliant_coil.core.styles.parameters import WireSpec, choice, millimetres, number
from pliant_coil.core.styles.repeats import Chart, ChartPass, ChartWire, Guide, Repeats
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.figures import Length, Thickness, number_words
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

USUAL_PROGRAMS = {2: "A3 AB1", 3: "AB2 BC2", 4: "AB2 BC2 CD2 BC2"}
NECK_TAKES_MM = 0.5
"""What a neck or the eyes' stems can take up of a length that isn't whole cycles."""
_MOST_SHARE = 0.5
"""Of the way round that a head may leave unwoven: a weave may stop at the mandrel's sides."""


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
        pieces, slots, ends = wires_of.laid_base(self, base, laid, opening)
        fine_pieces, tails = wires_of.laid_fine(
            self, fine, laid, (math.pi - opening.gap_rad) * laid.radius_mm if opening.lead_mm and opening.gap_rad is not None else None
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
            anchors=wires_of.anchors(self, laid),
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
        return steps.tasks(self, band, opening)

    @classmethod
    def from_version_1(cls, band: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        band.setdefault("program", "A3 AB1")
        if band.get("weave_wires") == 2:
            band["start"], band["lean"] = "middle", "mirrored"
        band.setdefault("start", "end")
        return band


def _chart(weave: Weave) -> Chart:
    wires = tuple(ChartWire(LETTERS[k], weave.z_mm(k), weave.base_mm) for k in range(weave.base_wires))
    return Chart(weave.wire_mm, wires, tuple(ChartPass(round(w.at_mm, 4), w.first, w.last) for w in weave.chart()))
