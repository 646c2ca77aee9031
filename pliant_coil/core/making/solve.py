"""What size comes off the mandrel, and where to start so that it is the right one. Nothing here knows a style."""

import math
from collections.abc import Callable, Sequence
from dataclasses import replace

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.making.assemble import MadeRing, assemble
from pliant_coil.core.making.ring import Ring
from pliant_coil.core.moves.base import Cause, Obstacle
from pliant_coil.core.moves.inside import largest_circle
from pliant_coil.core.ring_file.document import OwnStart
from pliant_coil.core.styles.handed_on import Form, SizedBy, Top
from pliant_coil.core.trade.schools import SCHOOLS, School
from pliant_coil.core.trade.sizes import US_STEP_MM, SizeChange, read_size
from pliant_coil.core.words.refusal import Refusal, refuse
from pliant_coil.core.words.say import Say, say

_CLOSE_MM = 1e-3
"""A hundredth of what a mandrel's marks can show."""
_FORM_RANGE_MM = (5.0, 45.0)
"""Rods and mandrels that a ring may be formed on; a start outside it is no start."""


@dataclass(frozen=True)
class Contribution:
    """One named reason why what comes off differs from where it was formed: inside diameter [mm], signed."""

    cause: Cause
    mm: float


def contributions(made: MadeRing) -> list[Contribution]:
    """Each cause with what it adds or takes, in the order in which they happen; together, finished minus start."""
    found = [Contribution(effect.cause, effect.inside_mm) for effect in made.effects]
    rest = made.band.inside_mm - made.form.diameter_mm - sum(c.mm for c in found)
    if abs(rest) > 1e-6:
        found.append(Contribution(Cause("whole-repeats", "whole repeats, not the length in between"), rest))
    causes = list(dict.fromkeys(o.cause for o in made.obstacles))
    before = made.band.inside_mm
    for known, cause in enumerate(causes, 1):
        counted = [o for o in made.obstacles if o.cause in causes[:known]]
        after = made.finished_mm if known == len(causes) else 2 * largest_circle(made.band.inside_mm / 2, counted).radius_mm
        found.append(Contribution(cause, after - before))
        before = after
    return found


@dataclass(frozen=True)
class Choice:
    """A form to choose: what comes off, and by how much that misses the aim [mm]."""

    form: Form
    finished_mm: float
    off_mm: float
    repeats: int | None = None


class Solver:
    """One ring's forms, each assembled once."""

    def __init__(self, ring: Ring) -> None:
        self.ring = ring
        self._made: dict[tuple[float, tuple[tuple[str, int], ...]], MadeRing] = {}

    def made(self, form: Form) -> MadeRing:
        """The ring on a form."""
        key = (form.diameter_mm, tuple(form.counts.items()))
        if key not in self._made:
            self._made[key] = assemble(self.ring, form)
        return self._made[key]

    def at(self, diameter_mm: float) -> MadeRing:
        """The ring formed at this inside diameter."""
        return self.made(self.ring.at(diameter_mm))

    def solved(self, aim_mm: float) -> list[Choice]:
        """Forms for an aim, the best first: a start mark, or whole repeats on either side of it."""
        first = self._start(aim_mm)
        made = self.at(first)
        best = Choice(made.form, made.finished_mm, made.finished_mm - aim_mm, made.band.repeats.count if made.band.repeats else None)
        repeats = made.band.repeats
        if made.band.sized_by is not SizedBy.LENGTH or repeats is None or abs(best.off_mm) < _CLOSE_MM:
            return [best]
        found = [best]
        for count in (repeats.count - 1, repeats.count + 1):
            try:
                other = self.made(self.ring.at(first, **{repeats.name: count}))
            except Refusal:
                continue
            found.append(Choice(other.form, other.finished_mm, other.finished_mm - aim_mm, count))
        return sorted(found, key=lambda choice: abs(choice.off_mm))

    def _start(self, aim_mm: float) -> float:
        """The form diameter [mm] whose finished size is `aim_mm`. Raises `Refusal` when no mandrel gives it."""
        guess = self._guess(aim_mm)
        first = self.at(guess)
        if first.band.sized_by is not SizedBy.MARK and not first.obstacles and not first.effects:
            return guess
        found = _root(lambda form: self.at(form).finished_mm - aim_mm, guess, lambda: _likely_start(first, aim_mm))
        if found is None:
            if first.band.sized_by is SizedBy.LENGTH:
                # Whole repeats go up in steps: near enough for the right ones to be found beside it.
                return _likely_start(first, aim_mm)
            refuse("wires", "this wire springs back further than any mandrel can make up for", "a softer or thicker wire, or lock wraps")
        return found

    def _guess(self, aim_mm: float) -> float:
        """Where to look for the start first: for most rings their locks say it before anything is made."""
        ring = self.ring
        guess = ring.band.start_mm(aim_mm)
        if not ring.locks or Top.TAILS not in ring.band.tops():
            return guess
        shoulder = ring.head.opening(ring.at(guess), ring.band, ring.wires).shoulder_rad
        if shoulder is None:
            return guess
        locks = ring.finish.likely_inside(ring.locks, ring.main_wire, guess / 2, shoulder)
        return 2 * _radius_for(guess / 2, locks, aim_mm / 2)

    def chosen(self, solved_mm: float) -> float:
        """The start [mm] that the ring file asks for: solved, a school's counted from the finger, or the maker's own mark."""
        choice = self.ring.file.sizing.school
        if isinstance(choice, OwnStart):
            return read_size(choice.start, "sizing.school.start").inside_diameter_mm
        if choice == "geometry":
            return solved_mm
        rule = next(rule for rule in SCHOOLS if rule.school == choice)
        return self.ring.target_mm + rule.steps_us * US_STEP_MM


def formed_where(planned: MadeRing, reading: Callable[[MadeRing], float], reads_mm: float) -> MadeRing | None:
    """The planned ring as it must have been formed so that this reading of it is `reads_mm`; None for rings whose size no mark sets.

    Readings move with the form nearly one to one, so what is missed is what the form is moved by.
    """
    if planned.band.sized_by is not SizedBy.MARK:
        return None
    made = planned
    for _ in range(20):
        missed = reading(made) - reads_mm
        if abs(missed) < _CLOSE_MM:
            break
        made = assemble(planned.ring, replace(planned.form, diameter_mm=made.form.diameter_mm - missed))
    return made


def _likely_start(made: MadeRing, aim_mm: float) -> float:
    """Where to form a ring for this aim, if all that lies inside it kept its place along the band: nearly right, and cheap."""
    return made.form.diameter_mm + 2 * _radius_for(made.band.inside_mm / 2, made.obstacles, aim_mm / 2) - made.band.inside_mm


def _radius_for(radius_mm: float, obstacles: Sequence[Obstacle], aim_mm: float) -> float:
    """The radius that leaves a circle of radius `aim_mm` inside what lies so on a circle of `radius_mm`."""
    first = largest_circle(radius_mm, obstacles).radius_mm - aim_mm
    on = radius_mm - first
    missed = largest_circle(on, [_kept(obstacle, radius_mm, on) for obstacle in obstacles]).radius_mm - aim_mm
    # A secant step: what lies inside takes a little more or less on a larger circle.
    return on - missed / (1 - missed / first) if abs(missed) < abs(first) / 2 else on - missed


def _kept(obstacle: Obstacle, radius_mm: float, on_mm: float) -> Obstacle:
    """The same on another circle: its end that is nearer to the top or the back as far beside it, and as long as it was."""
    first, last = obstacle.from_rad, obstacle.to_rad
    near = first if abs(math.sin(first)) < abs(math.sin(last)) else last
    # Heads stand on chords of the band's middle line, about half a wire further out.
    half = obstacle.height_mm / 2
    share = math.sin(near) * (radius_mm + half) / (on_mm + half)
    aside = math.asin(share) if abs(share) < 1 else math.copysign(math.pi / 2, share)
    moved = aside if abs(near) <= math.pi / 2 else math.copysign(math.pi, near) - aside
    shorter = radius_mm / on_mm
    return Obstacle(obstacle.cause, moved + (first - near) * shorter, moved + (last - near) * shorter, obstacle.height_mm)


def _root(off: Callable[[float], float], guess: float, better: Callable[[], float]) -> float | None:
    """Secant steps from a guess and, where that won't do, a better one; a bracket keeps them in hand."""
    low, high = _FORM_RANGE_MM
    here, miss = guess, off(guess)
    slope = 0.0
    for _ in range(40):
        if abs(miss) < _CLOSE_MM:
            return here
        if not slope:
            then = better()
            slope = miss / (guess - then) if guess != then else 1.0
        low, high = (low, min(high, here)) if miss > 0 else (max(low, here), high)
        step = here - miss / slope
        if not low < step < high:
            step = (low + high) / 2
        missed = off(step)
        if step != here and abs(missed) < 1e6:
            slope = max(0.2, (missed - miss) / (step - here))
        here, miss = step, missed
    return None


@dataclass(frozen=True)
class SchoolResult:
    """A habit's start, and what would come off there [mm]."""

    school: School
    start_mm: float
    finished_mm: float
    off_mm: float
    why: Say


def schools(solver: Solver, aim_mm: float, solved: MadeRing) -> list[SchoolResult]:
    """Every habit side by side: the geometry's own start first. A start that can't be made is left out."""
    found = [
        SchoolResult(
            "geometry",
            solved.form.diameter_mm,
            solved.finished_mm,
            solved.finished_mm - aim_mm,
            Say("Solved for this ring: the start whose finished size is the aim."),
        )
    ]
    if solved.band.sized_by is not SizedBy.MARK:
        # Whole repeats or the overlap set the size: no habit of starting larger or smaller changes it.
        return found
    for rule in SCHOOLS:
        start = solver.ring.target_mm + rule.steps_us * US_STEP_MM
        try:
            made = solver.at(start)
        except Refusal:
            continue
        off = made.finished_mm - aim_mm
        found.append(SchoolResult(rule.school, start, made.finished_mm, off, Say(rule.when) + _verdict(off)))
    return found


def _verdict(off_mm: float) -> Say:
    if abs(off_mm) < 0.13 * US_STEP_MM:
        return Say("Here it comes out right.")
    side = "large" if off_mm > 0 else "small"
    return say(f"Here it ends {{off}} too {side}.", off=SizeChange(abs(off_mm)))
