"""Prongs: a band's free ends cross behind a stone and stand up at its corners; or, bound together, they are folded over it as claws."""

import math
from collections.abc import Mapping
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import Form, FormedBand, HeadWork, Opening, Top, Warn, Wires
from pliant_coil.core.styles.heads.prongs import claws, upright
from pliant_coil.core.styles.heads.prongs.stone import Facts, HeldStone
from pliant_coil.core.styles.parameters import WireSpec, choice, millimetres
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.figures import Article, Count, Length, Thickness, number_words
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

_CORNERS = 4
_SHARPEST = 0.25
"""Of the wire, inside a bend: sharper ones break soft wire (value from memory)."""
"""Of every stone that has any."""
_LIP_LEAST_MM = 0.8
"""What a lip has to reach over the edge (common practice, no source)."""


class Prongs(HeadStyle):
    """Wire ends that hold a stone."""

    title: ClassVar[str] = "Prongs"
    usual_locks: ClassVar[int] = 1
    style: Literal["prongs"] = choice("prongs", "Head")
    setting: Literal["prongs", "claws"] | None = choice(
        None, "Setting", "Prongs at a faceted stone's corners from three base wires and more; claws over a rough one from two wires."
    )
    stone: HeldStone = Field(default_factory=HeldStone, title="Stone")
    half_spread_mm: float | None = millimetres(
        None, "Locks stand", 2, 8, "From the middle, along the band; a third of the stone unless given.", rare=True
    )
    lip: Literal["full", "half"] = choice("full", "Lips", "A full loop over the edge, or half a one.")
    lip_eye_mm: float = millimetres(1.2, "Lip, inside", 0.6, 3, rare=True)
    foot_radius_mm: float | None = millimetres(None, "Bends, inside", 0, 2, "Half the wire unless given.", rare=True)
    curl_mm: float = millimetres(6.0, "Curl of the locking ends", 0, 12, "0 cuts them flush.", rare=True)
    order: Literal["measured", "against-stone"] = choice("measured", "Bent", "At marks from measures, or up against the stone.", rare=True)
    work_mm: float | None = millimetres(None, "Trimmed from each end", 2, 20, "6, or 10 against the stone, unless given.", rare=True)
    claw_path: Literal["across", "own-side"] = choice(
        "across", "Claws run", "Under the stone to its far side, or up on their own side.", rare=True
    )
    claws_apart_mm: float | None = millimetres(None, "Claws apart", 1, 16, "Two fifths of the stone's width unless given.", rare=True)
    lip_mm: float | None = millimetres(None, "Claws' tips lie on it by", 1, 8, "A fifth of its length unless given.", rare=True)
    base_mm: float = millimetres(8.0, "Bound base", 5, 12, "Of claws.", rare=True)
    binding: Literal["round-all", "eights"] = choice(
        "round-all",
        "Claws' base bound",
        "Round all the ends, which is quick, or in eights round one half and the other, which lies flat.",
        rare=True,
    )
    tip: Literal["filed", "paddled", "curled"] = choice("filed", "Claws' tips", rare=True)

    def fits(self, band: BandStyle) -> Say:
        return lacks(band, Top.GAP)

    def claws(self, band: BandStyle) -> bool:
        """Whether the ends become claws: as set, or by how many there are."""
        return self.setting == "claws" if self.setting is not None else band.ends_each_side() < 3

    def roles(self, band: BandStyle) -> Mapping[str, WireSpec]:
        return {"bind": WireSpec(diameter="0.4 mm")} if self.claws(band) else {}

    @property
    def trimmed_mm(self) -> float:
        return self.work_mm if self.work_mm is not None else (6.0 if self.order == "measured" else 10.0)

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        wire = wires[band.main_role]
        radius = band.centre_line_mm(form.diameter_mm, wires)
        n = band.ends_each_side()
        stone = self.stone
        if self.claws(band):
            if n > 3:
                refuse("head.setting", "so many ends aren't folded over a stone as claws", "prongs")
            theta = self.base_mm / 2 / radius
            return Opening(gap_rad=theta, end_mm=(1.0,), facts=Facts(radius, theta, self.base_mm / 2, n))
        if n < 3:
            refuse("head.setting", "two wires give four ends, and nothing locks them", "claws, or three base wires")
        if form.locks < 1:
            refuse("finish.wraps_each_side", "the crossed ends hold nothing without locks", "at least 1 wrap each side")
        d = wire.size_mm
        x_f, z_f = upright.foot_of(self.stone, d, 1.0, n - 1)
        usual = max(2 * d, min(stone.length_mm / 3, x_f - d / 2))
        spread = usual if self.half_spread_mm is None else self.half_spread_mm
        if stone.length_mm > 1.1 * form.diameter_mm:
            refuse(
                "head.stone.length_mm",
                "the stone is longer than the finger is wide",
                say("up to {most}", most=Length(math.floor(1.1 * form.diameter_mm))),
            )
        if spread < 2 * d - 1e-9:
            refuse("head.half_spread_mm", "the locks meet under the stone", say("{least} or more", least=Thickness(2 * d)))
        if spread + d / 2 > x_f + 1e-9:
            refuse(
                "head.half_spread_mm",
                "the locks would stand outside the stone",
                say("up to {most}", most=Thickness(math.floor((x_f - d / 2) * 10) / 10)),
            )
        if 2 * n * d > 2 * z_f:
            refuse(
                "head.stone.width_mm",
                say("{ends} ends of {wire} are wider than the stone", ends=number_words(2 * n), wire=Thickness(d)),
                "a wider stone, or thinner wire",
            )
        theta = math.asin(spread / radius)
        return Opening(gap_rad=theta, shoulder_rad=theta, bare_mm=form.locks * d + 0.5, facts=Facts(radius, theta, spread, n))

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        facts: Facts = opening.facts
        ends = [end for end in band.ends if end.role != "weave"]
        if opening.bare_mm == 0:
            return claws.made(self, form, band, wires, facts, ends)
        return upright.made(self, form, band, wires, facts, ends)

    def phrase(self, band: BandStyle) -> Say:
        stone = self.stone
        held = "claws" if self.claws(band) else "prongs"
        return say(
            "{length} by {width} stone in {held}", length=Article(Thickness(stone.length_mm)), width=Thickness(stone.width_mm), held=held
        )

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        d = band.strand_wire.size_mm
        facts: Facts = work.facts
        found = []
        least = 0.8 if self.stone.length_mm <= 12 else 0.9
        if d < least - 1e-9 and band.strand_wire.temper == "soft":
            text = say("Soft {wire} won't hold so large a stone: {least}, or half hard.", wire=Thickness(d), least=Thickness(least))
            found.append(Warn("prongs-thin", text, f"wires.{band.pieces[0].role}.diameter"))
        found += claws.advise(self, band, facts.claw) if facts.claw else []
        reaches = (d / 2 if self.foot_radius_mm is None else self.foot_radius_mm) + d / 2 + self.lip_eye_mm / 2
        if not facts.claw and reaches < _LIP_LEAST_MM:
            found.append(Warn("lips-short", Say("Lips so small hardly reach over the stone's edge: larger loops."), "head.lip_eye_mm"))
        if not facts.claw and self.foot_radius_mm is not None and self.foot_radius_mm < _SHARPEST * d:
            text = say("Bends so sharp break this wire: {least} inside, or more.", least=Thickness(_SHARPEST * d))
            found.append(Warn("prong-bends-sharp", text, "head.foot_radius_mm"))
        # Every shape but a curved one has four corners, cut or not.
        aside = 2 * facts.lanes - 2 - _CORNERS
        if not facts.claw and aside > 0 and self.stone.shape not in ("oval", "round"):
            text = say(
                "{n} on a straight edge, away from the corners: nothing keeps them from sliding along it. Fewer base wires, or a round or oval stone.",
                n=Count(aside, "prong stands", "prongs stand"),
            )
            found.append(Warn("prongs-off-corners", text, "head.stone.shape"))
        if facts.claw and self.base_mm > 0.5 * band.inside_mm:
            found.append(Warn("base-long", Say("So long a base stands off the finger."), "head.base_mm"))
        if not facts.claw and 2 * (self.lip_eye_mm + 2 * d) > 0.5 * self.stone.width_mm and self.lip == "full":
            found.append(Warn("lips-hide", Say("Full lips hide much of so small a stone: half ones show it."), "head.lip"))
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        facts: Facts = work.facts
        return claws.tasks(self, band, work, facts) if facts.claw else upright.tasks(self, band, work, facts)
