"""Spiked disc: a small sun of fine wire, long and short spikes round a hoop, a crystal on it; sewn on the finished band."""

import math
import re
from collections.abc import Mapping
from typing import Any, ClassVar, Literal

from pydantic import Field, model_validator

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.mechanics.packing import ENCLOSING_RATIO, passes_that_fit
from pliant_coil.core.moves.base import Cause, Move, Obstacle
from pliant_coil.core.moves.coil import Coil
from pliant_coil.core.moves.hoop_wrap import Hoop, HoopWrap
from pliant_coil.core.moves.placed import Piece, Placed
from pliant_coil.core.moves.spike import Spike
from pliant_coil.core.moves.stitch import Stitch
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles.contract import BandStyle, HeadStyle
from pliant_coil.core.styles.handed_on import Form, FormedBand, HeadWork, Opening, Top, Warn, Wires
from pliant_coil.core.styles.heads.spiked_disc import steps
from pliant_coil.core.styles.heads.spiked_disc.steps import short_tail_mm
from pliant_coil.core.styles.parameters import WireSpec, choice, millimetres, number
from pliant_coil.core.styles.stones import Gem, PlacedStone
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.figures import Article, Count, Length, Number, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

SEWN = Cause("stitches-inside", "stitches under the band's wires")


class Crystal(Gem):
    """A crystal in a setting that is sewn on through its channels."""

    diameter_mm: float = millimetres(7.0, "Crystal", 3, 16)
    height_mm: float = millimetres(3.0, "Crystal's height", 1, 8)
    hole_mm: float = millimetres(0.7, "Channel", 0.3, 3)
    channels: int = number(2, "Channels", 1, 2)


@dataclass(frozen=True)
class Disc:
    hoop: Hoop
    wire_mm: float
    heights: tuple[float, ...]
    needed: int
    places: float
    lay_mm: float
    belt_mm: float
    apart_mm: float

    @property
    def fill(self) -> float:
        return self.needed / self.places


class SpikedDisc(HeadStyle):
    """A disc of spikes with a crystal on it."""

    title: ClassVar[str] = "Spiked disc"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {"sew": WireSpec(diameter="0.4 mm")}
    style: Literal["spiked-disc"] = choice("spiked-disc", "Head")
    rod_mm: float = millimetres(6.0, "Hoop's rod", 3, 10)
    hoop_turns: int = number(2, "Turns of the hoop", 2, 3, rare=True)
    spikes: int = number(10, "Spikes", 4, 16)
    long_mm: float = millimetres(5.5, "Long spikes", 1.5, 10)
    short_mm: float = millimetres(3.0, "Short spikes", 1.5, 10)
    pattern: Literal["alternate", "same", "own"] = choice("alternate", "Spikes", "Long and short in turn, all long, or groups of your own.")
    groups: str = Field(
        "LSS",
        title="Groups",
        max_length=16,
        description="One group of an own pattern, L for long and S for short: LSS. It is repeated round the disc.",
        json_schema_extra={"rare": True},
    )
    wraps_between: int = number(3, "Wraps between", 1, 8)
    start_wraps: int = number(2, "Wraps to begin with", 1, 3, rare=True)
    twist_lay_mm: float | None = millimetres(
        None, "Twist, one full turn every", 0.8, 4, "Five of the wire's diameters unless given.", rare=True
    )
    stone: Crystal = Field(default_factory=Crystal, title="Crystal")
    short_tail_mm: float | None = millimetres(None, "Short tail", 60, 140, "What it needs to sew unless given.", rare=True)
    sewn_on: Literal["auto", "eyes", "wraps"] = choice("auto", "Sewn on", "The band's eyes where it has them, or its wires.", rare=True)
    stitches_per_eye: int = number(2, "Stitches at each place", 1, 3, "By each tail.", rare=True)
    orient: Literal["cross", "diagonal"] = choice("cross", "Long spikes point", "Along and across the finger, or between.", rare=True)

    @model_validator(mode="before")
    @classmethod
    def _listed(cls, given: Any) -> Any:
        """A pattern may be a list of L and S."""
        listed = given.get("pattern") if isinstance(given, dict) else None
        if isinstance(listed, list | tuple) and all(isinstance(each, str) for each in listed):
            return {**given, "pattern": "own", "groups": "".join(listed)}
        return given

    def fits(self, band: BandStyle) -> Say:
        if self.sewn_on == "eyes" and getattr(band, "close", "") != "eyes":
            return Say("it has no eyes at the top to sew on")
        if {Top.CLOSED, Top.TAILS, Top.ALONE} & band.tops():
            return Say("")
        return Say("it has no closed top to sew on")

    def check(self, target_mm: float, wires: Wires) -> None:
        w = wires["sew"].height_mm
        lay = self._lay(w)
        if self.pattern == "alternate" and self.spikes % 2:
            refuse("head.spikes", "two long spikes would stand together", f"{self.spikes - 1} or {self.spikes + 1}")
        if self.pattern == "own":
            self._check_groups()
        if lay < 4 * w - 1e-9:
            refuse("head.twist_lay_mm", "twisted so tight the wire breaks", say("{least} or more", least=Thickness(4 * w)))
        if self.stone.diameter_mm < self.rod_mm - 0.5:
            refuse(
                "head.stone.diameter_mm", "the crystal falls through the hoop", say("{least} or more", least=Thickness(self.rod_mm - 0.5))
            )
        heights = set(self._heights())
        shortest, field = min((mm, name) for mm, name in ((self.long_mm, "long_mm"), (self.short_mm, "short_mm")) if mm in heights)
        if shortest < lay - 1e-9:
            refuse(f"head.{field}", "too short to twist", say("{least} or more, or a tighter twist", least=Thickness(lay)))
        needed, places = self._places(w)
        if needed > places + 0.05:
            hoop = math.ceil(10 * (needed * w / math.pi + w)) / 10
            between = math.floor((places - self.start_wraps) / self.spikes - 1)
            refuse(
                "head.wraps_between",
                say("{spikes} with so many wraps between don't close round this hoop", spikes=Count(self.spikes, "spike", "spikes")),
                say("{n} between, or a hoop of {hoop}", n=str(max(0, between)), hoop=Thickness(hoop)),
            )

    @property
    def group(self) -> str:
        return re.sub(r"[\s,]", "", self.groups).upper()

    def _check_groups(self) -> None:
        """An own pattern closes round the disc: whole groups only."""
        group = self.group
        if not group or set(group) - {"L", "S"}:
            refuse("head.groups", "a group is written with L for long and S for short", "LSS, or LLS")
        whole = [n for n in range(len(group), 17, len(group)) if n >= 4]
        if self.spikes not in whole:
            nearest = sorted(whole, key=lambda n: abs(n - self.spikes))[:2]
            refuse(
                "head.spikes",
                say("groups of {n} don't close round {spikes}", n=str(len(group)), spikes=Count(self.spikes, "spike", "spikes")),
                " or ".join(map(str, sorted(nearest))) if nearest else "a shorter group",
            )

    def _lay(self, w: float) -> float:
        return 5 * w if self.twist_lay_mm is None else self.twist_lay_mm

    def _places(self, w: float) -> tuple[int, float]:
        """Places that wraps and spikes need on the hoop's inside, and how many there are."""
        return self.spikes * (self.wraps_between + 1) + self.start_wraps, math.pi * (self.rod_mm - w) / w

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        return Opening()

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        fine = wires["sew"]
        w, d = fine.height_mm, band.strand_wire.height_mm
        needed, places = self._places(w)
        eyes = band.anchors if self.sewn_on != "wraps" else ()
        base = max(a.top_mm for a in eyes) if eyes else band.inside_mm / 2 + band.thickness_mm
        height = base + self.hoop_turns * w / 2
        hoop = Hoop((0.0, height, 0.0), (self.rod_mm + w) / 2, (0.0, 1.0, 0.0), (1.0, 0.0, 0.0))
        r1, r2 = w, (d + w) / 2
        apart, delta = w + (w + d) / 2, r2 - r1
        belt = 2 * math.sqrt(apart**2 - delta**2) + math.pi * (r1 + r2) + 2 * delta * math.asin(delta / apart)
        step = eyes[0].across_mm if eyes else self.rod_mm / 2
        disc = Disc(hoop, w, self._heights(), needed, places, self._lay(w), belt, step)
        piece = Piece("sew.1", "sew", fine, tuple(self._moves(disc, band, wires)))
        top = height + self.hoop_turns * w / 2 + w
        s = self.stone
        crystal = PlacedStone(
            "crystal",
            "head.stone.hole_mm",
            (0.0, top + s.height_mm / 2, 0.0),
            s.diameter_mm,
            s.diameter_mm,
            s.height_mm,
            hole_mm=s.hole_mm,
            passing=((fine, 1 if s.channels == 2 else 2),),
            gem=s,
        )
        return HeadWork(
            pieces=(piece,),
            stones=(crystal,),
            tails=band.tails,
            ledger=band.ledger,
            tied=band.tied,
            height_mm=top + s.height_mm - band.inside_mm / 2,
            facts=disc,
        )

    def _heights(self) -> tuple[float, ...]:
        turn = {"same": "L", "alternate": "LS", "own": self.group}[self.pattern]
        return tuple(self.long_mm if turn[k % len(turn)] == "L" else self.short_mm for k in range(self.spikes))

    def _moves(self, disc: Disc, band: FormedBand, wires: Wires) -> list[Placed]:
        fine = wires["sew"]
        w, turns = disc.wire_mm, self.hoop_turns
        hoop, step = disc.hoop, 2 * math.pi / disc.needed
        side = Bundle(tuple((0.0, (k - (turns - 1) / 2) * w) for k in (0, turns - 1)), w / 2)
        # The first long spike points along the finger, or half-way between.
        at = math.pi / 2 - (self.start_wraps + 0.5) * step + (math.pi / self.spikes if self.orient == "diagonal" else 0.0)
        moves: list[tuple[str, Move]] = [
            # Downwards, so that the first wrap begins where the last turn ends.
            ("hoop", Coil("hoop", hoop, turns, -w * (turns - 1) / turns, at)),
            ("start", HoopWrap("start", self.start_wraps, side, fine.profile, hoop, at, step, host="the hoop")),
        ]
        at += self.start_wraps * step
        for k, height in enumerate(disc.heights, 1):
            spike = Spike(
                "long" if height == self.long_mm else "short",
                1,
                side,
                fine.profile,
                hoop,
                at,
                step,
                host="the hoop",
                height_mm=height,
                lay_mm=disc.lay_mm,
            )
            moves.append((f"spike.{k}", spike))
            at += step
            moves.append((f"wraps.{k}", HoopWrap("wraps", self.wraps_between, side, fine.profile, hoop, at, step, host="the hoop")))
            at += self.wraps_between * step
        loop = side.loop_mm(fine.profile.centroid_mm)
        moves += self._crystal(disc, loop)
        found = [Placed(f"sew.{name}", move) for name, move in moves]
        inside = () if band.absent else self._inside(band, w)
        for which in ("long", "short"):
            sewn = self._hidden(loop, which) if band.absent else self._sewn_on(disc, band, wires, which, inside)
            # The short tail's end is the wire's first.
            found = [*found, *sewn] if which == "long" else [*reversed(sewn), *found]
        return found

    def _crystal(self, disc: Disc, loop_mm: float) -> list[tuple[str, Move]]:
        each = self.stone.diameter_mm + 2 * (self.stone.height_mm / 2 + disc.wire_mm) + 2
        return [
            ("crystal", Stitch("crystal", self.stone.channels, each)),
            ("anchor", Stitch("anchor", 2, 3 * loop_mm)),
        ]

    def _hidden(self, loop_mm: float, which: str) -> list[Placed]:
        """A tail's end where there is no band: three wraps more, lost among the hoop's own."""
        return [Placed(f"sew.{which}.end", Stitch("end", 3, loop_mm), backwards=which == "short")]

    def _inside(self, band: FormedBand, w: float) -> tuple[Obstacle, ...]:
        """A stitch passes under a strand: between it and the finger, unless something lies there already."""
        height = max(0.0, w - max(0.0, band.lining_mm))
        if height <= 1e-9:
            return ()
        wide = w / (band.inside_mm / 2)
        places = [math.atan2(a.at[0], a.at[1]) for a in band.anchors] or [s * self.rod_mm / 4 / (band.inside_mm / 2) for s in (-1, 1)]
        return tuple(Obstacle(SEWN, at - wide, at + wide, height) for at in sorted({round(p, 6) for p in places}))

    def _sewn_on(self, disc: Disc, band: FormedBand, wires: Wires, which: str, inside: tuple[Obstacle, ...]) -> list[Placed]:
        """A tail's stitches at the four places, and three wraps on one of the band's wires."""
        fine, d = wires["sew"], band.strand_wire.height_mm
        stitch = Stitch("sew on", 4 * self.stitches_per_eye, disc.belt_mm, 3 * disc.apart_mm, inside if which == "long" else ())
        side = 1 if which == "long" else -1
        radius = band.inside_mm / 2 + max(0.0, band.lining_mm)
        reach = (self.rod_mm / 2 + 2) / radius
        wire = Bundle(((band.strand_z(side * reach)[0], d / 2),), d / 2)
        end = Wrap(
            "end",
            3,
            wire,
            fine.profile,
            radius,
            side * reach,
            side,
            start=(0.0, 9.0),
            inside_mm=max(0.0, fine.height_mm - max(0.0, band.lining_mm)),
            cause=SEWN,
            host="a wire of the band",
        )
        backwards = which == "short"
        return [Placed(f"sew.{which}.on", stitch, backwards=backwards), Placed(f"sew.{which}.end", end, backwards=backwards)]

    def phrase(self, band: BandStyle) -> Say:
        return say("a disc of {spikes} with a crystal", spikes=Count(self.spikes, "spike", "spikes"))

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        disc: Disc = work.facts
        found = []
        if disc.fill < 0.85:
            between = min(8, math.floor((disc.places - self.start_wraps) / self.spikes - 1))
            hoop = math.floor(10 * (disc.needed * disc.wire_mm / math.pi + disc.wire_mm)) / 10
            text = say(
                "The spikes will stand uneven: {n} wraps between, or {hoop} hoop, fill it.", n=str(between), hoop=Article(Thickness(hoop))
            )
            found.append(Warn("disc-uneven", text, "head.wraps_between"))
        if self.short_mm in self._heights() and self.stone.diameter_mm > self.rod_mm + 4 * disc.wire_mm + 2 * self.short_mm:
            found.append(Warn("short-spikes-hidden", Say("The crystal hides the short spikes."), "head.stone.diameter_mm"))
        if band.anchors and self.sewn_on != "wraps":
            passes = 2 * self.stitches_per_eye + 2
            eye = band.anchors[0].across_mm - 2 * band.strand_wire.height_mm
            fit = passes_that_fit(disc.wire_mm, eye)
            if fit < min(passes, len(ENCLOSING_RATIO)):
                text = say(
                    "Its eyes take {fit} of this wire, not {passes}.",
                    fit=Count(fit, "pass", "passes"),
                    passes=Number(passes),
                )
                found.append(Warn("eyes-full", text, "head.stitches_per_eye"))
        across = self.rod_mm + 4 * disc.wire_mm + 2 * self.long_mm
        if not band.absent and (across > 20 or across > 1.1 * band.inside_mm):
            most = (min(20, 1.1 * band.inside_mm) - self.rod_mm - 4 * disc.wire_mm) / 2
            text = say("Spikes this long stand out past the finger and catch: {most} or less.", most=Length(most))
            found.append(Warn("spikes-catch", text, "head.long_mm"))
        if disc.wire_mm < 0.4 and self.long_mm > 6:
            found.append(Warn("spikes-bend", Say("So long a spike of so fine a wire bends in wear."), "head.long_mm"))
        if work.pieces[0].net_mm > 700:
            found.append(Warn("long-to-pull", Say("That is much wire to pull through: work it in two pieces."), "head.spikes"))
        if self.short_tail_mm is not None:
            need = short_tail_mm(work)
            if self.short_tail_mm < need:
                found.append(
                    Warn("short-tail-short", say("The short tail needs {need} to sew with.", need=Length(need)), "head.short_tail_mm")
                )
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        return steps.tasks(self, band, work)
