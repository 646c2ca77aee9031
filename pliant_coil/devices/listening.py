"""Hearing what tools say, and having a stand-in say something."""

import asyncio
import contextlib
from collections.abc import AsyncIterator, Mapping

from pliant_coil.devices.line import LONGEST, Said, read_line
from pliant_coil.devices.stand_in import PRESS

_AGAIN_S = 2.0
_WITHIN_S = 3.0


async def heard(tools: Mapping[str, str], still_here_s: float) -> AsyncIterator[tuple[str, Said] | None]:
    """What each tool (name to `host:port`) says, as it says it; nothing now and then, so that a quiet stream isn't taken for a dead one."""
    queue: asyncio.Queue[tuple[str, Said]] = asyncio.Queue()
    listening = [asyncio.create_task(_listen(name, address, queue)) for name, address in tools.items()]
    try:
        while True:
            try:
                yield await asyncio.wait_for(queue.get(), still_here_s)
            except TimeoutError:
                yield None
    finally:
        for task in listening:
            task.cancel()


async def _listen(name: str, address: str, queue: "asyncio.Queue[tuple[str, Said]]") -> None:
    while True:
        # A tool that was unplugged is there again when it is plugged in.
        with contextlib.suppress(OSError, ValueError):
            reader, writer = await asyncio.open_connection(*_place(address), limit=4 * LONGEST)
            try:
                while line := (await reader.readline()).decode("ascii", "replace"):
                    if said := read_line(line):
                        queue.put_nowait((name, said))
            finally:
                writer.close()
        await asyncio.sleep(_AGAIN_S)


async def press(address: str, text: str) -> None:
    """Have a stand-in say something. Raises `OSError` when it isn't there."""
    _, writer = await asyncio.wait_for(asyncio.open_connection(*_place(address)), _WITHIN_S)
    try:
        writer.write(f"{PRESS}{text}\n".encode("ascii"))
        await writer.drain()
    finally:
        writer.close()
        await writer.wait_closed()


def _place(address: str) -> tuple[str, int]:
    host, _, port = address.rpartition(":")
    return host, int(port)
