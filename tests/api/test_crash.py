"""What was acknowledged is there after the server or the database is ended with -9 in the middle of saves."""

import os
import signal
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Iterator
from pathlib import Path

import httpx2 as httpx
import pytest

from pliant_coil.services.workshop import seed_demo
from pliant_coil.store.database import connect, migrate, sessions_of
from tools.postgres import Cluster, free_port

ROOT = Path(__file__).parents[2]


@pytest.fixture
def cluster() -> Iterator[Cluster]:
    """A durable one, as ./start makes it."""
    with tempfile.TemporaryDirectory(prefix="pliant-coil-crash-") as folder:
        Path(folder).chmod(0o755)
        cluster = Cluster(Path(folder) / "postgres")
        engine = connect(cluster.start())
        migrate(engine)
        seed_demo(sessions_of(engine))
        engine.dispose()
        yield cluster
        cluster.remove()


class Server:
    """The application in a process of its own."""

    def __init__(self, cluster: Cluster) -> None:
        port = free_port()
        self.url = f"http://127.0.0.1:{port}/api"
        command = [
            sys.executable,
            "-m",
            "uvicorn",
            "--factory",
            "pliant_coil.web_api.app:create_app",
            "--port",
            str(port),
            "--log-level",
            "critical",
        ]
        environment = {**os.environ, "DATABASE_URL": cluster.start()}
        self.process = subprocess.Popen(command, cwd=ROOT, env=environment, stderr=subprocess.DEVNULL)
        deadline = time.monotonic() + 60
        while time.monotonic() < deadline:
            try:
                if httpx.get(f"{self.url}/health").status_code == 200:
                    return
            except httpx.TransportError:
                assert self.process.poll() is None, "the server didn't start"
        raise TimeoutError("the server didn't answer")

    def titles(self) -> set[str]:
        found: list[dict[str, str]] = []
        while True:
            after = {"after": found[-1]["id"]} if found else {}
            page = httpx.get(f"{self.url}/rings", params={"limit": "100"} | after).json()["rings"]
            if not page:
                return {ring["title"] for ring in found}
            found += page

    def kill(self) -> None:
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()


class Savers:
    """Several makers saving as fast as they can, remembering what was acknowledged."""

    def __init__(self, url: str) -> None:
        self.acknowledged: set[str] = set()
        self.enough = threading.Event()
        self._threads = [threading.Thread(target=self._save, args=(url, n)) for n in range(3)]
        for thread in self._threads:
            thread.start()

    def _save(self, url: str, saver: int) -> None:
        with httpx.Client(timeout=10) as client:
            for number in range(100):
                title = f"Ring {saver}-{number}"
                try:
                    if client.post(f"{url}/rings", json={"title": title}).status_code == 201:
                        self.acknowledged.add(title)
                        if len(self.acknowledged) >= 20:
                            self.enough.set()
                    elif self.enough.is_set():
                        return
                except httpx.TransportError:
                    return

    def finish(self) -> set[str]:
        for thread in self._threads:
            thread.join()
        return self.acknowledged


@pytest.mark.parametrize("victim", ["server", "database"])
def test_nothing_acknowledged_is_lost(cluster: Cluster, victim: str) -> None:
    server = Server(cluster)
    savers = Savers(server.url)
    assert savers.enough.wait(60)
    if victim == "server":
        server.kill()
    else:
        cluster.kill()
    acknowledged = savers.finish()
    if victim == "database":
        assert httpx.get(f"{server.url}/health").status_code == 503
        server.kill()
    again = Server(cluster)
    try:
        assert acknowledged <= again.titles()
    finally:
        again.kill()
