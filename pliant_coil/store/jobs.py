"""Queries about rings at the bench. Each takes an open session and a workshop; none commits."""

from collections.abc import Collection, Sequence
from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from sqlalchemy import func, select, text, update
from sqlalchemy.orm import Session

from pliant_coil.store.models import Job, JobEvent, Workshop
from pliant_coil.store.pages import page_of, page_with

Which = Literal["open", "ended", "finished", "spoiled", "set_aside"]
"""Jobs in which state; all that aren't open have ended."""
CHANNEL = "pliant_coil_jobs"
"""Where the database tells every web worker that a job has changed, and with it the batch that it belongs to."""


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


def known(session: Session, job: Job, client_ids: Sequence[UUID]) -> set[UUID]:
    """Which of these events are there already."""
    query = select(JobEvent.client_id).where(JobEvent.job_id == job.id, JobEvent.client_id.in_(client_ids))
    return set(session.scalars(query))


def append(session: Session, job: Job, client_id: UUID, event: dict[str, Any], author: UUID | None) -> None:
    """One more event of a job that was found with `lock`."""
    job.number += 1
    session.add(JobEvent(job_id=job.id, workshop_id=job.workshop_id, number=job.number, client_id=client_id, event=event, author_id=author))


def changed(session: Session, job: Job) -> None:
    """Tell every worker, once this is committed."""
    # What was told before is written with it, in one statement of each kind.
    job.updated_at = func.clock_timestamp()
    session.flush()
    told = [f"{what} {job.number}" for what in (job.id, job.batch_id) if what is not None]
    session.execute(text("select pg_notify(:channel, what) from unnest(cast(:told as text[])) what"), {"channel": CHANNEL, "told": told})
