"""Queries about rings at the bench. Each takes an open session and a workshop; none commits."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from sqlalchemy import ARRAY, Uuid, bindparam, func, select, text, update
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import Session, undefer
from sqlalchemy.orm.attributes import set_committed_value

from pliant_coil.store.models import Job, JobEvent, Workshop
from pliant_coil.store.pages import page_of, page_with

Which = Literal["open", "ended", "finished", "spoiled", "set_aside"]
"""Jobs in which state; all that aren't open have ended."""
CHANNEL = "pliant_coil_jobs"
"""Where the table tells every web worker, once that is committed, that a job has changed, and with it the batch that it belongs to."""


def find(session: Session, workshop_id: UUID, job_id: UUID, *, lock: bool = False) -> Job | None:
    """A job of this workshop; `lock` keeps others from adding to it meanwhile."""
    query = select(Job).where(Job.workshop_id == workshop_id, Job.id == job_id)
    return session.scalar(query.with_for_update() if lock else query)


def saved_as(session: Session, workshop_id: UUID, key: UUID) -> Job | None:
    """The job that was begun under a sender's key."""
    return session.scalar(select(Job).where(Job.workshop_id == workshop_id, Job.saved_as == key))


def saved_among(session: Session, workshop_id: UUID, names: Collection[UUID]) -> set[UUID]:
    """Which of these senders' keys a job was begun under."""
    return set(session.scalars(select(Job.saved_as).where(Job.workshop_id == workshop_id, Job.saved_as.in_(names))))


def page(
    session: Session, workshop_id: UUID, which: Which, limit: int, after: UUID | None, words: Sequence[str] = ()
) -> tuple[list[Job], int]:
    """Jobs in a state, the last changed first, from the one after `after` on; and how many there are."""
    if words:
        return page_with(session, Job, func.jobs_with, words, which, limit, after)
    conditions = [Job.workshop_id == workshop_id, Job.state != "open" if which == "ended" else Job.state == which]
    if which not in ("open", "ended"):
        # Said again as the index of ended ones has it.
        conditions.append(Job.state != "open")
    return page_of(session, Job, conditions, limit, after)


def records(session: Session, workshop_id: UUID, *, newest: int | None = None, since: datetime | None = None) -> list[Job]:
    """Every ended job with a record, or the newest of them that had a plan and ended after `since`; the oldest first."""
    query = select(Job).where(Job.workshop_id == workshop_id, Job.record.is_not(None))
    if newest is not None:
        # Records from a notebook say nothing of the hand.
        query = query.where(Job.file.is_not(None))
    if since is not None:
        query = query.where(Job.ended_at > since)
    found = session.scalars(query.order_by(Job.ended_at.desc(), Job.id.desc()).limit(newest))
    return list(found)[::-1]


def everything(session: Session, workshop_id: UUID) -> Iterator[Job]:
    """Every job, the oldest first, with its plan."""
    query = select(Job).where(Job.workshop_id == workshop_id).options(undefer(Job.file)).order_by(Job.created_at, Job.id)
    yield from session.scalars(query.execution_options(yield_per=100))


def newest_record(session: Session, workshop_id: UUID) -> tuple[int, object, datetime | None]:
    """How many records there are, when the last one changed, and from when on they count: whether the hand has to be learned again."""
    query = select(func.count(), func.max(Job.updated_at)).where(Job.workshop_id == workshop_id, Job.record.is_not(None))
    count, last = session.execute(query).one()
    return count, last, session.scalar(select(Workshop.hand_from).where(Workshop.id == workshop_id))


def learn_afresh(session: Session, workshop_id: UUID) -> None:
    """Records from before now say nothing of the hand any more."""
    session.execute(update(Workshop).where(Workshop.id == workshop_id).values(hand_from=func.now()))


def events(session: Session, job: Job) -> list[JobEvent]:
    """What happened, in its order."""
    return list(session.scalars(select(JobEvent).where(JobEvent.job_id == job.id).order_by(JobEvent.number)))


def write_down(session: Session, job: Job, events: Mapping[UUID, dict[str, Any]], author: UUID | None) -> set[UUID]:
    """Add those events, by their senders’ names, that aren’t there yet to a job that was found with `lock`; which ones they are."""
    told = {"job": job.id, "workshop": job.workshop_id, "number": job.number, "author": author}
    written = set(session.scalars(_WRITE_DOWN, told | {"ids": list(events), "events": list(events.values())}))
    set_committed_value(job, "number", job.number + len(written))
    session.expire(job, ["updated_at"])
    return written


def changed(job: Job) -> None:
    """Something else of a job has changed than what happened to it."""
    job.updated_at = func.clock_timestamp()


_WRITE_DOWN = text(
    """
    with written as (
        insert into job_event (job_id, workshop_id, author_id, number, client_id, event)
        select :job, :workshop, :author, :number + row_number() over (order by place), client_id, event
        from unnest(:ids, :events) with ordinality as told (client_id, event, place)
        where not exists (select from job_event there where there.job_id = :job and there.client_id = told.client_id)
        returning client_id
    ), counted as (
        update job set number = :number + (select count(*) from written), updated_at = clock_timestamp()
        where id = :job and exists (select from written)
    )
    select client_id from written
    """
).bindparams(
    bindparam("job", type_=Uuid),
    bindparam("workshop", type_=Uuid),
    bindparam("author", type_=Uuid),
    bindparam("ids", type_=ARRAY(Uuid)),
    bindparam("events", type_=ARRAY(JSONB)),
)
"""Numbered on from the last one, in the order told, and the job that they change: in one statement, for a tap waits for it."""
