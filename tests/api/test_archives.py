"""A workshop's archive: whole on the way out and in, and whatever else is sent for one does no harm."""

import io
import json
import random
import zipfile
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from tests.api.test_jobs_api import event, tell
from tests.api.test_logbook_api import picture
from tests.api.test_workshops import another_workshop
from tests.api.visitors import Visitor

ZIP = {"content-type": "application/zip"}


def sent(client: TestClient, packed: bytes) -> list[dict[str, Any]]:
    """What is told while an archive comes in."""
    answer = client.post("/api/workshop/archive", content=packed, headers=ZIP)
    assert answer.status_code == 200, answer.text
    return [json.loads(line) for line in answer.text.splitlines()]


def zipped(files: dict[str, bytes | str], how: int = zipfile.ZIP_DEFLATED) -> bytes:
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", how) as archive:
        for name, content in files.items():
            archive.writestr(name, content)
    return packed.getvalue()


def filled(client: TestClient) -> str:
    """A workshop with something of everything; returns the job that has ended."""
    client.post("/api/rings", json={"title": "Clover"})
    client.post("/api/mandrels", json={"name": "the grooved one", "kind": "grooved", "marks": [{"mark": "US 6", "measured_mm": 16.6}]})
    client.post("/api/weave-programs", json={"program": "A4 AB2", "base_wires": 2})
    client.post("/api/batches", json={"file": {}, "kind": "class", "rings": [{"size": "US 7", "for_whom": "Wren"}, {"size": "US 8"}]})
    job = str(client.post("/api/jobs", json={"title": "Finished"}).json()["id"])
    tell(client, job, event("note", task="cut", text="springy"), event("finished", size_mm=17.3, left_mm={"band": 20}))
    client.post(f"/api/jobs/{job}/photos", content=picture(), headers={"idempotency-key": str(uuid4())})
    csv = "title,size,cut,left\nOld,US 7,200,20\n"
    client.post("/api/notebook", content=csv, headers={"content-type": "text/csv"})
    return job


def shown(client: TestClient) -> dict[str, Any]:
    """All that a workshop shows, without what is new about it: ids, and when it came in."""
    jobs = client.get("/api/jobs", params={"limit": 100}).json()["jobs"] + client.get("/api/jobs?ended=true&limit=100").json()["jobs"]
    notes = [client.get(f"/api/jobs/{job['id']}").json()["progress"]["notes"] for job in jobs if "notebook" not in job["sentence"]]
    photos = [client.get(f"/api/jobs/{job['id']}/photos").json() for job in jobs]
    return {
        "rings": [(ring["title"], ring["sentence"]) for ring in client.get("/api/rings").json()["rings"]],
        "jobs": sorted((j["title"], j["state"], j["for_whom"], j["ended_at"], json.dumps(j["record"])) for j in jobs),
        "notes": sorted(notes),
        "records": client.get("/api/jobs/records.csv").text,
        "photos": sorted((p["width"], p["created_at"]) for of in photos for p in of),
        "mandrels": [(m["name"], m["kind"]) for m in client.get("/api/mandrels").json()],
        "programs": [p["program"] for p in client.get("/api/weave-programs").json()],
        "batches": [(b["title"], b["kind"]) for b in client.get("/api/batches").json()],
    }


def test_a_whole_workshop_comes_back_whole(owner: TestClient, visitor: Visitor) -> None:
    filled(owner)
    packed = owner.get("/api/workshop/archive").content
    with another_workshop(owner, visitor) as next_door:
        told = sent(next_door, packed)[-1]
        assert told["done"] and not told["refused"] and (told["rings"], told["records"], told["photos"]) == (1, 4, 1)
        assert shown(next_door) == shown(owner)
        again = sent(next_door, packed)[-1]
        assert (again["records"], again["photos"], again["known"]) == (0, 0, 5), "records are taken in once"


def test_progress_is_told_and_what_came_in_before_it_is_broken_off_stays(client: TestClient) -> None:
    lines = sent(client, zipped({f"rings/{n}.ring.json": json.dumps({"title": f"Ring {n}"}) for n in range(100)}))
    assert [(line["read"], line["done"]) for line in lines] == [(40, False), (80, False), (100, False), (100, True)]
    assert client.get("/api/rings").json()["total"] == 100


BOMB = b'{"title": "' + b" " * 58_000_000 + b'"}'


@pytest.mark.parametrize(
    ("name", "content"),
    [
        ("bomb.ring.json", BOMB),
        ("deep.ring.json", b"[" * 90_000 + b"]" * 90_000),
        ("number.ring.json", b'{"finger": {"around_finger_mm": 1' + b"0" * 5000 + b"}}"),
        ("latin.ring.json", '{"title": "Bienenk\xf6nigin"}'.encode("latin-1")),
        ("list.ring.json", b"[1, 2]"),
        ("style.ring.json", b'{"version": 1, "band": {"style": ["woven"]}, "head": {"style": {}}}'),
        ("nothing.record.json", b"{}"),
        ("state.record.json", b'{"id": "5b0c4c1e-7d0e-4f0a-8a51-0f6f2b8b7a41", "state": "boiled"}'),
        ("photo.photo.jpg", b"no picture"),
        ("mandrels.json", b'[{"name": "x", "kind": "tapered", "marks": [{"mark": 1}]}]'),
        ("weave-programs.json", b'[{"program": "Z9", "base_wires": 2}]'),
    ],
    ids=lambda given: given if isinstance(given, str) else "",
)
def test_a_bad_file_is_named_and_the_good_ones_come_in(client: TestClient, name: str, content: bytes) -> None:
    told = sent(client, zipped({"first.ring.json": "{}", name: content, "last.ring.json": "{}"}))[-1]
    assert told["rings"] == 2
    # A photo without a record is none that is missed.
    assert [refused["name"] for refused in told["refused"]] == ([] if name.endswith(".jpg") else [name])


def test_hundreds_of_mutated_archives_are_answered(client: TestClient) -> None:
    filled(client)
    whole, rnd = client.get("/api/workshop/archive").content, random.Random(4)
    answers = {200: 0, 422: 0}
    for _ in range(300):
        broken = bytearray(whole)
        for _ in range(rnd.choice((1, 3, 20))):
            broken[rnd.randrange(len(broken))] = rnd.randrange(256)
        if rnd.random() < 0.2:
            del broken[rnd.randrange(len(broken)) :]
        answer = client.post("/api/workshop/archive", content=bytes(broken), headers=ZIP)
        answers[answer.status_code] += 1
        if answer.status_code == 200:
            assert json.loads(answer.text.splitlines()[-1])["done"]
    assert answers[200] > 50 and answers[422] > 50, answers


def test_an_archive_of_more_files_than_a_workshop_has_is_refused_before_it_is_read(client: TestClient) -> None:
    packed = zipped({f"{n}.ring.json": "" for n in range(20_001)}, zipfile.ZIP_STORED)
    answer = client.post("/api/workshop/archive", content=packed, headers=ZIP)
    assert answer.status_code == 422 and "more files" in answer.json()["errors"][0]["reason"]
