"""Wrapped stone: a drilled stone threaded near a wire's end; the wire circles it, goes down and makes the band, and both ends lock."""

import math
from collections.abc import Mapping
from dataclasses import replace
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import row_at
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import Move, on_circle
from pliant_coil.core.moves.halo import Halo
from pliant_coil.core.moves.placed import PLAIN, Placed, Worked
from pliant_coil.core.moves.straight import Lead, Straight, Through
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import LOCKS, End, Form, FormedBand, HeadWork, Opening, Top, Warn, Wires
from pliant_coil.core.styles.heads.wrapped_stone import steps
from pliant_coil.core.styles.heads.wrapped_stone.tie import tie
from pliant_coil.core.styles.parameters import WireSpec, choice, degrees, millimetres, number
from pliant_coil.core.styles.stones import Gem, PlacedStone
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.words.figures import Article, Count, Thickness, Times
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say


class Drilled(Gem):
    """A drilled stone that is circled."""

    length_mm: float = millimetres(8.0, "Stone's length", 5, 16, "Along its hole.")
    width_mm: float = millimetres(8.0, "Stone's width", 5, 14, "Along the finger.")
    height_mm: float = millimetres(7.0, "Stone's height", 4, 10)
    hole_mm: float = millimetres(1.3, "Hole", 0.7, 2.5)


@dataclass(frozen=True)
class Laid:
    """The stone on its band [mm, rad]: the strip's width and mean, where legs stand and touch, where locks lie."""

    strip_mm: float
    mean_mm: float
    out_mm: float
    short_mm: float
    axis_mm: float
    leg_rad: float
    foot_rad: float
    lock_rad: float


_SHAKEN = ("soft-stone", "pearl-or-shell", "amber-or-resin")
"""What hammer blows beside it break (common practice, no source)."""


class WrappedStone(HeadStyle):
    """A stone circled by the band's own wire."""

    title: ClassVar[str] = "Wrapped stone"
    least_locks: ClassVar[int] = 1
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"tie": WireSpec(diameter="0.3 mm")}
    style: Literal["wrapped-stone"] = choice("wrapped-stone", "Head")
    stone: Drilled = Field(default_factory=Drilled, title="Stone")
    nest_turns: int = number(3, "Turns round the stone", 1, 4)
    lies: Literal["flat", "climbing"] = choice("flat", "Turns lie", "Each outside the last, or up the stone.")
    short_end: Literal["worked", "plain"] = choice(
        "worked", "Short end", "Worked like the rest where the band's wire is, or left plain.", rare=True
    )
    lock_at_deg: float | None = degrees(None, "Locks at", 25, 90, "From the top; just clear of the turns unless given.", rare=True)
    pressed_locks: bool = choice(True, "Locks pressed flat", rare=True)

    def fits(self, band: BandStyle) -> Say:
        if band.ends_each_side() > 1:
            return Say("both its ends come up on one side")
        return lacks(band, Top.TAILS)

    def laid(self, form: Form, band: BandStyle, wires: Wires) -> Laid:
        """The stone on a band formed at this diameter. Raises `Refusal` for one that can't stand there."""
        wire, s = wires["band"], self.stone
        radius = band.centre_line_mm(form.diameter_mm, wires)
        # A worked strip stands on its crests; a plain wire is as wide as it is thick.
        b = 2 * (radius - form.diameter_mm / 2)
        worked = getattr(band, "worked", None)
        m = worked.strip(wire).mean_mm if worked is not None and worked.lay_mm != 0 else b
        n = self.nest_turns
        out = s.length_mm / 2 + ((n - 0.5) * b if self.lies == "flat" else b / 2)
        short = s.length_mm / 2 + b / 2
        under = 1 if Top.THROUGH not in band.tops() or band.under_head_mm(wires) else 0
        axis = form.diameter_mm / 2 + b * under + s.height_mm / 2
        reach = math.hypot(out, axis)
        leg = math.atan2(out, axis) + math.acos(min(1.0, radius / reach))
        if short >= radius * 0.95 or leg > math.radians(115):
            refuse(
                "head.stone.length_mm",
                say("{stone} stone with its turns is too large for this ring", stone=Article(Thickness(s.length_mm))),
                "a smaller stone, fewer turns, or climbing",
            )
        foot = math.asin(short / radius)
        edge = (out + b / 2) / radius if self.lies == "flat" else (short + b / 2) / radius
        clear = math.asin(min(0.98, edge)) + m / radius
        lock = min(clear, math.radians(60)) if self.lock_at_deg is None else math.radians(self.lock_at_deg)
        return Laid(b, m, out, short, axis, leg, foot, lock)

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        if form.locks < 1:
            refuse("finish.wraps_each_side", "the turns spring open without locks", "at least 1 wrap each side")
        if self.stone.hole_mm >= min(self.stone.width_mm, self.stone.height_mm):
            refuse("head.stone.hole_mm", "such a hole leaves nothing of the stone", "a smaller hole")
        laid = self.laid(form, band, wires)
        return Opening(foot_rad=laid.leg_rad, shoulder_rad=laid.lock_rad, across=True, from_head=True, facts=laid)

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        laid: Laid = opening.facts
        s = self.stone
        worked = next(p.worked for p in band.pieces[0].moves)
        slot = band.slots[0]
        halo = Halo(
            "round the stone",
            s.length_mm / 2,
            s.width_mm / 2,
            s.height_mm / 2,
            self.nest_turns,
            laid.strip_mm,
            laid.axis_mm,
            self.lies == "climbing",
        )
        top: Point3 = (-laid.out_mm, laid.axis_mm, 0.0)
        mouths: tuple[Point3, Point3] = ((-s.length_mm / 2, laid.axis_mm, 0.0), (s.length_mm / 2, laid.axis_mm, 0.0))
        moves: list[tuple[str, Move]] = [
            ("leg", Straight("leg", slot.left, top)),
            # Climbing, it comes down to the hole from the last turn on top.
            *([("up", Lead("over the turns", top, halo.begins))] if self.lies == "climbing" and self.nest_turns > 1 else []),
            ("halo", halo),
            ("stone", Through("stone", *mouths, mark="stone", mark_share=0.5)),
        ]
        one = any(end.name == "long" for end in band.ends)
        radius = band.radius_mm
        bent: Point3 = (laid.short_mm, laid.axis_mm, 0.0)
        onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
        ledger = band.ledger
        tails: tuple[End, ...] = ()
        own = worked if self.short_end == "worked" else PLAIN
        locked, own_locked = (self._pressed(w, laid) for w in (worked, own))
        if one:
            first = next((end for end in band.ends if end.name != "long"), None)
            long = next(end for end in band.ends if end.name == "long")
            down = on_circle(radius, laid.foot_rad, 0.0)
            beside = max(abs(z) for z in band.strand_z(0.0)) + laid.strip_mm
            lock_left = self._lock(band, laid, form.locks, "left", band.strand_z(-laid.lock_rad), 1)
            under = Arc("under the stone", radius, laid.foot_rad, -laid.foot_rad - laid.lock_rad, 0.0, -beside)
            onward[long.key] = (
                Placed("short.down", Straight("leg", bent, down), worked=own),
                Placed("short.under", under, worked=own),
                Placed("short.lock", lock_left, worked=own_locked, turned=True),
            )
            if first is not None:
                lanes = band.strand_z(laid.lock_rad)
                others = tuple(z for z in lanes if abs(z - first.at[2]) > laid.mean_mm / 4)
                if not others:
                    refuse("band.turns", "at the long end's shoulder no other strand lies for its lock", "2 or more turns")
                lock_right = self._lock(band, laid, form.locks, "right", others, -1 if first.at[2] < min(others) else 1)
                onward[first.key] = (Placed("long.lock", lock_right, worked=locked, backwards=True),)
        else:
            reach = math.hypot(laid.short_mm, laid.axis_mm)
            touch = math.atan2(laid.short_mm, laid.axis_mm) + math.acos(min(1.0, radius / reach))
            z = slot.right[2]
            moves += [
                ("leg2", Straight("leg", bent, on_circle(radius, touch, z))),
                ("on", Arc("to the mandrel", radius, touch, laid.leg_rad - touch, z, z)),
            ]
            tails = band.tails
        through = tuple(Placed(f"head.{name}", move, worked=worked) for name, move in moves)
        passing = wires["band"]
        stone = PlacedStone(
            "stone",
            "head.stone.hole_mm",
            (0.0, laid.axis_mm, 0.0),
            s.length_mm,
            s.width_mm,
            s.height_mm,
            hole_mm=s.hole_mm,
            passing=((passing, 1),),
            gem=s,
        )
        return HeadWork(
            through={slot.lane: through},
            onward=onward,
            pieces=(tie(halo, laid.mean_mm, wires["tie"]),),
            stones=(stone,),
            tails=tails,
            ledger=ledger,
            tied=True,
            height_mm=laid.axis_mm + s.height_mm / 2 - form.diameter_mm / 2,
            facts=laid,
        )

    def _lock(self, band: FormedBand, laid: Laid, wraps: int, side: Literal["left", "right"], lanes: tuple[float, ...], edge: int) -> Wrap:
        """Wraps of the strip, as thick as it is on average, round these lanes at a shoulder."""
        m = laid.mean_mm
        profile = Profile("round", m)
        zs = tuple(-z for z in lanes) if side == "left" else lanes
        middle = sum(zs) / len(zs)
        close = tuple(middle + (k - (len(zs) - 1) / 2) * m for k in range(len(zs)))
        return Wrap(
            "lock",
            wraps,
            row_at(profile, close),
            profile,
            band.inside_mm / 2,
            laid.lock_rad,
            start=(edge * 1e3, m / 2),
            inside_mm=m if self.pressed_locks else laid.strip_mm,
            cause=LOCKS,
            host="the band",
        )

    def _pressed(self, worked: Worked, laid: Laid) -> Worked:
        """Strip where it is pressed flat in a lock: as thick as it is on average."""
        if worked.height_mm is None or not self.pressed_locks:
            return worked
        return replace(worked, width_mm=laid.mean_mm, height_mm=laid.mean_mm)

    def phrase(self, band: BandStyle) -> Say:
        s = self.stone
        way = "flat" if self.lies == "flat" else "climbing"
        return say(f"{{size}} stone wrapped {{times}}, {way}", size=Article(Thickness(s.length_mm)), times=Times(self.nest_turns))

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        laid: Laid = work.facts
        found = []
        if self.lies == "flat" and laid.out_mm > 0.62 * band.inside_mm:
            text = say("The turns reach past the finger's sides: {n}, or climbing.", n=Count(max(1, self.nest_turns - 1), "turn", "turns"))
            found.append(Warn("head-wide", text, "head.nest_turns"))
        worked = getattr(band.facts, "strip", None)
        if worked is not None and self.stone.hole_mm < math.hypot(worked.width_mm, worked.thickness_mm) + 0.05:
            text = say("Worked, this wire is {wide} wide: thread the stone first.", wide=Thickness(worked.width_mm))
            found.append(Warn("thread-first", text, "head.stone.hole_mm"))
        if worked is not None and self.stone.made_of in _SHAKEN:
            found.append(
                Warn("stone-shaken", Say("Hammering shakes it: slide it clear, and don't hammer within a finger of it."), "head.stone")
            )
        if laid.lock_rad < math.asin(min(0.98, (laid.out_mm + laid.strip_mm / 2) / band.radius_mm)) - 0.05 and self.lies == "flat":
            found.append(
                Warn(
                    "lock-under-turns", Say("The locks lie under the stone's turns: they can be pressed, hardly seen."), "head.lock_at_deg"
                )
            )
        if not self.pressed_locks and laid.strip_mm > laid.mean_mm * 1.1:
            text = say("Unpressed, twisted wire stands {high} inside: press the locks flat.", high=Thickness(laid.strip_mm))
            found.append(Warn("locks-unpressed", text, "head.pressed_locks"))
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        return steps.tasks(self, band, work)
