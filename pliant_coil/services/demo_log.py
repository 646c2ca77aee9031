"""What Fernhill Bench has made lately: invented, for the demo only."""

from datetime import UTC, datetime, timedelta
from importlib import resources
from uuid import UUID, uuid5

from sqlalchemy.orm import Session

from pliant_coil.core.bench.events import Count, Ended, Event, Help, Reading, StepOn
from pliant_coil.core.bench.ring_at_bench import RingAtBench
from pliant_coil.core.ring_file.document import read_ring, read_ring_text
from pliant_coil.core.trade.sizes import US_STEP_MM
from pliant_coil.services.batches import Wanted, begin_batch
from pliant_coil.services.jobs import add_job, write_down
from pliant_coil.store import batches
from pliant_coil.store.models import Job

_NAMES = UUID("b9e0a1c6-6f1b-4f0e-9a6a-5d1f7a3c2e11")
_RINGS = ("01", "03", "01", "02", "01", "04", "03")
_LONG = (1.031, 1.044, 1.026, 1.038, 1.049, 1.035, 1.029)
"""What each took of its wire, of what was planned."""
_OFF_US = (0.18, 0.09, 0.14, -0.05, 0.11, 0.02, 0.07)
_QUINTET = (
    ("horn", "US 8 1/2", 1.0),
    ("first trumpet", "US 6 1/4", 1.0),
    ("tuba", "US 10", 0.4),
    ("second trumpet", "US 7", 0.0),
    ("trombone", "US 9 1/4", 0.0),
)
_WAITS = "tuba"
_BEGUN = datetime(2026, 10, 2, 9, 30, tzinfo=UTC)


def demo_log(session: Session, workshop_id: UUID) -> None:
    """Seven finished rings, one spoiled, one in the middle of its weave, and a brass quintet's, stage by stage."""
    files = {entry.name[:2]: entry for entry in resources.files("pliant_coil.demo").iterdir() if entry.name.endswith(".ring.json")}
    for n, (name, long, off) in enumerate(zip(_RINGS, _LONG, _OFF_US, strict=True)):
        file = read_ring_text(files[name].read_text("utf-8"))
        at_bench = RingAtBench.of(file)
        left = {cut.piece.id: max(0.0, cut.cut_mm - cut.piece.net_mm * long) for cut in at_bench.cuts}
        begun = _BEGUN + timedelta(days=6 * n)
        events = _stepped(f"ring {n}", at_bench, begun, len(at_bench.tasks))
        size = at_bench.planned.finished_mm + off * US_STEP_MM
        ended = events[-1].at + timedelta(minutes=1)
        kind, why = ("spoiled", "the wire kinked on the way past the bead") if n == 3 else ("finished", "")
        events.append(
            Ended(kind=kind, id=_id(f"end {n}"), device="tablet", at=ended, why=why, left_mm=left, size_mm=size, mandrel="the grooved one")
        )
        job = add_job(session, workshop_id, file, None)
        write_down(session, job, events)
        job.created_at, job.ended_at = begun, ended
    woven = read_ring_text(files["07"].read_text("utf-8"))
    now = datetime.now(UTC)
    _woven(session, add_job(session, workshop_id, woven, None), now - timedelta(hours=1), 1 / 3)
    wanted = [Wanted(size, whom) for whom, size, _ in _QUINTET]
    batch = begin_batch(session, workshop_id, woven.model_copy(update={"title": "Quintet"}), "by_stage", wanted)
    for n, (job, (whom, _, share)) in enumerate(zip(batches.jobs(session, batch), _QUINTET, strict=True)):
        _woven(session, job, now - timedelta(hours=2) + timedelta(minutes=20 * n), share, waits=whom == _WAITS)


def _woven(session: Session, job: Job, begun: datetime, share: float, *, waits: bool = False) -> None:
    """A ring that has come to its weave, and so far into it; perhaps somebody waits for help there."""
    at_bench = RingAtBench.of(read_ring(job.file, stored=True))
    weaving = next(k for k, task in enumerate(at_bench.tasks) if any(counter.unit == "cycle" for counter in at_bench.counters(task)))
    task = at_bench.tasks[weaving]
    counter = at_bench.counters(task)[-1]
    events = _stepped(job.title, at_bench, begun, weaving)
    at = events[-1].at
    for k in range(round(share * counter.count)):
        at += timedelta(seconds=13 + k % 3)
        events.append(Count(id=_id(f"{job.title} cycle {k}"), device="tablet", at=at, move=counter.move, n=1))
    if waits:
        events.append(Help(kind="help", id=_id(f"{job.title} help"), device="tablet", at=at, task=task.id))
    write_down(session, job, events)


def _stepped(name: str, at_bench: RingAtBench, begun: datetime, steps: int) -> list[Event]:
    """The first steps done, one after the other, and the mandrel read where it is read."""
    found: list[Event] = []
    at = begun
    for task in at_bench.tasks[:steps]:
        at += timedelta(seconds=110)
        if any(check.reads_size for check in task.checks):
            value = at_bench.planned.finished_mm
            found.append(Reading(id=_id(f"{name} {task.id} read"), device="tablet", at=at, what="size", task=task.id, value_mm=value))
        found.append(StepOn(id=_id(f"{name} {task.id}"), device="tablet", at=at, task=task.id))
    return found


def _id(name: str) -> UUID:
    return uuid5(_NAMES, name)
