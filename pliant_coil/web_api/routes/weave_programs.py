"""Weave programs to choose from."""

from typing import Annotated

from fastapi import APIRouter, Depends, Request

from pliant_coil.services.weave_programs import WeavePrograms
from pliant_coil.web_api.actors import WHO, TheActor
from pliant_coil.web_api.problems import REFUSED
from pliant_coil.web_api.schemas import WeaveProgram, WeaveProgramTold

router = APIRouter(prefix="/weave-programs", tags=["weave programs"], responses=WHO)


async def _programs(request: Request, actor: TheActor) -> WeavePrograms:
    return WeavePrograms(request.app.state.sessions, actor)


ThePrograms = Annotated[WeavePrograms, Depends(_programs)]


@router.get("")
def list_programs(programs: ThePrograms) -> list[WeaveProgramTold]:
    """The usual programs, and the workshop's own."""
    return [WeaveProgramTold(program=p, base_wires=n, name=name, own=not name) for p, n, name in programs.all()]


@router.post("", status_code=204, responses=REFUSED)
def keep(program: WeaveProgram, programs: ThePrograms) -> None:
    """Keep a program."""
    programs.keep(program.program, program.base_wires)


@router.post("/forget", status_code=204, responses=REFUSED)
def forget(program: WeaveProgram, programs: ThePrograms) -> None:
    """Forget one of the workshop's own programs."""
    programs.forget(program.program, program.base_wires)
