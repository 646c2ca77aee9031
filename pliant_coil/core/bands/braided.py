"""Braided: wires folded round a starting eye into six or eight strands (or three and four flat), closed through the eye."""

import math
from collections.abc import Mapping
from functools import partial
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.bands.base import BandStyle
from pliant_coil.core.braiding import Braid, braid_angle_rad
from pliant_coil.core.finish import Finish
from pliant_coil.core.heads.base import HeadStyle
from pliant_coil.core.moves import Loose, Move, Strand
from pliant_coil.core.plan import Fit
from pliant_coil.core.refusal import refuse
from pliant_coil.core.sizes import US_STEP_MM
from pliant_coil.core.steps import Step
from pliant_coil.core.wires import FormedRing, WireRun, Wires, WireSpec

MEASURED_MM = 20.0
"""Braid after which the maker measures what a strand has taken."""


class Braided(BandStyle):
    """A flat braid round the finger from an eye at the top back to it."""

    title: ClassVar[str] = "Braided"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="0.6 mm")}
    main_role: ClassVar[str] = "band"
    trimmed: ClassVar[bool] = True
    style: Literal["braided"] = Field("braided", title="Band")
    strands: Literal[3, 4, 6, 8] = Field(6, title="Strands")
    angle_deg: float = Field(30.0, title="Braid angle", ge=15, le=50, json_schema_extra={"unit": "°"})
    width_mm: float | None = Field(
        None,
        title="Measured width",
        ge=0.5,
        le=20,
        description="Your own braid's width; the angle follows from it.",
        json_schema_extra={"unit": "mm"},
    )
    eye_mm: float = Field(4.0, title="Starting eye, inside", ge=1, le=12, json_schema_extra={"unit": "mm"})
    reduced_mm: float = Field(
        12.0,
        title="Reduced over",
        ge=0,
        le=40,
        description="The strands are dropped pair by pair before the eye.",
        json_schema_extra={"unit": "mm"},
    )
    closing_mm: float = Field(30.0, title="Through the eye", ge=10, le=80, json_schema_extra={"unit": "mm"})
    first_20_took_mm: float | None = Field(
        None,
        title="Your first 20 mm took",
        ge=20,
        le=60,
        description="Wire that one strand took for 20 mm of braid.",
        json_schema_extra={"unit": "mm"},
    )

    def _braid(self, wire_mm: float) -> Braid:
        angle: float | None = math.radians(self.angle_deg)
        if self.width_mm is not None:
            angle = braid_angle_rad(self.strands, wire_mm, self.width_mm)
        if angle is None or angle < math.radians(5):
            least = Braid(self.strands, wire_mm, math.radians(5)).width_mm
            refuse("band.width_mm", f"{self.strands} strands of {wire_mm:.2f} mm can't be braided so narrow", f"at least {least:.1f} mm")
        return Braid(self.strands, wire_mm, angle)

    def form(self, form_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> FormedRing:
        wire = wires["band"]
        d = wire.profile.size_mm
        braid = self._braid(d)
        radius = form_diameter_mm / 2 + braid.thickness_mm / 2
        half_eye = (self.eye_mm / 2 + d) / radius
        sweep = 2 * math.pi - 2 * half_eye
        measured = 1.0 if self.first_20_took_mm is None else self.first_20_took_mm / (MEASURED_MM * braid.wire_per_mm)

        def strand(k: int, *, backwards: bool) -> Strand:
            return Strand(f"strand {k + 1}", braid, radius, half_eye, sweep, k / self.strands, measured, backwards)

        def end(k: int) -> Loose:
            # The last two go through the eye; the others are dropped before it, each pair a little earlier.
            if k < 2:
                return Loose("through the eye", self.closing_mm, "to close the ring through the starting eye")
            return Loose("tuck", 5.0, "cut back and tucked in where the braid is reduced")

        if self.strands % 2:
            runs = [
                WireRun(wire, (Loose("eye", self.eye_mm, "round the starting eye"), strand(k, backwards=False), end(k)))
                for k in range(self.strands)
            ]
        else:
            half = self.strands // 2
            fold = math.pi * (self.eye_mm + d) / 2
            runs = []
            for k in range(half):
                moves: tuple[Move, ...] = (
                    end(k),
                    strand(k, backwards=True),
                    Loose("fold", fold, f"half round the eye: π × ({self.eye_mm:g} + {d:.2f}) / 2", mark="fold", mark_share=0.5),
                    strand(k + half, backwards=False),
                    end(k + 2),
                )
                runs.append(WireRun(wire, moves))
        return FormedRing(
            form_diameter_mm,
            tuple(runs),
            (),
            (),
            self.strands,
            braid.width_mm,
            braid.thickness_mm,
            partial(self._fit, braid, radius * sweep),
        )

    def _fit(self, braid: Braid, target: float) -> Fit:
        """How often each strand goes across and back, for the chart; a braid needn't end with a whole one."""
        over = (self.strands - 1) // 2
        period = braid.period_mm
        turns = target / period
        return Fit(
            kind="braid",
            program=f"over {over}, over {self.strands - 1 - over}",
            repeats=math.ceil(turns),
            repeat_mm=period,
            made_mm=target,
            target_mm=target,
            left_each_end_mm=0.0,
            repeat_changes_us=period / math.pi / US_STEP_MM,
            wire_per_repeat_mm=period * braid.wire_per_mm,
            mirrored=False,
            guide_mm=target,
            guide_words=f"A strand goes across and back {turns:.1f} times; a millimetre of braid takes {braid.wire_per_mm:.2f} mm of it.",
            wire_mm=braid.wire_mm,
            base=[],
            passes=[],
            strands=[[list(point) for point in strand] for strand in braid.repeat],
        )

    def check(self, inside_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> None:
        wire = wires["band"]
        if wire.profile.name != "round":
            refuse("wires.band.profile", f"a braid of {wire.profile.name} wire isn't reckoned here", "round")
        braid = self._braid(wire.profile.size_mm)
        room = math.pi * inside_diameter_mm - self.eye_mm
        if braid.period_mm > room:
            refuse(
                "wires.band.diameter",
                f"{self.strands} strands of this wire don't even go across and back once on this finger",
                "a finer wire, or fewer strands",
            )
        if self.first_20_took_mm is not None and not 0.8 <= self.first_20_took_mm / (MEASURED_MM * braid.wire_per_mm) <= 1.6:
            reckoned = MEASURED_MM * braid.wire_per_mm
            refuse(
                "band.first_20_took_mm",
                f"that is far from the {reckoned:.1f} mm reckoned for this braid",
                "measure one strand, not all, or give the width you braid",
            )

    def phrase(self) -> str:
        return f"braided from {self.strands} strands"

    def forming(self, start_words: str, formed: FormedRing, head: HeadStyle) -> list[Step]:
        over = (self.strands - 1) // 2
        other = self.strands - 1 - over
        folded = (
            f"Fold the wires round a {self.eye_mm:g} mm rod at their marks"
            if self.strands % 2 == 0
            else f"Bind the wires to a {self.eye_mm:g} mm eye"
        )
        sides = f"over {over} from one side, over {other} from the other" if other != over else f"over {over} from either side"
        rest = "After 20 mm, measure what one strand has taken and put it in: the rest follows."
        reduce = f"Over the last {self.reduced_mm:g} mm, cut the strands back pair by pair and tuck them in, until two are left."
        close = f"Bend it round the mandrel at {start_words}, bring the last two through the eye and close it."
        return [
            Step(
                "eye", f"{folded}: {self.strands} strands hang from the starting eye.", check="The strands lie side by side, none twisted."
            ),
            Step("braid", f"Braid flat: the outermost strand goes {sides}.", check=rest),
            Step("flatten", "Flatten the braid a little with a mallet, both sides alike.", cautions=("Fingers clear of the mallet.",)),
            Step("reduce", reduce),
            Step("form", close, check="The joint lies flat."),
        ]
