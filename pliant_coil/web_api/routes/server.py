"""About the server itself."""

from datetime import UTC, datetime

import structlog
from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool

from pliant_coil import __version__
from pliant_coil.services.whole import archive, unpack
from pliant_coil.services.workshop import can_keep
from pliant_coil.web_api.actors import WHO, TheActor
from pliant_coil.web_api.files import sent_as
from pliant_coil.web_api.metrics import CONTENT_TYPE, exposition
from pliant_coil.web_api.problems import MISSING, REFUSED
from pliant_coil.web_api.schemas import Health, ImportTold, Mishap, RefusedFile, Version

router = APIRouter(tags=["server"])
records = APIRouter(tags=["workshop"], responses=WHO)
"""What concerns a whole workshop."""
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


@records.get("/workshop/archive", response_class=Response, responses=_ARCHIVE | MISSING)
def export(request: Request, actor: TheActor) -> Response:
    """All rings as ring files in one archive, with a table of them."""
    slug, packed = archive(request.app.state.sessions, actor)
    headers = {"content-disposition": f'attachment; filename="{slug}-{datetime.now(UTC):%Y-%m-%d}.zip"'}
    return Response(packed, media_type="application/zip", headers=headers)


@records.post("/workshop/archive", status_code=201, responses=MISSING | REFUSED, openapi_extra=sent_as("application/octet-stream"))
async def bring_in(request: Request, actor: TheActor) -> ImportTold:
    """Add the rings of an archive; what can't be read is named, and the rest comes in."""
    packed = await request.body()
    found = await run_in_threadpool(unpack, request.app.state.sessions, actor, packed)
    return ImportTold(rings=found.rings, refused=[RefusedFile(name=name, reason=reason) for name, reason in found.refused])


@router.get("/metrics", include_in_schema=False)
def metrics() -> Response:
    """What the server counts, in Prometheus' text format: of this worker, or of all where they share a folder."""
    return Response(exposition(), media_type=CONTENT_TYPE)
