"""Tools at the bench: what a line says, a stand-in over a real socket, and its readings as they reach a browser."""

import asyncio
import json
import socket
import threading
from collections.abc import Iterator

import httpx2 as httpx
import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.devices.line import Said, read_line
from pliant_coil.devices.listening import heard, press
from pliant_coil.devices.stand_in import StandIn
from tools.serving import served


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("17.12 mm", Said(17.12, "mm")),
        (" 17,12MM\r\n", Said(17.12, "mm")),
        ("0.5 in", Said(12.7, "mm")),
        ("-0.02 g", Said(-0.02, "g")),
        ("17.12", None),
        ("mm", None),
        ("17.12 mm 18", None),
        ("1" * 90 + " mm", None),
        ("17.12 furlongs", None),
    ],
)
def test_what_a_line_says(line: str, said: Said | None) -> None:
    assert read_line(line) == said


@given(st.floats(0, 999).map(lambda v: round(v, 3)))
def test_inches_and_millimetres_say_the_same(value: float) -> None:
    inches, millimetres = read_line(f"{value:.3f} in"), read_line(f"{value * 25.4:.4f} mm")
    assert inches is not None and millimetres is not None
    assert inches.value == pytest.approx(millimetres.value, abs=1e-4)


def test_everybody_who_listens_hears_a_key_and_nonsense_is_passed_over() -> None:
    async def both() -> list[tuple[str, Said]]:
        tool = StandIn()
        port = await tool.start()
        address = f"127.0.0.1:{port}"
        found: list[tuple[str, Said]] = []

        async def listen() -> None:
            async for each in heard({"caliper": address, "gone": "127.0.0.1:1"}, 5.0):
                if each:
                    found.append(each)
                if len(found) >= 4:
                    return

        async with asyncio.TaskGroup() as tasks:
            tasks.create_task(listen())
            tasks.create_task(listen())
            while len(tool._listening) < 2:
                await asyncio.sleep(0.005)
            for text in ("nonsense", "x" * 500, "17.12 mm", "0.84 g"):
                await press(address, text)
        await tool.stop()
        return found

    assert sorted(asyncio.run(asyncio.wait_for(both(), 20)), key=str) == sorted(
        [("caliper", Said(17.12, "mm")), ("caliper", Said(0.84, "g"))] * 2, key=str
    )


@pytest.fixture
def caliper() -> Iterator[str]:
    """The address of a stand-in."""
    loop = asyncio.new_event_loop()
    thread = threading.Thread(target=loop.run_forever)
    thread.start()
    tool = StandIn()
    port = asyncio.run_coroutine_threadsafe(tool.start(), loop).result(10)
    yield f"127.0.0.1:{port}"
    asyncio.run_coroutine_threadsafe(tool.stop(), loop).result(10)
    loop.call_soon_threadsafe(loop.stop)
    thread.join()
    loop.close()


def test_a_key_that_is_pressed_reaches_the_browser(
    database_url: str, sessions: object, caliper: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("PLIANT_COIL_DEVICES", json.dumps({"caliper": caliper}))
    with served(database_url) as address, httpx.Client(base_url=address, timeout=20) as client:
        assert client.get("/api/devices").json() == [{"name": "caliper"}]
        with client.stream("GET", "/api/devices/readings") as stream:
            lines = stream.iter_lines()
            assert next(lines) == ": listening"
            told = ""
            # The tool is connected to a moment after the stream is: the key is pressed until it is heard.
            for _ in range(50):
                assert client.post("/api/devices/caliper/press", json={"text": "0.5 in"}).status_code == 204
                told = next((line for line in (next(lines), next(lines)) if line.startswith("data: ")), "")
                if told:
                    break
            assert json.loads(told.removeprefix("data: ")) == {"device": "caliper", "value": 12.7, "unit": "mm"}


def test_what_cant_be_pressed_is_said(client: TestClient, app: FastAPI) -> None:
    assert client.get("/api/devices").json() == []
    assert client.post("/api/devices/caliper/press", json={"text": "1 mm"}).status_code == 404
    with socket.socket() as closed:
        closed.bind(("127.0.0.1", 0))
        app.state.settings.devices = {"caliper": f"127.0.0.1:{closed.getsockname()[1]}"}
    refused = client.post("/api/devices/caliper/press", json={"text": "a foot"})
    assert refused.status_code == 422 and "17.12 mm" in refused.json()["errors"][0]["accepted"]
    assert client.post("/api/devices/caliper/press", json={"text": "1 mm"}).status_code == 404
