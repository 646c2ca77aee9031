"""Backups in pg_dump's custom format: made, kept by age, and restored beside what is there."""

import argparse
import hashlib
import os
import sys
from collections.abc import Iterable, Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path

import psycopg
from psycopg import sql
from sqlalchemy.exc import SQLAlchemyError

from pliant_coil.store.database import Unfit, connect, fitness
from tools.postgres import APP, DATABASE, CannotServe, Cluster, run_program
from tools.records import records_url
from tools.state import STATE, serving_address

STAMP = "%Y-%m-%d-%H%M%S"
PREFIX = "pliant-coil-"
_ALL_FOR, _WEEKLY_FOR, _MONTHLY_FOR = timedelta(days=7), timedelta(weeks=8), timedelta(days=366)


def folder() -> Path:
    """Where backups are kept, readable by their owner only."""
    made = STATE / "backups"
    made.mkdir(mode=0o700, parents=True, exist_ok=True)
    return made


def back_up(url: str, file: Path | None = None, *, why: str = "") -> Path:
    """Write all records to `file`, which stands there only when it is whole. Raises `CannotServe`."""
    file = file or folder() / f"{PREFIX}{datetime.now(UTC).strftime(STAMP)}{why}.dump"
    part = file.with_name(file.name + ".part")
    part.touch(mode=0o600)
    try:
        run_program("pg_dump", "-Fc", "-f", str(part), url)
        sums = _sums_of(file)
        sums.write_text(f"{_sum(part)}  {file.name}\n")
        sums.chmod(0o600)
        part.replace(file)
    finally:
        part.unlink(missing_ok=True)
    return file


def verify(file: Path) -> bool:
    """Whether a backup has a checksum beside it. Raises `CannotServe` for one that isn't what was written."""
    sums = _sums_of(file)
    if not sums.is_file():
        return False
    if sums.read_text().split(maxsplit=1)[:1] != [_sum(file)]:
        raise CannotServe(f"{file.name} isn't what was written (its checksum in {sums.name} is another one): nothing was touched")
    return True


def _sums_of(file: Path) -> Path:
    return file.with_name(f"{file.name}.sha256")


def _sum(file: Path) -> str:
    """As `sha256sum -c` checks it."""
    with file.open("rb") as content:
        return hashlib.file_digest(content, "sha256").hexdigest()


def restore(cluster: Cluster, file: Path) -> str:
    """Put a backup in the place of today's records, which stay under another name; returns that name. Raises `CannotServe`."""
    verify(file)
    fresh = f"{DATABASE}_restored"
    url = cluster.start()
    with cluster.as_superuser() as connection:
        connection.execute(sql.SQL("drop database if exists {} with (force)").format(sql.Identifier(fresh)))
        connection.execute(sql.SQL("create database {} owner {}").format(sql.Identifier(fresh), sql.Identifier(APP)))
    beside = url.rpartition("/")[0] + f"/{fresh}"
    run_program("pg_restore", "--no-owner", "--exit-on-error", "-d", beside, str(file))
    check_fit(beside)
    before = f"{DATABASE}_before_{datetime.now(UTC).strftime('%Y%m%d%H%M%S')}"
    with cluster.as_superuser() as connection:
        connection.execute(sql.SQL("alter database {} rename to {}").format(sql.Identifier(DATABASE), sql.Identifier(before)))
        connection.execute(sql.SQL("alter database {} rename to {}").format(sql.Identifier(fresh), sql.Identifier(DATABASE)))
    return before


def check_fit(url: str) -> None:
    """Raise `CannotServe` for a database that isn't this program's, or is a newer one's."""
    engine = connect(url)
    try:
        fitness(engine)
    except (Unfit, SQLAlchemyError) as error:
        raise CannotServe(str(error).split("\n", 1)[0]) from error
    finally:
        engine.dispose()


def due(now: datetime) -> bool:
    """Whether the newest backup is a day old. What was made while the clock was wrong, and lies ahead, doesn't count."""
    newest = max((made for made, _ in _kept() if made <= now), default=None)
    return newest is None or now - newest >= timedelta(days=1)


def thin_out(now: datetime) -> list[Path]:
    """Let go of what isn't needed any more, and say which: a week of all, eight weeks of one a week, a year of one a month."""
    gone = to_let_go([(made, file) for made, file in _kept()], now)
    for file in gone:
        file.unlink(missing_ok=True)
        _sums_of(file).unlink(missing_ok=True)
    return gone


def to_let_go(kept: Iterable[tuple[datetime, Path]], now: datetime) -> list[Path]:
    """What `thin_out` takes away: of each week, then month, the oldest stays; the newest stays always, and what lies ahead of the clock."""
    ordered = sorted((made, file) for made, file in kept if made <= now)
    seen: set[tuple[str, int, int]] = set()
    gone = []
    for made, file in ordered[:-1]:
        age = now - made
        if age <= _ALL_FOR:
            continue
        week = ("week", *made.isocalendar()[:2])
        month = ("month", made.year, made.month)
        slot = week if age <= _WEEKLY_FOR else month if age <= _MONTHLY_FOR else None
        if slot is None or slot in seen:
            gone.append(file)
        else:
            seen.add(slot)
    return gone


def _kept() -> Iterator[tuple[datetime, Path]]:
    for file in folder().glob(f"{PREFIX}*.dump"):
        try:
            yield datetime.strptime(file.stem.removeprefix(PREFIX)[:17], STAMP).replace(tzinfo=UTC), file
        except ValueError:
            continue


def main() -> int:
    """./backup and ./restore. Returns the exit code."""
    parser = argparse.ArgumentParser(prog="./backup or ./restore")
    parser.add_argument("what", choices=("backup", "restore"))
    parser.add_argument("file", nargs="?", type=Path)
    options = parser.parse_args()
    try:
        if options.what == "backup":
            with records_url() as url:
                print(f"All records are in {back_up(url, options.file)}")
            return 0
        if options.file is None or not options.file.is_file():
            raise CannotServe(f"there is no backup {options.file or ''}: ./restore FILE")
        if os.environ.get("DATABASE_URL"):
            raise CannotServe("a database of your own is restored with its own tools (pg_restore): see docs/operating.md")
        if address := serving_address():
            raise CannotServe(f"Pliant Coil is running at {address}: stop it first")
        cluster = Cluster(STATE / "postgres")
        ran = cluster.runs
        try:
            before = restore(cluster, options.file)
        finally:
            if not ran:
                cluster.stop()
        if not verify(options.file):
            print(f"{options.file.name} has no checksum beside it: whether it is whole couldn't be told.")
        print(f"The records are those of {options.file.name}. Those of before are kept in the database {before}.")
        return 0
    except (CannotServe, OSError, psycopg.Error) as error:
        print(f"Pliant Coil: {str(error).splitlines()[0]}", file=sys.stderr)
        return 1


if __name__ == "__main__":
    sys.exit(main())
