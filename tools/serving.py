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

ROOT = Path(__file__).parents[1]
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
    server = uvicorn.Server(uvicorn.Config(create_app(settings), host="127.0.0.1", port=port, log_config=None, timeout_graceful_shutdown=2))
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


class Apart:
    """A server in a process of its own, as people meet it: nothing that asks it slows it down, and it can be killed."""

    def __init__(self, database_url: str, port: int = 0, workers: int = 1) -> None:
        self.port = port or free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        factory = "pliant_coil.web_api.app:create_app"
        command = [sys.executable, "-m", "uvicorn", "--factory", factory, "--port", str(self.port), "--no-access-log"]
        command += ["--timeout-graceful-shutdown", "2"]
        command += ["--workers", str(workers)] if workers > 1 else []
        environment = {**os.environ, "DATABASE_URL": database_url}
        self._process = subprocess.Popen(command, cwd=ROOT, stderr=subprocess.DEVNULL, env=environment)
        deadline = time.monotonic() + 60
        while not self._answers():
            if time.monotonic() > deadline or self._process.poll() is not None:
                raise RuntimeError("the server didn't start")
            time.sleep(0.05)

    def _answers(self) -> bool:
        try:
            return httpx.get(f"{self.address}/api/version").is_success
        except httpx.TransportError:
            return False

    def stop(self) -> None:
        """As Ctrl-C ends it."""
        self._process.terminate()
        self._process.wait()

    def kill(self) -> None:
        """As kill -9 ends it."""
        self._process.kill()
        self._process.wait()


@contextmanager
def served_apart(database_url: str, workers: int = 1) -> Iterator[str]:
    """The address of a server in a process of its own."""
    server = Apart(database_url, workers=workers)
    try:
        yield server.address
    finally:
        server.stop()


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
