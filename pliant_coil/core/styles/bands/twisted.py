"""Twisted: two to four wires twisted evenly and tapped flat a little; the untwisted ends stay as claws."""

import math
from collections.abc import Mapping
from typing import Any, ClassVar, Literal

from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.twisting import Cord
from pliant_coil.core.moves.base import on_circle
from pliant_coil.core.moves.grip import to_hold
from pliant_coil.core.moves.placed import EndCare, Fate, Piece, Placed, Worked
from pliant_coil.core.moves.straight import Straight
from pliant_coil.core.moves.twist import Twist
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, Opening, Side, SizedBy, Top, Warn, Wires
from pliant_coil.core.styles.parameters import WireSpec, choice, millimetres, number
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.sizes import MandrelMark
from pliant_coil.core.words.figures import Count, Length, Number, Thickness, Tolerance, number_words
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

_CUT_INTO_EACH_OTHER = 1.3
"""Cord tapped below so many wire diameters has its strands cut into each other (common practice, no source)."""


class Twisted(BandStyle):
    """A cord round the finger, open at the top, whose wires' ends stand up as claws."""

    title: ClassVar[str] = "Twisted"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="1 mm")}
    main_role: ClassVar[str] = "band"
    stretches_us: ClassVar[float] = 0.5
    style: Literal["twisted"] = choice("twisted", "Band")
    wires: int = number(2, "Wires", 2, 4)
    lay_mm: float = millimetres(6.0, "One full turn in", 1.5, 40, "The lay: length of one full turn.")
    full_turns: int | None = number(None, "Full turns in all", 1, 60, "Instead of the lay: it follows from the band's length.", rare=True)
    direction: Literal["right", "left"] = choice("right", "Twisted to the")
    tapped_share: float = number(0.1, "Tapped flat by", 0, 0.35, "Share of the cord's thickness; 0 leaves it round.")
    head_gap_mm: float = millimetres(8.0, "Open at the top", 0, 25, bare=True)
    claw_mm: float = millimetres(15.0, "Claws", 0, 60, "Length of each untwisted end.", bare=True)
    grip_mm: float = millimetres(12.0, "Held by the vise", 8, 25, "What stays untwisted at each end at least.", rare=True)
    twister: Literal["vise", "drill"] = choice("vise", "Twisted with", rare=True)

    def tops(self) -> frozenset[Top]:
        return frozenset({Top.GAP})

    def ends_each_side(self) -> int:
        return self.wires

    def centre_line_mm(self, inside_mm: float, wires: Wires) -> float:
        return inside_mm / 2 + self._thick_mm(self.cord(math.pi * inside_mm, wires["band"].size_mm)) / 2

    def cord(self, along_mm: float, wire_mm: float) -> Cord:
        """The cord: its lay as given, or as so many turns make it."""
        return Cord(self.wires, wire_mm, self.lay_mm if self.full_turns is None else along_mm / self.full_turns)

    def _thick_mm(self, cord: Cord) -> float:
        return cord.thickness_mm * (1 - self.tapped_share)

    def check(self, target_mm: float, wires: Wires) -> None:
        wire = wires["band"]
        if wire.profile.name != "round":
            refuse("wires.band.profile", f"a twist of {wire.profile.name} wire isn't reckoned here", "round")
        cord = self.cord(math.pi * target_mm - self.head_gap_mm, wire.size_mm)
        least = 2.2 * self.wires * wire.size_mm / math.sqrt(self.wires)
        if cord.lay_mm < least:
            refuse(
                "band.lay_mm" if self.full_turns is None else "band.full_turns",
                say("{wires} wires of {thick} can't lie so tight", wires=number_words(self.wires), thick=Thickness(wire.size_mm)),
                say("a full turn in {least} or more", least=Thickness(math.ceil(least * 10) / 10)),
            )
        if self.head_gap_mm > target_mm:
            refuse("band.head_gap_mm", "is wider than the ring", say("up to {most}", most=Length(math.floor(target_mm))))
        if self._thick_mm(cord) < _CUT_INTO_EACH_OTHER * wire.size_mm - 1e-9:
            refuse(
                "band.tapped_share",
                say("tapped to {thick} the strands are cut into each other", thick=Thickness(self._thick_mm(cord))),
                say("down to {least}", least=Thickness(_CUT_INTO_EACH_OTHER * wire.size_mm)),
            )

    def form(self, form: Form, wires: Wires, opening: Opening) -> FormedBand:
        wire = wires["band"]
        inside = form.diameter_mm
        guess = self.cord(math.pi * inside, wire.size_mm)
        thick = self._thick_mm(guess)
        radius = inside / 2 + thick / 2
        gap = 2 * opening.gap_rad * radius if opening.gap_rad is not None else self.head_gap_mm
        along = 2 * math.pi * radius - gap
        cord = self.cord(along, wire.size_mm)
        half_gap = gap / 2 / radius
        flat = thick / cord.thickness_mm
        worked = Worked("tapped", wire.size_mm, wire.size_mm * flat, 1 + cord.tapped_growth(thick), cord.strain)
        hand_of = 1 if self.direction == "right" else -1
        claws = opening.end_mm or (self.claw_mm,)
        pieces, ends = [], []
        for k in range(self.wires):
            twist = Twist("twist", cord, radius, half_gap, along, 2 * math.pi * k / self.wires, hand_of, flat)
            name = f"wire.{k + 1}"
            moves = [Placed(f"{name}.twist", twist, worked=worked)]
            if opening.gap_rad is None:
                moves = self._with_claws(name, moves, twist, half_gap, claws[0], wire.size_mm * (1 - flat))
            feet: tuple[tuple[Side, Literal["first", "last"], Point3], ...] = (
                ("right", "first", twist.point(0.0)),
                ("left", "last", twist.point(1.0)),
            )
            ends += [End(name, which, side, k, at, wire, "band", f"{side}.{k + 1}") for side, which, at in feet]
            care = EndCare.SAWN if opening.gap_rad is None and not claws[0] else EndCare.CUT
            pieces.append(Piece(name, "band", wire, tuple(moves), ends=(care, care)))
        return FormedBand(
            form=form,
            pieces=tuple(pieces),
            inside_mm=inside,
            strands=self.wires,
            width_mm=cord.thickness_mm,
            thickness_mm=thick,
            strand_z=lambda _: tuple((k - (self.wires - 1) / 2) * wire.size_mm for k in range(self.wires)),
            strand_wire=wire,
            strand_height_mm=thick,
            ends=tuple(ends) if opening.gap_rad is not None else (),
            sized_by=SizedBy.MARK,
            facts=(cord, along, thick, claws),
        )

    def _with_claws(self, name: str, moves: list[Placed], twist: Twist, half_gap: float, claw: float, out_mm: float) -> list[Placed]:
        if not claw:
            # The vise still has to hold them: what it holds is cut off.
            held = to_hold("vise", self.grip_mm)
            return [Placed(f"{name}.first.vise", held, fate=Fate.HELD), *moves, Placed(f"{name}.last.vise", held, fate=Fate.HELD)]
        first, last = (
            _claw(at, angle, claw, "claw", out_mm) for at, angle in ((twist.point(0.0), half_gap), (twist.point(1.0), -half_gap))
        )
        found = [Placed(f"{name}.first.claw", first, backwards=True), *moves, Placed(f"{name}.last.claw", last)]
        short = self.grip_mm - claw
        if short <= 0:
            return found
        held = to_hold("vise", short)
        return [Placed(f"{name}.first.vise", held, fate=Fate.HELD), *found, Placed(f"{name}.last.vise", held, fate=Fate.HELD)]

    def advise(self, band: FormedBand, opening: Opening) -> list[Warn]:
        cord, _, thick, _ = band.facts
        wire = band.pieces[0].wire
        found = []
        if cord.lay_mm > 12 * wire.size_mm:
            found.append(Warn("lay-long", Say("So long a lay shows hardly any twist and opens when the band is bent."), "band.lay_mm"))
        limit = wire.metal.breaks_at if wire.temper == "soft" else min(0.35, wire.metal.breaks_at)
        strain = cord.strain + (2 / math.sqrt(3)) * cord.flattening(thick)
        if strain > limit:
            text = Say("The strands may break when they are tapped: twist less, anneal first, or tap it less.")
            found.append(Warn("strands-may-break", text, "band.tapped_share"))
        if self.tapped_share and wire.metal.coated:
            found.append(Warn("coat-flakes", Say("The coat may flake where it is tapped: solid wire doesn't show it."), "wires.band.metal"))
        return found

    def phrase(self) -> Say:
        wires = number_words(self.wires)
        if self.full_turns is not None:
            return say("{wires} wires twisted, {turns}", wires=wires, turns=Count(self.full_turns, "turn", "turns"))
        return say("{wires} wires twisted, a turn in {lay}", wires=wires, lay=Length(self.lay_mm))

    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        cord, along, thick, claws = band.facts
        twists = tuple(p.id for piece in band.pieces for p in piece.moves if p.id.endswith("twist"))
        grown = 1 + cord.tapped_growth(thick)
        flat_length = along / grown
        turns = flat_length / cord.lay_mm
        span = 30.0
        ridges = round(span / cord.lay_mm * self.wires)
        count = "both" if self.wires == 2 else f"all {number_words(self.wires)}"
        claw = max(claws)
        tool = "the pin vise" if self.twister == "vise" else "a slow drill"
        tasks = [
            Task(
                "twist",
                Phase.WORK,
                say(
                    f"Clamp {count} wires side by side at both ends, {{grip}} in {tool}, square and tight. Turn {{turns}} times to the {self.direction}, "
                    "slowly, pulling gently: one full turn in {lay}.",
                    grip=Length(self.grip_mm),
                    turns=Number(turns),
                    lay=Length(cord.lay_mm),
                ),
                makes=twists,
                checks=(
                    Check(
                        say(
                            "{ridges} in {span} on one side, in the middle and at both ends.",
                            ridges=Count(ridges, "ridge", "ridges"),
                            span=Length(span),
                        ),
                        Say("Too few: turn on. Too many: don't turn back by more than one; plan with the lay as it is."),
                    ),
                ),
                cautions=(cautions.THREAD_FIRST, cautions.DRILL),
                count=round(turns),
            ),
            Task(
                "guide",
                Phase.WORK,
                say(
                    "Mark {length} of it, where the twist begins and ends; {claw} of each wire stay straight beyond.",
                    length=Length(flat_length),
                    claw=Length(claw),
                ),
                checks=(look("All wires end alike.", "Untwist the last half turn, or trim the longer one."),),
                stage="mark",
            ),
        ]
        if self.tapped_share:
            tasks.append(
                Task(
                    "tap",
                    Phase.WORK,
                    say("Tap it flat on a block, moving along and turning it over once, to {thick}.", thick=Thickness(thick)),
                    checks=(
                        Check(
                            say(
                                "{thick} by the caliper at three places; it is {length} long now.",
                                thick=Thickness(thick),
                                length=Length(along),
                            ),
                            Say("A cracked strand: stop, the piece is spoiled."),
                        ),
                    ),
                    cautions=(cautions.HAMMER,),
                    stage="flatten",
                )
            )
        gap = 2 * math.pi * (band.inside_mm / 2 + thick / 2) - along
        tasks.append(
            Task(
                "form",
                Phase.FORM,
                say(
                    "Bend it round the mandrel at {start}, its flat side to the metal, {gap} open at the top; tap it all round with a soft mallet, which sets it: "
                    "let go and it stays.",
                    start=MandrelMark(band.form.diameter_mm),
                    gap=Length(gap),
                ),
                checks=(reads(0.1, Say("Otherwise tap it again at the mark.")),),
            )
        )
        if claws[0] and opening.gap_rad is None:
            made = tuple(p.id for piece in band.pieces for p in piece.moves if p.id.endswith("claw"))
            tasks.append(
                Task(
                    "trim-claws",
                    Phase.TRIM,
                    say("Stand the ends up and trim every claw to {claw}.", claw=Length(claw)),
                    makes=made,
                    checks=(look(say("All claws are alike within {off}; no edge is felt.", off=Tolerance(1))),),
                    cautions=(cautions.CUT,),
                    count=2 * self.wires,
                    stage="trim",
                )
            )
        return tasks

    @classmethod
    def from_version_1(cls, band: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        if "top_gap_mm" in band:
            band["head_gap_mm"] = band.pop("top_gap_mm")
        return band


def _claw(foot: Point3, angle_rad: float, length_mm: float, label: str, out_mm: float = 0.0) -> Straight:
    """A strand standing up from its foot, which begins `out_mm` further out: it is round where its cord is tapped."""
    up, out = on_circle(length_mm, angle_rad, 0.0), on_circle(out_mm, angle_rad, 0.0)
    start = (foot[0] + out[0], foot[1] + out[1], foot[2])
    return Straight(label, start, (start[0] + up[0], start[1] + up[1], foot[2]))
