"""Swirl: no stone; the band's ends sweep across the top in opposite directions, bare in a scroll, or bound into a face."""

import math
from collections.abc import Mapping
from functools import partial
from typing import ClassVar, Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.face import Face
from pliant_coil.core.moves.base import Move, on_circle
from pliant_coil.core.moves.hoop_wrap import Hoop, HoopWrap
from pliant_coil.core.moves.loop import Loop, Scroll
from pliant_coil.core.moves.passing import Course, off_band
from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.moves.stitch import Hitch
from pliant_coil.core.moves.straight import Lead
from pliant_coil.core.styles.beads import lead_start
from pliant_coil.core.styles.contract import BandStyle, HeadStyle
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, HeadWork, Ledger, Opening, Side, Top, Warn, Wires
from pliant_coil.core.styles.heads.swirl import steps
from pliant_coil.core.styles.locks import edge_of, led_to, wrap_at
from pliant_coil.core.styles.parameters import choice, degrees, millimetres, number
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.figures import Count, Degrees, Length
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

Sweep = Literal["across-bound", "across", "round", "straight", "cut"]
_USUAL: Mapping[int, tuple[Sweep, ...]] = {
    3: ("across-bound", "across", "round"),
    4: ("across-bound", "across", "round", "straight"),
    5: ("across-bound", "across", "round", "straight", "cut"),
    6: ("across-bound", "across", "round", "straight", "cut", "cut"),
}
_TUCK_MM = 3.0
_SQUARES = {1: "one square", 2: "two"}
_MOST_FREE = 2
"""Ends a side that sweep past those of the other in the open."""


@dataclass(frozen=True)
class Facts:
    face: Face | None = None
    reach_rad: float = 0.0
    coils: int = 0
    sweeps: tuple[Sweep, ...] = ()


class Swirl(HeadStyle):
    """Ends that sweep across the top."""

    title: ClassVar[str] = "Swirl"
    hides_splice = ""
    usual_locks: ClassVar[int] = 1
    style: Literal["swirl"] = choice("swirl", "Head")
    form: Literal["bypass", "face"] | None = choice(
        None, "Its ends", "Past each other in the open, or a bundle's bound into a face: by the band unless given.", rare=True
    )
    reach_deg: float = degrees(35.0, "Sweeps past the top by", 17, 80)
    side_mm: float | None = millimetres(None, "Sideways", 1, 5, "Half the band's width unless given.")
    rise_mm: float | None = millimetres(None, "Over the band by", 0, 3, "A wire's thickness unless given.", rare=True)
    end: Literal["scroll", "hook", "ball"] = choice("scroll", "Each ends in a")
    scroll_turns: float = number(1.5, "Turns of a scroll", 1, 2.5, rare=True)
    sweeps: tuple[Sweep, ...] = choice(
        (), "A face's sweeps", "Of a bundle's ends, from the middle outwards; the usual ones unless given.", rare=True
    )
    hook_deg: float = degrees(180.0, "Hooks round the foot by", 90, 270, "Of a face.", rare=True)
    tie_after_coils: int | None = number(None, "Coils before the tie", 1, 20, "Half of those that fit unless given.", rare=True)
    tie_coils: int = number(3, "Coils of the tie", 1, 4, "Round two ends of a face.", rare=True)
    tuck: Literal["through", "under-own"] = choice("under-own", "Squares tucked", "Against the band, or once through the ring.", rare=True)

    def fits(self, band: BandStyle) -> Say:
        if self._is_open(band) and band.ends_each_side() > _MOST_FREE:
            return say("{n} on each side can't sweep past each other in the open", n=Count(band.ends_each_side(), "end", "ends"))
        if {Top.TAILS, Top.ENDS, Top.GAP} & band.tops():
            return Say("")
        return Say("it has no tails, no ends at a gap and none beside its join to sweep across")

    def _is_face(self, band: BandStyle) -> bool:
        return Top.ENDS in band.tops()

    def _is_open(self, band: BandStyle) -> bool:
        """A band that ends on both sides of the top: its ends sweep past each other, and nothing ties them."""
        return Top.GAP in band.tops() and not {Top.TAILS, Top.ENDS} & band.tops()

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        reach = math.radians(self.reach_deg)
        if self.form is not None and (self.form == "face") != self._is_face(band):
            if self.form == "face":
                refuse("head.form", "a face is bound of ends that stand up beside a join", "bypass, or a bundled band")
            refuse("head.form", "so many ends can't sweep past each other in the open", "face")
        if self._is_face(band):
            return Opening(end_mm=(1.0,), facts=Facts(reach_rad=reach))
        if self._is_open(band):
            return Opening(gap_rad=reach, facts=Facts(reach_rad=reach))
        foot = reach if Top.THROUGH not in band.tops() and Top.TAILS in band.tops() else 0.0
        return Opening(foot_rad=foot, shoulder_rad=reach, across=True, facts=Facts(reach_rad=reach))

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        if opening.end_mm:
            return self._face(band, wires, opening)
        onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
        ledger = band.ledger
        free = opening.gap_rad is not None
        locks = 0 if free else form.locks
        for end in band.ends:
            if free and end.role == "weave":
                continue
            outwards = self._outwards(band, end) if free else (0, 0.0)
            led, ledger = self._bypass(locks, band, opening, _at_foot(band, end), ledger, *outwards)
            onward[end.key] = led
        d = band.strand_wire.height_mm
        rise = d if self.rise_mm is None else self.rise_mm
        return HeadWork(
            onward=onward, ledger=ledger, tied=band.tied or bool(locks), height_mm=band.thickness_mm + rise + d, facts=opening.facts
        )

    def _outwards(self, band: FormedBand, end: End) -> tuple[int, float]:
        """How many ends of its side lie between an end and the middle, and by how much it has to keep away from them besides [mm]."""
        own = lead_start(end)[2]
        beside = [e for e in band.ends if (e.side, e.role) == (end.side, end.role)]
        inside = [z for e in beside if ((z := lead_start(e)[2]), e.lane) > (own, end.lane)]
        return len(inside), max(0.0, len(inside) * end.wire.width_mm - (max(inside, default=own) - own))

    def _ending_mm(self, w: float) -> float:
        """How much room an end's scroll, hook or ball takes along the sweep."""
        scroll = 2 * w * (1 + 1.15 * self.scroll_turns) + w
        return {"scroll": scroll, "hook": 4 * w, "ball": 2 * w}[self.end]

    # Bypass: bare ends past each other, each in a scroll.

    def _bypass(
        self, locks: int, band: FormedBand, opening: Opening, end: End, ledger: Ledger, inside: int = 0, apart: float = 0.0
    ) -> tuple[tuple[Placed, ...], Ledger]:
        """A tail bound first where it is wanted, over the top to the other side, and its end; seen as if it came up on the left."""
        facts: Facts = opening.facts
        d = end.wire.height_mm
        backwards, turned = end.which == "first", end.side == "right"
        found: list[Placed] = []
        name = end.side if end.name == "long" else end.name
        if locks:
            # Bound before it sweeps: the wraps lie where the tail came up.
            flip = end.side == "left"
            angle = math.atan2(abs(end.at[0]), end.at[1])
            wrap = wrap_at(band, end.wire, locks, max(angle, ledger.of(end.side).free_rad), edge=edge_of(band, end), turned=flip)
            way_there = led_to(wrap, end, flip)
            if way_there:
                found.append(Placed(f"{name}.to-lock", way_there, turned=flip, backwards=backwards))
            found.append(Placed(f"{name}.lock", wrap, turned=flip, backwards=backwards))
            ledger = ledger.wrapped(end.side, locks, wrap.from_rad + wrap.advance_mm / (band.inside_mm / 2))
            x, y, z = wrap.ends
            end = _standing(end, (-x, y, -z) if flip else (x, y, z))
        rise = d if self.rise_mm is None else self.rise_mm
        top = band.inside_mm / 2 + band.thickness_mm + rise + d / 2
        # Several ends a side pass those of the other side as a whole.
        usual = band.width_mm / 2 if opening.gap_rad is None else band.width_mm
        side = usual if self.side_mm is None else self.side_mm
        start = lead_start(end)
        # The one outside ends first, so that the next one's scroll finds room.
        reach = facts.reach_rad - inside * (self._ending_mm(end.wire.width_mm) + d) / top
        way = partial(_swept, _lifted(start, band.inside_mm / 2 + d / 2), reach, top, side, apart)
        course = Course("sweep", way, Say("across the top, rising and going aside: the length of the curve"))
        found.append(Placed(f"{name}.sweep", course, turned=turned, backwards=backwards))
        tip = way()[-1]
        along = (math.cos(reach), -math.sin(reach), 0.0)
        ending = self._ending(end, tip, along)
        if ending:
            found.append(Placed(f"{name}.end", ending, turned=turned, backwards=backwards))
        return tuple(found), ledger

    def _ending(self, end: End, at: Point3, along: Point3) -> Move | None:
        w = end.wire.width_mm
        if self.end == "scroll":
            return Scroll("scroll", w, 1.15 * w, self.scroll_turns, at, along, (0.0, 0.0, -1.0))
        return Loop("hook", 2 * w, w, at, along, (0.0, 0.0, -1.0), 0.5) if self.end == "hook" else None

    # Face: a bundle's ends, bound and laid side by side across the middle, framed in an oval.

    def sweeps_of(self, strands: int) -> tuple[Sweep, ...]:
        """For each end of a side, from the middle outwards."""
        if self.sweeps and len(self.sweeps) != strands:
            refuse(
                "head.sweeps",
                say("there are {n} on each side", n=Count(strands, "end", "ends")),
                "as many sweeps, or none for the usual ones",
            )
        return self.sweeps or _USUAL[max(3, min(6, strands))][:strands]

    def _face(self, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        base, bind = wires["base"], wires["bind"]
        n = band.strands
        lap = getattr(band.facts, "lap_mm", 6.0)
        joined = 2 * base.height_mm + 2 * bind.height_mm
        face = Face(base.width_mm, bind.profile, n, lap / 2 / (band.inside_mm / 2 + joined), band.inside_mm)
        if face.across_mm() < 1.5 * face.coil_mm:
            need = 1.5 * face.coil_mm / face.radius_mm * (band.inside_mm / 2 + joined)
            refuse("band.lap_mm", "there is no room for the face", say("a join of {need} or more", need=Length(math.ceil(need))))
        hook = math.radians(self.hook_deg)
        sweeps = self.sweeps_of(n)
        fit = face.coils_that_fit(hook)
        onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
        for end in band.ends:
            name = f"{end.side}.{end.lane + 1}"
            backwards = end.which == "first"
            if end.role == "bind":
                moves = self._coils(face, end.side, fit, sweeps)
                onward[end.key] = tuple(Placed(f"bind.{end.side}.{part}", move, backwards=backwards) for part, move in moves)
                continue
            led = self._swept_end(face, end, sweeps[end.lane], hook, outside="across-bound" in sweeps[: end.lane])
            onward[end.key] = tuple(Placed(f"{name}.{part}", move, backwards=backwards) for part, move in led)
        height = joined + face.coil_mm
        return HeadWork(
            onward=onward, ledger=band.ledger, tied=True, height_mm=height, facts=Facts(face, opening.facts.reach_rad, fit, sweeps)
        )

    def _swept_end(self, face: Face, end: End, sweep: Sweep, hook: float, *, outside: bool) -> list[tuple[str, Move]]:
        if sweep == "cut":
            return []
        s, q = face.square_mm, face.coil_mm
        tuck = face.joined_mm + face.strands * s + _TUCK_MM if self.tuck == "through" else s + _TUCK_MM
        # From its own foot to the other one, on the face; the left side is the same turned half round.
        sign = -1 if end.side == "left" else 1
        z = {"across-bound": q / 2, "across": q + s / 2, "round": face.foot_mm / 2 + s, "straight": q + 1.5 * s}[sweep]
        over = partial(_laid, face.radius_mm, face.half_rad, sign, -sign * z)
        found: list[tuple[str, Move]] = []
        if sweep.startswith("across"):
            bound = sweep == "across-bound"
            found = [
                ("rise", Hitch("rise", face.rise_mm, Say("a quarter bend at the foot"))),
                ("across", Course("across", over, Say("from foot to foot"))),
                (
                    "hook",
                    Hitch(
                        "hook", face.hook_mm(hook, outside=outside and not bound), say("{angle} round the other foot", angle=Degrees(hook))
                    ),
                ),
                ("tuck", Hitch("tuck", q if bound else tuck, Say("tucked against the band"))),
            ]
        elif sweep == "round":
            found = [
                # Bare, round a jaw of half its own size.
                ("rise", Hitch("rise", math.pi / 2 * s, Say("a quarter bend at the foot"))),
                ("round", Course("round", partial(_oval, face, sign), Say("half an oval round the face"))),
                ("tuck", Hitch("tuck", tuck, Say("tucked against the band"))),
            ]
        else:
            straight = partial(_laid, face.radius_mm - q / 2 + s / 2, face.half_rad, sign, -sign * z)
            found = [
                ("up", Lead("up", end.at, straight()[0])),
                ("straight", Course("straight", straight, Say("from foot to foot beside the coils"))),
                ("tuck", Hitch("tuck", _TUCK_MM, Say("turned under"))),
            ]
        return found

    def wound(self, fit: int, sweeps: tuple[Sweep, ...]) -> tuple[int, int, int]:
        """Coils round the first end alone, round it and the next one, and round the first alone again: as many as fit."""
        tied = min(self.tie_coils, fit) if "across" in sweeps else 0
        alone = fit - tied
        before = alone // 2 if self.tie_after_coils is None else min(self.tie_after_coils, alone)
        return before, tied, alone - before

    def _coils(self, face: Face, side: Side, fit: int, sweeps: tuple[Sweep, ...]) -> list[tuple[str, Move]]:
        """The binder's coils in the order in which they are wound: those that lie on the face are drawn, those round the foot aren't."""
        if "across-bound" not in sweeps:
            return []
        sign = -1 if side == "left" else 1
        hoop = Hoop((0.0, 0.0, 0.0), face.radius_mm, (0.0, 0.0, 1.0), (0.0, 1.0, 0.0))
        room = math.floor(face.across_mm() / face.bind.width_mm)
        found: list[tuple[str, Move]] = [("rise", Hitch("rise", face.rise_mm, Say("a quarter bend at the foot")))]
        gone = 0
        for name, coils, squares in zip(("coils", "tie", "rest"), self.wound(fit, sweeps), (1, 2, 1), strict=True):
            drawn = min(coils, max(0, room - gone))
            if drawn:
                # Hoop angles count against the ring's.
                step = sign * face.bind.width_mm / face.radius_mm
                bundle = face.squares_at(-sign * face.coil_mm / 2, squares, -sign)
                found.append(
                    (name, HoopWrap(name, drawn, bundle, face.bind, hoop, -sign * face.half_rad + step * gone, step, host="a square"))
                )
            if coils > drawn:
                each = face.loop_mm(squares)
                why = say(
                    "{n} × {each} round {squares}, round the foot", n=str(coils - drawn), each=Length(each), squares=_SQUARES[squares]
                )
                found.append((f"{name}.foot", Hitch(name, (coils - drawn) * each, why)))
            gone += coils
        found.append(("foot", Hitch("through the ring", face.foot_round_mm(), Say("once round the foot, through the ring"))))
        return found

    def phrase(self, band: BandStyle) -> Say:
        return Say("its ends swept across the top")

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        facts: Facts = work.facts
        face = facts.face
        found = []
        if face is None:
            if not band.tied and not work.tied:
                found.append(
                    Warn(
                        "swirl-free",
                        Say("Nothing ties these ends: wraps on each side, or harder wire, keep the ring on size."),
                        "finish.wraps_each_side",
                    )
                )
            return found
        if 2 * face.coil_mm > face.foot_mm + face.square_mm:
            found.append(
                Warn("coils-wide", Say("The two coils are wider than the band: bind one end with finer wire."), "wires.bind.diameter")
            )
        if band.strand_wire.temper != "soft":
            found.append(
                Warn("curls-crack", Say("Curls in hard square wire crack or twist: soft squares, a hard binder."), "wires.base.temper")
            )
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        return steps.tasks(self, band, work)


def _at_foot(band: FormedBand, end: End) -> End:
    """Wound one way the long tail stands at the left foot."""
    if end.name != "long":
        return end
    return End(end.piece, end.which, "left", end.lane, band.slots[0].left, end.wire, end.role, end.name)


def _standing(end: End, at: Point3) -> End:
    return End(end.piece, end.which, end.side, end.lane, at, end.wire, end.role, end.name)


def _lifted(at: Point3, least_mm: float) -> Point3:
    """No nearer to the ring's axis than that: what was tapped flat in a cord is round again beyond it. The joint lies half-way (`making/joints`)."""
    return off_band(at, 2 * least_mm - math.hypot(at[0], at[1]))


def _swept(start: Point3, reach: float, top: float, aside: float, apart: float = 0.0) -> list[Point3]:
    """From the left foot across the top to the right, rising, and going aside; first of all `apart` from its neighbours."""
    steps = 40
    first, low = math.atan2(start[0], start[1]), math.hypot(start[0], start[1])
    points = [start]
    for k in range(1, steps + 1):
        u = k / steps
        angle = first + (reach - first) * u
        up = min(1.0, 3 * u)
        eased = _eased(up)
        points.append(on_circle(low + (top - low) * eased, angle, start[2] - aside * _eased(u) - apart * _eased(min(1.0, 8 * u))))
    return points


def _eased(u: float) -> float:
    """From 0 to 1, level at both ends."""
    return u * u * (3 - 2 * u)


def _laid(radius: float, half: float, sign: int, z: float) -> list[Point3]:
    """From one foot to the other on the band's cylinder."""
    steps = 16
    return [on_circle(radius, sign * half * (1 - 2 * k / steps), z) for k in range(steps + 1)]


def _oval(face: Face, sign: int) -> list[Point3]:
    """Half an oval on the band's cylinder, from one end of the face along its long side to the other."""
    return [on_circle(face.radius_mm, -sign * along / face.radius_mm, sign * aside) for along, aside in face.half_oval()]
