"""What was acknowledged is there after the server or the database is ended with -9 in the middle of saves."""

import tempfile
import threading
from collections.abc import Iterator
from pathlib import Path

import httpx2 as httpx
import pytest

from pliant_coil.services.workshop import seed_demo
from pliant_coil.store.database import connect, migrate, sessions_of
from tools.postgres import Cluster
from tools.serving import Apart


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


class Server(Apart):
    """The application in a process of its own."""

    def __init__(self, cluster: Cluster) -> None:
        super().__init__(cluster.start())
        self.url = f"{self.address}/api"

    def titles(self) -> set[str]:
        found: list[dict[str, str]] = []
        while True:
            after = {"after": found[-1]["id"]} if found else {}
            page = httpx.get(f"{self.url}/rings", params={"limit": "100"} | after).json()["rings"]
            if not page:
                return {ring["title"] for ring in found}
            found += page


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
