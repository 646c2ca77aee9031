"""Queries about rings. Each takes an open session and a workshop; none commits."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import func, select
from sqlalchemy.orm import Session, defer

from pliant_coil.store.models import Ring, RingRevision
from pliant_coil.store.pages import page_of, page_with


@dataclass(frozen=True, slots=True)
class RingColumns:
    """What is searched and listed of a ring, read from its file."""

    title: str
    band_style: str
    head_style: str
    inside_circumference_mm: float
    sentence: str


def find(session: Session, workshop_id: UUID, ring_id: UUID, *, deleted: bool = False, lock: bool = False) -> Ring | None:
    """A ring of this workshop; a deleted one only with `deleted`. `lock` keeps others from saving it meanwhile."""
    query = select(Ring).where(Ring.workshop_id == workshop_id, Ring.id == ring_id)
    if not deleted:
        query = query.where(Ring.deleted_at.is_(None))
    return session.scalar(query.with_for_update() if lock else query)


def revision(session: Session, ring: Ring, number: int | None = None) -> RingRevision | None:
    """One revision of a ring, the newest unless a number is given."""
    wanted = ring.revision if number is None else number
    return session.scalar(select(RingRevision).where(RingRevision.ring_id == ring.id, RingRevision.number == wanted))


def revisions(session: Session, ring: Ring) -> list[RingRevision]:
    """All revisions without their files, the newest first."""
    query = select(RingRevision).where(RingRevision.ring_id == ring.id).order_by(RingRevision.number.desc())
    return list(session.scalars(query.options(defer(RingRevision.file))))


def revision_saved_as(session: Session, ring: Ring, key: UUID) -> RingRevision | None:
    """The revision that was saved under a sender's key."""
    return session.scalar(select(RingRevision).where(RingRevision.ring_id == ring.id, RingRevision.saved_as == key))


def page(
    session: Session, workshop_id: UUID, words: list[str], limit: int, after: UUID | None = None, *, deleted: bool = False
) -> tuple[list[Ring], int]:
    """Rings, or deleted ones, with all `words` in title, styles or sentence, the last changed first, from the one after `after` on; and
    how many there are."""
    if words:
        return page_with(session, Ring, func.rings_with, words, deleted, limit, after)
    kept = Ring.deleted_at.is_not(None) if deleted else Ring.deleted_at.is_(None)
    return page_of(session, Ring, [Ring.workshop_id == workshop_id, kept], limit, after)


def all_newest(session: Session, workshop_id: UUID) -> Iterator[tuple[Ring, dict[str, Any]]]:
    """Every ring that isn't deleted with its newest file, the last changed first."""
    query = (
        select(Ring, RingRevision.file)
        .join(RingRevision, (RingRevision.ring_id == Ring.id) & (RingRevision.number == Ring.revision))
        .where(Ring.workshop_id == workshop_id, Ring.deleted_at.is_(None))
        .order_by(Ring.updated_at.desc(), Ring.id.desc())
    )
    yield from ((row[0], row[1]) for row in session.execute(query.execution_options(yield_per=200)))


def saved_as(session: Session, workshop_id: UUID, key: UUID) -> Ring | None:
    """The ring that was saved under a sender's key."""
    return session.scalar(select(Ring).where(Ring.workshop_id == workshop_id, Ring.saved_as == key))


def add(
    session: Session,
    workshop_id: UUID,
    columns: RingColumns,
    file: dict[str, Any],
    key: UUID | None = None,
    author: UUID | None = None,
) -> Ring:
    """A new ring with its first revision, under the sender's own key if there is one."""
    ring = Ring(workshop_id=workshop_id, revision=1, deleted_at=None, saved_as=key, updated_at=func.clock_timestamp())
    _fill(ring, columns)
    session.add(ring)
    session.flush()
    session.add(RingRevision(workshop_id=workshop_id, ring_id=ring.id, number=1, file=file, author_id=author))
    session.flush()
    session.refresh(ring)
    return ring


def add_revision(
    session: Session, ring: Ring, columns: RingColumns, file: dict[str, Any], key: UUID | None = None, author: UUID | None = None
) -> RingRevision:
    """The next revision of a ring that was found with `lock`, under the sender's own key if there is one."""
    ring.revision += 1
    _fill(ring, columns)
    revision = RingRevision(workshop_id=ring.workshop_id, ring_id=ring.id, number=ring.revision, file=file, saved_as=key, author_id=author)
    session.add(revision)
    _touch(session, ring)
    return revision


def set_deleted(session: Session, ring: Ring, deleted: bool) -> None:
    """Put a ring away, or take it out again."""
    ring.deleted_at = session.scalar(select(func.now())) if deleted else None
    _touch(session, ring)


def _touch(session: Session, ring: Ring) -> None:
    ring.updated_at = session.scalars(select(func.clock_timestamp())).one()
    session.flush()


def _fill(ring: Ring, columns: RingColumns) -> None:
    ring.title = columns.title
    ring.band_style = columns.band_style
    ring.head_style = columns.head_style
    ring.inside_circumference_mm = columns.inside_circumference_mm
    ring.sentence = columns.sentence
