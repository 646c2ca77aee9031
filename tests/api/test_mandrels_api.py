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
    small = client.get(f"/api/jobs/{job}/reading", params={**asked, "mandrel_off": -0.3}).json()
    assert small["off_us"] == pytest.approx(-0.3 / 0.8128, abs=0.02), "the mark says so, the mandrel is smaller there"
    shifted = {**asked, "value_mm": step["expected_mm"] + 0.3, "mandrel_off": -0.3}
    assert client.get(f"/api/jobs/{job}/reading", params=shifted).json()["off_us"] == pytest.approx(0, abs=0.01)
