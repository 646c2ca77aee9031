"""A maker's old notebook as a table, into the logbook."""

from dataclasses import dataclass
from datetime import date
from typing import Annotated, Literal

from fastapi import APIRouter, Depends, Request, Response
from pydantic import BaseModel
from starlette.concurrency import run_in_threadpool

from pliant_coil.core.bench.notebook import COLUMNS, OldRing
from pliant_coil.core.plan.told import Text, Told
from pliant_coil.core.trade.sizes import Size
from pliant_coil.core.words.figures import Length
from pliant_coil.services.notebook import Notebooks, Shown
from pliant_coil.web_api.actors import WHO, TheActor
from pliant_coil.web_api.files import sent_as
from pliant_coil.web_api.problems import REFUSED
from pliant_coil.web_api.readers import TheReader, Written

router = APIRouter(prefix="/notebook", tags=["bench"], responses=WHO)
MOST_SHOWN = 300


@dataclass(kw_only=True, slots=True)
class FaultTold(Told):
    """What is wrong in a line."""

    column: str
    reason: Text
    accepted: Text


@dataclass(kw_only=True, slots=True)
class NotebookLine(Told):
    """A ring of the notebook as it was read."""

    line: int
    title: str
    ended: date | None
    state: Literal["finished", "spoiled", "set_aside"]
    size: Text | None
    used: Text | None
    minutes: float | None
    note: str
    known: bool
    """It stands in the logbook already."""
    faults: list[FaultTold]


@dataclass(kw_only=True, slots=True)
class NotebookTold(Told):
    """What would come in."""

    lines: list[NotebookLine]
    """The first of them, those with a fault before the others."""
    fresh: int
    known: int
    wrong: int
    unread: list[str]
    """Columns that nothing is read from."""
    columns: list[str]
    """Columns that are known."""


class TakenIn(BaseModel):
    """What came in."""

    rings: int


async def _notebooks(request: Request, actor: TheActor) -> Notebooks:
    return Notebooks(request.app.state.sessions, actor)


TheNotebooks = Annotated[Notebooks, Depends(_notebooks)]


@router.post("/preview", response_model=NotebookTold, responses=REFUSED, openapi_extra=sent_as("text/csv"))
async def preview(notebooks: TheNotebooks, reader: TheReader, request: Request) -> Response:
    """What a table would bring into the logbook, line by line; nothing is kept."""
    shown = await run_in_threadpool(notebooks.show, await request.body(), reader)
    return Written(_told(shown).json(reader))


@router.post("", status_code=201, responses=REFUSED, openapi_extra=sent_as("text/csv"))
async def take_in(notebooks: TheNotebooks, reader: TheReader, request: Request) -> TakenIn:
    """Take in every line that can be read; sent again, once."""
    return TakenIn(rings=await run_in_threadpool(notebooks.take_in, await request.body(), reader))


def _told(shown: Shown) -> NotebookTold:
    rings = shown.notebook.rings
    wrong = sum(1 for ring in rings if ring.faults)
    first = sorted(rings, key=lambda ring: (not ring.faults, ring.line))[:MOST_SHOWN]
    return NotebookTold(
        lines=[_line(ring, ring.line in shown.known) for ring in first],
        fresh=len(rings) - wrong - len(shown.known),
        known=len(shown.known),
        wrong=wrong,
        unread=list(shown.notebook.unread),
        columns=list(COLUMNS),
    )


def _line(ring: OldRing, known: bool) -> NotebookLine:
    return NotebookLine(
        line=ring.line,
        title=ring.title,
        ended=ring.ended,
        state=ring.state,
        size=None if ring.size_mm is None else Size(ring.size_mm),
        used=None if ring.used_mm is None else Length(ring.used_mm),
        minutes=ring.minutes,
        note=ring.note,
        known=known,
        faults=[FaultTold(column=f.field, reason=f.reason, accepted=f.accepted) for f in ring.faults],
    )
