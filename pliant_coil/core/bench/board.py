"""What is told of several rings at once: a line a ring, written for its reader."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated
from uuid import UUID

from pydantic import PlainSerializer

from pliant_coil.core.bench.batch import Batch, BatchKind, Bench
from pliant_coil.core.bench.progress import State
from pliant_coil.core.plan.told import Text, Told
from pliant_coil.core.trade.sizes import Size
from pliant_coil.core.words.say import NOTHING, Say

Minutes = Annotated[float, PlainSerializer(lambda value: round(value, 1), return_type=float)]


@dataclass(kw_only=True, slots=True)
class BenchTold(Told):
    """One ring of several."""

    job_id: UUID
    for_whom: str
    size: Text
    state: State
    phase: str
    """The stage that it stands in; empty when all its steps are done."""
    step: Text
    place: int
    steps: int
    made: float
    whole: float
    """Repeats of the stage that it stands in."""
    minutes: Minutes
    """At this step, up to when something happened last."""
    usual_minutes: Minutes
    """What the step took the others."""
    waits_since: datetime | None


@dataclass(kw_only=True, slots=True)
class BoardTold(Told):
    """A batch or a class."""

    id: UUID
    title: str
    kind: BatchKind
    stage: str
    """The earliest stage that a ring still stands in; empty when all are done."""
    repeats_left: float
    minutes_left: Minutes
    set_up: list[Text]
    """Steps of the stage at hand that are the same for every ring: said once."""
    benches: list[BenchTold]


def set_up(batch: Batch) -> list[Say]:
    """What the stage at hand asks of every ring in the same words and figures, in its order."""
    rings = [
        [task.says for task in bench.ring.tasks if task.phase is batch.stage] for bench in batch.benches if bench.progress.state == "open"
    ]
    return [said for said in rings[0] if all(said in ring for ring in rings[1:])] if len(rings) > 1 else []


def bench_told(job_id: UUID, for_whom: str, bench: Bench, batch: Batch) -> BenchTold:
    """A ring of a batch, and how it stands beside the others."""
    task, progress = bench.task, bench.progress
    made, whole = bench.repeats(task.phase) if task else (0.0, 0.0)
    return BenchTold(
        job_id=job_id,
        for_whom=for_whom,
        size=Size(bench.ring.ring.target_mm),
        state=progress.state,
        phase=task.phase if task else "",
        step=task.says if task else NOTHING,
        place=progress.place,
        steps=len(bench.ring.tasks),
        made=made,
        whole=whole,
        minutes=progress.seconds.get(task.id, 0.0) / 60 if task else 0.0,
        usual_minutes=batch.usual_minutes(task.id) if task else 0.0,
        waits_since=progress.waits_since,
    )
