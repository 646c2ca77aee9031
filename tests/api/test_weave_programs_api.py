"""Weave programs to choose from, over HTTP."""

from fastapi.testclient import TestClient


def programs(client: TestClient) -> list[tuple[str, int, bool]]:
    return [(p["program"], p["base_wires"], p["own"]) for p in client.get("/api/weave-programs").json()]


def test_own_programs_are_kept_once_and_forgotten(client: TestClient) -> None:
    usual = programs(client)
    assert ("A3 AB1", 2, False) in usual and ("AB2 BC2", 3, False) in usual
    mine = {"program": "a4, ab2", "base_wires": 2}
    for _ in range(2):
        assert client.post("/api/weave-programs", json=mine).status_code == 204
    assert client.post("/api/weave-programs", json={"program": "A3 AB1", "base_wires": 2}).status_code == 204
    assert programs(client) == [*usual, ("A4 AB2", 2, True)]
    assert client.post("/api/weave-programs/forget", json=mine).status_code == 204
    assert programs(client) == usual


def test_a_program_that_cant_be_woven_isnt_kept(client: TestClient) -> None:
    refused = client.post("/api/weave-programs", json={"program": "A3 C1", "base_wires": 2})
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"] == "program"
    assert "character 4" in refused.json()["errors"][0]["reason"]
