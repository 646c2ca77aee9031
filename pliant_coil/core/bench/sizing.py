"""What a size reading means for this ring, and what can still be done about it.

The ring is assembled where it would have been formed to read so: what comes off there, as things stand, is what it finishes at.
"""

import math
from collections.abc import Collection
from dataclasses import dataclass, replace
from statistics import NormalDist

from pliant_coil.core.making.assemble import MadeRing, assemble
from pliant_coil.core.making.resizing import with_back_wrap
from pliant_coil.core.making.ring import Ring
from pliant_coil.core.styles.contract import SizedBy
from pliant_coil.core.styles.tasks import Phase, Task
from pliant_coil.core.trade.sizes import US_STEP_MM, MandrelMark, Size, SizeChange
from pliant_coil.core.words.figures import Count, Share, Thickness
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Say, say

MANDREL_SD_MM = 0.10
"""Of a mandrel with quarter marks, in diameter (common practice, no source)."""
WORK_SD_MM = 0.06
"""What the work that is left may change besides (common practice, no source)."""
WITHIN_MM = US_STEP_MM / 4
"""A ring within a quarter size is right."""
ON_COURSE, NEAR = 0.80, 0.50
BACK_WIRE_MM = 0.4
_UNIT = NormalDist()
_CLOSE_MM = 1e-4
_MORE_LOCKS = 2


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
    zone: str
    """`on-course`, `near` or `off`."""
    says: Say
    choices: tuple[Choice, ...]
    """What can be done, the best first."""


def read_size_at(ring: Ring, planned: MadeRing, task: Task, read_mm: float, done: Collection[str]) -> SizeReading:
    """What a reading says when `task` is done. `done` names the moves that are made and the steps that are done. Raises `Refusal` for what no mandrel reads."""
    expected = planned.reading_after(task)
    formed = _formed_at(ring, planned, task, read_mm)
    as_it_is = assemble(ring, replace(planned.form, diameter_mm=formed)) if formed is not None else planned
    finishes = as_it_is.finished_mm if formed is not None else planned.finished_mm + read_mm - expected
    chance = chance_within(finishes, ring.aim_mm)
    zone = "on-course" if chance >= ON_COURSE else "near" if chance >= NEAR else "off"
    choices = _choices(ring, planned, as_it_is, done) if formed is not None else []
    go_on = Choice("go-on", say("Go on: it comes off {size}.", size=Size(finishes)), finishes, chance)
    ranked = sorted(choices, key=lambda choice: -choice.chance)
    best = [go_on, *ranked] if zone == "on-course" else [*ranked, go_on]
    return SizeReading(expected, read_mm, finishes, chance, zone, _verdict(zone, read_mm - expected, finishes, ring.aim_mm), tuple(best))


def chance_within(finished_mm: float, aim_mm: float, sd_mm: float = MANDREL_SD_MM) -> float:
    """How likely a ring that is expected to come off so is within a quarter size of its aim."""
    sd = math.hypot(sd_mm, WORK_SD_MM)
    off = finished_mm - aim_mm
    return _UNIT.cdf((WITHIN_MM - off) / sd) - _UNIT.cdf((-WITHIN_MM - off) / sd)


def _formed_at(ring: Ring, planned: MadeRing, task: Task, read_mm: float) -> float | None:
    """Where it was formed, so that it reads this after the task; None for rings whose size no mark sets."""
    if planned.band.sized_by is not SizedBy.MARK:
        return None
    form = planned.form.diameter_mm + read_mm - planned.reading_after(task)
    for _ in range(20):
        made = assemble(ring, replace(planned.form, diameter_mm=form))
        missed = made.reading_after(task) - read_mm
        if abs(missed) < _CLOSE_MM:
            break
        form -= missed
    return form


def _choices(ring: Ring, planned: MadeRing, as_it_is: MadeRing, done: Collection[str]) -> list[Choice]:
    """What metal still allows: by what is made, never by where the list of steps stands."""
    aim = ring.aim_mm
    trimmed = any(task.phase is Phase.TRIM and {task.id, *task.makes} & set(done) for task in planned.tasks)
    locked = [i for task in planned.tasks if task.phase is Phase.LOCK for i in task.makes if i in done]
    found = []
    start = planned.form.diameter_mm
    if not locked and not trimmed:
        text = say("Form it again at {mark}: nothing is locked yet.", mark=MandrelMark(start))
        found.append(_choice("reform", text, planned.finished_mm, aim, start))
    elif not trimmed:
        text = say("Open the lock that is made, once, and form it again at {mark}.", mark=MandrelMark(start))
        found.append(_choice("redo", text, planned.finished_mm, aim, start))
    if as_it_is.finished_mm > aim:
        finished = with_back_wrap(as_it_is, BACK_WIRE_MM)
        text = say("A wrap of {wire} wire at the back. It shows there.", wire=Thickness(BACK_WIRE_MM))
        found.append(_choice("back", text, finished, aim))
    if not trimmed and len(locked) < 2:
        for more in range(1, _MORE_LOCKS + 1):
            locks = planned.form.locks + more
            found += _with_locks(ring, as_it_is, locks)
    return found


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


def _verdict(zone: str, off_reading: float, finishes: float, aim: float) -> Say:
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
