"""Folded pair: a thin springy wire folded at its middle, both legs wound together as the band; the fold is an eye that closes it."""

import math
from collections.abc import Mapping
from typing import ClassVar, Literal

from pliant_coil.core.mechanics.bending import released_diameter_mm
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import on_circle
from pliant_coil.core.moves.grip import Fold
from pliant_coil.core.moves.placed import Piece, Placed
from pliant_coil.core.moves.straight import Through
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, Joined, Opening, SizedBy, Top, Warn, Wires
from pliant_coil.core.styles.parameters import WireSpec, choice, millimetres, number
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.sizes import MandrelMark, Size
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Count, Length, Thickness, Times, Tolerance
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

_BREAKS_FOLDED = {"soft": 0.6, "half-hard": 0.35, "hard": 0.2}
"""Strain in a fold at which wire of a temper breaks (values from memory)."""


class FoldedPair(BandStyle):
    """Both legs of a folded wire side by side; one goes through the eye of the fold."""

    title: ClassVar[str] = "Folded pair"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="0.7 mm", metal="stainless", temper="half-hard")}
    main_role: ClassVar[str] = "band"
    style: Literal["folded-pair"] = choice("folded-pair", "Band")
    fold: Literal["eye", "pinched"] = choice("eye", "Fold", "Kept as an eye that a leg goes through, or pinched shut (soft wire).")
    eye_mm: float | None = millimetres(None, "Fold, inside", 0.5, 5, "Two wires wide unless given, four for springy wire.")
    turns: int = number(1, "Turns of the pair", 1, 2)
    through_eye: Literal["other", "both"] = choice("other", "Through the eye", "One leg, or both.", rare=True)

    def tops(self) -> frozenset[Top]:
        return frozenset()

    def eye(self, wire: Wire) -> float:
        """Inside of the fold."""
        if self.eye_mm is not None:
            return self.eye_mm
        return (4 if wire.yield_mpa >= 600 else 2) * wire.size_mm

    def check(self, target_mm: float, wires: Wires) -> None:
        wire = wires["band"]
        if wire.profile.name != "round":
            refuse("wires.band.profile", f"a folded pair of {wire.profile.name} wire isn't reckoned here", "round")
        d, eye = wire.size_mm, self.eye(wire)
        strain = d / (eye + d)
        limit = _BREAKS_FOLDED[wire.temper]
        if self.fold == "eye" and strain > limit:
            refuse(
                "band.eye_mm",
                say("{wire} {metal} breaks when it is folded so sharply", wire=wire.temper, metal=wire.metal.name),
                say("{least} inside, or more", least=Thickness(math.ceil((d / limit - d) * 10) / 10)),
            )
        passes = 2 if self.through_eye == "both" else 1
        if self.fold == "eye" and eye < passes * d + 0.05:
            refuse(
                "band.eye_mm",
                say("the eye takes {legs} only", legs=Count(int(eye // d), "leg", "legs")),
                say("at least {least}", least=Thickness(passes * d + 0.1)),
            )
        if self.fold == "pinched" and wire.temper != "soft":
            refuse("band.fold", "springy wire opens again when nothing passes the fold", "eye, with a leg led through it")

    def form(self, form: Form, wires: Wires, opening: Opening) -> FormedBand:
        wire = wires["band"]
        if not form.locks:
            refuse("finish.wraps_each_side", "the legs hold nothing without a lock", "at least 1 wrap each side")
        d, inside = wire.size_mm, form.diameter_mm
        radius = inside / 2 + d / 2
        eye = self.eye(wire) if self.fold == "eye" else 0.0
        clear = (eye + d) / 2 / radius if self.fold == "eye" else 0.0
        last = 2 * math.pi * self.turns - clear
        pieces, ends = self._legs(wire, radius, clear=clear, last=last, eye=eye)
        pitch = d

        def strand_z(_: float) -> tuple[float, ...]:
            lanes = 2 * self.turns
            return tuple((k - (lanes - 1) / 2) * pitch for k in range(lanes))

        return FormedBand(
            form=form,
            pieces=pieces,
            inside_mm=inside,
            strands=2 * self.turns,
            width_mm=2 * self.turns * d,
            thickness_mm=d,
            strand_z=strand_z,
            strand_wire=wire,
            strand_height_mm=d,
            ends=ends,
            joined=Joined.BAND,
            sized_by=SizedBy.LENGTH,
            tied=True,
            facts=(eye, last - clear),
        )

    def _legs(self, wire: Wire, radius: float, *, clear: float, last: float, eye: float) -> tuple[tuple[Piece, ...], tuple[End, ...]]:
        d = wire.size_mm
        drift = 2 * d * (self.turns - 1)
        lanes = (-d / 2 - drift / 2, d / 2 - drift / 2)
        halves = []
        ends = []
        for k, (z, name) in enumerate(zip(lanes, ("bead-leg", "other"), strict=True)):
            arc = Arc("round", radius, clear, last - clear, z, z + drift, host="the mandrel")
            through = self.fold == "eye" and (k == 1 or self.through_eye == "both")
            half = [Placed(f"{name}.round", arc)]
            angle = last
            if through:
                # Up over the rim, through the eye, and down on its other side.
                reach = last + 2 * clear
                half.append(
                    Placed(
                        f"{name}.through",
                        Through("through the eye", on_circle(radius, last, z + drift), on_circle(radius, reach, z + drift), mark="eye"),
                    )
                )
                angle = reach
            side: Literal["left", "right"] = "right" if through else "left"
            which: Literal["first", "last"] = "last" if k else "first"
            ends.append(End("band.1", which, side, k, on_circle(radius, angle, z + drift), wire, "band", name))
            halves.append(half)
        first, other = halves
        foot = on_circle(radius, clear, lanes[0]), on_circle(radius, clear, lanes[1])
        fold = Placed("fold", Fold("fold", eye, d, foot, mark="middle", mark_share=0.5))
        backwards = [Placed(p.id, p.move, backwards=True) for p in reversed(first)]
        return (Piece("band.1", "band", wire, (*backwards, fold, *other)),), tuple(ends)

    def advise(self, band: FormedBand, opening: Opening) -> list[Warn]:
        wire = band.pieces[0].wire
        if wire.temper == "soft" and wire.size_mm < 0.7 and self.turns == 1:
            text = say("Two strands of soft {wire} bend in wear: half hard wire, or two turns.", wire=wire.gauge)
            return [Warn("band-flimsy", text, "wires.band.temper")]
        return []

    def phrase(self) -> Say:
        return say("a folded pair wound {times}", times=Times(self.turns))

    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        eye, _ = band.facts
        wire = band.pieces[0].wire
        free = released_diameter_mm(band.form.diameter_mm, wire.profile, wire.metal.youngs_modulus_mpa, wire.yield_mpa)
        springs = (
            say("Let go, it springs open to {free}: that is no fault, the eye decides the size.", free=Size(free))
            if math.isfinite(free)
            else Say("")
        )
        made = tuple(p.id for p in band.pieces[0].moves)
        pinch = "" if self.fold == "eye" else " and pinch the fold shut"
        tasks = [
            Task(
                "fold",
                Phase.FLAT,
                say(
                    f"Grip the middle mark with round pliers where the jaw is {{eye}} thick; bring both ends round until the legs are parallel{pinch}. Press close to "
                    "the jaw with the thumbs.",
                    eye=Thickness(max(eye, 0.5)),
                ),
                makes=("fold",),
                checks=(
                    look(
                        say("The legs are equal within {off}.", off=Tolerance(2)), "Shift it now: springy wire breaks when it is bent back."
                    ),
                ),
                cautions=(cautions.WHIP,),
            ),
            Task(
                "form",
                Phase.FORM,
                say(
                    "Lay the fold on top of the mandrel at {start} and wind both legs together {times}, side by side.",
                    start=MandrelMark(band.form.diameter_mm),
                    times=Times(self.turns),
                ),
                makes=tuple(i for i in made if i.endswith("round")),
                checks=(look("Flat, no gap, no crossing."), *([Check(springs)] if springs else [])),
            ),
        ]
        if self.fold == "eye":
            leg = "both legs" if self.through_eye == "both" else "one leg"
            tasks.append(
                Task(
                    "through",
                    Phase.GATHER,
                    say(
                        f"Lead {leg} through the eye at the mark, pull until the mandrel reads {{start}}, and bend it back sharply.",
                        start=MandrelMark(band.form.diameter_mm),
                    ),
                    makes=tuple(i for i in made if i.endswith("through")),
                    checks=(
                        reads(
                            0.15,
                            say("Move the bend along the leg: {leg} of leg are {across} of diameter.", leg=Length(3), across=Tolerance(1)),
                        ),
                    ),
                    cautions=(cautions.LAST_EASY,),
                )
            )
        return tasks
