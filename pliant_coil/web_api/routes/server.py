"""About the server itself."""

import structlog
from fastapi import APIRouter, Request, Response

from pliant_coil import __version__
from pliant_coil.services.workshop import database_answers, workshop_name
from pliant_coil.web_api.problems import REFUSED
from pliant_coil.web_api.schemas import Health, Mishap, Version, WorkshopTold

router = APIRouter(tags=["server"])
_log = structlog.get_logger("mishaps")


@router.post("/mishaps", status_code=204, responses=REFUSED)
async def mishap(told: Mishap) -> None:
    """A page failed to draw in somebody's browser: it is written into the log."""
    _log.error("page", message=told.message, address=told.address)


@router.get("/health", responses={503: {"model": Health}})
def health(request: Request, response: Response) -> Health:
    """Whether the database answers: 200 when it does, 503 when it doesn't."""
    answers = database_answers(request.app.state.sessions)
    response.status_code = 200 if answers else 503
    return Health(status="ok" if answers else "no-database", database=answers)


@router.get("/version")
async def version() -> Version:
    """Which version serves; touches nothing else."""
    return Version(version=__version__)


@router.get("/workshop")
def workshop(request: Request) -> WorkshopTold:
    """Whose bench it is."""
    return WorkshopTold(name=workshop_name(request.app.state.sessions, request.app.state.settings.workshop))
