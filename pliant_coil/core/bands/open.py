"""Open: the ends cross over at the back and each turns into a small eye; it adjusts either way."""

import math
from collections.abc import Mapping
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.bands.base import BandStyle, springback
from pliant_coil.core.finish import Finish
from pliant_coil.core.heads.base import HeadStyle
from pliant_coil.core.moves import Eye, Move
from pliant_coil.core.moves.turns import Turns
from pliant_coil.core.refusal import refuse
from pliant_coil.core.sizes import US_STEP_MM
from pliant_coil.core.steps import Step
from pliant_coil.core.wires import FormedRing, WireRun, Wires, WireSpec

LEAST_OVERLAP_MM = 2.0
"""What must still lie side by side when the ring is opened (common practice, no source)."""
THIN_MM = 1.0
"""Open bands of soft wire thinner than this need hammering to hold (common practice, no source)."""
CLOSING_MM = 8.0
"""How much further the ends may slide before they ride up the sides of the finger (common practice, no source)."""


class Open(BandStyle):
    """One wire round the finger with its ends side by side at the back, an eye on each."""

    title: ClassVar[str] = "Open"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="1 mm")}
    main_role: ClassVar[str] = "band"
    style: Literal["open"] = Field("open", title="Band")
    overlap_mm: float = Field(12.0, title="Overlap at the back", ge=4, le=25, json_schema_extra={"unit": "mm"})
    eye_mm: float = Field(2.0, title="Eye, inside", ge=0.8, le=5, json_schema_extra={"unit": "mm"})

    @property
    def opens_us(self) -> float:
        """US sizes that it can be opened by."""
        return (self.overlap_mm - LEAST_OVERLAP_MM) / math.pi / US_STEP_MM

    @property
    def closes_us(self) -> float:
        """US sizes that it can be closed by."""
        return CLOSING_MM / math.pi / US_STEP_MM

    def form(self, form_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> FormedRing:
        wire = wires["band"]
        width = wire.profile.width_mm
        radius = form_diameter_mm / 2 + wire.profile.centroid_mm
        half = self.overlap_mm / 2 / radius
        # From the back all the way round to the back: the angles of one overlap's half before and after the bottom.
        first, last = math.pi - half, 3 * math.pi + half
        step = math.radians(15)
        around = Turns("once round", radius, first, last - first, -width / 2, width, step, mark="middle", mark_share=0.5)
        moves: tuple[Move, ...] = (
            Eye("eye", self.eye_mm, width, radius, first, -width / 2, -1.0),
            around,
            Eye("eye", self.eye_mm, width, radius, last, around.z_to_mm, 1.0),
        )
        band = 2 * width + 2 * (self.eye_mm + width)
        shifts = (springback(form_diameter_mm, wire),)
        return FormedRing(form_diameter_mm, (WireRun(wire, moves),), shifts, (), 1, band, wire.profile.height_mm)

    def check(self, inside_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> None:
        if wires["band"].profile.width_mm > self.eye_mm + 1.5:
            refuse("band.eye_mm", "this wire won't turn round so small an eye", f"at least {wires['band'].profile.width_mm - 1.5:.1f} mm")

    def phrase(self) -> str:
        return f"open at the back with {self.overlap_mm:g} mm overlap"

    def forming(self, start_words: str, formed: FormedRing, head: HeadStyle) -> list[Step]:
        wire = formed.runs[0].wire
        thin, soft = wire.profile.size_mm < THIN_MM, wire.temper == "soft"
        harden = "Tap the band all the way round on the mandrel with a soft mallet" if soft else "Tap it lightly on the mandrel"
        if thin and soft:
            harden = (
                "Wire this thin bends out of shape in wear: flatten it a little all the way round with a hammer, and tap it on the mandrel"
            )
        adjusts = f"It adjusts by {self.opens_us:.1f} US sizes up and {self.closes_us:.1f} down."
        return [
            Step(
                "form",
                "Turn each end into an eye at round-nose pliers, the two facing away from each other.",
                count=2,
                check="Both eyes are closed and alike.",
            ),
            Step(
                "form",
                f"Hold the middle mark at the top of the mandrel at {start_words} and bring both ends round to cross at the back.",
                check=adjusts,
            ),
            Step("harden", f"{harden} until the band keeps its shape."),
        ]
