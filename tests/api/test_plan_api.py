"""Planning and sizes over HTTP: the same answers as the core's, and refusals that name the field."""

import json
from typing import Any

import pytest
from fastapi.testclient import TestClient

from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from tests.core.recipes import AMBER_MEADOW


def test_the_plan_is_the_cores(client: TestClient) -> None:
    told = client.post("/api/plan", json=AMBER_MEADOW)
    assert told.status_code == 200
    assert told.json() == plan(read_ring(AMBER_MEADOW)).document()
    assert told.json()["drawing"] is None


def test_paths_come_when_asked_for(client: TestClient) -> None:
    drawing = client.post("/api/plan?paths=true", json=AMBER_MEADOW).json()["drawing"]
    assert {strand["kind"] for strand in drawing["strands"]} == {"turns", "straight", "bend", "through", "pass", "wrap"}


@pytest.mark.parametrize(
    ("body", "field"),
    [
        (b"", ""),
        (b"{", ""),
        (b"[]", ""),
        (b"NaN", ""),
        (b"\xff\xfe", ""),
        (b"\x80", ""),
        (b'{"title": "' + b"x" * 200_000 + b'"}', "title"),
        (b'{"finger": {"size": "US 99"}}', "finger.size"),
        (b'{"finger": {"size": ""}}', "finger.size"),
        (b'{"finger": {"inside_circumference_mm": NaN}}', "finger.inside_circumference_mm"),
        (b'{"finger": {"inside_circumference_mm": -54}}', "finger.inside_circumference_mm"),
        (b'{"finger": {"inside_circumference_mm": 1e400}}', "finger.inside_circumference_mm"),
        (b'{"band": {"style": "turned", "turns": 99999999999999999999}}', "band.turns"),
        (b'{"wires": {"band": {"diameter": "54 mm"}}}', "wires.band.diameter"),
        (b'{"rings": 1}', "rings"),
        (b'{"head": {"style": "bead-lock", "bead": {"diameter_mm": "wide"}}}', "head.bead.diameter_mm"),
    ],
)  # fmt: skip
def test_bad_input_is_refused_with_its_field(client: TestClient, body: bytes, field: str) -> None:
    refused = client.post("/api/plan", content=body, headers={"content-type": "application/json"})
    assert refused.status_code == 422
    errors = refused.json()["errors"]
    assert field in [e["field"] for e in errors]
    assert all(set(e) == {"field", "reason", "accepted"} and e["reason"] for e in errors)
    assert len(refused.content) < 3000


def test_a_megabyte_is_more_than_is_taken_in(client: TestClient) -> None:
    refused = client.post("/api/plan", content=json.dumps({"title": "x" * 1_000_000}), headers={"content-type": "application/json"})
    assert refused.status_code == 413
    assert "more than any ring file" in refused.json()["errors"][0]["reason"]


def test_sizes(client: TestClient) -> None:
    told = client.get("/api/sizes", params={"text": "UK M"}).json()
    assert told["size"]["us"] == "6 1/4" and told["system"] == "uk"
    assert client.get("/api/sizes", params={"text": "UK 7"}).json()["errors"][0]["field"] == "text"
    between = client.get("/api/sizes/between", params={"around_finger_mm": 54, "around_knuckle_mm": 57}).json()
    assert "Half-way" in between["reason"]
    assert client.get("/api/sizes/between", params={"around_finger_mm": "nan", "around_knuckle_mm": 57}).status_code == 422
    scales = {scale["code"]: scale["marks"] for scale in client.get("/api/sizes/scales").json()}
    assert {"label": "M 1/2", "inside_diameter_mm": 16.9102} in scales["uk"]


def test_styles_and_schema_say_what_can_be_chosen(client: TestClient) -> None:
    styles: list[dict[str, Any]] = client.get("/api/styles").json()
    turned = next(s for s in styles if s["style"] == "turned")
    assert turned["parameters"]["properties"]["turns"]["maximum"] == 4
    assert {s["kind"] for s in styles} == {"band", "head"}
    assert client.get("/api/schema/ring").json()["properties"]["finger"]


def test_a_finished_ring_is_made_another_size(client: TestClient) -> None:
    body = {"finger": {"size": "US 6 1/2"}, "head": {"style": "bead-lock"}}
    told = client.post("/api/resize", params={"to": "UK O", "sizes": "uk"}, json=body).json()
    assert told["wanted"]["said"] == "UK O"
    assert [way["code"] for way in told["ways"] if way["reaches"]] == ["lock-again"]
    assert "US " not in " ".join(way["text"] for way in told["ways"])
    refused = client.post("/api/resize", params={"to": "US 44"}, json=body)
    assert refused.status_code == 422 and refused.json()["errors"][0]["field"] == "to"
