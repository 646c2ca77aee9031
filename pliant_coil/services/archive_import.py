"""What comes out of a workshop's archive: each file by itself, within limits, in short transactions, so that it can be stopped."""

import json
import struct
import zipfile
from collections.abc import Callable, Iterator
from contextlib import suppress
from dataclasses import dataclass, field
from typing import IO, Annotated, Any
from uuid import UUID, uuid5

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, TypeAdapter, ValidationError
from sqlalchemy import insert
from sqlalchemy.exc import SQLAlchemyError

from pliant_coil import __version__
from pliant_coil.core.bench.batch import BatchKind
from pliant_coil.core.bench.events import Event, read_event
from pliant_coil.core.bench.progress import State
from pliant_coil.core.bench.record import Record
from pliant_coil.core.making.planned import planned
from pliant_coil.core.mechanics.program import read_program
from pliant_coil.core.plan.build import plan_of, sentence_text
from pliant_coil.core.ring_file.document import LARGEST_FILE, Text, read_ring
from pliant_coil.core.trade.own_mandrel import MandrelKind
from pliant_coil.core.words.refusal import Refusal, refuse
from pliant_coil.services.jobs import MOST_EVENTS, settle
from pliant_coil.services.photos import encoded_anew
from pliant_coil.services.rings import columns_of, document_of
from pliant_coil.services.scope import Actor, Scope, at_work
from pliant_coil.services.workshop_archive import BATCHES, MANDRELS, PHOTOS, PROGRAMS, RECORDS, RINGS
from pliant_coil.store import batches, jobs, mandrels, weave_programs
from pliant_coil.store import rings as store
from pliant_coil.store.database import Sessions
from pliant_coil.store.models import Batch, Job, JobEvent, Photo

MOST_FILES = 20_000
LARGEST_IN_SUM = 1_000_000_000
"""Bytes, unpacked; they are never in memory at once."""
_LARGEST = {RINGS: LARGEST_FILE, BATCHES: LARGEST_FILE, RECORDS: 4_000_000, PHOTOS: 4_000_000, MANDRELS: 1_000_000, PROGRAMS: 100_000}
"""Bytes of one file, by how its name ends; others aren't looked at."""
_AT_ONCE = 40
"""Files in one transaction."""
_NAMES = UUID("7c1a5d0e-52a4-4c53-9d0c-0c6b8b1f6b55")
_END = b"PK\x05\x06"


@dataclass
class Imported:
    """What came in by now: of how many files, and which didn't, with the reason."""

    files: int
    read: int = 0
    rings: int = 0
    records: int = 0
    photos: int = 0
    known: int = 0
    """Records that were there already."""
    refused: list[tuple[str, str]] = field(default_factory=list)


class _Plain(BaseModel):
    model_config = ConfigDict(extra="ignore", frozen=True)


class _BatchFile(_Plain):
    id: UUID
    title: Text = Field(max_length=200)
    kind: BatchKind
    file: dict[str, Any]
    created_at: AwareDatetime


class _PhotoLine(_Plain):
    id: UUID
    task: Text = Field("", max_length=80)
    created_at: AwareDatetime


class _RecordFile(_Plain):
    id: UUID
    title: Text = Field(max_length=200)
    sentence: Text = Field("", max_length=2000)
    state: State
    for_whom: Text = Field("", max_length=80)
    batch: UUID | None = None
    created_at: AwareDatetime
    updated_at: AwareDatetime
    ended_at: AwareDatetime | None = None
    file: dict[str, Any] | None = None
    record: Record | None = None
    events: list[dict[str, Any]] = Field(default=[], max_length=MOST_EVENTS)
    photos: list[_PhotoLine] = Field(default=[], max_length=100)


class _MandrelFile(_Plain):
    name: Text = Field(min_length=1, max_length=80)
    kind: MandrelKind
    marks: list[dict[str, Any]] = Field(max_length=100)


class _ProgramFile(_Plain):
    program: str = Field(max_length=80)
    base_wires: int = Field(ge=2, le=4)


_MANDRELS: TypeAdapter[list[_MandrelFile]] = TypeAdapter(Annotated[list[_MandrelFile], Field(max_length=200)])
_PROGRAMS: TypeAdapter[list[_ProgramFile]] = TypeAdapter(Annotated[list[_ProgramFile], Field(max_length=500)])


class Archive:
    """An archive that was sent, with its files in the order in which they are taken in. Raises `Refusal` for what is none."""

    def __init__(self, packed: IO[bytes]) -> None:
        accepted = "a zip file that this program wrote"
        if _count(packed) > MOST_FILES:
            refuse("file", "more files are in it than a workshop has", f"up to {MOST_FILES}")
        try:
            self._files = zipfile.ZipFile(packed)
        except Exception:  # Whatever a reader of broken zip files may raise, that is what it means.
            refuse("file", "this isn't an archive of a workshop", accepted)
        entries = {entry.filename: entry for entry in self._files.infolist() if _kind(entry.filename)}
        if sum(entry.file_size for entry in entries.values()) > LARGEST_IN_SUM:
            refuse("file", "that is more than a workshop's archive holds", f"up to {LARGEST_IN_SUM // 1_000_000} MB")
        if not entries:
            refuse("file", "there is no ring file in it", accepted)
        # The last ring of the table was changed first: in that order they are listed again. Photos come after their records.
        order = [BATCHES, MANDRELS, PROGRAMS, RINGS, RECORDS, PHOTOS]
        newest_last = list(entries)[::-1]
        self.names = sorted(newest_last, key=lambda name: order.index(_kind(name)))
        self._entries = entries

    def read(self, name: str) -> bytes:
        """One file. Raises `Refusal` for one that is too large, or that can't be read."""
        most = _LARGEST[_kind(name)]
        entry = self._entries[name]
        if entry.file_size > most:
            refuse("file", "it is too large", f"up to {most} bytes")
        try:
            with self._files.open(entry) as file:
                # What it says of its own size may be wrong.
                found = file.read(most + 1)
        except Exception:  # Packed in a way that isn't known, broken off, encrypted, wrong sums.
            refuse("file", "it can't be unpacked", "a file as it was written")
        if len(found) > most:
            refuse("file", "it is too large", f"up to {most} bytes")
        return found


def unpack(sessions: Sessions, actor: Actor, archive: Archive) -> Iterator[Imported]:
    """Take in file by file; yields what has come in after each of its transactions. Left off, what came in by then stays."""
    told = Imported(len(archive.names))
    taken = {RINGS: _ring, BATCHES: _batch, RECORDS: _record, PHOTOS: _photo, MANDRELS: _mandrels, PROGRAMS: _programs}
    photos: dict[str, tuple[UUID, _PhotoLine]] = {}
    for first in range(0, len(archive.names), _AT_ONCE):
        with at_work(sessions, actor, writes=True) as scope:
            for name in archive.names[first : first + _AT_ONCE]:
                told.read += 1
                reason = _one(scope, told, photos, archive, name, taken[_kind(name)])
                if reason:
                    told.refused.append((name.rpartition("/")[2][:120], reason))
        yield told


_Photos = dict[str, tuple[UUID, _PhotoLine]]
"""Of the records that came in: by file name, the job that a photo belongs to."""
_Taker = Callable[[Scope, Imported, _Photos, str, bytes], None]


def _one(scope: Scope, told: Imported, photos: _Photos, archive: Archive, name: str, take: _Taker) -> str:
    """Take in one file; returns why it couldn't be."""
    try:
        content = archive.read(name)
        with scope.session.begin_nested():
            take(scope, told, photos, name, content)
            scope.session.flush()
    except Refusal as refusal:
        return str(refusal)
    except (ValidationError, ValueError, TypeError, KeyError, RecursionError, SQLAlchemyError):
        return "it can't be read"
    return ""


def _ring(scope: Scope, told: Imported, _: _Photos, __: str, content: bytes) -> None:
    file = read_ring(json.loads(content.decode()))
    store.add(scope.session, scope.workshop_id, columns_of(file), document_of(file), author=scope.author_id)
    told.rings += 1


def _batch(scope: Scope, _: Imported, __: _Photos, ___: str, content: bytes) -> None:
    given = _BatchFile.model_validate_json(content)
    key = uuid5(_NAMES, str(given.id))
    if batches.saved_as(scope.session, scope.workshop_id, key) is None:
        file = document_of(read_ring(given.file, stored=True))
        batch = Batch(workshop_id=scope.workshop_id, title=given.title, kind=given.kind, file=file, saved_as=key)
        batch.created_at, batch.author_id = given.created_at, scope.author_id
        scope.session.add(batch)


def _record(scope: Scope, told: Imported, photos: _Photos, _: str, content: bytes) -> None:
    session, workshop_id, author = scope
    given = _RecordFile.model_validate_json(content)
    key = uuid5(_NAMES, str(given.id))
    if jobs.saved_as(session, workshop_id, key):
        told.known += 1
        return
    if given.file is None and given.record is None:
        refuse("file", "it has neither a plan nor a record", "a record as it was written")
    sentence, file, predicted = given.sentence, None, {}
    if given.file is not None:
        of_it = planned(read_ring(given.file, stored=True))
        sentence, file, predicted = sentence_text(of_it.ring), document_of(of_it.ring.file), plan_of(of_it).document()
    batch = batches.saved_as(session, workshop_id, uuid5(_NAMES, str(given.batch))) if given.batch else None
    job = Job(
        workshop_id=workshop_id, title=given.title, sentence=sentence, file=file, predicted=predicted, core_version=__version__,
        state=given.state, number=0, saved_as=key, author_id=author, for_whom=given.for_whom, batch_id=batch.id if batch else None,
        created_at=given.created_at, updated_at=given.updated_at, record=None,
    )  # fmt: skip
    session.add(job)
    session.flush()
    if file is not None:
        _events(scope, job, given.events)
        settle(session, job)
    job.ended_at = given.ended_at if job.state != "open" or given.record else None
    if given.record and (file is None or job.record):
        # As it was written when the ring ended.
        job.record = given.record.model_dump(mode="json")
    job.updated_at = given.updated_at
    photos.update({f"{line.id}{PHOTOS}": (job.id, line) for line in given.photos})
    told.records += 1


def _events(scope: Scope, job: Job, documents: list[dict[str, Any]]) -> None:
    events: dict[UUID, Event] = {event.id: event for document in documents if (event := read_event(document))}
    rows = [
        {
            "job_id": job.id,
            "workshop_id": scope.workshop_id,
            "number": number,
            "author_id": scope.author_id,
            "client_id": event.id,
            "event": event.model_dump(mode="json"),
        }
        for number, event in enumerate(events.values(), 1)
    ]
    if rows:
        scope.session.execute(insert(JobEvent), rows)
    job.number = len(rows)


def _photo(scope: Scope, told: Imported, photos: _Photos, name: str, content: bytes) -> None:
    belongs = photos.get(name.rpartition("/")[2])
    if belongs is None:
        # Its record was there already, and so is the photo.
        told.known += 1
        return
    job_id, line = belongs
    picture = encoded_anew(content)
    photo = Photo(id=line.id, workshop_id=scope.workshop_id, job_id=job_id, task=line.task, width=picture.width, height=picture.height)
    photo.jpeg, photo.author_id, photo.created_at = picture.jpeg, scope.author_id, line.created_at
    with suppress(SQLAlchemyError), scope.session.begin_nested():
        scope.session.add(photo)
        scope.session.flush()
        told.photos += 1


def _mandrels(scope: Scope, _: Imported, __: _Photos, ___: str, content: bytes) -> None:
    there = {mandrel.name for mandrel in mandrels.kept(scope.session, scope.workshop_id)}
    for mandrel in _MANDRELS.validate_json(content):
        marks = [
            {"mark": str(m["mark"])[:80], "named_mm": float(m["named_mm"]), "measured_mm": float(m["measured_mm"])} for m in mandrel.marks
        ]
        # What is measured here isn't overwritten.
        if mandrel.name not in there:
            mandrels.keep(scope.session, scope.workshop_id, mandrel.name, mandrel.kind, marks)


def _programs(scope: Scope, _: Imported, __: _Photos, ___: str, content: bytes) -> None:
    for given in _PROGRAMS.validate_json(content):
        read_program(given.program, given.base_wires, "program")
        weave_programs.keep(scope.session, scope.workshop_id, given.program, given.base_wires)


def _kind(name: str) -> str:
    return next((ending for ending in _LARGEST if name.endswith(ending)), "")


def _count(packed: IO[bytes]) -> int:
    """How many files the archive says it has, before all their names are read into memory."""
    size = packed.seek(0, 2)
    packed.seek(max(0, size - 65_557))
    tail = packed.read()
    packed.seek(0)
    at = tail.rfind(_END)
    if at < 0 or len(tail) < at + 12:
        return 0
    (count,) = struct.unpack_from("<H", tail, at + 10)
    return int(count)
