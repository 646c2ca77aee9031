"""A client of the whole application, on the tests' database."""

from collections.abc import Iterator

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from pliant_coil.services.sign_in import Door
from pliant_coil.store.database import Sessions
from pliant_coil.web_api.app import create_app
from pliant_coil.web_api.settings import Settings
from tests.api.visitors import OWNER, Visitor
from tests.database import database_url, engine, sessions


@pytest.fixture
def app(database_url: str, sessions: Sessions) -> FastAPI:
    settings = Settings(database_url=database_url)
    # The name under which tools that call an application without a network call it.
    settings.hosts = [*settings.hosts, "testserver"]
    app = create_app(settings)
    app.state.door = Door(sessions, settings.workshop, open_house=True)
    return app


@pytest.fixture
def client(app: FastAPI) -> Iterator[TestClient]:
    # What a user would see, not what a debugger would.
    with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
        yield client


@pytest.fixture
def visitor(app: FastAPI) -> Iterator[Visitor]:
    """One more browser, with cookies of its own."""
    with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False):
        yield lambda: TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False)


@pytest.fixture
def owner(visitor: Visitor) -> TestClient:
    """The browser of a workshop's owner, where people say who they are."""
    ada = visitor()
    assert ada.post("/api/me", json=OWNER).status_code == 204
    return ada


__all__ = ["database_url", "engine", "sessions"]
