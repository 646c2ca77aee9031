"""Who waits for a ring at the bench to change is told, whichever web worker wrote it: by PostgreSQL's own LISTEN and NOTIFY."""

import asyncio
import contextlib
from collections.abc import AsyncGenerator, AsyncIterator, Awaitable, Callable
from typing import Annotated
from uuid import UUID

import psycopg
from fastapi import Depends, Request
from starlette.responses import StreamingResponse

from pliant_coil.store.jobs import CHANNEL

STILL_HERE_S = 15.0
"""A line that means nothing, so that nobody in between takes a quiet stream for a dead one."""
_AGAIN_S = 1.0


class Bell:
    """One listening connection a worker, made when the first one waits."""

    def __init__(self, database_url: str) -> None:
        self._url = database_url
        self._waiting: dict[UUID, set[asyncio.Queue[str | None]]] = {}
        self._listening: asyncio.Task[None] | None = None

    async def stream(self, what: UUID, newest: Callable[[], Awaitable[int]]) -> AsyncGenerator[str]:
        """Server-sent events: the number of the newest event of a job, or of a batch's jobs, now and whenever it changes.

        `newest` asks the store for that number.
        """
        if self._listening is None or self._listening.done():
            self._listening = asyncio.create_task(self._listen())
        queue: asyncio.Queue[str | None] = asyncio.Queue()
        # It waits first and asks then: what happens in between is told, not lost.
        queue.put_nowait(None)
        self._waiting.setdefault(what, set()).add(queue)
        try:
            while True:
                try:
                    number = await asyncio.wait_for(queue.get(), STILL_HERE_S)
                    yield f"data: {await newest() if number is None else number}\n\n"
                except TimeoutError:
                    yield ": still here\n\n"
        finally:
            self._waiting[what].discard(queue)

    async def stop(self) -> None:
        """Stop listening."""
        if self._listening is not None:
            self._listening.cancel()
            with contextlib.suppress(asyncio.CancelledError):
                await self._listening

    async def _listen(self) -> None:
        while True:
            try:
                async with await psycopg.AsyncConnection.connect(self._url, autocommit=True, connect_timeout=3) as connection:
                    await connection.execute(f"listen {CHANNEL}")
                    # What was told while nobody listened is asked for again.
                    self._ring_all()
                    async for told in connection.notifies():
                        what, _, number = told.payload.partition(" ")
                        for queue in self._waiting.get(UUID(what), ()):
                            queue.put_nowait(number)
            except psycopg.Error:
                await asyncio.sleep(_AGAIN_S)

    def _ring_all(self) -> None:
        for queues in self._waiting.values():
            for queue in queues:
                queue.put_nowait(None)


async def the_bell(request: Request) -> Bell:
    """The worker's bell."""
    bell: Bell = request.app.state.bell
    return bell


TheBell = Annotated[Bell, Depends(the_bell)]
STREAM: dict[int | str, dict[str, object]] = {200: {"content": {"text/event-stream": {}}}}


def streamed(lines: AsyncIterator[str]) -> StreamingResponse:
    """Server-sent events."""
    return StreamingResponse(lines, media_type="text/event-stream", headers={"cache-control": "no-store"})
