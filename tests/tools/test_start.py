"""./start as a maker uses it, from the moment everything is installed: first start, second, Ctrl-C, and accidents."""

import os
import re
import signal
import socket
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path

import httpx2 as httpx
import pytest

from tools.postgres import Cluster, free_port

ROOT = Path(__file__).parents[2]


class Start:
    """A running start command, with its state in a folder of the test's."""

    def __init__(self, state: Path, *arguments: str) -> None:
        environment = {**os.environ, "PLIANT_COIL_STATE": str(state), "PYTHONUNBUFFERED": "1"}
        environment.pop("DATABASE_URL", None)
        command = [sys.executable, "-m", "tools.start", *arguments]
        self.process = subprocess.Popen(command, cwd=ROOT, env=environment, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)
        self.said: list[str] = []
        assert self.process.stdout is not None
        for line in self.process.stdout:
            self.said.append(line.strip())
            if "is at" in line or "runs already" in line:
                break
        found = re.search(r"http://127\.0\.0\.1:(\d+)/", self.said[-1] if self.said else "")
        self.url = found.group(0) if found else ""

    def titles(self) -> set[str]:
        return {ring["title"] for ring in httpx.get(f"{self.url}api/rings?limit=100").json()["rings"]}

    def end(self, how: signal.Signals) -> int:
        self.process.send_signal(how)
        assert self.process.stdout is not None
        self.process.stdout.close()
        return self.process.wait(timeout=60)


@pytest.fixture
def state() -> Iterator[Path]:
    with tempfile.TemporaryDirectory(prefix="pliant-coil-state-") as made:
        Path(made).chmod(0o755)
        yield Path(made)
        Cluster(Path(made) / "postgres").stop()


def running(state: Path) -> bool:
    return Cluster(state / "postgres")._running_port() is not None


def test_first_start_second_start_and_ctrl_c(state: Path) -> None:
    first = Start(state)
    assert any("Fernhill Bench" in line for line in first.said)
    assert "Amber meadow ring" in first.titles()
    beside = Start(state)
    assert beside.end(signal.SIGCONT) == 0
    assert beside.said == [f"Pliant Coil runs already: {first.url}"]
    httpx.post(f"{first.url}api/rings", json={"title": "Kept over night"})
    assert first.end(signal.SIGINT) == 0
    assert not running(state), "Ctrl-C stops everything it started"
    second = Start(state)
    try:
        assert not any("set up" in line for line in second.said), "the demo comes once"
        assert "Kept over night" in second.titles()
    finally:
        assert second.end(signal.SIGTERM) == 0
    assert not running(state)


def test_it_comes_up_after_being_killed(state: Path) -> None:
    first = Start(state)
    assert httpx.post(f"{first.url}api/rings", json={"title": "Before the crash"}).status_code == 201
    first.end(signal.SIGKILL)
    assert running(state), "the database outlives a killed server"
    second = Start(state)
    assert "Before the crash" in second.titles()
    Cluster(state / "postgres").kill()
    assert httpx.get(f"{second.url}api/health").status_code == 503
    second.end(signal.SIGKILL)
    third = Start(state)
    try:
        assert "Before the crash" in third.titles()
    finally:
        third.end(signal.SIGINT)


def test_a_taken_port_is_told(state: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", free_port()))
        taken.listen()
        port = taken.getsockname()[1]
        started = Start(state, "--port", str(port))
        try:
            assert f"Port {port} is taken." in started.said
            assert httpx.get(f"{started.url}api/health").json() == {"status": "ok", "database": True}
        finally:
            started.end(signal.SIGINT)
