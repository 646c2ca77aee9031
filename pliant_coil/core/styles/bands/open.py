"""Open: the ends cross over at the back and each turns into a small eye; it adjusts either way."""

import math
from collections.abc import Mapping
from typing import Any, ClassVar, Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.bending import force_at_yield_n, opening_at_yield_mm
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import Move, on_circle
from pliant_coil.core.moves.loop import Eye, Scroll
from pliant_coil.core.moves.passing import Course
from pliant_coil.core.moves.placed import EndCare, Piece, Placed
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.handed_on import Form, FormedBand, Joined, Opening, SizedBy, Slot, Top, Warn, Wires
from pliant_coil.core.styles.parameters import WireSpec, choice, degrees, millimetres
from pliant_coil.core.styles.strips import Strip, StripParameters, strip_tasks
from pliant_coil.core.styles.tasks import Check, Phase, Task, look
from pliant_coil.core.trade.sizes import MandrelMark, Size
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Article, Length, Share, Thickness, Tolerance
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

HOLDS_FROM_N = 0.35
"""Pull at the ends that an open band should stand: what makes 1.0 mm soft copper just enough and 0.8 not (common practice, no source)."""
RISE_MM = 8.0
"""Over how much of its way the upper end rises before it crosses (common practice, no source)."""


@dataclass(frozen=True)
class Reach:
    """How far an end goes past the middle of the back [mm], and where that is seen from behind, as a share of the ring's half width."""

    mm: float
    share: float


class Open(BandStyle):
    """One wire round the finger with its ends crossed at the back, an eye on each."""

    title: ClassVar[str] = "Open"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="1 mm")}
    main_role: ClassVar[str] = "band"
    stretches_us: ClassVar[float] = 0.0
    style: Literal["open"] = choice("open", "Band")
    overlap_mm: float = millimetres(6.0, "Overlap at the back", 2, 25, "From eye to eye, how far the ends pass each other.")
    end: Literal["eye", "scroll", "plain"] = choice("eye", "Ends in")
    eye_mm: float = millimetres(1.5, "Eye, inside", 0.8, 5)
    eye_lies: Literal["outwards", "flat"] = choice(
        "outwards", "Eyes lie", "Rolled away from the finger, or in the band's own surface.", rare=True
    )
    ends_lie: Literal["crossed", "side-by-side"] = choice("crossed", "Ends lie", rare=True)
    order: Literal["on-mandrel", "eyes-first"] = choice("on-mandrel", "Eyes turned", "After forming, or first from the lengths.", rare=True)
    overlap_min_mm: float = millimetres(2.0, "Overlap when opened", 1, 4, "What must still lie side by side.", rare=True)
    eye_limit_deg: float = degrees(55.0, "Eyes may come up to", 40, 75, "From the back, before they ride up the finger's sides.", rare=True)
    harden: Literal["none", "tap", "flatten"] | None = choice(None, "Hardened", "By what the wire needs unless given.", rare=True)
    worked: StripParameters | None = choice(None, "Worked flat and twisted", rare=True)

    def centre_line_mm(self, inside_mm: float, wires: Wires) -> float:
        return inside_mm / 2 + Strip.of(wires["band"], self.worked).stands_mm

    def tops(self) -> frozenset[Top]:
        return frozenset({Top.THROUGH})

    def check(self, target_mm: float, wires: Wires) -> None:
        wire = wires["band"]
        if self.worked:
            self.worked.check(wire, "band.worked")
        radius = target_mm / 2 + wire.centroid_mm
        if self.overlap_mm < self.overlap_min_mm:
            refuse("band.overlap_mm", "the ends wouldn't pass each other", say("at least {least}", least=Thickness(self.overlap_min_mm)))
        most = 2 * math.radians(self.eye_limit_deg) * radius
        if self.overlap_mm > most:
            refuse(
                "band.overlap_mm",
                "the eyes come up the sides of the finger",
                say("up to {most} at this size", most=Length(math.floor(most))),
            )

    def _end_mm(self, wire: Wire) -> float:
        """Wire of an end beyond the overlap."""
        if self.end == "eye":
            return math.pi * (self.eye_mm + wire.size_mm)
        return 0.0 if self.end == "plain" else self._scroll(wire, (0, 0, 0), (1, 0, 0), (0, 1, 0)).length_mm

    def _scroll(self, wire: Wire, at: Point3, along: Point3, towards: Point3) -> Scroll:
        return Scroll("scroll", 0.6 * wire.width_mm, 1.15 * wire.width_mm, 1.5, at, along, towards)

    def reach(self, radius_mm: float, wire: Wire) -> Reach:
        """Where each end is cut, before it is rolled."""
        mm = self.overlap_mm / 2 + self._end_mm(wire)
        return Reach(mm, math.sin(min(math.pi / 2, mm / radius_mm)))

    def form(self, form: Form, wires: Wires, opening: Opening) -> FormedBand:
        wire = wires["band"]
        strip = Strip.of(wire, self.worked)
        inside = form.diameter_mm
        radius = inside / 2 + strip.stands_mm
        foot, lane = opening.foot_rad, strip.lane_mm
        moves: list[Placed] = []
        for side, sign, over in (("left", -1, False), ("right", 1, True)):
            way = self._half(strip, radius, foot=foot, sign=sign, over=over)
            half = [Placed(f"{side}.{n}", m, worked=strip.worked, backwards=side == "left") for n, m in way]
            moves = [*reversed(half)] if side == "left" else [*moves, *half]
        eye = self._end_mm(wire)
        # Metal on the finger is wide at the crossing only, never by its eyes.
        width = 2 * lane if self.ends_lie == "side-by-side" else lane
        return FormedBand(
            form=form,
            pieces=(Piece("band.1", "band", wire, tuple(moves), ends=(EndCare.CUT, EndCare.CUT)),),
            inside_mm=inside,
            strands=1,
            width_mm=width,
            thickness_mm=2 * strip.stands_mm if self.worked else wire.height_mm,
            strand_z=lambda _: (0.0,),
            strand_wire=strip.wire,
            strand_height_mm=strip.wire.height_mm,
            slots=(Slot("band.1", len(moves) // 2, 0, on_circle(radius, -foot, 0.0), on_circle(radius, foot, 0.0)),),
            joined=Joined.OPEN,
            sized_by=SizedBy.OVERLAP,
            facts=(strip, self.reach(radius, wire), eye),
        )

    def _half(self, strip: Strip, radius: float, *, foot: float, sign: int, over: bool) -> list[tuple[str, Move]]:
        """From the top to one end: both halves come down on the same side and cross, one over the other."""
        lane, rise = strip.lane_mm, strip.wire.height_mm
        lap = self.overlap_mm / 2 / radius
        begin = math.pi - lap - RISE_MM / radius
        aside = -lane / 2 if self.ends_lie == "crossed" else sign * -lane / 2
        arc = Arc(
            "to the back",
            radius,
            sign * foot,
            sign * (begin - foot),
            0.0,
            aside,
            mark="middle" if sign > 0 and not foot else "",
            host="the mandrel",
        )
        points = []
        steps = 36
        whole = RISE_MM + 2 * lap * radius
        angle = begin
        for k in range(steps + 1):
            gone = whole * k / steps
            out = rise * (1 - math.cos(math.pi * min(1.0, gone / RISE_MM))) / 2 if over and self.ends_lie == "crossed" else 0.0
            # The overlap is measured along the wire: on the other end it comes a little less far round.
            angle += whole / steps / (radius + out) if k else 0.0
            crossed = max(0.0, min(1.0, (gone - RISE_MM) / (2 * lap * radius)))
            z = aside + (lane * crossed if self.ends_lie == "crossed" else 0.0)
            points.append(on_circle(radius + out, sign * angle, z))
        course = Course("crossed" if over else "cross under", lambda: points, Say("past the middle of the back: the length of the curve"))
        found: list[tuple[str, Move]] = [("arc", arc), ("lap", course)]
        ending = self._ending(strip, points[-1], sign * angle, sign)
        return [*found, ("eye", ending)] if ending else found

    def _ending(self, strip: Strip, at: Point3, angle: float, sign: int) -> Move | None:
        along = (sign * math.cos(angle), -sign * math.sin(angle), 0.0)
        outwards = (math.sin(angle), math.cos(angle), 0.0)
        aside = (0.0, 0.0, 1.0 if at[2] > 0 else -1.0)
        towards = outwards if self.eye_lies == "outwards" else aside
        if self.end == "eye":
            return Eye("eye", self.eye_mm, strip.wire.size_mm, at, along, towards)
        return self._scroll(strip.wire, at, along, towards) if self.end == "scroll" else None

    def range_mm(self, inside_mm: float, wire: Wire) -> tuple[float, float]:
        """Inside diameters that it can be closed and opened to."""
        most = 2 * math.radians(self.eye_limit_deg) * (inside_mm / 2 + wire.centroid_mm)
        return inside_mm - max(0.0, most - self.overlap_mm) / math.pi, inside_mm + max(0.0, self.overlap_mm - self.overlap_min_mm) / math.pi

    def adjusts_mm(self, band: FormedBand) -> tuple[float, float] | None:
        return self.range_mm(band.inside_mm, band.strand_wire)

    def gives_mm(self, band: FormedBand) -> float | None:
        wire = band.strand_wire
        if wire.profile.name != "round":
            return None
        modulus = wire.metal.youngs_modulus_mpa
        return opening_at_yield_mm(band.radius_mm, wire.size_mm, youngs_modulus_mpa=modulus, yield_mpa=wire.yield_mpa)

    def hardening(self, radius_mm: float, wire: Wire) -> Literal["none", "tap", "flatten"]:
        """What the wire needs so that the band holds."""
        if self.harden is not None:
            return self.harden
        if wire.profile.name != "round" or force_at_yield_n(radius_mm, wire.size_mm, wire.yield_mpa) >= HOLDS_FROM_N:
            return "none"
        return "tap" if wire.metal.coated or wire.size_mm >= 0.9 else "flatten"

    def advise(self, band: FormedBand, opening: Opening) -> list[Warn]:
        wire = band.pieces[0].wire
        found = []
        least = wire.height_mm * (1.5 if wire.temper != "soft" or wire.size_mm >= 1.2 else 1.0)
        if self.end == "eye" and self.eye_mm < least - 1e-9:
            text = say(
                "{wire} {temper} wire won't close round {eye}: {least} inside, or more.",
                wire=wire.gauge,
                temper=wire.temper,
                eye=Article(Thickness(self.eye_mm)),
                least=Thickness(least),
            )
            found.append(Warn("eye-too-small", text, "band.eye_mm"))
        stands = self.eye_mm + 2 * wire.height_mm
        if self.end == "eye" and self.eye_lies == "outwards" and stands > 4.5:
            text = say("Eyes that stand {stands} off the back press on the next finger.", stands=Length(stands))
            found.append(Warn("eye-stands-out", text, "band.eye_mm"))
        if self.overlap_mm < self.overlap_min_mm + 1:
            found.append(Warn("no-room-to-open", Say("It can't be opened at all without a gap."), "band.overlap_mm"))
        if self.hardening(band.radius_mm, wire) != "none" and self.harden is None:
            text = say(
                "{wire} {words} gives way before an everyday pull: it is hardened in a step, or take a thicker or harder wire.",
                wire=wire.gauge,
                words=f"{wire.temper} {wire.metal.name}",
            )
            found.append(Warn("band-flimsy", text, "wires.band.diameter"))
        return found

    def phrase(self) -> Say:
        worked = self.worked.phrase() if self.worked else Say("")
        return say("open at the back with {overlap} of overlap{worked}", overlap=Length(self.overlap_mm), worked=worked)

    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        strip, reach, _ = band.facts
        wire = band.pieces[0].wire
        radius = band.radius_mm
        size = MandrelMark(band.form.diameter_mm)
        held = "the head" if opening.foot_rad else "the middle mark"
        tasks = strip_tasks(self.worked, strip, band.pieces[0])
        flat = Say("Air at the sides: nylon pliers, or form it one mark smaller and bring it up again.")
        form = Task(
            "form",
            Phase.FORM,
            say(
                "Hold {held} at the top of the mandrel at {size}, bring both ends round hard against it and cross them at the back.",
                held=held,
                size=size,
            ),
            makes=("left.arc", "right.arc", "left.lap", "right.lap"),
            checks=(Check(Say("No air between wire and mandrel, both sides level."), flat),),
        )
        cut = Task(
            "cut-to-overlap",
            Phase.TRIM,
            say(
                "Draw tight and look straight at the back: cut each end {reach} past its middle, {share} of the way to the mandrel's edge.",
                reach=Length(reach.mm),
                share=Share(reach.share),
            ),
            checks=(
                Check(
                    say("Both reach equally far, within {off}.", off=Tolerance(1)),
                    Say("One too short: roll a smaller eye on both. Too long: take a sliver off."),
                ),
            ),
            cautions=(cautions.CUT,),
            stage="cut",
        )
        eyes = self._eyes()
        tasks += [*eyes, form] if self.order == "eyes-first" else [form, cut, *eyes]
        low, high = self.range_mm(band.inside_mm, wire)
        tasks.append(
            Task(
                "size",
                Phase.TRIM,
                say("Back on the mandrel at {size}: squeeze or pull until it lies there.", size=size),
                checks=(
                    Check(say("The ends pass each other by {overlap}, within {off}.", overlap=Length(self.overlap_mm), off=Tolerance(1))),
                ),
            )
        )
        tasks += self._hardening_tasks(radius, wire)
        tasks.append(
            Task(
                "range",
                Phase.ROUND,
                say("Open it to {high}, close it to {low}, and bring it back to {size}.", high=Size(high), low=Size(low), size=size),
                checks=(look("No eye comes up the side of the finger, none touches the head."),),
            )
        )
        return tasks

    def _eyes(self) -> list[Task]:
        if self.end == "plain":
            return [Task("ends", Phase.TRIM, Say("Round both ends with a file or emery."), checks=(look("No edge is felt."),))]
        shape = "eye" if self.end == "eye" else "scroll"
        away = "away from the finger" if self.eye_lies == "outwards" else "to the side, in the band's own surface"
        says = say(
            f"Round-nose pliers at the very end, nothing felt past the jaws, where they are {{eye}} thick: roll {away} until the {shape} shuts. "
            "The other end the same.",
            eye=Thickness(self.eye_mm),
        )
        phase = Phase.FLAT if self.order == "eyes-first" else Phase.TRIM
        shut = Check(
            Say(f"Two {shape}s, alike and shut, no sharp tip."), Say("A gap: close it with chain-nose pliers. Egg-shaped: roll it again.")
        )
        return [Task("eyes", phase, says, makes=("left.eye", "right.eye"), checks=(shut,), count=2)]

    def _hardening_tasks(self, radius: float, wire: Wire) -> list[Task]:
        how = self.hardening(radius, wire)
        if how == "none":
            return []
        if how == "tap" or wire.metal.coated:
            says = Say("Harden it: tap sides and back all the way round on the mandrel with a soft mallet, turning it; not on the head.")
        else:
            says = say(
                "Harden it: on a block, flatten the last {end} before each eye to {thick}.",
                end=Length(15),
                thick=Thickness(0.75 * wire.size_mm),
            )
        return [
            Task(
                "harden",
                Phase.ROUND,
                says,
                checks=(look(say("Opened by {little} it springs back.", little=Tolerance(1))),),
                cautions=(cautions.HAMMER,),
                stage="harden",
            )
        ]

    @classmethod
    def from_version_1(cls, band: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        band.setdefault("overlap_mm", 12)
        band.setdefault("eye_mm", 2)
        return band
