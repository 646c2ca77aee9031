"""Who is at the door: signing in and out, and how fast passwords may be tried."""

from __future__ import annotations

import secrets
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID

from sqlalchemy.orm import Session

from pliant_coil.core.words.refusal import refuse
from pliant_coil.services.devices_known import known_device, with_name
from pliant_coil.services.passwords import check_password, hashed, matches, name_key, new_token
from pliant_coil.services.scope import Actor, NotFound, Role, found_workshop
from pliant_coil.store import people as store
from pliant_coil.store.database import Sessions
from pliant_coil.store.models import Person
from pliant_coil.store.workshops import find as find_workshop

LONGEST, IDLE = timedelta(days=90), timedelta(days=14)
"""How long a browser stays signed in at most, and without being used. Hands at a bench are dirty: not for hours only."""
_SEEN_EVERY = timedelta(minutes=10)
_REMEMBERED = timedelta(minutes=15)
_FREE_OF_NAME, _FREE_OF_ADDRESS = 5, 30
"""Wrong passwords before anybody waits; from one address a whole class may sign in."""
_FIRST_WAIT_S, _LONGEST_WAIT_S = 4, 900


class SignInNeeded(Exception):
    """Nobody may do that without saying who they are."""


class TooSoon(Exception):
    """Too many wrong passwords: try again in `seconds`."""

    def __init__(self, seconds: int) -> None:
        super().__init__(f"too many wrong passwords: try again in {seconds} s")
        self.seconds = seconds


@dataclass(frozen=True)
class Place:
    """A workshop that somebody works in, and as what."""

    workshop_id: UUID
    name: str
    role: Role


@dataclass(frozen=True)
class Me:
    """Who asks: where they are, as what, and where else they could be. Without a name where nobody is asked for one."""

    actor: Actor
    name: str
    here: Place
    places: list[Place]
    preferences: dict[str, Any]


class Door:
    """Who is let in. `open_house`: served where nobody else can come, so that whoever works alone isn't asked for a name."""

    def __init__(self, sessions: Sessions, slug: str, *, open_house: bool) -> None:
        self._sessions = sessions
        self._slug = slug
        self._open_house = open_house
        self._people = False
        self._home: UUID | None = None

    def actor(self, token: str | None) -> Actor:
        """Who comes with a browser's token. Raises `SignInNeeded`."""
        with self._sessions.begin() as session:
            return self.known(session, token)

    def home(self) -> UUID | None:
        """The workshop of the machine itself: the one that is served to whoever works on it alone."""
        if self._home is None:
            with self._sessions.begin() as session:
                found = find_workshop(session, self._slug)
                self._home = found.id if found else None
        return self._home

    def known(self, session: Session, token: str | None) -> Actor:
        """The same, in a transaction that is under way."""
        return _signed_in(session, token)[0] if self._asks(session) else self._alone(session).actor

    def me(self, token: str | None) -> Me:
        """Who asks, and where they work. Raises `SignInNeeded`."""
        with self._sessions.begin() as session:
            if not self._asks(session):
                return self._alone(session)
            actor, person = _signed_in(session, token)
            places = [Place(w.id, w.name, Role(role)) for w, role in store.workshops_of(session, person.id)]
            here = next(place for place in places if place.workshop_id == actor.workshop_id)
            return Me(actor, person.name, here, places, person.preferences)

    def _asks(self, session: Session) -> bool:
        """Whether people are asked who they are: once somebody has a name here, or where others can come."""
        # Once there are people there always are: this isn't asked again.
        self._people = self._people or not self._open_house or store.anybody(session)
        return self._people

    def _alone(self, session: Session) -> Me:
        workshop = found_workshop(session, self._slug)
        here = Place(workshop.id, workshop.name, Role.OWNER)
        return Me(Actor(workshop.id, None, Role.OWNER), "", here, [here], {})

    def sign_in(self, name: str, password: str, source: Source) -> str:
        """A browser's new token. Raises `Refusal` for a name and password that don't belong together, `TooSoon` for too many of them."""
        person_id = proven(self._sessions, name, password, source)
        with self._sessions.begin() as session:
            places = store.workshops_of(session, person_id)
            if not places:
                refuse("name", "you don’t work in any workshop here any more", "a new invitation from a workshop’s owner")
            return new_sign_in(session, person_id, places[0][0].id)

    def sign_out(self, token: str, *, everywhere: bool = False) -> None:
        """This browser forgets who is here, or all of that person's do."""
        with self._sessions.begin() as session:
            person = _signed_in(session, token)[1]
            store.sign_out(session, person.id, only=None if everywhere else hashed(token))

    def change_password(self, token: str, current: str, new: str, source: Source) -> None:
        """A new password; other browsers are signed out. Raises `Refusal`, and `TooSoon` for too many wrong ones."""
        name = self._prove_again(token, current, source)
        password_hash = check_password(new, name)
        with self._sessions.begin() as session:
            person = _signed_in(session, token)[1]
            person.password_hash = password_hash
            store.sign_out(session, person.id, but=hashed(token))

    def _prove_again(self, token: str, password: str, source: Source) -> str:
        """The name of who is signed in, once they have shown that it is them. Nobody without their session slows them down."""
        with self._sessions.begin() as session:
            name = _signed_in(session, token)[1].name
        proven(self._sessions, name, password, Source(source.address, f"session:{hashed(token).hex()}"), field="current")
        return name

    def export(self, token: str) -> dict[str, Any]:
        """All that is kept of somebody: who they are, where they work, where they are signed in, and what stands under their name."""
        with self._sessions.begin() as session:
            person = _signed_in(session, token)[1]
            places = [{"workshop": w.name, "role": role} for w, role in store.workshops_of(session, person.id)]
            return {
                "name": person.name,
                "since": person.created_at,
                "preferences": person.preferences,
                "workshops": places,
                **store.made_by(session, person.id),
            }

    def erase(self, token: str, password: str, source: Source) -> None:
        """Forget who somebody was; rings and records stay, as somebody's. Raises `Refusal` where a workshop would lose its last owner."""
        self._prove_again(token, password, source)
        with self._sessions.begin() as session:
            person = _signed_in(session, token)[1]
            for workshop, role in store.workshops_of(session, person.id):
                store.member(session, workshop.id, person.id)
                others = len(store.members(session, workshop.id)) > 1
                if role == Role.OWNER and others and store.owners(session, workshop.id) == 1:
                    refuse("name", f"“{workshop.name}” would have no owner any more", "another owner first")
            store.erase(session, person)

    def device(self, known: str | None, name: str) -> str:
        """What a browser keeps from which somebody has signed in: it isn't slowed down when others try their name."""
        with self._sessions.begin() as session:
            return with_name(_signing_key(session), known, name_key(name))

    def prefer(self, token: str, preferences: dict[str, Any]) -> None:
        """Keep how somebody reads figures; it goes with them to every browser."""
        with self._sessions.begin() as session:
            _signed_in(session, token)[1].preferences = preferences

    def go(self, token: str, workshop_id: UUID) -> None:
        """Into another workshop that somebody works in. Raises `NotFound` for one that isn't theirs."""
        with self._sessions.begin() as session:
            person = _signed_in(session, token)[1]
            if workshop_id not in [workshop.id for workshop, _ in store.workshops_of(session, person.id)]:
                raise NotFound("you don’t work in such a workshop")
            store.move(session, hashed(token), workshop_id)


@dataclass(frozen=True)
class Caller:
    """Whoever comes with a browser's token, looked up when they act."""

    door: Door
    token: str

    def known(self, session: Session) -> Actor:
        """Who it is. Raises `SignInNeeded`."""
        return self.door.known(session, self.token)


@dataclass(frozen=True)
class Source:
    """Where a password comes from: an address, and what the browser there was given when somebody signed in before; empty for none."""

    address: str
    device: str = ""


def proven(sessions: Sessions, name: str, password: str, source: Source, *, field: str = "password") -> UUID:
    """Who has this name and this password. Raises `Refusal` when they don't belong together, `TooSoon` after too many that didn't.

    Whoever tries a name from browsers that don't know it slows down such browsers only. A password is reckoned with, which
    takes its time on purpose, while no transaction is open: it holds no connection and no lock.
    """
    key = name_key(name)
    with sessions.begin() as session:
        device = source.device if source.device.startswith("session:") else known_device(_signing_key(session), source.device, key)
        whose = [f"name:{key[:200]}{f' on {device}' if device else ''}", f"from:{source.address}"]
        store.one_at_a_time(session, whose)
        _wait(store.failed(session, whose, _REMEMBERED), whose)
        tried = store.fail(session, whose)
        person = store.named(session, key)
    right = matches(password, person.password_hash if person else None)
    if person is None or not right:
        refuse(field, "name and password don’t belong together", "your own; a workshop’s owner can give you a new one")
    with sessions.begin() as session:
        store.forgive(session, whose[0], tried)
    return person.id


def _signing_key(session: Session) -> bytes:
    return store.secret(session, "devices", secrets.token_bytes(32))


def new_sign_in(session: Session, person_id: UUID, workshop_id: UUID) -> str:
    """A token for a browser in which somebody has just shown who they are."""
    token = new_token()
    store.sign_in(session, hashed(token), person_id, workshop_id)
    return token


def _signed_in(session: Session, token: str | None) -> tuple[Actor, Person]:
    found = store.signed_in(session, hashed(token), LONGEST, IDLE) if token else None
    if found is None:
        raise SignInNeeded("say who you are first")
    sign_in, person, role = found
    if datetime.now(UTC) - sign_in.seen_at > _SEEN_EVERY:
        store.seen(session, sign_in)
    return Actor(sign_in.workshop_id, person.id, Role(role)), person


def _wait(failed: dict[str, tuple[int, datetime]], whose: list[str]) -> None:
    """Raise `TooSoon` for a name or an address from which too many wrong passwords came."""
    now, waits = datetime.now(UTC), [0.0]
    for key, free in zip(whose, (_FREE_OF_NAME, _FREE_OF_ADDRESS), strict=True):
        count, last = failed.get(key, (0, now))
        if count >= free:
            wait = min(_LONGEST_WAIT_S, _FIRST_WAIT_S * 2 ** min(20, count - free))
            waits.append(wait - (now - last).total_seconds())
    if max(waits) > 0:
        raise TooSoon(int(max(waits)) + 1)
