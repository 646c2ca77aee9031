"""What ./start does once everything is installed: database, migration, demo, server; and stopping what it started."""

import argparse
import fcntl
import os
import signal
import socket
import sys
from pathlib import Path
from typing import TextIO

import uvicorn

from pliant_coil.services.workshop import seed_demo
from pliant_coil.store.database import connect, migrate, sessions_of
from pliant_coil.web_api.app import create_app
from pliant_coil.web_api.settings import Settings
from tools.postgres import Cluster, free_port

STATE = Path(os.environ.get("PLIANT_COIL_STATE", Path(__file__).parents[1] / ".state"))
"""Where the private database and the lock are; tests put theirs elsewhere."""
USUAL_PORT = 8420


def main() -> int:
    """Serve until Ctrl-C. Returns the exit code."""
    parser = argparse.ArgumentParser(prog="./start")
    parser.add_argument("--port", type=int, default=0)
    options = parser.parse_args()
    STATE.mkdir(exist_ok=True)
    # Whatever ends it politely ends the database too.
    for ending in (signal.SIGTERM, signal.SIGHUP):
        signal.signal(ending, signal.default_int_handler)
    with (STATE / "serving").open("a+") as lock:
        # The lock ends with the process, however it ends: it can't go stale.
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            lock.seek(0)
            print(f"Pliant Coil runs already: {lock.read().strip()}")
            return 0
        cluster = None if os.environ.get("DATABASE_URL") else Cluster(STATE / "postgres")
        try:
            url = cluster.start() if cluster else os.environ["DATABASE_URL"]
            _serve(url, options.port, lock)
        except KeyboardInterrupt:
            pass
        finally:
            if cluster:
                cluster.stop()
    return 0


def _serve(url: str, wanted_port: int, lock: TextIO) -> None:
    engine = connect(url)
    migrate(engine)
    if seed_demo(sessions_of(engine)):
        print("The demo workshop, Fernhill Bench, is set up.")
    engine.dispose()
    port = free_port(wanted_port or USUAL_PORT)
    if wanted_port and port != wanted_port:
        print(f"Port {wanted_port} is taken.")
    address = f"http://127.0.0.1:{port}/"
    lock.truncate(0)
    print(address, file=lock, flush=True)
    settings = Settings(database_url=url)
    server = _Announcing(uvicorn.Config(create_app(settings), host="127.0.0.1", port=port, log_config=None, access_log=False), address)
    server.run()


class _Announcing(uvicorn.Server):
    """Says where it serves once it does."""

    def __init__(self, config: uvicorn.Config, address: str) -> None:
        super().__init__(config)
        self._address = address

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        await super().startup(sockets)
        if self.started:
            print(f"Pliant Coil is at {self._address}  (Ctrl-C stops it)", flush=True)


if __name__ == "__main__":
    sys.exit(main())
