"""A caliper's key, pressed in one window, lands in the field that is touched in the other."""

import asyncio
import json
import threading
from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, expect

from pliant_coil.devices.stand_in import StandIn
from pliant_coil.store.database import Sessions
from tests.ui.axe import check_axe
from tools.serving import served


@pytest.fixture
def server(database_url: str, sessions: Sessions, monkeypatch: pytest.MonkeyPatch) -> Iterator[str]:
    """A server beside a stand-in for a caliper."""
    loop = asyncio.new_event_loop()
    thread = threading.Thread(target=loop.run_forever)
    thread.start()
    tool = StandIn()
    port = asyncio.run_coroutine_threadsafe(tool.start(), loop).result(10)
    monkeypatch.setenv("PLIANT_COIL_DEVICES", json.dumps({"caliper": f"127.0.0.1:{port}"}))
    with served(database_url) as address:
        yield address
    asyncio.run_coroutine_threadsafe(tool.stop(), loop).result(10)
    loop.call_soon_threadsafe(loop.stop)
    thread.join()
    loop.close()


def test_a_key_writes_into_the_field_that_is_touched(browser: Browser, server: str) -> None:
    context = browser.new_context(reduced_motion="reduce")
    keys, bench = context.new_page(), context.new_page()
    keys.goto(f"{server}/tools")
    expect(keys.get_by_label("It shows")).to_be_visible()
    check_axe(keys)
    keys.get_by_role("button", name="Listen to the tools").click()
    bench.goto(f"{server}/mandrels")
    marks = bench.get_by_label("A line for each mark")
    marks.fill("US 7")
    shown = keys.get_by_label("It shows")
    shown.fill("a foot")
    keys.get_by_role("button", name="Press its key").click()
    expect(keys.get_by_text("No tool says that", exact=False)).to_be_visible()
    shown.fill("17.12 mm")
    # The bench's window listens from a moment after it is open on.
    expect(bench.get_by_text("Your mandrels")).to_be_visible()
    with bench.expect_response("**/api/devices/readings"):
        bench.reload()
    marks.fill("US 7")
    keys.get_by_role("button", name="Press its key").click()
    expect(bench.get_by_text("caliper: 17.12 mm")).to_be_visible()
    expect(marks).to_have_value("US 7 17.12")
    context.close()
