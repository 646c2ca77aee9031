"""Random kills under load: what was acknowledged is there afterwards, and every start succeeds.

`python -m tools.kills 200` kills ./start, its workers, its database or both, in the middle of saves and of its own start, and starts again.
"""

import os
import random
import signal
import subprocess
import sys
import tempfile
import threading
import time
from dataclasses import dataclass, field
from datetime import UTC, datetime
from pathlib import Path
from uuid import uuid4

import httpx2 as httpx

from tools.postgres import Cluster
from tools.serving import ROOT

VICTIMS = ("start", "database", "both", "worker", "start while it starts")
_STARTS_WITHIN_S = 90
_RING = {"title": "", "finger": {"size": "US 7"}}


@dataclass
class Told:
    """What came of it."""

    kills: int = 0
    rings: set[str] = field(default_factory=set)
    """Titles of rings that were acknowledged."""
    taps: int = 0
    """Events at the bench that were acknowledged."""
    lost: int = 0
    failed_starts: int = 0


class Running:
    """./start in a state of its own."""

    def __init__(self, state: Path) -> None:
        environment = {**os.environ, "PLIANT_COIL_STATE": str(state), "PYTHONUNBUFFERED": "1"}
        environment.pop("DATABASE_URL", None)
        command = [sys.executable, "-m", "tools.start", "--workers", "1"]
        self.process = subprocess.Popen(command, cwd=ROOT, env=environment, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)
        self.address = ""

    def wait(self) -> bool:
        """Whether it serves in time."""
        giving_up = threading.Timer(_STARTS_WITHIN_S, self.process.kill)
        giving_up.start()
        try:
            assert self.process.stdout is not None
            for line in self.process.stdout:
                if "Pliant Coil is at" in line:
                    self.address = line.split()[4].rstrip("/")
                    return True
            return False
        finally:
            giving_up.cancel()

    def end(self, how: signal.Signals) -> None:
        """End it, and wait until it has ended."""
        if self.process.poll() is None:
            self.process.send_signal(how)
        if self.process.stdout is not None:
            self.process.stdout.close()
        self.process.wait()


def survive(state: Path, kills: int, chance: random.Random) -> Told:
    """Start, save, kill, and look, so often."""
    told = Told()
    job = ""
    for _ in range(kills):
        victim = chance.choice(VICTIMS)
        running = Running(state)
        if victim == "start while it starts":
            time.sleep(chance.uniform(0.1, 3.0))
            running.end(signal.SIGKILL)
            told.kills += 1
            continue
        if not running.wait():
            told.failed_starts += 1
            running.end(signal.SIGKILL)
            continue
        job = job or httpx.post(f"{running.address}/api/jobs", json=_RING).json()["id"]
        told.lost += _missing(running.address, job, told)
        stop = threading.Event()
        savers = [threading.Thread(target=_save, args=(running.address, job, told, stop)) for _ in range(3)]
        for saver in savers:
            saver.start()
        time.sleep(chance.uniform(0.05, 0.8))
        if victim in ("database", "both"):
            Cluster(state / "postgres").kill()
        if victim == "worker":
            subprocess.run(["pkill", "-9", "-P", str(running.process.pid)], check=False)
        if victim in ("start", "both"):
            running.end(signal.SIGKILL)
        stop.set()
        for saver in savers:
            saver.join()
        running.end(signal.SIGTERM)
        told.kills += 1
    last = Running(state)
    if last.wait():
        told.lost += _missing(last.address, job, told) if job else 0
    else:
        told.failed_starts += 1
    last.end(signal.SIGTERM)
    return told


def _save(address: str, job: str, told: Told, stop: threading.Event) -> None:
    with httpx.Client(timeout=10) as client:
        while not stop.is_set():
            title = f"Ring {uuid4()}"
            event = {"kind": "count", "id": str(uuid4()), "device": "kills", "at": datetime.now(UTC).isoformat(), "move": "x", "n": 1}
            try:
                if client.post(f"{address}/api/rings", json=_RING | {"title": title}).status_code == 201:
                    told.rings.add(title)
                if client.post(f"{address}/api/jobs/{job}/events", json={"events": [event]}).status_code == 200:
                    told.taps += 1
            except httpx.TransportError:
                return


def _missing(address: str, job: str, told: Told) -> int:
    found: set[str] = set()
    after: dict[str, str] = {}
    while page := httpx.get(f"{address}/api/rings", params={"limit": "100"} | after).json()["rings"]:
        found |= {ring["title"] for ring in page}
        after = {"after": page[-1]["id"]}
    written = httpx.get(f"{address}/api/jobs/{job}").json()["progress"]["number"]
    return len(told.rings - found) + max(0, told.taps - int(written))


def main() -> int:
    """Returns 1 when anything acknowledged was lost, or a start failed."""
    kills = int(sys.argv[1]) if len(sys.argv) > 1 else 200
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else random.randrange(10**6)
    with tempfile.TemporaryDirectory(prefix="pliant-coil-kills-") as folder:
        Path(folder).chmod(0o755)
        told = survive(Path(folder), kills, random.Random(seed))
        Cluster(Path(folder) / "postgres").stop()
    print(f"seed {seed}: {told.kills} kills, {len(told.rings)} rings and {told.taps} taps acknowledged")
    print(f"{told.lost} lost, {told.failed_starts} starts failed")
    return 1 if told.lost or told.failed_starts else 0


if __name__ == "__main__":
    sys.exit(main())
