"""Planning: no database, no waiting."""

from functools import partial
from typing import Annotated

from fastapi import APIRouter, Query, Request, Response
from pydantic import Field
from sqlalchemy.exc import SQLAlchemyError
from starlette.concurrency import run_in_threadpool

from pliant_coil.core.bench.hand import Hand
from pliant_coil.core.making.planned import planned
from pliant_coil.core.plan.build import plan, resizing
from pliant_coil.core.plan.gallery import gallery
from pliant_coil.core.plan.gallery_model import Gallery
from pliant_coil.core.plan.model import Plan, Resizing
from pliant_coil.core.ring_file.document import RingFile
from pliant_coil.core.trade.sizes import read_size
from pliant_coil.core.words.say import Reader
from pliant_coil.services.jobs import Jobs
from pliant_coil.services.scope import NotFound
from pliant_coil.web_api.actors import door_of, token_of
from pliant_coil.web_api.heavy import TheQueue, queues_of
from pliant_coil.web_api.problems import BUSY, REFUSED
from pliant_coil.web_api.readers import Reads, TheReader, Written

router = APIRouter(tags=["plan"])


class PlanAsked(Reads):
    """What of a plan is asked for, and for whom it is written."""

    paths: bool = Field(False, description="With the wires' paths in space")
    habits: bool = Field(True, description="With what every habit of starting would make of it")
    hand: bool = Field(False, description="For the hand that the workshop's finished rings have shown")


@router.post("/plan", response_model=Plan, responses=REFUSED | BUSY)
async def plan_ring(request: Request, file: RingFile, asked: Annotated[PlanAsked, Query()]) -> Response:
    """The plan of a ring file, written for the asked units and size systems; with `paths`, the wires' paths in space too."""
    known = await run_in_threadpool(_known_hand, request) if asked.hand else None
    write = partial(_written, file, asked.reader, paths=asked.paths, habits=asked.habits, hand=known)
    # A plan of figures takes less time than handing it to a thread; a drawing would hold the others up.
    text = await queues_of(request).drawings.run(write) if asked.paths else write()
    return Written(text)


def _known_hand(request: Request) -> Hand | None:
    try:
        actor = door_of(request).actor(token_of(request))
        return Jobs(request.app.state.sessions, actor, request.app.state.hands).learnt().hand
    except (SQLAlchemyError, NotFound):
        # A ring can be planned without its records.
        return None


@router.post("/resize", response_model=Resizing, responses=REFUSED)
async def resize_ring(
    file: RingFile, reader: TheReader, to: Annotated[str, Query(description="The wanted size, as people type it")]
) -> Response:
    """How the finished ring of a ring file is made another size: what each way can give, and what it can't."""
    wanted = read_size(to, "to", reader.systems).inside_diameter_mm
    return Written(resizing(planned(file), wanted).json(reader))


@router.get("/gallery", response_model=Gallery, responses=REFUSED | BUSY)
async def show_gallery(
    heavy: TheQueue, reader: TheReader, size: Annotated[str, Query(max_length=80, description="A ring size, as people type it")] = "US 7"
) -> Response:
    """Every band and head with its usual values at one size: what each takes, and its picture."""
    inside = read_size(size, "size", reader.systems).inside_diameter_mm
    text = await heavy.run(lambda: gallery(inside).json(reader))
    return Written(text, headers={"cache-control": "private, max-age=600"})


def _written(file: RingFile, reader: Reader, *, paths: bool, habits: bool, hand: Hand | None) -> bytes:
    return plan(file, paths=paths, habits=habits, hand=hand).json(reader)
