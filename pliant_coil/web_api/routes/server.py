"""About the server itself."""

import tempfile
from collections.abc import AsyncIterator, Iterator
from datetime import UTC, datetime
from functools import partial
from pathlib import Path
from typing import IO

import structlog
from fastapi import APIRouter, Request, Response
from starlette.background import BackgroundTask
from starlette.responses import FileResponse, StreamingResponse

from pliant_coil import __version__
from pliant_coil.services.archive_import import Archive, Imported, unpack
from pliant_coil.services.scope import may_write
from pliant_coil.services.workshop import can_keep
from pliant_coil.services.workshop_archive import pack
from pliant_coil.web_api.actors import WHO, TheActor
from pliant_coil.web_api.files import sent_as
from pliant_coil.web_api.heavy import Heavy, TheArchiveQueue
from pliant_coil.web_api.metrics import CONTENT_TYPE, exposition
from pliant_coil.web_api.problems import BUSY, MISSING, REFUSED
from pliant_coil.web_api.schemas import Health, ImportTold, Mishap, RefusedFile, Version

router = APIRouter(tags=["server"])
records = APIRouter(tags=["workshop"], responses=WHO)
"""What concerns a whole workshop."""
_PROGRESS: dict[int | str, dict[str, object]] = {
    200: {"model": ImportTold, "content": {"application/x-ndjson": {"schema": {"$ref": "#/components/schemas/ImportTold"}}}}
}
_ARCHIVE: dict[int | str, dict[str, object]] = {200: {"content": {"application/zip": {}}}}
_log = structlog.get_logger("mishaps")


@router.post("/mishaps", status_code=204, responses=REFUSED)
async def mishap(told: Mishap) -> None:
    """A page failed to draw in somebody's browser: it is written into the log."""
    _log.error("page", message=told.message, address=told.address)


@router.get("/health/live")
async def live() -> Health:
    """Whether the server itself answers, whatever its database does."""
    return Health(status="ok")


@router.get("/health", responses={503: {"model": Health}})
@router.get("/health/ready", responses={503: {"model": Health}})
def ready(request: Request, response: Response) -> Health:
    """Whether records can be kept right now: 200 when they can, 503 when they can't."""
    keeps = can_keep(request.app.state.sessions)
    response.status_code = 200 if keeps else 503
    return Health(status="ok" if keeps else "no-database")


@router.get("/version")
async def version() -> Version:
    """Which version serves; touches nothing else."""
    return Version(version=__version__)


@records.get("/workshop/archive", response_class=FileResponse, responses=_ARCHIVE | MISSING | BUSY)
async def export(request: Request, actor: TheActor, queue: TheArchiveQueue) -> FileResponse:
    """The whole workshop in one archive: rings, records with their photos, mandrels, weave programs, as open files."""
    # On the disk, not in memory: photos add up.
    target = tempfile.NamedTemporaryFile(prefix="pliant-coil-", suffix=".zip", delete=False)  # noqa: SIM115 (it is sent, and deleted then)
    try:
        with target:
            slug = await queue.run(partial(pack, request.app.state.sessions, actor, target.file))
    except BaseException:
        Path(target.name).unlink(missing_ok=True)
        raise
    gone = BackgroundTask(Path(target.name).unlink, missing_ok=True)
    return FileResponse(target.name, media_type="application/zip", filename=f"{slug}-{datetime.now(UTC):%Y-%m-%d}.zip", background=gone)


@records.post(
    "/workshop/archive",
    status_code=200,
    response_class=StreamingResponse,
    responses=MISSING | REFUSED | BUSY | _PROGRESS,
    openapi_extra=sent_as("application/octet-stream"),
)
async def bring_in(request: Request, actor: TheActor, queue: TheArchiveQueue) -> StreamingResponse:
    """Add what is in an archive, file by file: a line of JSON after each part, the last one `done`. Broken off, what came in stays."""
    may_write(actor)
    packed = tempfile.SpooledTemporaryFile(max_size=4_000_000)  # noqa: SIM115 (it outlives this function)
    try:
        async for chunk in request.stream():
            packed.write(chunk)
        archive = await queue.run(partial(Archive, packed))
    except BaseException:
        packed.close()
        raise
    steps = unpack(request.app.state.sessions, actor, archive)
    return StreamingResponse(_lines(steps, queue, packed), media_type="application/x-ndjson")


async def _lines(steps: Iterator[Imported], queue: Heavy, packed: IO[bytes]) -> AsyncIterator[str]:
    told = Imported(0)
    with packed:
        while (step := await queue.run(partial(next, steps, None))) is not None:
            told = step
            yield _line(told, done=False)
        yield _line(told, done=True)


def _line(told: Imported, *, done: bool) -> str:
    refused = [RefusedFile(name=name, reason=reason) for name, reason in told.refused] if done else []
    counted = {name: getattr(told, name) for name in ("files", "read", "rings", "records", "photos", "known")}
    return ImportTold(**counted, refused=refused, done=done).model_dump_json() + "\n"


@router.get("/metrics", include_in_schema=False)
def metrics() -> Response:
    """What the server counts, in Prometheus' text format: of this worker, or of all where they share a folder."""
    return Response(exposition(), media_type=CONTENT_TYPE)
