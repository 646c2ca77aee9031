"""Several rings of one plan over the API: begun once, seen side by side, and who waits for help."""

from datetime import UTC, datetime
from uuid import uuid4

from fastapi.testclient import TestClient

QUINTET = {
    "file": {"title": "Quintet", "band": {"style": "woven"}},
    "kind": "by_stage",
    "rings": [{"size": "US 7", "for_whom": "horn"}, {"size": "UK Q 1/2", "for_whom": "tuba"}, {"size": "US 5"}],
}


def test_begun_once_and_seen_side_by_side(client: TestClient) -> None:
    key = {"idempotency-key": str(uuid4())}
    batch = client.post("/api/batches", json=QUINTET, headers=key)
    assert batch.status_code == 201
    assert client.post("/api/batches", json=QUINTET, headers=key).json()["id"] == batch.json()["id"]
    assert client.get("/api/jobs").json()["total"] == 3
    assert client.get("/api/batches").json() == [batch.json()]
    board = client.get(f"/api/batches/{batch.json()['id']}", params={"sizes": "uk,us"}).json()
    assert [(b["for_whom"], b["size"]) for b in board["benches"]] == [("horn", "UK N 1/2"), ("tuba", "UK Q 1/2"), ("", "UK J 1/2")]
    assert board["stage"] == board["benches"][0]["phase"] == "wire"
    assert client.get("/api/jobs", params={"q": "horn"}).json()["jobs"][0]["batch_id"] == board["id"]


def test_a_ring_that_goes_ahead_leaves_the_stage_where_it_is(client: TestClient) -> None:
    batch = client.post("/api/batches", json=QUINTET).json()["id"]
    horn = client.get(f"/api/batches/{batch}").json()["benches"][0]["job_id"]
    steps = client.get(f"/api/jobs/{horn}").json()["plan"]["steps"]
    first = [step["id"] for step in steps if step["phase"] == "wire"]

    def tell(kind: str, task: str) -> None:
        event = {"kind": kind, "id": str(uuid4()), "device": "tablet", "at": datetime.now(UTC).isoformat(), "task": task}
        assert client.post(f"/api/jobs/{horn}/events", json={"events": [event]}).status_code == 200

    for task in first:
        tell("step_on", task)
    tell("help", first[-1])
    board = client.get(f"/api/batches/{batch}").json()
    assert board["stage"] == "wire" and board["benches"][0]["phase"] != "wire"
    assert board["benches"][0]["waits_since"] and not board["benches"][1]["waits_since"]
    assert client.get(f"/api/jobs/{horn}").json()["progress"]["waits"] is True
    tell("helped", first[-1])
    assert client.get(f"/api/batches/{batch}").json()["benches"][0]["waits_since"] is None


def test_every_line_that_cant_be_made_is_named_and_nothing_is_begun(client: TestClient) -> None:
    rings = [{"size": "US 7"}, {"size": "US 99"}, {"size": "large"}]
    refused = client.post("/api/batches", json={**QUINTET, "rings": rings})
    assert refused.status_code == 422
    assert [e["field"] for e in refused.json()["errors"]] == ["rings.1.finger.size", "rings.2.finger.size"]
    assert client.post("/api/batches", json={**QUINTET, "rings": []}).status_code == 422
    assert client.post("/api/batches", json={**QUINTET, "rings": [{"size": "US 7"}] * 41}).status_code == 422
    assert client.get("/api/jobs").json()["total"] == 0 and client.get("/api/batches").json() == []
    assert client.get(f"/api/batches/{uuid4()}").status_code == 404
