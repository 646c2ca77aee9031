"""Stacked: rings sawn from one coil, soldered shut, hammered flat, and soldered side by side part of the way round."""

import math
from collections.abc import Mapping
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.bands.base import BandStyle
from pliant_coil.core.finish import Finish
from pliant_coil.core.hammering import opened_mm, widened_mm
from pliant_coil.core.heads.base import HeadStyle
from pliant_coil.core.moves import Arc, Move, Saw, Spare
from pliant_coil.core.refusal import refuse
from pliant_coil.core.steps import DEFER, Step
from pliant_coil.core.wires import FormedRing, Shift, WireRun, Wires, WireSpec

SAW_CAUSE = "the saw cut closed up"
HAMMER_CAUSE = "hammering flat opens it"
TORCH = (
    f"Move air, tie hair and sleeves back, work on a fireproof surface with water near. {DEFER}",
    "Hot pickle is acid: acid into water, never water into acid; steel binding wire off first; copper or plastic tongs.",
)
HAMMER = ("Fingers clear of the hammer; glasses on.",)


class Stacked(BandStyle):
    """Several closed rings of thick wire, side by side, soldered at the back and open to each other at the top."""

    title: ClassVar[str] = "Stacked"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="1.6 mm")}
    main_role: ClassVar[str] = "band"
    style: Literal["stacked"] = Field("stacked", title="Band")
    rings: int = Field(5, title="Rings", ge=2, le=9)
    hammered_share: float = Field(0.25, title="Hammered flat by", ge=0, le=0.45, description="Share of the thickness, seen from the side.")
    kerf_mm: float = Field(0.3, title="Saw blade", ge=0, le=1, json_schema_extra={"unit": "mm"})
    soldered_deg: float = Field(110.0, title="Soldered round the back", ge=20, le=300, json_schema_extra={"unit": "°"})

    def form(self, form_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> FormedRing:
        wire = wires["band"]
        d = wire.profile.size_mm
        radius = form_diameter_mm / 2 + d / 2
        after = d * (1 - self.hammered_share)
        closed = form_diameter_mm - self.kerf_mm / math.pi
        opened = opened_mm(closed, d, after)
        moves: list[Move] = []
        for k in range(self.rings):
            z = (k - (self.rings - 1) / 2) * d
            moves.append(Arc(f"ring {k + 1}", radius, self._seam_rad(), 2 * math.pi - self.kerf_mm / radius, z, z))
            if self.kerf_mm:
                moves.append(Saw("saw", self.kerf_mm))
        # The coil is cut along its length; what is left over is scrap, never part of a ring.
        lap = radius * math.pi / 2
        moves.append(Spare("lap for the saw", lap, "a quarter of a turn past the last ring, so that the saw cuts all of them"))
        shifts = tuple(Shift(cause, mm) for cause, mm in ((SAW_CAUSE, closed - form_diameter_mm), (HAMMER_CAUSE, opened)) if mm)
        width = widened_mm(wire.profile.area_mm2, math.pi * (closed + d), math.pi * (closed + opened + d), after)
        # A round wire that isn't hammered stays round.
        thickness = width if self.hammered_share else d
        return FormedRing(form_diameter_mm, (WireRun(wire, tuple(moves)),), shifts, (), self.rings, self.rings * after, thickness)

    @staticmethod
    def _seam_rad() -> float:
        """Seams stand at one side, away from the solder at the back and the opening at the top."""
        return math.pi / 2

    def check(self, inside_diameter_mm: float, wires: Wires, head: HeadStyle, finish: Finish) -> None:
        wire = wires["band"]
        if wire.profile.name != "round":
            refuse("wires.band.profile", f"a stack of {wire.profile.name} wire isn't reckoned here", "round")
        if wire.metal.code in ("plated-copper", "gold-filled", "aluminium", "stainless"):
            refuse(
                "wires.band.metal",
                f"{wire.metal.name} can't be hard-soldered on the bench",
                "copper, brass, bronze, sterling or fine silver",
            )

    def phrase(self) -> str:
        return f"{self.rings} rings soldered side by side"

    def forming(self, start_words: str, formed: FormedRing, head: HeadStyle) -> list[Step]:
        free = 360 - self.soldered_deg
        thick = formed.runs[0].wire.profile.size_mm
        arc = math.radians(self.soldered_deg) * (formed.shifted_mm + formed.thickness_mm) / 2
        joined = (
            f"Lay the rings side by side, seams apart from each other and away from the back, and solder them over {arc:.0f} mm, "
            f"{self.soldered_deg:.0f}° round the back, with medium solder, which melts before them. {free:.0f}° stay free at the top."
        )
        steps = [
            Step(
                "form",
                f"Coil the wire round the mandrel at {start_words}, {self.rings} turns and a quarter, side by side.",
                count=self.rings,
                check="The turns touch.",
            ),
            Step(
                "saw",
                f"Saw through the coil once along its length: {self.rings} rings.",
                count=self.rings,
                cautions=("The blade snaps when it is forced: glasses on.",),
            ),
            Step(
                "solder",
                "Close each ring and solder its seam with hard solder, which melts last.",
                count=self.rings,
                check="The solder has run on the inside too.",
                cautions=TORCH,
            ),
            Step("solder", joined, count=self.rings - 1, check="Solder has run along every joint, and not too far.", cautions=TORCH),
        ]
        if self.hammered_share:
            thin = thick * (1 - self.hammered_share)
            flat = f"Hammer each ring flat on the stake, from {thick:.2f} to {thin:.2f} mm seen from the side, by the gauge: it opens."
            check = "All rings are alike on the mandrel, and no thinner than intended."
            steps.insert(3, Step("flatten", flat, count=self.rings, check=check, cautions=HAMMER))
        return steps
