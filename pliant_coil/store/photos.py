"""Queries about photos of rings. Each takes an open session and a workshop; none commits."""

from collections.abc import Sequence
from uuid import UUID

from sqlalchemy import func, select, update
from sqlalchemy.dialects.postgresql import distinct_on
from sqlalchemy.orm import Session

from pliant_coil.store.models import Photo


def of_job(session: Session, workshop_id: UUID, job_id: UUID) -> list[Photo]:
    """A job's photos that aren't deleted, the first taken first; without their pictures."""
    query = select(Photo).where(Photo.workshop_id == workshop_id, Photo.job_id == job_id, Photo.deleted_at.is_(None))
    return list(session.scalars(query.order_by(Photo.created_at)))


def firsts(session: Session, workshop_id: UUID, job_ids: Sequence[UUID]) -> dict[UUID, UUID]:
    """The first photo of each of these jobs that has one."""
    query = (
        select(Photo.job_id, Photo.id)
        .where(Photo.workshop_id == workshop_id, Photo.job_id.in_(job_ids), Photo.deleted_at.is_(None))
        .order_by(Photo.job_id, Photo.created_at)
        .ext(distinct_on(Photo.job_id))
    )
    return {row.job_id: row.id for row in session.execute(query)}


def find(session: Session, workshop_id: UUID, photo_id: UUID) -> Photo | None:
    """A photo of this workshop, deleted or not."""
    return session.scalar(select(Photo).where(Photo.workshop_id == workshop_id, Photo.id == photo_id))


def picture(session: Session, workshop_id: UUID, photo_id: UUID) -> bytes | None:
    """A photo's picture; None once it is deleted."""
    query = select(Photo.jpeg).where(Photo.workshop_id == workshop_id, Photo.id == photo_id, Photo.deleted_at.is_(None))
    return session.scalar(query)


def delete(session: Session, photo: Photo, *, deleted: bool) -> None:
    """Put a photo away, or take it back."""
    at = func.now() if deleted else None
    session.execute(update(Photo).where(Photo.id == photo.id).values(deleted_at=at))
