"""./people: who works here, and links that let in whoever can't get in any more."""

import os
import subprocess
import sys
from pathlib import Path

from fastapi.testclient import TestClient
from sqlalchemy import text

from pliant_coil.services.people import People
from pliant_coil.services.scope import alone
from pliant_coil.services.workshop import DEMO_SLUG
from pliant_coil.store.database import Sessions
from pliant_coil.web_api.app import create_app
from pliant_coil.web_api.settings import Settings
from tests.database import database_url, engine, sessions

ROOT = Path(__file__).parents[2]
WORDS = "amber kettle north violin"


def people(url: str, *words: str) -> subprocess.CompletedProcess[str]:
    command = [sys.executable, "-m", "tools.people", *words]
    return subprocess.run(command, cwd=ROOT, env={**os.environ, "DATABASE_URL": url}, capture_output=True, text=True, check=False)


def test_an_owner_comes_in_by_the_terminals_link(database_url: str, sessions: Sessions) -> None:
    made = people(database_url, "owner")
    assert made.returncode == 0, made.stderr
    address, _, token = made.stdout.strip().partition("#")
    assert address.endswith("/join")
    with TestClient(create_app(Settings(database_url=database_url)), base_url="http://127.0.0.1") as browser:
        assert browser.post("/api/links/take", json={"token": token, "name": "Ada", "password": WORDS}).status_code == 204
        assert browser.get("/api/me").json()["here"]["role"] == "owner"
    assert people(database_url).stdout.split() == ["owner", "Ada"]


def test_a_lost_password(database_url: str, sessions: Sessions) -> None:
    People(sessions, alone(sessions, DEMO_SLUG)).first("Ada Fernhill", WORDS)
    made = people(database_url, "password", "ada", "fernhill")
    assert made.returncode == 0 and "works once" in made.stderr
    with TestClient(create_app(Settings(database_url=database_url)), base_url="http://127.0.0.1") as browser:
        token = made.stdout.strip().partition("#")[2]
        assert browser.post("/api/links/look", json={"token": token}).json()["for_whom"] == "Ada Fernhill"


def test_what_cant_be_done_is_said_in_one_line(database_url: str, sessions: Sessions) -> None:
    for words, told in ((("password", "Nobody"), "nobody called Nobody"), (("--workshop", "elsewhere", "owner"), "fernhill-bench")):
        refused = people(database_url, *words)
        assert refused.returncode == 1 and told in refused.stderr and len(refused.stderr.splitlines()) == 1
    with sessions.begin() as session:
        assert session.execute(text("select count(*) from invitation")).scalar() == 0
    assert "Traceback" not in people("postgresql://nobody@127.0.0.1:1/nothing").stderr


__all__ = ["database_url", "engine", "sessions"]
