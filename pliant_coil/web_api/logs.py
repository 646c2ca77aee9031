"""Structured logs: a JSON line a request, with its id, status and time; and the limit on what is taken in."""

import logging
import re
import sys
import time
import traceback
from collections.abc import Iterator
from contextlib import suppress
from io import TextIOBase
from pathlib import Path
from typing import TextIO
from uuid import uuid4

import structlog
from concurrent_log_handler import ConcurrentRotatingFileHandler
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from pliant_coil.web_api.metrics import count

LARGEST_BODY = 262_144
"""Bytes; the largest ring file is smaller."""
LARGEST_FILE = 32_000_000
"""Bytes of what is sent as a file: a whole workshop, packed, a photo, a notebook."""
OURS = ("requests", "problems", "mishaps")
"""What the server itself says."""
_LARGEST_LOG, _LOGS_KEPT = 5_000_000, 5
"""Bytes of a log file, and how many older ones stay."""
LARGEST_ARCHIVE = 512_000_000
"""Bytes of a packed workshop, which goes to the disk as it comes."""
_FILES = re.compile(r"/api/(notebook(/preview)?|jobs/[^/]+/photos)")
_ARCHIVE = "/api/workshop/archive"


def configure_logs(file: Path | None = None) -> None:
    """Send structlog's and the standard library's messages as JSON lines to a file that all workers share, or to stderr."""
    handler: logging.Handler
    if file:
        handler = ConcurrentRotatingFileHandler(file, maxBytes=_LARGEST_LOG, backupCount=_LOGS_KEPT, encoding="utf-8", chmod=0o600)
    else:
        handler = logging.StreamHandler(_Unbroken(sys.stderr))
    shared: list[structlog.typing.Processor] = [
        structlog.contextvars.merge_contextvars,
        structlog.processors.add_log_level,
        structlog.processors.TimeStamper(fmt="iso"),
        _without_words,
    ]
    structlog.configure(
        processors=[*shared, structlog.stdlib.ProcessorFormatter.wrap_for_formatter],
        logger_factory=structlog.stdlib.LoggerFactory(),
        cache_logger_on_first_use=False,
    )
    handler.setFormatter(
        structlog.stdlib.ProcessorFormatter(
            processors=[structlog.stdlib.ProcessorFormatter.remove_processors_meta, structlog.processors.JSONRenderer()],
            foreign_pre_chain=shared,
        )
    )
    # A full disk, or a reader that went away, is no reason to refuse anybody.
    logging.raiseExceptions = False
    logging.basicConfig(handlers=[handler], level=logging.WARNING, force=True)
    for name in OURS:
        logging.getLogger(name).setLevel(logging.INFO)


def _without_words(_: object, __: str, event: structlog.typing.EventDict) -> structlog.typing.EventDict:
    """Where something went wrong, and what kind of error it was: an error's own words may hold what somebody typed."""
    info = event.pop("exc_info", None)
    error = sys.exc_info()[1] if info is True else info[1] if isinstance(info, tuple) else info
    if isinstance(error, BaseException):
        event["exception"] = [_trace(each) for each in _chain(error)]
    return event


def _chain(error: BaseException | None) -> Iterator[BaseException]:
    while error is not None:
        yield error
        error = error.__cause__ or error.__context__


def _trace(error: BaseException) -> str:
    frames = (f"{Path(frame.filename).name}:{frame.lineno} {frame.name}" for frame in traceback.extract_tb(error.__traceback__))
    return f"{type(error).__qualname__}: {' < '.join(reversed(list(frames)))}"


class _Unbroken(TextIOBase):
    """A stream whose reader may go away, or whose disk may fill up, without breaking what is being logged."""

    def __init__(self, stream: TextIO) -> None:
        self._stream = stream

    def write(self, text: str) -> int:
        """Write, or let it go."""
        with suppress(OSError, ValueError):
            return self._stream.write(text)
        return len(text)

    def flush(self) -> None:
        """Flush, or let it go."""
        with suppress(OSError, ValueError):
            self._stream.flush()


class RequestLog:
    """Logs every request, and refuses bodies that are too large before they are read."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app
        self._log = structlog.get_logger("requests")

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        request_id = uuid4().hex[:12]
        started = time.perf_counter()
        status = 0

        async def noting(message: Message) -> None:
            nonlocal status
            if message["type"] == "http.response.start":
                status = message["status"]
                message["headers"] = [*message["headers"], (b"x-request-id", request_id.encode())]
            await send(message)

        taken, most = 0, _most(scope["path"])

        async def limited() -> Message:
            nonlocal taken
            message = await receive()
            taken += len(message.get("body", b""))
            if taken > most:
                raise TooLarge
            return message

        try:
            await self._app(scope, limited, noting)
        finally:
            milliseconds = round((time.perf_counter() - started) * 1000, 2)
            count(scope["method"], getattr(scope.get("route"), "path", ""), status, milliseconds / 1000)
            level = "error" if status >= 500 else "info"
            getattr(self._log, level)("request", id=request_id, method=scope["method"], path=scope["path"], status=status, ms=milliseconds)


def _most(path: str) -> int:
    """What a request to this address may bring [bytes]."""
    return LARGEST_ARCHIVE if path == _ARCHIVE else LARGEST_FILE if _FILES.fullmatch(path) else LARGEST_BODY


class TooLarge(Exception):
    """More was sent than any ring file holds."""
