"""Crossed: two turns, the second crossing the first at the back, so that the underside shows an X."""

import math
from collections.abc import Mapping
from typing import Any, ClassVar, Literal

from pliant_coil.core.mechanics.bending import bending_moment
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import Cause, Move, on_circle
from pliant_coil.core.moves.crossing import Crossing
from pliant_coil.core.moves.placed import Piece, Placed
from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.gathering import Gather, Winding, bind_early, check_gather, early_wraps, gathering, with_early
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, Opening, Side, Slot, Top, Wires, usual_shoulder_rad
from pliant_coil.core.styles.parameters import WireSpec, choice, millimetres, number
from pliant_coil.core.styles.strips import Strip, StripParameters, strip_tasks
from pliant_coil.core.styles.tasks import Phase, Task, look, reads
from pliant_coil.core.trade.sizes import MandrelMark
from pliant_coil.core.words.figures import Tolerance
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

CROSSING = Cause("crossing-lifts", "the crossing presses the underside in")


class Crossed(BandStyle):
    """Two strands, each changing to the other's side at the back."""

    title: ClassVar[str] = "Crossed"
    hides_splice = "beside the first lock, where the head covers both ends"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="20 AWG")}
    main_role: ClassVar[str] = "band"
    style: Literal["crossed"] = choice("crossed", "Band")
    crossing_mm: float = millimetres(8.0, "Crossing", 3, 20, "How far round the back the X reaches.")
    winding: Winding = choice("both-ways", "Winding", "Both ways from the middle, or both turns by one tail.")
    gather: Gather = choice("none", "Bound before the head", "With the short tail, under all turns, or wrapped with the tails.", rare=True)
    gather_wraps: int | None = number(None, "Wraps before the head", 1, 4, rare=True)
    worked: StripParameters | None = choice(None, "Worked flat and twisted", rare=True)

    def centre_line_mm(self, inside_mm: float, wires: Wires) -> float:
        return inside_mm / 2 + Strip.of(wires["band"], self.worked).stands_mm

    def tops(self) -> frozenset[Top]:
        return frozenset({Top.THROUGH, Top.TAILS}) if self.winding == "both-ways" else frozenset({Top.TAILS})

    def gathered(self, opening: Opening) -> Gather:
        """How it is bound before the head is made: as chosen, or as the head asks."""
        return opening.gather if opening.gather and self.gather == "none" else self.gather

    def check(self, target_mm: float, wires: Wires) -> None:
        check_gather(self.gather, self.winding)
        if self.worked:
            self.worked.check(wires["band"], "band.worked")

    def under_head_mm(self, wires: Wires) -> tuple[float, ...]:
        return () if self.winding == "both-ways" else (Strip.of(wires["band"], self.worked).lane_mm / 2,)

    def form(self, form: Form, wires: Wires, opening: Opening) -> FormedBand:
        wire = wires["band"]
        strip = Strip.of(wire, self.worked)
        gather = self.gathered(opening)
        early = early_wraps(gather, self.gather_wraps)
        if not form.locks and not early:
            refuse("finish.wraps_each_side", "a crossed band doesn't hold without a lock", "at least 1 wrap each side")
        inside, pitch = form.diameter_mm, strip.lane_mm
        radius = inside / 2 + strip.stands_mm
        shoulder = opening.shoulder_rad if opening.shoulder_rad is not None else usual_shoulder_rad(radius, strip.wire)
        moves, slot, ends = self._laid(strip, opening, radius, shoulder)

        def strand_z(_: float) -> tuple[float, ...]:
            return (-pitch / 2, pitch / 2)

        bound, ends, ledger = bind_early(gather, early, ends, strip, inside, strand_z)
        placed, slot = with_early(moves, slot, bound)
        return FormedBand(
            form=form,
            pieces=(Piece("band.1", "band", wire, tuple(placed)),),
            inside_mm=inside,
            strands=2,
            width_mm=pitch + strip.wire.width_mm,
            thickness_mm=2 * strip.stands_mm if self.worked else wire.height_mm,
            strand_z=strand_z,
            strand_wire=strip.wire,
            strand_height_mm=strip.wire.height_mm,
            ends=tuple(ends),
            slots=(slot,),
            ledger=ledger,
            tied=True,
            facts=strip,
        )

    def _laid(self, strip: Strip, opening: Opening, radius: float, shoulder: float) -> tuple[list[Placed], Slot, list[End]]:
        """Clockwise all the way: the first turn comes in where the second goes out, so both meet in one lane at the top."""
        pitch, foot = strip.lane_mm, opening.foot_rad
        half = self.crossing_mm / 2 / radius
        both = self.winding == "both-ways"
        low, high = -pitch / 2, pitch / 2
        # A tail that nothing leads across comes over the top by itself, to the edge where it will wrap.
        out = low if opening.across else low - pitch
        arrive = shoulder if opening.across else -shoulder
        thick = strip.wire.height_mm
        pressed = self._pressed_mm(strip)

        def arc(label: str, start: float, end: float, z_from: float, z_to: float, mark: str = "") -> Arc:
            return Arc(label, radius, start, end - start, z_from, z_to, mark=mark, host="the mandrel")

        def cross(z_from: float, z_to: float, over: bool) -> Crossing:
            words = "cross over" if over else "cross under"
            return Crossing(words, radius, math.pi - half, 2 * half, thick, z_from, z_to, over, pressed, CROSSING)

        last = 2 * math.pi - foot if not both and opening.across else 2 * math.pi - arrive
        first_turn: list[Move] = [
            arc("to the back", arrive, math.pi - half, out, low),
            cross(low, high, over=False),
            arc("from the back", math.pi + half, 2 * math.pi - foot if both else 2 * math.pi, high, high),
        ]
        second_turn: list[Move] = [
            arc("to the back", foot if both else 0.0, math.pi - half, high, high, mark="middle" if both and not foot else ""),
            cross(high, low, over=True),
            arc("from the back", math.pi + half, last, low, out if both or not opening.across else low),
        ]
        names = ("to", "x", "from")
        placed = [Placed(f"first.{n}", m, worked=strip.worked) for n, m in zip(names, first_turn, strict=True)]
        placed += [Placed(f"second.{n}", m, worked=strip.worked) for n, m in zip(names, second_turn, strict=True)]

        def end(which: Literal["first", "last"], side: Side, angle: float, z: float, name: str = "") -> End:
            return End("band.1", which, side, 0, on_circle(radius, angle, z), strip.wire, "band", name or side)

        sides: tuple[Side, Side] = ("right", "left") if opening.across else ("left", "right")
        ends = [end("first", sides[0], arrive, out)]
        if both or not opening.across:
            ends.append(end("last", sides[1], -arrive, out))
            slot = Slot("band.1", 3, 0, on_circle(radius, -foot, high), on_circle(radius, foot, high))
        else:
            slot = Slot("band.1", 6, 0, on_circle(radius, -foot, low), on_circle(radius, foot, low))
            ends.append(end("last", "right", foot, low, "long"))
        return placed, slot, ends

    def _pressed_mm(self, strip: Strip) -> float:
        """How far the upper strand presses the lower one towards the finger when the ring comes off.

        The upper strand's hump, a wire high over the crossing, springs back by the share M/(EIκ) of its curvature; two
        equal strands share that (docs/handbook.md). It is small: makers start crossed bands at the size.
        """
        wire = strip.wire
        curvature = wire.height_mm * (math.pi / self.crossing_mm) ** 2
        modulus, strength = wire.metal.youngs_modulus_mpa, strip.worked.yield_mpa(wire)
        moment = bending_moment(wire.profile, curvature, modulus, strength)
        return wire.height_mm * moment / (modulus * wire.profile.second_moment_mm4 * curvature) / 2

    def phrase(self) -> Say:
        worked = self.worked.phrase() if self.worked else Say("")
        return say("turned twice and crossed at the back{worked}", worked=worked)

    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        tasks = strip_tasks(self.worked, band.facts, band.pieces[0])
        both = self.winding == "both-ways"
        one_way = "the stone on top of the mandrel" if opening.from_head else "the short tail on the mandrel"
        held = one_way if not both else "the head" if opening.foot_rad else "the middle mark"
        first = (
            "Hold {held} on top of the mandrel at {start} and bring one tail round, to the other lane at the back and up beside the top."
            if both
            else "Hold {held} at {start} and bring the long end round once, to the other lane at the back."
        )
        second = (
            "Bring the other tail round the other way and over the first at the back."
            if both
            else "Go round once more, over the first turn at the back, into the lane where you began."
        )
        start = MandrelMark(band.form.diameter_mm)
        tasks.append(Task("form", Phase.FORM, say(first, held=held, start=start), makes=("first.to", "first.x", "first.from")))
        tasks.append(
            Task(
                "cross",
                Phase.FORM,
                Say(second),
                makes=("second.to", "second.x", "second.from"),
                checks=(
                    look(say("An even X sits at the middle of the back, within {off}.", off=Tolerance(3))),
                    reads(0.1, Say("Otherwise draw both tails, or lay it again.")),
                ),
            )
        )
        early = tuple(p.id for p in band.pieces[0].moves if p.id.endswith("early"))
        gather = self.gathered(opening)
        return tasks + gathering(gather, early_wraps(gather, self.gather_wraps), early)

    @classmethod
    def from_version_1(cls, band: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        finish = document.get("finish")
        if isinstance(finish, dict):
            finish.pop("short_tail", None)
        return band
