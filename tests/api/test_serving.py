"""What the server does around its answers: pages, files, compression, logs, request ids."""

import importlib
import inspect
import os
import pkgutil
from collections.abc import Callable, Iterator
from contextlib import suppress
from pathlib import Path

import pytest
import structlog
from fastapi import APIRouter
from fastapi.dependencies.models import Dependant
from fastapi.routing import APIRoute
from fastapi.testclient import TestClient

from pliant_coil.web_api import routes
from pliant_coil.web_api.app import create_app
from pliant_coil.web_api.logs import configure_logs
from pliant_coil.web_api.settings import Settings


@pytest.fixture
def site(tmp_path: Path) -> Iterator[TestClient]:
    """A server with a front end of one page and one script, and no database."""
    (tmp_path / "assets").mkdir()
    (tmp_path / "index.html").write_text("<title>Pliant Coil</title>")
    (tmp_path / "assets" / "app-1a2b.js").write_text("console.log('ring')")
    settings = Settings(database_url="postgresql://nobody@127.0.0.1:1/nothing")
    settings.front_end = tmp_path
    with TestClient(create_app(settings), base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
        yield client


@pytest.mark.parametrize("path", ["/", "/plan", "/plan/3f0e8f9e-0000-4000-8000-000000000000", "/no/such/page"])
def test_every_address_gets_the_page(site: TestClient, path: str) -> None:
    page = site.get(path)
    assert page.status_code == 200
    assert "Pliant Coil" in page.text
    assert page.headers["cache-control"] == "no-cache"


def test_files_with_a_fingerprint_may_be_kept_for_good(site: TestClient) -> None:
    script = site.get("/assets/app-1a2b.js")
    assert "immutable" in script.headers["cache-control"]


@pytest.mark.parametrize("way_out", ["%2e%2e/beside.txt", "%2e%2e/%2e%2e/beside.txt", "..%2f..%2fbeside.txt", "%2e%2e/index.html"])
def test_nothing_beside_the_assets_is_served(site: TestClient, tmp_path: Path, way_out: str) -> None:
    (tmp_path / "beside.txt").write_text("nobody's business")
    (tmp_path.parent / "beside.txt").write_text("nobody's business")
    assert site.get(f"/assets/{way_out}").status_code == 404


@pytest.mark.parametrize("path", ["/api", "/api/", "/api/nothing", "/api/rings/x/y/z"])
def test_an_api_address_that_isnt_one_is_told_in_json(site: TestClient, path: str) -> None:
    missing = site.get(path)
    assert missing.status_code == 404
    assert missing.json()["errors"][0]["reason"]


def test_a_wrong_method_is_told_in_the_same_form(site: TestClient) -> None:
    refused = site.post("/api/version")
    assert refused.status_code == 405
    assert set(refused.json()["errors"][0]) == {"field", "reason", "accepted"}


def test_large_answers_are_compressed_and_small_ones_arent(site: TestClient) -> None:
    large = site.post("/api/plan?paths=true", json={"band": {"style": "woven"}})
    assert large.headers.get("content-encoding") == "gzip"
    assert "content-encoding" not in site.get("/api/version").headers


def test_the_largest_weave_stays_small_on_the_way(site: TestClient) -> None:
    """Size 16 in the finest weave, with all its paths: at most 400 kB compressed."""
    ring = {"finger": {"size": "US 16"}, "band": {"style": "woven", "program": "AB1"}, "wires": {"weave": {"diameter": "0.25 mm"}}}
    with site.stream("POST", "/api/plan?paths=true", json=ring) as answer:
        compressed = sum(len(part) for part in answer.iter_raw())
    assert answer.status_code == 200
    assert 10_000 < compressed <= 400_000


def test_each_request_is_logged_once_with_its_id(site: TestClient) -> None:
    with structlog.testing.capture_logs() as lines:
        answer = site.get("/api/version")
    (line,) = lines
    assert line["id"] == answer.headers["x-request-id"]
    assert (line["method"], line["path"], line["status"], line["log_level"]) == ("GET", "/api/version", 200, "info")
    assert line["ms"] >= 0


def test_a_mishap_is_logged_with_its_traceback_and_told_without(site: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    def broken(*_: object, **__: object) -> None:
        raise ZeroDivisionError("a secret of the house")

    monkeypatch.setattr("pliant_coil.web_api.routes.plan.plan", broken)
    with structlog.testing.capture_logs() as lines:
        answer = site.post("/api/plan", json={})
    assert answer.status_code == 500
    assert "secret" not in answer.text and "nothing was changed" in answer.text
    assert any(isinstance(line.get("exc_info"), ZeroDivisionError) for line in lines)


def test_without_a_built_front_end_the_api_serves_alone(tmp_path: Path) -> None:
    settings = Settings(database_url="postgresql://nobody@127.0.0.1:1/nothing")
    settings.front_end = tmp_path
    with TestClient(create_app(settings), base_url="http://127.0.0.1") as client:
        assert client.get("/api/version").status_code == 200
        assert client.get("/").status_code == 404


def test_a_log_whose_reader_went_away_breaks_no_request(monkeypatch: pytest.MonkeyPatch, site: TestClient) -> None:
    reading, writing = os.pipe()
    os.close(reading)
    nobody_reads = os.fdopen(writing, "w", buffering=1)
    monkeypatch.setattr("sys.stderr", nobody_reads)
    configure_logs()
    try:
        assert site.get("/api/version").status_code == 200
        assert site.get("/api/nothing").status_code == 404
    finally:
        monkeypatch.undo()
        configure_logs()
        with suppress(BrokenPipeError):
            nobody_reads.close()


def dependencies_of(dependant: Dependant) -> Iterator[Callable[..., object]]:
    """All that a route asks for before it is called, with what that asks for in turn."""
    for each in dependant.dependencies:
        if each.call:
            yield each.call
        yield from dependencies_of(each)


def test_only_who_asks_is_looked_up_in_a_thread() -> None:
    """A function that a route depends on is handed to a thread, which takes longer than anything but the database does."""
    routers = [
        item
        for info in pkgutil.iter_modules(routes.__path__)
        for item in vars(importlib.import_module(f"{routes.__name__}.{info.name}")).values()
        if isinstance(item, APIRouter)
    ]
    asked = {
        call for router in routers for route in router.routes if isinstance(route, APIRoute) for call in dependencies_of(route.dependant)
    }
    assert len(asked) > 10
    assert {call.__name__ for call in asked if not inspect.iscoroutinefunction(call)} == {"_actor"}
