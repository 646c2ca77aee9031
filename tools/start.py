"""What ./start does once everything is installed: database, migration, demo, server; and stopping what it started."""

import argparse
import asyncio
import contextlib
import ctypes
import fcntl
import json
import os
import signal
import socket
import sys
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING, TextIO

import uvicorn
from sqlalchemy import inspect
from sqlalchemy.exc import SQLAlchemyError
from uvicorn.supervisors import Multiprocess

from pliant_coil.devices.stand_in import StandIn
from pliant_coil.services.workshop import make_ready
from pliant_coil.store.database import Unfit, connect
from tools import backups
from tools.postgres import CannotServe, Cluster, free_port
from tools.state import STATE, open_state

if TYPE_CHECKING:
    from fastapi import FastAPI

USUAL_PORT = 8420
_PORTS_TRIED = 20
_HIGHEST_PORT = 65_535
_WAITS_FOR_WORKERS_S = 10.0
"""Workers of a start that was killed end by themselves; their port is waited for."""
_STOPS_WITHIN_S = 4
"""Requests that are under way may end; half-sent ones are cut off."""
_BACKUP_AGAIN_S = 600
_PR_SET_PDEATHSIG = 1
_LISTENS = "0A"
"""As what /proc/net/tcp names a socket that listens."""
_SUPERVISOR = "PLIANT_COIL_SUPERVISOR"
"""Whose number a worker's parent has to have."""
_backing_up = threading.Lock()


def main() -> int:
    """Serve until Ctrl-C. Returns the exit code."""
    parser = argparse.ArgumentParser(prog="./start")
    parser.add_argument("--port", type=_port, default=0)
    parser.add_argument("--workers", type=int, default=os.cpu_count() or 1)
    options = parser.parse_args()
    # Whatever ends it politely ends the database too.
    for ending in (signal.SIGTERM, signal.SIGHUP):
        signal.signal(ending, signal.default_int_handler)
    try:
        return _start(options.port, max(1, options.workers))
    except KeyboardInterrupt:
        return 0
    except (CannotServe, Unfit, OSError, SQLAlchemyError) as error:
        _say(f"Pliant Coil can't start: {str(error).splitlines()[0]}")
        return 1


def _port(text: str) -> int:
    """A port, or 0 for any. Raises argparse's error with what would be accepted."""
    if not text.isdecimal() or int(text) > _HIGHEST_PORT:
        raise argparse.ArgumentTypeError(f"there is no port {text[:20]}: give a number from 1 to {_HIGHEST_PORT}")
    return int(text)


def _start(wanted_port: int, workers: int) -> int:
    state = open_state()
    with (state / "serving").open("a+") as lock:
        # The lock ends with the process, however it ends: it can't go stale.
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            lock.seek(0)
            _say(f"Pliant Coil runs already: {lock.read().strip()}")
            return 0
        listening = _listen(wanted_port)
        cluster = None if os.environ.get("DATABASE_URL") else Cluster(state / "postgres")
        try:
            url = cluster.start() if cluster else os.environ["DATABASE_URL"]
            _bring_up_to_date(url, keep=cluster is not None)
            _serve(url, listening, lock, workers, cluster)
        finally:
            # A second Ctrl-C doesn't leave a database behind.
            for ending in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
                signal.signal(ending, signal.SIG_IGN)
            if cluster:
                cluster.stop()
    return 0


def _listen(wanted: int) -> socket.socket:
    """A socket on the asked port, or on the usual one or one of the next. Raises `CannotServe` for a port that is taken.

    A port that was served by a start that was killed is waited for: its workers are ending."""
    deadline = time.monotonic() + _WAITS_FOR_WORKERS_S
    while True:
        for port in [wanted] if wanted else [*range(USUAL_PORT, USUAL_PORT + _PORTS_TRIED), free_port()]:
            listening = socket.socket()
            listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                listening.bind(("127.0.0.1", port))
                # Bound and listening: two starts at once can't both have it.
                listening.listen(512)
            except OSError:
                listening.close()
                continue
            listening.set_inheritable(True)
            return listening
        if time.monotonic() > deadline or not _ends_soon(wanted):
            raise CannotServe(f"port {wanted} is taken: give another one, or none and the next free one is used")
        time.sleep(0.1)


def _ends_soon(port: int) -> bool:
    """Whether a worker of ours, whose supervisor is gone, still listens there."""
    for process in Path("/proc").glob("[0-9]*"):
        with contextlib.suppress(OSError, ValueError):
            entries = (process / "environ").read_bytes().decode(errors="replace").split("\0")
            supervisor = next((entry.partition("=")[2] for entry in entries if entry.startswith(f"{_SUPERVISOR}=")), "")
            if supervisor and not Path(f"/proc/{int(supervisor)}").exists() and port in _ports_of(process):
                return True
    return False


def _ports_of(process: Path) -> set[int]:
    """The ports on which a process listens."""
    sockets = set()
    for descriptor in (process / "fd").iterdir():
        with contextlib.suppress(OSError):
            sockets.add(descriptor.readlink().name)
    lines = Path("/proc/net/tcp").read_text().splitlines()[1:]
    fields = [line.split() for line in lines]
    return {int(field[1].partition(":")[2], 16) for field in fields if field[3] == _LISTENS and f"socket:[{field[9]}]" in sockets}


def _bring_up_to_date(url: str, *, keep: bool) -> None:
    engine = connect(url)
    try:

        def keep_first() -> None:
            if keep and inspect(engine).has_table("workshop"):
                backups.back_up(url, why="-before-migration")

        if make_ready(engine, keep_first):
            _say("The demo workshop, Fernhill Bench, is set up.")
    finally:
        engine.dispose()


def _serve(url: str, listening: socket.socket, lock: TextIO, workers: int, cluster: Cluster | None) -> None:
    address = f"http://127.0.0.1:{listening.getsockname()[1]}/"
    lock.truncate(0)
    print(address, file=lock, flush=True)
    os.environ["DATABASE_URL"] = url
    os.environ.setdefault("PLIANT_COIL_LOG", str(STATE / "server.log"))
    with tempfile.TemporaryDirectory(prefix="pliant-coil-counts-") as counts, _stand_ins():
        os.environ["PROMETHEUS_MULTIPROC_DIR"] = counts
        _supervise(address, listening, workers, cluster)


@contextlib.contextmanager
def _stand_ins() -> Iterator[None]:
    """A caliper and a scale that somebody plays, unless real tools are named (docs/devices.md)."""
    if os.environ.get("PLIANT_COIL_DEVICES"):
        yield
        return
    loop = asyncio.new_event_loop()
    threading.Thread(target=loop.run_forever, daemon=True).start()
    ports = {name: asyncio.run_coroutine_threadsafe(StandIn().start(), loop).result(10) for name in ("caliper", "scale")}
    os.environ["PLIANT_COIL_DEVICES"] = json.dumps({name: f"127.0.0.1:{port}" for name, port in ports.items()})
    try:
        yield
    finally:
        loop.call_soon_threadsafe(loop.stop)


def _supervise(address: str, listening: socket.socket, workers: int, cluster: Cluster | None) -> None:
    config = uvicorn.Config(
        "tools.start:worker",
        factory=True,
        workers=workers,
        log_config=None,
        access_log=False,
        timeout_graceful_shutdown=_STOPS_WITHIN_S,
        timeout_keep_alive=20,
    )

    def tend() -> bool:
        """Look after the database; whether it is to be found elsewhere now."""
        moved = False
        if cluster and not cluster.runs:
            _say("The database ended; it is started again.")
            there = cluster.start()
            moved = there != os.environ["DATABASE_URL"]
            os.environ["DATABASE_URL"] = there
        if cluster and backups.due(datetime.now(UTC)):
            threading.Thread(target=_daily_backup, args=(os.environ["DATABASE_URL"],), daemon=True).start()
        return moved

    os.environ[_SUPERVISOR] = str(os.getpid())
    _Supervisor(config, [listening], lambda: _say(f"Pliant Coil is at {address}  (Ctrl-C stops it)"), tend).run()


def _daily_backup(url: str) -> None:
    if not _backing_up.acquire(blocking=False):
        return
    try:
        backups.back_up(url)
        backups.thin_out(datetime.now(UTC))
    except (CannotServe, OSError) as error:
        _say(f"No backup today: {error}")
        time.sleep(_BACKUP_AGAIN_S)
    finally:
        _backing_up.release()


class _Supervisor(Multiprocess):
    """Web workers, one of them started again when it ends; says when they serve, and looks after the database beside them."""

    def __init__(self, config: uvicorn.Config, sockets: list[socket.socket], ready: Callable[[], None], tend: Callable[[], bool]) -> None:
        super().__init__(config, sockets)
        self._ready, self._tend = ready, tend
        self._told = False

    def keep_subprocess_alive(self) -> None:
        super().keep_subprocess_alive()
        if self.should_exit.is_set():
            return
        if not self._told and any(process.is_ready() for process in self.processes):
            self._told = True
            self._ready()
        try:
            if self._tend():
                # Its port was taken. Workers that know the old address would answer nobody: they end, and others come in their place.
                for process in self.processes:
                    process.terminate()
        except (CannotServe, OSError) as error:
            _say(f"The database can't be brought up: {str(error).splitlines()[0]}; trying again.")

    def handle_hup(self) -> None:
        """The terminal was closed."""
        self.handle_term()


def worker() -> "FastAPI":
    """The application in a worker, which ends when its supervisor does, however that ends."""
    # Only workers need it: whoever watches over them is up sooner without.
    from pliant_coil.web_api.app import create_app

    with contextlib.suppress(OSError, AttributeError):
        ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGTERM)
    # One that ended while this worker was coming up tells nobody any more.
    if os.environ.get(_SUPERVISOR) not in (None, str(os.getppid())):
        raise SystemExit(0)
    return create_app()


def _say(words: str) -> None:
    """A reader that went away (a closed terminal, a pipe into head) stops nothing."""
    with contextlib.suppress(OSError):
        print(words, flush=True)


if __name__ == "__main__":
    sys.exit(main())
