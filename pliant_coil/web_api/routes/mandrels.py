"""A workshop's own mandrels."""

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Depends, Request
from pydantic import BaseModel, ConfigDict, Field

from pliant_coil.core.ring_file.document import Text
from pliant_coil.services.mandrels import Mandrels
from pliant_coil.web_api.actors import WHO, TheActor
from pliant_coil.web_api.problems import MISSING, REFUSED

router = APIRouter(prefix="/mandrels", tags=["bench"], responses=WHO)
Kind = Literal["tapered", "grooved", "stepped"]


class MarkMeasured(BaseModel):
    """A mark, and what a caliper reads across the mandrel there."""

    model_config = ConfigDict(from_attributes=True)

    mark: Annotated[Text, Field(min_length=1, max_length=80)]
    measured_mm: Annotated[float, Field(ge=8, le=30, allow_inf_nan=False)]


class MandrelMeasured(BaseModel):
    """A mandrel under its name."""

    name: Annotated[Text, Field(max_length=80)]
    kind: Kind = "tapered"
    marks: Annotated[list[MarkMeasured], Field(max_length=40)]


class LineTold(BaseModel):
    """By how much its marks are off: at an inside diameter of 17 mm, and more for each millimetre."""

    model_config = ConfigDict(from_attributes=True)

    off_mm: float
    slope: float


class MarkTold(MarkMeasured):
    """And the inside diameter that the mark names."""

    named_mm: float


class OwnMandrelTold(BaseModel):
    """A mandrel with its marks and their line."""

    model_config = ConfigDict(from_attributes=True)

    id: UUID
    name: str
    kind: Kind
    marks: list[MarkTold]
    line: LineTold


def _mandrels(request: Request, actor: TheActor) -> Mandrels:
    return Mandrels(request.app.state.sessions, actor)


TheMandrels = Annotated[Mandrels, Depends(_mandrels)]


@router.get("")
def list_mandrels(mandrels: TheMandrels) -> list[OwnMandrelTold]:
    """Every mandrel, by name."""
    return [OwnMandrelTold.model_validate(mandrel) for mandrel in mandrels.all()]


@router.put("", status_code=204, responses=REFUSED)
def keep(mandrel: MandrelMeasured, mandrels: TheMandrels) -> None:
    """Keep a mandrel, or measure it again under its name."""
    mandrels.keep(mandrel.name, mandrel.kind, [(mark.mark, mark.measured_mm) for mark in mandrel.marks])


@router.delete("/{mandrel_id}", status_code=204, responses=MISSING | REFUSED)
def forget(mandrel_id: UUID, mandrels: TheMandrels) -> None:
    """Forget a mandrel."""
    mandrels.forget(mandrel_id)
