"""A workshop's own mandrels over the API: measured, fitted, and readings taken on them."""

import pytest
from fastapi.testclient import TestClient

GROOVED = {
    "name": "the grooved one",
    "kind": "grooved",
    "marks": [{"mark": "US 5", "measured_mm": 15.4}, {"mark": "UK T", "measured_mm": 18.9}],
}


def test_measured_again_it_is_the_same_mandrel(client: TestClient) -> None:
    assert client.put("/api/mandrels", json=GROOVED).status_code == 204
    first = client.get("/api/mandrels").json()
    assert [(m["name"], m["kind"], len(m["marks"])) for m in first] == [("the grooved one", "grooved", 2)]
    assert first[0]["line"]["off_mm"] < 0
    again = {**GROOVED, "name": " the  grooved one", "marks": [{"mark": "US 7", "measured_mm": 17.4}]}
    assert client.put("/api/mandrels", json=again).status_code == 204
    second = client.get("/api/mandrels").json()
    assert [(m["id"], len(m["marks"])) for m in second] == [(first[0]["id"], 1)]
    assert client.delete(f"/api/mandrels/{first[0]['id']}").status_code == 204
    assert client.get("/api/mandrels").json() == []


@pytest.mark.parametrize(
    ("mark", "measured", "field"), [("US 99", 17, "marks.0.mark"), ("US 7", 15, "marks.0.measured_mm"), ("US 7", 40, "marks.0.measured_mm")]
)
def test_a_mark_that_cant_be_is_named(client: TestClient, mark: str, measured: float, field: str) -> None:
    refused = client.put("/api/mandrels", json={**GROOVED, "marks": [{"mark": mark, "measured_mm": measured}]})
    assert refused.status_code == 422 and refused.json()["errors"][0]["field"] == field
    assert client.put("/api/mandrels", json={**GROOVED, "marks": []}).status_code == 422
    assert client.get("/api/mandrels").json() == []


def test_a_reading_on_a_mandrel_that_runs_small(client: TestClient) -> None:
    job = client.post("/api/jobs", json={"head": {"style": "bead-lock"}}).json()["id"]
    steps = client.get(f"/api/jobs/{job}").json()["plan"]["steps"]
    step = next(s for s in steps if s["expected_mm"])
    asked = {"task": step["id"], "value_mm": step["expected_mm"]}
    right = client.get(f"/api/jobs/{job}/reading", params=asked).json()
    assert abs(right["off_us"]) < 0.01 and right["zone"] == "on-course"
    mark = client.get("/api/sizes", params={"text": "US 7", "mandrel_off": -0.3}).json()
    assert mark["on_mandrel_mm"] == pytest.approx(mark["size"]["inside_diameter_mm"] - 0.3, abs=0.01)
    small = client.get(f"/api/jobs/{job}/reading", params={**asked, "value_mm": step["expected_mm"] - 0.3}).json()
    assert small["off_us"] == pytest.approx(-0.3 / 0.8128, abs=0.02)
    told = client.get(f"/api/jobs/{job}/reading", params={**asked, "mandrel_off": -0.3}).json()
    assert (told["off_us"], told["zone"]) == (right["off_us"], right["zone"]), "what was measured is what it is"
    assert told["expected"] != right["expected"], "but its mark is another one there"


def test_marks_stand_where_they_stand_on_the_mandrel(client: TestClient) -> None:
    right = client.get("/api/sizes/scales").json()
    own = client.get("/api/sizes/scales", params={"mandrel_off": -0.2, "mandrel_slope": 0.01}).json()
    for scale, shifted in zip(right, own, strict=True):
        for mark, moved in zip(scale["marks"], shifted["marks"], strict=True):
            named = mark["inside_diameter_mm"]
            assert moved["label"] == mark["label"]
            assert moved["inside_diameter_mm"] == pytest.approx(named - 0.2 + 0.01 * (named - 17), abs=2e-4)


def test_a_mandrel_is_told_in_the_readers_units(client: TestClient) -> None:
    client.put("/api/mandrels", json=GROOVED)
    told = client.get("/api/mandrels", params={"units": "in"}).json()[0]
    assert "0.669 in" in told["text"] and "groove" in told["text"]
    assert [mark["measured"] for mark in told["marks"]] == ["0.606 in", "0.744 in"]
    (low, at_low), (high, at_high) = told["drawn"]
    slope = (at_high - at_low) / (high - low)
    assert slope == pytest.approx(told["line"]["slope"]) and at_low + slope * (17 - low) == pytest.approx(told["line"]["off_mm"])
