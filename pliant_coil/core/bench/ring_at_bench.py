"""A planned ring on the bench: its steps with what is counted in each, its tails, and its readings against what is made so far."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

from pliant_coil.core.bench.hand import Hand
from pliant_coil.core.bench.packing import Packing, packing
from pliant_coil.core.bench.progress import Numbered, Progress, fold
from pliant_coil.core.bench.reach import RULE_SD_MM, SURE, Left, Tail, both, most
from pliant_coil.core.bench.sizing import SizeReading, read_size_at
from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.cutting import TRIM_MM, Cut, tail_mm
from pliant_coil.core.making.planned import Planned, planned
from pliant_coil.core.making.ring import Ring
from pliant_coil.core.moves import EndCare, Fate, Piece, Placed
from pliant_coil.core.ring_file.document import RingFile
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.refusal import refuse


@dataclass(frozen=True, slots=True)
class Counter:
    """What is counted at a step: a move by its id, the word for it, its unit, and how many are planned."""

    move: str
    label: str
    unit: str
    step: float
    count: float


@dataclass(frozen=True, slots=True)
class TailEnd:
    """An end of a piece whose last moves are still to come."""

    piece: str
    end: str
    label: str
    left: tuple[Left, ...]
    holds_mm: float


_GIVES_WAY: tuple[HandKind, ...] = ("loop", "spike", "coil", "nest", "wrap")
"""What is made less of first when a tail is short: repeats of an ornament, turns of a nest, then locks (common practice, no source)."""
_LEAST_WRAPS = 2.0


@dataclass(frozen=True, slots=True)
class Spare:
    """A move that is left of which fewer would do: its word, how many are left, and with how few of them it still holds."""

    left: Left
    label: str
    repeats: float
    least: float
    step: float

    def fewer(self, tail: Tail, repeats: float) -> Tail:
        """The same tail if only so many of it were made."""
        each = self.left.length_mm / self.repeats
        return replace(tail, left=tuple(replace(m, length_mm=each * repeats) if m.move == self.left.move else m for m in tail.left))

    def enough(self, tail: Tail) -> float:
        """The largest number of repeats with which a tail surely reaches; 0 if none does."""
        found = most(math.floor(self.repeats / self.step), lambda n: self.fewer(tail, n * self.step)) * self.step
        return found if found >= self.least else 0.0

    def on_both(self, tail: Tail, twin: "Spare", other: Tail) -> float:
        """The largest number that is alike on both sides and surely reaches on both; 0 if none does."""
        shared = sorted({m.kind for m in tail.left} & {m.kind for m in other.left})
        n = math.floor(min(self.repeats, twin.repeats) / self.step) * self.step
        while n >= max(self.least, twin.least):
            if both(self.fewer(tail, n), twin.fewer(other, n), shared) >= SURE:
                return n
            n -= self.step
        return 0.0


def side_of(end: str) -> Literal["left", "right"]:
    """On which side of the ring an end of a piece comes out."""
    return "left" if end == "first" else "right"


@dataclass(frozen=True)
class RingAtBench:
    """A ring as it is planned, formed where its readings have led to."""

    plan: Planned

    @classmethod
    def of(cls, file: RingFile, form_mm: float | None = None) -> "RingAtBench":
        """The ring of a file, formed at its plan's start or elsewhere. Raises `Refusal` for what can't be made."""
        return cls(planned(file, form_mm=form_mm))

    @property
    def ring(self) -> Ring:
        return self.plan.ring

    @property
    def planned(self) -> MadeRing:
        return self.plan.made

    @property
    def cuts(self) -> list[Cut]:
        return self.plan.cuts

    @property
    def tasks(self) -> list[Task]:
        return self.plan.tasks

    @cached_property
    def _placed(self) -> dict[str, Placed]:
        return {placed.id: placed for piece in self.planned.pieces for placed in piece.moves}

    @cached_property
    def limits(self) -> dict[str, float]:
        """How often each counted thing is done."""
        return {counter.move: counter.count for task in self.tasks for counter in self.counters(task)}

    def counters(self, task: Task) -> list[Counter]:
        """What is counted at a step: its counted moves; where it has none, the step itself."""
        found = []
        for move in task.makes:
            placed = self._placed.get(move)
            if placed is None or placed.move.counted is None or not placed.move.count or placed.move.count <= 1:
                continue
            counted, count = placed.move.counted, placed.move.count
            # Whole wraps are counted whole, though a wrap can stop half way.
            step = max(counted.step, 1.0) if count == int(count) else counted.step
            found.append(Counter(move, placed.move.label, counted.unit, step, count))
        if not found and task.count and task.count > 1:
            found.append(Counter(f"task:{task.id}", task.stage or task.id, "piece", 1.0, float(task.count)))
        return found

    def progress(self, events: list[Numbered]) -> Progress:
        """Where it stands after these events."""
        return fold(events, [task.id for task in self.tasks], self.limits)

    def task(self, name: str) -> Task:
        """A step by its name. Raises `Refusal` for none."""
        found = next((task for task in self.tasks if task.id == name), None)
        if found is None:
            refuse("task", "this ring has no such step", ", ".join(task.id for task in self.tasks))
        return found

    def made(self, progress: Progress) -> set[str]:
        """Moves that are made: those of the steps that are done, and those that are counted to their end."""
        done = {move for task in self.tasks[: progress.place] for move in (*task.makes, task.id)}
        return done | {move for move, n in progress.counts.items() if n >= self.limits.get(move, 1e9)}

    def reading(self, task: Task, read_mm: float, progress: Progress) -> SizeReading:
        """What a size reading at a step means."""
        return read_size_at(self.ring, self.planned, task, read_mm, self.made(progress) | set(task.makes))

    def row(self, task: Task, measured_mm: float, progress: Progress) -> Packing:
        """What the length of a row of repeats says, so far as it is made. Raises `Refusal` where no row is made, or none is begun."""
        repeats = self.planned.band.repeats
        moves = [move for move in task.makes if move in self._placed and self._placed[move].move.hand in ("weave", "coil", "braid")]
        if repeats is None or not moves:
            refuse("task", "no row of repeats is made at this step", "a step that weaves or braids the band")
        move = moves[-1]
        done = round(progress.counts.get(move, 0.0))
        if done < 1:
            refuse("value_mm", "nothing of the row is counted yet", "count the repeats that are made, then measure them")
        kind = self._placed[move].move.hand
        return packing(done, measured_mm, repeat_mm=repeats.repeat_mm, target_mm=repeats.target_mm, planned=repeats.count, kind=kind)

    def tails(self, progress: Progress) -> list[TailEnd]:
        """Every end that still has moves to come, from what is made outwards."""
        made = self.made(progress)
        found = []
        for piece in self.planned.pieces:
            for which, care in zip(("first", "last"), piece.ends, strict=True):
                left = self._left(piece, which, made, progress.counts)
                if left:
                    holds = (tail_mm(self.ring.file.sizing) if care is EndCare.DRAWN else 0.0) + TRIM_MM
                    found.append(TailEnd(piece.id, which, self._label(piece, which), tuple(left), holds))
        return found

    def tail(self, end: TailEnd, measured_mm: float, progress: Progress, hand: Hand | None = None) -> Tail:
        """A measured tail of an end, with what an earlier reading in the same row says of it."""
        known = {left.kind: (f.share, f.sd) for left in end.left if hand and (f := hand.factor(left.kind)).used}
        return Tail(measured_mm, RULE_SD_MM, end.left, end.holds_mm, known, self._seen(end, progress))

    def _seen(self, end: TailEnd, progress: Progress) -> tuple[float, float, float, str] | None:
        """The earliest reading of this tail within the move at hand."""
        at_hand = next((left.move for left in end.left if progress.counts.get(left.move, 0.0) > 0), None)
        if at_hand is None:
            return None
        first = self._placed[at_hand]
        each = first.length_mm / (first.move.count or 1.0)
        at_row = {task.id for task in self.tasks if first.id in task.makes}
        for reading in progress.readings:
            if (reading.what, reading.side, reading.piece) != ("tail", side_of(end.end), end.piece):
                continue
            since = progress.counts.get(first.id, 0.0) - progress.counted_at[reading.id].get(first.id, 0.0)
            # Read before the row was reached it would say something of other moves too.
            if since > 0 and reading.task in at_row:
                return reading.value_mm, RULE_SD_MM, since * each, first.id
        return None

    def other_tail(self, end: TailEnd, progress: Progress, hand: Hand | None = None) -> tuple[TailEnd, Tail] | None:
        """The tail on the ring's other side, as it was read last at this step or since."""
        for reading in reversed(progress.readings):
            if reading.what != "tail" or reading.side in ("", side_of(end.end)):
                continue
            for other in self.tails(progress):
                if (other.piece, side_of(other.end)) == (reading.piece, reading.side):
                    return other, self.tail(other, reading.value_mm, progress, hand)
        return None

    def role_of(self, end: TailEnd) -> str:
        """The role of an end's piece."""
        return next(piece.role for piece in self.planned.pieces if piece.id == end.piece)

    def spare(self, end: TailEnd) -> "Spare | None":
        """Of the moves that are left, the one of which fewer would do: ornament before locks, and only what is repeated."""
        for kind in _GIVES_WAY:
            for left in end.left:
                move = self._placed[left.move].move
                if left.kind != kind or move.counted is None or not move.count or left.length_mm <= 0:
                    continue
                repeats = move.count * left.length_mm / move.length_mm
                least = _LEAST_WRAPS if kind == "wrap" else move.counted.step
                if repeats > least:
                    return Spare(left, move.label, repeats, least, max(move.counted.step, 1.0 if kind != "nest" else 0.5))
        return None

    def hides_splice(self) -> str:
        """Where a new piece goes on unseen; empty where nothing hides it."""
        head = self.ring.head.hides_splice
        return self.ring.band.hides_splice if head is None else head

    def _left(self, piece: Piece, which: str, made: set[str], counts: Mapping[str, float]) -> list[Left]:
        """What an end has still to do, from its tip inwards to what is made."""
        moves = [placed for placed in piece.moves if placed.fate is Fate.RING]
        found: list[Left] = []
        begun = 0
        for placed in moves if which == "first" else moves[::-1]:
            if placed.id in made:
                return found
            whole = placed.move.count or 1.0
            share = 1 - min(1.0, counts.get(placed.id, 0.0) / whole)
            found.append(Left(placed.id, placed.move.hand, placed.length_mm * share))
            if share < 1 and not begun:
                begun = len(found)
        # Nothing further in is made: what lies beyond the move at hand is the other end's. With none at hand this end has no tail of its own.
        return found[:begun]

    def _label(self, piece: Piece, which: str) -> str:
        return f"{piece.role} wire, {'left' if which == 'first' else 'right'} end"
