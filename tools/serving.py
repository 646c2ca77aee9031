"""A running server for tests, measurements and pictures: the whole application in a thread, or in a process of its own."""

import os
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, contextmanager
from pathlib import Path

import httpx2 as httpx
import uvicorn

from pliant_coil.services.workshop import seed_demo
from pliant_coil.store.database import connect, migrate, sessions_of
from pliant_coil.web_api.app import create_app
from pliant_coil.web_api.settings import Settings
from tools.postgres import Cluster, free_port

Serve = Callable[[str], AbstractContextManager[str]]
"""Serves a database, and says where."""


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
def served_apart(database_url: str) -> Iterator[str]:
    """The address of a server in a process of its own, as people meet it: nothing that asks it slows it down."""
    address = f"http://127.0.0.1:{(port := free_port())}"
    factory = "pliant_coil.web_api.app:create_app"
    command = [sys.executable, "-m", "uvicorn", "--factory", factory, "--port", str(port), "--no-access-log"]
    environment = {**os.environ, "DATABASE_URL": database_url}
    with subprocess.Popen(command, stderr=subprocess.DEVNULL, env=environment) as process:
        deadline = time.monotonic() + 30
        while not _answers(address):
            if time.monotonic() > deadline or process.poll() is not None:
                raise RuntimeError("the server didn't start")
            time.sleep(0.05)
        try:
            yield address
        finally:
            process.terminate()


def _answers(address: str) -> bool:
    try:
        return httpx.get(f"{address}/api/version").is_success
    except httpx.TransportError:
        return False


@contextmanager
def demo(serve: Serve = served) -> Iterator[str]:
    """The application's address with the demo workshop in it."""
    with throwaway_database() as url:
        engine = connect(url)
        migrate(engine)
        seed_demo(sessions_of(engine))
        engine.dispose()
        with serve(url) as address:
            yield address
