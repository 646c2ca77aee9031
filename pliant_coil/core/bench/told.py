"""What is told of a ring at the bench: written for its reader like the plan."""

import math
from dataclasses import dataclass
from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, PlainSerializer

from pliant_coil.core.bench.brief import in_few_words, meanings
from pliant_coil.core.bench.events import CameBack, Mended
from pliant_coil.core.bench.hammered import Hammering
from pliant_coil.core.bench.packing import Packing
from pliant_coil.core.bench.progress import Progress, State, Visit
from pliant_coil.core.bench.reach import SURE, Tail
from pliant_coil.core.bench.ring_at_bench import RingAtBench
from pliant_coil.core.bench.sizing import SizeReading, Zone
from pliant_coil.core.bench.tails import TailEnd, Tails
from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.planned import Planned
from pliant_coil.core.mechanics.hammering import GROWTH
from pliant_coil.core.plan.told import Mm, Text, Told, Us
from pliant_coil.core.trade.sizes import US_STEP_MM, MandrelMark, Size
from pliant_coil.core.words.figures import Count, Length, Number, Share, Thickness
from pliant_coil.core.words.say import NOTHING, Say, say


@dataclass(kw_only=True, slots=True)
class CounterTold(Told):
    """What is counted at a step."""

    move: str
    label: str
    unit: str
    step: float
    count: float
    made: float
    late: float | None
    """Counted on a device that didn't know what was set meanwhile; to be asked about."""


@dataclass(kw_only=True, slots=True)
class StepTold(Told):
    """A step's counters and, where the mandrel is read, what was read."""

    task: str
    counters: list[CounterTold]
    read_mm: Mm | None
    seconds: float
    brief: Text
    """The step in few words; empty where it has no figure of its own."""
    words: list[str]
    """What the trade's words in it mean."""


@dataclass(kw_only=True, slots=True)
class VisitTold(Told):
    """A finished ring on the bench again."""

    why: str
    reads_mm: Mm | None
    wanted_mm: Mm | None
    reads: Text | None
    wanted: Text | None
    done: list[str]
    """What was done so far: codes of the ways."""


@dataclass(kw_only=True, slots=True)
class ProgressTold(Told):
    """Where a ring stands."""

    number: int
    state: State
    place: int
    task: str
    form_mm: Mm | None
    steps: list[StepTold]
    made: list[str]
    """Ids of the moves that are made."""
    notes: list[str]
    minutes: float
    waits: bool
    """Somebody waits for help here."""
    visit: VisitTold | None
    """The visit that a finished ring is on."""
    set_aside: int
    """How much was told that can't be read or done any more."""


@dataclass(kw_only=True, slots=True)
class FirstPlanTold(Told):
    """What was planned before a reading had the ring formed elsewhere."""

    start: Text
    finished: Text


@dataclass(kw_only=True, slots=True)
class ChoiceTold(Told):
    """One thing that can be done about a reading."""

    code: str
    text: Text
    finished: Text
    chance: float
    form_mm: Mm | None


@dataclass(kw_only=True, slots=True)
class SizeReadingTold(Told):
    """What a size reading means for this ring."""

    expected_mm: Mm
    expected: Text
    read: Text
    off_us: Us
    finishes: Text
    zone: Zone
    text: Text
    choices: list[ChoiceTold]


@dataclass(kw_only=True, slots=True)
class TailEndTold(Told):
    """An end that still has moves to come: what they take, and what is held at last."""

    piece: str
    end: str
    label: str
    needs_mm: Mm
    needs: Text


@dataclass(kw_only=True, slots=True)
class TailTold(Told):
    """Whether a tail reaches."""

    text: Text
    slack_mm: Mm
    chance: float
    reaches: bool
    splice_mm: Mm | None
    """What a new piece would have to be, where the tail doesn't reach and the ring can hide its start."""


@dataclass(kw_only=True, slots=True)
class RowTold(Told):
    """What the length of a row says."""

    text: Text
    factor: Annotated[float, PlainSerializer(lambda value: round(value, 4), return_type=float)]
    more: int
    more_planned: int


@dataclass(kw_only=True, slots=True)
class HammeringTold(Told):
    """What a ring's thickness and size say while it is hammered flat."""

    text: Text
    growth: float
    growth_sd: float
    thickness_mm: Mm
    """At which it is as large as it shall be."""
    stretch: float


class Taken(BaseModel):
    """What came of events that were sent: the number of the newest, and which were there already."""

    number: int
    known: list[UUID]


_ALREADY = 0.002
"""Share of the way round that no mandrel shows."""


def progress_told(at_bench: RingAtBench, progress: Progress) -> ProgressTold:
    """Where a ring stands, step by step."""
    steps = []
    for task in at_bench.tasks:
        counters = [
            CounterTold(
                move=c.move,
                label=c.label,
                unit=c.unit,
                step=c.step,
                count=c.count,
                made=progress.counts.get(c.move, 0.0),
                late=progress.late.get(c.move),
            )
            for c in at_bench.counters(task)
        ]
        read = progress.reading("size", task.id)
        steps.append(
            StepTold(
                task=task.id,
                counters=counters,
                read_mm=read.value_mm if read else None,
                seconds=progress.seconds.get(task.id, 0.0),
                brief=in_few_words(task, at_bench.planned, at_bench.placed),
                words=meanings(task),
            )
        )
    return ProgressTold(
        number=progress.number,
        state=progress.state,
        place=progress.place,
        task=progress.task,
        form_mm=progress.form_mm,
        steps=steps,
        made=sorted(at_bench.made(progress)),
        notes=[note.text for note in progress.notes],
        minutes=sum(progress.seconds.values()) / 60,
        waits=progress.waits_since is not None,
        visit=_visit_told(progress.visit) if progress.visit else None,
        set_aside=progress.set_aside,
    )


def _visit_told(visit: Visit) -> VisitTold:
    # What was read last stands, whether when it came or after something was done.
    told: list[CameBack | Mended] = [visit.came, *visit.mended]
    reads = next((each.reads_mm for each in reversed(told) if each.reads_mm), None)
    wanted = next((each.wanted_mm for each in reversed(told) if each.wanted_mm), None)
    return VisitTold(
        why=visit.came.why,
        reads_mm=reads,
        wanted_mm=wanted,
        reads=None if reads is None else Size(reads),
        wanted=None if wanted is None else Size(wanted),
        done=[mended.way for mended in visit.mended],
    )


def left_over_told(as_planned: Planned, progress: Progress) -> Say:
    """Which wire that was left of a ring is long enough to begin it again; nothing where none was measured."""
    left = progress.ending.left_mm if progress.ending else {}
    text = NOTHING
    for cut in as_planned.cuts:
        over = left.get(cut.piece.id)
        if over is None:
            continue
        text += say(
            "{over} of the {role} wire {serves}: it takes {needs}.",
            over=Length(over),
            role=cut.piece.role,
            serves="serves again, if it is one piece" if over >= cut.cut_mm else "is too short to begin again",
            needs=Length(cut.cut_mm),
        )
    return text


_SAME_FORM_MM = 0.02


def first_plan_told(made: MadeRing, now: MadeRing) -> FirstPlanTold | None:
    """Where a ring was to be formed, and what was to come off; nothing while it is formed there."""
    if abs(made.form.diameter_mm - now.form.diameter_mm) < _SAME_FORM_MM:
        return None
    start, finished = MandrelMark(made.form.diameter_mm), Size(made.finished_mm)
    return FirstPlanTold(start=start, finished=finished)


def row_told(row: Packing, *, sets_size: bool) -> RowTold:
    """A row in words: what changes, and what doesn't."""
    longer = row.factor - 1
    if abs(longer) < 2 * row.sd and row.more == row.more_planned:
        text = say("As planned: {n} more.", n=Count(row.more, "repeat", "repeats"))
    else:
        text = say(
            f"It comes out {{by}} {'longer' if longer >= 0 else 'shorter'} than planned: {{n}} more fill it, not {{planned}}. "
            f"With all that were planned it would be {{all}} long{'' if sets_size else ': the gap changes, not the size'}.",
            by=Share(abs(longer)),
            n=Count(row.more, "repeat", "repeats"),
            planned=Number(row.more_planned),
            all=Length(row.all_planned_mm),
        )
    return RowTold(text=text, factor=row.factor, more=row.more, more_planned=row.more_planned)


def hammering_told(hammering: Hammering) -> HammeringTold:
    """A hammered ring in words: what comes of going on as planned, and what else would reach its size."""
    comes = Size(hammering.around_mm / math.pi)
    text = say(
        f"It grows {'more' if hammering.growth > GROWTH else 'less'} than planned ({{g}} for {{usual}}). Hammered on to {{after}} it reads {{comes}}.",
        g=Number(hammering.growth, 3),
        usual=Number(GROWTH, 3),
        after=Thickness(hammering.after_mm),
        comes=comes,
    )
    if hammering.stretch > _ALREADY:
        text += say(
            "For its size hammer it to {after} and stretch the rest, {stretch}, on the mandrel; or go on to {thin}, if the metal is soft.",
            after=Thickness(hammering.after_mm),
            stretch=Share(hammering.stretch, 1),
            thin=Thickness(hammering.thickness_mm),
        )
    elif hammering.stretch < -_ALREADY:
        text += say("Stop at {thick}: there it has its size.", thick=Thickness(hammering.thickness_mm))
    return HammeringTold(
        text=text,
        growth=hammering.growth,
        growth_sd=hammering.growth_sd,
        thickness_mm=hammering.thickness_mm,
        stretch=hammering.stretch,
    )


def reading_told(reading: SizeReading) -> SizeReadingTold:
    """A reading in words."""
    return SizeReadingTold(
        expected_mm=reading.expected_mm,
        expected=MandrelMark(reading.expected_mm),
        read=MandrelMark(reading.read_mm),
        off_us=(reading.read_mm - reading.expected_mm) / US_STEP_MM,
        finishes=Size(reading.finishes_mm),
        zone=reading.zone,
        text=reading.says,
        choices=[
            ChoiceTold(code=c.code, text=c.says, finished=Size(c.finished_mm), chance=c.chance, form_mm=c.form_mm) for c in reading.choices
        ],
    )


def tail_end_told(end: TailEnd) -> TailEndTold:
    """What an end still needs."""
    needs = sum(left.length_mm for left in end.left) + end.holds_mm
    return TailEndTold(piece=end.piece, end=end.end, label=end.label, needs_mm=needs, needs=Length(needs))


def tail_told(tails: Tails, end: TailEnd, value_mm: float) -> TailTold:
    """Whether a tail reaches; if not, what is made less of, alike on both sides where the other one was measured too, or spliced."""
    tail = tails.measured(end, value_mm)
    chance, slack = tail.chance, tail.slack_mm
    reaches = chance >= SURE
    if reaches:
        text = say("It reaches, with {over} to spare.", over=Length(max(0.0, slack)))
    elif slack >= 0:
        text = say("It may not reach: {over} to spare, {chance} sure.", over=Length(slack), chance=Share(chance))
    else:
        text = say("The tail is {short} short for all that is still to come.", short=Length(-slack))
    spliced = None
    if not reaches:
        text += _fewer(tails, end, tail)
        if hides := tails.hides_splice:
            spliced = tails.splice_mm(end, tail)
            text += say(f"Or splice: a new piece of {{length}}, its start hidden {hides}.", length=Length(spliced))
        else:
            text += say("A splice would show everywhere here: else only a new ring.")
    return TailTold(text=text, slack_mm=slack, chance=chance, reaches=reaches, splice_mm=spliced)


def _fewer(tails: Tails, end: TailEnd, tail: Tail) -> Say:
    spare, other = tails.spare(end), tails.other(end)
    if spare is None:
        return NOTHING
    enough = spare.enough(tail)
    if enough <= 0:
        return say("Fewer of “{what}” don’t help.", what=spare.label)
    text = say("{n} of {all} “{what}” still reach.", n=Number(enough, 1), all=Number(spare.repeats, 1), what=spare.label)
    twin = tails.spare(other[0]) if other else None
    if other and twin and twin.left.kind == spare.left.kind:
        alike = spare.on_both(tail, twin, other[1])
        if alike > 0:
            return text + say("Alike on both sides: {n} each.", n=Number(alike, 1))
    return text + say("Measure the other side too, so that both come out alike.") if other is None else text
