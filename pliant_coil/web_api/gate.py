"""Who may speak to the server, and what a page of it may do.

Any page on the web can make a browser send requests to this machine, also through a host name of its own that points to the
loopback. So a request is heard only under a name that is ours, and a write only from a page of ours.
"""

from collections.abc import Iterable
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.responses import JSONResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

_READS = {"GET", "HEAD", "OPTIONS"}
_POLICY = "; ".join(
    (
        "default-src 'self'",
        # The styles of the interface's parts are made while it runs.
        "style-src 'self' 'unsafe-inline'",
        "img-src 'self' data: blob:",
        "worker-src 'self' blob:",
        "object-src 'none'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'",
    )
)
_HEADERS = {
    "x-content-type-options": "nosniff",
    "referrer-policy": "same-origin",
    "content-security-policy": _POLICY,
    "cross-origin-opener-policy": "same-origin",
    "cross-origin-resource-policy": "same-origin",
}


class Gate:
    """Refuses other hosts' names and other pages' writes, and tells browsers what our pages may load."""

    def __init__(self, app: ASGIApp, hosts: Iterable[str]) -> None:
        self._app = app
        self._hosts = frozenset(_name(host) for host in hosts)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return

        async def with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                for name, value in _HEADERS.items():
                    headers.setdefault(name, value)
            await send(message)

        reason = self._refused(scope)
        if reason:
            errors = [{"field": "", "reason": reason, "accepted": "the address that the start command shows"}]
            await JSONResponse({"errors": errors}, 403)(scope, receive, with_headers)
        else:
            await self._app(scope, receive, with_headers)

    def _refused(self, scope: Scope) -> str:
        headers = Headers(scope=scope)
        host = headers.get("host", "")
        if _name(host) not in self._hosts:
            return "this server isn't known by that name"
        origin = headers.get("origin")
        elsewhere = headers.get("sec-fetch-site") in ("cross-site", "same-site")
        if scope["method"] not in _READS and (elsewhere or (origin is not None and _place(origin) != host.lower())):
            return "another page can't change what is kept here"
        return ""


def _name(host: str) -> str:
    """A host without its port, as names are compared: without capitals and the dot at a whole name's end; `[::1]` keeps its brackets."""
    plain = host.rpartition(":")[0] if ":" in host and not host.endswith("]") else host
    return plain.lower().removesuffix(".")


def _place(origin: str) -> str:
    """Host and port of an origin; nothing for one that can't be read."""
    try:
        return urlsplit(origin).netloc.lower()
    except ValueError:
        return ""
