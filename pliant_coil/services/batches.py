"""Several rings of one plan at the bench: begun at once, and seen side by side."""

from collections.abc import Sequence
from contextlib import AbstractContextManager
from dataclasses import dataclass
from datetime import timedelta
from uuid import UUID

from sqlalchemy import func, select
from sqlalchemy.exc import IntegrityError

from pliant_coil.core.bench.batch import Batch as Rings
from pliant_coil.core.bench.batch import BatchKind, Bench
from pliant_coil.core.making.ring import make_ring
from pliant_coil.core.ring_file.document import RingFile, read_ring
from pliant_coil.core.words.refusal import Fault, Refusal, refuse
from pliant_coil.services.jobs import Standing, add_job, standing_of
from pliant_coil.services.rings import UNTITLED, document_of
from pliant_coil.services.scope import Actor, NotFound, Scope, at_work
from pliant_coil.store import batches as store
from pliant_coil.store.database import Sessions
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
    rings: Rings


class Batches:
    """The batches of one workshop."""

    def __init__(self, sessions: Sessions, actor: Actor) -> None:
        self._sessions = sessions
        self._actor = actor

    def _work(self, *, writes: bool = False) -> AbstractContextManager[Scope]:
        return at_work(self._sessions, self._actor, writes=writes)

    def begin(self, file: RingFile, kind: BatchKind, wanted: Sequence[Wanted], key: UUID | None = None) -> UUID:
        """Take several rings to the bench at once; under the same `key` once. Raises `Refusal` naming each that can't be made."""
        files = _files(file, wanted)
        try:
            with self._work(writes=True) as (session, workshop_id, author):
                found = store.saved_as(session, workshop_id, key) if key else None
                if found:
                    return found.id
                title = file.title.strip() or UNTITLED
                batch = Batch(workshop_id=workshop_id, title=title, kind=kind, file=document_of(file), saved_as=key, author_id=author)
                session.add(batch)
                session.flush()
                began = session.scalars(select(func.now())).one()
                for n, (each, one) in enumerate(zip(files, wanted, strict=True)):
                    job = add_job(session, workshop_id, each, None, author)
                    job.batch_id, job.for_whom = batch.id, one.for_whom.strip()
                    # In one transaction all begin at once; they are made in the order in which they were named.
                    job.created_at = began + timedelta(microseconds=n)
                return batch.id
        except IntegrityError:
            with self._work() as (session, workshop_id, _):
                return _found(store.saved_as(session, workshop_id, key) if key else None).id

    def open(self) -> list[Batch]:
        """Batches that have a ring on the bench."""
        with self._work() as (session, workshop_id, _):
            return store.with_open_rings(session, workshop_id)

    def board(self, batch_id: UUID) -> Board:
        """A batch, and where each of its rings stands."""
        with self._work() as (session, workshop_id, _):
            batch = _found(store.find(session, workshop_id, batch_id))
            standings = [standing_of(session, job) for job in store.jobs(session, batch)]
        return Board(batch, standings, Rings([Bench(s.at_bench, s.progress) for s in standings]))


def _files(file: RingFile, wanted: Sequence[Wanted]) -> list[RingFile]:
    if not 1 <= len(wanted) <= MOST_RINGS:
        refuse("rings", f"{len(wanted)} rings can't lie on one bench", f"1 to {MOST_RINGS}")
    files: list[RingFile] = []
    faults: list[Fault] = []
    title = file.title.strip() or UNTITLED
    document = document_of(file)
    for n, one in enumerate(wanted):
        named = f"{title}, {one.for_whom.strip() or one.size}"[:120]
        try:
            each = read_ring({**document, "title": named, "finger": {"size": one.size}})
            make_ring(each)
            files.append(each)
        except Refusal as refusal:
            faults += refusal.at(f"rings.{n}").faults
    if faults:
        raise Refusal(*faults)
    return files


def _found(batch: Batch | None) -> Batch:
    if batch is None:
        raise NotFound("there is no such batch")
    return batch
