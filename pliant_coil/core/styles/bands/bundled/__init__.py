"""Bundled: square wires side by side, bound by half-round wire in runs, mirrored about the middle; joined by itself at the top."""

import math
from collections.abc import Mapping
from functools import lru_cache, partial
from typing import Any, ClassVar, Literal

from pydantic import Field

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.binding import Rhythm, Run, fit, read_runs
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.mechanics.program import LETTERS
from pliant_coil.core.moves.arc import Arc, Swaying
from pliant_coil.core.moves.base import Cause, on_circle
from pliant_coil.core.moves.passing import Course
from pliant_coil.core.moves.placed import EndCare, Piece, Placed
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.styles.bands.bundled import steps
from pliant_coil.core.styles.contract import BandStyle
from pliant_coil.core.styles.handed_on import Effect, End, Form, FormedBand, Joined, Opening, SizedBy, Top, Warn, Wires
from pliant_coil.core.styles.parameters import WireSpec, choice, millimetres, number
from pliant_coil.core.styles.repeats import Chart, ChartPass, ChartWire, Repeats
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.trade.sizes import US_STEP_MM
from pliant_coil.core.words.figures import Count, Length, number_words
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Say, say

STRETCHED = Cause("stretched", "stretched on the mandrel")

_STIFF_MM = 0.8
"""Of square wire that isn't soft: larger ones spring away from the mandrel (common practice, no source)."""


@dataclass(frozen=True)
class Bound:
    """A bundle on one size: its radii, rows and rhythm [mm]."""

    base: Profile
    bind: Profile
    rows: tuple[float, ...]
    inner: int
    touch_mm: float
    """Where the coils touch, on the inside of the squares."""
    middle_mm: float
    """The squares' neutral line."""
    rhythm: Rhythm
    lap_mm: float
    """The bare place as it comes out."""

    def bundle(self, run: Run) -> Bundle:
        if run.inner:
            first = (len(self.rows) - self.inner) // 2
            return _row(self.base, self.rows[first], self.rows[first + self.inner - 1])
        # Round all, the outer wires lie against the inner ones.
        half = (len(self.rows) - 1) / 2 * self.base.width_mm
        return _row(self.base, -half, half)

    @property
    def pitch_rad(self) -> float:
        return self.bind.width_mm / self.touch_mm


class Bundled(BandStyle):
    """Strands side by side, bound from the middle outwards; the ends of both sides are bound together at the top."""

    title: ClassVar[str] = "Bundled"
    hides_splice = "inside the join"
    usual_wires: ClassVar[Mapping[str, WireSpec]] = {
        "base": WireSpec(diameter="0.8 mm", profile="square"),
        "bind": WireSpec(diameter="0.9 mm", profile="half-round", temper="half-hard"),
    }
    main_role: ClassVar[str] = "base"
    stretches_us: ClassVar[float] = 0.5
    style: Literal["bundled"] = choice("bundled", "Band")
    strands: int = number(4, "Wires in the row", 3, 6)
    inner_strands: int | None = number(None, "Wires in the inner runs", 1, 4, "Two fewer than in the row unless given.", rare=True)
    runs: str = Field(
        "9 middle, 4 all, 7 inner",
        title="Runs",
        max_length=160,
        description="From the middle outwards on each side, repeated: 9 middle (counted once), then 4 all, 7 inner.",
    )
    last_min: int = number(2, "Last run, at least", 1, 20, "The run round all before the bare place: what the size decides.", rare=True)
    last_max: int = number(8, "Last run, at most", 1, 40, rare=True)
    lap_mm: float | None = millimetres(None, "Bare place for the join", 2, 20, "Room for both tails' coils and a little more unless given.")
    join_coils: int = number(3, "Coils of each tail at the join", 2, 5)
    joined: Literal["stacked", "abreast"] = choice(
        "stacked", "Ends joined", "One side's ends on the other's, or all side by side.", rare=True
    )
    form_down_us: float = number(0.25, "Formed smaller by", 0, 0.5, "US sizes; it is stretched afterwards.", rare=True)

    @property
    def inner(self) -> int:
        return self.strands - 2 if self.inner_strands is None else self.inner_strands

    def lap(self, bind: Profile) -> float:
        """The bare place that is asked for."""
        return 2 * self.join_coils * bind.width_mm + 3 if self.lap_mm is None else self.lap_mm

    def tops(self) -> frozenset[Top]:
        return frozenset({Top.CLOSED, Top.ENDS})

    def check(self, target_mm: float, wires: Wires) -> None:
        read_runs(self.runs, "band.runs")
        base, bind = wires["base"], wires["bind"]
        if base.profile.name not in ("square", "round"):
            refuse("wires.base.profile", f"{base.profile.name} wires in a row aren't reckoned here", "square or round")
        if bind.profile.name not in ("half-round", "round"):
            refuse("wires.bind.profile", f"{bind.profile.name} wire isn't reckoned as a binder here", "half-round or round")
        if self.inner >= self.strands or (self.strands - self.inner) % 2:
            refuse(
                "band.inner_strands",
                f"{self.inner} inner of {self.strands} can't lie in the middle",
                " or ".join(str(k) for k in range(1, self.strands) if (self.strands - k) % 2 == 0),
            )

    def bound(self, inside_mm: float, wires: Wires, form: Form) -> Bound:
        """The rhythm that fits this size."""
        base, bind = wires["base"].profile, wires["bind"].profile
        touch = inside_mm / 2 + bind.height_mm
        middle = touch + base.centroid_mm
        lap = self.lap(bind)
        room = (2 * math.pi - lap / middle) * touch / bind.width_mm
        middle_run, written = read_runs(self.runs, "band.runs")
        coils = form.counts.get("coils")
        rhythm = fit(middle_run, written, float(coils) if coils else room, last_min=self.last_min, last_max=self.last_max)
        made = rhythm.coils * bind.width_mm / touch
        return Bound(base, bind, self._rows(base, bind), self.inner, touch, middle, rhythm, (2 * math.pi - made) * middle)

    def _rows(self, base: Profile, bind: Profile) -> tuple[float, ...]:
        """Middles of the wires along the finger: the binder passes between inner and outer wires."""
        a = base.width_mm
        n, k = self.strands, self.inner
        outside = (n - k) // 2
        middles = [(j - (k - 1) / 2) * a for j in range(k)]
        for _ in range(outside):
            gap = bind.height_mm if len(middles) == k else 0.0
            middles = [middles[0] - a - gap, *middles, middles[-1] + a + gap]
        return tuple(middles)

    def form(self, form: Form, wires: Wires, opening: Opening) -> FormedBand:
        stretched = self.form_down_us * US_STEP_MM
        inside = form.diameter_mm + stretched
        bound = self.bound(inside, wires, form)
        binder = self._binder(bound)
        pieces = [self._square(bound, k, wires) for k in range(self.strands)]
        pieces.append(Piece("bind.1", "bind", wires["bind"], tuple(binder)))
        width = self.strands * bound.base.width_mm + 2 * bound.bind.height_mm
        ends = self._ends(bound, pieces, wires) if opening.end_mm else ()
        return FormedBand(
            form=form,
            pieces=tuple(pieces),
            inside_mm=inside,
            strands=self.strands,
            width_mm=width,
            thickness_mm=bound.base.height_mm + 2 * bound.bind.height_mm,
            strand_z=lambda _: bound.rows,
            strand_wire=wires["base"],
            strand_height_mm=bound.base.height_mm,
            ends=ends,
            effects=(Effect(STRETCHED, stretched, phase="round"),) if stretched else (),
            joined=Joined.BAND,
            sized_by=SizedBy.LENGTH,
            repeats=self._repeats(bound),
            tied=True,
            facts=bound,
        )

    def _ends(self, bound: Bound, pieces: list[Piece], wires: Wires) -> tuple[End, ...]:
        """Every wire's ends as they stand beside the join, for a head that is made of them: a row on each side, and both binder tails."""
        found = []
        for k in range(self.strands):
            under, over = pieces[k].moves[0].move, pieces[k].moves[-1].move
            name = pieces[k].id
            found.append(End(name, "first", "left", k, under.path()[-1], wires["base"], "base", f"left.{k + 1}"))
            found.append(
                End(name, "last", "right", self.strands - 1 - k, over.path()[-1], wires["base"], "base", f"right.{self.strands - k}")
            )
        binder = pieces[-1]
        begins, ends = binder.moves[0].path()[0], binder.moves[-1].path()[-1]
        found.append(End(binder.id, "first", "right", 0, begins, wires["bind"], "bind", "bind.right"))
        found.append(End(binder.id, "last", "left", 0, ends, wires["bind"], "bind", "bind.left"))
        return tuple(found)

    def _square(self, bound: Bound, k: int, wires: Wires) -> Piece:
        """One strand: round from the bare place to itself, and over it with both ends."""
        half = bound.lap_mm / 2 / bound.middle_mm
        z = (k - (self.strands - 1) / 2) * bound.base.width_mm
        arc = Swaying(
            "bound",
            bound.middle_mm,
            half,
            2 * math.pi - 2 * half,
            z,
            z,
            self._sways(bound, k, half),
            mark="middle",
            mark_share=0.5,
            host="the mandrel",
        )
        under = Arc("join, below", bound.middle_mm, half, -2 * half, z, z)
        up = bound.base.height_mm if self.joined == "stacked" else 0.0
        aside = 0.0 if self.joined == "stacked" else self.strands * bound.base.width_mm
        points: list[Point3] = []
        steps = 12
        for step in range(steps + 1):
            share = step / steps
            rise = min(1.0, 4 * share)
            points.append(on_circle(bound.middle_mm + up * rise, 2 * math.pi - half + 2 * half * share, z + aside * rise))
        over = Course("join, above" if up else "join, beside", lambda: points, Say("over the bare place, on the other side's ends"))
        name = f"base.{k + 1}"
        moves = (Placed(f"{name}.under", under, backwards=True), Placed(f"{name}.arc", arc), Placed(f"{name}.over", over))
        return Piece(name, "base", wires["base"], moves, ends=(EndCare.CUT, EndCare.CUT))

    def _sways(self, bound: Bound, k: int, half: float) -> tuple[tuple[float, float], ...]:
        """Where a strand lies along the finger: against its neighbours where all are bound, off them where the binder goes between."""
        tight, splayed = (k - (self.strands - 1) / 2) * bound.base.width_mm, bound.rows[k]
        at, found = half, [(half, tight)]
        for _, run in self._clockwise(bound.rhythm):
            z = splayed if run.inner else tight
            end = at + run.coils * bound.pitch_rad
            comes = min(1.0, run.coils / 2) * bound.pitch_rad
            found += [(at + comes, z), (end - comes, z)]
            at = end
        return (*found, (2 * math.pi - half, tight))

    @staticmethod
    def _clockwise(rhythm: Rhythm) -> list[tuple[str, Run]]:
        """The runs by name, from the bare place's right side round to its left."""
        runs = [(f"right.{k + 1}", run) for k, run in reversed(list(enumerate(rhythm.side)))]
        if rhythm.middle:
            runs.append(("middle", rhythm.middle))
        return [*runs, *((f"left.{k + 1}", run) for k, run in enumerate(rhythm.side))]

    def _binder(self, bound: Bound) -> list[Placed]:
        """Clockwise from the join: half the join's coils, the right side's runs, the middle, the left side's, the rest of the join."""
        found = []
        rhythm = bound.rhythm
        half = bound.lap_mm / 2 / bound.middle_mm
        at = half
        middle_marked = False
        for name, run in self._clockwise(rhythm):
            marked = name == "middle" or (not rhythm.middle and name == "left.1")
            wrap = Wrap(
                run.words.split(" ")[1],
                run.coils,
                bound.bundle(run),
                bound.bind,
                bound.touch_mm,
                at,
                start=(0.0, -bound.bind.height_mm),
                mark="" if middle_marked or not marked else "middle",
                mark_share=0.5 if name == "middle" else 0.0,
                host="the row",
            )
            middle_marked = middle_marked or marked
            found.append(Placed(f"bind.{name}", wrap))
            at += run.coils * bound.pitch_rad
        first, last = (self._join(bound, side) for side in (1, -1))
        return [Placed("bind.join.right", first, backwards=True), *found, Placed("bind.join.left", last)]

    def _join(self, bound: Bound, side: int) -> Wrap:
        """Each tail's coils round the ends of both sides, away from its own runs."""
        a, s = len(bound.rows) * bound.base.width_mm, bound.base.height_mm
        if self.joined == "stacked":
            corners = ((-a / 2, 0.0), (a / 2, 0.0), (a / 2, 2 * s), (-a / 2, 2 * s))
        else:
            corners = ((-a / 2, 0.0), (3 * a / 2, 0.0), (3 * a / 2, s), (-a / 2, s))
        half = bound.lap_mm / 2 / bound.middle_mm
        return Wrap(
            "join",
            self.join_coils,
            Bundle(corners, 0.0),
            bound.bind,
            bound.touch_mm,
            side * half,
            -side,
            start=(0.0, -bound.bind.height_mm),
            host="both sides' ends",
        )

    def _repeats(self, bound: Bound) -> Repeats:
        rhythm, w = bound.rhythm, bound.bind.width_mm
        one_more = w * 2 / bound.touch_mm * bound.middle_mm
        return Repeats(
            name="coils",
            kind="bind",
            program=rhythm.words,
            count=rhythm.coils,
            repeat_mm=w,
            made_mm=rhythm.coils * w,
            target_mm=(2 * math.pi - self.lap(bound.bind) / bound.middle_mm) * bound.touch_mm,
            wire_per_repeat_mm=math.hypot(bound.bundle(Run(1, False)).loop_mm(bound.bind.centroid_mm), w),
            repeat_changes_mm=one_more / math.pi,
            chart=partial(_chart, bound),
            mirrored=True,
            runs=rhythm.words,
        )

    def advise(self, band: FormedBand, opening: Opening) -> list[Warn]:
        bound: Bound = band.facts
        s, w = bound.base.width_mm, bound.bind.width_mm
        found = []
        least = 2 * self.join_coils * w + 1
        if bound.lap_mm < least - 0.5:
            text = say(
                "The bare place of {lap} is short for {coils} from both sides: {least} takes them.",
                lap=Length(bound.lap_mm),
                coils=Count(self.join_coils, "coil", "coils"),
                least=Length(math.ceil(least)),
            )
            found.append(Warn("join-short", text, "band.lap_mm"))
        if w > 1.5 * s or w < 0.8 * s:
            word = "crushes" if w > 1.5 * s else "slips on"
            found.append(
                Warn("binder-width", Say(f"The binder {word} these wires: take one a little wider than a strand."), "wires.bind.diameter")
            )
        if bound.base.name == "square" and band.strand_wire.temper != "soft" and s > _STIFF_MM:
            found.append(
                Warn(
                    "squares-stiff",
                    Say("Hard squares of this size don't bend tight round a finger: soft ones, or form it smaller."),
                    "wires.base.temper",
                )
            )
        rhythm = bound.rhythm
        if any(run.inner and run.coils > 12 for run in (rhythm.middle, *rhythm.side) if run):
            found.append(
                Warn("outer-wires-bow", Say("Where more than 12 coils lie round the inner wires the outer ones bow out."), "band.runs")
            )
        last = rhythm.side[-1].coils
        if not self.last_min <= last <= self.last_max:
            text = say(
                "The last run comes to {coils}: another run or another bare place fits this size more evenly.",
                coils=Count(last, "coil", "coils"),
            )
            found.append(Warn("no-even-rhythm", text, "band.runs"))
        if self.joined == "abreast" and 2 * self.strands * s > 0.5 * band.inside_mm:
            found.append(Warn("join-wide", Say("The join stands out wide: stack it."), "band.joined"))
        return found

    def phrase(self) -> Say:
        return say("{strands} wires bound {runs}", strands=number_words(self.strands), runs=self.runs.strip())

    def tasks(self, band: FormedBand, opening: Opening) -> list[Task]:
        return steps.tasks(self, band, opening)

    @classmethod
    def from_version_1(cls, band: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
        band.setdefault("runs", "5 inner, 3 all, 10 inner, 3 all")
        band.setdefault("lap_mm", 6)
        # Where a default has changed, the old one is written out.
        wires = document.setdefault("wires", {})
        if isinstance(wires, dict):
            for role, usual in (
                ("base", {"diameter": "0.7 mm", "profile": "square"}),
                ("bind", {"diameter": "0.8 mm", "profile": "half-round"}),
            ):
                given = wires.setdefault(role, {})
                if isinstance(given, dict):
                    for field, value in usual.items():
                        given.setdefault(field, value)
                    given.setdefault("temper", "soft")
        return band


@lru_cache(maxsize=64)
def _row(base: Profile, first_mm: float, last_mm: float) -> Bundle:
    """The row from one wire's middle to another's: its outermost centres rounded, or its outermost corners."""
    if base.name == "round":
        half = base.size_mm / 2
        return Bundle(((first_mm, half), (last_mm, half)) if last_mm > first_mm else ((first_mm, half),), half)
    corners = base.outline(4)
    return Bundle(tuple((z + x, y) for z in (first_mm, last_mm) for x, y in corners), 0.0)


def _chart(bound: Bound) -> Chart:
    rhythm = bound.rhythm
    wires = tuple(ChartWire(LETTERS[k] if k < len(LETTERS) else str(k + 1), z, bound.base.width_mm) for k, z in enumerate(bound.rows))
    first = (len(bound.rows) - bound.inner) // 2
    runs = [*reversed(rhythm.side), *((rhythm.middle,) if rhythm.middle else ()), *rhythm.side]
    passes = []
    at = 0.0
    for run in runs:
        low, high = (first, first + bound.inner - 1) if run.inner else (0, len(bound.rows) - 1)
        for _ in range(run.coils):
            passes.append(ChartPass(round(at + bound.bind.width_mm / 2, 4), low, high))
            at += bound.bind.width_mm
    return Chart(bound.bind.width_mm, wires, tuple(passes))
