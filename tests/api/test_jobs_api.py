"""Rings at the bench over HTTP: told once however often it is sent, read, recorded, and heard of on other devices."""

import asyncio
from collections.abc import Coroutine
from concurrent.futures import ThreadPoolExecutor
from contextlib import aclosing
from datetime import UTC, datetime
from typing import Any
from uuid import UUID, uuid4

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from pliant_coil.web_api.bell import Bell
from tests.core.recipes import AMBER_MEADOW


def event(kind: str, **payload: Any) -> dict[str, Any]:
    return {"kind": kind, "id": str(uuid4()), "device": "tablet", "at": datetime.now(UTC).isoformat(), **payload}


@pytest.fixture
def job(client: TestClient) -> str:
    begun = client.post("/api/jobs", json=AMBER_MEADOW)
    assert begun.status_code == 201
    return str(begun.json()["id"])


def tell(client: TestClient, job: str, *events: dict[str, Any]) -> dict[str, Any]:
    told = client.post(f"/api/jobs/{job}/events", json={"events": events})
    assert told.status_code == 200, told.text
    body: dict[str, Any] = told.json()
    return body


def test_a_ring_goes_to_the_bench_once(client: TestClient) -> None:
    key = {"idempotency-key": str(uuid4())}
    ids = {client.post("/api/jobs", json=AMBER_MEADOW, headers=key).json()["id"] for _ in range(2)}
    assert len(ids) == 1 and client.get("/api/jobs").json()["total"] == 1
    assert client.post("/api/jobs", json={"finger": {"size": "US 99"}}).status_code == 422
    assert client.get(f"/api/jobs/{uuid4()}").status_code == 404


def test_taps_are_written_once_and_in_order(client: TestClient, job: str) -> None:
    at_bench = client.get(f"/api/jobs/{job}").json()
    steps = at_bench["progress"]["steps"]
    locks = [c for step in steps for c in step["counters"] if c["unit"] == "wrap"]
    assert locks and all(c["count"] == 2 for c in locks)
    taps = [event("count", move=locks[0]["move"], n=1) for _ in range(2)]
    assert tell(client, job, *taps) == {"number": 2, "known": []}
    again = tell(client, job, *taps, event("step_on", task=steps[0]["task"]))
    assert again["number"] == 3 and set(again["known"]) == {tap["id"] for tap in taps}
    progress = client.get(f"/api/jobs/{job}").json()["progress"]
    made = {c["move"]: c["made"] for step in progress["steps"] for c in step["counters"]}
    assert made[locks[0]["move"]] == 2 and progress["place"] == 1
    assert locks[0]["move"] in progress["made"]


def test_a_reading_is_answered_with_what_can_be_done(client: TestClient, job: str) -> None:
    at_bench = client.get(f"/api/jobs/{job}").json()
    task = "read-before-locks"
    expected = next(step["expected_mm"] for step in at_bench["plan"]["steps"] if step["id"] == task)
    told = client.get(f"/api/jobs/{job}/reading", params={"task": task, "value_mm": expected}).json()
    assert told["zone"] == "on-course" and told["choices"][0]["code"] == "go-on"
    large = client.get(f"/api/jobs/{job}/reading", params={"task": task, "value_mm": expected + 0.3, "sizes": "uk,us"}).json()
    assert large["zone"] == "off" and large["choices"][0]["code"] == "reform"
    assert "US" not in large["text"], "a reader of UK letters reads letters"
    refused = client.get(f"/api/jobs/{job}/reading", params={"task": "knit", "value_mm": 17})
    assert refused.status_code == 422 and "no such step" in refused.json()["errors"][0]["reason"]
    reading = event("reading", what="size", task=task, value_mm=expected + 0.3)
    form = large["choices"][0]["form_mm"] + 0.2
    tell(client, job, reading, event("chosen", reading=reading["id"], choice="reform", form_mm=form))
    assert client.get(f"/api/jobs/{job}").json()["progress"]["form_mm"] == pytest.approx(form, abs=1e-3)


def test_a_tail_is_judged_by_what_is_left_to_do(client: TestClient, job: str) -> None:
    at_bench = client.get(f"/api/jobs/{job}").json()
    assert at_bench["tails"] == [], "nothing is made yet: there are no tails"
    steps = [step["task"] for step in at_bench["progress"]["steps"]]
    tell(client, job, *(event("step_on", task=task) for task in steps[: steps.index("read-before-locks") + 1]))
    tails = client.get(f"/api/jobs/{job}").json()["tails"]
    assert len(tails) == 2
    where = {"piece": tails[0]["piece"], "end": tails[0]["end"]}
    long = client.get(f"/api/jobs/{job}/tail", params=where | {"value_mm": tails[0]["needs_mm"] + 20}).json()
    short = client.get(f"/api/jobs/{job}/tail", params=where | {"value_mm": tails[0]["needs_mm"] - 8}).json()
    assert long["reaches"] and not short["reaches"] and "8 mm short" in short["text"]
    assert client.get(f"/api/jobs/{job}/tail", params={"piece": "none", "end": "last", "value_mm": 9}).status_code == 422


def test_a_row_that_comes_out_long_takes_fewer_repeats(client: TestClient) -> None:
    job = client.post("/api/jobs", json={"title": "Marigold", "finger": {"size": "US 8 1/4"}, "band": {"style": "woven"}}).json()["id"]
    at_bench = client.get(f"/api/jobs/{job}").json()
    counter = next(c for step in at_bench["progress"]["steps"] for c in step["counters"] if c["unit"] == "cycle")
    nothing = client.get(f"/api/jobs/{job}/row", params={"task": "weave", "value_mm": 16})
    assert nothing.status_code == 422 and "nothing of the row is counted" in nothing.json()["errors"][0]["reason"]
    tell(client, job, event("count", move=counter["move"], n=10))
    repeat = at_bench["plan"]["fit"]["repeat_mm"]
    planned = client.get(f"/api/jobs/{job}/row", params={"task": "weave", "value_mm": 10 * repeat}).json()
    assert planned["text"].startswith("As planned") and planned["more"] == counter["count"] - 10
    long = client.get(f"/api/jobs/{job}/row", params={"task": "weave", "value_mm": 10 * repeat * 1.12}).json()
    assert long["more"] < planned["more"] and "the gap changes, not the size" in long["text"]
    assert client.get(f"/api/jobs/{job}/row", params={"task": "straighten", "value_mm": 9}).status_code == 422


def test_a_finished_ring_is_recorded_and_its_hand_learned(client: TestClient) -> None:
    used = []
    for n in range(3):
        job = client.post("/api/jobs", json={**AMBER_MEADOW, "title": f"Ring {n}"}).json()["id"]
        wire = client.get(f"/api/jobs/{job}").json()["plan"]["wires"][0]
        planned = sum(m["length_mm"] for m in wire["moves"] if m["in_ring"])
        piece = client.get(f"/api/jobs/{job}").json()
        name = piece["progress"]["made"]
        assert name == []
        used.append(planned)
        left = wire["cut_mm"] - planned * 1.04
        tell(client, job, event("finished", left_mm={"band.1": left}, size_mm=17.1, mandrel="the long steel one"))
    ended = client.get("/api/jobs", params={"ended": True}).json()
    assert [j["title"] for j in ended["jobs"]] == ["Ring 2", "Ring 1", "Ring 0"]
    record = ended["jobs"][0]["record"]
    assert record["off_mm"] == pytest.approx(
        17.1 - client.post("/api/plan", json=AMBER_MEADOW).json()["finished"]["inside_diameter_mm"], abs=2e-3
    )
    assert record["wire"] == f"{used[2] * 1.04:.0f} mm of {used[2]:.0f} mm planned"
    by_letter = client.get("/api/jobs", params={"ended": True, "sizes": "uk,us", "units": "in"}).json()["jobs"][0]["record"]
    assert by_letter["size"].startswith("UK") or "UK" in by_letter["size"]
    assert "mm" not in by_letter["wire"]
    hand = client.get("/api/jobs/hand").json()
    assert hand["rings"] == 3 and all(f["low"] < f["share"] < f["high"] for f in hand["factors"])
    assert next(f["share"] for f in hand["factors"] if f["kind"] == "wrap") > 0.01
    (mandrel,) = hand["mandrels"]
    assert mandrel["rings"] == 3 and mandrel["text"].startswith("On “the long steel one” turned rings come off")
    assert 0 < mandrel["off_mm"] < record["off_mm"], "three rings are believed, but not wholly"
    usual = client.post("/api/plan", json=AMBER_MEADOW).json()["wires"][0]
    own = client.post("/api/plan", json=AMBER_MEADOW, params={"hand": True}).json()["wires"][0]
    assert usual["hand"] is None and "Your hand, from 3 rings" in own["hand"] and "your hand takes" in own["arithmetic"]
    assert own["sigma_mm"] < usual["sigma_mm"], "knowing a hand is worth margin"
    table = client.get("/api/jobs/records.csv").text.splitlines()
    assert table[0].startswith("ended,title") and len(table) == 4
    finished = client.post(f"/api/jobs/{ended['jobs'][0]['id']}/events", json={"events": [event("reopened")]})
    assert finished.status_code == 200 and client.get("/api/jobs").json()["total"] == 1


def test_what_is_left_is_planned_anew_where_a_choice_formed_it(client: TestClient, job: str) -> None:
    first = client.get(f"/api/jobs/{job}").json()
    assert first["first_plan"] is None
    start = first["plan"]["start"]["inside_diameter_mm"]

    def choose(form_mm: float) -> dict[str, Any]:
        reading = event("reading", what="size", task="form", value_mm=form_mm)
        tell(client, job, reading, event("chosen", reading=reading["id"], choice="draw", form_mm=form_mm))
        found: dict[str, Any] = client.get(f"/api/jobs/{job}").json()
        return found

    assert choose(start)["first_plan"] is None, "formed again where it was planned"
    drawn = choose(start - 0.3)
    assert drawn["plan"]["start"]["inside_diameter_mm"] == pytest.approx(start - 0.3, abs=1e-3)
    assert drawn["plan"]["finished"]["inside_diameter_mm"] < first["plan"]["finished"]["inside_diameter_mm"] - 0.25
    assert drawn["first_plan"]["start"] == first["plan"]["start"]["mark"]
    expected = [[step["expected_mm"] for step in at["plan"]["steps"] if step["expected_mm"]] for at in (first, drawn)]
    assert all(now < before for before, now in zip(*expected, strict=True)), "every reading that is still to come is expected anew"
    assert [move["id"] for move in drawn["plan"]["wires"][0]["moves"]] == [move["id"] for move in first["plan"]["wires"][0]["moves"]]
    # Its wire was cut as it was planned first, whatever a plan for the new mark would cut.
    wire = first["plan"]["wires"][0]
    assert drawn["plan"]["wires"][0]["net_mm"] < wire["net_mm"] - 0.5
    tell(client, job, event("finished", left_mm={wire["id"]: 30.0}))
    (piece,) = client.get("/api/jobs/records.json").json()[0]["pieces"]
    assert (piece["cut_mm"], piece["used_mm"]) == pytest.approx((wire["cut_mm"], wire["cut_mm"] - 30), abs=1e-3)
    assert piece["planned_mm"] == pytest.approx(drawn["plan"]["wires"][0]["net_mm"], abs=1e-3)


def test_events_that_arent_any_are_refused_at_their_field(client: TestClient, job: str) -> None:
    for wrong in (event("count", move="x", n="many"), event("dance"), {**event("reopened"), "id": "one"}):
        refused = client.post(f"/api/jobs/{job}/events", json={"events": [wrong]})
        assert refused.status_code == 422
    assert client.get(f"/api/jobs/{job}").json()["progress"]["number"] == 0


def test_another_device_hears_of_it_within_a_second(app: FastAPI, client: TestClient, job: str) -> None:
    bell: Bell = app.state.bell

    async def newest() -> int:
        return 0

    async def hear() -> list[str]:
        heard = []
        stream = bell.stream(UUID(job), newest)
        heard.append(await anext(stream))
        # Once it listens it says so; then a tap is told from elsewhere.
        heard.append(await asyncio.wait_for(anext(stream), 5))
        await asyncio.to_thread(tell, client, job, event("note", task="x", text="a kink"))
        heard.append(await asyncio.wait_for(anext(stream), 1))
        await bell.stop()
        return heard

    assert in_a_loop(hear()) == ["data: 0\n\n", "data: 0\n\n", "data: 1\n\n"]


def test_what_happens_while_the_newest_is_looked_up_is_told_after_it(app: FastAPI, client: TestClient, job: str) -> None:
    bell: Bell = app.state.bell

    async def hear() -> list[str]:
        asked = 0

        async def newest() -> int:
            nonlocal asked
            asked += 1
            if asked == 3:
                # It was none yet when it was read; before that is said, somebody taps.
                await asyncio.to_thread(tell, client, job, event("note", task="x", text="a kink"))
            return 0

        async with aclosing(bell.stream(UUID(job), newest)) as other, aclosing(bell.stream(UUID(job), newest)) as stream:
            # Once the bell listens, the first hears it said; only then comes the second.
            listening = [await anext(other), await asyncio.wait_for(anext(other), 5)]
            assert listening == ["data: 0\n\n"] * 2
            heard = [await anext(stream), await asyncio.wait_for(anext(stream), 1)]
        await bell.stop()
        return heard

    assert in_a_loop(hear()) == ["data: 0\n\n", "data: 1\n\n"]


def in_a_loop(hearing: Coroutine[Any, Any, list[str]]) -> list[str]:
    # In a thread of its own: whoever runs these tests may have a loop of theirs.
    with ThreadPoolExecutor(1) as pool:
        return pool.submit(asyncio.run, hearing).result()


def test_a_board_hears_of_each_of_its_rings(app: FastAPI, client: TestClient) -> None:
    lines = {"kind": "class", "rings": [{"size": "US 6"}, {"size": "US 8"}]}
    begun = client.post("/api/batches", json={"title": "Saturday", "file": AMBER_MEADOW, **lines})
    assert begun.status_code == 201, begun.text
    batch = begun.json()["id"]
    rings = [bench["job_id"] for bench in client.get(f"/api/batches/{batch}").json()["benches"]]
    assert client.get(f"/api/batches/{uuid4()}/changes").status_code == 404

    async def whatever() -> int:
        return 0

    async def hear() -> list[str]:
        async with aclosing(app.state.bell.stream(UUID(batch), whatever)) as stream:
            heard = [await anext(stream), await asyncio.wait_for(anext(stream), 5)]
            for ring in rings:
                await asyncio.to_thread(tell, client, ring, event("help", task="cut"))
                heard.append(await asyncio.wait_for(anext(stream), 1))
        await app.state.bell.stop()
        return heard

    assert in_a_loop(hear())[2:] == ["data: 1\n\n", "data: 1\n\n"]


def test_an_odd_ring_is_left_out_and_a_hand_is_learned_afresh(client: TestClient) -> None:
    jobs = []
    for n, share in enumerate((1.03, 1.04, 1.02, 1.05, 1.3, 1.04)):
        job = client.post("/api/jobs", json={**AMBER_MEADOW, "title": f"Ring {n}"}).json()["id"]
        wire = client.get(f"/api/jobs/{job}").json()["plan"]["wires"][0]
        planned = sum(m["length_mm"] for m in wire["moves"] if m["in_ring"])
        tell(client, job, event("finished", left_mm={"band.1": max(0.0, wire["cut_mm"] - planned * share)}))
        jobs.append(job)
    told = client.get("/api/jobs/records.json")
    assert "logbook.json" in told.headers["content-disposition"]
    assert [(each["title"], each["state"], each["pieces"][0]["piece"]) for each in told.json()][4] == ("Ring 4", "finished", "band.1")
    hand = client.get("/api/jobs/hand").json()
    assert [ring["title"] for ring in hand["odd"]] == ["Ring 4"] and hand["left_out"] == [] and not hand["changed"]
    tell(client, jobs[4], event("left_out", why="wrong reel"))
    hand = client.get("/api/jobs/hand").json()
    assert (hand["rings"], hand["odd"], [(r["title"], r["why"]) for r in hand["left_out"]]) == (5, [], [("Ring 4", "wrong reel")])
    tell(client, jobs[4], event("reopened"), event("finished", left_mm={"band.1": 30.0}))
    assert len(client.get("/api/jobs/hand").json()["left_out"]) == 1, "ended again it is still left out"
    tell(client, jobs[4], event("left_out"))
    assert client.get("/api/jobs/hand").json()["rings"] == 6
    assert client.post("/api/jobs/hand/afresh").status_code == 204
    assert client.get("/api/jobs/hand").json()["rings"] == 0
