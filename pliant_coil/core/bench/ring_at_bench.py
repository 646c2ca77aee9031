"""A planned ring on the bench: its steps with what is counted in each, and its readings against what is made so far."""

import math
from dataclasses import replace

from pliant_coil.core.bench.hammered import Hammering, read_hammering
from pliant_coil.core.bench.packing import Packing, packing
from pliant_coil.core.bench.progress import Numbered, Progress, fold
from pliant_coil.core.bench.sizing import SizeReading, read_size_at
from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.cutting import Cut
from pliant_coil.core.making.planned import Planned, planned
from pliant_coil.core.making.ring import Ring
from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.ring_file.document import RingFile
from pliant_coil.core.styles.handed_on import HammeredRing
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.refusal import refuse


@dataclass(frozen=True, slots=True)
class Counter:
    """What is counted at a step: a move by its id, the word for it, its unit, and how many are planned."""

    move: str
    label: str
    unit: str
    step: float
    count: float


@dataclass(frozen=True)
class RingAtBench:
    """A ring as it is planned, formed where its readings have led to."""

    plan: Planned

    @classmethod
    def of(cls, file: RingFile) -> "RingAtBench":
        """The ring of a file, formed at its plan's start. Raises `Refusal` for what can't be made."""
        return cls(planned(file))

    def formed(self, form_mm: float) -> "RingAtBench":
        """The same ring, formed elsewhere."""
        return RingAtBench(replace(self.plan, form_mm=form_mm))

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
    def placed(self) -> dict[str, Placed]:
        """Every move by its id."""
        return {placed.id: placed for piece in self.planned.pieces for placed in piece.moves}

    @cached_property
    def limits(self) -> dict[str, float]:
        """How often each counted thing is done."""
        return {counter.move: counter.count for task in self.tasks for counter in self.counters(task)}

    def counters(self, task: Task) -> list[Counter]:
        """What is counted at a step: its counted moves; where it has none, the step itself."""
        found = []
        for move in task.makes:
            placed = self.placed.get(move)
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

    @cached_property
    def hammering(self) -> HammeredRing | None:
        """What is read while its rings are hammered flat; None where none are."""
        return self.ring.band.hammered(self.planned.band)

    def hammered(self, thickness_mm: float, read_mm: float) -> Hammering:
        """What a ring's thickness and size [inside diameter] say while it is hammered. Raises `Refusal` where no ring is."""
        if self.hammering is None:
            refuse("task", "nothing of this ring is hammered flat", "a band of hammered rings")
        target = self.planned.reading_after(self.task(self.hammering.task))
        return read_hammering(self.hammering, math.pi * target, thickness_mm, math.pi * read_mm)

    def row(self, task: Task, measured_mm: float, progress: Progress) -> Packing:
        """What the length of a row of repeats says, so far as it is made. Raises `Refusal` where no row is made, or none is begun."""
        repeats = self.planned.band.repeats
        moves = [move for move in task.makes if move in self.placed and self.placed[move].move.hand in ("weave", "coil", "braid")]
        if repeats is None or not moves:
            refuse("task", "no row of repeats is made at this step", "a step that weaves or braids the band")
        move = moves[-1]
        done = round(progress.counts.get(move, 0.0))
        if done < 1:
            refuse("value_mm", "nothing of the row is counted yet", "count the repeats that are made, then measure them")
        kind = self.placed[move].move.hand
        return packing(done, measured_mm, repeat_mm=repeats.repeat_mm, target_mm=repeats.target_mm, planned=repeats.count, kind=kind)
