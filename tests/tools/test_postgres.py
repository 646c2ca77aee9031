"""The private database server: made, started, stopped, and brought back after whatever happened to it."""

import os
import socket
import tempfile
import threading
from collections.abc import Iterator
from pathlib import Path

import psycopg
import pytest

from tools import postgres
from tools.postgres import CannotServe, Cluster, free_port


@pytest.fixture
def folder() -> Iterator[Path]:
    with tempfile.TemporaryDirectory(prefix="pliant-coil-cluster-") as made:
        Path(made).chmod(0o755)
        yield Path(made) / "postgres"


def keep(url: str, word: str) -> None:
    with psycopg.connect(url) as connection:
        connection.execute("create table if not exists kept (word text)")
        connection.execute("insert into kept values (%s)", (word,))


def kept(url: str) -> list[str]:
    with psycopg.connect(url) as connection:
        return [row[0] for row in connection.execute("select word from kept order by word")]


def test_what_is_kept_outlives_a_stop_and_a_kill(folder: Path) -> None:
    cluster = Cluster(folder)
    url = cluster.start()
    try:
        assert cluster.start() == url, "a server that runs is taken as it is"
        keep(url, "stopped")
        cluster.stop()
        with pytest.raises(psycopg.OperationalError):
            kept(url)
        url = cluster.start()
        keep(url, "killed")
        cluster.kill()
        again = Cluster(folder)
        assert kept(again.start()) == ["killed", "stopped"]
    finally:
        cluster.remove()
    assert not folder.exists()


def test_a_cluster_that_was_cut_short_is_made_again(folder: Path) -> None:
    (folder / "data.new").mkdir(parents=True)
    (folder / "data.new" / "PG_VERSION").write_text("15")
    cluster = Cluster(folder, durable=False)
    try:
        keep(cluster.start(), "whole")
    finally:
        cluster.remove()


def test_a_lock_file_of_another_process_doesnt_keep_it_down(folder: Path) -> None:
    cluster = Cluster(folder, durable=False)
    cluster.start()
    cluster.stop()
    (folder / "data" / "postmaster.pid").write_text(f"{os.getpid()}\n{folder / 'data'}\n1\n5432\n\n127.0.0.1\n\nready\n")
    try:
        keep(cluster.start(), "started")
    finally:
        cluster.remove()


def test_a_lost_password_is_told_and_the_data_left_alone(folder: Path) -> None:
    cluster = Cluster(folder, durable=False)
    cluster.start()
    cluster.stop()
    password = (folder / "password").read_text()
    (folder / "password").unlink()
    with pytest.raises(CannotServe, match="password is missing"):
        cluster.start()
    assert (folder / "data" / "PG_VERSION").exists()
    (folder / "password").write_text(password)
    try:
        keep(cluster.start(), "back")
    finally:
        cluster.remove()


def test_it_listens_on_loopback_only_and_asks_for_the_password(folder: Path) -> None:
    cluster = Cluster(folder, durable=False)
    try:
        url = cluster.start()
        with psycopg.connect(url) as connection:
            assert connection.execute("show listen_addresses").fetchone() == ("127.0.0.1",)
        password = (folder / "app-password").read_text()
        with pytest.raises(psycopg.OperationalError, match="password"):
            psycopg.connect(url.replace(password, "guess"))
    finally:
        cluster.remove()


def test_a_taken_port_gives_way_to_a_free_one() -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        assert free_port(port) != port
    assert free_port(port) == port


def test_the_application_has_a_database_and_nothing_else(folder: Path) -> None:
    cluster = Cluster(folder, durable=False)
    try:
        with psycopg.connect(cluster.start()) as connection:
            role = connection.execute("select rolsuper, rolcreatedb, rolcreaterole from pg_roles where rolname = current_user").fetchone()
            assert role == (False, False, False)
            assert connection.execute("show data_checksums").fetchone() == ("on",)
            owned = connection.execute("select datname from pg_database d join pg_roles r on r.oid = d.datdba where rolname = current_user")
            assert owned.fetchall() == [("pliant_coil",)]
        for secret in ("password", "app-password"):
            assert (folder / secret).stat().st_mode & 0o077 == 0
            assert (folder / secret).stat().st_uid == os.geteuid()
        assert folder.stat().st_uid == os.geteuid(), "the server's own user can't write beside its data"
    finally:
        cluster.remove()


def test_records_in_the_superusers_database_are_brought_over(folder: Path) -> None:
    cluster = Cluster(folder, durable=False)
    cluster.start()
    try:
        with cluster.as_superuser() as connection:
            connection.execute("drop database pliant_coil")
            connection.execute("create table alembic_version (version_num text)")
            connection.execute("create table kept (word text)")
            connection.execute("insert into kept values ('from before')")
        url = cluster.start()
        assert kept(url) == ["from before"]
        keep(url, "and after")
        with cluster.as_superuser() as connection:
            assert connection.execute("select count(*) from kept").fetchone() == (1,), "the old ones stay where they were"
    finally:
        cluster.remove()


@pytest.mark.parametrize("name", ["with space", 'quote\'s "both"', "dollar $HOME `id`", "Bäckerei 蜂蜜", "percent %s 100%"])
def test_any_folder_name_will_do(folder: Path, name: str) -> None:
    cluster = Cluster(folder.parent / name / "postgres", durable=False)
    try:
        keep(cluster.start(), "there")
        cluster.stop()
        assert kept(cluster.start()) == ["there"], "and it is found again"
    finally:
        cluster.remove()


def test_a_server_that_recovers_is_waited_for(folder: Path, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch) -> None:
    cluster = Cluster(folder, durable=False)
    cluster.start()
    lock = folder / "data" / "postmaster.pid"
    ready = lock.read_text()
    # As it stands while the server recovers: everything but the word that it is ready.
    recovering = ready.replace("ready   ", "starting")
    assert recovering != ready
    monkeypatch.setattr("tools.postgres._TELL_EVERY_S", 0.2)
    lock.write_text(recovering)
    back = threading.Timer(1.0, lock.write_text, [ready])
    back.start()
    try:
        keep(cluster.start(), "waited")
        assert "recovering" in capsys.readouterr().err
        assert kept(cluster.start()) == ["waited"]
    finally:
        back.join()
        cluster.remove()


def test_it_comes_up_on_the_port_of_last_time(folder: Path) -> None:
    cluster = Cluster(folder, durable=False)
    try:
        url = cluster.start()
        cluster.kill()
        assert cluster.start() == url, "who was connected finds it again"
    finally:
        cluster.remove()


def test_its_port_is_none_that_the_system_hands_out(folder: Path) -> None:
    low, high = map(int, Path("/proc/sys/net/ipv4/ip_local_port_range").read_text().split())
    cluster = Cluster(folder, durable=False)
    try:
        port = int(cluster.start().rpartition(":")[2].partition("/")[0])
        assert not low <= port <= high
    finally:
        cluster.remove()


def test_a_port_that_is_taken_for_a_moment_is_waited_for_and_else_given_up(folder: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    cluster = Cluster(folder, durable=False)
    try:
        url = cluster.start()
        port = int(url.rpartition(":")[2].partition("/")[0])
        for held_s, same in ((0.5, True), (30.0, False)):
            cluster.kill()
            monkeypatch.setattr(postgres, "_WAITS_FOR_PORT_S", 2.0)
            with socket.socket() as thief:
                thief.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
                thief.bind(("127.0.0.1", port))
                thief.listen()
                going = threading.Timer(held_s, thief.close)
                going.start()
                assert (cluster.start() == url) is same
                going.cancel()
    finally:
        cluster.remove()


def test_a_cluster_of_another_version_is_told(folder: Path) -> None:
    cluster = Cluster(folder, durable=False)
    cluster.start()
    cluster.stop()
    version = folder / "data" / "PG_VERSION"
    made_by = version.read_text()
    version.write_text("9\n")
    with pytest.raises(CannotServe, match="PostgreSQL 9, which isn't installed"):
        cluster.start()
    version.write_text(made_by)
    cluster.remove()
