"""Backups: whole or not there, kept by age, restored beside what is there, and compared row by row."""

import fcntl
import os
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path

import psycopg
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.services.rings import Rings
from pliant_coil.services.scope import alone
from pliant_coil.services.workshop import DEMO_SLUG, seed_demo
from pliant_coil.store.database import connect, migrate, sessions_of
from tools import backups
from tools.postgres import CannotServe, Cluster

ROOT = Path(__file__).parents[2]
NOW = datetime(2026, 11, 25, 12, tzinfo=UTC)


@pytest.fixture
def state() -> Iterator[Path]:
    with tempfile.TemporaryDirectory(prefix="pliant-coil-backups-") as made:
        Path(made).chmod(0o755)
        yield Path(made)
        Cluster(Path(made) / "postgres").stop()


def command(state: Path, *arguments: str) -> subprocess.CompletedProcess[str]:
    environment = {**os.environ, "PLIANT_COIL_STATE": str(state)}
    environment.pop("DATABASE_URL", None)
    run = [sys.executable, "-m", "tools.backups", *arguments]
    return subprocess.run(run, cwd=ROOT, env=environment, capture_output=True, text=True, check=False, timeout=120)


def rows(url: str) -> dict[str, list[tuple[object, ...]]]:
    """Every row of every table."""
    with psycopg.connect(url) as connection:
        tables = [
            name for (name,) in connection.execute("select tablename from pg_tables where schemaname = 'public' order by 1").fetchall()
        ]
        return {name: sorted(connection.execute(f'select * from "{name}"').fetchall(), key=repr) for name in tables}


def test_every_row_comes_back(state: Path) -> None:
    cluster = Cluster(state / "postgres", durable=False)
    url = cluster.start()
    engine = connect(url)
    migrate(engine)
    seed_demo(sessions_of(engine))
    sessions = sessions_of(engine)
    rings = Rings(sessions, alone(sessions, DEMO_SLUG))
    rings.create(read_ring({"title": "Bienenkönigin 蜂 “honey”", "notes": "a\nb"}))
    before = rows(url)
    assert len(before["ring"]) > 20
    file = state / "with a space.dump"
    made = command(state, "backup", str(file))
    assert made.returncode == 0 and str(file) in made.stdout
    assert file.stat().st_mode & 0o077 == 0, "only its owner reads it"
    for ring in rings.page("", 100).rings:
        rings.delete(ring.id)
    assert rows(url) != before
    engine.dispose()
    restored = command(state, "restore", str(file))
    assert restored.returncode == 0, restored.stderr
    assert rows(cluster.start()) == before
    with cluster.as_superuser() as connection:
        beside = connection.execute("select datname from pg_database where datname like 'pliant_coil_before_%'").fetchall()
    assert len(beside) == 1, "what stood there before is kept"


def test_a_file_that_is_no_backup_changes_nothing(state: Path) -> None:
    cluster = Cluster(state / "postgres", durable=False)
    engine = connect(cluster.start())
    migrate(engine)
    engine.dispose()
    before = rows(cluster.start())
    (state / "letter.dump").write_text("Dear bench")
    refused = command(state, "restore", str(state / "letter.dump"))
    assert refused.returncode == 1 and "Traceback" not in refused.stderr and len(refused.stderr.splitlines()) == 1
    assert command(state, "restore", str(state / "none.dump")).returncode == 1
    assert rows(cluster.start()) == before


def test_a_backup_that_was_cut_short_isnt_there(state: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(backups, "STATE", state)
    with pytest.raises(CannotServe):
        backups.back_up("postgresql://nobody@127.0.0.1:1/nothing", state / "half.dump")
    assert not list(state.glob("half*"))


def test_a_flipped_bit_is_told_before_anything_is_touched(state: Path) -> None:
    cluster = Cluster(state / "postgres", durable=False)
    url = cluster.start()
    engine = connect(url)
    migrate(engine)
    engine.dispose()
    file = backups.back_up(url, state / "kept.dump")
    assert backups.verify(file)
    whole, before = file.read_bytes(), rows(url)
    for at in range(0, len(whole), max(1, len(whole) // 40)):
        file.write_bytes(whole[:at] + bytes([whole[at] ^ 1]) + whole[at + 1 :])
        with pytest.raises(CannotServe, match="isn't what was written"):
            backups.restore(cluster, file)
    assert rows(url) == before
    file.write_bytes(whole)
    backups.restore(cluster, file)


def test_a_clock_that_was_wrong_neither_holds_back_a_backup_nor_lets_go_of_one(state: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(backups, "STATE", state)
    ahead = NOW + timedelta(days=400)
    for made in (NOW - timedelta(days=2), ahead):
        (backups.folder() / f"{backups.PREFIX}{made.strftime(backups.STAMP)}.dump").touch()
    assert backups.due(NOW)
    assert backups.thin_out(NOW) == []
    kept = [(NOW - timedelta(days=n), Path(f"{n}.dump")) for n in (9, 40, 500)]
    assert backups.to_let_go([*kept, (ahead, Path("ahead.dump"))], NOW) == backups.to_let_go(kept, NOW)


@given(st.lists(st.integers(0, 900), unique=True, min_size=1, max_size=60))
def test_old_backups_are_let_go_by_age(days: list[int]) -> None:
    kept = [(NOW - timedelta(days=n), Path(f"{n}.dump")) for n in days]
    gone = set(backups.to_let_go(kept, NOW))
    left = {made for made, file in kept if file not in gone}
    assert max(made for made, _ in kept) in left, "the newest stays"
    assert all(made in left for made, _ in kept if NOW - made <= timedelta(days=7)), "a week of all"
    for made, _ in kept:
        if NOW - made <= timedelta(weeks=8):
            assert any(other.isocalendar()[:2] == made.isocalendar()[:2] for other in left), "one of each week"
        elif NOW - made <= timedelta(days=366):
            assert any((other.year, other.month) == (made.year, made.month) for other in left), "one of each month"
    again = [(made, file) for made, file in kept if file not in gone]
    assert not backups.to_let_go(again, NOW), "done twice, nothing more goes"


def test_records_that_are_being_served_arent_exchanged(state: Path) -> None:
    (state / "some.dump").touch()
    with (state / "serving").open("w") as lock:
        lock.write("http://127.0.0.1:8420/\n")
        lock.flush()
        fcntl.flock(lock, fcntl.LOCK_EX)
        refused = command(state, "restore", str(state / "some.dump"))
    assert refused.returncode == 1 and "running at http://127.0.0.1:8420/: stop it first" in refused.stderr
