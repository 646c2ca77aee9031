"""A workshop's own mandrels."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Depends, Request, Response
from pydantic import BaseModel, Field, TypeAdapter

from pliant_coil.core.bench.mandrels import OwnMandrelTold, own_mandrel_told
from pliant_coil.core.plan.told import read_by
from pliant_coil.core.ring_file.document import Text
from pliant_coil.core.trade.own_mandrel import MandrelKind
from pliant_coil.services.mandrels import Mandrels
from pliant_coil.web_api.actors import WHO, TheActor
from pliant_coil.web_api.problems import MISSING, REFUSED
from pliant_coil.web_api.readers import TheReader, Written

router = APIRouter(prefix="/mandrels", tags=["bench"], responses=WHO)
_ALL = TypeAdapter(list[OwnMandrelTold])


class MarkMeasured(BaseModel):
    """A mark, and what a caliper reads across the mandrel there."""

    mark: Annotated[Text, Field(min_length=1, max_length=80)]
    measured_mm: Annotated[float, Field(ge=8, le=30, allow_inf_nan=False)]


class MandrelMeasured(BaseModel):
    """A mandrel under its name."""

    name: Annotated[Text, Field(max_length=80)]
    kind: MandrelKind = "tapered"
    marks: Annotated[list[MarkMeasured], Field(max_length=40)]


async def _mandrels(request: Request, actor: TheActor) -> Mandrels:
    return Mandrels(request.app.state.sessions, actor)


TheMandrels = Annotated[Mandrels, Depends(_mandrels)]


@router.get("", response_model=list[OwnMandrelTold])
def list_mandrels(mandrels: TheMandrels, reader: TheReader) -> Response:
    """Every mandrel, by name, and by how much its marks are off."""
    told = [
        own_mandrel_told(m.id, m.name, m.kind, [(mark.mark, mark.named_mm, mark.measured_mm) for mark in m.marks]) for m in mandrels.all()
    ]
    with read_by(reader):
        return Written(_ALL.dump_json(told))


@router.put("", status_code=204, responses=REFUSED)
def keep(mandrel: MandrelMeasured, mandrels: TheMandrels) -> None:
    """Keep a mandrel, or measure it again under its name."""
    mandrels.keep(mandrel.name, mandrel.kind, [(mark.mark, mark.measured_mm) for mark in mandrel.marks])


@router.delete("/{mandrel_id}", status_code=204, responses=MISSING | REFUSED)
def forget(mandrel_id: UUID, mandrels: TheMandrels) -> None:
    """Forget a mandrel."""
    mandrels.forget(mandrel_id)
