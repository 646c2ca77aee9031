"""Stacked: rings sawn from one coil, soldered shut, hammered flat, and soldered side by side part of the way round."""

import math
from collections.abc import Mapping
from functools import partial
from itertools import pairwise
from typing import Any, ClassVar, Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.hammering import lengthened, oval_round_mm
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import Cause, on_circle
from pliant_coil.core.moves.grip import Spare, saw
from pliant_coil.core.moves.placed import EndCare, Fate, Piece, Placed, Worked
from pliant_coil.core.styles.bands.stacked import steps
from pliant_coil.core.styles.bands.stacked.steps import START_MM
from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.handed_on import (
    Effect,
    Form,
    FormedBand,
    HammeredRing,
    Joined,
    Opening,
    SizedBy,
    Slot,
    Stack,
    Top,
    Warn,
    Wires,
)
from pliant_coil.core.styles.parameters import WireSpec, choice, degrees, millimetres, number
from pliant_coil.core.styles.soldered import Soldered, back_joint, seam_at, seam_of
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Length, Thickness, number_words
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

SAWN = Cause("saw-closed", "the saw cut closed up")
HAMMERED = Cause("hammered-open", "hammering flat opens it")
TRUED = Cause("trued-up", "trued up on the mandrel")


_SEAM_CLEAR_RAD = math.radians(15)
"""From a ring's seam to the solder at the back, where an old seam may open again (common practice, no source)."""
LEAST_SOLDER_MM = 8.0
"""Solder at the back that holds a stack (common practice, no source)."""


@dataclass(frozen=True)
class Hammered:
    """A ring through its stages: inside diameters coiled, closed, hammered; its section after the hammer [mm]."""

    coiled_mm: float
    closed_mm: float
    opened_mm: float
    finished_mm: float
    thick_mm: float
    """Between the flat faces, along the finger."""
    wide_mm: float
    """Radially."""
    turn_mm: float
    """Wire of one turn of the coil."""


class Stacked(BandStyle):
    """Several closed rings of thick wire, side by side, soldered at the back and open to each other at the top."""

    title: ClassVar[str] = "Stacked"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="1.5 mm")}
    main_role: ClassVar[str] = "band"
    stretches_us: ClassVar[float] = 1.0
    style: Literal["stacked"] = choice("stacked", "Band")
    rings: int = number(4, "Rings", 1, 9)
    hammered_share: float = number(0.25, "Hammered flat by", 0, 0.45, "Share of the thickness, seen from the side.")
    kerf_mm: float = millimetres(0.3, "Saw blade", 0, 1, rare=True)
    soldered_deg: float = degrees(110.0, "Soldered round the back", 20, 300)
    stagger_deg: float = degrees(0.0, "Joints end unequally by", 0, 25, rare=True)
    seams: Literal["top", "spread"] = choice("top", "Seams", "All in line at the top, or spread, none at the back.", rare=True)
    true_up_mm: float = millimetres(0.15, "Left to true up", 0, 0.4, "Diameter to be gained on the mandrel.", rare=True)
    faces_mm: float = millimetres(0.03, "Off each face", 0, 0.1, "By abrasive.", rare=True)
    shank_filed_mm: float = millimetres(0.2, "Filed off the shank", 0, 0.5, "Outside, at the back only.", rare=True)
    wound_down_us: float = number(2.0, "Wound smaller by", 0, 4, "US sizes; the coil is then pushed up the taper.", rare=True)

    def tops(self) -> frozenset[Top]:
        return frozenset({Top.THROUGH, Top.CLOSED})

    def check(self, target_mm: float, wires: Wires) -> None:
        wire = wires["band"]
        if wire.profile.name != "round":
            refuse("wires.band.profile", f"a stack of {wire.profile.name} wire isn't reckoned here", "round")
        if not wire.metal.solderable:
            refuse(
                "wires.band.metal",
                f"{wire.metal.name} can't be hard-soldered at the bench",
                "copper, brass, bronze, sterling or fine silver",
            )

    def hammered(self, band: FormedBand) -> HammeredRing | None:
        if not self.hammered_share:
            return None
        wire = band.strand_wire
        stages = self.through(band.form.diameter_mm, wire)
        return HammeredRing(math.pi * stages.closed_mm, wire.size_mm, stages.thick_mm, "hammer")

    def through(self, coiled_mm: float, wire: Wire) -> Hammered:
        """The stages of a ring coiled at this inside diameter."""
        d = wire.size_mm
        t = d * (1 - self.hammered_share)
        closed = coiled_mm - self.kerf_mm / math.pi
        opened = closed * lengthened(d, t)
        wide = oval_round_mm(wire.profile.area_mm2 * math.pi * (closed + d), opened, t) if self.hammered_share else d
        turn = math.hypot(math.pi * (coiled_mm + d), d)
        return Hammered(coiled_mm, closed, opened, opened + self.true_up_mm, t, wide, turn)

    def form(self, form: Form, wires: Wires, opening: Opening) -> FormedBand:
        wire = wires["band"]
        ring = self.through(form.diameter_mm, wire)
        laid = math.pi * (ring.finished_mm + ring.wide_mm)
        inside = ring.finished_mm + (opening.effect.inside_mm if opening.effect else 0.0)
        radius = (inside + ring.wide_mm) / 2
        worked = Worked(
            "hammered",
            ring.thick_mm,
            ring.wide_mm,
            laid / (ring.turn_mm - self.kerf_mm),
            2 / math.sqrt(3) * math.log(wire.size_mm / ring.thick_mm),
        )
        moves = [Placed("start", Spare("start", START_MM, Say("bent to the mandrel's curve first, waste")), fate=Fate.TRIM)]
        slots: list[Slot] = []
        lanes = [(k - (self.rings - 1) / 2) * (ring.thick_mm - 2 * self.faces_mm) for k in range(self.rings)]
        seams = [seam_of(self.seams_rad, k) for k in range(self.rings)]
        for k, z in enumerate(lanes):
            # A head in the tops of all rings: each comes round from its right foot to its left one.
            seam = opening.foot_rad or seams[k]
            turn = Arc("ring", radius, seam, 2 * math.pi - 2 * opening.foot_rad, z, z, host="the mandrel")
            moves.append(Placed(f"ring.{k + 1}", turn, worked=worked))
            if opening.foot_rad:
                slots.append(Slot("band.1", len(moves), k, on_circle(radius, -seam, z), on_circle(radius, seam, z)))
            moves.append(Placed(f"saw.{k + 1}", saw("saw", self.kerf_mm), fate=Fate.KERF))
        lap = ring.turn_mm / 4
        moves.append(
            Placed(
                "lap",
                Spare("lap for the saw", lap, Say("a quarter of a turn past the last ring, so that the saw cuts all of them")),
                fate=Fate.SPARE,
            )
        )
        stages = (
            Effect(SAWN, ring.closed_mm - ring.coiled_mm, phase="work"),
            Effect(HAMMERED, ring.opened_mm - ring.closed_mm, phase="work"),
            Effect(TRUED, self.true_up_mm, phase="round"),
            *((opening.effect,) if opening.effect else ()),
        )
        width = self.rings * (ring.thick_mm - 2 * self.faces_mm)
        return FormedBand(
            form=form,
            pieces=(Piece("band.1", "band", wire, tuple(moves), ends=(EndCare.SAWN, EndCare.SAWN), parts=self.rings),),
            inside_mm=inside,
            strands=self.rings,
            width_mm=width,
            thickness_mm=ring.wide_mm,
            strand_z=lambda _: tuple(lanes),
            strand_wire=wire,
            strand_height_mm=ring.wide_mm,
            slots=tuple(slots),
            effects=tuple(e for e in stages if e.inside_mm),
            joined=Joined.BAND,
            sized_by=SizedBy.MARK,
            tied=True,
            soldered=partial(self._soldered, opening, ring, radius, lanes, seams),
            facts=ring,
        )

    def _soldered(self, opening: Opening, ring: Hammered, radius: float, lanes: list[float], seams: list[float]) -> tuple[Soldered, ...]:
        """Each ring's own seam, unless a head's lane takes it in, and the joints at the back."""
        found = [
            seam_at(radius, seam, z, thick_mm=ring.thick_mm, wide_mm=ring.wide_mm)
            for seam, z in zip(seams, lanes, strict=True)
            if not opening.foot_rad or abs(seam) > opening.foot_rad
        ]
        half, stagger = self.soldered_rad(opening) / 2, math.radians(self.stagger_deg) / 2
        for k, (z0, z1) in enumerate(pairwise(lanes)):
            found.append(back_joint(radius, half + (stagger if k % 2 == 0 else -stagger), (z0 + z1) / 2))
        return tuple(found)

    def soldered_rad(self, opening: Opening) -> float:
        """How much of the way round is soldered [rad]: a head in the tops may ask for more of them."""
        return 2 * math.pi - 2 * opening.foot_rad if opening.foot_rad else math.radians(self.soldered_deg)

    @property
    def seams_rad(self) -> tuple[float, ...]:
        """Where seams stand, from the top: in line in it, or spread to both sides, well clear of the solder at the back."""
        aside = min(math.radians(60), math.pi - math.radians(self.soldered_deg) / 2 - _SEAM_CLEAR_RAD)
        return (0.0,) if self.seams == "top" else (aside, -aside)

    def stack(self, form_mm: float, wires: Wires) -> Stack:
        ring = self.through(form_mm, wires["band"])
        least = LEAST_SOLDER_MM / (ring.finished_mm / 2)
        return Stack(ring.finished_mm, ring.thick_mm, ring.wide_mm, self.rings, math.radians(self.soldered_deg), least, self.seams_rad)

    def start_mm(self, aim_mm: float) -> float:
        share = lengthened(1.0, 1 - self.hammered_share)
        return (aim_mm - self.true_up_mm) / share + self.kerf_mm / math.pi

    def advise(self, band: FormedBand, opening: Opening) -> list[Warn]:
        ring: Hammered = band.facts
        wire = band.pieces[0].wire
        found = []
        if ring.thick_mm < 0.62 * wire.size_mm:
            text = say(
                "Flatter than {limit} the edges of this wire crack: anneal between, or start with a thinner wire.",
                limit=Thickness(0.65 * wire.size_mm),
            )
            found.append(Warn("hammered-thin", text, "band.hammered_share"))
        if 0 < self.hammered_share < 0.05 or (not self.hammered_share and self.rings > 1):
            found.append(
                Warn("joints-weak", Say("Round rings touch along a line only: the solder has little to hold."), "band.hammered_share")
            )
        arc = self.soldered_rad(opening) * (band.inside_mm + ring.wide_mm) / 2
        if arc < LEAST_SOLDER_MM and self.rings > 1:
            found.append(Warn("solder-short", say("{arc} of solder hardly hold a stack.", arc=Length(arc)), "band.soldered_deg"))
        return found

    def phrase(self) -> Say:
        return Say("one soldered ring") if self.rings == 1 else say("{rings} rings soldered side by side", rings=number_words(self.rings))

    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        return steps.tasks(self, band, opening)

    @classmethod
    def from_version_1(cls, band: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        band.setdefault("rings", 5)
        band.setdefault("true_up_mm", 0)
        band.setdefault("faces_mm", 0)
        wires = document.setdefault("wires", {})
        if isinstance(wires, dict) and isinstance(given := wires.setdefault("band", {}), dict):
            given.setdefault("diameter", "1.6 mm")
        return band
