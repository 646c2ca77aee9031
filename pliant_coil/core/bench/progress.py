"""Where a ring stands: folded from its events, the same on every device. Nothing here is kept but the events."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import field
from datetime import datetime
from statistics import median
from typing import Literal
from uuid import UUID

from pliant_coil.core.bench.events import (
    CameBack,
    Chosen,
    Count,
    CountSet,
    CutTo,
    Ended,
    Event,
    Help,
    Late,
    LeftOut,
    Mended,
    Note,
    Paused,
    Reading,
    Reopened,
    Spliced,
    StepBack,
    StepOn,
    TakenBack,
)
from pliant_coil.core.frozen import dataclass

IDLE_S = 180.0
"""A gap longer than this, and than six of the task's usual ones, is a pause (common practice, no source)."""
_USUAL_GAPS = 6.0
Ending = Literal["finished", "spoiled", "set_aside"]
State = Literal["open", Ending]


@dataclass(frozen=True, slots=True)
class Numbered:
    """An event with the number that the server gave it."""

    number: int
    event: Event


@dataclass
class Visit:
    """A finished ring on the bench again: why, what was done, and how it left."""

    came: CameBack
    mended: list[Mended] = field(default_factory=list)
    left: Ended | None = None


@dataclass
class Progress:
    """The ring's one place, its counts and readings, and how it ended."""

    tasks: Sequence[str]
    limits: Mapping[str, float]
    """How often each counted move can be made at most."""
    place: int = 0
    """The task at hand, by its place among `tasks`; as many as there are when all are done."""
    number: int = 0
    counts: dict[str, float] = field(default_factory=dict)
    late: dict[str, float] = field(default_factory=dict)
    """What was counted without having seen that a count was set, by move: to be asked about."""
    spliced: dict[str, float] = field(default_factory=dict)
    """Wire that was added to each piece that ran out [mm]."""
    counted_at: dict[UUID, dict[str, float]] = field(default_factory=dict)
    """What was counted when a reading was taken."""
    placed_at: dict[UUID, int] = field(default_factory=dict)
    """At which place it was taken."""
    readings: list[Reading] = field(default_factory=list)
    choices: list[Chosen] = field(default_factory=list)
    cut: dict[str, float] = field(default_factory=dict)
    notes: list[Note] = field(default_factory=list)
    seconds: dict[str, float] = field(default_factory=dict)
    """Time at each task, without pauses."""
    waits_since: datetime | None = None
    """Since when somebody waits for help."""
    state: State = "open"
    ending: Ended | None = None
    visits: list[Visit] = field(default_factory=list)
    """Each time that it came back after it was finished."""
    left_out: str = ""
    """Why it says nothing of its maker's hand; empty where it does."""
    set_aside: int = 0
    """How much was told that can't be read or done any more: the rest stands without it."""

    @property
    def task(self) -> str:
        """The task at hand; empty when all are done."""
        return self.tasks[self.place] if self.place < len(self.tasks) else ""

    @property
    def form_mm(self) -> float | None:
        """Where it was formed last, where a choice changed that."""
        return next((choice.form_mm for choice in reversed(self.choices) if choice.form_mm is not None), None)

    @property
    def visit(self) -> Visit | None:
        """The visit that it is on; None for a ring that is being made, or away."""
        return self.visits[-1] if self.visits and self.visits[-1].left is None else None

    def when(self, reading: Reading) -> Progress:
        """Where the ring stood when a reading was taken, as far as what is made goes."""
        return Progress(self.tasks, self.limits, self.placed_at[reading.id], counts=self.counted_at[reading.id])

    def reading(self, what: str, task: str, side: str = "") -> Reading | None:
        """The newest reading of a kind at a task."""
        found = (r for r in reversed(self.readings) if (r.what, r.task, r.side) == (what, task, side))
        return next(found, None)


def fold(events: Iterable[Numbered], tasks: Sequence[str], limits: Mapping[str, float]) -> Progress:
    """Where a ring stands after these events, in the order of their numbers."""
    ordered = sorted(events, key=lambda e: e.number)
    gone = _taken_back(ordered)
    progress = Progress(tasks, limits)
    was_set: dict[str, int] = {}
    gaps: dict[str, list[float]] = {}
    last: datetime | None = None
    for numbered in ordered:
        event = numbered.event
        progress.number = numbered.number
        if event.id in gone:
            continue
        if last is not None:
            _clocked(progress, gaps, (event.at - last).total_seconds())
        last = None if isinstance(event, Paused | Ended) else event.at
        _happened(progress, numbered, was_set)
    return progress


def _taken_back(ordered: Sequence[Numbered]) -> set[UUID]:
    """Events that don't count any more. Taking back what took something back makes that count again."""
    gone: set[UUID] = set()
    for numbered in reversed(ordered):
        event = numbered.event
        if isinstance(event, TakenBack) and event.id not in gone:
            gone.add(event.event)
    return gone


def _happened(progress: Progress, numbered: Numbered, was_set: dict[str, int]) -> None:
    event = numbered.event
    match event:
        case Count(move=move, n=n):
            if event.seen < was_set.get(move, 0):
                # It was counted on, on a device that didn't know what had been set meanwhile.
                progress.late[move] = progress.late.get(move, 0.0) + n
            else:
                progress.counts[move] = _within(progress, move, progress.counts.get(move, 0.0) + n)
        case CountSet(move=move, n=n):
            progress.counts[move] = _within(progress, move, n)
            progress.late.pop(move, None)
            was_set[move] = numbered.number
        case Late(move=move, add=add):
            held = progress.late.pop(move, 0.0)
            if add:
                progress.counts[move] = _within(progress, move, progress.counts.get(move, 0.0) + held)
        case StepOn(task=task) if task in progress.tasks:
            # Two devices that step on at once step on once.
            progress.place = max(progress.place, progress.tasks.index(task) + 1)
        case StepBack(task=task) if task in progress.tasks:
            progress.place = min(progress.place, progress.tasks.index(task))
        case Reading():
            progress.readings.append(event)
            progress.counted_at[event.id] = dict(progress.counts)
            progress.placed_at[event.id] = progress.place
        case Chosen():
            progress.choices.append(event)
        case CutTo(piece=piece, length_mm=length):
            progress.cut[piece] = length
        case Spliced(piece=piece, length_mm=length):
            progress.spliced[piece] = progress.spliced.get(piece, 0.0) + length
        case Note():
            progress.notes.append(event)
        case Help(kind=kind, at=at):
            progress.waits_since = at if kind == "help" else None
        case Ended(kind=kind):
            if progress.visit:
                progress.visit.left = event
            progress.state, progress.ending = kind, _ended(progress, event)
        case CameBack() if progress.state == "finished":
            progress.visits.append(Visit(event))
            progress.state = "open"
        case Mended() if progress.visit:
            progress.visit.mended.append(event)
        case LeftOut(why=why):
            progress.left_out = why.strip()
        case Reopened():
            progress.state = "open"
            if progress.visits:
                # What was done last is gone on with: a ring that came back isn't made again.
                progress.visits[-1].left = None
            else:
                progress.ending = None


def _ended(progress: Progress, event: Ended) -> Ended:
    """A ring that came back keeps what its making left of its wires, and on which mandrel; its size is the new one."""
    made = progress.ending
    if not progress.visits or made is None:
        return event
    kept = {"left_mm": made.left_mm, "mandrel": event.mandrel or made.mandrel, "size_mm": event.size_mm or made.size_mm}
    return event.model_copy(update=kept)


def _within(progress: Progress, move: str, n: float) -> float:
    return max(0.0, min(n, progress.limits.get(move, n)))


def _clocked(progress: Progress, gaps: dict[str, list[float]], gap: float) -> None:
    """Time at the task at hand: a long gap is a pause, and counts as a usual one."""
    task = progress.task
    if gap <= 0 or not task:
        return
    known = gaps.setdefault(task, [])
    usual = median(known) if known else 0.0
    if gap > max(IDLE_S, _USUAL_GAPS * usual):
        gap = usual
    else:
        known.append(gap)
    progress.seconds[task] = progress.seconds.get(task, 0.0) + gap
