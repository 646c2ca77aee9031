"""Keeping rings: list, open, save, copy, put away and take out again."""

import math
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from pliant_coil.core.making.ring import make_ring, with_defaults_taken
from pliant_coil.core.plan.build import sentence_text
from pliant_coil.core.ring_file.document import RingFile, read_ring
from pliant_coil.core.trade.measures import plain_fractions
from pliant_coil.core.words.refusal import refuse
from pliant_coil.services.scope import InWorkshop, NotFound, check_same, digest_of
from pliant_coil.store import people
from pliant_coil.store import rings as store
from pliant_coil.store.models import Ring

UNTITLED = "Untitled ring"
MOST_WORDS = 8


@dataclass(frozen=True)
class KeptRing:
    """A ring as it is kept, with the file of one of its revisions."""

    id: UUID
    revision: int
    file: RingFile
    updated_at: datetime
    deleted: bool
    saved_by: str
    """Who saved this revision; empty where nobody is asked for a name."""


class Conflict(Exception):
    """Somebody saved the ring meanwhile: `current` is what stands there now, untouched."""

    def __init__(self, current: KeptRing) -> None:
        super().__init__(f"revision {current.revision} was saved meanwhile")
        self.current = current


@dataclass(frozen=True)
class RingPage:
    """A page of rings as they are listed."""

    rings: list[Ring]
    total: int


class Rings(InWorkshop):
    """The rings of one workshop."""

    def page(self, search: str, limit: int, after: UUID | None = None, *, deleted: bool = False) -> RingPage:
        """Saved rings, or deleted ones, the last changed first, from the one after `after` on. Raises `Refusal` for too many words."""
        # Fractions are kept as they are typed: a search for what the screen shows finds them too.
        words = plain_fractions(search).split()
        if len(words) > MOST_WORDS:
            refuse("q", f"a search of {len(words)} words takes too long", f"up to {MOST_WORDS} words")
        with self._work() as (session, workshop_id, _):
            return RingPage(*store.page(session, workshop_id, words, limit, after, deleted=deleted))

    def create(self, file: RingFile, key: UUID | None = None) -> KeptRing:
        """Save a new ring. Sent again under the same `key`, the ring that was saved then. Raises `Refusal` for one that can't be made."""
        return self._create(file, key, digest_of(file.model_dump_json()))

    def _create(self, file: RingFile, key: UUID | None, digest: bytes) -> KeptRing:
        file = _whole(file)
        columns = columns_of(file)
        try:
            with self._work(writes=True) as (session, workshop_id, author):
                saved = store.saved_as(session, workshop_id, key) if key else None
                if saved:
                    return _saved_before(session, saved, digest)
                ring = store.add(session, workshop_id, columns, document_of(file), key, author)
                ring.saved_digest = digest if key else None
                session.flush()
                return _kept(session, ring, file, author)
        except IntegrityError:
            # Both came at once: the other one saved it.
            with self._work(writes=True) as (session, workshop_id, author):
                return _saved_before(session, _found(store.saved_as(session, workshop_id, key) if key else None), digest)

    def read(self, ring_id: UUID, number: int | None = None) -> KeptRing:
        """A ring with its newest file, or an older one."""
        with self._work() as (session, workshop_id, _):
            ring = _found(store.find(session, workshop_id, ring_id))
            return _with_file(session, ring, number)

    def save(self, ring_id: UUID, file: RingFile, base_revision: int, key: UUID | None = None) -> KeptRing:
        """Save a new revision, made from `base_revision`. Raises `Conflict` when a newer one than that stands there."""
        digest = digest_of(base_revision, file.model_dump_json())
        file = _whole(file)
        columns = columns_of(file)
        with self._work(writes=True) as (session, workshop_id, author):
            ring = _found(store.find(session, workshop_id, ring_id, lock=True))
            saved = store.revision_saved_as(session, ring, key) if key else None
            if saved:
                check_same(saved.saved_digest, digest)
                return _with_file(session, ring, saved.number)
            _check_newest(session, ring, base_revision)
            revision = store.add_revision(session, ring, columns, document_of(file), key, author)
            revision.saved_digest = digest if key else None
            return _kept(session, ring, file, author)

    def duplicate(self, ring_id: UUID, key: UUID | None = None) -> KeptRing:
        """A copy under a title that says so; under the same `key` one copy, however often it is asked for."""
        with self._work() as (session, workshop_id, _):
            original = _with_file(session, _found(store.find(session, workshop_id, ring_id)), None).file
        copy = original.model_copy(update={"title": f"{original.title[:113]} (copy)"})
        return self._create(copy, key, digest_of("copy of", ring_id))

    def delete(self, ring_id: UUID, base_revision: int | None = None) -> None:
        """Put a ring away; `restore` takes it out again. Raises `Conflict` when a newer revision than `base_revision` stands there."""
        with self._work(writes=True) as (session, workshop_id, _):
            ring = _found(store.find(session, workshop_id, ring_id, lock=True))
            if base_revision is not None:
                _check_newest(session, ring, base_revision)
            store.set_deleted(session, ring, True)

    def restore(self, ring_id: UUID) -> KeptRing:
        """Undo a deletion."""
        with self._work(writes=True) as (session, workshop_id, _):
            ring = _found(store.find(session, workshop_id, ring_id, deleted=True, lock=True))
            store.set_deleted(session, ring, False)
            return _with_file(session, ring, None)

    def revisions(self, ring_id: UUID) -> list[tuple[int, datetime, str]]:
        """Every revision's number, time and author, the newest first."""
        with self._work() as (session, workshop_id, _):
            ring = _found(store.find(session, workshop_id, ring_id))
            return [(r.number, r.created_at, r.author or "") for r in store.revisions(session, ring)]


def _check_newest(session: Session, ring: Ring, base_revision: int) -> None:
    if ring.revision != base_revision:
        raise Conflict(_with_file(session, ring, None))


def _found(ring: Ring | None) -> Ring:
    if ring is None:
        raise NotFound("there is no such ring, or it was deleted")
    return ring


def _saved_before(session: Session, ring: Ring, digest: bytes) -> KeptRing:
    check_same(ring.saved_digest, digest)
    return _with_file(session, ring, None)


def _with_file(session: Session, ring: Ring, number: int | None) -> KeptRing:
    revision = store.revision(session, ring, number)
    if revision is None:
        raise NotFound("the ring has no such revision")
    file = read_ring(revision.file, stored=True)
    return KeptRing(ring.id, revision.number, file, ring.updated_at, ring.deleted_at is not None, revision.author or "")


def _kept(session: Session, ring: Ring, file: RingFile, author: UUID | None) -> KeptRing:
    """As it was saved just now."""
    name = people.name_of(session, author) if author else ""
    return KeptRing(ring.id, ring.revision, file, ring.updated_at, ring.deleted_at is not None, name)


def document_of(file: RingFile) -> dict[str, object]:
    """The ring file as it is stored: what was asked together with what was taken."""
    return with_defaults_taken(file).model_dump(mode="json", exclude_none=True)


def _whole(file: RingFile) -> RingFile:
    """As it is kept: with a title, and with what was taken. The answer to a save is what is read later."""
    return with_defaults_taken(file if file.title.strip() else file.model_copy(update={"title": UNTITLED}))


def columns_of(file: RingFile) -> store.RingColumns:
    """What is searched and listed of a ring. Raises `Refusal` for one that can't be made."""
    ring = make_ring(file)
    return store.RingColumns(file.title, file.band.style, file.head.style, math.pi * ring.target_mm, sentence_text(ring))
