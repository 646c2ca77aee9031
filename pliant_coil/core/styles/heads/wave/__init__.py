"""Wave: the free tops of a stack of rings levered into waves, and soldered where neighbours touch."""

import math
from collections.abc import Mapping
from functools import partial
from typing import ClassVar, Literal

from pliant_coil.core.moves.base import Cause
from pliant_coil.core.moves.passing import Course
from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import Effect, Form, FormedBand, HeadWork, Opening, Top, Warn, Wires
from pliant_coil.core.styles.heads.wave import steps
from pliant_coil.core.styles.heads.wave.lanes import Waves, lane_points, soldered, waves_of
from pliant_coil.core.styles.heads.wave.steps import JAW_MM
from pliant_coil.core.styles.parameters import Part, choice, degrees, millimetres, number
from pliant_coil.core.styles.soldered import Soldered
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.figures import Article, Count, Length, Share, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

TAKEN = Cause("waves-take", "the waves take in the top")
_STRAIN_WARNS, _STRAIN_REFUSES = 0.20, 0.35
_STRETCH_MOST_MM = 0.5
_CROWDED = 0.9
"""Neighbours that lie nearer than this share of their thickness don't just press together: one rides up."""
_SEAM_CLEAR_MM = 2.0
"""A soldered seam is stiffer than the wire beside it: nearer than this to a crest it may crack (common practice, no source)."""


class Tubes(Part):
    """Small settings in the windows between the waves."""

    diameter_mm: float = millimetres(2.5, "Tube's outside", 1, 6)
    count: int = number(2, "How many", 1, 6)


class Wave(HeadStyle):
    """Waves in the tops of a stack."""

    title: ClassVar[str] = "Wave"
    style: Literal["wave"] = choice("wave", "Head")
    flat_ends: bool = choice(True, "Outer rings stay flat")
    half_waves: int = number(4, "Crests", 3, 8, "Along the free top.")
    amplitude_mm: float = millimetres(0.6, "Swing", 0.3, 1.6, "Of a wave to one side.")
    fan_deg: float = degrees(45.0, "Lanes part over", 25, 60, rare=True)
    jitter_share: float = number(0.15, "Crests wander", 0, 0.3, "As a share of a half wave: no two alike.", rare=True)
    arrangement: int = number(1, "Arrangement", 1, 99, "Another number, other crests.", rare=True)
    contacts_min: int = number(2, "Contacts soldered", 1, 3, "At least, between neighbours.", rare=True)
    contact_solder: Literal["medium", "easy"] = choice("medium", "Solder of the contacts", rare=True)
    settings: Tubes | None = choice(None, "Settings in the windows", rare=True)
    take_up: Literal["coil", "stretch"] = choice(
        "coil", "What the waves take", "Is added to the coil, or stretched on the mandrel.", rare=True
    )

    def fits(self, band: BandStyle) -> Say:
        return lacks(band, Top.THROUGH, Top.CLOSED)

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        stack = band.stack(form.diameter_mm, wires)
        if stack is None or stack.rings < (3 if self.flat_ends else 2):
            refuse("band.rings", "neighbours have to swing against each other", "3 rings or more, or 2 with both waved")
        radius = (stack.inside_mm + stack.wide_mm) / 2
        fan = math.radians(self.fan_deg)
        needed = fan + self.half_waves * 1.2 * JAW_MM / (2 * radius)
        free = max(math.pi - stack.soldered_rad / 2, needed)
        if free > math.pi - stack.least_rad / 2:
            room = (math.pi - stack.least_rad / 2 - fan) * 2 * radius
            most = math.floor(room / (1.2 * JAW_MM))
            text = say(
                "the waves need {need} of free top, there are {room}", need=Length(self.half_waves * 1.2 * JAW_MM), room=Length(room)
            )
            refuse("head.half_waves", text, say("{n}, or a larger ring", n=Count(max(1, most), "crest", "crests")))
        flat = self.flat_ends
        amplitudes = tuple(0.0 if flat and k in (0, stack.rings - 1) else self.amplitude_mm for k in range(stack.rings))
        # Always the same crests for the same number: a sine of it, scrambled.
        wander = math.modf(abs(math.sin(self.arrangement * 12.9898)) * 43758.5453)[0] * 2 - 1
        waves = waves_of(stack, self.half_waves, amplitudes, fan, free, self.jitter_share * wander)
        if waves.strain > _STRAIN_REFUSES:
            most_mm = self.amplitude_mm * _STRAIN_REFUSES / waves.strain
            refuse(
                "head.amplitude_mm",
                "so high a wave cracks or necks the metal",
                say("{most} or less, or fewer crests", most=Thickness(math.floor(10 * most_mm) / 10)),
            )
        if min(waves.contacts) < self.contacts_min:
            refuse(
                "head.half_waves",
                say("some neighbours touch at {n} only", n=Count(min(waves.contacts), "place", "places")),
                "more crests, or fewer contacts asked",
            )
        change = 2 * (min(waves.reads_mm) - radius)
        if self.take_up == "stretch" and -change > _STRETCH_MOST_MM:
            refuse(
                "head.take_up",
                say("the waves take {much}: too much to stretch", much=Thickness(-change)),
                "coil: it is started that much larger",
            )
        foot = math.pi - radius * (math.pi - free) / (radius + change / 2)
        aside = 0.0 if stack.seams_rad[1:] else waves.seam_rad * radius
        return Opening(foot_rad=foot, seam_mm=aside, effect=Effect(TAKEN, change, phase="head"), facts=waves)

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        waves: Waves = opening.facts
        worked = next(p.worked for p in band.pieces[0].moves if p.move.kind == "arc")
        metal = 2 * waves.free_rad * waves.radius_mm
        through, lanes = {}, {}
        for slot in band.slots:
            radius = band.inside_mm / 2 + waves.stack.wide_mm / 2
            way = partial(lane_points, waves, slot.lane, radius, opening.foot_rad, metal, slot.left, slot.right)
            lane = Course("waved" if waves.amplitude_mm[slot.lane] else "flat", way, Say("the ring's own metal over the free top"))
            lanes[slot.lane] = lane
            through[slot.lane] = (Placed(f"head.lane.{slot.lane + 1}", lane, worked=worked),)
        return HeadWork(
            through=through,
            ledger=band.ledger,
            tied=True,
            height_mm=band.thickness_mm,
            soldered=partial(self._soldered, waves, opening.foot_rad, lanes),
            facts=waves,
        )

    def _soldered(self, waves: Waves, foot: float, lanes: Mapping[int, Course]) -> tuple[Soldered, ...]:
        tube, tubes = (self.settings.diameter_mm, self.settings.count) if self.settings else (0.0, 0)
        return tuple(soldered(waves, foot, {lane: course.points for lane, course in lanes.items()}, tube, tubes))

    def phrase(self, band: BandStyle) -> Say:
        return say("its tops waved in {n}", n=Count(self.half_waves, "crest", "crests"))

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        waves: Waves = work.facts
        found = []
        if waves.strain > _STRAIN_WARNS:
            text = say("The metal is bent by {strain} at the crests: anneal it before, go slowly.", strain=Share(waves.strain))
            found.append(Warn("crests-sharp", text, "head.amplitude_mm"))
        if waves.seam_clear_mm < _SEAM_CLEAR_MM:
            text = say(
                "A seam stands {near} from a crest: it is stiffer than the wire beside it and may crack as it is bent there. In line the seams stand between crests.",
                near=Thickness(waves.seam_clear_mm),
            )
            found.append(Warn("seam-strained", text, "band.seams"))
        if waves.nearest_share < _CROWDED:
            text = say(
                "Where they part two lanes lie {share} of their thickness apart, middle to middle: let them part over a longer way, or swing less.",
                share=Share(waves.nearest_share),
            )
            found.append(Warn("lanes-crowded", text, "head.fan_deg"))
        if waves.wide_mm > 0.75 * band.inside_mm:
            found.append(Warn("head-wide", say("The top is {wide} wide.", wide=Length(waves.wide_mm)), "head.amplitude_mm"))
        if self.settings and self.settings.diameter_mm > waves.window_mm:
            need = self.amplitude_mm * self.settings.diameter_mm / waves.window_mm
            text = say(
                "The window takes {window}; {tube} tube needs waves of {need}.",
                window=Thickness(waves.window_mm),
                tube=Article(Thickness(self.settings.diameter_mm)),
                need=Thickness(need),
            )
            found.append(Warn("window-small", text, "head.settings.diameter_mm"))
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        return steps.tasks(self, work)
