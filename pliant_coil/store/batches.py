"""Queries about batches. Each takes an open session and a workshop; none commits."""

from uuid import UUID

from sqlalchemy import select
from sqlalchemy.orm import Session

from pliant_coil.store.models import Batch, Job


def find(session: Session, workshop_id: UUID, batch_id: UUID) -> Batch | None:
    """A batch of this workshop."""
    return session.scalar(select(Batch).where(Batch.workshop_id == workshop_id, Batch.id == batch_id))


def saved_as(session: Session, workshop_id: UUID, key: UUID) -> Batch | None:
    """The batch that was begun under a sender's key."""
    return session.scalar(select(Batch).where(Batch.workshop_id == workshop_id, Batch.saved_as == key))


def with_open_rings(session: Session, workshop_id: UUID) -> list[Batch]:
    """Batches that have a ring on the bench, the newest first."""
    still = select(Job.batch_id).where(Job.workshop_id == workshop_id, Job.state == "open", Job.batch_id.is_not(None))
    return list(
        session.scalars(select(Batch).where(Batch.workshop_id == workshop_id, Batch.id.in_(still)).order_by(Batch.created_at.desc()))
    )


def jobs(session: Session, batch: Batch) -> list[Job]:
    """The rings of a batch, in the order in which they were named."""
    return list(session.scalars(select(Job).where(Job.batch_id == batch.id).order_by(Job.created_at, Job.id)))


def everything(session: Session, workshop_id: UUID) -> list[Batch]:
    """Every batch, the oldest first."""
    return list(session.scalars(select(Batch).where(Batch.workshop_id == workshop_id).order_by(Batch.created_at, Batch.id)))
