"""Several rings at once: which stage is at hand, how far each is, and how long the rest of it takes."""

from collections.abc import Sequence
from statistics import median
from typing import Literal

from pliant_coil.core.bench.progress import Progress
from pliant_coil.core.bench.ring_at_bench import RingAtBench
from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.styles.tasks import PHASES, Phase, Task

BatchKind = Literal["by_ring", "by_stage", "class"]
"""How several rings are made: one after the other, all of them stage by stage, or each at a bench of its own."""


@dataclass(frozen=True)
class Bench:
    """One ring of several, and where it stands."""

    ring: RingAtBench
    progress: Progress

    @property
    def task(self) -> Task | None:
        """The task at hand; none when all are done, or when it has ended."""
        open_ = self.progress.state == "open" and self.progress.place < len(self.ring.tasks)
        return self.ring.tasks[self.progress.place] if open_ else None

    def repeats(self, phase: Phase) -> tuple[float, float]:
        """How many repeats of a stage are made, and how many there are."""
        made = whole = 0.0
        for place, task in enumerate(self.ring.tasks):
            if task.phase is not phase:
                continue
            for counter in self.ring.counters(task):
                done = place < self.progress.place or self.progress.state == "finished"
                made += counter.count if done else self.progress.counts.get(counter.move, 0.0)
                whole += counter.count
        return made, whole

    def seconds(self, phase: Phase) -> float:
        """Time at the tasks of a stage, without pauses."""
        return sum(self.progress.seconds.get(task.id, 0.0) for task in self.ring.tasks if task.phase is phase)

    def usual_seconds(self, phase: Phase) -> float:
        """What a repeat of a stage takes a practised hand."""
        placed = {p.id: p for piece in self.ring.planned.pieces for p in piece.moves}
        counted = [
            placed[counter.move]
            for task in self.ring.tasks
            if task.phase is phase
            for counter in self.ring.counters(task)
            if counter.move in placed
        ]
        count = sum(p.move.count or 1.0 for p in counted)
        return sum(p.move.takes_s for p in counted) / count if count else 0.0


@dataclass(frozen=True)
class Batch:
    """The rings of a batch or a class."""

    benches: Sequence[Bench]

    @cached_property
    def stage(self) -> Phase | None:
        """The earliest stage that a ring still stands in; none when all are done."""
        at = [bench.task.phase for bench in self.benches if bench.task]
        return min(at, key=PHASES.index) if at else None

    @property
    def repeats_left(self) -> float:
        """How many repeats of the stage at hand are still to be made, over all rings that are open."""
        return sum(whole - made for made, whole in self._repeats())

    @property
    def minutes_left(self) -> float:
        """What they take: as long each as those that are made took, else as long as they usually take."""
        if self.stage is None:
            return 0.0
        made = sum(made for made, _ in self._repeats())
        took = sum(bench.seconds(self.stage) for bench in self.benches if bench.progress.state == "open")
        usual = [bench.usual_seconds(self.stage) for bench in self.benches]
        each = took / made if made and took else max(usual, default=0.0)
        return self.repeats_left * each / 60

    def usual_minutes(self, task: str) -> float:
        """What this task took those that have done it: their median."""
        done = [s / 60 for bench in self.benches if (s := bench.progress.seconds.get(task, 0.0)) and bench.progress.task != task]
        return median(done) if done else 0.0

    def _repeats(self) -> list[tuple[float, float]]:
        stage = self.stage
        return [bench.repeats(stage) for bench in self.benches if stage and bench.progress.state == "open"]
