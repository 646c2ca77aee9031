"""Who a request comes from: the cookie that a browser was given, or whoever works here alone."""

import asyncio
import time
from collections.abc import AsyncGenerator, AsyncIterator
from contextlib import aclosing
from typing import Annotated

from fastapi import Depends, Request, Response
from sqlalchemy.exc import SQLAlchemyError
from starlette.concurrency import run_in_threadpool

from pliant_coil.services.scope import Actor, NotFound
from pliant_coil.services.sign_in import LONGEST, Caller, Door, SignInNeeded, Source
from pliant_coil.web_api.problems import Problems

COOKIE, DEVICE = "pliant_coil_session", "pliant_coil_device"
_DEVICE_KEPT_S = 365 * 24 * 3600
WHO: dict[int | str, dict[str, object]] = {
    401: {"model": Problems, "description": "Nobody is signed in"},
    403: {"model": Problems, "description": "Who is signed in may not do that"},
}
_LET_IN_FOR_S = 20.0
"""How long somebody who was let in may go on reckoning without being asked again: no record is read for it."""
_MOST_REMEMBERED = 1000


def door_of(request: Request) -> Door:
    """The door of the server."""
    door: Door = request.app.state.door
    return door


def token_of(request: Request) -> str:
    """The token of the browser; empty without one."""
    return request.cookies.get(COOKIE, "")


async def _door(request: Request) -> Door:
    return door_of(request)


async def _token(request: Request) -> str:
    return token_of(request)


async def _source(request: Request) -> Source:
    # The address is the one that the proxy in front tells.
    return Source(request.client.host if request.client else "", request.cookies.get(DEVICE, ""))


def _actor(request: Request) -> Actor:
    return door_of(request).actor(token_of(request))


async def _caller(request: Request) -> Caller:
    return Caller(door_of(request), token_of(request))


async def let_in(request: Request) -> None:
    """For what reads and keeps no record. Raises `SignInNeeded`."""
    remembered: dict[str, float] = request.app.state.let_in
    token, now = token_of(request), time.monotonic()
    if remembered.get(token, 0.0) > now:
        return
    try:
        await run_in_threadpool(_actor, request)
    except SQLAlchemyError:
        # Where nobody else can come, rings are planned without the record book too.
        if not request.app.state.settings.on_loopback:
            raise
    if len(remembered) >= _MOST_REMEMBERED:
        remembered.clear()
    remembered[token] = now + _LET_IN_FOR_S


async def while_here(request: Request, actor: Actor, lines: AsyncGenerator[str]) -> AsyncIterator[str]:
    """What is streamed to somebody, until they aren't let in any more, or have gone to another workshop."""
    async with aclosing(lines):
        try:
            async for line in lines:
                if not await _still_there(request, actor):
                    return
                yield line
        except (SignInNeeded, NotFound, SQLAlchemyError):
            # Whoever still may asks again by itself.
            return


async def _still_there(request: Request, actor: Actor) -> bool:
    """Whether somebody may still see this workshop. Streams of theirs that are told something at once are looked up together."""
    asking: dict[str, asyncio.Task[Actor]] = request.app.state.asking
    token = token_of(request)
    task = asking.get(token)
    if task is None:
        task = asking[token] = asyncio.create_task(_ask_together(request, asking, token))
    # One stream that is broken off doesn't take the answer from the others.
    return (await asyncio.shield(task)).workshop_id == actor.workshop_id


async def _ask_together(request: Request, asking: dict[str, asyncio.Task[Actor]], token: str) -> Actor:
    # All that were woken in this turn of the loop come in on it; whoever comes later asks anew.
    await asyncio.sleep(0)
    del asking[token]
    return await run_in_threadpool(_actor, request)


def hand_over(response: Response, request: Request, token: str) -> None:
    """Give a browser its token, where no script and no other site can get at it, and over TLS never without."""
    response.set_cookie(COOKIE, token, max_age=int(LONGEST.total_seconds()), secure=_by_tls(request), httponly=True, samesite="strict")


def remember_device(response: Response, request: Request, device: str) -> None:
    """What a browser keeps of who has signed in from it."""
    response.set_cookie(DEVICE, device, max_age=_DEVICE_KEPT_S, secure=_by_tls(request), httponly=True, samesite="strict")


def take_away(response: Response, request: Request) -> None:
    """The browser forgets its token."""
    response.delete_cookie(COOKIE, secure=_by_tls(request), httponly=True, samesite="strict")


def _by_tls(request: Request) -> bool:
    return request.url.scheme == "https"


# What asks no database is a coroutine: a function would be handed to a thread, which takes longer than it does.
TheActor = Annotated[Actor, Depends(_actor)]
TheCaller = Annotated[Caller, Depends(_caller)]
"""Whoever asks, looked up with what they ask for: a transaction less, where every millisecond counts."""
TheDoor = Annotated[Door, Depends(_door)]
TheToken = Annotated[str, Depends(_token)]
TheSource = Annotated[Source, Depends(_source)]
