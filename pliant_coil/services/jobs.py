"""Rings at the bench: begun from a plan, told what happens, read, and recorded when they end."""

import json
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from typing import Any
from uuid import UUID

from sqlalchemy import func, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from pliant_coil import __version__
from pliant_coil.core.bench.events import CameBack, Chosen, Ended, Event, LeftOut, Reopened, TakenBack, read_event
from pliant_coil.core.bench.hand import Hand, SizeRead, changed, learned, size_offset
from pliant_coil.core.bench.plots import PlotsTold, plots_told
from pliant_coil.core.bench.progress import Numbered, Progress
from pliant_coil.core.bench.record import Record, record_of
from pliant_coil.core.bench.ring_at_bench import RingAtBench
from pliant_coil.core.making.planned import Planned, planned
from pliant_coil.core.plan.build import plan_of, sentence_text
from pliant_coil.core.ring_file.document import RingFile, read_ring
from pliant_coil.core.words.refusal import Refusal, refuse
from pliant_coil.services.rings import UNTITLED, document_of
from pliant_coil.services.scope import InWorkshop, NotFound, Who, check_same, digest_of
from pliant_coil.services.tables import csv_text
from pliant_coil.store import jobs as store
from pliant_coil.store import photos
from pliant_coil.store.database import Sessions
from pliant_coil.store.models import Job

_COLUMNS = (
    "ended", "title", "state", "aim_mm", "planned_size_mm", "size_mm", "minutes", "piece", "cut_mm",
    "planned_wire_mm", "used_wire_mm", "why",
)  # fmt: skip
_REMEMBERED = 240
"""Rings from which a hand is learned: one sixty rings old counts half, one that is older than these a sixteenth."""
MOST_EVENTS = 5000
"""Of one ring: more is a device gone wild."""


@dataclass(frozen=True)
class Standing:
    """A job, its ring as it was planned and as it is formed by now, and where it stands."""

    job: Job
    file: RingFile
    as_planned: Planned
    at_bench: RingAtBench
    progress: Progress


@dataclass(frozen=True)
class JobPage:
    """A page of jobs."""

    jobs: list[Job]
    total: int
    photos: dict[UUID, UUID]
    """The first photo of those that have one."""


@dataclass(frozen=True)
class Learnt:
    """What a workshop's rings have shown of the hand, the jobs that say it, and whether the last ones came out other than before."""

    newest: tuple[int, object, datetime | None]
    """The records that it is learned from, as `newest_record` names them."""
    hand: Hand
    made: list[tuple[Job, Record]]
    """The rings that say it, the oldest first."""
    changed: bool


Hands = dict[UUID, Learnt]


class Jobs(InWorkshop):
    """The bench of one workshop."""

    def __init__(self, sessions: Sessions, who: Who, hands: Hands) -> None:
        super().__init__(sessions, who)
        self._hands = hands

    def begin(self, file: RingFile, key: UUID | None = None) -> UUID:
        """Take a ring to the bench; under the same `key` once. Raises `Refusal` for one that can't be made."""
        digest = digest_of(file.model_dump_json())
        try:
            with self._work(writes=True) as (session, workshop_id, author):
                found = store.saved_as(session, workshop_id, key) if key else None
                if found:
                    check_same(found.saved_digest, digest)
                    return found.id
                job = add_job(session, workshop_id, file, key, author)
                job.saved_digest = digest if key else None
                return job.id
        except IntegrityError:
            with self._work(writes=True) as (session, workshop_id, author):
                found = job_found(store.saved_as(session, workshop_id, key) if key else None)
                check_same(found.saved_digest, digest)
                return found.id

    def page(self, which: store.Which, limit: int, after: UUID | None = None, words: Sequence[str] = ()) -> JobPage:
        """Jobs in a state, the last changed first."""
        with self._work() as (session, workshop_id, _):
            found, total = store.page(session, workshop_id, which, limit, after, words)
            return JobPage(found, total, photos.firsts(session, workshop_id, [job.id for job in found]))

    def standing(self, job_id: UUID) -> Standing:
        """Where a job stands."""
        with self._work() as (session, workshop_id, _):
            return standing_of(session, job_found(store.find(session, workshop_id, job_id)))

    def number(self, job_id: UUID) -> int:
        """The number of a job's newest event."""
        with self._work() as (session, workshop_id, _):
            return job_found(store.find(session, workshop_id, job_id)).number

    def tell(self, job_id: UUID, events: Sequence[Event]) -> tuple[int, list[UUID]]:
        """Write down what happened; what is known already stays as it is. Returns the newest number, and what was known."""
        with self._work(writes=True) as (session, workshop_id, author):
            job = job_found(store.find(session, workshop_id, job_id, lock=True))
            if not job.has_plan:
                raise NotFound("it comes from a notebook: nothing happens to it any more")
            _check_forms(job, events)
            written = write_down(session, job, events, author)
            if job.number > MOST_EVENTS:
                refuse("events", "more has been told of this ring than a ring can stand", f"up to {MOST_EVENTS} events")
            return job.number, sorted({event.id for event in events} - written, key=str)

    def learnt(self) -> Learnt:
        """What the finished rings show of the hand."""
        with self._work() as (session, workshop_id, _):
            newest = store.newest_record(session, workshop_id)
            known = self._hands.get(workshop_id)
            # Learned anew when a ring has ended, never at a letter typed.
            if known is None or known.newest != newest:
                jobs = store.records(session, workshop_id, newest=_REMEMBERED, since=newest[2])
                made = [(job, record) for job in jobs if (record := record_kept(job))]
                rings = [record.as_used() for _, record in made]
                known = self._hands[workshop_id] = Learnt(newest, learned(rings), made, changed(rings))
        return known

    def learn_afresh(self) -> None:
        """Rings from before now say nothing of the hand any more."""
        with self._work(writes=True) as (session, workshop_id, _):
            store.learn_afresh(session, workshop_id)

    def sizes(self) -> list[tuple[str, str, float, float, int]]:
        """Mandrel, family of bands, by how much rings come off it other than planned [mm], its standard deviation, and from how many rings.

        A spoiled ring says nothing of a mandrel."""
        reads = [
            SizeRead(record.mandrel, record.family, off)
            for _, record in self.learnt().made
            if record.mandrel and record.state == "finished" and (off := record.off_mm) is not None
        ]
        found = []
        for mandrel, family in sorted({(read.mandrel, read.family) for read in reads}):
            off, sd, _ = size_offset(reads, mandrel, family)
            rings = sum(1 for read in reads if (read.mandrel, read.family) == (mandrel, family))
            found.append((mandrel, family, off, sd, rings))
        return found

    def plots(self, newest: int) -> PlotsTold:
        """What the newest records show when they are drawn."""
        with self._work() as (session, workshop_id, _):
            jobs = store.records(session, workshop_id, newest=newest)
            return plots_told([(job.id, job.title, record) for job in jobs if (record := record_kept(job))])

    def all_records(self) -> list[dict[str, Any]]:
        """Every record as it is kept, the oldest first."""
        with self._work() as (session, workshop_id, _):
            return [_plain(job) for job in store.records(session, workshop_id)]

    def table(self) -> str:
        """Every record as CSV, a line a piece, the oldest first."""
        with self._work() as (session, workshop_id, _):
            return csv_text(_COLUMNS, _rows(store.records(session, workshop_id)))


def _plain(job: Job) -> dict[str, Any]:
    ended = job.ended_at.isoformat() if job.ended_at else None
    return {
        "ended": ended,
        "title": job.title,
        "sentence": job.sentence,
        "begun_by": job.author,
        "for_whom": job.for_whom,
        **(job.record or {}),
    }


def add_job(session: Session, workshop_id: UUID, file: RingFile, key: UUID | None, author: UUID | None = None) -> Job:
    """A ring taken to the bench, with its plan of now. Raises `Refusal` for one that can't be made."""
    all_of_it = planned(file)
    job = Job(
        workshop_id=workshop_id,
        title=file.title.strip() or UNTITLED,
        sentence=sentence_text(all_of_it.ring),
        file=document_of(file),
        predicted=plan_of(all_of_it).document(),
        core_version=__version__,
        state="open",
        number=0,
        saved_as=key,
        author_id=author,
    )
    session.add(job)
    session.flush()
    return job


def write_down(session: Session, job: Job, events: Sequence[Event], author: UUID | None = None) -> set[UUID]:
    """What happened to a job that was found with `lock`, and what follows from it; which events weren't known yet."""
    written = store.write_down(session, job, {event.id: event.model_dump(mode="json") for event in events}, author)
    if any(event.id in written and isinstance(event, CameBack | Ended | LeftOut | Reopened | TakenBack) for event in events):
        settle(session, job)
    return written


def _check_forms(job: Job, events: Sequence[Event]) -> None:
    """Raise `Refusal` for a mark at which the ring of a job can't be formed."""
    for event in events:
        if isinstance(event, Chosen) and event.form_mm is not None:
            formed = _as_planned(json.dumps(job.file)).formed(event.form_mm)
            formed.planned  # noqa: B018 (it is made when it is first asked for)


def _rows(jobs: Sequence[Job]) -> Iterator[list[object]]:
    for job in jobs:
        record = record_kept(job)
        for wire in record.pieces if record else ():
            yield [
                job.ended_at.isoformat() if job.ended_at else "",
                job.title,
                *(getattr(record, name) for name in ("state", "aim_mm", "planned_size_mm", "size_mm", "minutes")),
                *(getattr(wire, name) for name in ("piece", "cut_mm", "planned_mm", "used_mm")),
                record.why if record else "",
            ]


def standing_of(session: Session, job: Job) -> Standing:
    """A job as it stands after all that happened to it. What can't be read or done any more is set aside, and counted."""
    if job.file is None:
        raise NotFound("it comes from a notebook: it has no plan to stand at the bench with")
    as_planned = _as_planned(json.dumps(job.file))
    stored = [(e.number, read_event(e.event)) for e in store.events(session, job)]
    progress = as_planned.progress([Numbered(number, event) for number, event in stored if event])
    progress.set_aside = sum(1 for _, event in stored if event is None)
    at_bench = as_planned
    if progress.form_mm is not None:
        try:
            at_bench = as_planned.formed(progress.form_mm)
            at_bench.planned  # noqa: B018 (it is made when it is first asked for)
        except Refusal:
            at_bench = as_planned
            progress.set_aside += 1
    return Standing(job, as_planned.ring.file, as_planned.plan, at_bench, progress)


@lru_cache(maxsize=64)
def _as_planned(document: str) -> RingAtBench:
    """The ring of a job's file. A bench, and a board with all of them, ask for the same ones again and again."""
    return RingAtBench.of(read_ring(json.loads(document), stored=True))


def settle(session: Session, job: Job) -> None:
    """The job's state and record, as its events have it now."""
    session.flush()
    standing = standing_of(session, job)
    progress = standing.progress
    job.state = progress.state
    ended = progress.ending
    job.ended_at = (job.ended_at if progress.visits else None) or session.scalar(select(func.now())) if ended else None
    # A ring that is back on the bench keeps its record.
    job.record = None
    if ended:
        planned_minutes = job.predicted["minutes"]
        job.record = record_of(standing.as_planned, standing.at_bench, progress, ended, planned_minutes).model_dump(mode="json")


def record_kept(job: Job) -> Record | None:
    """What is kept of a job that has ended."""
    return None if job.record is None else Record.model_validate(job.record)


def job_found(job: Job | None) -> Job:
    """The job itself. Raises `NotFound` for none."""
    if job is None:
        raise NotFound("there is no such ring at the bench")
    return job
