"""From a plan to the logbook as a maker goes: counting, a wrong reading, a short tail, a server that is killed, two devices."""

import re
from collections.abc import Callable, Iterator, Mapping

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.ui.axe import check_axe
from tools.serving import Apart

HONEY = {
    "title": "Honey ring",
    "finger": {"size": "US 6 1/2"},
    "band": {"style": "turned", "winding": "both-ways", "turns": 1},
    "head": {"style": "bead-lock", "bead": {"diameter_mm": 7, "hole_mm": 1.1}},
    "finish": {"wraps_each_side": 2},
}
MARIGOLD = {"title": "Marigold", "finger": {"size": "US 8 1/4"}, "band": {"style": "woven"}}


@pytest.fixture
def killable(database_url: str, sessions: object) -> Iterator[Callable[[], Apart]]:
    """Starts a server; called again, the last one was killed and another stands at the same address."""
    running: list[Apart] = []

    def start() -> Apart:
        port = running[-1].port if running else 0
        if running:
            running[-1].kill()
        running.append(Apart(database_url, port))
        return running[-1]

    yield start
    running[-1].stop()


def begin(page: Page, address: str, ring: Mapping[str, object]) -> None:
    job = page.request.post(f"{address}/api/jobs", data=ring).json()["id"]
    page.goto(f"{address}/bench/{job}")
    expect(page.get_by_role("button", name="Done, on")).to_be_visible()


def on_to(page: Page, words: str) -> None:
    """Step on until a step says this."""
    heading = page.get_by_role("heading", level=2).first
    for _ in range(20):
        now = heading.inner_text()
        if words in now:
            return
        page.keyboard.press("Enter")
        expect(heading).not_to_have_text(now)
    raise AssertionError(f"no step says “{words}”")


def test_a_bead_ring_from_plan_to_logbook(page: Page, killable: Callable[[], Apart]) -> None:
    server = killable()
    page.on("pageerror", lambda error: pytest.fail(f"the page failed: {error}"))
    page.goto(f"{server.address}/plan")
    page.get_by_label("Name of the ring").fill("Honey ring")
    page.get_by_role("button", name="To the bench").click()
    expect(page.get_by_text("Honey ring · Measure · step 1 of")).to_be_visible()
    on_to(page, "Hold the head on top of the mandrel")
    # A quarter size too large, and nothing is locked yet: formed again.
    page.keyboard.press("r")
    page.get_by_label("The mandrel reads").fill("US 7 7/8")
    sheet = page.get_by_role("dialog", name="Reading")
    expect(sheet).to_contain_text("would come off US 6¾")
    expect(sheet.get_by_role("button").nth(1)).to_contain_text("Form it again at just short of US 7¾")
    sheet.get_by_role("button", name="Form it again").click()
    on_to(page, "wrap one tail round its shoulder")
    # A tail that is too short for what is still to come.
    page.keyboard.press("t")
    page.get_by_label("Tail left [mm]").fill("18")
    expect(page.get_by_role("dialog", name="Tail left")).to_contain_text("short for all that is still to come")
    expect(page.get_by_role("dialog", name="Tail left")).to_contain_text("its start hidden beside the first lock, under the bead")
    page.get_by_label("Tail left [mm]").fill("40")
    expect(page.get_by_role("dialog", name="Tail left")).to_contain_text("It reaches, with")
    page.get_by_role("button", name="Write it down").click()
    page.keyboard.press("Space")
    counter = page.get_by_role("button", name=re.compile("lock 1 of 2"))
    expect(counter).to_be_visible()
    # The server is killed in the middle; what is tapped meanwhile is told when it is back.
    address = killable().address
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name=re.compile("lock 2 of 2"))).to_be_visible()
    page.reload()
    expect(page.get_by_role("button", name=re.compile("lock 2 of 2"))).to_be_visible()
    while page.get_by_role("button", name="Done, on").count():
        now = page.get_by_role("heading", level=2).first.inner_text()
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", level=2).first).not_to_have_text(now)
    sheet = page.get_by_role("dialog", name="How it ended")
    sheet.get_by_label("Its size").fill("US 6 1/2")
    sheet.get_by_label(re.compile("Left of the band wire")).fill("38")
    sheet.get_by_role("button", name="Into the logbook").click()
    expect(page.get_by_role("heading", name="It is finished.")).to_be_visible()
    page.goto(f"{address}/logbook")
    line = page.get_by_role("listitem").filter(has_text="Honey ring")
    expect(line).to_contain_text(re.compile(r"US 6½, .*wire 162 mm of 16\d mm planned"))
    hand = page.get_by_role("region", name="Your hand")
    expect(hand).to_contain_text("1 ring")
    hand.get_by_role("button", name="Reckon with it in plans").click()
    expect(hand.get_by_role("button", name="Plans reckon with it")).to_be_visible()


def test_a_woven_ring_is_counted_on_two_devices(browser: Browser, server: str, sessions: object) -> None:
    tablet, phone = browser.new_page(), browser.new_page(viewport={"width": 390, "height": 844})
    try:
        begin(tablet, server, MARIGOLD)
        phone.goto(tablet.url)
        on_to(tablet, "Weave A3 AB1")
        ring = re.compile(r"A3 AB1 (\d+) of \d+")
        expect(phone.get_by_role("button", name=ring)).to_be_visible()
        for _ in range(6):
            tablet.keyboard.press("Space")
        expect(phone.get_by_role("button", name="A3 AB1 6 of")).to_be_visible()
        phone.get_by_role("button", name="A3 AB1 6 of").click()
        phone.get_by_role("button", name="+5: five more, A3 AB1").click()
        expect(tablet.get_by_role("button", name="A3 AB1 12 of")).to_be_visible()
        tablet.keyboard.press("Backspace")
        expect(phone.get_by_role("button", name="A3 AB1 11 of")).to_be_visible()
        # Group by group: three on A, then one round both, and that is one more.
        tablet.get_by_role("button", name="Tap each group").click()
        tablet.keyboard.press("Space")
        expect(tablet.get_by_role("button", name="A3 AB1 11 of")).to_be_visible()
        tablet.keyboard.press("Space")
        expect(tablet.get_by_role("button", name="A3 AB1 12 of")).to_be_visible()
        # It has to have been 12 there too: else the 11 of before would be taken for the one that comes.
        expect(phone.get_by_role("button", name="A3 AB1 12 of")).to_be_visible()
        tablet.get_by_role("button", name="Tap whole repeats").click()
        tablet.keyboard.press("Backspace")
        expect(phone.get_by_role("button", name="A3 AB1 11 of")).to_be_visible()
        # What is measured on the way says how many more.
        tablet.get_by_role("button", name="Length so far").click()
        tablet.get_by_label("Length so far [mm]").fill("21")
        expect(tablet.get_by_role("dialog", name="Length so far")).to_contain_text("longer than planned")
        tablet.get_by_role("button", name="Write it down").click()
        # Without the network taps are kept, shown and delivered once.
        phone.context.set_offline(True)
        phone.get_by_role("button", name="A3 AB1 11 of").click()
        expect(phone.get_by_text("1 kept here")).to_be_visible()
        phone.context.set_offline(False)
        expect(tablet.get_by_role("button", name="A3 AB1 12 of")).to_be_visible()
        expect(phone.get_by_text("kept here")).to_have_count(0)
    finally:
        tablet.close()
        phone.close()


@pytest.mark.parametrize("dark", [False, True])
def test_bench_and_logbook_are_for_everybody(page: Page, server: str, sessions: object, dark: bool) -> None:
    page.emulate_media(color_scheme="dark" if dark else "light")
    page.goto(f"{server}/bench")
    expect(page.get_by_text("No ring lies here.")).to_be_visible()
    check_axe(page)
    begin(page, server, HONEY)
    check_axe(page)
    on_to(page, "Hold the head on top of the mandrel")
    page.get_by_role("button", name="Reading").click()
    page.get_by_label("The mandrel reads").fill("US 7 7/8")
    expect(page.get_by_role("button", name="Form it again")).to_be_visible()
    check_axe(page)
    page.get_by_role("button", name="Close").click()
    page.get_by_role("button", name="End it here").click()
    page.get_by_role("button", name="Into the logbook").click()
    expect(page.get_by_role("link", name="See it in the logbook")).to_be_visible()
    page.get_by_role("link", name="See it in the logbook").click()
    expect(page.get_by_role("listitem").filter(has_text="Honey ring")).to_be_visible()
    check_axe(page)


def test_every_figure_at_the_bench_is_in_the_makers_units(page: Page, server: str, sessions: object) -> None:
    page.goto(f"{server}/plan")
    page.evaluate("() => localStorage.setItem('pliant-coil.preferences', JSON.stringify({ units: 'in', systems: ['uk', 'eu'] }))")
    begin(page, server, HONEY)
    heading = page.get_by_role("heading", level=2).first
    seen = []
    while page.get_by_role("button", name="Done, on").count():
        seen.append(page.get_by_role("main").inner_text())
        now = heading.inner_text()
        page.keyboard.press("Enter")
        expect(heading).not_to_have_text(now)
    for text in seen:
        assert not re.search(r"\bUS \d", text), text
        assert not re.search(r"(?<![(\d.] )(?<!\()\b\d+(\.\d+)? mm\b(?! \()", re.sub(r"\([^)]*\)", "", text)), text


def test_opened_once_the_bench_goes_on_without_its_server(page: Page, killable: Callable[[], Apart], sessions: object) -> None:
    server = killable()
    begin(page, server.address, HONEY)
    # The pages are kept once they have been there; then this one is asked for again, and what it shows is kept too.
    page.evaluate(
        "() => navigator.serviceWorker.ready.then((r) => new Promise((done) => r.active.state === 'activated' ? done() : r.active.addEventListener('statechange', done)))"
    )
    page.reload()
    expect(page.get_by_role("button", name="Done, on")).to_be_visible()
    heading = page.get_by_role("heading", level=2).first
    before = heading.inner_text()
    server.kill()
    page.reload()
    expect(heading).to_have_text(before)
    expect(page.get_by_text("the server doesn’t answer")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_text("1 kept here")).to_be_visible()
    after = heading.inner_text()
    assert after != before
    page.reload()
    expect(heading).to_have_text(after)
    killable()
    expect(page.get_by_text("the server doesn’t answer")).to_have_count(0)
    page.reload()
    expect(heading).to_have_text(after)


def test_what_a_bench_that_was_left_had_to_tell_is_told_from_elsewhere(page: Page, server: str, sessions: object) -> None:
    begin(page, server, HONEY)
    on_to(page, "wrap one tail round its shoulder")
    # Nothing gets through, and the maker goes away.
    page.route("**/api/jobs/*/events", lambda route: route.fulfill(status=500, body="{}"))
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name=re.compile("lock 1 of 2"))).to_be_visible()
    job = page.url.rsplit("/", 1)[1]
    page.get_by_role("navigation").get_by_role("link", name="Logbook").click()
    page.unroute("**/api/jobs/*/events")
    with page.expect_response(lambda answer: answer.url.endswith("/events") and answer.ok):
        page.get_by_role("navigation").get_by_role("link", name="Sizes").click()
    steps = page.request.get(f"{server}/api/jobs/{job}").json()["progress"]["steps"]
    assert next(c["made"] for step in steps for c in step["counters"]) == 1
