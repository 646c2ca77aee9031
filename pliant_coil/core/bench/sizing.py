"""What a size reading means for this ring, and what can still be done about it.

The ring is assembled where it would have been formed to read so: what comes off there, as things stand, is what it finishes at.
"""

import math
from collections.abc import Collection
from dataclasses import replace
from statistics import NormalDist
from typing import Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.making.assemble import MadeRing, assemble
from pliant_coil.core.making.resizing import BACK_WIRES_MM, presses_mm, stretch, with_back_wrap
from pliant_coil.core.making.ring import Ring
from pliant_coil.core.making.solve import formed_where
from pliant_coil.core.moves.base import Obstacle
from pliant_coil.core.moves.inside import largest_circle
from pliant_coil.core.styles.tasks import Phase, Task
from pliant_coil.core.trade.sizes import US_STEP_MM, MandrelMark, Size, SizeChange
from pliant_coil.core.words.figures import Count, Share, Thickness
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Say, say

MANDREL_SD_MM = 0.10
"""Of a mandrel with quarter marks, in diameter (common practice, no source)."""
WORK_SD_MM = 0.06
"""What the work that is left may change besides (common practice, no source)."""
Zone = Literal["on-course", "near", "off"]
WITHIN_MM = US_STEP_MM / 4
"""A ring within a quarter size is right."""
ON_COURSE, NEAR = 0.80, 0.50
_UNIT = NormalDist()
_CLOSE_MM = 1e-4
_MORE_LOCKS = 2
LOCK_WIRE_MM = 0.4
_THINNER_MM = 0.1
_DRAWS_US = 0.5
"""US sizes that drawing tails takes (common practice, no source)."""


@dataclass(frozen=True)
class Choice:
    """One thing to do: a code that stays, its words, what comes off then [mm], and how likely that is within a quarter size."""

    code: str
    says: Say
    finished_mm: float
    chance: float
    form_mm: float | None = None
    """Where the band is formed, where the choice says so."""


@dataclass(frozen=True)
class SizeReading:
    """A reading held against its plan."""

    expected_mm: float
    read_mm: float
    finishes_mm: float
    """Inside diameter that comes off if nothing is done."""
    chance: float
    zone: Zone
    """`on-course`, `near` or `off`."""
    says: Say
    choices: tuple[Choice, ...]
    """What can be done, the best first."""


def read_size_at(ring: Ring, planned: MadeRing, task: Task, read_mm: float, done: Collection[str]) -> SizeReading:
    """What a reading says when `task` is done. `done` names the moves that are made and the steps that are done. Raises `Refusal` for what no mandrel reads."""
    expected = planned.expects(task)
    formed = formed_where(planned, lambda made: made.expects(task), read_mm)
    as_it_is = formed or planned
    finishes = formed.finished_mm if formed else planned.finished_mm + read_mm - expected
    chance = chance_within(finishes, ring.aim_mm)
    zone: Zone = "on-course" if chance >= ON_COURSE else "near" if chance >= NEAR else "off"
    standing = _Standing(ring, planned, as_it_is, finishes, frozenset(done))
    choices = [*(standing.by_mark() if formed else standing.by_length()), *standing.of_any()]
    go_on = Choice("go-on", say("Go on: it comes off {size}.", size=Size(finishes)), finishes, chance)
    ranked = sorted(choices, key=lambda choice: -choice.chance)
    best = [go_on, *ranked] if zone == "on-course" else [*ranked, go_on]
    if zone == "off":
        best.insert(-1, Choice("accept", say("Keep it for another finger: {size}.", size=Size(finishes)), finishes, chance))
    return SizeReading(expected, read_mm, finishes, chance, zone, _verdict(zone, read_mm - expected, finishes, ring.aim_mm), tuple(best))


def chance_within(finished_mm: float, aim_mm: float, sd_mm: float = MANDREL_SD_MM) -> float:
    """How likely a ring that is expected to come off so is within a quarter size of its aim."""
    sd = math.hypot(sd_mm, WORK_SD_MM)
    off = finished_mm - aim_mm
    return _UNIT.cdf((WITHIN_MM - off) / sd) - _UNIT.cdf((-WITHIN_MM - off) / sd)


@dataclass(frozen=True)
class _Standing:
    """A ring that was read: what metal still allows goes by what is made, never by where the list of steps stands."""

    ring: Ring
    planned: MadeRing
    as_it_is: MadeRing
    finishes_mm: float
    done: frozenset[str]

    @property
    def _trimmed(self) -> bool:
        return any(task.phase is Phase.TRIM and {task.id, *task.makes} & self.done for task in self.planned.tasks)

    @property
    def _locked(self) -> list[str]:
        return [i for task in self.planned.tasks if task.phase is Phase.LOCK for i in task.makes if i in self.done]

    def by_mark(self) -> list[Choice]:
        """Of a ring whose size the mandrel's mark sets."""
        aim, start = self.ring.aim_mm, self.planned.form.diameter_mm
        found = []
        if not self._trimmed:
            code, how = (
                ("redo", "Open the lock that is made, once, and form it again at {mark}.")
                if self._locked
                else ("reform", "Form it again at {mark}: nothing is locked yet.")
            )
            found.append(_choice(code, say(how, mark=MandrelMark(start)), self.planned.finished_mm, aim, start))
            if not self._locked:
                found += self._drawn()
            if len(self._locked) < 2:
                found += self._lockwire()
                for more in range(1, _MORE_LOCKS + 1):
                    found += _with_locks(self.ring, self.as_it_is, self.planned.form.locks + more)
        if self.as_it_is.finished_mm > aim:
            text = say("A wrap of {wire} wire at the back. It shows there.", wire=Thickness(BACK_WIRES_MM[-1]))
            found.append(_choice("back", text, with_back_wrap(self.as_it_is, BACK_WIRES_MM[-1]), aim))
        return found

    def by_length(self) -> list[Choice]:
        """Of a ring whose size is the length of its repeats."""
        repeats = self.planned.band.repeats
        if repeats is None or not repeats.repeat_changes_mm or self._trimmed:
            return []
        n = round((self.ring.aim_mm - self.finishes_mm) / repeats.repeat_changes_mm)
        if not n:
            return []
        text = say(f"{{n}} {'more' if n > 0 else 'fewer'}, while its wires aren't cut.", n=Count(abs(n), "repeat", "repeats"))
        return [_choice("count", text, self.finishes_mm + n * repeats.repeat_changes_mm, self.ring.aim_mm)]

    def of_any(self) -> list[Choice]:
        """Too small: pressed up the taper while it is being made, stretched once it is trimmed."""
        aim = self.ring.aim_mm
        if self.finishes_mm >= aim:
            return []
        if self._trimmed:
            way = stretch(self.as_it_is, self.finishes_mm, aim)
            return [_choice("stretch", way.says, min(aim, way.high_mm), aim)] if way else []
        most = presses_mm(self.ring.main_wire)
        if not most:
            return []
        text = say("Press it down the taper, turned end for end: {most} at most.", most=SizeChange(most))
        return [_choice("slide", text, min(aim, self.finishes_mm + most), aim)]

    def _drawn(self) -> list[Choice]:
        """Too large, and its tails still slide: they are drawn until the band lies on the mandrel."""
        over = self.as_it_is.form.diameter_mm - self.planned.form.diameter_mm
        if over <= _CLOSE_MM or not self.as_it_is.band.tails:
            return []
        form = max(self.planned.form.diameter_mm, self.as_it_is.form.diameter_mm - _DRAWS_US * US_STEP_MM)
        made = assemble(self.ring, replace(self.as_it_is.form, diameter_mm=form))
        return [
            _choice(
                "draw",
                say("Draw its tails until the band lies on the mandrel at {mark}.", mark=MandrelMark(form)),
                made.finished_mm,
                self.ring.aim_mm,
                form,
            )
        ]

    def _lockwire(self) -> list[Choice]:
        """Too small: what isn't locked yet is locked with a thinner wire of its own, which takes less room inside."""
        still = {i for task in self.planned.tasks if task.phase is Phase.LOCK for i in task.makes} - set(self._locked)
        if self.finishes_mm >= self.ring.aim_mm or not still:
            return []
        thinner: list[Obstacle] = []
        for piece in self.as_it_is.pieces:
            for placed in piece.moves:
                lower = placed.id in still and piece.wire.height_mm > LOCK_WIRE_MM + _THINNER_MM
                thinner += [replace(o, height_mm=min(o.height_mm, LOCK_WIRE_MM)) if lower else o for o in placed.obstacles]
        finished = 2 * largest_circle(self.as_it_is.band.inside_mm / 2, thinner).radius_mm
        if finished - self.as_it_is.finished_mm < _CLOSE_MM:
            return []
        text = say("Lock what is still open with {wire} wire of its own: it takes less room inside.", wire=Thickness(LOCK_WIRE_MM))
        return [_choice("lockwire", text, finished, self.ring.aim_mm)]


def _with_locks(ring: Ring, as_it_is: MadeRing, locks: int) -> list[Choice]:
    if not as_it_is.form.locks:
        return []
    try:
        made = assemble(ring, replace(as_it_is.form, locks=locks))
    except Refusal:
        return []
    text = say("Lock with {n} each side. That is for looks: it hardly changes the size.", n=Count(locks, "wrap", "wraps"))
    return [_choice(f"lock-{locks}", text, made.finished_mm, ring.aim_mm)]


def _choice(code: str, text: Say, finished: float, aim: float, form: float | None = None) -> Choice:
    return Choice(code, text + say("It comes off {size}.", size=Size(finished)), finished, chance_within(finished, aim), form)


def _verdict(zone: Zone, off_reading: float, finishes: float, aim: float) -> Say:
    if zone == "on-course":
        return say("On course: it comes off {size}.", size=Size(finishes))
    side = "large" if finishes > aim else "small"
    lead = "Nearly" if zone == "near" else "Off"
    return say(
        f"{lead}: it reads {{by}} {'more' if off_reading > 0 else 'less'} than planned and would come off {{size}}, {{much}} too {side}. "
        "Within a quarter size with {chance}.",
        by=SizeChange(abs(off_reading)),
        size=Size(finishes),
        much=SizeChange(abs(finishes - aim)),
        chance=Share(chance_within(finishes, aim)),
    )
