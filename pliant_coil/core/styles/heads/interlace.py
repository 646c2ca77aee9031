"""Interlace: the four ends of a band of two base wires cross over and under into a knot, and lock at the far shoulders."""

import math
from functools import lru_cache, partial
from typing import ClassVar, Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import Bundle, row_at
from pliant_coil.core.mechanics.roots import where_it_reaches
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import Cause, Move, Obstacle, on_circle
from pliant_coil.core.moves.passing import Course
from pliant_coil.core.moves.placed import Fate, Placed
from pliant_coil.core.moves.straight import Straight
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import LOCKS, End, Form, FormedBand, HeadWork, Opening, Side, Top, Warn, Wires
from pliant_coil.core.styles.parameters import choice, millimetres, number
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.trade.sizes import MandrelMark
from pliant_coil.core.words.figures import Degrees, Length, Thickness, Times, Tolerance
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

DIPS = Cause("knot-inside", "knot wires that pass under others")
_SAMPLES = 96
_OVER: dict[tuple[Side, bool], tuple[int, int, int, int]] = {
    ("left", False): (1, -1, 1, -1),
    ("left", True): (-1, 1, -1, 1),
    ("right", False): (-1, 1, -1, 1),
    ("right", True): (1, -1, 1, -1),
}
"""Over (+1) or under (−1) at the start, the middle, three quarters of the way and the end, by side and by upper or lower lane, for a knot
whose right lower end lies on top: along each wire the signs alternate."""
_STATIONS = (0.0, 0.5, 0.75, 1.0)


@dataclass(frozen=True)
class Knot:
    """The plan of the knot: lanes at ±b, and z(u) = ∓(b·cos πu + h·sin πu + q·sin 2πu), which crosses the middle line at u = ¾ [mm]."""

    radius_mm: float
    half_rad: float
    lane_mm: float
    bulge_mm: float

    @property
    def skew_mm(self) -> float:
        """q, so that an end meets its own side's other wire at three quarters of the way, on the middle line."""
        return (self.bulge_mm - self.lane_mm) / math.sqrt(2)

    def aside(self, u: float) -> float:
        """How far beside the middle line an upper end lies, u of the way across."""
        return self.lane_mm * math.cos(math.pi * u) + self.bulge_mm * math.sin(math.pi * u) + self.skew_mm * math.sin(2 * math.pi * u)

    @property
    def widest_mm(self) -> float:
        """max |z| over the way."""
        return max(abs(self.aside(k / _SAMPLES)) for k in range(_SAMPLES + 1))

    @property
    def sharpest_mm(self) -> float:
        """Least radius of the way, unrolled."""
        along = 2 * self.half_rad * self.radius_mm / _SAMPLES
        least = math.inf
        for k in range(1, _SAMPLES):
            before, here, after = (self.aside((k + j) / _SAMPLES) for j in (-1, 0, 1))
            slope, bend = (after - before) / (2 * along), (after - 2 * here + before) / along**2
            least = min(least, (1 + slope**2) ** 1.5 / abs(bend) if bend else math.inf)
        return least


def knot_for(radius_mm: float, arc_mm: float, lane_mm: float, widest_mm: float) -> Knot:
    """The knot whose wires reach `widest_mm` to both sides of the middle line, on a circle of `radius_mm` over `arc_mm`."""
    return Knot(radius_mm, arc_mm / 2 / radius_mm, lane_mm, _bulge_mm(lane_mm, widest_mm))


@lru_cache(maxsize=64)
def _bulge_mm(lane_mm: float, widest_mm: float) -> float:
    """h: how wide a knot reaches has nothing to do with its circle."""
    return where_it_reaches(widest_mm, lambda h: Knot(1.0, 1.0, lane_mm, h).widest_mm, lane_mm, 2 * widest_mm + lane_mm, close=1e-9)


class Interlace(HeadStyle):
    """A knot of the band's four ends."""

    title: ClassVar[str] = "Interlace"
    hides_splice = ""
    usual_locks: ClassVar[int] = 1
    least_locks: ClassVar[int] = 1
    style: Literal["interlace"] = choice("interlace", "Head")
    knot_arc_mm: float = millimetres(18.0, "Knot's length", 8, 32, "Along the band, from shoulder to shoulder.")
    knot_width_mm: float = millimetres(9.0, "Knot's width", 4, 18, "Across the finger, outside to outside.")
    on_top: Literal["right", "left"] = choice("right", "On top at the first crossing", "Which lower end.", rare=True)
    lock_on: Literal["bare", "weave"] = choice("bare", "Locks lie", "On bare wire beside the weave, or over its last wraps.")
    strand_wires: int = number(1, "Wires a strand", 1, 2, "Two side by side as one: a band of four base wires.", rare=True)
    work_mm: float = millimetres(40.0, "Extra to hold", 15, 70, "The knot is laid wide on long ends and drawn in.", rare=True)

    def fits(self, band: BandStyle) -> Say:
        missing = lacks(band, Top.GAP)
        if missing:
            return missing
        needed = 2 * self.strand_wires
        if "weave" not in band.roles() or band.ends_each_side() != needed:
            return say("this knot takes {n} base wires, {ends} ends", n=str(needed), ends=str(2 * needed))
        return Say("")

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        base = wires["base"]
        wire_mm = base.height_mm
        # Two wires side by side cross as one that is twice as wide.
        d = self.strand_wires * wire_mm
        if form.locks < 1:
            refuse("finish.wraps_each_side", "the knot opens without locks", "1 or 2 wraps each side")
        if self.knot_arc_mm < 14 * d - 1e-9:
            refuse("head.knot_arc_mm", "too short a crossing to draw in", say("{least} or more", least=Length(math.ceil(14 * d))))
        if self.knot_width_mm < 7 * d - 1e-9:
            refuse(
                "head.knot_width_mm",
                say("the inner crossings run into one another with {wire} wire", wire=base.gauge),
                say("{least} or more, or finer wire", least=Thickness(math.ceil(70 * d) / 10)),
            )
        radius = band.centre_line_mm(form.diameter_mm, wires)
        if self.knot_arc_mm > 0.4 * 2 * math.pi * radius or self.knot_arc_mm / 2 / radius > math.radians(80):
            most = math.floor(min(0.8 * math.pi, 2 * math.radians(80)) * radius)
            refuse("head.knot_arc_mm", "the knot takes too much of the ring", say("{most} or less", most=Length(most)))
        pitch = self._pitch(band, wires)
        widest = (self.knot_width_mm - wire_mm - (self.strand_wires - 1) * pitch) / 2
        knot = knot_for(radius, self.knot_arc_mm, self.strand_wires * pitch / 2, widest)
        least = (2 if base.temper == "soft" else 3) * d
        if knot.sharpest_mm < least:
            refuse(
                "head.knot_width_mm",
                say("the curves are too tight for {wire} wire", wire=base.gauge),
                "a wider or a longer knot, or finer wire",
            )
        bare = 2 * self.strand_wires * form.locks * wire_mm + 0.5 if self.lock_on == "bare" else 0.0
        return Opening(gap_rad=knot.half_rad, bare_mm=bare, facts=knot)

    def _pitch(self, band: BandStyle, wires: Wires) -> float:
        """From one base wire's middle to the next one's."""
        gap = getattr(band, "base_gap_mm", None)
        return wires["base"].width_mm + (wires["weave"].width_mm if gap is None else gap)

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        # Formed, the band may lie on a slightly different circle than it was asked for.
        knot: Knot = Knot(
            band.inside_mm / 2 + opening.facts.radius_mm - form.diameter_mm / 2,
            opening.facts.half_rad,
            opening.facts.lane_mm,
            opening.facts.bulge_mm,
        )
        onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
        ends = [end for end in band.ends if end.role != "weave"]
        arrived = {"left": 0, "right": 0}
        for end in sorted(ends, key=lambda e: (e.side, e.lane)):
            far = "left" if end.side == "right" else "right"
            onward[end.key] = self._end(form, band, wires, knot, end, before=arrived[far], lanes=sorted({round(e.at[2], 9) for e in ends}))
            arrived[far] += 1
        d = band.strand_wire.height_mm
        return HeadWork(onward=onward, ledger=band.ledger, tied=True, height_mm=1.5 * d + wires["weave"].height_mm + d / 2, facts=knot)

    def _signs(self, end: End) -> tuple[int, ...]:
        signs = _OVER[end.side, end.at[2] > 0]
        return signs if self.on_top == "right" else tuple(-s for s in signs)

    def _end(
        self, form: Form, band: FormedBand, wires: Wires, knot: Knot, end: End, *, before: int, lanes: list[float]
    ) -> tuple[Placed, ...]:
        """Across the top to the far shoulder, round all base wires there, past the `before` that came there first, and what was held."""
        d, w = end.wire.height_mm, wires["weave"].height_mm
        backwards = end.which == "first"
        signs = self._signs(end)
        went = 1 if end.side == "left" else -1
        depth = d - w if self.lock_on == "bare" else d
        grown = d / 2 if self.lock_on == "bare" else d / 2 + w
        from_rad = went * (knot.half_rad + before * form.locks * d / knot.radius_mm)
        dips, wide = max(0.0, d / 2 - w), d / knot.radius_mm
        inside = tuple(
            Obstacle(DIPS, at - wide, at + wide, dips)
            for sign, u in zip(signs[:3], _STATIONS, strict=False)
            if sign < 0 and dips > 0
            for at in (went * knot.half_rad * (2 * u - 1),)
        )
        upper = end.at[2] > 0
        # Beside its twin in a strand of two; alone it is the strand.
        beside = end.at[2] - (knot.lane_mm if upper else -knot.lane_mm)
        z_end = beside + (-knot.lane_mm if upper else knot.lane_mm)
        wrap = Wrap(
            "lock",
            form.locks,
            Bundle(row_at(end.wire.profile, tuple(lanes)).points, grown),
            end.wire.profile,
            knot.radius_mm - d / 2,
            from_rad,
            went,
            start=(z_end, d / 2 + signs[-1] * 1e3),
            inside_mm=depth,
            cause=LOCKS,
            host="all base wires" if len(lanes) > 2 else "both base wires",
            # Coming in under both wires it begins and ends inside.
            inside_to=form.locks + 0.6 if signs[-1] < 0 else None,
        )
        way = Course(
            "knot",
            partial(_way, knot, went, upper, signs, d, math.hypot(*wrap.begins[:2]), beside),
            Say("across the top, over and under: the length of the curve"),
            inside=inside,
        )
        x, y, z = wrap.ends
        angle = math.atan2(x, y)
        tip = (x + self.work_mm * math.sin(angle), y + self.work_mm * math.cos(angle), z)
        shoulder = went * knot.half_rad
        # Past the wraps that lie there already, at the height at which its own begin.
        on = Arc("beside the first", math.hypot(*wrap.begins[:2]), shoulder, from_rad - shoulder, z_end, z_end)
        found: list[tuple[str, Move, Fate]] = [("knot", way, Fate.RING)]
        if from_rad != shoulder and (before > 1 or form.locks > 1):
            found.append(("on", on, Fate.RING))
        found += [("lock", wrap, Fate.RING), ("held", Straight("held", wrap.ends, tip), Fate.TRIM)]
        return tuple(Placed(f"{end.name}.{name}", move, fate=fate, backwards=backwards) for name, move, fate in found)

    def phrase(self, band: BandStyle) -> Say:
        return say("its ends knotted {wide} wide", wide=Thickness(self.knot_width_mm))

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        if self.work_mm >= 25:
            return []
        return [
            Warn(
                "ends-short", Say("Ends this short can't be laid wide and drawn in: lay the knot at its width with pliers."), "head.work_mm"
            )
        ]

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        knot: Knot = work.facts
        moves = [p for led in work.onward.values() for p in led]
        knots = tuple(p.id for p in moves if p.id.endswith(("knot", "on")))
        locks = [p.id for p in moves if p.id.endswith("lock")]
        ring = MandrelMark(band.form.diameter_mm)
        right, left = ("right", "left") if self.on_top == "right" else ("left", "right")
        slope = math.atan2((knot.bulge_mm + 2 * knot.skew_mm) * math.pi, 2 * knot.half_rad * knot.radius_mm)
        lock = next(p.move for p in moves if p.id.endswith("lock"))
        return [
            Task(
                "part",
                Phase.HEAD,
                say(
                    "Part the two ends of each side with a finger, about {angle} outwards, and bring the tips back in a soft curve: no pliers.",
                    angle=Degrees(slope),
                ),
                checks=(look("Both sides alike."),),
                stage="knot",
            ),
            Task(
                "lay",
                Phase.HEAD,
                say(
                    "{pairs}Open the ring a little and lay the knot about twice as wide as it will be. Lower ends first, {right} over {left}, its tip between the two {left} ends. "
                    "The {right} upper: under {left} upper, over {right} lower, down between the two {left} ends. Then the {left} ends into the {right} side: lower over its own upper and "
                    "down under the {right} upper's root; upper over the {right} lower's root.",
                    right=right,
                    left=left,
                    pairs=Say("Two wires go side by side as one, and none rides on its twin. ") if self.strand_wires > 1 else Say(""),
                ),
                checks=(
                    look(
                        "Follow each wire with a finger: over, under, over, under.",
                        "Lift the end out as far as the wrong crossing, smooth it, and go in again.",
                    ),
                ),
                stage="knot",
            ),
            Task(
                "draw-in",
                Phase.HEAD,
                say("On the mandrel at {ring} draw the ends in, one at a time, a little each, round and round.", ring=ring),
                makes=knots,
                checks=(
                    Check(
                        say(
                            "{wide} wide, within {off}, left as right and upper as lower.",
                            wide=Thickness(self.knot_width_mm),
                            off=Tolerance(0.5),
                        ),
                        Say("A flat curve: push it out from inside with nose pliers, don't pull more."),
                    ),
                    reads(0.15),
                ),
                stage="knot",
            ),
            *(
                Task(
                    f"lock-{side}",
                    Phase.LOCK,
                    say(
                        "Off the mandrel, pinch the knot. On {the} side take the first end {times} round {all} base wires {where}, in through the ring and back to its own side; "
                        "{others} the other way round, just below it. Cut each where it meets itself, {lock} from the shoulder, and press it flush.",
                        the="one" if side == "right" else "the other",
                        times=Times(band.form.locks),
                        all="both" if self.strand_wires == 1 else "all four",
                        others="the second" if self.strand_wires == 1 else "then the others, in turn",
                        where="beside the weave" if self.lock_on == "bare" else "over the weave's last wraps",
                        lock=Length(lock.length_mm),
                    ),
                    makes=tuple(i for i in locks if i.startswith("left" if side == "right" else "right")),
                    checks=(
                        look("The knot hasn't moved.", "Put it right now, before any cut."),
                        *((reads(0.15),) if side == "left" else ()),
                    ),
                    cautions=(cautions.LAST_EASY, cautions.CUT) if side == "right" else (cautions.CUT,),
                    stage="lock",
                )
                for side in ("right", "left")
            ),
        ]


_STAYS = 0.3
_SWINGS = 0.12
"""Share of the way in which two wires of a strand come to lie beside each other across their way, not across the band."""


def _way(knot: Knot, went: int, upper: bool, signs: tuple[int, ...], d: float, ends_mm: float, beside: float = 0.0) -> list[Point3]:
    """From the own shoulder to the far one, `beside` the middle of its strand."""
    points = []
    along = 2 * knot.half_rad * knot.radius_mm
    for k in range(_SAMPLES + 1):
        u = k / _SAMPLES
        j = next(i for i in range(3) if u <= _STATIONS[i + 1] + 1e-12)
        share = (u - _STATIONS[j]) / (_STATIONS[j + 1] - _STATIONS[j])
        if beside:
            # Strands of two cross over a longer stretch: each stays up or down for as long.
            share = min(1.0, max(0.0, (share - _STAYS) / (1 - 2 * _STAYS)))
        sign = signs[j] + (signs[j + 1] - signs[j]) * (1 - math.cos(math.pi * share)) / 2
        height = sign * d / 2
        if j == 2:
            # It ends where its lock begins, under or over both base wires.
            height += (ends_mm - knot.radius_mm - signs[3] * d / 2) * (1 - math.cos(math.pi * share)) / 2
        angle, z = went * knot.half_rad * (2 * u - 1), (1 if upper else -1) * knot.aside(u)
        if beside:
            across = (
                (1 if upper else -1)
                * went
                * (knot.aside(min(1.0, u + 0.01)) - knot.aside(max(0.0, u - 0.01)))
                / (min(1.0, u + 0.01) - max(0.0, u - 0.01))
            )
            turned = math.atan2(across, along) * min(1.0, u / _SWINGS, (1 - u) / _SWINGS)
            angle -= beside * math.sin(turned) / knot.radius_mm
            z += beside * math.cos(turned)
        points.append(on_circle(knot.radius_mm + height, angle, z))
    return points
