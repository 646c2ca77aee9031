"""The logbook over HTTP: photos, rings that came back, an old notebook, what is drawn of it, and what is filtered."""

import io
import math
from typing import Any
from uuid import uuid4

import numpy as np
import pytest
from fastapi.testclient import TestClient
from PIL import Image

from tests.api.test_jobs_api import event, tell
from tests.core.recipes import AMBER_MEADOW

NOTEBOOK = b"date,title,size,cut,left\n2023-05-02,Plain,US 7,230,22\n2023-06-02,Nest,US 99,400,35\n2023-07-02,Bee,US 6,210,20\n"


def picture(width: int = 60, height: int = 40, kind: str = "JPEG", **more: Any) -> bytes:
    """A picture with its top left corner red and the rest blue."""
    points = np.zeros((height, width, 3), dtype=np.uint8)
    points[..., 2] = 200
    points[: height // 2, : width // 2] = (200, 0, 0)
    packed = io.BytesIO()
    Image.fromarray(points).save(packed, kind, **more)
    return packed.getvalue()


@pytest.fixture
def job(client: TestClient) -> str:
    return str(client.post("/api/jobs", json=AMBER_MEADOW).json()["id"])


def keep(client: TestClient, job: str, sent: bytes, key: str | None = None) -> Any:
    headers = {"idempotency-key": key or str(uuid4()), "content-type": "application/octet-stream"}
    return client.post(f"/api/jobs/{job}/photos", content=sent, headers=headers, params={"task": "form"})


def seen(client: TestClient, photo: str) -> Image.Image:
    answer = client.get(f"/api/photos/{photo}")
    assert answer.headers["content-type"] == "image/jpeg" and "sandbox" in answer.headers["content-security-policy"]
    return Image.open(io.BytesIO(answer.content))


def test_a_photo_is_kept_upright_smaller_and_without_what_its_camera_wrote(client: TestClient, job: str) -> None:
    exif = Image.Exif()
    exif[0x0112], exif[0x010F] = 6, "a camera that says where it was"
    sent = picture(4000, 2000, exif=exif.tobytes())
    kept = keep(client, job, sent)
    assert kept.status_code == 201, kept.text
    told = kept.json()
    # Turned a quarter as it was held (Exif 2.32, tag Orientation, value 6), its longer side 1600.
    assert (told["width"], told["height"], told["task"]) == (800, 1600, "form")
    image = seen(client, told["id"])
    assert image.size == (800, 1600) and not image.getexif()
    assert b"camera" not in client.get(f"/api/photos/{told['id']}").content
    corner = [image.convert("RGB").getpixel(at) for at in ((780, 20), (20, 20))]
    assert [c[0] > 150 for c in corner if isinstance(c, tuple)] == [True, False], "what was its top left is its top right now"


def test_a_photo_is_kept_once_deleted_and_taken_back(client: TestClient, job: str) -> None:
    key = str(uuid4())
    ids = {keep(client, job, picture(), key).json()["id"] for _ in range(2)}
    assert ids == {key} and len(client.get(f"/api/jobs/{job}/photos").json()) == 1
    assert client.delete(f"/api/photos/{key}").status_code == 204
    assert client.get(f"/api/photos/{key}").status_code == 404 and client.get(f"/api/jobs/{job}/photos").json() == []
    assert client.post(f"/api/photos/{key}/restore").status_code == 204
    assert seen(client, key).size == (60, 40)
    assert client.get("/api/jobs").json()["jobs"][0]["photo"] == key


@pytest.mark.parametrize("sent", [b"", b"<svg onload='x'/>", b"GIF89a", picture()[:200], picture(9, 9, "BMP")])
def test_what_is_no_photo_is_refused_and_nothing_is_kept(client: TestClient, job: str, sent: bytes) -> None:
    refused = keep(client, job, sent)
    assert refused.status_code == 422 and refused.json()["errors"][0]["field"] == "photo"
    assert client.get(f"/api/jobs/{job}/photos").json() == []


def test_a_picture_that_unpacks_to_too_much_is_refused_before_it_is_unpacked(client: TestClient, job: str) -> None:
    packed = io.BytesIO()
    Image.new("1", (12_000, 12_000)).save(packed, "PNG")
    assert len(packed.getvalue()) < 100_000
    assert keep(client, job, packed.getvalue()).status_code == 422


def test_a_ring_has_its_share_of_photos(client: TestClient, job: str, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("pliant_coil.services.photos.MOST_OF_A_RING", 2)
    assert [keep(client, job, picture()).status_code for _ in range(3)] == [201, 201, 422]


def finish(client: TestClient, job: str, size_mm: float = 16.6) -> None:
    tell(client, job, event("finished", left_mm={"band.1": 30.0}, size_mm=size_mm, mandrel="the long one"))


def test_a_finished_ring_comes_back_is_mended_and_leaves_again(client: TestClient, job: str) -> None:
    # Before it is finished nothing comes back.
    tell(client, job, event("came_back", why="too early"))
    assert client.get(f"/api/jobs/{job}").json()["progress"]["visit"] is None
    finish(client, job)
    before = client.get("/api/jobs", params={"ended": True}).json()["jobs"][0]
    tell(client, job, event("came_back", why="it sits tight", reads_mm=16.6, wanted_mm=17.0))
    at = client.get(f"/api/jobs/{job}").json()
    assert (at["progress"]["state"], at["progress"]["visit"]["why"]) == ("open", "it sits tight")
    assert client.get("/api/jobs").json()["total"] == 1
    ways = client.get(f"/api/jobs/{job}/repair", params={"reads_mm": 16.6, "wanted_mm": 17.0}).json()["ways"]
    assert next(way for way in ways if way["code"] == "stretch")["reaches"]
    assert client.get(f"/api/jobs/{job}/repair", params={"reads_mm": 16.6, "wanted_mm": 99}).status_code == 422
    tell(client, job, event("mended", way="stretch", reads_mm=16.6))
    tell(client, job, event("finished", size_mm=16.95))
    after = client.get("/api/jobs", params={"ended": True}).json()["jobs"][0]
    assert after["ended_at"] == before["ended_at"], "it stays where it stood in the logbook"
    assert "16" not in after["record"]["wire"] or after["record"]["wire"] == before["record"]["wire"]
    (visit,) = after["record"]["visits"]
    assert visit.startswith("Back on the bench: it sits tight.") and "Done: stretched." in visit
    kept = client.get("/api/jobs/records.json").json()[0]
    assert kept["size_mm"] == 16.95 and kept["mandrel"] == "the long one" and kept["visits"][0]["ways"] == ["stretch"]


def test_an_old_notebook_is_shown_and_comes_in_once(client: TestClient) -> None:
    shown = client.post("/api/notebook/preview", content=NOTEBOOK).json()
    assert (shown["fresh"], shown["known"], shown["wrong"]) == (2, 0, 1)
    assert shown["lines"][0]["line"] == 3 and shown["lines"][0]["faults"][0]["column"] == "size", "what is wrong stands first"
    assert client.get("/api/jobs", params={"ended": True}).json()["total"] == 0, "nothing was kept"
    assert [client.post("/api/notebook", content=NOTEBOOK).json()["rings"] for _ in range(2)] == [2, 0]
    assert client.post("/api/notebook/preview", content=NOTEBOOK).json()["known"] == 2
    bee, plain = client.get("/api/jobs", params={"ended": True}).json()["jobs"]
    assert (bee["title"], plain["title"]) == ("Bee", "Plain"), "the last one first"
    assert plain["record"]["size"] == "US 7" and plain["record"]["wire"] == "208 mm" and plain["record"]["off"] is None
    for path in (f"/api/jobs/{bee['id']}", f"/api/jobs/{bee['id']}/photos"):
        assert client.get(path).status_code == (404 if path.endswith(bee["id"]) else 200)
    assert client.post(f"/api/jobs/{bee['id']}/events", json={"events": [event("reopened")]}).status_code == 404
    hand = client.get("/api/jobs/hand").json()
    assert hand["rings"] == 0 and hand["left_out"] == [], "an old ring says nothing of a hand"
    # Our own table comes in as it went out.
    table = client.get("/api/jobs/records.csv").content
    again = client.post("/api/notebook/preview", content=table).json()
    assert again["wrong"] == 0 and {line["title"] for line in again["lines"]} == {"Bee", "Plain"}


def test_the_logbook_is_filtered_with_and_without_words(client: TestClient) -> None:
    for n, kind in enumerate(("finished", "spoiled", "finished")):
        job = client.post("/api/jobs", json={**AMBER_MEADOW, "title": f"Ring {n}"}).json()["id"]
        tell(client, job, event(kind, why="kinked" if kind == "spoiled" else ""))

    def titles(**query: str) -> list[str]:
        return [each["title"] for each in client.get("/api/jobs", params={"ended": True, **query}).json()["jobs"]]

    assert titles() == ["Ring 2", "Ring 1", "Ring 0"]
    assert titles(state="finished") == ["Ring 2", "Ring 0"] and titles(state="spoiled", q="ring") == ["Ring 1"]
    assert titles(state="set_aside") == [] and titles(q="copper") == ["Ring 2", "Ring 1", "Ring 0"]


def test_what_is_drawn_of_a_logbook(client: TestClient) -> None:
    assert client.get("/api/jobs/plots").json()["saved"] is None
    job = client.post("/api/jobs", json=AMBER_MEADOW).json()["id"]
    plan = client.get(f"/api/jobs/{job}").json()["plan"]
    wire = plan["wires"][0]
    tell(client, job, event("finished", left_mm={wire["id"]: 20.0}, size_mm=plan["finished"]["inside_diameter_mm"] + 0.1))
    spoiled = client.post("/api/jobs", json=AMBER_MEADOW).json()["id"]
    tell(client, spoiled, *(event("step_on", task=step["id"]) for step in plan["steps"][:4]), event("spoiled", why="kinked"))
    plots = client.get("/api/jobs/plots", params={"units": "in", "sizes": "uk"}).json()
    assert [dot["group"] for dot in plots["by_band"]] == ["turned"] and plots["by_band"][0]["off_mm"] == pytest.approx(0.1, abs=1e-3)
    assert "letter" in plots["by_band"][0]["off"] and "mm" not in plots["saved"]
    used = wire["cut_mm"] - 20
    assert plots["wire"][0]["share"] == pytest.approx(used / wire["net_mm"], abs=1e-3)
    # Cut long, 27.5 % of what is cut is thrown away: so much of what was used.
    assert plots["cut_long_mm"] == pytest.approx(used * 0.275 / 0.725, abs=1e-2) and plots["scrap_mm"] == pytest.approx(20)
    assert plots["spoiled"] == [{"step": plan["steps"][4]["id"], "rings": 1}]


def test_hammered_rings_are_read_on_the_way(client: TestClient) -> None:
    job = client.post("/api/jobs", json={"finger": {"size": "US 9"}, "band": {"style": "stacked"}}).json()["id"]
    at = client.get(f"/api/jobs/{job}").json()
    assert at["hammered_at"] == "hammer"
    closed = next(step for step in at["plan"]["steps"] if step["id"] == "hammer")
    # D = 11.63 + 0.8128 · 9 less 0.15 to true up, over 1 + 0.094 · ln(1.5/1.125) before the hammer; a little more than planned at 1.3.
    before = (11.63 + 0.8128 * 9 - 0.15) / (1 + 0.094 * math.log(1.5 / 1.125))
    told = client.get(f"/api/jobs/{job}/hammered", params={"thickness_mm": 1.3, "value_mm": before * (1 + 0.11 * math.log(1.5 / 1.3))})
    assert told.status_code == 200, told.text
    assert 0.094 < told.json()["growth"] < 0.11 and 1.125 < told.json()["thickness_mm"] < 1.3 and "1.1" in closed["text"]
    assert client.get(f"/api/jobs/{job}/hammered", params={"thickness_mm": 1.6, "value_mm": 17.9}).status_code == 422
    plain = client.post("/api/jobs", json=AMBER_MEADOW).json()["id"]
    assert client.get(f"/api/jobs/{plain}").json()["hammered_at"] == ""
    assert client.get(f"/api/jobs/{plain}/hammered", params={"thickness_mm": 1.3, "value_mm": 17.9}).status_code == 422


def test_what_a_spoiled_ring_left_serves_again_or_doesnt(client: TestClient) -> None:
    job = client.post("/api/jobs", json=AMBER_MEADOW).json()["id"]
    at = client.get(f"/api/jobs/{job}").json()
    wire = at["plan"]["wires"][0]
    assert at["left_over"] == ""
    for left, words in ((wire["cut_mm"] + 1, "serves again"), (wire["cut_mm"] - 1, "too short")):
        tell(client, job, event("spoiled", why="kinked", left_mm={wire["id"]: left}))
        assert words in client.get(f"/api/jobs/{job}").json()["left_over"]
        tell(client, job, event("reopened"))
