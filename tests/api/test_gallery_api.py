"""The gallery over HTTP."""

from fastapi.testclient import TestClient


def test_the_gallery_is_planned_at_the_asked_size(client: TestClient) -> None:
    answer = client.get("/api/gallery", params={"size": "UK M", "units": "in", "sizes": "uk,us"})
    assert answer.status_code == 200
    entries = answer.json()["entries"]
    assert {entry["kind"] for entry in entries} == {"band", "head"}
    assert all(entry["picture"]["lines"] and entry["ring"]["band"] for entry in entries)
    assert "max-age" in answer.headers["cache-control"]


def test_a_size_that_cant_be_read_is_refused_at_its_field(client: TestClient) -> None:
    answer = client.get("/api/gallery", params={"size": "large"})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "size"


def test_each_entry_can_be_planned_as_it_stands(client: TestClient) -> None:
    for entry in client.get("/api/gallery").json()["entries"]:
        body = {**entry["ring"], "finger": {"size": "US 7"}}
        assert client.post("/api/plan", json=body).status_code == 200, entry["style"]
