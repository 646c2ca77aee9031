"""Queries about people: who they are, where they work, and where they are signed in. None commits."""

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

from sqlalchemy import delete, func, or_, select, text, update
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from pliant_coil.store.models import (
    FailedSignIn,
    Invitation,
    Job,
    Membership,
    Person,
    Photo,
    Ring,
    RingRevision,
    Secret,
    SignIn,
    Workshop,
)

SOMEBODY = "somebody"
"""As what those are named who asked to be forgotten."""


def anybody(session: Session) -> bool:
    """Whether anybody has a name and a password here."""
    return session.scalar(select(Person.id).limit(1)) is not None


def alone_until_committed(session: Session) -> None:
    """Let no second first person in meanwhile."""
    session.execute(text("lock table person in share row exclusive mode"))


def named(session: Session, name_key: str) -> Person | None:
    """The person of a name."""
    return session.scalar(select(Person).where(Person.name_key == name_key))


def add(session: Session, name: str, name_key: str, password_hash: str) -> Person:
    """A new person."""
    person = Person(name=name, name_key=name_key, password_hash=password_hash, preferences={})
    session.add(person)
    session.flush()
    return person


def join(session: Session, workshop_id: UUID, person_id: UUID, role: str) -> None:
    """Somebody comes into a workshop, for the first time or again: in no other has an owner a say in their password any more."""
    elsewhere = (Invitation.person_id == person_id, Invitation.workshop_id != workshop_id)
    session.execute(delete(Invitation).where(*elsewhere))
    here = session.get(Membership, (workshop_id, person_id), with_for_update=True)
    if here is None:
        session.add(Membership(workshop_id=workshop_id, person_id=person_id, role=role, left_at=None))
    elif here.left_at is not None:
        here.role, here.left_at = role, None
    session.flush()


def members(session: Session, workshop_id: UUID) -> list[tuple[Membership, Person]]:
    """Who works in a workshop now, the longest there first."""
    query = (
        select(Membership, Person)
        .join(Person, Person.id == Membership.person_id)
        .where(Membership.workshop_id == workshop_id, Membership.left_at.is_(None))
        .order_by(Membership.created_at, Person.name_key)
    )
    return [(row[0], row[1]) for row in session.execute(query)]


def member(session: Session, workshop_id: UUID, person_id: UUID) -> Membership | None:
    """Somebody's place in a workshop, held until this is committed, with those of all its owners."""
    places = select(Membership).where(Membership.workshop_id == workshop_id, Membership.left_at.is_(None))
    held = session.scalars(places.order_by(Membership.person_id).with_for_update())
    return {place.person_id: place for place in held}.get(person_id)


def owners(session: Session, workshop_id: UUID) -> int:
    """How many owners a workshop has."""
    mine = (Membership.workshop_id == workshop_id, Membership.role == "owner", Membership.left_at.is_(None))
    return session.scalar(select(func.count()).select_from(Membership).where(*mine)) or 0


def workshops_of(session: Session, person_id: UUID) -> list[tuple[Workshop, str]]:
    """Where somebody works, and as what."""
    query = (
        select(Workshop, Membership.role)
        .join(Membership, Membership.workshop_id == Workshop.id)
        .where(Membership.person_id == person_id, Membership.left_at.is_(None))
        .order_by(Workshop.name, Workshop.id)
    )
    return [(row[0], row[1]) for row in session.execute(query)]


def signed_in(session: Session, token_hash: bytes, longest: timedelta, idle: timedelta) -> tuple[SignIn, Person, str] | None:
    """The sign-in of a token that is neither too old nor unused for too long, with the person and the role where they are."""
    query = (
        select(SignIn, Person, Membership.role)
        .join(Person, Person.id == SignIn.person_id)
        .join(Membership, (Membership.person_id == SignIn.person_id) & (Membership.workshop_id == SignIn.workshop_id))
        .where(
            SignIn.token_hash == token_hash,
            Membership.left_at.is_(None),
            SignIn.created_at > func.now() - longest,
            SignIn.seen_at > func.now() - idle,
        )
    )
    row = session.execute(query).one_or_none()
    return None if row is None else (row[0], row[1], row[2])


def seen(session: Session, sign_in: SignIn) -> None:
    """Somebody is still there."""
    session.execute(update(SignIn).where(SignIn.token_hash == sign_in.token_hash).values(seen_at=func.now()))


def sign_in(session: Session, token_hash: bytes, person_id: UUID, workshop_id: UUID) -> None:
    """One more browser in which somebody is signed in."""
    session.add(SignIn(token_hash=token_hash, person_id=person_id, workshop_id=workshop_id))
    session.flush()


def move(session: Session, token_hash: bytes, workshop_id: UUID) -> None:
    """A browser is in another workshop from now on."""
    session.execute(update(SignIn).where(SignIn.token_hash == token_hash).values(workshop_id=workshop_id))


def sign_out(
    session: Session, person_id: UUID, *, only: bytes | None = None, but: bytes | None = None, workshop_id: UUID | None = None
) -> None:
    """End somebody's sign-ins: all of them, one, all but one, or those that are in a workshop."""
    query = delete(SignIn).where(SignIn.person_id == person_id)
    if only is not None:
        query = query.where(SignIn.token_hash == only)
    if but is not None:
        query = query.where(SignIn.token_hash != but)
    if workshop_id is not None:
        query = query.where(SignIn.workshop_id == workshop_id)
    session.execute(query)


def invite(session: Session, **columns: Any) -> Invitation:
    """A new link."""
    invitation = Invitation(**columns)
    session.add(invitation)
    session.flush()
    return invitation


def invitation(session: Session, token_hash: bytes, *, lock: bool = False) -> Invitation | None:
    """The link of a token that can still be used."""
    query = select(Invitation).where(Invitation.token_hash == token_hash, Invitation.ends_at > func.now())
    return session.scalar(query.with_for_update() if lock else query)


def invitations(session: Session, workshop_id: UUID) -> list[Invitation]:
    """A workshop's links that nobody has used, the newest first."""
    mine = (Invitation.workshop_id == workshop_id, Invitation.ends_at > func.now())
    return list(session.scalars(select(Invitation).where(*mine).order_by(Invitation.created_at.desc())))


def end_links_of(session: Session, workshop_id: UUID, person_id: UUID) -> None:
    """Somebody's right in a workshop changed: the links that they made there, and those to a new password of theirs, work no longer."""
    theirs = or_(Invitation.invited_by == person_id, Invitation.person_id == person_id)
    session.execute(delete(Invitation).where(Invitation.workshop_id == workshop_id, theirs))


def take_back(session: Session, workshop_id: UUID, invitation_id: UUID) -> bool:
    """A link works no longer; whether there was one."""
    query = delete(Invitation).where(Invitation.workshop_id == workshop_id, Invitation.id == invitation_id)
    return session.execute(query.returning(Invitation.id)).one_or_none() is not None


def failed(session: Session, whose: Sequence[str], within: timedelta) -> dict[str, tuple[int, datetime]]:
    """Wrong passwords lately: how many, and the last one's time."""
    session.execute(delete(FailedSignIn).where(FailedSignIn.at < func.now() - within))
    query = select(FailedSignIn.whose, func.count(), func.max(FailedSignIn.at)).where(FailedSignIn.whose.in_(whose))
    return {key: (count, last) for key, count, last in session.execute(query.group_by(FailedSignIn.whose))}


def one_at_a_time(session: Session, whose: Sequence[str]) -> None:
    """Others of the same name or address wait until this is committed."""
    for key in sorted(whose):
        session.execute(text("select pg_advisory_xact_lock(hashtextextended(:key, 8420002))"), {"key": key})


def fail(session: Session, whose: Sequence[str]) -> list[int]:
    """One more password that is tried, taken for wrong until it is found right; the numbers under which that is kept."""
    rows = [FailedSignIn(whose=key) for key in whose]
    session.add_all(rows)
    session.flush()
    return [row.id for row in rows]


def forgive(session: Session, whose: str, tried: Sequence[int] = ()) -> None:
    """The right one came: what was wrong before under this name is forgotten, and that this one was tried."""
    session.execute(delete(FailedSignIn).where(or_(FailedSignIn.whose == whose, FailedSignIn.id.in_(tried))))


def secret(session: Session, name: str, fresh: bytes) -> bytes:
    """A secret of the server's own: `fresh` if there is none of that name yet. Two at once make one."""
    session.execute(insert(Secret).values(name=name, value=fresh).on_conflict_do_nothing())
    return session.execute(select(Secret.value).where(Secret.name == name)).scalar_one()


def erase(session: Session, person: Person) -> None:
    """Forget who somebody was; what they made stays as somebody's."""
    session.execute(delete(SignIn).where(SignIn.person_id == person.id))
    session.execute(delete(Invitation).where(or_(Invitation.invited_by == person.id, Invitation.person_id == person.id)))
    key = f"name:{person.name_key[:200]}"
    tried = or_(FailedSignIn.whose == key, FailedSignIn.whose.startswith(f"{key} on ", autoescape=True))
    session.execute(delete(FailedSignIn).where(tried))
    mine = (Membership.person_id == person.id, Membership.left_at.is_(None))
    session.execute(update(Membership).where(*mine).values(left_at=func.now()))
    person.name, person.name_key, person.password_hash, person.preferences = SOMEBODY, f"erased {person.id}", "", {}
    person.erased_at = session.scalar(select(func.now()))


def made_by(session: Session, person_id: UUID) -> dict[str, list[dict[str, Any]]]:
    """What stands under somebody's name: revisions of rings, benches begun, photos taken."""
    revisions = select(Ring.title, RingRevision.ring_id, RingRevision.number, RingRevision.created_at).join(
        Ring, Ring.id == RingRevision.ring_id
    )
    jobs = select(Job.title, Job.id, Job.state, Job.created_at)
    photos = select(Photo.id, Photo.job_id, Photo.created_at)
    return {
        "revisions": [row._asdict() for row in session.execute(revisions.where(RingRevision.author_id == person_id))],
        "benches": [row._asdict() for row in session.execute(jobs.where(Job.author_id == person_id))],
        "photos": [row._asdict() for row in session.execute(photos.where(Photo.author_id == person_id))],
    }


def name_of(session: Session, person_id: UUID) -> str:
    """A person's name, as far as it may be seen from where this is asked; else empty."""
    return session.scalar(select(Person.name).where(Person.id == person_id)) or ""
