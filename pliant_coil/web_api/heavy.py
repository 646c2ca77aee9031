"""Work that takes longer than a blink: off the loop, a few at a time, and no more waiting than will be served soon."""

import os
from collections.abc import Callable
from typing import Annotated, TypeVar

import anyio
from fastapi import Depends, Request

Answer = TypeVar("Answer")
AT_ONCE = os.cpu_count() or 1
"""More at once would only take turns."""
MOST_WAITING = 24


class TooBusy(Exception):
    """So many wait already that one more would wait too long."""


class Heavy:
    """The queue of one web worker."""

    def __init__(self) -> None:
        self._limiter: anyio.CapacityLimiter | None = None
        self._waiting = 0

    async def run(self, work: Callable[[], Answer]) -> Answer:
        """What `work` returns, once it had its turn. Raises `TooBusy`."""
        if self._waiting >= MOST_WAITING:
            raise TooBusy
        if self._limiter is None:
            self._limiter = anyio.CapacityLimiter(AT_ONCE)
        self._waiting += 1
        try:
            return await anyio.to_thread.run_sync(work, limiter=self._limiter)
        finally:
            self._waiting -= 1


def queue_of(request: Request) -> Heavy:
    """The worker's queue."""
    heavy: Heavy = request.app.state.heavy
    return heavy


async def _queue(request: Request) -> Heavy:
    return queue_of(request)


TheQueue = Annotated[Heavy, Depends(_queue)]
