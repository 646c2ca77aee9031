"""The application factory."""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager

from fastapi import FastAPI
from starlette.middleware.gzip import GZipMiddleware

from pliant_coil import __version__
from pliant_coil.services.jobs import Jobs
from pliant_coil.services.rings import Rings
from pliant_coil.services.weave_programs import WeavePrograms
from pliant_coil.store.database import connect, sessions_of
from pliant_coil.web_api import front_end, problems
from pliant_coil.web_api.bell import Bell
from pliant_coil.web_api.door import Door
from pliant_coil.web_api.logs import RequestLog, configure_logs
from pliant_coil.web_api.routes import jobs, plan, rings, server, sizes, styles, weave_programs
from pliant_coil.web_api.settings import Settings

_WORTH_COMPRESSING = 20_000
"""Bytes; on the way to the same table, squeezing less costs more time than it saves."""


def create_app(settings: Settings | None = None) -> FastAPI:
    """The whole server. It connects to the database when first asked something of it."""
    settings = settings or Settings()
    configure_logs()
    engine = connect(settings.database_url)
    sessions = sessions_of(engine)

    @asynccontextmanager
    async def life(_: FastAPI) -> AsyncIterator[None]:
        yield
        await app.state.bell.stop()
        engine.dispose()

    app = FastAPI(
        title="Pliant Coil",
        version=__version__,
        lifespan=life,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        separate_input_output_schemas=False,
    )
    app.state.settings, app.state.sessions = settings, sessions
    app.state.rings = Rings(sessions, settings.workshop)
    app.state.jobs = Jobs(sessions, settings.workshop)
    app.state.bell = Bell(settings.database_url)
    app.state.weave_programs = WeavePrograms(sessions, settings.workshop)
    app.add_middleware(GZipMiddleware, minimum_size=_WORTH_COMPRESSING, compresslevel=5)
    app.add_middleware(RequestLog)
    app.add_middleware(Door, hosts=settings.hosts)
    problems.install(app)
    for part in (plan, sizes, styles, rings, jobs, weave_programs, server):
        app.include_router(part.router, prefix="/api")
    front_end.install(app, settings.front_end)
    return app
