"""The way into a workshop: one transaction, and the workshop whose rows it may touch."""

from collections.abc import Iterator
from contextlib import contextmanager
from uuid import UUID

from sqlalchemy.orm import Session

from pliant_coil.store import workshops
from pliant_coil.store.database import Sessions


class NotFound(LookupError):
    """What was asked for isn't there, or not any more."""


@contextmanager
def in_workshop(sessions: Sessions, slug: str) -> Iterator[tuple[Session, UUID]]:
    """A session in one transaction, and the workshop's id. Raises `NotFound` when it isn't set up."""
    with sessions.begin() as session:
        workshop = workshops.find(session, slug)
        if workshop is None:
            raise NotFound("there is no such workshop")
        yield session, workshop.id
