"""Cage: a stone without a hole, held by the band's tails going over it in several directions, each pass locked round the band."""

import math
from collections.abc import Mapping
from dataclasses import replace
from functools import partial
from typing import Annotated, Any, ClassVar, Literal, Protocol

from pydantic import BeforeValidator, Field

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point, Point3, Way, length_mm
from pliant_coil.core.mechanics.motifs import motif
from pliant_coil.core.mechanics.over_stone import Body, Ellipsoid, LockedUnder, Section, Slab
from pliant_coil.core.mechanics.roots import where_it_reaches
from pliant_coil.core.moves.base import Move
from pliant_coil.core.moves.figure import FigurePart
from pliant_coil.core.moves.passing import LoosePass
from pliant_coil.core.moves.placed import Piece, Placed
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles.contract import BandStyle, HeadStyle, lacks
from pliant_coil.core.styles.handed_on import End, Form, FormedBand, HeadWork, Ledger, Opening, Side, Top, Warn, Wires
from pliant_coil.core.styles.heads.cage import steps
from pliant_coil.core.styles.heads.cage.own_wire import ROLE, anchored, wrapped
from pliant_coil.core.styles.locks import led_to, wrap_at
from pliant_coil.core.styles.parameters import Part, WireSpec, choice, degrees, millimetres, number
from pliant_coil.core.styles.stones import HIGH_MM, Gem, PlacedStone
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.figures import Article, Count, Length, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

_OUT = 0.6
"""Where front and back passes cross the top, as a share of the stone's half width."""
_MOST_TILT = 1.25
_TILTS = 16
"""Tried one after the other."""
_LIES_MM = 2.0
"""A motif no higher than this lies on the stone."""


class Around(Protocol):
    """Makes wraps round the band: how many, from which angle on, on which edge they begin, whether on the left."""

    def __call__(self, wraps: float, angle_rad: float, /, *, edge: int, turned: bool) -> Wrap: ...


class Rough(Gem):
    """A stone held by wire round it."""

    shape: Literal["ellipsoid", "slab"] = choice("ellipsoid", "Shape", "Rounded all over, or a slab with rounded edges.")
    length_mm: float = millimetres(17.0, "Stone's length", 8, 30, "Along the band.")
    width_mm: float = millimetres(12.0, "Stone's width", 6, 20, "Along the finger.")
    height_mm: float = millimetres(7.0, "Stone's height", 3, 14)
    edge_radius_mm: float = millimetres(2.0, "Edge's rounding", 0.5, 6, "Of a slab.", rare=True)


class PassSpec(Part):
    """One pass over the stone."""

    over: Literal["front", "middle", "back", "diagonal", "other-diagonal"] = choice("middle", "Over the")
    at_mm: float | None = millimetres(None, "Crosses the top at", -10, 10, "From the middle line, towards the hand negative.", rare=True)
    tail: Literal["left", "right"] | None = choice(None, "With the tail from the", "In turn unless given.", rare=True)


def _as_pass(given: Any) -> Any:
    return {"over": given} if isinstance(given, str) else given


Passes = tuple[Annotated[PassSpec, BeforeValidator(_as_pass)], ...]


@dataclass(frozen=True)
class Facts:
    bottom_mm: float
    """The stone's underside, from the ring's axis."""
    band_mm: float
    """The circle on which its locks lie."""
    lock_rad: float
    wire_mm: float = 0.0
    """How high the wire of the passes stands: the cage's own, or the band's as it was worked. Known when it is made."""
    passes: tuple[tuple[PassSpec, Side, str], ...] = ()


class Cage(HeadStyle):
    """A stone in a cage of the band's tails."""

    title: ClassVar[str] = "Cage"
    hides_splice = "round the band, where a pass is locked"
    least_locks: ClassVar[int] = 1
    style: Literal["cage"] = choice("cage", "Head")
    stone: Rough = Field(default_factory=Rough, title="Stone")
    passes: Passes = choice(
        (PassSpec(over="front"), PassSpec(over="back"), PassSpec(over="middle")), "Passes", "In their order, the tails in turn."
    )
    lock_at_deg: float | None = degrees(None, "First lock at", 35, 70, "From the top; where the stone ends unless given.")
    pass_wraps: int = number(1, "Wraps after a pass", 1, 2, rare=True)
    slack_share: float = number(0.04, "Laid looser than taut by", 0.0, 0.08, "A share; jogs take it up again.", rare=True)
    jog_mm: float = millimetres(0.8, "A jog's swing", 0.5, 1.2, rare=True)
    jog_length_mm: float = millimetres(5.0, "A jog's length", 4, 7, rare=True)
    order: Literal["stone-first", "slot-first"] | None = choice(
        None,
        "Order",
        "Passes over the stone; or a strap of each tail first, the stone slipped between. By its size unless given.",
        rare=True,
    )
    motif: Literal["none", "spiral", "wave", "crescent", "two-loops"] = choice("none", "Motif on the last pass", rare=True)

    def fits(self, band: BandStyle) -> Say:
        return lacks(band, Top.TAILS) if Top.CLOSED not in band.tops() else Say("")

    def of_its_own(self, band: BandStyle) -> bool:
        """Whether the passes are made with a wire of the cage's own: a closed band has no tails."""
        return Top.TAILS not in band.tops()

    def roles(self, band: BandStyle) -> Mapping[str, WireSpec]:
        return {ROLE: WireSpec(diameter="0.8 mm")} if self.of_its_own(band) else {}

    def check(self, target_mm: float, wires: Wires) -> None:
        if not 2 <= len(self.passes) <= 5:
            refuse(
                "head.passes",
                say("{n} don't hold a stone", n=Count(len(self.passes), "pass", "passes")),
                "2 to 5 passes, such as front, back, middle",
            )
        d = wires[ROLE if ROLE in wires else "band"].height_mm
        radius = self.jog_length_mm**2 / (4 * math.pi**2 * self.jog_mm)
        if radius < d / 2:
            refuse("head.jog_mm", "jogs as sharp as this nick the wire", "a smaller swing, or a longer jog")

    @property
    def _body(self) -> Body:
        s = self.stone
        if s.shape == "slab":
            return Slab(s.length_mm, s.width_mm, s.height_mm, s.edge_radius_mm)
        return Ellipsoid(s.length_mm, s.width_mm, s.height_mm)

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        if form.locks < 1:
            refuse("finish.wraps_each_side", "the passes come loose without wraps", "at least 1 wrap at each end")
        if self.of_its_own(band):
            # It lies on the band as it is: how thick that is, its forming says.
            return Opening(facts=Facts(0.0, 0.0, 0.0))
        d = wires["band"].height_mm
        under = Top.THROUGH in band.tops() or bool(band.under_head_mm(wires))
        bottom = form.diameter_mm / 2 + (d if under else 0.0)
        lock = self._lock_rad(bottom, d)
        foot = 0.0 if Top.THROUGH in band.tops() else lock
        return Opening(foot_rad=foot, shoulder_rad=lock, across=True, facts=Facts(bottom, bottom, lock))

    def _lock_rad(self, bottom_mm: float, d: float) -> float:
        """Where the first locks lie. Raises `Refusal` for a stone that stands out too far."""
        if self.lock_at_deg is not None:
            return math.radians(self.lock_at_deg)
        if self.stone.length_mm > 2.7 * bottom_mm:
            refuse(
                "head.stone.length_mm",
                "the stone is far longer than this ring is wide",
                say("up to {most}", most=Length(math.floor(2.7 * bottom_mm))),
            )
        share = min(1.0, (self.stone.length_mm / 2 - d) / bottom_mm)
        return max(math.radians(35), min(math.radians(65), math.asin(share)))

    def section(self, spec: PassSpec, lock: Point, d: float) -> Section:
        """The taut way of a pass. Raises `Refusal` for one that slides off, or whose locks lie under the stone."""
        try:
            return self._section(spec, lock, d)
        except LockedUnder:
            refuse("head.lock_at_deg", "the locks would lie under the stone", "a larger angle, or a smaller stone")

    def _section(self, spec: PassSpec, lock: Point, d: float) -> Section:
        body, b = self._body, self.stone.width_mm / 2
        if spec.over in ("diagonal", "other-diagonal"):
            turn = 0.8 * math.atan2(self.stone.width_mm, self.stone.length_mm)
            return body.across(lock, d, turn if spec.over == "diagonal" else -turn)
        z = spec.at_mm if spec.at_mm is not None else {"front": _OUT * b, "middle": 0.0, "back": -_OUT * b}[spec.over]
        if abs(z) > 0.85 * b:
            refuse("head.passes", "a pass so near the edge slides off", say("{most} from the middle, at most", most=Thickness(0.85 * b)))
        tilt = 0.0
        if z:
            # It crosses further out the more it is tilted, until it slides down the stone's side.
            step = next((k for k in range(1, _TILTS + 1) if abs(body.crosses(lock, k * _MOST_TILT / _TILTS)) >= abs(z)), None)
            if step is None:
                most = max(abs(body.crosses(lock, k * _MOST_TILT / _TILTS)) for k in range(_TILTS + 1))
                refuse("head.passes", "a pass so near the edge slides off", say("{most} from the middle, at most", most=Thickness(most)))
            low, high = ((step - side) * _MOST_TILT / _TILTS for side in (1, 0))
            tilt = where_it_reaches(abs(z), lambda tilt: abs(body.crosses(lock, tilt)), low, high)
        return body.over(lock, d, math.copysign(tilt, z))

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        facts: Facts = opening.facts
        wire = wires.get(ROLE, band.strand_wire)
        d = wire.height_mm
        ends: dict[Side, End] = {}
        pieces: tuple[Piece, ...] = ()
        ledger = band.ledger
        around: Around = partial(wrap_at, band, wire)
        if ROLE in wires:
            top = band.inside_mm / 2 + band.thickness_mm + d
            # Eyes at the top stand up under the stone.
            facts = Facts(max([top, *(eye.top_mm for eye in band.anchors)]), top, self._lock_rad(top, d))
            piece, ends, ledger = anchored(band, wire, form.locks, facts.lock_rad)
            pieces = (piece,)
            around = partial(wrapped, band, wire)
        else:
            for end in band.ends:
                stands = replace(end, side="left", at=band.slots[0].left) if end.name == "long" else end
                ends[stands.side] = stands
        onward: dict[tuple[str, str], list[Placed]] = {end.key: [] for end in ends.values()}
        told: list[tuple[PassSpec, Side, str]] = []
        began: Side = "left" if "left" in ends else "right"
        # Which end each pass is made with: in turn, or as it is asked for.
        with_tail: list[Side] = []
        for k, spec in enumerate(self.passes):
            usual: Side = began if k % 2 == 0 or len(ends) < 2 else ("right" if began == "left" else "left")
            asked = spec.tail
            with_tail.append(asked if asked in ends else usual)
        for k, spec in enumerate(self.passes):
            name = with_tail[k]
            end = ends[name]
            last = name not in with_tail[k + 1 :]
            far: Side = "left" if end.side == "right" else "right"
            wraps = form.locks if last else self.pass_wraps
            from_rad = max(facts.lock_rad, ledger.of(far).free_rad)
            at_rad = math.atan2(abs(end.at[0]), end.at[1])
            middle = (at_rad + from_rad) / 2
            lock_x = (facts.band_mm * math.sin(middle), facts.band_mm * math.cos(middle) - facts.bottom_mm)
            section = self.section(spec, lock_x, d)
            edge = 1 if section.crosses_mm > 0 else -1
            wrap = around(wraps, from_rad, edge=edge if far == "right" else -edge, turned=far == "left")
            stop, finish = (wrap.begins, wrap.ends) if far == "right" else (_turned(wrap.begins), _turned(wrap.ends))
            taut = _between(section.in_space(facts.bottom_mm), end.at, stop)
            figure = self.figure(d) if last and k == len(self.passes) - 1 and self.motif != "none" else []
            onward[end.key] += [
                Placed(f"{name}.{part}", move, backwards=end.which == "first")
                for part, move in self._over(f"pass.{k + 1}", taut, section.aside, figure)
            ]
            onward[end.key].append(Placed(f"{name}.lock.{k + 1}", wrap, turned=far == "left", backwards=end.which == "first"))
            ledger = ledger.wrapped(far, wraps, from_rad + wrap.advance_mm / (band.inside_mm / 2))
            ends[name] = replace(end, side=far, at=finish)
            told.append((spec, end.side, f"{name}.pass.{k + 1}"))
        for name, end in ends.items():
            if name not in with_tail:
                # A tail that makes no pass locks where it came up.
                locked, ledger = self._locked(form, band, facts, end, ledger, name, around)
                onward[end.key] += locked
        stone = PlacedStone(
            "stone",
            "head.stone.height_mm",
            (0.0, facts.bottom_mm + self.stone.height_mm / 2, 0.0),
            self.stone.length_mm,
            self.stone.width_mm,
            self.stone.height_mm,
            shape="ellipsoid" if self.stone.shape == "ellipsoid" else "slab",
            gem=self.stone,
        )
        return HeadWork(
            onward={key: tuple(moves) for key, moves in onward.items()},
            pieces=pieces,
            stones=(stone,),
            ledger=ledger,
            tied=True,
            height_mm=facts.bottom_mm + self.stone.height_mm + d + self._stands_mm(d) - band.inside_mm / 2,
            facts=replace(facts, wire_mm=d, passes=tuple(told)),
        )

    def _over(self, part: str, taut: list[Point3], aside: Point3, figure: list[Point3]) -> list[tuple[str, Move]]:
        """A pass; with a figure as two, up to it and on from it."""
        if not figure:
            return [(part, self._loose(taut, aside))]
        way, chord = Way(taut), figure[-1][0]
        first, last = (way.length_mm - chord) / 2, (way.length_mm + chord) / 2
        up, down = way.part(0.0, first), way.part(last, way.length_mm)
        over = way.part(first, max(last, first + _LIES_MM))
        motif = FigurePart("motif", partial(_on_the_way, figure, over, aside), Say("the length of the figure, bend by bend"))
        return [(part, self._loose(up, aside)), ("motif", motif), (f"{part}.down", self._loose(down, aside))]

    def _loose(self, taut: list[Point3], aside: Point3) -> LoosePass:
        need = max(1, math.ceil(self.slack_share * length_mm(taut) / self._jog_takes() - 1e-9)) if self.slack_share else 0
        return LoosePass(
            "pass", partial(tuple, taut), slack_share=self.slack_share, jogs=need, jog_length_mm=self.jog_length_mm, aside=aside
        )

    def _locked(
        self, form: Form, band: FormedBand, facts: Facts, end: End, ledger: Ledger, name: str, around: Around
    ) -> tuple[list[Placed], Ledger]:
        from_rad = max(facts.lock_rad, ledger.of(end.side).free_rad)
        turned = end.side == "left"
        edge = -1 if (-end.at[2] if turned else end.at[2]) < 0 else 1
        wrap = around(form.locks, from_rad, edge=edge, turned=turned)
        reach = from_rad + wrap.advance_mm / (band.inside_mm / 2)
        # Where it came up the other's wraps may lie already, or its own begin further down.
        way = led_to(wrap, end, turned)
        led: list[tuple[str, Move]] = [("to-lock", way)] if way else []
        found = [Placed(f"{name}.{part}", m, turned=turned, backwards=end.which == "first") for part, m in (*led, ("lock", wrap))]
        return found, ledger.wrapped(end.side, form.locks, reach)

    def _jog_takes(self) -> float:
        """What one jog takes up: a whole wave of its swing over its length, longer than straight by so much."""
        steps = 64
        slope = 2 * math.pi * self.jog_mm / self.jog_length_mm
        return (
            sum(math.hypot(1, slope * math.cos(2 * math.pi * (k + 0.5) / steps)) for k in range(steps)) * self.jog_length_mm / steps
            - self.jog_length_mm
        )

    def _stands_mm(self, d: float) -> float:
        """How far the motif stands up from the pass."""
        return 0.0 if self.motif == "none" else max(up for _, _, up in self.figure(d))

    def figure(self, d: float) -> list[Point3]:
        return motif(self.motif, d, jog_mm=self.jog_mm, jog_length_mm=self.jog_length_mm)

    def phrase(self, band: BandStyle) -> Say:
        s = self.stone
        return say(
            "{length} × {width} stone caged in {n}",
            length=Article(Thickness(s.length_mm)),
            width=Thickness(s.width_mm),
            n=Count(len(self.passes), "pass", "passes"),
        )

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        facts: Facts = work.facts
        d = facts.wire_mm
        s = self.stone
        found = []
        tops = self._tops()
        diagonal = any("diagonal" in spec.over for spec in self.passes)
        if not diagonal and (min(tops) >= 0 or max(tops) <= 0):
            side = "back" if min(tops) >= 0 else "front"
            found.append(
                Warn("passes-one-side", say("All passes run on one side: the stone slips out at the {side}.", side=side), "head.passes")
            )
        elif not diagonal and max(map(abs, tops)) > 0.6 * s.width_mm / 2 + 1e-9 and min(map(abs, tops)) > 0.25 * s.width_mm / 2:
            found.append(
                Warn(
                    "passes-near-edge",
                    Say("Passes near the edge slide off a smooth stone: one more over the middle holds it."),
                    "head.passes",
                )
            )
        if len(self.passes) == 2 and s.length_mm > 1.6 * s.width_mm:
            found.append(Warn("stone-tilts", Say("Two passes let a long stone tilt: three hold it."), "head.passes"))
        if s.length_mm / 2 > facts.band_mm * math.sin(facts.lock_rad) + 3:
            found.append(Warn("stone-overhangs", Say("The stone overhangs the locks: lock further down, or turn it."), "head.lock_at_deg"))
        if s.height_mm > 0.35 * band.inside_mm and work.height_mm <= HIGH_MM:
            found.append(Warn("stone-high", Say("So high a stone on so small a ring catches."), "head.stone.height_mm"))
        if d < 0.8 and band.strands < 2 and not work.pieces:
            found.append(Warn("band-flimsy", Say("A single turn of this wire won't keep its shape: two or three do."), "band.turns"))
        if d >= 1.2:
            found.append(Warn("too-stiff-to-jog", Say("Wire this stiff can't be jogged: lay the passes taut."), "head.slack_share"))
        most = max(work.ledger.left.wraps, work.ledger.right.wraps)
        if most > 3:
            found.append(
                Warn(
                    "many-locks",
                    say("{n} on one side: they reach down and cost size.", n=Count(round(most), "wrap", "wraps")),
                    "head.passes",
                )
            )
        return found

    def _tops(self) -> list[float]:
        b = self.stone.width_mm / 2
        return [
            spec.at_mm if spec.at_mm is not None else {"front": _OUT * b, "back": -_OUT * b}.get(spec.over, 0.0) for spec in self.passes
        ]

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        return steps.tasks(self, band, work)


def _on_the_way(figure: list[Point3], way: list[Point3], aside: Point3) -> list[Point3]:
    """A figure (along, aside, up) on a way over the stone: what lies follows the way, what stands up does so in one plane."""
    stands = max(up for _, _, up in figure) > _LIES_MM
    along = Way([way[0], way[-1]] if stands and figure[-1][0] else way)
    found = []
    for u, v, w in figure:
        on = min(max(u, 0.0), figure[-1][0])
        (x, y, z), (tx, ty, tz) = along.at(on)
        ux, uy, uz = aside[1] * tz - aside[2] * ty, aside[2] * tx - aside[0] * tz, aside[0] * ty - aside[1] * tx
        up = math.copysign(w, uy)
        past = u - on
        found.append(
            (x + past * tx + v * aside[0] + up * ux, y + past * ty + v * aside[1] + up * uy, z + past * tz + v * aside[2] + up * uz)
        )
    return found


def _turned(at: Point3) -> Point3:
    return (-at[0], at[1], -at[2])


def _between(way: list[Point3], first: Point3, last: Point3) -> list[Point3]:
    """The way over the stone, from where the tail stands to where its lock begins."""
    if first[0] > last[0]:
        way = way[::-1]
    return [first, *way[1:-1], last]
