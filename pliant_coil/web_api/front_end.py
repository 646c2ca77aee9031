"""The built front end: its files, and its one page for every address that isn't one."""

from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse
from starlette.exceptions import HTTPException
from starlette.responses import Response
from starlette.staticfiles import StaticFiles
from starlette.types import Scope

_WORKER = "sw.js"


class Assets(StaticFiles):
    """Files whose names change with their contents: they may be kept for good."""

    async def get_response(self, path: str, scope: Scope) -> Response:
        response = await super().get_response(path, scope)
        response.headers["cache-control"] = "public, max-age=31536000, immutable"
        return response


def install(app: FastAPI, folder: Path) -> None:
    """Serve the front end in `folder` beside the API, when it has been built."""
    page = folder / "index.html"
    if not page.is_file():
        return
    app.mount("/assets", Assets(directory=folder / "assets"), name="assets")

    @app.get("/{path:path}", include_in_schema=False)
    async def index(path: str) -> FileResponse:
        if path == "api" or path.startswith("api/"):
            raise HTTPException(404, "there is nothing at this address")
        # The service worker keeps the pages for when the server is away; it has to come from the top.
        asked = folder / _WORKER if path == _WORKER and (folder / _WORKER).is_file() else page
        return FileResponse(asked, headers={"cache-control": "no-cache"})
