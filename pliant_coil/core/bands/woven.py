"""Woven: two to four base wires held side by side by a fine wire in a repeating program, made flat, then bent.

Makers bend a scrap of wire round the mandrel as a guide and weave to its length. The guide follows the mandrel; the
base wires run outside the weave. So the start mark of a woven band is where its guide is bent, and the weave inside
the band is its first contribution: −2w. (A guide at the size ends one US size small at w = 0.4 mm.)
"""

import math
from collections.abc import Mapping
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.bands.base import BandStyle
from pliant_coil.core.finish import Finish
from pliant_coil.core.heads.base import HeadStyle
from pliant_coil.core.moves import Arc, Move, Straight, Weaving
from pliant_coil.core.moves.base import on_circle
from pliant_coil.core.plan import ChartPass, ChartWire, Fit
from pliant_coil.core.refusal import refuse
from pliant_coil.core.sizes import US_STEP_MM
from pliant_coil.core.steps import Step
from pliant_coil.core.weaving import LETTERS, Weave, program_text, read_program
from pliant_coil.core.wires import FormedRing, Shift, WireRun, Wires, WireSpec

WEAVE_CAUSE = "weave inside the band"
GUIDE_CAUSE = "the guide's own thickness"


class Woven(BandStyle):
    """Base wires round the finger, woven from one side of the head's gap to the other."""

    title: ClassVar[str] = "Woven"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {
        "base": WireSpec(diameter="0.8 mm"),
        "weave": WireSpec(diameter="0.4 mm", from_reel=True),
    }
    main_role: ClassVar[str] = "base"
    style: Literal["woven"] = Field("woven", title="Band")
    base_wires: int = Field(2, title="Base wires", ge=2, le=4)
    program: str = Field(
        "A3 AB1",
        title="Weave program",
        max_length=80,
        description="Three wraps on A, then one round A and B: A3 AB1.",
    )
    packing: float = Field(1.0, title="Packing", ge=1, le=3, description="1 where the wraps touch; more for an airy weave.")
    base_gap_mm: float | None = Field(
        None,
        title="Gap between base wires",
        ge=0,
        le=3,
        description="As wide as the weave wire unless given.",
        json_schema_extra={"unit": "mm"},
    )
    head_gap_mm: float = Field(
        8.0, title="Gap for the head", ge=0, le=25, description="Round the band, left unwoven at the top.", json_schema_extra={"unit": "mm"}
    )
    start: Literal["middle", "third", "end"] = Field("end", title="Begin weaving", description="Where along the base wires.")
    direction: Literal["left to right", "right to left"] = Field(
        "left to right", title="Direction", description="Which way one weave wire goes."
    )
    weave_wires: int = Field(1, title="Weave wires", ge=1, le=2, description="Two start from the middle, one each way.")
    ends_mm: float = Field(40.0, title="Ends for the head", ge=10, le=150, json_schema_extra={"unit": "mm"})
    guide_wire_mm: float | None = Field(
        None,
        title="Guide wire",
        ge=0.2,
        le=3,
        description="Thickness of the scrap-wire guide; the base wire itself unless given.",
        json_schema_extra={"unit": "mm"},
    )

    def _weave(self, wires: Wires) -> Weave:
        base, fine = wires["base"].profile.size_mm, wires["weave"].profile.size_mm
        gap = fine if self.base_gap_mm is None else self.base_gap_mm
        groups = read_program(self.program, self.base_wires, "band.program")
        return Weave(groups, self.base_wires, base, fine, gap, self.packing)

    def form(self, form_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> FormedRing:
        weave = self._weave(wires)
        base = wires["base"]
        guide = base.profile.size_mm if self.guide_wire_mm is None else self.guide_wire_mm
        shifts = [Shift(WEAVE_CAUSE, -2 * weave.wire_mm)]
        if guide != base.profile.size_mm:
            shifts.append(Shift(GUIDE_CAUSE, guide - base.profile.size_mm))
        finished = form_diameter_mm + sum(s.mm for s in shifts)
        radius = finished / 2 + weave.wire_mm + base.profile.size_mm / 2
        fit = self._fit(weave, radius, form_diameter_mm, guide)
        runs = self._base_runs(wires, weave, radius, fit) + self._weave_runs(wires, weave, radius, fit)
        width = weave.pitch_mm * (self.base_wires - 1) + weave.base_mm + 2 * weave.wire_mm
        thickness = weave.base_mm + 2 * weave.wire_mm
        return FormedRing(form_diameter_mm, tuple(runs), tuple(shifts), (), self.base_wires, width, thickness, lambda: fit)

    def _fit(self, weave: Weave, radius: float, form_diameter_mm: float, guide_mm: float) -> Fit:
        """Whole cycles, mirrored about the middle, nearest the flat length (2π − γ)·(D/2 + w + d/2)."""
        target = 2 * math.pi * radius - self.head_gap_mm
        cycles = max(2, 2 * round(target / weave.cycle_mm / 2))
        made = cycles * weave.cycle_mm
        share = target / (2 * math.pi * radius)
        guide = (2 * math.pi * share) * (form_diameter_mm / 2 + guide_mm / 2)
        words = f"Bend it at {guide:.1f} mm: between the bends it is as long as the weave, the gap stays beyond them."
        letters = [ChartWire(name=LETTERS[k], z_mm=weave.z_mm(k), width_mm=weave.base_mm) for k in range(self.base_wires)]
        return Fit(
            kind="weave",
            program=program_text(weave.groups),
            repeats=cycles,
            repeat_mm=weave.cycle_mm,
            made_mm=made,
            target_mm=target,
            left_each_end_mm=(target - made) / 2,
            repeat_changes_us=weave.cycle_mm / (math.pi * share) / US_STEP_MM,
            wire_per_repeat_mm=weave.wire_per_cycle_mm,
            mirrored=True,
            guide_mm=guide,
            guide_words=words,
            wire_mm=weave.wire_mm,
            base=letters,
            strands=[],
            passes=[ChartPass(at_mm=p.at_mm, first=p.first, last=p.last) for p in weave.passes()],
        )

    def _base_runs(self, wires: Wires, weave: Weave, radius: float, fit: Fit) -> list[WireRun]:
        band_half = fit.target_mm / 2 / radius
        runs = []
        shares = {"middle": 0.5, "third": 1 / 3, "end": 0.0}
        for k in range(self.base_wires):
            z = weave.z_mm(k)
            feet = [on_circle(radius, math.pi + side * band_half, z) for side in (-1, 1)]
            tips = [
                (x + dx, y + dy, z)
                for (x, y, _), (dx, dy, _) in zip(
                    feet, (on_circle(self.ends_mm, math.pi + side * band_half, 0) for side in (-1, 1)), strict=True
                )
            ]
            woven = Arc("woven", radius, math.pi - band_half, 2 * band_half, z, z, mark="begin weaving", mark_share=shares[self.start])
            moves: tuple[Move, ...] = (Straight("for the head", tips[0], feet[0]), woven, Straight("for the head", feet[1], tips[1]))
            # The ends are long enough to be held by.
            runs.append(WireRun(wires["base"], moves, held_ends=(False, False)))
        return runs

    def _weave_runs(self, wires: Wires, weave: Weave, radius: float, fit: Fit) -> list[WireRun]:
        half = fit.repeats // 2
        label = f"{fit.program} ×{half}"
        outwards = Weaving(label, weave, half, radius, 0.0, backwards=False)
        back = Weaving(label, weave, half, radius, 0.0, backwards=True)
        if self.weave_wires == 2:
            return [WireRun(wires["weave"], (back,)), WireRun(wires["weave"], (outwards,))]
        if self.direction == "right to left":
            return [WireRun(wires["weave"], (Weaving(label, weave, half, radius, fit.made_mm / 2, backwards=True), back))]
        return [WireRun(wires["weave"], (Weaving(label, weave, half, radius, -fit.made_mm / 2, backwards=False), outwards))]

    def check(self, inside_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> None:
        for role in ("base", "weave"):
            if wires[role].profile.name != "round":
                refuse(f"wires.{role}.profile", f"a weave with {wires[role].profile.name} {role} wire isn't reckoned here", "round")
        weave = self._weave(wires)
        if weave.wire_mm > weave.base_mm:
            refuse(
                "wires.weave.diameter", "the weave wire is thicker than the base wires and would bend them", f"up to {weave.base_mm:.2f} mm"
            )
        room = math.pi * inside_diameter_mm - self.head_gap_mm
        if 2 * weave.cycle_mm > room:
            refuse(
                "band.program",
                f"two cycles of {weave.cycle_mm:.1f} mm are longer than the {room:.0f} mm there are to weave",
                "a shorter program, or a narrower gap",
            )

    def phrase(self) -> str:
        wires = {2: "two", 3: "three", 4: "four"}[self.base_wires]
        return f"{wires} wires woven {self.program.strip()}"

    def forming(self, start_words: str, formed: FormedRing, head: HeadStyle) -> list[Step]:
        begin = {
            "middle": "from the middle to one end, then from the middle to the other",
            "third": f"from a third of the way {self.direction}, then from there to the other end",
            "end": f"from one end to the other, {self.direction}",
        }[self.start if self.weave_wires == 1 else "middle"]
        guide = f"Bend a scrap of wire round the mandrel at {start_words}, mark the gap for the head, and straighten it: your length guide."
        weave = f"Tape the base wires side by side and weave {self.program.strip()} {begin}. Push each repeat up to the last."
        form = "Bend the woven band round the mandrel at the finished size, its middle opposite the head."
        return [
            Step("guide", guide),
            Step("weave", weave, check="Lay the guide beside it every few repeats: no gaps, straight, not twisted."),
            Step("form", form, check="The weave hasn't opened on the outside."),
        ]
