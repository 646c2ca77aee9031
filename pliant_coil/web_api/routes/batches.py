"""Several rings at the bench."""

from functools import partial
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Depends, Header, Request, Response
from pydantic import BaseModel, ConfigDict, Field
from starlette.concurrency import run_in_threadpool
from starlette.responses import StreamingResponse

from pliant_coil.core.bench.batch import Batch, BatchKind, Bench
from pliant_coil.core.bench.board import BoardTold, bench_told, set_up
from pliant_coil.core.ring_file.document import RingFile, Text
from pliant_coil.core.words.say import Reader
from pliant_coil.services.batches import Batches, Wanted
from pliant_coil.web_api.actors import WHO, TheActor, while_here
from pliant_coil.web_api.bell import STREAM, TheBell, streamed
from pliant_coil.web_api.heavy import TheQueue
from pliant_coil.web_api.problems import BUSY, MISSING, REFUSED
from pliant_coil.web_api.readers import TheReader, Written

router = APIRouter(prefix="/batches", tags=["bench"], responses=WHO)


class RingWanted(BaseModel):
    """One ring of several: its finger, and whose it is."""

    model_config = ConfigDict(extra="forbid")

    size: Annotated[Text, Field(min_length=1, max_length=80)]
    for_whom: Annotated[Text, Field(max_length=80)] = ""


class BatchWanted(BaseModel):
    """Several rings of one plan."""

    file: RingFile
    kind: BatchKind
    rings: Annotated[list[RingWanted], Field(max_length=200)]


class BatchListed(BaseModel):
    """A batch in a list."""

    model_config = ConfigDict(from_attributes=True)

    id: UUID
    title: str
    kind: BatchKind


async def _batches(request: Request, actor: TheActor) -> Batches:
    return Batches(request.app.state.sessions, actor)


TheBatches = Annotated[Batches, Depends(_batches)]


@router.post("", status_code=201, responses=REFUSED)
def begin(wanted: BatchWanted, batches: TheBatches, idempotency_key: Annotated[UUID | None, Header()] = None) -> BatchListed:
    """Take several rings of one plan to the bench; sent again under the same key, once."""
    rings = [Wanted(one.size, one.for_whom) for one in wanted.rings]
    made = batches.begin(wanted.file, wanted.kind, rings, idempotency_key)
    return BatchListed(id=made, title=wanted.file.title, kind=wanted.kind)


@router.get("")
def list_batches(batches: TheBatches) -> list[BatchListed]:
    """Batches that have a ring on the bench."""
    return [BatchListed.model_validate(batch) for batch in batches.open()]


@router.get("/{batch_id}", response_model=BoardTold, responses=MISSING | REFUSED | BUSY)
async def board(batch_id: UUID, batches: TheBatches, reader: TheReader, heavy: TheQueue) -> Response:
    """Every ring of a batch, and where it stands."""
    return Written(await heavy.run(partial(_board, batches, batch_id, reader)))


@router.get("/{batch_id}/changes", response_class=StreamingResponse, responses=MISSING | STREAM)
async def changes(batch_id: UUID, batches: TheBatches, actor: TheActor, bell: TheBell, request: Request) -> StreamingResponse:
    """A number, now and whenever something happens at one of its rings (server-sent events)."""
    await run_in_threadpool(batches.check, batch_id)
    return streamed(while_here(request, actor, bell.stream(batch_id, _whatever)))


async def _whatever() -> int:
    # Its rings count each for itself; whoever looks on asks for the board whenever it is told anything.
    return 0


def _board(batches: Batches, batch_id: UUID, reader: Reader) -> bytes:
    board = batches.board(batch_id)
    rings = Batch([Bench(standing.at_bench, standing.progress) for standing in board.standings])
    told = BoardTold(
        id=board.batch.id,
        title=board.batch.title,
        kind=board.batch.kind,
        stage=rings.stage or "",
        repeats_left=rings.repeats_left,
        minutes_left=rings.minutes_left,
        set_up=list(set_up(rings)),
        benches=[bench_told(s.job.id, s.job.for_whom, bench, rings) for s, bench in zip(board.standings, rings.benches, strict=True)],
    )
    return told.json(reader)
