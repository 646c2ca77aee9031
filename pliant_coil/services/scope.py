"""The way into a workshop: one transaction, who acts in it, and the workshop whose rows it may touch."""

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from enum import StrEnum
from typing import NamedTuple
from uuid import UUID

from sqlalchemy.orm import Session

from pliant_coil.store import workshops
from pliant_coil.store.database import Sessions


class NotFound(LookupError):
    """What was asked for isn't there, or not any more."""


class Forbidden(Exception):
    """Somebody is here, but may not do that."""


class Role(StrEnum):
    """As what somebody works in a workshop."""

    OWNER = "owner"
    MAKER = "maker"
    VIEWER = "viewer"


@dataclass(frozen=True)
class Actor:
    """Who acts, in which workshop, and as what. Where nobody is asked for a name there is no person."""

    workshop_id: UUID
    person_id: UUID | None
    role: Role


class Scope(NamedTuple):
    """A transaction in a workshop, and whose name stands under what is written in it."""

    session: Session
    workshop_id: UUID
    author_id: UUID | None


@contextmanager
def at_work(sessions: Sessions, actor: Actor, *, writes: bool = False) -> Iterator[Scope]:
    """A transaction in which the database shows the actor's workshop only. Raises `Forbidden` for a viewer who would write."""
    if writes and actor.role is Role.VIEWER:
        raise Forbidden("you may look here, not change anything: ask the workshop's owner")
    with sessions.begin() as session:
        workshops.enter(session, actor.workshop_id, reads_only=actor.role is Role.VIEWER)
        yield Scope(session, actor.workshop_id, actor.person_id)


def alone(sessions: Sessions, slug: str) -> Actor:
    """Whoever works in a workshop where nobody is asked for a name. Raises `NotFound` when it isn't set up."""
    with sessions.begin() as session:
        workshop = workshops.find(session, slug)
    if workshop is None:
        raise NotFound("there is no such workshop")
    return Actor(workshop.id, None, Role.OWNER)
