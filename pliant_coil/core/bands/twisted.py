"""Twisted: two to four wires twisted evenly and tapped flat a little; the untwisted ends stay as claws."""

import math
from collections.abc import Mapping
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.bands.base import BandStyle, springback
from pliant_coil.core.finish import Finish
from pliant_coil.core.heads.base import HeadStyle
from pliant_coil.core.moves import Move, Straight, Twist
from pliant_coil.core.moves.base import on_circle
from pliant_coil.core.packing import CLEARANCE_MM
from pliant_coil.core.refusal import refuse
from pliant_coil.core.steps import Step
from pliant_coil.core.wires import FormedRing, Shift, WireRun, Wires, WireSpec

TAPPED_CAUSE = "tapping the twist flat"


class Twisted(BandStyle):
    """A twist round the finger, open at the top, whose ends stand up as claws."""

    title: ClassVar[str] = "Twisted"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="1 mm")}
    main_role: ClassVar[str] = "band"
    style: Literal["twisted"] = Field("twisted", title="Band")
    wires: int = Field(2, title="Wires", ge=2, le=4)
    lay_mm: float = Field(
        6.0, title="One full turn in", ge=1.5, le=40, description="The lay: length of one full turn.", json_schema_extra={"unit": "mm"}
    )
    full_turns: int | None = Field(
        None, title="Full turns in all", ge=1, le=60, description="Instead of the lay: it follows from the band's length."
    )
    direction: Literal["right", "left"] = Field("right", title="Direction")
    tapped_share: float = Field(0.1, title="Tapped flat by", ge=0, le=0.3, description="Share of the thickness that light hammering takes.")
    top_gap_mm: float = Field(8.0, title="Open at the top", ge=0, le=20, json_schema_extra={"unit": "mm"})
    claw_mm: float = Field(15.0, title="Claws", ge=0, le=40, description="Length of each untwisted end.", json_schema_extra={"unit": "mm"})

    def _lay(self, along_mm: float) -> float:
        """Length of one full turn: as given, or as so many turns make it."""
        return self.lay_mm if self.full_turns is None else along_mm / self.full_turns

    def _helix_mm(self, wire_mm: float) -> float:
        """How far a strand runs beside the middle line: n equal wires lie on a circle of d / sin(π/n) across."""
        return wire_mm / math.sin(math.pi / self.wires) / 2

    def form(self, form_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> FormedRing:
        wire = wires["band"]
        d = wire.profile.size_mm
        helix = self._helix_mm(d)
        thick = 2 * helix + d
        radius = form_diameter_mm / 2 + thick / 2
        half_gap = self.top_gap_mm / 2 / radius
        sweep = 2 * math.pi - 2 * half_gap
        lay = self._lay(radius * sweep)
        hand = 1 if self.direction == "right" else -1
        runs = []
        for k in range(self.wires):
            twist = Twist(
                f"twist ×{round(radius * sweep / lay)}",
                radius,
                half_gap,
                sweep,
                helix,
                lay,
                2 * math.pi * k / self.wires,
                hand,
            )
            moves: list[Move] = [twist]
            if self.claw_mm:
                moves = [self._claw(twist.point(0), half_gap, leading=True), twist, self._claw(twist.point(1), -half_gap, leading=False)]
            runs.append(WireRun(wire, tuple(moves)))
        # The mandrel stays where it was: a flatter twist has its inner side on it still, and only grows wider.
        width = thick / (1 - self.tapped_share)
        shifts = (
            (springback(form_diameter_mm, wire), Shift(TAPPED_CAUSE, 0.0)) if self.tapped_share else (springback(form_diameter_mm, wire),)
        )
        return FormedRing(form_diameter_mm, tuple(runs), shifts, (), self.wires, width, thick * (1 - self.tapped_share))

    def _claw(self, foot: tuple[float, float, float], at_rad: float, *, leading: bool) -> Straight:
        x, y, z = foot
        up_x, up_y, _ = on_circle(self.claw_mm, at_rad, 0.0)
        tip = (x + up_x, y + up_y, z)
        return Straight("claw", tip, foot) if leading else Straight("claw", foot, tip)

    def check(self, inside_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> None:
        wire = wires["band"]
        if wire.profile.name != "round":
            refuse("wires.band.profile", f"a twist of {wire.profile.name} wire isn't reckoned here", "round")
        least = 2.2 * self.wires * wire.profile.size_mm / math.sqrt(self.wires)
        lay = self._lay(math.pi * inside_diameter_mm - self.top_gap_mm)
        if lay < least:
            refuse(
                "band.lay_mm" if self.full_turns is None else "band.full_turns",
                f"{self.wires} wires of {wire.profile.size_mm:.2f} mm break before they are twisted so tight",
                f"at least {least:.1f} mm",
            )
        if self.top_gap_mm > inside_diameter_mm:
            refuse("band.top_gap_mm", "is wider than the ring", f"up to {inside_diameter_mm:.0f} mm")

    def phrase(self) -> str:
        tight = f"a turn in {self.lay_mm:g} mm" if self.full_turns is None else f"{self.full_turns} turns"
        return f"{self.wires} wires twisted, {tight}"

    def forming(self, start_words: str, formed: FormedRing, head: HeadStyle) -> list[Step]:
        tight = f"one full turn in {self.lay_mm:g} mm" if self.full_turns is None else f"{self.full_turns} full turns in all"
        d = formed.runs[0].wire.profile.size_mm
        hole = 2 * self._helix_mm(d) + d + CLEARANCE_MM
        count = "both" if self.wires == 2 else f"all {self.wires}"
        steps = [
            Step(
                "twist",
                f"Grip {count} wires in a pin vise, leave the claws free at each end, and twist evenly to the {self.direction}: "
                f"{tight}. Thread first what goes on a single wire: the twist needs a hole of {hole:.2f} mm.",
                check="The lay is even from end to end.",
                cautions=("With a drill: clamp the far end, go slowly, fingers and sleeves clear of the chuck.",),
            ),
        ]
        if self.tapped_share:
            steps.append(
                Step(
                    "flatten",
                    "Tap the twist along its length just enough to show the pattern.",
                    check="No strand has cracked: twisted strands break when hammered hard.",
                    cautions=("Fingers clear of the hammer; glasses on.",),
                )
            )
        steps.append(Step("form", f"Bend the twist round the mandrel at {start_words}, the opening at the top, claws standing up."))
        return steps
