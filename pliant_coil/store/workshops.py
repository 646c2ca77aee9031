"""Queries about workshops."""

from uuid import UUID

from sqlalchemy import select, text
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from pliant_coil.store.database import WORKER
from pliant_coil.store.models import Workshop


def find(session: Session, slug: str) -> Workshop | None:
    """The workshop of that name in addresses."""
    return session.scalar(select(Workshop).where(Workshop.slug == slug))


def enter(session: Session, workshop_id: UUID, *, reads_only: bool) -> None:
    """From here to the end of the transaction the database shows this workshop's rows only, and takes none but its."""
    session.execute(
        text("select set_config('pliant_coil.workshop', :workshop, true), set_config('role', :worker, true)"),
        {"workshop": str(workshop_id), "worker": WORKER},
    )
    if reads_only:
        session.execute(text("set transaction read only"))


def named(session: Session, workshop_id: UUID) -> Workshop:
    """A workshop that is known to be there."""
    return session.get_one(Workshop, workshop_id)


def ensure(session: Session, slug: str, name: str) -> tuple[Workshop, bool]:
    """The workshop, made if it isn't there; and whether it was made now. Two at once make one."""
    made = session.scalar(insert(Workshop).values(slug=slug, name=name).on_conflict_do_nothing().returning(Workshop.id))
    workshop = find(session, slug)
    assert workshop is not None
    return workshop, made is not None


def can_write(session: Session) -> None:
    """Write one record of the database's own, on its disk. Raises SQLAlchemy's error when that can't be done."""
    # A number of its own makes the transaction one that is written down when it is committed.
    session.execute(text("select pg_current_xact_id()"))
