"""The application factory."""

import gc
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager

from fastapi import Depends, FastAPI
from starlette.middleware.gzip import GZipMiddleware

from pliant_coil import __version__
from pliant_coil.services.sign_in import Door
from pliant_coil.store.database import connect, sessions_of
from pliant_coil.web_api import front_end, problems
from pliant_coil.web_api.actors import WHO, let_in
from pliant_coil.web_api.bell import Bell
from pliant_coil.web_api.gate import Gate
from pliant_coil.web_api.heavy import Queues
from pliant_coil.web_api.logs import RequestLog, configure_logs
from pliant_coil.web_api.routes import (
    batches,
    devices,
    jobs,
    mandrels,
    notebook,
    people,
    photos,
    plan,
    rings,
    server,
    sizes,
    styles,
    weave_programs,
)
from pliant_coil.web_api.settings import Settings

_WORTH_COMPRESSING = 20_000
"""Bytes; on the way to the same table, squeezing less costs more time than it saves."""

_WASTE_LOOKED_FOR = 20_000
"""After so many new objects; a plan makes a few thousand, and nearly all are gone with it."""


def create_app(settings: Settings | None = None) -> FastAPI:
    """The whole server. It connects to the database when first asked something of it."""
    settings = settings or Settings()
    configure_logs(settings.log)
    engine = connect(settings.database_url)
    sessions = sessions_of(engine)

    @asynccontextmanager
    async def life(_: FastAPI) -> AsyncIterator[None]:
        # What was loaded stays until the end: it isn't looked through for waste every few requests.
        gc.collect()
        gc.freeze()
        gc.set_threshold(_WASTE_LOOKED_FOR)
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
    app.state.door = Door(sessions, settings.workshop, open_house=settings.on_loopback)
    app.state.let_in, app.state.asking, app.state.hands = {}, {}, {}
    app.state.queues = Queues()
    app.state.bell = Bell(settings.database_url)
    app.add_middleware(GZipMiddleware, minimum_size=_WORTH_COMPRESSING, compresslevel=5)
    app.add_middleware(RequestLog)
    app.add_middleware(Gate, hosts=settings.hosts)
    problems.install(app)
    # In the order in which they are looked through: first what is asked at every letter and at every tap.
    # Planning reads and keeps no record: whoever was let in just now isn't looked up again for it.
    for part in (plan.router, sizes.router, styles.router):
        app.include_router(part, prefix="/api", dependencies=[Depends(let_in)], responses=WHO)
    kept = (
        jobs.router,
        rings.router,
        notebook.router,
        photos.router,
        batches.router,
        mandrels.router,
        devices.router,
        weave_programs.router,
        server.records,
    )
    for part in (*kept, people.at_the_door, people.router, server.router):
        app.include_router(part, prefix="/api")
    front_end.install(app, settings.front_end)
    return app
