"""Several rings of one plan at the bench: begun at once, and seen side by side."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta
from uuid import UUID

from sqlalchemy import func, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from pliant_coil.core.bench.batch import BatchKind
from pliant_coil.core.ring_file.document import RingFile, read_ring
from pliant_coil.core.words.refusal import Fault, Refusal, refuse
from pliant_coil.services.jobs import Standing, add_job, standing_of
from pliant_coil.services.rings import UNTITLED, document_of
from pliant_coil.services.scope import InWorkshop, NotFound, check_same, digest_of
from pliant_coil.store import batches as store
from pliant_coil.store.models import Batch

MOST_RINGS = 40


@dataclass(frozen=True)
class Wanted:
    """One ring of several: its finger, and whose it is."""

    size: str
    for_whom: str = ""


@dataclass(frozen=True)
class Board:
    """A batch with its rings as they stand."""

    batch: Batch
    standings: list[Standing]


class Batches(InWorkshop):
    """The batches of one workshop."""

    def begin(self, file: RingFile, kind: BatchKind, wanted: Sequence[Wanted], key: UUID | None = None) -> UUID:
        """Take several rings to the bench at once; under the same `key` once. Raises `Refusal` naming each that can't be made."""
        if not 1 <= len(wanted) <= MOST_RINGS:
            refuse("rings", f"{len(wanted)} rings can't lie on one bench", f"1 to {MOST_RINGS}")
        digest = digest_of(kind, file.model_dump_json(), *wanted)
        try:
            with self._work(writes=True) as (session, workshop_id, author):
                found = store.saved_as(session, workshop_id, key) if key else None
                if found:
                    check_same(found.saved_digest, digest)
                    return found.id
                batch = begin_batch(session, workshop_id, file, kind, wanted, key, author)
                batch.saved_digest = digest if key else None
                return batch.id
        except IntegrityError:
            with self._work() as (session, workshop_id, _):
                found = _found(store.saved_as(session, workshop_id, key) if key else None)
                check_same(found.saved_digest, digest)
                return found.id

    def open(self) -> list[Batch]:
        """Batches that have a ring on the bench."""
        with self._work() as (session, workshop_id, _):
            return store.with_open_rings(session, workshop_id)

    def check(self, batch_id: UUID) -> None:
        """Raise `NotFound` for a batch that isn't there."""
        with self._work() as (session, workshop_id, _):
            _found(store.find(session, workshop_id, batch_id))

    def board(self, batch_id: UUID) -> Board:
        """A batch, and where each of its rings stands."""
        with self._work() as (session, workshop_id, _):
            batch = _found(store.find(session, workshop_id, batch_id))
            standings = [standing_of(session, job) for job in store.jobs(session, batch)]
        return Board(batch, standings)


def begin_batch(
    session: Session,
    workshop_id: UUID,
    file: RingFile,
    kind: BatchKind,
    wanted: Sequence[Wanted],
    key: UUID | None = None,
    author: UUID | None = None,
) -> Batch:
    """A batch with a job for each ring. Raises `Refusal` naming each that can't be made."""
    title, document = file.title.strip() or UNTITLED, document_of(file)
    batch = Batch(workshop_id=workshop_id, title=title, kind=kind, file=document, saved_as=key, author_id=author)
    session.add(batch)
    session.flush()
    began = session.scalars(select(func.now())).one()
    faults: list[Fault] = []
    for n, one in enumerate(wanted):
        whose = one.for_whom.strip()
        try:
            each = read_ring({**document, "title": f"{title}, {whose or one.size}"[:120], "finger": {"size": one.size}})
            job = add_job(session, workshop_id, each, None, author)
        except Refusal as refusal:
            faults += refusal.at(f"rings.{n}").faults
            continue
        job.batch_id, job.for_whom = batch.id, whose
        # In one transaction all begin at once; they are made in the order in which they were named.
        job.created_at = began + timedelta(microseconds=n)
    if faults:
        raise Refusal(*faults)
    return batch


def _found(batch: Batch | None) -> Batch:
    if batch is None:
        raise NotFound("there is no such batch")
    return batch
