"""The private database server: made, started, stopped, and brought back after whatever happened to it."""

import os
import socket
import tempfile
from collections.abc import Iterator
from pathlib import Path

import psycopg
import pytest

from tools.postgres import Cluster, free_port, reachable_folder


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
    with pytest.raises(RuntimeError, match="password is missing"):
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
        password = (folder / "password").read_text()
        with pytest.raises(psycopg.OperationalError, match="password"):
            psycopg.connect(url.replace(password, "guess"))
        assert (folder / "password").stat().st_mode & 0o077 == 0
    finally:
        cluster.remove()


def test_a_taken_port_gives_way_to_a_free_one() -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        assert free_port(port) != port
    assert free_port(port) == port


def test_a_folder_out_of_the_servers_reach_is_put_elsewhere(folder: Path) -> None:
    private = folder.parent / "private"
    private.mkdir(mode=0o700)
    assert reachable_folder(folder) == folder
    elsewhere = reachable_folder(private / "postgres")
    # Only root runs the server as another user, who can't look into a private folder.
    assert (private in elsewhere.parents) == (os.geteuid() != 0)
    assert elsewhere == reachable_folder(private / "postgres"), "the same checkout finds its data again"
