"""A running server for tests, measurements and pictures: the whole application in a thread, on a throw-away database."""

import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import uvicorn

from pliant_coil.services.workshop import seed_demo
from pliant_coil.store.database import connect, migrate, sessions_of
from pliant_coil.web_api.app import create_app
from pliant_coil.web_api.settings import Settings
from tools.postgres import Cluster, free_port


@contextmanager
def throwaway_database() -> Iterator[str]:
    """The URL of a PostgreSQL server that is gone afterwards."""
    with tempfile.TemporaryDirectory(prefix="pliant-coil-") as folder:
        # The server's own user must be able to get there.
        Path(folder).chmod(0o755)
        cluster = Cluster(Path(folder) / "postgres", durable=False)
        try:
            yield cluster.start()
        finally:
            cluster.remove()


@contextmanager
def served(database_url: str) -> Iterator[str]:
    """The application's address while it serves."""
    settings = Settings(database_url=database_url)
    if not (settings.front_end / "index.html").is_file():
        raise RuntimeError("the front end isn't built: ./start, ./test and ./bench build it")
    port = free_port()
    server = uvicorn.Server(uvicorn.Config(create_app(settings), host="127.0.0.1", port=port, log_config=None))
    thread = threading.Thread(target=server.run)
    thread.start()
    deadline = time.monotonic() + 30
    while not server.started:
        if time.monotonic() > deadline or not thread.is_alive():
            raise RuntimeError("the server didn't start")
        time.sleep(0.02)
    try:
        yield f"http://127.0.0.1:{port}"
    finally:
        server.should_exit = True
        thread.join()


@contextmanager
def demo() -> Iterator[str]:
    """The application's address with the demo workshop in it."""
    with throwaway_database() as url:
        engine = connect(url)
        migrate(engine)
        seed_demo(sessions_of(engine))
        engine.dispose()
        with served(url) as address:
            yield address
