"""Prongs: a band's free ends cross behind a stone and stand up at its corners; or, bound together, they are folded over it as claws."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import Bundle, row_at
from pliant_coil.core.moves.arc import Arc
from pliant_coil.core.moves.base import Cause, Move, on_circle
from pliant_coil.core.moves.loop import Eye
from pliant_coil.core.moves.placed import EndCare, Fate, Piece, Placed
from pliant_coil.core.moves.prong import Claw, Prong
from pliant_coil.core.moves.straight import Lead, Straight
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.contract import LOCKS, BandStyle, End, Form, FormedBand, HeadStyle, HeadWork, Opening, Top, Warn, Wires, lacks
from pliant_coil.core.styles.parameters import WireSpec, choice, millimetres
from pliant_coil.core.styles.stones import Gem, PlacedStone
from pliant_coil.core.styles.tasks import Check, Phase, Task, look, reads
from pliant_coil.core.words.figures import Article, Count, Length, Thickness, number_words
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, listed, say

BINDING = Cause("binding-inside", "the binding of the claws' base")
_EYE_MM = 1.2
_TAIL_MM = 8.0


class Stone(Gem):
    """A stone that is held: length along the band, width along the finger, height away from it."""

    shape: Literal["octagon", "rectangle", "oval", "round", "cushion"] = choice("octagon", "Shape")
    length_mm: float = millimetres(12.0, "Stone's length", 5, 28, "Along the band.")
    width_mm: float = millimetres(10.0, "Stone's width", 5, 24, "Along the finger.")
    height_mm: float = millimetres(5.0, "Stone's height", 2, 12)
    corner_mm: float = millimetres(2.5, "Cut corners", 0, 8, "Leg of a cut corner.", rare=True)
    edge_height_mm: float | None = millimetres(None, "Back to edge", 1, 12, "Where a lip lands; the whole height unless given.", rare=True)
    edge_radius_mm: float | None = millimetres(
        None, "Edge's rounding", 0.5, 6, "Of a rough stone; a third of its height unless given.", rare=True
    )


@dataclass(frozen=True)
class _Facts:
    radius_mm: float
    theta: float
    half_spread_mm: float
    lanes: int
    prongs: tuple[Prong, ...] = ()
    claw: Claw | None = None
    wraps: int = 0


class Prongs(HeadStyle):
    """Wire ends that hold a stone."""

    title: ClassVar[str] = "Prongs"
    usual_locks: ClassVar[int] = 1
    style: Literal["prongs"] = choice("prongs", "Head")
    setting: Literal["prongs", "claws"] | None = choice(
        None, "Setting", "Prongs at a faceted stone's corners from three base wires and more; claws over a rough one from two wires."
    )
    stone: Stone = Field(default_factory=Stone, title="Stone")
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
            return Opening(gap_rad=theta, end_mm=(1.0,), facts=_Facts(radius, theta, self.base_mm / 2, n))
        if n < 3:
            refuse("head.setting", "two wires give four ends, and nothing locks them", "claws, or three base wires")
        if form.locks < 1:
            refuse("finish.wraps_each_side", "the crossed ends hold nothing without locks", "at least 1 wrap each side")
        spread = stone.length_mm / 3 if self.half_spread_mm is None else self.half_spread_mm
        if stone.length_mm > 1.1 * form.diameter_mm:
            refuse(
                "head.stone.length_mm",
                "the stone is longer than the finger is wide",
                say("up to {most}", most=Length(math.floor(1.1 * form.diameter_mm))),
            )
        d = wire.size_mm
        x_f, z_f = self._corner(d)
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
        return Opening(gap_rad=theta, shoulder_rad=theta, bare_mm=form.locks * d + 0.5, facts=_Facts(radius, theta, spread, n))

    def _bend(self, d: float) -> float:
        return (d / 2 if self.foot_radius_mm is None else self.foot_radius_mm) + d / 2

    def _corner(self, d: float) -> tuple[float, float]:
        """Where a wire stands at a corner: at the middle of a cut corner, half a wire outside it; on a curved edge, at 45°."""
        stone = self.stone
        a, b = stone.length_mm / 2, stone.width_mm / 2
        if stone.shape in ("oval", "round"):
            x, z = a * math.cos(math.pi / 4), b * math.sin(math.pi / 4)
            nx, nz = x / a**2, z / b**2
            norm = math.hypot(nx, nz)
            return x + d / 2 * nx / norm, z + d / 2 * nz / norm
        c = 0.0 if stone.shape == "rectangle" else min(stone.corner_mm, 2 * a / 3, 2 * b / 3)
        out = d / (2 * math.sqrt(2))
        return a - c / 2 + out, b - c / 2 + out

    def make(self, form: Form, band: FormedBand, wires: Wires, opening: Opening) -> HeadWork:
        facts: _Facts = opening.facts
        ends = [end for end in band.ends if end.role != "weave"]
        if opening.bare_mm == 0:
            return self._claws(form, band, wires, facts, ends)
        return self._prongs(form, band, wires, facts, ends)

    # Prongs: two ends lock round the others, the rest stand up at the corners.

    def _prongs(self, form: Form, band: FormedBand, wires: Wires, facts: _Facts, ends: list[End]) -> HeadWork:
        n, d = facts.lanes, band.strand_wire.size_mm
        places = [(n - 0.5 - j) * d for j in range(2 * n)]
        onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
        prongs: list[Prong] = []
        for end in ends:
            # From +z on: left, right, left, right …
            order = n - 1 - end.lane
            left = end.side == "left"
            z = places[2 * order + (0 if left else 1)]
            locking = order == 0 if left else order == n - 1
            sign = 1 if left else -1
            z_from = end.at[2]
            cross = Arc("cross", facts.radius_mm, -sign * facts.theta, 2 * sign * facts.theta, z_from, z)
            backwards = end.which == "first"
            moves = [Placed(f"{end.name}.cross", cross, backwards=backwards)]
            if locking:
                locked = self._lock(form, band, wires, facts, places, z, right=left)
                moves += [Placed(f"{end.name}.{name}", move, turned=not left, backwards=backwards) for name, move in locked]
            else:
                prong = self._prong(facts, d, z, right=left, order=order - (1 if left else 0), count=n - 1)
                prongs.append(prong)
                tip = prong.path()[-1]
                trim = Straight("trim", tip, (tip[0], tip[1] + self.trimmed_mm, tip[2]))
                moves += [
                    Placed(f"{end.name}.prong", prong, backwards=backwards),
                    Placed(f"{end.name}.trim", trim, fate=Fate.TRIM, backwards=backwards),
                ]
            onward[end.key] = tuple(moves)
        for k, tail in enumerate(end for end in band.ends if end.role == "weave"):
            onward[tail.key] = self._weave_tail(band, wires, facts, tail, k)
        stone = self._placed_stone(facts.radius_mm + d / 2)
        done = _Facts(facts.radius_mm, facts.theta, facts.half_spread_mm, n, tuple(prongs))
        return HeadWork(onward=onward, stones=(stone,), ledger=band.ledger, tied=True, height_mm=d + self.stone.height_mm, facts=done)

    def _lock(
        self, form: Form, band: FormedBand, wires: Wires, facts: _Facts, places: list[float], z: float, *, right: bool
    ) -> list[tuple[str, Move]]:
        """A locking end round all the others at the far shoulder, and its curl, seen on the right side."""
        d = band.strand_wire.size_mm
        fine = wires["weave"].size_mm if "weave" in wires else 0.0
        others = tuple(p if right else -p for p in places if abs(p - z) > 1e-9)
        own = z if right else -z
        wrap = Wrap(
            "lock",
            form.locks,
            row_at(band.strand_wire.profile, others),
            band.strand_wire.profile,
            facts.radius_mm - d / 2,
            facts.theta,
            start=(math.copysign(1e3, own), d / 2),
            # Beside the weave, which lies inside already.
            inside_mm=d - fine,
            cause=LOCKS,
            host="the crossing ends",
        )
        found: list[tuple[str, Move]] = [("lock", wrap)]
        if self.curl_mm:
            x, y, at_z = wrap.ends
            radius, angle = math.hypot(x, y), math.atan2(x, y)
            curl = Arc("curl", radius, angle, self.curl_mm / radius, at_z, at_z)
            end_angle = angle + self.curl_mm / radius
            along = (math.cos(end_angle), -math.sin(end_angle), 0.0)
            outwards = (math.sin(end_angle), math.cos(end_angle), 0.0)
            found += [("curl", curl), ("eye", Eye("eye", _EYE_MM, d, on_circle(radius, end_angle, at_z), along, outwards))]
        return found

    def _prong(self, facts: _Facts, d: float, z: float, *, right: bool, order: int, count: int) -> Prong:
        """A wire from its place in the crossing to its corner: upper wire to upper corner."""
        x_f, z_f = self._corner(d)
        share = 1 - 2 * order / (count - 1) if count > 1 else 0.0
        # Between the corners the edge is straight: a middle prong stands half a wire outside it.
        corner = (x_f if abs(share) > 0.5 else self.stone.length_mm / 2 + d / 2, z_f * share)
        side = 1 if right else -1
        x, y, _ = on_circle(facts.radius_mm, side * facts.theta, z)
        start, foot = (x, y, z), (side * corner[0], facts.radius_mm, corner[1])
        bend = self._bend(d)
        lip = (self.lip_eye_mm + d) / 2
        edge = self.stone.height_mm if self.stone.edge_height_mm is None else self.stone.edge_height_mm
        return Prong("prong", start, foot, math.dist(start, foot), edge + d, bend, lip, 1.0 if self.lip == "full" else 0.5, d)

    def _weave_tail(self, band: FormedBand, wires: Wires, facts: _Facts, tail: End, k: int) -> tuple[Placed, ...]:
        """The weave's tails bind the curls' eyes to the band's edge and are coiled off behind the stone."""
        fine, d = wires["weave"], band.strand_wire.size_mm
        backwards = tail.which == "first"
        own: float = 1 if tail.at[0] > 0 else -1
        side = own if k == 0 else -own
        edge = max(band.strand_z(0)) + d
        angle = facts.theta + (self.curl_mm + 1.0) / facts.radius_mm
        bind = Wrap(
            "bind",
            2,
            Bundle(((side * (edge - d), 0.0), (side * edge, 0.0)), d / 2),
            fine.profile,
            facts.radius_mm,
            side * angle,
            start=(0.0, 9.0),
            pitch_mm=0.0,
            host="the curl's eye and the edge",
        )
        coil = Wrap("coil", 3, Bundle(((0.0, 0.0),), d / 2), fine.profile, facts.radius_mm, 0.0, start=(0.0, 9.0), host="a crossing wire")
        if self.curl_mm:
            moves: list[tuple[str, Move]] = [("lead", Lead("to the curl", tail.at, bind.begins)), ("bind", bind)]
            here = bind.ends
        else:
            moves, here = [], tail.at
        moves += [("lead2", Lead("behind the stone", here, coil.begins)), ("coil", coil)]
        return tuple(Placed(f"{tail.name}.{name}", move, backwards=backwards) for name, move in moves)

    # Claws: all ends bound side by side in a base, then folded over the stone.

    def _claws(self, form: Form, band: FormedBand, wires: Wires, facts: _Facts, ends: list[End]) -> HeadWork:
        d = band.strand_wire.size_mm
        stone = self.stone
        rounding = max(stone.height_mm / 3 if stone.edge_radius_mm is None else stone.edge_radius_mm, d / 2)
        apart = 0.4 * stone.width_mm if self.claws_apart_mm is None else self.claws_apart_mm
        lip = max(0.2 * stone.length_mm, 2.5 * d) if self.lip_mm is None else self.lip_mm
        if 2 * lip > stone.length_mm - 2 * rounding:
            refuse(
                "head.lip_mm",
                "the claws' tips meet in the middle of the stone",
                say("up to {most}", most=Length((stone.length_mm - 2 * rounding) / 2)),
            )
        if rounding * 2 > stone.height_mm:
            refuse(
                "head.stone.edge_radius_mm",
                "the edge's rounding is more than half the stone's height",
                say("up to {most}", most=Thickness(stone.height_mm / 2)),
            )
        chord = stone.length_mm
        if stone.shape in ("oval", "round"):
            chord *= math.sqrt(max(0.1, 1 - (apart / stone.width_mm) ** 2))
        top = facts.radius_mm + d / 2
        onward: dict[tuple[str, str], tuple[Placed, ...]] = {}
        claw: Claw | None = None
        for side in ("right", "left"):
            of_side = sorted((e for e in ends if e.side == side), key=lambda e: e.at[2])
            for k, end in enumerate(of_side):
                z = apart * (k / (len(of_side) - 1) - 0.5) if len(of_side) > 1 else 0.0
                own = 1 if side == "right" else -1
                out = own if self.claw_path == "own-side" else -own
                edge = (out * (chord / 2 - rounding), top, z)
                claw = Claw("claw", end.at, edge, rounding + d / 2, stone.height_mm - 2 * rounding, lip, d)
                tip = claw.path()[-1]
                trim = Straight("trim", tip, (tip[0] - out * self.trimmed_mm, tip[1], tip[2]))
                backwards = end.which == "first"
                moves = [Placed(f"{end.name}.claw", claw, backwards=backwards)]
                if self.tip == "curled":
                    curl = Eye("curl", self.lip_eye_mm, d, tip, (-out, 0.0, 0.0), (0.0, 1.0, 0.0))
                    moves.append(Placed(f"{end.name}.curl", curl, backwards=backwards))
                moves.append(Placed(f"{end.name}.trim", trim, fate=Fate.TRIM, backwards=backwards))
                onward[end.key] = tuple(moves)
        binding, wraps = self._binding(band, wires, facts, len(ends), d)
        done = _Facts(facts.radius_mm, facts.theta, facts.half_spread_mm, facts.lanes, (), claw, wraps)
        return HeadWork(
            onward=onward,
            pieces=(binding,),
            stones=(self._placed_stone(top + d / 2),),
            ledger=band.ledger,
            tied=True,
            height_mm=2 * d + stone.height_mm,
            facts=done,
        )

    def _binding(self, band: FormedBand, wires: Wires, facts: _Facts, abreast: int, d: float) -> tuple[Piece, int]:
        """Fine wire round all the ends side by side, from one end of the base to the other."""
        fine = wires["bind"]
        wraps = max(1, round(self.base_mm / fine.width_mm))
        inner = band.inside_mm / 2
        row = row_at(band.strand_wire.profile, tuple((k - (abreast - 1) / 2) * d for k in range(abreast)))
        wrap = Wrap(
            "bind",
            wraps,
            row,
            fine.profile,
            inner,
            -self.base_mm / 2 / inner,
            start=(0.0, 9.0),
            inside_mm=fine.height_mm,
            cause=BINDING,
            host="the base",
        )
        first = Lead("anchor", _beyond(wrap.begins, 6 * fine.width_mm, -1), wrap.begins)
        tails = [Straight("twisted tail", at, (at[0], at[1] + _TAIL_MM, at[2])) for at in (first.start, wrap.ends)]
        moves = (
            Placed("bind.first.tail", tails[0], fate=Fate.TRIM, backwards=True),
            Placed("bind.anchor", first),
            Placed("bind.wraps", wrap),
            Placed("bind.last.tail", tails[1], fate=Fate.TRIM),
        )
        return Piece("bind.1", "bind", fine, moves, ends=(EndCare.DRAWN, EndCare.DRAWN)), wraps

    def _placed_stone(self, under_y: float) -> PlacedStone:
        stone = self.stone
        return PlacedStone(
            "stone",
            "head.stone",
            (0.0, under_y + stone.height_mm / 2, 0.0),
            stone.length_mm,
            stone.width_mm,
            stone.height_mm,
            shape=stone.shape,
            gem=stone,
        )

    def phrase(self) -> Say:
        stone = self.stone
        held = "claws" if self.setting == "claws" else "prongs"
        return say(
            "{length} by {width} stone in {held}", length=Article(Thickness(stone.length_mm)), width=Thickness(stone.width_mm), held=held
        )

    def advise(self, band: FormedBand, work: HeadWork) -> list[Warn]:
        d = band.strand_wire.size_mm
        facts: _Facts = work.facts
        found = []
        least = 0.8 if self.stone.length_mm <= 12 else 0.9
        if d < least - 1e-9 and band.strand_wire.temper == "soft":
            text = say("Soft {wire} won't hold so large a stone: {least}, or half hard.", wire=Thickness(d), least=Thickness(least))
            found.append(Warn("prongs-thin", text, "wires.base.diameter"))
        if facts.claw and self.base_mm > 0.5 * band.inside_mm:
            found.append(Warn("base-long", Say("So long a base stands off the finger."), "head.base_mm"))
        if not facts.claw and 2 * (self.lip_eye_mm + 2 * d) > 0.5 * self.stone.width_mm and self.lip == "full":
            found.append(Warn("lips-hide", Say("Full lips hide much of so small a stone: half ones show it."), "head.lip"))
        return found

    def tasks(self, band: FormedBand, work: HeadWork) -> list[Task]:
        facts: _Facts = work.facts
        return self._claw_tasks(band, work, facts) if facts.claw else self._prong_tasks(band, work, facts)

    def _prong_tasks(self, band: FormedBand, work: HeadWork, facts: _Facts) -> list[Task]:
        ids = [p.id for moves in work.onward.values() for p in moves]
        d = band.strand_wire.size_mm
        crosses = tuple(i for i in ids if i.endswith("cross"))
        locks = [i for i in ids if i.endswith("lock")]
        curls = tuple(i for i in ids if i.endswith((".curl", ".eye")))
        binds = tuple(i for i in ids if i.startswith("weave."))
        prongs = tuple(i for i in ids if i.endswith("prong"))
        wraps = Count(band.form.locks, "full turn", "full turns")
        lay = "Off the mandrel, lay the ends over each other in turn: left, right, left, right, none crossing another twice."
        mark = say(
            "Mark each remaining end {runs} and bend it up square there, jaws a wire short of the mark.",
            runs=_runs(facts.prongs),
        )
        if self.order == "against-stone":
            mark = say(
                "Cut each end to {length}, hold the stone on, and push each wire up along its corner until its bend shows.",
                length=Length(facts.prongs[0].length_mm + self.trimmed_mm),
            )
        tasks = [
            Task(
                "cross",
                Phase.GATHER,
                Say(lay),
                makes=crosses,
                checks=(
                    look("Side by side and flat on the mandrel; no two neighbours from one side."),
                    reads(0.1, Say("Form it one mark smaller: it springs back.")),
                ),
            ),
            Task(
                "lock-1",
                Phase.GATHER,
                say(
                    "Hold the crossing; take the outermost left end across to the right shoulder and {wraps} round all the others, close to the weave.",
                    wraps=wraps,
                ),
                makes=tuple(locks[:1]),
                checks=(look("Tight against the weave; the rest lie flat."),),
            ),
            Task(
                "lock-2",
                Phase.GATHER,
                say("The outermost right end the same on the left, half a turn's image of the first."),
                makes=tuple(locks[1:]),
                checks=(reads(0.15, Say("Slacken both by a quarter, slide it on the mandrel, draw tight again.")),),
                cautions=(cautions.LAST_EASY,),
            ),
        ]
        if curls:
            tasks.append(
                Task(
                    "curl",
                    Phase.GATHER,
                    say(
                        "Curve both locking ends along the band's edge, cut them {length} long, and turn each into a small eye.",
                        length=Length(self.curl_mm + math.pi * (_EYE_MM + d)),
                    ),
                    makes=curls,
                    checks=(look("Left and right match, turned half round."),),
                    cautions=(cautions.CUT,),
                )
            )
        if binds:
            tasks.append(
                Task(
                    "bind",
                    Phase.GATHER,
                    Say(
                        "Bind each eye to the band's edge with a tail of the weave, twice, drawn down; the farther tail is led across behind the stone first. Coil what is left three times on a crossing wire there, trim, press in."
                    ),
                    makes=binds,
                    checks=(look("Flat, no end felt."),),
                    cautions=(cautions.FINE_PULL,),
                )
            )
        wall = facts.prongs[0].above_foot_mm
        tasks += [
            Task(
                "fan",
                Phase.HEAD,
                say("Fan the {ends} ends evenly, stone face down on a cloth, each wire under its corner.", ends=number_words(len(prongs))),
                checks=(look("Wires leave at the middle of each corner.", "Move them by hand before any bend."),),
            ),
            Task("feet", Phase.HEAD, mark, makes=prongs, checks=(look("All feet are square; none was bent twice."),)),
            Task(
                "trim-prongs",
                Phase.HEAD,
                say("Trim each to {above} above its bend.", above=Length(wall)),
                checks=(look("All alike."),),
                cautions=(cautions.CUT,),
                count=len(prongs),
            ),
            Task(
                "lips",
                Phase.HEAD,
                say("Roll a {lip} loop, {eye} inside, outwards at each tip.", lip=self.lip, eye=Thickness(self.lip_eye_mm)),
                count=len(prongs),
            ),
            Task(
                "set",
                Phase.HEAD,
                Say(
                    "Set the stone in and bend the loops over its edge, opposite ones in turn, a little each; then draw each in with the pliers in its loop."
                ),
                checks=(
                    Check(
                        Say("It neither rattles nor turns."),
                        Say("Loose: a small twist of the wall, not of the loop. Too tight: open that foot by hand, once."),
                    ),
                ),
                cautions=(cautions.STONE, cautions.NO_MALLET),
            ),
        ]
        return tasks

    def _claw_tasks(self, band: FormedBand, work: HeadWork, facts: _Facts) -> list[Task]:
        claw = facts.claw
        assert claw is not None
        ids = [p.id for moves in work.onward.values() for p in moves]
        claws = tuple(i for i in ids if i.endswith((".claw", ".curl")))
        cut_ends = claw.length_mm + self.trimmed_mm
        return [
            Task(
                "try",
                Phase.WIRE,
                say("Measure the stone and try a scrap of the same wire over it: its tip lies {lip} on the top.", lip=Length(claw.lip_mm)),
                stage="test",
            ),
            Task(
                "ends",
                Phase.GATHER,
                say("Cut the ends alike, {length} beyond the twist or weave, and file them square.", length=Length(cut_ends)),
                cautions=(cautions.CUT,),
            ),
            Task(
                "base",
                Phase.GATHER,
                Say("Bring the ends together at the top, flat and parallel, one from the left, one from the right in turn."),
                checks=(reads(0.2),),
            ),
            Task(
                "bind",
                Phase.GATHER,
                say(
                    "Push one end of the fine wire through the last turn and bind {wraps} across all of them, each close to the last.",
                    wraps=Count(facts.wraps, "wrap", "wraps"),
                ),
                makes=("bind.anchor", "bind.wraps"),
                checks=(
                    Check(say("The base is {base} long, flat, no wire on another.", base=Length(self.base_mm))),
                    reads(0.15, Say("Small: tap on. More than a quarter size small: stretch. Big: bind it again.")),
                ),
                count=facts.wraps,
                cautions=(cautions.LAST_EASY,),
            ),
            Task(
                "twist-tails",
                Phase.GATHER,
                say(
                    "Twist its two ends together, cut the twist at {tail}, roll it up and press it flat on the stone's side.",
                    tail=Length(_TAIL_MM),
                ),
                checks=(look("Nothing is felt inside."),),
            ),
            Task(
                "fold",
                Phase.HEAD,
                say(
                    "Splay the claws and bend each up {leg} from the twist, jaws a wire short of the mark; set the stone in without force.",
                    leg=Length(claw.leg_mm),
                ),
                makes=claws,
                count=len(claws),
            ),
            Task(
                "over",
                Phase.HEAD,
                Say("Fold the claws over one after the other, opposite ones in turn, pressing along the stone with wood or nylon."),
                checks=(Check(Say("It neither rattles nor turns."), Say("Rattles: press the wall in first, then the tip.")),),
                cautions=(cautions.STONE, cautions.NO_MALLET),
            ),
            Task("tips", Phase.HEAD, Say("Cut the tips to match and file them round."), cautions=(cautions.CUT, cautions.GRIND)),
        ]


def _runs(prongs: Sequence[Prong]) -> Say:
    """How far from the lock each stands up."""
    runs = list(dict.fromkeys(round(p.run_mm, 1) for p in sorted(prongs, key=lambda p: round(abs(p.start[2]), 6))))
    order = ", counted from the middle of the crossing outwards," if len(runs) > 1 else ""
    return say(f"{{runs}} from the lock{order}", runs=listed([say("{run}", run=Length(run)) for run in runs]))


def _beyond(at: Point3, by: float, side: int) -> Point3:
    return (at[0] + side * by, at[1], at[2])
