"""The way into a workshop: one transaction, who acts in it, and the workshop whose rows it may touch."""

import hashlib
from collections.abc import Iterator
from contextlib import AbstractContextManager, contextmanager
from dataclasses import dataclass
from enum import StrEnum
from typing import NamedTuple, Protocol, Self
from uuid import UUID

from sqlalchemy.orm import Session

from pliant_coil.core.words.refusal import refuse
from pliant_coil.store import workshops
from pliant_coil.store.database import Sessions
from pliant_coil.store.models import Workshop


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

    def known(self, session: Session) -> Self:
        """Already."""
        return self


class Who(Protocol):
    """Somebody who acts: known already, or looked up in the transaction in which they do."""

    def known(self, session: Session) -> Actor:
        """Who it is. Raises `SignInNeeded` for somebody who may not come in."""


class Scope(NamedTuple):
    """A transaction in a workshop, and whose name stands under what is written in it."""

    session: Session
    workshop_id: UUID
    author_id: UUID | None


@contextmanager
def at_work(sessions: Sessions, who: Who, *, writes: bool = False) -> Iterator[Scope]:
    """A transaction in which the database shows the actor's workshop only. Raises `Forbidden` for a viewer who would write."""
    with sessions.begin() as session:
        actor = who.known(session)
        if writes:
            may_write(actor)
        workshops.enter(session, actor.workshop_id, reads_only=actor.role is Role.VIEWER)
        yield Scope(session, actor.workshop_id, actor.person_id)


def may_write(actor: Actor) -> None:
    """Raise `Forbidden` for somebody who only looks on."""
    if actor.role is Role.VIEWER:
        raise Forbidden("you may look here, not change anything: ask the workshop's owner")


class InWorkshop:
    """Use cases of one workshop, for one actor."""

    def __init__(self, sessions: Sessions, who: Who) -> None:
        self._sessions = sessions
        self._who = who

    def _work(self, *, writes: bool = False) -> AbstractContextManager[Scope]:
        return at_work(self._sessions, self._who, writes=writes)


def alone(sessions: Sessions, slug: str) -> Actor:
    """Whoever works in a workshop where nobody is asked for a name. Raises `NotFound` when it isn't set up."""
    with sessions.begin() as session:
        return Actor(found_workshop(session, slug).id, None, Role.OWNER)


def found_workshop(session: Session, slug: str) -> Workshop:
    """The workshop of that name in addresses. Raises `NotFound` when it isn't set up."""
    workshop = workshops.find(session, slug)
    if workshop is None:
        raise NotFound("there is no such workshop")
    return workshop


def digest_of(*parts: object) -> bytes:
    """What tells one body from another that is sent under the same key."""
    return hashlib.sha256("\n".join(str(part) for part in parts).encode()).digest()


def check_same(kept: bytes | None, sent: bytes, field: str = "idempotency-key") -> None:
    """Raise `Refusal` where something else was sent under this key before. What was kept without a digest is taken for the same."""
    if kept is not None and kept != sent:
        refuse(
            field,
            "something else was sent under this key before",
            "a key of its own for each request, and the same body when it is sent again",
        )
