"""Ring sizes: any text in, every system out."""

from typing import Annotated

from fastapi import APIRouter, Query, Response

from pliant_coil.core.plan.build import size_in_all
from pliant_coil.core.trade.sizes import SYSTEMS, between_finger_and_knuckle, read_size
from pliant_coil.core.words.say import Reader, write
from pliant_coil.web_api.problems import REFUSED
from pliant_coil.web_api.readers import TheReader, Written
from pliant_coil.web_api.schemas import SizeMark, SizeRead, SizeScale

router = APIRouter(prefix="/sizes", tags=["sizes"])


def _answer(system: str, inside_mm: float, reader: Reader, reason: str = "") -> Response:
    stands = reader.mandrel.true_mm(inside_mm) if reader.mandrel else inside_mm
    told = SizeRead(system=system, size=size_in_all(inside_mm), on_mandrel_mm=stands, reason=reason)
    return Written(told.json(reader))


@router.get("", response_model=SizeRead, responses=REFUSED)
async def read(text: str, reader: TheReader) -> Response:
    """Read a size as people type it. A bare number that the reader's systems know differently is asked about."""
    size = read_size(text, "text", reader.systems)
    return _answer(size.system, size.inside_diameter_mm, reader)


@router.get("/between", response_model=SizeRead, responses=REFUSED)
async def between(
    around_finger_mm: Annotated[float, Query(gt=0, le=200)],
    around_knuckle_mm: Annotated[float, Query(gt=0, le=200)],
    reader: TheReader,
) -> Response:
    """Propose a size for a finger and its knuckle."""
    proposal = between_finger_and_knuckle(around_finger_mm, around_knuckle_mm)
    return _answer("us", proposal.inside_diameter_mm, reader, write(proposal.reason, reader))


@router.get("/scales")
async def scales(reader: TheReader) -> list[SizeScale]:
    """Every system with all its marks, where they stand on the reader's mandrel."""
    stands = reader.mandrel.true_mm if reader.mandrel else float
    told = []
    for system in SYSTEMS.values():
        count = round((system.highest - system.lowest) / system.mark_step)
        numbers = [system.lowest + k * system.mark_step for k in range(count + 1)]
        marks = [SizeMark(label=system.label(n), inside_diameter_mm=round(stands(system.to_diameter_mm(n)), 4)) for n in numbers]
        told.append(SizeScale(code=system.code, name=system.name, rule=system.rule, source=system.source, marks=marks))
    return told
