"""Tools at the bench: which there are, what they say, and a stand-in's key."""

import json
from collections.abc import AsyncGenerator, Mapping
from typing import Annotated

from fastapi import APIRouter, Depends, Request
from fastapi import Path as InPath
from pydantic import BaseModel, Field
from starlette.concurrency import run_in_threadpool
from starlette.responses import StreamingResponse

from pliant_coil.core.words.refusal import refuse
from pliant_coil.devices.line import read_line
from pliant_coil.devices.listening import heard, press
from pliant_coil.services.scope import NotFound, may_write
from pliant_coil.web_api.actors import WHO, TheActor, door_of, while_here
from pliant_coil.web_api.bell import STILL_HERE_S, STREAM, streamed
from pliant_coil.web_api.problems import MISSING, REFUSED

router = APIRouter(prefix="/devices", tags=["bench"], responses=WHO)


class DeviceTold(BaseModel):
    """A tool that is listened to."""

    name: str


class Pressed(BaseModel):
    """What a stand-in shall say."""

    text: Annotated[str, Field(max_length=80, description="17.12 mm, 0.674 in, 0.84 g")]


async def _devices(request: Request, actor: TheActor) -> Mapping[str, str]:
    """The tools that are plugged into this machine, for those who work in its own workshop; none for others."""
    home = await run_in_threadpool(door_of(request).home)
    devices: Mapping[str, str] = request.app.state.settings.devices
    return devices if actor.workshop_id == home else {}


TheDevices = Annotated[Mapping[str, str], Depends(_devices)]


@router.get("")
def list_devices(devices: TheDevices, _: TheActor) -> list[DeviceTold]:
    """The tools that are listened to."""
    return [DeviceTold(name=name) for name in devices]


@router.get("/readings", response_class=StreamingResponse, responses=MISSING | STREAM)
async def readings(devices: TheDevices, actor: TheActor, request: Request) -> StreamingResponse:
    """What the tools say from now on (server-sent events): `{"device", "value", "unit"}`, lengths in mm and masses in g."""
    if not devices:
        raise NotFound("no tool is named to this server")
    return streamed(while_here(request, actor, _told(devices)))


async def _told(devices: Mapping[str, str]) -> AsyncGenerator[str]:
    yield ": listening\n\n"
    async for each in heard(devices, STILL_HERE_S):
        if each is None:
            yield ": still here\n\n"
        else:
            name, said = each
            yield f"data: {json.dumps({'device': name, 'value': round(said.value, 4), 'unit': said.unit})}\n\n"


@router.post("/{name}/press", status_code=204, responses=MISSING | REFUSED)
async def press_key(name: Annotated[str, InPath(max_length=80)], pressed: Pressed, devices: TheDevices, actor: TheActor) -> None:
    """Have a stand-in say something, as if its key were pressed; a real tool doesn't hear it."""
    may_write(actor)
    if name not in devices:
        raise NotFound("there is no such tool")
    if read_line(pressed.text) is None:
        refuse("text", "no tool says that", "a number with its unit: 17.12 mm, 0.674 in, 0.84 g")
    try:
        await press(devices[name], pressed.text.strip())
    except (OSError, TimeoutError):
        raise NotFound("that tool isn't there just now") from None
