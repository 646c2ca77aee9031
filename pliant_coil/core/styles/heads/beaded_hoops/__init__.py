"""Beaded hoops: hoops of stiff wire wound twice, edged with small beads, sewn to each other and to the finished band."""

import math
from collections.abc import Mapping
from dataclasses import replace
from typing import Any, ClassVar, Literal

from pydantic import Field, model_validator

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.bending import released_diameter_mm
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.moves.base import Cause, Move, Obstacle
from pliant_coil.core.moves.coil import Coil
from pliant_coil.core.moves.grip import saw, to_hold
from pliant_coil.core.moves.hoop_wrap import BeadTurn, Hoop, HoopWrap
from pliant_coil.core.moves.placed import EndCare, Fate, Piece, Placed
from pliant_coil.core.moves.stitch import Stitch
from pliant_coil.core.styles.contract import BandStyle, HeadStyle
from pliant_coil.core.styles.handed_on import Form, FormedBand, HeadWork, Opening, Top, Warn, Wires
from pliant_coil.core.styles.heads.beaded_hoops import steps
from pliant_coil.core.styles.heads.beaded_hoops.steps import START_MM
from pliant_coil.core.styles.parameters import Part, WireSpec, choice, millimetres, number
from pliant_coil.core.styles.stones import Bead, PlacedStone
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.figures import Count, Length, Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

SEWN = Cause("stitches-inside", "stitches under the band's wires")
_CUT_MM = 1.0
"""What trimming both sides of a cut takes (common practice, no source)."""
_FLAT_RAD = math.radians(35)
"""Hoops that cross flatter run along each other (common practice, no source)."""


class HoopSpec(Part):
    """One hoop."""

    rod_mm: float = millimetres(9.0, "Hoop's rod", 5, 25)
    beads: int | None = number(None, "Beads", 3, 60, "As many as fit unless given.")
    x_mm: float | None = millimetres(None, "Along the band", -30, 30, "Of an own layout: its middle from the first one's.", rare=True)
    z_mm: float | None = millimetres(None, "Along the finger", -30, 30, "Of an own layout.", rare=True)
    on_top_of: int | None = number(None, "On top of hoop", 1, 9, "Of an own layout: the hoop before it that it is tied to.", rare=True)


@dataclass(frozen=True)
class _Edge:
    """A hoop with its beads: its place, its circle, and how its edge closes [mm]."""

    hoop: Hoop
    inside_mm: float
    wound_mm: float
    reach_mm: float
    beads: int
    by_beads: int
    by_wraps: int
    step_mm: float
    gap_mm: float
    below: int | None
    """The hoop that it is tied to."""


class BeadedHoops(HeadStyle):
    """Hoops edged with beads."""

    title: ClassVar[str] = "Beaded hoops"
    hides_splice = "in the wraps of the next bead, wound the same way"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {
        "coil": WireSpec(diameter="0.8 mm", temper="half-hard"),
        "sew": WireSpec(diameter="0.4 mm"),
    }
    style: Literal["beaded-hoops"] = choice("beaded-hoops", "Head")
    hoops: tuple[HoopSpec, ...] = choice((HoopSpec(rod_mm=12.0), HoopSpec(rod_mm=9.0), HoopSpec(rod_mm=9.0)), "Hoops", "The largest first.")
    hoop_turns: int = number(2, "Turns of a hoop", 2, 3, rare=True)
    overlap_mm: float = millimetres(1.0, "Ends pass by", 0.5, 3, rare=True)
    bead: Bead = Field(default_factory=lambda: Bead(diameter_mm=2.0, hole_mm=0.6), title="Beads")
    wraps_between: int = number(1, "Plain wraps between", 0, 3)
    tie_wraps: int = number(3, "Tie wraps", 2, 6, "Of each tail round the hoop below.", rare=True)
    layout: Literal["chain", "cluster", "own"] = choice(
        "chain", "Laid out", "In a row round the finger, round the first, or each where you say."
    )
    overlap_share: float = number(0.35, "Hoops overlap", 0.15, 0.6, "Of both radii.", rare=True)
    sewing: Literal["own", "tails"] = choice("own", "Sewn on with", "A wire of its own, or the first hoop's tails.", rare=True)
    sewn_places: int = number(4, "Places on the band", 2, 8, rare=True)

    @model_validator(mode="before")
    @classmethod
    def _placed(cls, given: Any) -> Any:
        """A layout may be a list of places, one a hoop."""
        places = given.get("layout") if isinstance(given, dict) else None
        if isinstance(places, list | tuple) and all(isinstance(place, dict) for place in places):
            hoops = given.get("hoops") or [{"rod_mm": 12.0}, *({"rod_mm": 9.0} for _ in places[1:])]
            return {**given, "layout": "own", "hoops": [{**hoop, **place} for hoop, place in zip(hoops, places, strict=False)]}
        return given

    def fits(self, band: BandStyle) -> Say:
        return Say("") if {Top.CLOSED, Top.TAILS, Top.ALONE} & band.tops() else Say("it has no closed top to sew on")

    def check(self, target_mm: float, wires: Wires) -> None:
        if not 1 <= len(self.hoops) <= 9:
            refuse("head.hoops", say("{n} can't be laid out", n=Count(len(self.hoops), "hoop", "hoops")), "1 to 9 hoops")
        self.bead.check("head.bead")
        for k, hoop in enumerate(self.hoops[1:] if self.layout == "own" else (), 1):
            if hoop.x_mm is None and hoop.z_mm is None:
                refuse(f"head.hoops.{k}.x_mm", "an own layout says where each hoop lies", "how far from the first one's middle")
            if (hoop.on_top_of or 1) > k:
                refuse(f"head.hoops.{k}.on_top_of", "a hoop lies on one that stands before it in the list", f"1 to {k}")

    def opening(self, form: Form, band: BandStyle, wires: Wires) -> Opening:
        return Opening()

    def edges(self, base_mm: float, wires: Wires) -> list[_Edge]:
        """Every hoop in its place, the lowest ones `base_mm` from the axis."""
        wire, fine = wires["coil"], wires["sew"]
        d, w, b = wire.height_mm, fine.height_mm, self.bead.diameter_mm
        reach = math.sqrt((b / 2 + d / 2) ** 2 - (d / 2) ** 2)
        thick = max(self.hoop_turns * d + 2 * w, b)
        sprung = [
            released_diameter_mm(h.rod_mm, wire.profile, wire.metal.youngs_modulus_mpa, wire.yield_mpa) - self.overlap_mm / (2 * math.pi)
            for h in self.hoops
        ]
        places = self._places([(inside + d) / 2 for inside in sprung])
        found = []
        for k, (spec, inside, (x, z, layer, below)) in enumerate(zip(self.hoops, sprung, places, strict=True)):
            radius = (inside + d) / 2
            by_beads = math.floor(math.pi / math.asin(min(1.0, b / (2 * (radius + reach)))))
            by_wraps = math.floor(math.pi * (inside - w) / ((1 + self.wraps_between) * w))
            most = min(by_beads, by_wraps)
            if spec.beads is not None and spec.beads > most:
                crowd = "the wraps crowd inside the hoop" if by_wraps < by_beads else "the beads crowd"
                refuse(f"head.hoops.{k}.beads", f"{crowd}", say("{most}, thinner wire or a larger hoop", most=Count(most, "bead", "beads")))
            beads = most if spec.beads is None else spec.beads
            hoop = Hoop((x, base_mm + thick / 2 + layer * thick, z), radius, (0.0, 1.0, 0.0), (1.0, 0.0, 0.0))
            gap = 2 * (radius + reach) * math.sin(math.pi / beads) - b
            step = 2 * math.pi * radius / (beads * (1 + self.wraps_between))
            found.append(_Edge(hoop, inside, (spec.rod_mm + d) / 2, reach, beads, by_beads, by_wraps, step, gap, below))
        return found

    def _places(self, radii: list[float]) -> list[tuple[float, float, int, int | None]]:
        """Per hoop its middle (along the band, along the finger), its layer, and the hoop that it lies on."""
        found: list[tuple[float, float, int, int | None]] = [(0.0, 0.0, 0, None)]
        for k in range(1, len(radii)):
            if self.layout == "own":
                hoop = self.hoops[k]
                on = (hoop.on_top_of or 1) - 1
                found.append((hoop.x_mm or 0.0, hoop.z_mm or 0.0, found[on][2] + 1, on))
                continue
            below = 0 if self.layout == "cluster" or k < 3 else k - 2
            apart = (1 - self.overlap_share) * (radii[below] + radii[k])
            if self.layout == "cluster":
                angle = 2 * math.pi * (k - 1) / (len(radii) - 1)
                # Neighbours that touch each other lie in turn above and below the next.
                found.append((apart * math.cos(angle), apart * math.sin(angle), 1 + (k % 2 if len(radii) > 4 else 0), 0))
                continue
            x, _, layer, _ = found[below]
            found.append((x + (apart if k % 2 else -apart), 0.0, 1 - layer, below))
        return found

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        edges = self.edges(band.inside_mm / 2 + band.thickness_mm, wires)
        reach = max(
            math.hypot(e.hoop.centre[0], e.hoop.centre[2]) + e.hoop.radius_mm + e.reach_mm + self.bead.diameter_mm / 2 for e in edges
        )
        if not band.absent and 2 * reach > 2.2 * band.inside_mm:
            refuse(
                "head.hoops",
                say("hoops {wide} wide can't be worn on this ring", wide=Length(2 * reach)),
                "fewer or smaller hoops, or more overlap",
            )
        stones: list[PlacedStone] = []
        pieces = self._coils(edges, wires)
        for k, edge in enumerate(edges):
            piece, beads = self._edged(k, edge, edges, wires)
            pieces.append(piece)
            stones += beads
        if not band.absent:
            on_band = self._on_band(edges[0], band, wires)
            if self.sewing == "own":
                pieces.append(Piece("sew.band", "sew", wires["sew"], (Placed("sew.band.on", on_band),), use=Say("to sew on with")))
            else:
                pieces = [replace(p, moves=(*p.moves, Placed("sew.1.on", on_band))) if p.id == "sew.1" else p for p in pieces]
        top = max(e.hoop.centre[1] for e in edges) + max(wires["coil"].height_mm + wires["sew"].height_mm, self.bead.diameter_mm / 2)
        return HeadWork(
            pieces=tuple(pieces),
            stones=tuple(stones),
            tails=band.tails,
            ledger=band.ledger,
            tied=band.tied,
            height_mm=top - band.inside_mm / 2,
            facts=(edges, reach),
        )

    def _coils(self, edges: list[_Edge], wires: Wires) -> list[Piece]:
        """One coil for all hoops of a rod, cut after every second turn."""
        wire = wires["coil"]
        rods: dict[float, list[int]] = {}
        for k, spec in enumerate(self.hoops):
            rods.setdefault(spec.rod_mm, []).append(k)
        found = []
        for n, (rod, those) in enumerate(rods.items(), 1):
            moves = [Placed(f"coil.{n}.first", to_hold("end", _CUT_MM), fate=Fate.TRIM)]
            for j, k in enumerate(those):
                edge = edges[k]
                if j:
                    moves.append(Placed(f"coil.{n}.kerf{j}", saw("cut", _CUT_MM), fate=Fate.KERF))
                moves.append(
                    Placed(f"coil.{n}.hoop{k + 1}", Coil("hoop", edge.hoop, self.hoop_turns, wire.height_mm, wound_mm=edge.wound_mm))
                )
            moves.append(Placed(f"coil.{n}.last", to_hold("half a turn", math.pi * edges[those[0]].wound_mm), fate=Fate.TRIM))
            use = say("{n} on the {rod} rod", n=Count(len(those), "hoop", "hoops"), rod=Thickness(rod))
            found.append(Piece(f"coil.{n}", "coil", wire, tuple(moves), ends=(EndCare.SAWN, EndCare.SAWN), parts=len(those), use=use))
        return found

    def _edged(self, k: int, edge: _Edge, edges: list[_Edge], wires: Wires) -> tuple[Piece, list[PlacedStone]]:
        """A hoop's fine wire: a wrap to begin with, the beads, two wraps to close, and both tails round the hoop below."""
        fine, d = wires["sew"], wires["coil"].height_mm
        turns = self.hoop_turns
        pair = Bundle(tuple((0.0, (j - (turns - 1) / 2) * d) for j in (0, turns - 1)), d / 2)
        step = edge.step_mm / edge.hoop.radius_mm
        b = self.bead.diameter_mm
        at = START_MM / edge.hoop.radius_mm
        moves: list[tuple[str, Move]] = [("start", HoopWrap("start", 1, pair, fine.profile, edge.hoop, at - step, step, host="the hoop"))]
        stones = []
        for n in range(1, edge.beads + 1):
            turn = BeadTurn("bead", 1, pair, fine.profile, edge.hoop, at, step, host="the hoop", bead_mm=b, reach_mm=edge.reach_mm)
            moves.append((f"bead.{n}", turn))
            stones.append(
                PlacedStone(
                    "bead", "head.bead.hole_mm", turn.bead_at, b, b, b, hole_mm=self.bead.hole_mm, passing=((fine, 1),), gem=self.bead
                )
            )
            at += step
            if self.wraps_between:
                moves.append((f"wrap.{n}", HoopWrap("wrap", self.wraps_between, pair, fine.profile, edge.hoop, at, step, host="the hoop")))
                at += self.wraps_between * step
        moves.append(("close", HoopWrap("close", 2, pair, fine.profile, edge.hoop, at, step, host="the hoop")))
        name = f"sew.{k + 1}"
        placed = [Placed(f"{name}.{part}", move) for part, move in moves]
        if edge.below is not None:
            other = edges[edge.below]
            first, last = _crossings(edge, other, k)
            for which, angle in (("first", first), ("last", last)):
                ties = HoopWrap(
                    "tie",
                    self.tie_wraps,
                    pair,
                    fine.profile,
                    other.hoop,
                    angle,
                    fine.width_mm / other.hoop.radius_mm,
                    host="the hoop below",
                )
                down = Stitch("down", 1, 2 * d + fine.height_mm)
                backwards = which == "first"
                tail = [Placed(f"{name}.{which}.down", down, backwards=backwards), Placed(f"{name}.{which}.tie", ties, backwards=backwards)]
                placed = [*reversed(tail), *placed] if backwards else [*placed, *tail]
        return Piece(name, "sew", fine, tuple(placed), use=Say("to edge a hoop")), stones

    def _on_band(self, edge: _Edge, band: FormedBand, wires: Wires) -> Stitch:
        """Two turns round hoop and band at every place, where the first hoop crosses the band."""
        fine, d = wires["sew"], band.strand_wire.height_mm
        x = min(edge.hoop.radius_mm, 0.9 * band.radius_mm)
        angle = math.asin(x / band.radius_mm)
        stands = edge.hoop.centre[1] - band.radius_mm * math.cos(angle)
        zs = band.strand_z(angle)
        bundle = Bundle(((min(zs), d / 2), (max(zs), d / 2), ((min(zs) + max(zs)) / 2, max(stands, d))), d / 2)
        height = max(0.0, fine.height_mm - max(0.0, band.lining_mm))
        wide = fine.width_mm / (band.inside_mm / 2)
        inside = tuple(Obstacle(SEWN, s * angle - wide, s * angle + wide, height) for s in (-1, 1)) if height > 1e-9 else ()
        between = (self.sewn_places - 1) * 2 * math.pi * edge.hoop.radius_mm / self.sewn_places
        return Stitch("sew on", 2 * self.sewn_places, bundle.loop_mm(fine.centroid_mm), between, inside)

    def phrase(self, band: BandStyle) -> Say:
        return say("{hoops} edged with {size} beads", hoops=Count(len(self.hoops), "hoop", "hoops"), size=Thickness(self.bead.diameter_mm))

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        edges, reach = work.facts
        d = next(p.wire.height_mm for p in work.pieces if p.role == "coil")
        found = []
        for k, edge in enumerate(edges):
            if edge.by_wraps < edge.by_beads:
                text = say(
                    "Only {n} fit: the wraps crowd inside the hoop. Thinner wire, one plain wrap, or a larger hoop.",
                    n=Count(edge.by_wraps, "bead", "beads"),
                )
                found.append(Warn("wraps-crowd", text, f"head.hoops.{k}.rod_mm"))
            elif edge.gap_mm > self.bead.diameter_mm / 6:
                rod = self.hoops[k].rod_mm + 2 * (
                    self.bead.diameter_mm / (2 * math.sin(math.pi / (edge.beads + 1))) - edge.hoop.radius_mm - edge.reach_mm
                )
                text = say(
                    "{gap} is left between beads: a plain wrap more every few beads shares it, or a rod of {rod} closes it.",
                    gap=Thickness(edge.gap_mm),
                    rod=Thickness(rod),
                )
                found.append(Warn("edge-gapes", text, f"head.hoops.{k}.rod_mm"))
        found += self._at_crossings(edges, d, next(p.wire.height_mm for p in work.pieces if p.role == "sew"))
        if self.bead.diameter_mm < self.hoop_turns * d:
            text = say(
                "A bead narrower than the wires side by side leaves the edge bare: {least} or more.", least=Thickness(self.hoop_turns * d)
            )
            found.append(Warn("bead-narrow", text, "head.bead.diameter_mm"))
        if not band.absent and 2 * reach > 0.7 * band.inside_mm:
            half = min(reach, band.inside_mm / 2)
            off = band.inside_mm / 2 - math.sqrt((band.inside_mm / 2) ** 2 - half**2)
            text = say("The hoops are {wide} wide: their edges stand {off} off the finger.", wide=Length(2 * reach), off=Length(off))
            found.append(Warn("head-wide", text, "head.hoops"))
        return found

    def _at_crossings(self, edges: list[_Edge], d: float, w: float) -> list[Warn]:
        """Where a hoop lies on another: how flat they cross, and whether a bead has to make room."""
        found = []
        needs: dict[int, float] = {}
        for k, edge in enumerate(edges):
            if edge.below is None:
                continue
            below = edges[edge.below]
            chi = _crossing_rad(edge, below)
            if chi < _FLAT_RAD:
                text = say("Hoops {a} and {b} run along each other where they cross: move them.", a=str(edge.below + 1), b=str(k + 1))
                found.append(Warn("hoops-cross-flat", text, f"head.hoops.{k}.{'x_mm' if self.layout == 'own' else 'rod_mm'}"))
                continue
            bare = (self.hoop_turns * d + 2 * w) / math.sin(chi)
            if bare > below.step_mm * (1 + self.wraps_between) - w:
                needs[edge.below] = max(bare, needs.get(edge.below, 0.0))
        for k, bare in needs.items():
            text = say(
                "Leave out a bead of hoop {n} at each crossing: the hoop on top needs {bare} of it bare.",
                n=str(k + 1),
                bare=Thickness(bare),
            )
            found.append(Warn("bead-makes-room", text, f"head.hoops.{k}.beads"))
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        return steps.tasks(self, band, work)


def _crossing_rad(edge: _Edge, other: _Edge) -> float:
    """At which angle two hoops cross."""
    apart = math.hypot(edge.hoop.centre[0] - other.hoop.centre[0], edge.hoop.centre[2] - other.hoop.centre[2])
    r0, r1 = other.hoop.radius_mm, edge.hoop.radius_mm
    return math.acos(max(-1.0, min(1.0, (r0**2 + r1**2 - apart**2) / (2 * r0 * r1))))


def _crossings(edge: _Edge, other: _Edge, k: int) -> tuple[float, float]:
    """Angles on the other hoop where this one crosses it."""
    (x0, _, z0), (x1, _, z1) = other.hoop.centre, edge.hoop.centre
    apart = math.hypot(x1 - x0, z1 - z0)
    r0, r1 = other.hoop.radius_mm, edge.hoop.radius_mm
    if apart >= r0 + r1:
        missing = Length(apart - r0 - r1)
        refuse(f"head.hoops.{k}.x_mm", "it doesn't meet the hoop that it shall lie on", say("{missing} nearer, or more", missing=missing))
    if apart <= abs(r0 - r1):
        refuse(f"head.hoops.{k}.rod_mm", "it lies inside the hoop beside it", "hoops of more equal size, or less overlap")
    towards = math.atan2(-(z1 - z0), x1 - x0)
    half = math.acos((apart**2 + r0**2 - r1**2) / (2 * apart * r0))
    return towards - half, towards + half
