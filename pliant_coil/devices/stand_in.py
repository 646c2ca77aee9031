"""A stand-in for a tool with a cable: a socket on the loopback that says what somebody has it say."""

import asyncio
import contextlib

from pliant_coil.devices.line import LONGEST, read_line

PRESS = "press "
"""What has a stand-in say something: `press 17.12 mm`. A real tool has a key for it, and hears nothing."""


class StandIn:
    """One tool. Everybody who is connected hears what it says."""

    def __init__(self) -> None:
        self._listening: set[asyncio.StreamWriter] = set()
        self._server: asyncio.Server | None = None

    async def start(self, port: int = 0) -> int:
        """Listen on the loopback; returns the port."""
        self._server = await asyncio.start_server(self._connected, "127.0.0.1", port, limit=4 * LONGEST)
        return int(self._server.sockets[0].getsockname()[1])

    async def stop(self) -> None:
        """Nobody is connected any more."""
        if self._server:
            self._server.close()
        for writer in list(self._listening):
            writer.close()

    async def _connected(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        self._listening.add(writer)
        try:
            # A line that is too long ends the connection, not the tool.
            with contextlib.suppress(ValueError, OSError):
                while line := (await reader.readline()).decode("ascii", "replace"):
                    said = line.removeprefix(PRESS).strip()
                    if line.startswith(PRESS) and read_line(said):
                        await self._say(said)
        finally:
            self._listening.discard(writer)
            writer.close()

    async def _say(self, text: str) -> None:
        for writer in list(self._listening):
            with contextlib.suppress(OSError):
                writer.write(f"{text}\r\n".encode("ascii"))
                await writer.drain()
