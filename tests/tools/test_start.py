"""./start as a maker uses it, from the moment everything is installed: first start, second, Ctrl-C, and accidents."""

import contextlib
import os
import random
import re
import signal
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import httpx2 as httpx
import psycopg
import pytest

from pliant_coil.store.database import connect, fitness, migrate
from tools import start
from tools.kills import survive
from tools.postgres import Cluster, free_port, lives

ROOT = Path(__file__).parents[2]


class Start:
    """A running start command, with its state in a folder of the test's."""

    def __init__(self, state: Path, *arguments: str) -> None:
        environment = {**os.environ, "PLIANT_COIL_STATE": str(state), "PYTHONUNBUFFERED": "1"}
        environment.pop("DATABASE_URL", None)
        command = [sys.executable, "-m", "tools.start", "--workers", "1", *arguments]
        self.process = subprocess.Popen(command, cwd=ROOT, env=environment, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)
        self.said: list[str] = []
        assert self.process.stdout is not None
        for line in self.process.stdout:
            self.said.append(line.strip())
            if "is at" in line or "runs already" in line or "can't start" in line:
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
    return Cluster(state / "postgres").runs


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
    # The database is brought up again by itself.
    until(lambda: httpx.get(f"{second.url}api/health").status_code == 200)
    assert "Before the crash" in second.titles()
    second.end(signal.SIGKILL)
    third = Start(state)
    try:
        assert "Before the crash" in third.titles()
    finally:
        third.end(signal.SIGINT)


def until(happens: Callable[[], bool], within_s: float = 30) -> None:
    deadline = time.monotonic() + within_s
    while not happens():
        assert time.monotonic() < deadline, "it didn't happen in time"
        time.sleep(0.05)


def workers_of(pid: int) -> list[int]:
    below = [int(child) for task in Path(f"/proc/{pid}/task").glob("*/children") for child in task.read_text().split()]
    return [child for child in below if b"multiprocessing" in Path(f"/proc/{child}/cmdline").read_bytes()]


def test_an_asked_port_that_is_taken_is_refused_and_the_usual_one_gives_way(state: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", free_port()))
        taken.listen()
        port = taken.getsockname()[1]
        refused = Start(state, "--port", str(port))
        assert refused.said == [f"Pliant Coil can't start: port {port} is taken: give another one, or none and the next free one is used"]
        assert refused.end(signal.SIGCONT) == 1
        assert not running(state)
    monkeypatch.setattr(start, "USUAL_PORT", port)
    with socket.socket() as taken, start._listen(0) as first:
        assert first.getsockname()[1] == port
        with start._listen(0) as second:
            assert port < second.getsockname()[1] < port + start._PORTS_TRIED


@pytest.mark.parametrize("port", ["70000", "-1", "http", "65536"])
def test_a_port_that_there_isnt_is_a_sentence(state: Path, port: str) -> None:
    run = [sys.executable, "-m", "tools.start", f"--port={port}"]
    done = subprocess.run(run, cwd=ROOT, env={**os.environ, "PLIANT_COIL_STATE": str(state)}, capture_output=True, text=True, check=False)
    assert done.returncode == 2 and f"there is no port {port}" in done.stderr and "Traceback" not in done.stderr


def test_the_port_of_a_killed_start_is_waited_for(state: Path) -> None:
    first = Start(state)
    port = first.url.rpartition(":")[2].strip("/")
    first.end(signal.SIGKILL)
    second = Start(state, "--port", port)
    try:
        assert second.url == first.url, second.said
        assert second.titles()
    finally:
        second.end(signal.SIGINT)


def test_workers_find_the_database_at_another_port(state: Path) -> None:
    """It is killed, and somebody else sits at its port: it comes up elsewhere, and its workers ask there."""
    begun = Start(state)
    cluster = Cluster(state / "postgres")
    port = int((state / "postgres" / "port").read_text())
    try:
        with socket.socket() as thief:
            thief.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            cluster.kill()
            thief.bind(("127.0.0.1", port))
            thief.listen()

            def well() -> bool:
                with contextlib.suppress(httpx.TransportError):
                    return httpx.get(f"{begun.url}api/health/ready", timeout=5).status_code == 200
                return False

            until(well, within_s=90)
            assert int((state / "postgres" / "port").read_text()) != port
            assert begun.titles()
    finally:
        begun.end(signal.SIGINT)


@pytest.mark.parametrize("how", [signal.SIGTERM, signal.SIGHUP])
def test_whatever_ends_it_politely_leaves_nothing_behind(state: Path, how: signal.Signals) -> None:
    started = Start(state)
    workers = workers_of(started.process.pid)
    host, port = "127.0.0.1", int(started.url.rstrip("/").rpartition(":")[2])
    with socket.create_connection((host, port)) as half_sent:
        half_sent.sendall(b"POST /api/rings HTTP/1.1\r\nhost: 127.0.0.1\r\ncontent-length: 500\r\n\r\n{")
        began = time.monotonic()
        assert started.end(how) == 0
        assert time.monotonic() - began < 20, "a half-sent request doesn't hold it up"
    assert not running(state)
    assert workers
    until(lambda: not any(lives(pid) for pid in workers), within_s=2)


def test_workers_end_with_a_supervisor_that_is_killed(state: Path) -> None:
    started = Start(state)
    workers = workers_of(started.process.pid)
    started.end(signal.SIGKILL)
    until(lambda: not any(lives(pid) for pid in workers))


def test_a_worker_whose_supervisor_is_gone_already_doesnt_stay() -> None:
    """One that is killed while its workers come up can't tell them any more: they would hold its port for good."""
    command = [sys.executable, "-c", "from tools.start import worker; worker()"]
    gone = {**os.environ, "PLIANT_COIL_SUPERVISOR": "1", "DATABASE_URL": "postgresql://nobody@127.0.0.1:1/nothing"}
    assert subprocess.run(command, cwd=ROOT, env=gone, timeout=60, check=False).returncode == 0
    with_app = f"import os; os.environ['PLIANT_COIL_SUPERVISOR'] = str(os.getppid()); {command[2]}; raise SystemExit(3)"
    assert subprocess.run([*command[:2], with_app], cwd=ROOT, env=gone, timeout=60, check=False).returncode == 3


def left_by(state: Path) -> list[int]:
    """Our processes that still work for a state."""
    found = []
    for process in Path("/proc").glob("[0-9]*"):
        with contextlib.suppress(OSError):
            if str(state).encode() in (process / "environ").read_bytes() and b"multiprocessing" in (process / "cmdline").read_bytes():
                found.append(int(process.name))
    return found


def test_a_worker_that_dies_is_replaced(state: Path) -> None:
    started = Start(state)
    try:
        os.kill(workers_of(started.process.pid)[-1], signal.SIGKILL)

        def answers() -> bool:
            try:
                return httpx.get(f"{started.url}api/version", timeout=2).status_code == 200
            except httpx.TransportError:
                return False

        until(answers)
        assert "Amber meadow ring" in started.titles()
    finally:
        started.end(signal.SIGINT)


def test_a_database_that_isnt_ours_or_is_newer_is_told_and_left_alone(state: Path) -> None:
    cluster = Cluster(state / "postgres", durable=False)
    url = cluster.start()
    try:
        with psycopg.connect(url, autocommit=True) as connection:
            connection.execute("create table invoices (number int)")
            foreign = refusal(state, url)
            assert "holds other tables (invoices)" in foreign and "Traceback" not in foreign
            connection.execute("create table alembic_version (version_num text)")
            connection.execute("insert into alembic_version values ('9999')")
            newer = refusal(state, url)
            assert "by a newer version" in newer and "Traceback" not in newer
            tables = connection.execute(
                "select table_name from information_schema.tables where table_schema = 'public' order by 1"
            ).fetchall()
            assert tables == [("alembic_version",), ("invoices",)]
    finally:
        cluster.remove()


def refusal(state: Path, url: str) -> str:
    """What is said where it can't start, one line."""
    environment = {**os.environ, "PLIANT_COIL_STATE": str(state), "DATABASE_URL": url}
    command = [sys.executable, "-m", "tools.start"]
    done = subprocess.run(command, cwd=ROOT, env=environment, capture_output=True, text=True, timeout=60, check=False)
    assert done.returncode == 1 and len(done.stdout.splitlines()) == 1
    return done.stdout + done.stderr


def test_a_state_that_cant_be_written_is_one_plain_line(state: Path) -> None:
    (state / "serving").mkdir()
    said = refusal(state, "postgresql://nobody@127.0.0.1:1/nothing")
    assert said.startswith("Pliant Coil can't start:") and "Traceback" not in said


def test_several_servers_migrate_one_database_once(state: Path) -> None:
    cluster = Cluster(state / "postgres", durable=False)
    try:
        engines = [connect(cluster.start()) for _ in range(4)]
        with ThreadPoolExecutor(4) as pool:
            list(pool.map(migrate, engines))
        assert all(fitness(engine) for engine in engines)
        for engine in engines:
            engine.dispose()
    finally:
        cluster.remove()


def test_random_kills_lose_nothing_that_was_acknowledged(state: Path) -> None:
    """A short version of `python -m tools.kills 200`."""
    told = survive(state, 4, random.Random(3))
    assert told.rings and told.taps
    assert (told.lost, told.failed_starts) == (0, 0)
    until(lambda: not left_by(state))


def prepared(folder: Path, script: str) -> subprocess.Popen[str]:
    command = ["bash", "-c", f"set -euo pipefail; . '{ROOT}/tools/prepare.sh'; prepare_alone; {script}"]
    return subprocess.Popen(command, cwd=folder, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True)


def test_of_two_that_prepare_one_folder_one_waits_and_says_so(tmp_path: Path) -> None:
    go_on = tmp_path / "go-on"
    first = prepared(tmp_path, "echo there; until [ -e go-on ]; do sleep 0.1; done; say 'first is ready'; prepared")
    assert first.stdout is not None and first.stdout.readline() == "there\n"
    second = prepared(tmp_path, "say 'second is ready'")
    assert second.stderr is not None and second.stderr.readline() == "Another start prepares this folder; waiting for it.\n"
    go_on.touch()
    _, said = first.communicate(timeout=30)
    assert said == "first is ready\n", "what is prepared goes on telling"
    _, said = second.communicate(timeout=30)
    assert said == "second is ready\n"


def test_a_folder_that_cant_be_written_is_told(tmp_path: Path) -> None:
    (tmp_path / ".preparing").mkdir()
    _, said = prepared(tmp_path, "echo never").communicate(timeout=30)
    assert said == f"This folder can't be written to: {tmp_path}\n"
