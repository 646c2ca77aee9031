"""Folded pair: a thin springy wire folded at its middle, both legs wound together as the band; the fold is an eye that closes it."""

import math
from collections.abc import Mapping
from typing import ClassVar, Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.bending import released_diameter_mm
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import on_circle
from pliant_coil.core.moves.grip import Fold
from pliant_coil.core.moves.placed import Piece, Placed
from pliant_coil.core.moves.straight import ThroughEye
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, Joined, Opening, Side, SizedBy, Slot, Top, Warn, Wires
from pliant_coil.core.styles.parameters import WireSpec, choice, degrees, millimetres, number
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.sizes import MandrelMark, Size
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.figures import Count, Length, Thickness, Times, Tolerance
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

_BREAKS_FOLDED = {"soft": 0.6, "half-hard": 0.35, "hard": 0.2}
"""Strain in a fold at which wire of a temper breaks (values from memory)."""


@dataclass(frozen=True)
class _Folded:
    eye_mm: float
    aside_mm: float
    """How far round the band the fold lies from the top, to the right positive."""


class FoldedPair(BandStyle):
    """Both legs of a folded wire side by side; one goes through the eye of the fold."""

    title: ClassVar[str] = "Folded pair"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"band": WireSpec(diameter="0.7 mm", metal="stainless", temper="half-hard")}
    main_role: ClassVar[str] = "band"
    style: Literal["folded-pair"] = choice("folded-pair", "Band")
    fold: Literal["eye", "pinched"] = choice("eye", "Fold", "Kept as an eye that a leg goes through, or pinched shut (soft wire).")
    eye_mm: float | None = millimetres(None, "Fold, inside", 0.5, 5, "Two wires wide unless given, four for springy wire.")
    turns: int = number(1, "Turns of the pair", 1, 2)
    fold_at_deg: float | None = degrees(
        None, "Fold from the top", -30, 30, "To the right positive; beside what stands on top unless given.", rare=True
    )
    through_eye: Literal["other", "bead-leg", "both"] = choice(
        "other", "Through the eye", "The leg without the bead, which runs on under it; the one with it; or both.", rare=True
    )

    def tops(self) -> frozenset[Top]:
        return frozenset({Top.TAILS})

    def ends_each_side(self) -> int:
        # Both on one side.
        return 2

    @property
    def _eye_beyond(self) -> bool:
        """Whether the eye lies on the head's far side, where the leg comes out that ran on under it."""
        return self.fold == "pinched" or self.through_eye == "other"

    def under_head_mm(self, wires: Wires) -> tuple[float, ...]:
        d, turns = wires["band"].size_mm, self.turns
        drift = 2 * d * (turns - 1)
        passes = [(lane, k) for lane in (-d / 2, d / 2) for k in range(1, turns)]
        # The leg without the head's bead always runs on under it, to the other shoulder.
        passes.append((d / 2, turns))
        return tuple(lane + drift * (k / turns - 0.5) for lane, k in passes)

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
        foot = opening.foot_rad if opening.across else 0.0
        beside = foot if self._eye_beyond else -foot - (clear if foot else 0.0)
        fold_rad = beside if self.fold_at_deg is None else math.radians(self.fold_at_deg)
        if foot and self.fold == "eye" and not self._eye_beyond and fold_rad + clear > 1e-9 - foot:
            most = math.degrees(-foot - clear)
            refuse("band.fold_at_deg", "the leg has to go through the eye before it rises to the head", f"{math.floor(most)}° or less")
        piece, slots, ends = self._legs(
            wire, radius, clear=clear, fold_rad=fold_rad, foot=foot, shoulder=opening.shoulder_rad or foot, eye=eye
        )
        pitch = d

        def strand_z(_: float) -> tuple[float, ...]:
            lanes = 2 * self.turns
            return tuple((k - (lanes - 1) / 2) * pitch for k in range(lanes))

        return FormedBand(
            form=form,
            pieces=(piece,),
            inside_mm=inside,
            strands=2 * self.turns,
            width_mm=2 * self.turns * d,
            thickness_mm=d,
            strand_z=strand_z,
            strand_wire=wire,
            strand_height_mm=d,
            ends=ends,
            slots=slots,
            joined=Joined.BAND,
            sized_by=SizedBy.LENGTH,
            tied=True,
            facts=_Folded(eye, fold_rad * radius),
        )

    def _legs(
        self, wire: Wire, radius: float, *, clear: float, fold_rad: float, foot: float, shoulder: float, eye: float
    ) -> tuple[Piece, tuple[Slot, ...], tuple[End, ...]]:
        """Both legs from the fold: the one without a bead is the wire's first half, the one with it goes up into the head."""
        d = wire.size_mm
        drift = 2 * d * (self.turns - 1)
        lanes = {"bead-leg": -d / 2 - drift / 2, "other": d / 2 - drift / 2}
        round_mm = 2 * math.pi * self.turns
        halves: dict[str, list[Placed]] = {}
        stands: dict[str, tuple[float, float]] = {}
        for name, z in lanes.items():
            through = self.fold == "eye" and self.through_eye in (name, "both")
            # Where it ends: up at the foot of what stands on top, or under it to its far shoulder; without a head at the fold.
            ends_at = round_mm + (fold_rad - clear if not foot else -foot if name == "bead-leg" else max(shoulder, fold_rad + clear))
            last = round_mm + fold_rad - clear if through else ends_at
            half = [
                Placed(f"{name}.round", Arc("round", radius, fold_rad + clear, last - fold_rad - clear, z, z + drift, host="the mandrel"))
            ]
            if through:
                # Up over the rim, through the eye, and down on its other side.
                ways = (on_circle(radius, last, z + drift), on_circle(radius, last + 2 * clear, z + drift))
                half.append(Placed(f"{name}.through", ThroughEye("through the eye", *ways, radius, mark="eye")))
                last += 2 * clear
                if foot and last < ends_at - 1e-9:
                    half.append(Placed(f"{name}.on", Arc("on", radius, last, ends_at - last, z + drift, z + drift, host="the mandrel")))
                    last = ends_at
            halves[name], stands[name] = half, (last - round_mm, z + drift)
        feet = tuple(on_circle(radius, fold_rad + clear, z) for z in lanes.values())
        fold = Placed("fold", Fold("fold", eye, d, (feet[1], feet[0]), mark="fold" if foot else "middle", mark_share=0.5))
        backwards = [Placed(p.id, p.move, backwards=True) for p in reversed(halves["other"])]
        moves = (*backwards, fold, *halves["bead-leg"])
        ends: list[End] = []
        slots: tuple[Slot, ...] = ()
        halves_of: tuple[tuple[Literal["first", "last"], str], ...] = (("first", "other"), ("last", "bead-leg"))
        for which, name in halves_of:
            angle, z = stands[name]
            at = on_circle(radius, angle, z)
            side: Side = "right" if angle > 0 else "left"
            if name == "bead-leg" and foot:
                left = on_circle(radius, -foot, z)
                slots = (Slot("band.1", len(moves), 0, left, (-left[0], left[1], left[2])),)
                side, at = "right", slots[0].right
            ends.append(End("band.1", which, side, 0 if name == "bead-leg" else 1, at, wire, "band", "long" if foot and slots else name))
        return Piece("band.1", "band", wire, moves), slots, tuple(ends)

    def advise(self, band: FormedBand, opening: Opening) -> list[Warn]:
        wire = band.pieces[0].wire
        if wire.temper == "soft" and wire.size_mm < 0.7 and self.turns == 1:
            text = say("Two strands of soft {wire} bend in wear: half hard wire, or two turns.", wire=wire.gauge)
            return [Warn("band-flimsy", text, "wires.band.temper")]
        return []

    def phrase(self) -> Say:
        return say("a folded pair wound {times}", times=Times(self.turns))

    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        folded: _Folded = band.facts
        eye = folded.eye_mm
        wire = band.pieces[0].wire
        free = released_diameter_mm(band.form.diameter_mm, wire.profile, wire.metal.youngs_modulus_mpa, wire.yield_mpa)
        springs = (
            say("Let go, it springs open to {free}: that is no fault, the eye decides the size.", free=Size(free))
            if math.isfinite(free)
            else Say("")
        )
        made = tuple(p.id for p in band.pieces[0].moves)
        legs = say("The legs are equal within {off}.", off=Tolerance(2))
        where = Say("on")
        if band.slots:
            # What the head takes is known when it is made: the mark says where the middle lies then.
            legs = Say("The fold stands at its mark; the longer leg takes the head.")
            side = "right" if folded.aside_mm > 0 else "left"
            where = say("{aside} to the {side} of", aside=Length(abs(folded.aside_mm)), side=side)
        pinch = "" if self.fold == "eye" else " and pinch the fold shut"
        tasks = [
            Task(
                "fold",
                Phase.FLAT,
                say(
                    f"Grip the {'fold' if band.slots else 'middle'} mark with round pliers where the jaw is {{eye}} thick; bring both ends round until the legs are parallel{pinch}. Press close to "
                    "the jaw with the thumbs.",
                    eye=Thickness(max(eye, 0.5)),
                ),
                makes=("fold",),
                checks=(look(legs, "Shift it now: springy wire breaks when it is bent back."),),
                cautions=(cautions.WHIP,),
            ),
            Task(
                "form",
                Phase.FORM,
                say(
                    "Lay the fold {where} the mandrel's top at {start}, both legs to the right, and wind them together {times}, side by side.",
                    where=where,
                    start=MandrelMark(band.form.diameter_mm),
                    times=Times(self.turns),
                ),
                makes=tuple(i for i in made if i.endswith("round")),
                checks=(look("Flat, no gap, no crossing."), *([Check(springs)] if springs else [])),
            ),
        ]
        if self.fold == "eye":
            leg = {"both": "both legs", "bead-leg": "the leg that takes the head", "other": "the leg that takes nothing"}[self.through_eye]
            leg = "one leg" if not band.slots and self.through_eye != "both" else leg
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
