"""What outlives a right, who is kept out, and what a key, a name and a host stand for: each over all of its kind."""

import itertools
from typing import Any
from uuid import uuid4

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from sqlalchemy import inspect, text
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.exc import IntegrityError

from pliant_coil.services.devices_known import MOST_NAMES, known_device, with_name
from pliant_coil.services.tables import csv_text
from pliant_coil.store.database import Sessions
from pliant_coil.store.models import Base
from tests.api.test_logbook_api import picture
from tests.api.test_workshops import another_workshop
from tests.api.visitors import OWNER, WORDS, Visitor, invited

CHANGES = ("demoted to maker", "demoted to viewer", "removed", "joins next door")


def person(owner: TestClient, name: str) -> str:
    return str(next(each["id"] for each in owner.get("/api/people").json()["members"] if each["name"] == name))


def dead(visitor: Visitor, link: dict[str, Any]) -> bool:
    """Whether a link is no use any more, to look at or to take."""
    body = {"token": link["token"], "name": f"Guest {uuid4().hex[:6]}", "password": f"{WORDS} guest"}
    return {visitor().post(f"/api/links/{way}", json=body).status_code for way in ("look", "take")} == {404}


@pytest.mark.parametrize("change", CHANGES)
def test_no_link_outlives_a_change_of_the_right_of_whose_it_is(owner: TestClient, visitor: Visitor, change: str) -> None:
    """Every link that somebody made, of every role, and every link to a password of theirs."""
    bea = visitor()
    invited(owner, bea, "Bea", "owner")
    made = [bea.post("/api/links", json={"role": role}).json() for role in ("owner", "maker", "viewer")]
    password = owner.post(f"/api/people/{person(owner, 'Bea')}/link").json()
    others = owner.post("/api/links", json={"role": "maker"}).json()
    if change == "removed":
        owner.delete(f"/api/people/{person(owner, 'Bea')}")
    elif change.startswith("demoted"):
        owner.put(f"/api/people/{person(owner, 'Bea')}", json={"role": change.rpartition(" ")[2]})
    else:
        with another_workshop(owner, visitor) as next_door:
            link = next_door.post("/api/links", json={"role": "maker"}).json()
            taken = bea.post("/api/links/take", json={"token": link["token"], "name": "Bea", "password": f"Bea {WORDS}"})
            assert taken.status_code == 204
    assert dead(visitor, password)
    if change != "joins next door":
        assert all(dead(visitor, link) for link in made)
    assert not dead(visitor, others), "what others made still works"


def test_guesses_from_anywhere_keep_nobody_out_who_was_here_before(owner: TestClient, visitor: Visitor) -> None:
    """From changing addresses: the owner's own browser signs in, and changes the password, with 200 wrong ones for the name."""
    home = visitor()
    assert home.post("/api/sign-in", json=OWNER).status_code == 204
    for n in range(20):
        # Each from an address of its own, as the proxy tells it.
        visitor().post("/api/sign-in", json={**OWNER, "password": f"wrong {n}"}, headers={"x-forwarded-for": f"203.0.113.{n}"})
    assert visitor().post("/api/sign-in", json=OWNER).status_code == 429, "an unknown browser waits"
    assert home.put("/api/me/password", json={"current": WORDS, "password": f"{WORDS} zinc"}).status_code == 204
    home.post("/api/sign-out")
    assert home.post("/api/sign-in", json={**OWNER, "password": f"{WORDS} zinc"}).status_code == 204
    for n in range(6):
        refused = home.post("/api/sign-in", json={**OWNER, "password": f"wrong {n}"}).status_code
    assert refused == 429, "and it is slowed down itself when it guesses"


def test_what_a_browser_keeps_is_signed_for_each_name() -> None:
    key, kept = b"k" * 32, None
    for n in range(MOST_NAMES + 3):
        kept = with_name(key, kept, f"maker {n}")
    device = kept.partition(".")[0] if kept else ""
    assert known_device(key, kept, f"maker {MOST_NAMES + 2}") == device != ""
    assert known_device(key, kept, "maker 0") == "", "the first ones were let go"
    assert known_device(key, kept, "somebody else") == known_device(b"other" * 8, kept, "maker 5") == ""
    for forged in (None, "", device, f"{device}.", f"{device}.ff", "x" * 5000, "\u00e9.\u00e9"):
        assert known_device(key, forged, "maker 5") == ""


KEYED: list[tuple[str, str, dict[str, Any], dict[str, Any]]] = [
    ("post", "/api/rings", {"title": "One"}, {"title": "Another"}),
    ("put", "/api/rings/{ring}", {"file": {"title": "One"}, "base_revision": 1}, {"file": {"title": "Another"}, "base_revision": 1}),
    ("post", "/api/jobs", {"title": "One"}, {"title": "Another"}),
    (
        "post",
        "/api/batches",
        {"file": {}, "kind": "class", "rings": [{"size": "US 7"}]},
        {"file": {}, "kind": "class", "rings": [{"size": "US 8"}]},
    ),
]


@pytest.mark.parametrize(("method", "path", "one", "another"), KEYED, ids=[path for _, path, _, _ in KEYED])
def test_a_key_stands_for_one_body(client: TestClient, method: str, path: str, one: dict[str, Any], another: dict[str, Any]) -> None:
    address = path.format(ring=client.post("/api/rings", json={}).json()["id"])
    key = {"idempotency-key": str(uuid4())}
    first = client.request(method, address, json=one, headers=key)
    assert first.is_success
    assert client.request(method, address, json=one, headers=key).json() == first.json()
    refused = client.request(method, address, json=another, headers=key)
    assert refused.status_code == 422 and refused.json()["errors"][0]["field"] == "idempotency-key"


def test_a_photos_name_stands_for_one_photo_of_one_ring_in_each_workshop(owner: TestClient, visitor: Visitor, sessions: Sessions) -> None:
    jobs = [owner.post("/api/jobs", json={}).json()["id"] for _ in range(2)]
    key = {"idempotency-key": str(uuid4())}
    assert owner.post(f"/api/jobs/{jobs[0]}/photos", content=picture(), headers=key).status_code == 201
    assert owner.post(f"/api/jobs/{jobs[0]}/photos", content=picture(), headers=key).status_code == 201
    assert owner.post(f"/api/jobs/{jobs[1]}/photos", content=picture(), headers=key).status_code == 422
    assert owner.post(f"/api/jobs/{jobs[0]}/photos", content=picture() + b" ", headers=key).status_code == 422
    with another_workshop(owner, visitor) as next_door:
        theirs = next_door.post("/api/jobs", json={}).json()["id"]
        assert next_door.post(f"/api/jobs/{theirs}/photos", content=picture(), headers=key).status_code == 201
        with pytest.raises(IntegrityError), sessions.begin() as session:
            session.execute(text("update photo set job_id = :job where job_id = :theirs"), {"job": jobs[0], "theirs": theirs})


def test_every_part_belongs_to_a_whole_of_its_own_workshop() -> None:
    tables = Base.metadata.tables
    crossing = [
        (name, key.column_keys)
        for name, table in tables.items()
        for key in table.foreign_key_constraints
        if "workshop_id" in table.c and "workshop_id" in key.referred_table.c and key.referred_table.name != "workshop"
        and "workshop_id" not in key.column_keys
    ]  # fmt: skip
    assert not crossing
    parts = [key for table in tables.values() for key in table.foreign_key_constraints if len(key.column_keys) == 2]
    assert len(parts) == 5


def test_nothing_is_kept_as_jsons_null() -> None:
    columns = [c for mapper in Base.registry.mappers for c in inspect(mapper.class_).columns if isinstance(c.type, JSONB)]
    assert len(columns) > 5
    assert all(column.type.none_as_null for column in columns if column.nullable)


def test_a_caliper_is_heard_in_the_workshop_of_its_machine_only(app: FastAPI, owner: TestClient, visitor: Visitor) -> None:
    app.state.settings.devices = {"caliper": "127.0.0.1:9"}
    assert [device["name"] for device in owner.get("/api/devices").json()] == ["caliper"]
    with another_workshop(owner, visitor) as next_door:
        assert next_door.get("/api/devices").json() == []
        assert next_door.get("/api/devices/readings").status_code == 404
        assert next_door.post("/api/devices/caliper/press", json={"text": "1 mm"}).status_code == 404


@pytest.mark.parametrize("host", ["127.0.0.1", "LOCALHOST", "localhost.", "LocalHost.:8420", "[::1]:8420"])
def test_a_host_is_known_however_it_is_written(client: TestClient, host: str) -> None:
    assert client.get("/api/version", headers={"host": host}).status_code == 200


@pytest.mark.parametrize("origin", ["http://[", "null", "http://127.0.0.1.evil.example", "https://localhost.", "http://127.0.0.1:1"])
def test_an_origin_that_isnt_ours_writes_nothing(client: TestClient, origin: str) -> None:
    assert client.post("/api/rings", json={}, headers={"origin": origin}).status_code == 403


BEFORE = ("", " ", "\t", "\r\n", "\u00a0", "\u200b", "\ufeff", "\u2003", ",", ";", '"', "'", "\x00", " \u202e;")


@pytest.mark.parametrize(("before", "sign"), list(itertools.product(BEFORE, "=+-@\uff1d\uff0b\uff0d\uff20")))
def test_no_cell_is_reckoned_with(before: str, sign: str) -> None:
    cell = f"{before}{sign}1+1"
    assert f"'{before.split(chr(13))[0]}" in csv_text(("title",), [[cell]]), repr(cell)
    assert csv_text(("title",), [["5 - 3"], [-4], ["a=b"]]).splitlines()[1:] == ["5 - 3", "-4", "a=b"]


def test_a_person_takes_what_is_kept_of_them_along_and_is_forgotten(owner: TestClient, visitor: Visitor) -> None:
    bea = visitor()
    invited(owner, bea, "Bea", "maker")
    ring = bea.post("/api/rings", json={"title": "Clover"}).json()
    mine = bea.get("/api/me/export").json()
    assert (mine["name"], mine["workshops"], [r["title"] for r in mine["revisions"]]) == (
        "Bea",
        [{"workshop": "Fernhill Bench", "role": "maker"}],
        ["Clover"],
    )
    assert owner.post("/api/me/erase", json={"password": WORDS}).status_code == 422, "a workshop with others in it keeps an owner"
    assert bea.post("/api/me/erase", json={"password": "not hers at all"}).status_code == 422
    assert bea.post("/api/me/erase", json={"password": f"Bea {WORDS}"}).status_code == 204
    assert bea.get("/api/me").status_code == 401
    assert visitor().post("/api/sign-in", json={"name": "Bea", "password": f"Bea {WORDS}"}).status_code == 422
    assert owner.get(f"/api/rings/{ring['id']}").json()["saved_by"] == "somebody"
    assert [each["name"] for each in owner.get("/api/people").json()["members"]] == ["Ada Fernhill"]
