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
    """A queue of one web worker. Who waits in it holds no thread and no connection."""

    def __init__(self, at_once: int = AT_ONCE, most_waiting: int = MOST_WAITING) -> None:
        self._at_once, self._most_waiting = at_once, most_waiting
        self._limiter: anyio.CapacityLimiter | None = None
        self._waiting = 0

    async def run(self, work: Callable[[], Answer]) -> Answer:
        """What `work` returns, once it had its turn. Raises `TooBusy`."""
        if self._waiting >= self._most_waiting:
            raise TooBusy
        if self._limiter is None:
            self._limiter = anyio.CapacityLimiter(self._at_once)
        self._waiting += 1
        try:
            return await anyio.to_thread.run_sync(work, limiter=self._limiter)
        finally:
            self._waiting -= 1


class Queues:
    """The queues of a worker, each for one kind of work, so that none keeps another waiting."""

    def __init__(self) -> None:
        self.drawings = Heavy()
        # Each takes 64 MB while it is reckoned with (argon2's own figure).
        self.passwords = Heavy(at_once=2, most_waiting=64)
        # A picture is large while it is looked at.
        self.photos = Heavy(at_once=1)
        self.archives = Heavy(at_once=1, most_waiting=4)


def queues_of(request: Request) -> Queues:
    """The worker's queues."""
    queues: Queues = request.app.state.queues
    return queues


async def _drawings(request: Request) -> Heavy:
    return queues_of(request).drawings


async def _passwords(request: Request) -> Heavy:
    return queues_of(request).passwords


async def _photos(request: Request) -> Heavy:
    return queues_of(request).photos


async def _archives(request: Request) -> Heavy:
    return queues_of(request).archives


TheQueue = Annotated[Heavy, Depends(_drawings)]
ThePasswords = Annotated[Heavy, Depends(_passwords)]
ThePhotoQueue = Annotated[Heavy, Depends(_photos)]
TheArchiveQueue = Annotated[Heavy, Depends(_archives)]
