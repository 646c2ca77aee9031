"""The log: a line a request and nothing private, in files that are cut into pieces, whatever becomes of them."""

import json
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from sqlalchemy.exc import IntegrityError

from pliant_coil.services.rings import Rings
from pliant_coil.web_api import logs
from pliant_coil.web_api.app import create_app
from pliant_coil.web_api.settings import Settings


@pytest.fixture
def file(tmp_path: Path, database_url: str, sessions: object, monkeypatch: pytest.MonkeyPatch) -> Iterator[Path]:
    monkeypatch.setattr(logs, "_LARGEST_LOG", 4000)
    monkeypatch.setenv("PLIANT_COIL_LOG", str(tmp_path / "server.log"))
    yield tmp_path / "server.log"
    logs.configure_logs()


@pytest.fixture
def client(file: Path, database_url: str) -> Iterator[TestClient]:
    app = create_app(Settings(database_url=database_url))
    with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
        yield client


def test_a_line_a_request_and_nothing_that_was_typed(client: TestClient, file: Path) -> None:
    made = client.post("/api/rings", json={"title": "For Aunt Wilhelmina", "notes": "a secret"}, params={"hand": "left"})
    client.post("/api/sign-in", json={"name": "Wilhelmina", "password": "a secret of hers"})
    lines = [json.loads(line) for line in file.read_text().splitlines()]
    assert [(line["method"], line["path"], line["status"]) for line in lines] == [
        ("POST", "/api/rings", 201),
        ("POST", "/api/sign-in", 422),
    ]
    assert lines[0]["id"] == made.headers["x-request-id"] and lines[0]["level"] == "info" and lines[0]["timestamp"]
    assert "Wilhelmina" not in file.read_text() and "secret" not in file.read_text()
    assert file.stat().st_mode & 0o077 == 0


def test_it_is_cut_into_pieces_and_old_ones_go(client: TestClient, file: Path) -> None:
    for _ in range(300):
        client.get("/api/version")
    pieces = sorted(each.name for each in file.parent.iterdir() if each.name.startswith("server.log") and each.suffix != ".lock")
    assert 2 < len(pieces) <= 6
    assert all(each.stat().st_size <= 4200 for each in file.parent.glob("server.log*"))


def test_a_log_that_cant_be_written_stops_nothing(client: TestClient, file: Path) -> None:
    client.get("/api/version")
    for each in file.parent.iterdir():
        each.unlink()
    file.parent.rmdir()
    assert client.get("/api/version").status_code == 200


def test_no_error_of_any_kind_brings_a_title_into_the_log(client: TestClient, file: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """An error that repeats what was typed: of the database, of ours, one that was caused by another, and one in what is sent later."""
    marked = "For Aunt Wilhelmina"

    def typed() -> None:
        try:
            raise ValueError(f"can't read {marked}")
        except ValueError as error:
            raise IntegrityError(f"insert {marked}", {"title": marked}, RuntimeError(f"DETAIL: ({marked}) exists")) from error

    kinds = [RuntimeError(marked), KeyError(marked), UnicodeEncodeError("ascii", marked, 0, 1, marked), OSError(2, marked), None]
    for kind in kinds:

        def broken(*_: object, error: Exception | None = kind, **__: object) -> None:
            if error:
                raise error
            typed()

        monkeypatch.setattr(Rings, "create", broken)
        assert client.post("/api/rings", json={"title": marked}).status_code == 500
    said = "".join(each.read_text() for each in file.parent.glob("server.log*") if each.suffix != ".lock")
    assert said.count('"unexpected"') == len(kinds)
    assert "KeyError: test_logs.py" in said, "where it was, and what kind of error"
    assert "Wilhelmina" not in said
