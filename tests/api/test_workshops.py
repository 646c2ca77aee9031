"""Workshops of one server: nothing of one is found from another, at any address and in the database itself."""

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any
from uuid import UUID, uuid4

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from sqlalchemy import text

from pliant_coil.store import workshops
from pliant_coil.store.database import Sessions
from tests.api.test_logbook_api import picture
from tests.api.visitors import Visitor, invited


@contextmanager
def another_workshop(owner: TestClient, visitor: Visitor) -> Iterator[TestClient]:
    """The owner of a second workshop of the same server, and of nothing else."""
    gate = visitor()
    opened = owner.post("/api/workshops", json={"name": "Next door"}).json()["workshop_id"]
    here = owner.get("/api/me").json()["here"]["workshop_id"]
    owner.put("/api/me/workshop", json={"workshop_id": opened})
    invited(owner, gate, "Nora", "owner")
    owner.put("/api/me/workshop", json={"workshop_id": here})
    yield gate


STEP = {"kind": "step_on", "id": str(uuid4()), "device": "tablet", "at": "2026-11-25T12:00:00Z", "task": "cut"}
BODIES: dict[tuple[str, str], dict[str, Any]] = {
    ("put", "/api/rings/{ring_id}"): {"file": {}, "base_revision": 1},
    ("post", "/api/jobs/{job_id}/events"): {"events": [STEP]},
    ("post", "/api/devices/{name}/press"): {"text": "1 mm"},
    ("put", "/api/people/{person_id}"): {"role": "viewer"},
    ("put", "/api/me/workshop"): {"workshop_id": None},
}
PHOTOS = {("post", "/api/jobs/{job_id}/photos")}
QUERIES: dict[str, dict[str, str]] = {
    "/api/jobs/{job_id}/reading": {"task": "read", "value_mm": "17"},
    "/api/jobs/{job_id}/repair": {"reads_mm": "17", "wanted_mm": "17.2"},
    "/api/jobs/{job_id}/hammered": {"thickness_mm": "1.2", "value_mm": "17"},
    "/api/jobs/{job_id}/row": {"task": "weave", "value_mm": "17"},
    "/api/jobs/{job_id}/tail": {"piece": "band", "end": "first", "value_mm": "40"},
}


def test_another_workshops_session_finds_nothing_at_any_address(
    app: FastAPI, owner: TestClient, visitor: Visitor, sessions: Sessions
) -> None:
    """Every operation of the OpenAPI document that takes an id, asked with ids of a workshop that isn't the asker's."""
    max_ = visitor()
    invited(owner, max_, "Max", "maker")
    ids = {
        "ring_id": owner.post("/api/rings", json={}).json()["id"],
        "job_id": owner.post("/api/jobs", json={}).json()["id"],
        "person_id": next(each["id"] for each in owner.get("/api/people").json()["members"] if each["name"] == "Max"),
        "link_id": owner.post("/api/links", json={"role": "maker"}).json()["id"],
        "batch_id": owner.post("/api/batches", json={"file": {}, "kind": "class", "rings": [{"size": "US 7"}]}).json()["id"],
        "mandrel_id": _mandrel(owner),
        "photo_id": _photo(owner),
        "name": "caliper",
        "number": "1",
    }
    before = _everything(sessions)
    with another_workshop(owner, visitor) as nora:
        before_her = _everything(sessions)
        walked = 0
        for path, operations in app.openapi()["paths"].items():
            for method in operations:
                if "{" not in path and (method, path) not in BODIES:
                    continue
                body = BODIES.get((method, path))
                if body and "workshop_id" in body:
                    body = {"workshop_id": owner.get("/api/me").json()["here"]["workshop_id"]}
                sent = {"content": picture(), "headers": {"idempotency-key": str(uuid4())}} if (method, path) in PHOTOS else {"json": body}
                answer = nora.request(method, path.format(**ids), params=QUERIES.get(path, {}), **sent)
                assert answer.status_code == 404, f"{method} {path}: {answer.status_code} {answer.text[:200]}"
                assert ids["ring_id"] not in answer.text.replace(path.format(**ids), "")
                walked += 1
        assert walked >= 15
        # Lists and archives of hers hold nothing of theirs.
        assert nora.get("/api/rings").json()["total"] == nora.get("/api/jobs").json()["total"] == 0
        assert nora.get("/api/rings", params={"q": "ring"}).json() == {"rings": [], "total": 0}
        assert "Max" not in nora.get("/api/people").text
        assert nora.get("/api/batches").json() == []
        assert nora.get("/api/jobs/records.csv").text.count("\n") == 1
        assert _everything(sessions) == before_her, "and nothing was changed"
    assert set(before) == set(before_her)


def _photo(owner: TestClient) -> str:
    job = owner.get("/api/jobs").json()["jobs"][0]["id"]
    kept = owner.post(f"/api/jobs/{job}/photos", content=picture(), headers={"idempotency-key": str(uuid4())})
    return str(kept.json()["id"])


def _mandrel(owner: TestClient) -> str:
    owner.put("/api/mandrels", json={"name": "Long", "marks": [{"mark": "US 7", "measured_mm": 17.2}]})
    return str(owner.get("/api/mandrels").json()[0]["id"])


KEPT = ("ring", "ring_revision", "job", "job_event", "batch", "mandrel", "photo", "weave_program", "membership", "workshop")


def _everything(sessions: Sessions) -> dict[str, list[str]]:
    with sessions.begin() as session:
        return {table: sorted(session.execute(text(f"select t::text from {table} t")).scalars()) for table in KEPT}


def test_the_database_itself_keeps_workshops_apart(owner: TestClient, visitor: Visitor, sessions: Sessions) -> None:
    """Without a word of `where`: under a workshop's own role its rows are the only ones, for reading and for writing."""
    owner.post("/api/rings", json={})
    owner.post("/api/jobs", json={})
    theirs = UUID(owner.get("/api/me").json()["here"]["workshop_id"])
    with another_workshop(owner, visitor) as nora:
        hers = UUID(nora.get("/api/me").json()["here"]["workshop_id"])
        for place, rings in ((theirs, 1), (hers, 0), (uuid4(), 0)):
            with sessions.begin() as session:
                workshops.enter(session, place, reads_only=False)
                for table in KEPT[:4]:
                    assert session.execute(text(f"select count(*) from {table}")).scalar() == (rings if table != "job_event" else 0)
                assert len(session.scalars(text("update ring set title = 'mine now' returning id")).all()) == rings
                session.rollback()
        for statement in (
            f"insert into weave_program (id, workshop_id, program, base_wires) values (gen_random_uuid(), '{theirs}', 'A1', 2)",
            "select password_hash from person",
            "select * from sign_in",
            "select * from invitation",
            "alter table ring disable row level security",
            "update workshop set name = 'mine now'",
        ):
            with pytest.raises(Exception, match=r"permission denied|row-level security|must be owner"), sessions.begin() as session:
                workshops.enter(session, hers, reads_only=False)
                session.execute(text(statement))
        with pytest.raises(Exception, match="read-only"), sessions.begin() as session:
            workshops.enter(session, hers, reads_only=True)
            session.execute(text("delete from ring"))
