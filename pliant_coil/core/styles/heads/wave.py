"""Wave: the free tops of a stack of rings levered into waves, and soldered where neighbours touch."""

import math
from functools import cached_property, lru_cache, partial
from itertools import pairwise
from typing import ClassVar, Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.curves import length_mm as along_mm
from pliant_coil.core.mechanics.roots import where_it_reaches
from pliant_coil.core.moves.base import Cause, on_circle
from pliant_coil.core.moves.passing import Course
from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import Effect, Form, FormedBand, HeadWork, Opening, Stack, Top, Warn, Wires
from pliant_coil.core.styles.parameters import Part, choice, degrees, millimetres, number
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.words.figures import Article, Count, Length, Share, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

TAKEN = Cause("waves-take", "the waves take in the top")
_JAW_MM = 3.5
"""How far apart the jaws of fine round-nose pliers grip (common practice, no source)."""
_STRAIN_WARNS, _STRAIN_REFUSES = 0.20, 0.35
_STRETCH_MOST_MM = 0.5
_PARTS = 32
_SEAM_CLEAR_MM = 2.0
"""A soldered seam is stiffer than the wire beside it: nearer than this to a crest it may crack (common practice, no source)."""


@dataclass(frozen=True)
class Waves:
    """The lanes of a stack, waved over the free top: all lengths in mm, angles from the top [rad]."""

    stack: Stack
    half_waves: int
    amplitude_mm: tuple[float, ...]
    """Swing of each lane to one side; 0 for a flat one."""
    fan_rad: float
    free_rad: float
    """Half of the free top."""
    jitter: float
    """How far crests wander, as a share of a half wave, all lanes together."""

    @cached_property
    def packed_mm(self) -> tuple[float, ...]:
        n, t = self.stack.rings, self.stack.thick_mm
        return tuple((k - (n - 1) / 2) * t for k in range(n))

    @cached_property
    def places_mm(self) -> tuple[float, ...]:
        """Rest lines at the top: neighbours a contact apart."""
        found = [0.0]
        for a, b in pairwise(self.amplitude_mm):
            found.append(found[-1] + self.stack.thick_mm + a + b)
        return tuple(z - found[-1] / 2 for z in found)

    @property
    def radius_mm(self) -> float:
        """Of the lanes' middle line before they are waved."""
        return (self.stack.inside_mm + self.stack.wide_mm) / 2

    @property
    def half_wave_mm(self) -> float:
        return 2 * (self.free_rad - self.fan_rad) * self.radius_mm / self.half_waves

    @property
    def strain(self) -> float:
        """At the sharpest crest: a strip bent in its own plane."""
        kappa = math.pi * self.half_waves / (2 * (self.free_rad - self.fan_rad))
        return self.stack.thick_mm * max(self.amplitude_mm) * kappa**2 / (2 * self.radius_mm**2)

    def _phase(self, angle: float, free_rad: float) -> tuple[float, float]:
        """How far the waves have come at an angle [rad], nodes at whole multiples of π and crests between them; and how fast that rises."""
        waved = free_rad - self.fan_rad
        turns = math.pi * self.half_waves / (2 * waved)
        wander, around = self.jitter * waved / self.half_waves, math.pi / free_rad
        at = turns * (angle + wander * math.sin(around * angle)) + (math.pi / 2 if self.half_waves % 2 else 0.0)
        return at, turns * (1 + wander * around * math.cos(around * angle))

    def _wave(self, lane: int, angle: float, free_rad: float) -> tuple[float, float]:
        """A lane's swing at an angle, and how fast it changes."""
        at, rises = self._phase(angle, free_rad)
        swing = (1 if lane % 2 else -1) * self.amplitude_mm[lane]
        return swing * math.sin(at), swing * math.cos(at) * rises

    def aside(self, lane: int, angle: float, free_rad: float) -> float:
        """Where a lane lies along the finger at an angle from the top, its free top reaching to ±`free_rad`."""
        packed, place = self.packed_mm[lane], self.places_mm[lane]
        u = max(0.0, min(1.0, (free_rad - abs(angle)) / self.fan_rad))
        wave, _ = self._wave(lane, angle, free_rad)
        return packed + (place - packed + wave) * u * u * (3 - 2 * u)

    def free_mm(self, lane: int, radius_mm: float) -> tuple[float, float]:
        """Length of a lane's free top on a circle of this radius, and half its angle: the soldered part keeps its length."""
        free = math.pi - self.radius_mm * (math.pi - self.free_rad) / radius_mm
        step, part = 2 * free / _PARTS, self.places_mm[lane] - self.packed_mm[lane]
        whole = 0.0
        for k in range(_PARTS):
            # In the middle of each part: √(r² + z′²).
            angle = -free + (k + 0.5) * step
            u = (free - abs(angle)) / self.fan_rad
            wave, slope = self._wave(lane, angle, free)
            if u < 1:
                slope = slope * u * u * (3 - 2 * u) - math.copysign(6 * u * (1 - u) / self.fan_rad, angle) * (part + wave)
            whole += math.hypot(radius_mm, slope)
        return whole * step, free

    def taken_mm(self, lane: int) -> float:
        """What the waves take of a lane's length."""
        return self.free_mm(lane, self.radius_mm)[0] - 2 * self.free_rad * self.radius_mm

    @cached_property
    def reads_mm(self) -> tuple[float, ...]:
        """Radius of each lane's middle line when it is trued round again with its own metal."""
        metal = 2 * self.free_rad * self.radius_mm
        flat = dict[float, float]()
        found = []
        for lane in range(self.stack.rings):
            # Both flat outer rings give up alike.
            known = flat.get(round(abs(self.places_mm[lane]), 6)) if not self.amplitude_mm[lane] else None
            radius = self.radius_mm - self.taken_mm(lane) / (2 * math.pi) if known is None else known
            if known is None:
                for _ in range(2):
                    # All but the waves' own take grows with the radius: 2π a millimetre.
                    radius -= (self.free_mm(lane, radius)[0] - metal) / (2 * math.pi)
                if not self.amplitude_mm[lane]:
                    flat[round(abs(self.places_mm[lane]), 6)] = radius
            found.append(radius)
        return tuple(found)

    def _reached(self, phase: float) -> float:
        """The angle at which the waves have come so far."""
        waved = self.free_rad - self.fan_rad
        return where_it_reaches(phase, lambda angle: self._phase(angle, self.free_rad)[0], -waved, waved)

    @cached_property
    def seam_rad(self) -> float:
        """Where seams in line stand best: at the node nearest the top, which is the top itself with an even number of crests."""
        return self._reached(math.pi) if self.half_waves % 2 else 0.0

    @cached_property
    def seam_clear_mm(self) -> float:
        """From the nearest seam to the crest beside it, along the wire; endless where the seams stand outside the waves."""
        waved = self.free_rad - self.fan_rad
        first = -(self.half_waves // 2)
        crests = [self._reached(math.pi * (k + 0.5)) for k in range(first, first + self.half_waves)]
        seams = [self.seam_rad if seam == 0 else seam for seam in self.stack.seams_rad if abs(seam) < waved]
        return min((abs(seam - crest) * self.radius_mm for seam in seams for crest in crests), default=math.inf)

    @property
    def contacts(self) -> tuple[int, ...]:
        """Per gap between neighbours, where one swings up and the other down."""
        q = self.half_waves
        return tuple((q + 1) // 2 if k % 2 == 0 else q // 2 for k in range(self.stack.rings - 1))

    @property
    def wide_mm(self) -> float:
        """Over all at the top, between the outer lanes' rest lines and their metal."""
        return self.places_mm[-1] - self.places_mm[0] + self.stack.thick_mm

    @property
    def window_mm(self) -> float:
        """Largest round setting between a waved lane and its neighbour."""
        a = max(self.amplitude_mm)
        both = sum(1 for x, y in pairwise(self.amplitude_mm) if x and y)
        if not both:
            return 2 * a
        t, wave = self.stack.thick_mm, 2 * self.half_wave_mm
        least = min(
            2 * (math.hypot(x, t / 2 + a + a * math.cos(2 * math.pi * x / wave)) - t / 2) for x in (wave / 2 * k / 40 for k in range(41))
        )
        return min(4 * a, least)


@lru_cache(maxsize=128)
def _waves(stack: Stack, half_waves: int, amplitudes: tuple[float, ...], fan: float, free: float, jitter: float) -> Waves:
    """The same waves are asked for by every plan of a ring whose other parts change."""
    return Waves(stack, half_waves, amplitudes, fan, free, jitter)


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
        needed = fan + self.half_waves * 1.2 * _JAW_MM / (2 * radius)
        free = max(math.pi - stack.soldered_rad / 2, needed)
        if free > math.pi - stack.least_rad / 2:
            room = (math.pi - stack.least_rad / 2 - fan) * 2 * radius
            most = math.floor(room / (1.2 * _JAW_MM))
            text = say(
                "the waves need {need} of free top, there are {room}", need=Length(self.half_waves * 1.2 * _JAW_MM), room=Length(room)
            )
            refuse("head.half_waves", text, say("{n}, or a larger ring", n=Count(max(1, most), "crest", "crests")))
        flat = self.flat_ends
        amplitudes = tuple(0.0 if flat and k in (0, stack.rings - 1) else self.amplitude_mm for k in range(stack.rings))
        # Always the same crests for the same number: a sine of it, scrambled.
        wander = math.modf(abs(math.sin(self.arrangement * 12.9898)) * 43758.5453)[0] * 2 - 1
        waves = _waves(stack, self.half_waves, amplitudes, fan, free, self.jitter_share * wander)
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
        aside = waves.seam_rad * radius if stack.seams_rad == (0.0,) else 0.0
        return Opening(foot_rad=foot, seam_mm=aside, effect=Effect(TAKEN, change, phase="head"), facts=waves)

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        waves: Waves = opening.facts
        worked = next(p.worked for p in band.pieces[0].moves if p.move.kind == "arc")
        metal = 2 * waves.free_rad * waves.radius_mm
        through = {}
        for slot in band.slots:
            way = partial(
                _lane, waves, slot.lane, band.inside_mm / 2 + waves.stack.wide_mm / 2, opening.foot_rad, metal, slot.left, slot.right
            )
            lane = Course("waved" if waves.amplitude_mm[slot.lane] else "flat", way, Say("the ring's own metal over the free top"))
            through[slot.lane] = (Placed(f"head.lane.{slot.lane + 1}", lane, worked=worked),)
        return HeadWork(through=through, ledger=band.ledger, tied=True, height_mm=band.thickness_mm, facts=waves)

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
        waves: Waves = work.facts
        ids = tuple(p.id for led in work.through.values() for p in led)
        total = sum(waves.contacts)
        out = max(waves.places_mm)
        tasks = [
            Task(
                "part",
                Phase.HEAD,
                say(
                    "Work a thin blade between the rings at the top, from the middle towards the solder, and ease them apart; the outer rings furthest, {out} from the middle.",
                    out=Thickness(out),
                ),
                checks=(look("The solder's ends aren't torn.", "Solder them again before going on."),),
                cautions=(cautions.SAW,),
                stage="waves",
            ),
            Task(
                "lever",
                Phase.HEAD,
                say(
                    "Fine round-nose pliers: one jaw in the hollow, the other {jaw} on, don't squeeze, twist. Begin at the solder; the next bite the other way, one jaw in the curve just made: "
                    "{crests}, {swing} to each side, {half} from crest to crest. Then the next ring, its first bite turned against its neighbour's.",
                    jaw=Thickness(_JAW_MM),
                    crests=Count(self.half_waves, "crest", "crests"),
                    swing=Thickness(self.amplitude_mm),
                    half=Length(waves.half_wave_mm),
                ),
                makes=ids,
                checks=(
                    look(
                        say("Crest meets crest at {n} in all.", n=Count(total, "place", "places")),
                        "Move single crests by a hair: contacts first.",
                    ),
                ),
                count=self.half_waves,
                stage="waves",
            ),
            Task(
                "touch",
                Phase.HEAD,
                say(
                    "Ease the rings together until every contact closes, then level the top on the mandrel with light taps until it lies round.",
                ),
                checks=(Check(say("Against the light no contact shows a gap over {gap}.", gap=Thickness(0.1))), reads(0.2)),
                cautions=(cautions.HAMMER,),
                stage="waves",
            ),
            Task(
                "solder-contacts",
                Phase.HEAD,
                say(
                    "Flux on the contacts only, a chip of {solder} solder on each of {n}, heat the whole top evenly and quickly.",
                    solder=self.contact_solder,
                    n=Count(total, "contact", "contacts"),
                ),
                checks=(look("Each is filled from above and inside; the back hasn't moved.", "A dry one: flux again, one more chip."),),
                cautions=(cautions.TORCH, cautions.FLUX),
                count=total,
                stage="solder",
            ),
            Task("pickle-top", Phase.HEAD, Say("Quench, pickle, rinse."), cautions=(cautions.PICKLE,), stage="pickle"),
        ]
        if self.settings:
            says = say(
                "Stand {n} of {tube} in the windows, each touching the lanes on both sides. Flux only there, a chip of easy solder each; "
                "warm the whole top until they flash. Then quench, pickle and rinse again.",
                n=Count(self.settings.count, "tube", "tubes"),
                tube=Article(Thickness(self.settings.diameter_mm)),
            )
            stands = look("Each stands upright and is held on both sides; no contact has opened.", "Flux again, one more chip.")
            care = (cautions.TORCH, cautions.FLUX, cautions.PICKLE)
            tasks.append(Task("settings", Phase.HEAD, says, checks=(stands,), cautions=care, count=self.settings.count, stage="solder"))
        tasks.append(
            Task(
                "clean-top",
                Phase.ROUND,
                Say(
                    "Clean joints and plier marks only; don't file the top flat; a thin abrasive disc in the windows, then finer; polish or tumble."
                ),
                cautions=(cautions.GRIND,),
                stage="finish",
            )
        )
        return tasks


def _lane(waves: Waves, lane: int, radius: float, foot: float, metal: float, first: Point3, last: Point3) -> list[Point3]:
    """A lane over the free top, from its left foot to its right one; what it has over stands proud in the middle."""

    steps = 3 * _PARTS
    # Where it lies along the finger, and how far a bulge reaches out there, whatever the bulge is.
    angles = [-foot + 2 * foot * k / steps for k in range(steps + 1)]
    asides = [waves.aside(lane, angle, foot) for angle in angles]
    bulges = [math.cos(math.pi * angle / (2 * foot)) ** 2 for angle in angles]

    def at(proud: float) -> list[Point3]:
        points = [on_circle(radius + proud * bulge, angle, z) for angle, z, bulge in zip(angles, asides, bulges, strict=True)]
        points[0], points[-1] = first, last
        return points

    return at(where_it_reaches(metal, lambda proud: along_mm(at(proud)), 0.0, 2.0))
