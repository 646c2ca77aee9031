"""Saved rings over HTTP."""

import io
import json
import zipfile
from typing import Any

import pytest
from fastapi.testclient import TestClient

from pliant_coil.web_api.app import create_app
from pliant_coil.web_api.settings import Settings
from tests.core.recipes import AMBER_MEADOW


@pytest.fixture
def saved(client: TestClient) -> dict[str, Any]:
    made = client.post("/api/rings", json=AMBER_MEADOW)
    assert made.status_code == 201
    body: dict[str, Any] = made.json()
    return body


def test_saves_reads_lists_and_exports(client: TestClient, saved: dict[str, Any]) -> None:
    address = f"/api/rings/{saved['id']}"
    assert client.get(address).json() == saved
    assert saved["file"]["finger"] == {"size": "US 6 1/2"}
    listed = client.get("/api/rings", params={"q": "meadow"}).json()
    assert listed["total"] == 1 and listed["rings"][0]["sentence"].startswith("US 6 1/2, soft copper, 20 AWG")
    file = client.get(f"{address}/file")
    assert file.headers["content-disposition"] == 'attachment; filename="amber-meadow-ring.ring.json"'
    again = client.post("/api/rings", content=file.content, headers={"content-type": "application/json"}).json()
    assert again["file"] == saved["file"] and again["id"] != saved["id"]


def test_a_conflict_shows_what_stands_there(client: TestClient, saved: dict[str, Any]) -> None:
    address = f"/api/rings/{saved['id']}"
    mine = {"file": {**AMBER_MEADOW, "title": "Mine"}, "base_revision": 1}
    assert client.put(address, json=mine).json()["revision"] == 2
    theirs = client.put(address, json={**mine, "file": {**AMBER_MEADOW, "title": "Theirs"}})
    assert theirs.status_code == 409
    assert theirs.json()["current"]["file"]["title"] == "Mine"
    assert client.get(address).json()["file"]["title"] == "Mine"
    assert client.get(f"{address}/revisions/1").json()["file"]["title"] == "Amber meadow ring"
    assert [r["number"] for r in client.get(f"{address}/revisions").json()] == [2, 1]


def test_delete_undo_and_copy(client: TestClient, saved: dict[str, Any]) -> None:
    address = f"/api/rings/{saved['id']}"
    assert client.delete(address).status_code == 204
    gone = client.get(address)
    assert gone.status_code == 404 and "no such ring" in gone.json()["errors"][0]["reason"]
    assert client.post(f"{address}/restore").status_code == 200
    assert client.post(f"{address}/duplicate").json()["file"]["title"] == "Amber meadow ring (copy)"


@pytest.mark.parametrize("title", ["'; drop table ring; --", "<script>alert(1)</script>", "honey 🐝 “amber” \u202e", "Bee\x00s", "100 %_"])
def test_titles_are_only_text(client: TestClient, title: str) -> None:
    kept = client.post("/api/rings", json={"title": title})
    assert kept.status_code == 201
    assert client.get(f"/api/rings/{kept.json()['id']}").json()["file"]["title"] == title.replace("\x00", " ")


def test_a_ring_that_cant_be_made_isnt_saved(client: TestClient, saved: dict[str, Any]) -> None:
    bad = {"finger": {"size": "US 99"}}
    for refused in (client.post("/api/rings", json=bad), client.put(f"/api/rings/{saved['id']}", json={"file": bad, "base_revision": 1})):
        assert refused.status_code == 422
        assert refused.json()["errors"][0]["field"] == "finger.size"
    assert client.get("/api/rings").json()["total"] == 1


@pytest.mark.parametrize("query", [{"limit": 0}, {"limit": "many"}, {"after": "first"}, {"q": "x" * 500}])
def test_bad_lists_are_refused(client: TestClient, query: dict[str, Any]) -> None:
    assert client.get("/api/rings", params=query).status_code == 422
    assert client.get("/api/rings", params={"q": "\x00"}).status_code == 200


def test_without_the_database_it_plans_and_says_so() -> None:
    app = create_app(Settings(database_url="postgresql://nobody@127.0.0.1:1/nothing"))
    with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
        health = client.get("/api/health")
        assert (health.status_code, health.json()) == (503, {"status": "no-database"})
        assert client.get("/api/health/live").status_code == 200
        refused = client.post("/api/rings", json=AMBER_MEADOW)
        assert refused.status_code == 503
        assert "look whether it was saved" in refused.json()["errors"][0]["reason"]
        assert refused.headers["retry-after"] == "2"
        assert client.post("/api/plan", json=AMBER_MEADOW).status_code == 200


def test_health_and_unknown_addresses(client: TestClient) -> None:
    for path in ("health", "health/ready", "health/live"):
        assert client.get(f"/api/{path}").json() == {"status": "ok"}
    assert client.get("/api/nothing").status_code == 404
    assert client.get("/api/me").json()["here"]["name"] == "Fernhill Bench"


def test_a_ring_sent_twice_is_saved_once(client: TestClient) -> None:
    """An answer was lost on the way: the same key finds the ring that was saved, whatever stands in it by now."""
    key = {"idempotency-key": "6f1c7b1e-5a52-4c3c-9b70-0c9f4b6a1d11"}
    first = client.post("/api/rings", json={"title": "Once"}, headers=key)
    again = client.post("/api/rings", json={"title": "Once"}, headers=key)
    other = client.post("/api/rings", json={"title": "Once"}, headers={"idempotency-key": "6f1c7b1e-5a52-4c3c-9b70-0c9f4b6a1d12"})
    assert first.json()["id"] == again.json()["id"] != other.json()["id"]
    assert client.get("/api/rings").json()["total"] == 2


def test_deleted_rings_are_listed_and_taken_back(client: TestClient) -> None:
    ring = client.post("/api/rings", json={"title": "Away"}).json()["id"]
    client.delete(f"/api/rings/{ring}")
    assert client.get("/api/rings").json()["total"] == 0
    assert [r["id"] for r in client.get("/api/rings", params={"deleted": True}).json()["rings"]] == [ring]
    client.post(f"/api/rings/{ring}/restore")
    assert client.get("/api/rings", params={"deleted": True}).json()["total"] == 0


def test_a_search_finds_fractions_as_they_are_shown_and_takes_eight_words(client: TestClient) -> None:
    client.post("/api/rings", json={"title": "Half", "finger": {"size": "US 6 1/2"}})
    assert client.get("/api/rings", params={"q": "6½"}).json()["total"] == 1
    refused = client.get("/api/rings", params={"q": "a b c d e f g h i"})
    assert refused.status_code == 422 and refused.json()["errors"][0]["field"] == "q"


def test_other_hosts_names_and_other_pages_writes_are_refused(client: TestClient) -> None:
    """A page of somebody else's, under a name of theirs that leads to this machine, reads and changes nothing."""
    assert client.get("/api/rings", headers={"host": "rings.example"}).status_code == 403
    elsewhere = {"origin": "http://rings.example"}
    assert client.post("/api/rings", json={"title": "Theirs"}, headers=elsewhere).status_code == 403
    for site in ("cross-site", "same-site"):
        assert client.post("/api/rings", json={"title": "Theirs"}, headers={"sec-fetch-site": site}).status_code == 403
    assert client.post("/api/rings", json={"title": "Ours"}, headers={"origin": "http://127.0.0.1"}).status_code == 201
    told = client.get("/api/rings", headers=elsewhere)
    assert told.json()["total"] == 1
    assert "access-control-allow-origin" not in told.headers
    assert told.headers["x-content-type-options"] == "nosniff"
    assert "default-src 'self'" in told.headers["content-security-policy"]


def test_a_save_and_a_copy_sent_twice_are_done_once(client: TestClient, saved: dict[str, Any]) -> None:
    address, key = f"/api/rings/{saved['id']}", {"idempotency-key": "6f1c7b1e-5a52-4c3c-9b70-0c9f4b6a1d13"}
    body = {"file": {**AMBER_MEADOW, "title": "Later"}, "base_revision": 1}
    answers = [client.put(address, json=body, headers=key) for _ in range(2)]
    assert [a.status_code for a in answers] == [200, 200] and answers[0].json() == answers[1].json()
    assert client.get(address).json()["revision"] == 2
    copies = [client.post(f"{address}/duplicate", headers=key).json()["id"] for _ in range(2)]
    assert copies[0] == copies[1] and client.get("/api/rings").json()["total"] == 2


def test_what_was_saved_meanwhile_isnt_deleted_unseen(client: TestClient, saved: dict[str, Any]) -> None:
    address = f"/api/rings/{saved['id']}"
    client.put(address, json={"file": {**AMBER_MEADOW, "title": "Newer"}, "base_revision": 1})
    refused = client.delete(address, params={"base_revision": 1})
    assert refused.status_code == 409 and refused.json()["current"]["file"]["title"] == "Newer"
    assert client.delete(address, params={"base_revision": 2}).status_code == 204


def test_pages_follow_each_other_while_rings_are_added(client: TestClient) -> None:
    for n in range(7):
        client.post("/api/rings", json={"title": f"Ring {n}"})
    seen: list[str] = []
    page = client.get("/api/rings", params={"limit": 3}).json()["rings"]
    while page:
        seen += [ring["title"] for ring in page]
        client.post("/api/rings", json={"title": "In between"})
        page = client.get("/api/rings", params={"limit": 3, "after": page[-1]["id"]}).json()["rings"]
    assert seen == [f"Ring {n}" for n in range(6, -1, -1)]


def test_a_whole_workshop_goes_out_and_comes_back(client: TestClient) -> None:
    titles = ["=1+1", "Bienenkönigin 蜂", "Third"]
    for title in titles:
        client.post("/api/rings", json={"title": title, "notes": "n"})
    out = client.get("/api/workshop/archive")
    assert out.headers["content-disposition"].startswith('attachment; filename="fernhill-bench-')
    with zipfile.ZipFile(io.BytesIO(out.content)) as files:
        table = files.read("rings.csv").decode()
        assert "'=1+1" in table, "a spreadsheet takes no title for a formula"
        packed = io.BytesIO()
        with zipfile.ZipFile(packed, "w") as changed:
            for name in files.namelist():
                changed.writestr(name, files.read(name))
            changed.writestr("rings/broken.ring.json", '{"finger": {"size": "US 99"}}')
    zip_type = {"content-type": "application/zip"}
    told = json.loads(client.post("/api/workshop/archive", content=packed.getvalue(), headers=zip_type).text.splitlines()[-1])
    assert told["rings"] == 3
    assert told["refused"][0]["name"] == "broken.ring.json" and "finger.size" in told["refused"][0]["reason"]
    listed = [ring["title"] for ring in client.get("/api/rings").json()["rings"]]
    assert listed == titles[::-1] * 2, "in the order in which they were"
    for wrong in (b"no archive", b""):
        assert client.post("/api/workshop/archive", content=wrong, headers=zip_type).status_code == 422


def test_requests_are_counted_by_their_route(client: TestClient, saved: dict[str, Any]) -> None:
    client.get(f"/api/rings/{saved['id']}")
    told = client.get("/api/metrics").text
    assert 'pliant_coil_requests_total{method="GET",route="/rings/{ring_id}",status="200"}' in told
    assert saved["id"] not in told, "addresses are nobody else's business"


def test_the_answer_to_a_save_is_what_is_read_later(client: TestClient) -> None:
    """Also of a wire that is given in part: a page that compares them sees no change that nobody made."""
    draft = {"band": {"style": "bundled"}, "wires": {"base": {"diameter": "1 mm"}}}
    made = client.post("/api/rings", json=draft).json()
    assert client.get(f"/api/rings/{made['id']}").json()["file"] == made["file"]
    saved = client.put(f"/api/rings/{made['id']}", json={"file": {**draft, "title": "Again"}, "base_revision": 1}).json()
    assert client.get(f"/api/rings/{made['id']}").json()["file"] == saved["file"]
    assert saved["file"]["wires"] == {"base": {"diameter": "1 mm"}} and saved["file"]["taken"]["wires"]["base"]["profile"] == "square"


IN_PART: list[dict[str, object]] = [
    {"band": {"style": "bundled"}, "wires": {"base": {"diameter": "1 mm"}}},
    {"band": {"style": "woven"}, "wires": {"weave": {"diameter": "0.3 mm"}}},
    {"band": {"style": "woven", "close": "eyes"}, "head": {"style": "spiked-disc"}, "wires": {"sew": {"metal": "brass"}}},
    {"head": {"style": "loop-rosette"}, "wires": {"tie": {"from_reel": True}, "band": {"temper": "half-hard"}}},
    {"version": 1, "band": {"style": "woven"}, "wires": {"weave": {"diameter": "0.35 mm"}}},
]


@pytest.mark.parametrize("draft", IN_PART)
def test_one_ring_on_every_way_in_and_out(client: TestClient, draft: dict[str, object]) -> None:
    """Saved, revised and restored, copied, exported and imported, packed and unpacked, at the bench and several at once: one plan."""
    told = client.post("/api/plan", json=draft).json()
    made = client.post("/api/rings", json=draft).json()
    address = f"/api/rings/{made['id']}"
    client.put(address, json={"file": {}, "base_revision": 1})
    client.put(address, json={"file": client.get(f"{address}/revisions/1").json()["file"], "base_revision": 2})
    job = client.post("/api/jobs", json=draft).json()["id"]
    batch = client.post("/api/batches", json={"file": draft, "kind": "by_ring", "rings": [{"size": "US 7"}]}).json()["id"]
    [bench] = client.get(f"/api/batches/{batch}").json()["benches"]
    packed = client.get("/api/workshop/archive").content
    assert client.post("/api/workshop/archive", content=packed).status_code == 200
    [brought] = [ring for ring in client.get("/api/rings").json()["rings"] if ring["id"] != made["id"]]
    files = {
        "saved": made["file"],
        "restored": client.get(address).json()["file"],
        "copied": client.post(f"{address}/duplicate").json()["file"],
        "exported": client.get(f"{address}/file").json(),
        "at the bench": client.get(f"/api/jobs/{job}").json()["file"],
        "one of several": client.get(f"/api/jobs/{bench['job_id']}").json()["file"],
        "unpacked": client.get(f"/api/rings/{brought['id']}").json()["file"],
    }
    for way, file in files.items():
        again = client.post("/api/plan", json=file).json()
        assert again["wires"] == told["wires"] and again["sentence"][1:] == told["sentence"][1:], way
