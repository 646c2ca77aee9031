"""Stacked: rings sawn from one coil, soldered shut, hammered flat, and soldered side by side part of the way round."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar, Literal

from pliant_coil.core.mechanics.hammering import lengthened, oval_round_mm
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import Cause, on_circle
from pliant_coil.core.moves.grip import Spare, saw
from pliant_coil.core.moves.placed import EndCare, Fate, Piece, Placed, Worked
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.contract import (
    BandStyle,
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
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.mandrels import TAPER
from pliant_coil.core.trade.sizes import US_STEP_MM, Size
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Count, Degrees, Length, Number, Thickness, number_words
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

SAWN = Cause("saw-closed", "the saw cut closed up")
HAMMERED = Cause("hammered-open", "hammering flat opens it")
TRUED = Cause("trued-up", "trued up on the mandrel")
START_MM = 10.0
"""Of wire bent to the mandrel's curve before coiling, waste (common practice, no source)."""


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
        for k, z in enumerate(lanes):
            seam = 0.0 if self.seams == "top" else math.radians(60) * (1 if k % 2 else -1)
            if opening.foot_rad:
                # A head in the tops of all rings: each comes round from its right foot to its left one.
                seam = opening.foot_rad
            turn = Arc("ring", radius, seam, 2 * math.pi - 2 * opening.foot_rad, z, z, host="the mandrel")
            moves.append(Placed(f"ring.{k + 1}", turn, worked=worked))
            if opening.foot_rad:
                slots.append(Slot("band.1", len(moves), k, on_circle(radius, -seam, z), on_circle(radius, seam, z)))
            if self.kerf_mm:
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
            facts=ring,
        )

    def _soldered(self, opening: Opening) -> float:
        """How much of the way round is soldered [rad]: a head in the tops may ask for more of them."""
        return 2 * math.pi - 2 * opening.foot_rad if opening.foot_rad else math.radians(self.soldered_deg)

    def stack(self, form_mm: float, wires: Wires) -> Stack:
        ring = self.through(form_mm, wires["band"])
        least = LEAST_SOLDER_MM / (ring.finished_mm / 2)
        return Stack(ring.finished_mm, ring.thick_mm, ring.wide_mm, self.rings, math.radians(self.soldered_deg), least)

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
        arc = self._soldered(opening) * (band.inside_mm + ring.wide_mm) / 2
        if arc < LEAST_SOLDER_MM and self.rings > 1:
            found.append(Warn("solder-short", say("{arc} of solder hardly hold a stack.", arc=Length(arc)), "band.soldered_deg"))
        return found

    def phrase(self) -> Say:
        return Say("one soldered ring") if self.rings == 1 else say("{rings} rings soldered side by side", rings=number_words(self.rings))

    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        wire = band.pieces[0].wire
        return [
            *self._coiling(band, wire),
            *self._closing(band, wire),
            *(self._stacking(band, opening) if self.rings > 1 else []),
            *self._finishing(band, opening),
        ]

    def _coiling(self, band: FormedBand, wire: Wire) -> list[Task]:
        ring: Hammered = band.facts
        start = Size(ring.coiled_mm)
        low = ring.coiled_mm - self.wound_down_us * US_STEP_MM
        turns = (self.rings + 0.25) * (ring.coiled_mm + wire.size_mm) / (low + wire.size_mm)
        rings = tuple(f"ring.{k + 1}" for k in range(self.rings))
        ends = (self.rings - 1) * wire.size_mm * TAPER
        coil = say(
            "Bend the first {start_mm} to the mandrel's curve with half-round pliers; wind {turns} turns at {low}, close.",
            start_mm=Length(START_MM),
            turns=Number(turns, 2),
            low=Size(low),
        )
        push = say(
            "Push the coil up the taper, turning with its lay, until its middle turn lies at {start}; turn it end for end, and again.",
            start=start,
        )
        tasks = [
            Task(
                "coil",
                Phase.FLAT,
                coil,
                makes=("start", *rings, "lap"),
                checks=(look("No gaps between the turns."),),
                cautions=(cautions.WHIP,),
                count=self.rings,
            ),
        ]
        if self.wound_down_us:
            tasks.append(
                Task(
                    "push-up",
                    Phase.FLAT,
                    push,
                    checks=(
                        Check(
                            say(
                                "Its middle reads {start}; its ends {apart} apart in diameter, for the mandrel tapers.",
                                start=start,
                                apart=Thickness(ends),
                            ),
                            Say("Turns gape: push them together, half a size down, and up again."),
                        ),
                    ),
                    stage="coil",
                )
            )
        saw_words = Say(
            "Mark one line along the coil, hold it in wood or leather, and saw through every turn: not cutters, they pinch the ends."
        )
        tasks.append(
            Task(
                "saw",
                Phase.FORM,
                saw_words,
                makes=tuple(f"saw.{k + 1}" for k in range(self.rings)) if self.kerf_mm else (),
                checks=(Check(say("{rings}.", rings=Count(self.rings, "ring", "rings"))),),
                cautions=(cautions.SAW,),
                count=self.rings,
            )
        )
        return tasks

    def _closing(self, band: FormedBand, wire: Wire) -> list[Task]:
        ring: Hammered = band.facts
        n = self.rings
        tasks = [
            Task(
                "fit",
                Phase.FORM,
                Say("Push each ring's ends past each other and back, so that they spring together with their faces flush."),
                checks=(look("Held against the light, no gap: solder doesn't fill one.", "Saw through the closed joint once more."),),
                count=n,
                stage="form",
            ),
            Task(
                "seam",
                Phase.FORM,
                Say(
                    "Flux, and one chip of hard solder on each seam. Warm the whole ring first, then the joint, a pick in hand; solder runs to the hotter side. "
                    "Quench when it is dark, pickle, rinse."
                ),
                checks=(look("The seam is filled on both faces and inside.", "On one side only: heat the other until it flows across."),),
                cautions=(cautions.TORCH, cautions.FLUX, cautions.PICKLE, cautions.DEFER),
                count=n,
                stage="solder",
            ),
            Task("true", Phase.FORM, Say("True each ring on the mandrel with a soft mallet."), count=n, stage="round"),
        ]
        if self.hammered_share:
            flat = say(
                "Hammer each ring flat from {thick} to {thin}: ring on the edge of a flat stake, half of it over the edge in your fingers, turning a little at "
                "each blow, then over. It opens.",
                thick=Thickness(wire.size_mm),
                thin=Thickness(ring.thick_mm),
            )
            check = Check(
                say("{thin} at four places, and the mandrel reads {opened}.", thin=Thickness(ring.thick_mm), opened=Size(ring.opened_mm)),
                Say("One small: a few blows more. One large: it sets the size, bring the others to it."),
            )
            tasks.append(Task("hammer", Phase.FORM, flat, checks=(check,), cautions=(cautions.HAMMER,), count=n, stage="flatten"))
        if self.true_up_mm:
            tasks.append(
                Task(
                    "true-up",
                    Phase.FORM,
                    say("True each ring up to {size} on the mandrel with a soft mallet, turned end for end.", size=Size(ring.finished_mm)),
                    checks=(look("All rings lie at one mark."),),
                    count=n,
                    stage="round",
                )
            )
        return tasks

    def _stacking(self, band: FormedBand, opening: Opening) -> list[Task]:
        ring: Hammered = band.facts
        arc = self._soldered(opening) * (band.inside_mm + ring.wide_mm) / 2
        place = "in line at the top" if self.seams == "top" else "spread, none at the back"
        chips = max(1, round(arc * (ring.wide_mm - ring.thick_mm) * 0.1))
        return [
            Task(
                "faces",
                Phase.FORM,
                say("Rub each flat face on abrasive on a flat plate until it is bright all over, {off} off.", off=Thickness(self.faces_mm)),
                checks=(look("Two stacked rings let no light through at the back."),),
                cautions=(cautions.GRIND,),
                count=2 * self.rings,
                stage="faces",
            ),
            Task(
                "tie",
                Phase.FORM,
                Say(
                    f"Mark the seams with a pen and stack the rings with them {place}. Tie them with soft steel wire at both ends of what will be soldered, snug, not tight."
                ),
                stage="tie",
            ),
            Task(
                "solder",
                Phase.FORM,
                say(
                    "Flux {arc} round the back, {angle}, and nowhere else: solder stops about where flux stops. Lay {chips} of medium solder on each joint, which "
                    "melts before the seams; easy is kept for later. Warm until the chips ball and sit, then heat all evenly until each joint flashes.",
                    arc=Length(arc),
                    angle=Degrees(self._soldered(opening)),
                    chips=Count(chips, "small chip", "small chips"),
                ),
                checks=(
                    look(
                        "Each joint is filled on both faces, and no further than the flux.",
                        "A dry joint: cool, flux, one chip, the flame from the other side.",
                    ),
                ),
                cautions=(cautions.TORCH, cautions.FLUX),
                count=self.rings - 1,
            ),
            Task(
                "clean",
                Phase.FORM,
                Say("Let it cool, take the steel ties off, then pickle and rinse."),
                checks=(look("Looked at inside, solder is seen all through."),),
                cautions=(cautions.PICKLE, cautions.DEFER),
                stage="pickle",
            ),
            Task(
                "shank",
                Phase.ROUND,
                say(
                    "File and smooth the back as one, {filed} off its outside, the inside with a half-round file; nothing off the top yet.",
                    filed=Thickness(self.shank_filed_mm),
                ),
                cautions=(cautions.GRIND,),
                stage="shape the shank",
            ),
            *self._opened_tops(opening),
        ]

    def _opened_tops(self, opening: Opening) -> list[Task]:
        if opening.foot_rad:
            # A head in the tops has parted them.
            return []
        says = say("Part the tops evenly, {free} of them free of solder.", free=Degrees(2 * math.pi - self._soldered(opening)))
        return [Task("open-tops", Phase.ROUND, says, stage="open")]

    def _finishing(self, band: FormedBand, opening: Opening) -> list[Task]:
        return [
            Task(
                "finish",
                Phase.ROUND,
                Say("Finish it: file, emery from coarse to fine, rubber wheel, and the tumbler if you have one."),
                checks=(reads(0.1, Say("Small: stretch it on the mandrel, 2 % of the way round at most.")),),
                cautions=(cautions.GRIND,),
                stage="finish",
            )
        ]

    @classmethod
    def from_version_1(cls, band: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        band.setdefault("rings", 5)
        band.setdefault("true_up_mm", 0)
        band.setdefault("faces_mm", 0)
        wires = document.setdefault("wires", {})
        if isinstance(wires, dict) and isinstance(given := wires.setdefault("band", {}), dict):
            given.setdefault("diameter", "1.6 mm")
        return band
