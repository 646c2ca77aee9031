"""Who works in a workshop: the first person, invitations, roles, and passwords that were lost."""

import re
import secrets
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from uuid import UUID

from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from pliant_coil.core.words.refusal import refuse
from pliant_coil.services.passwords import check_name, check_password, hashed, name_key, new_token
from pliant_coil.services.scope import Actor, Forbidden, NotFound, Role
from pliant_coil.services.sign_in import Source, new_sign_in, proven
from pliant_coil.store import people as store
from pliant_coil.store import workshops
from pliant_coil.store.database import Sessions
from pliant_coil.store.models import Invitation, Membership, Person

LINK_WORKS_FOR, PASSWORD_LINK_WORKS_FOR = timedelta(days=7), timedelta(days=1)


@dataclass(frozen=True)
class Member:
    """Somebody who works in a workshop."""

    id: UUID
    name: str
    role: Role
    since: datetime


@dataclass(frozen=True)
class Link:
    """A link that works once, as its maker sees it; `token` only when it is made."""

    id: UUID
    role: Role
    ends_at: datetime
    for_whom: str
    """Whose new password it is for; empty for an invitation."""
    token: str = ""


@dataclass(frozen=True)
class Offer:
    """What a link offers to whoever opens it."""

    workshop: str
    role: Role
    for_whom: str


class People:
    """The people of one workshop, seen by one of them."""

    def __init__(self, sessions: Sessions, actor: Actor) -> None:
        self._sessions = sessions
        self._actor = actor

    @contextmanager
    def _owning(self) -> Iterator[Session]:
        if self._actor.role is not Role.OWNER or self._actor.person_id is None:
            raise Forbidden("only the workshop’s owner can do that")
        with self._sessions.begin() as session:
            yield session

    def first(self, name: str, password: str) -> str:
        """Give whoever works here alone a name: from now on everybody is asked for theirs. Returns this browser's token."""
        name = check_name(name)
        password_hash = check_password(password, name)
        with self._sessions.begin() as session:
            store.alone_until_committed(session)
            if self._actor.person_id is not None or store.anybody(session):
                raise Forbidden("somebody has a name here already: sign in, or ask for an invitation")
            person = store.add(session, name, name_key(name), password_hash)
            store.join(session, self._actor.workshop_id, person.id, Role.OWNER)
            return new_sign_in(session, person.id, self._actor.workshop_id)

    def all(self) -> tuple[list[Member], list[Link]]:
        """Who works here, and the links that nobody has used yet."""
        with self._owning() as session:
            members = store.members(session, self._actor.workshop_id)
            names = {person.id: person.name for _, person in members}
            links = [
                Link(link.id, Role(link.role), link.ends_at, names.get(link.person_id, "") if link.person_id else "")
                for link in store.invitations(session, self._actor.workshop_id)
            ]
            return [Member(p.id, p.name, Role(m.role), m.created_at) for m, p in members], links

    def invite(self, role: Role) -> Link:
        """A link for one more person, to be handed over by whoever made it."""
        with self._owning() as session:
            return new_link(session, self._actor.workshop_id, role, LINK_WORKS_FOR, invited_by=self._actor.person_id)

    def password_link(self, person_id: UUID) -> Link:
        """A link to a new password for somebody who works here and nowhere else: in another workshop its owner would have no say in it."""
        with self._owning() as session:
            self._place(session, person_id)
            if len(store.workshops_of(session, person_id)) > 1:
                raise Forbidden("they work in another workshop too: whoever looks after the server makes that link, with ./people")
            return new_password_link(session, self._actor.workshop_id, session.get_one(Person, person_id), self._actor.person_id)

    def take_back(self, link_id: UUID) -> None:
        """A link works no longer."""
        with self._owning() as session:
            if not store.take_back(session, self._actor.workshop_id, link_id):
                raise NotFound("there is no such link, or it was used")

    def make(self, person_id: UUID, role: Role) -> None:
        """Give somebody another role."""
        with self._owning() as session:
            place = self._place(session, person_id)
            if role is not Role.OWNER:
                self._keep_an_owner(session, place)
            if role != place.role:
                store.end_links_of(session, self._actor.workshop_id, person_id)
            place.role = role

    def let_go(self, person_id: UUID) -> None:
        """Somebody works here no longer; what they made stays, under their name."""
        with self._owning() as session:
            place = self._place(session, person_id)
            self._keep_an_owner(session, place)
            place.left_at = datetime.now(UTC)
            store.end_links_of(session, self._actor.workshop_id, person_id)
            store.sign_out(session, person_id, workshop_id=self._actor.workshop_id)

    def open_workshop(self, name: str) -> UUID:
        """Another workshop in the same server, its opener its owner."""
        name = check_name(name)
        with self._owning() as session:
            slug = f"{re.sub(r'[^a-z0-9]+', '-', name.lower()).strip('-')[:40] or 'workshop'}-{secrets.token_hex(3)}"
            workshop, _ = workshops.ensure(session, slug, name)
            assert self._actor.person_id is not None
            store.join(session, workshop.id, self._actor.person_id, Role.OWNER)
            return workshop.id

    def _place(self, session: Session, person_id: UUID) -> Membership:
        place = store.member(session, self._actor.workshop_id, person_id)
        if place is None:
            raise NotFound("nobody like that works here")
        return place

    def _keep_an_owner(self, session: Session, place: Membership) -> None:
        if place.role == Role.OWNER and store.owners(session, place.workshop_id) == 1:
            refuse("role", "a workshop needs an owner", "another owner first")


def new_link(
    session: Session, workshop_id: UUID, role: Role, works_for: timedelta, *, person_id: UUID | None = None, invited_by: UUID | None = None
) -> Link:
    """A link that works once."""
    token = new_token()
    made = store.invite(
        session,
        token_hash=hashed(token),
        workshop_id=workshop_id,
        role=role,
        person_id=person_id,
        invited_by=invited_by,
        ends_at=datetime.now(UTC) + works_for,
    )
    return Link(made.id, role, made.ends_at, "", token)


def new_password_link(session: Session, workshop_id: UUID, person: Person, invited_by: UUID | None = None) -> Link:
    """A link to a new password; the old one works until it is used."""
    return new_link(session, workshop_id, Role.VIEWER, PASSWORD_LINK_WORKS_FOR, person_id=person.id, invited_by=invited_by)


class Links:
    """Links as those open them who were given them: nobody knows yet who they are."""

    def __init__(self, sessions: Sessions) -> None:
        self._sessions = sessions

    def look(self, token: str) -> Offer:
        """What a link offers. Raises `NotFound` for one that was used, taken back, or that is too old."""
        with self._sessions.begin() as session:
            link = _usable(store.invitation(session, hashed(token)))
            person = session.get(Person, link.person_id) if link.person_id else None
            return Offer(workshops.named(session, link.workshop_id).name, Role(link.role), person.name if person else "")

    def take(self, token: str, name: str, password: str, source: Source) -> str:
        """Use a link: as somebody new, as somebody with a name here already, or for a new password. Returns the browser's token."""
        with self._sessions.begin() as session:
            link = _usable(store.invitation(session, hashed(token)))
            known = None if link.person_id else store.named(session, name_key(name))
            whose = session.get(Person, link.person_id) if link.person_id else None
        # Passwords take their time on purpose: no transaction waits for them.
        password_hash = ""
        if known:
            proven(self._sessions, name, password, source, field="name")
        elif whose:
            password_hash = check_password(password, whose.name)
        else:
            name = check_name(name)
            password_hash = check_password(password, name)
        try:
            with self._sessions.begin() as session:
                link = _usable(store.invitation(session, hashed(token), lock=True))
                session.delete(link)
                person = session.get(Person, link.person_id) if link.person_id else None
                if person:
                    person.password_hash = password_hash
                    store.sign_out(session, person.id)
                    store.forgive(session, f"name:{person.name_key}")
                else:
                    person = known or store.add(session, name, name_key(name), password_hash)
                    store.join(session, link.workshop_id, person.id, link.role)
                return new_sign_in(session, person.id, link.workshop_id)
        except IntegrityError:
            refuse("name", "somebody took that name just now", "another name")


def _usable(link: Invitation | None) -> Invitation:
    if link is None:
        raise NotFound("this link was used already, or it is too old: ask for a new one")
    return link
