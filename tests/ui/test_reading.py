"""What stands on the page and on paper: units, systems, labels that keep apart, access, and the bench card."""

import io
import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect
from pypdf import PdfReader

from tests.ui.axe import check_axe

RINGS: list[dict[str, Any]] = [
    {"title": "Turned", "head": {"style": "bead-lock"}},
    {"title": "Woven", "band": {"style": "woven"}},
    {"title": "Woven with prongs", "band": {"style": "woven", "base_wires": 3}, "head": {"style": "prongs"}},
    {"title": "Bundled", "band": {"style": "bundled"}},
    {"title": "Braided", "band": {"style": "braided"}},
    {"title": "Stacked", "band": {"style": "stacked"}},
    {"title": "Twisted", "band": {"style": "twisted"}},
    {"title": "Open", "band": {"style": "open"}, "head": {"style": "double-coil"}},
    {"title": "Rosette", "head": {"style": "loop-rosette"}},
    {"title": "Disc", "head": {"style": "spiked-disc"}},
    {"title": "Framed", "band": {"style": "woven"}, "head": {"style": "framed-bead"}},
]


def opened(page: Page, server: str, ring: dict[str, Any]) -> None:
    made = page.request.post(f"{server}/api/rings", data=ring).json()
    page.goto(f"{server}/plan/{made['id']}")
    expect(page.get_by_label("Name of the ring")).to_have_value(ring["title"])
    expect(page.get_by_test_id("answer")).to_have_attribute("data-standing", "fresh")


def reads(page: Page, units: str, first: str, second: str) -> None:
    """Set how figures are read, as the menu does."""
    page.evaluate(
        "kept => localStorage.setItem('pliant-coil.preferences', JSON.stringify(kept))", {"units": units, "systems": [first, second]}
    )
    page.reload()
    expect(page.get_by_test_id("answer")).to_have_attribute("data-standing", "fresh")


@pytest.mark.parametrize("ring", RINGS, ids=lambda ring: ring["title"])
def test_no_other_unit_or_system_comes_first(plan: Page, server: str, ring: dict[str, Any]) -> None:
    opened(plan, server, {"finger": {"size": "UK P"}, "wires": {}, **ring})
    reads(plan, "in", "uk", "eu")
    for name in ("Compare habits",):
        button = plan.get_by_role("button", name=name)
        if button.count():
            button.click()
    screen = plan.get_by_role("main").inner_text()
    paper = plan.get_by_test_id("paper").evaluate("e => e.textContent")
    for text in (screen, paper):
        # A cut is told in both units, the maker's own first; the scale check is what its line measures.
        plain = re.sub(r"\([^()]*\d mm\)|(?m:^\d+ mm( · .*)?$)|it is 50 mm", "", text)
        assert re.findall(r"[^\n]{0,30}\bUS\b.{0,20}|[^\n]{0,30}\d mm\b.{0,20}", plain) == []


MEETINGS = """() => [...document.querySelectorAll('main svg')].flatMap((svg) => {
    const texts = [...svg.querySelectorAll('text')].map((t) => ({ said: t.textContent, box: t.getBoundingClientRect() }));
    return texts.flatMap((a, k) => texts.slice(k + 1)
        .filter((b) => a.box.left < b.box.right - 1 && b.box.left < a.box.right - 1
            && a.box.top < b.box.bottom - 3 && b.box.top < a.box.bottom - 3)
        .map((b) => `${a.said} on ${b.said}`));
})"""


@pytest.mark.parametrize("ring", RINGS, ids=lambda ring: ring["title"])
def test_labels_in_drawings_keep_apart(plan: Page, server: str, ring: dict[str, Any]) -> None:
    opened(plan, server, ring)
    for width in (1280, 820, 390):
        plan.set_viewport_size({"width": width, "height": 900})
        strip = plan.locator("main svg").first
        expect(strip).to_have_js_property("clientWidth", strip.evaluate("e => e.parentElement.clientWidth"))
        met = plan.evaluate(MEETINGS)
        assert met == [], width


BEGINS_A_LINE = """() => {
  // Commas and full stops that stand in a line of their own, or at its beginning.
  const walker = document.createTreeWalker(document.querySelector('main'), NodeFilter.SHOW_TEXT);
  const found = [];
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const text = node.data.trimStart();
    const before = node.previousSibling;
    if (!/^[\u2060]?[,.;:]/.test(text) || !(before instanceof Element)) continue;
    const range = document.createRange();
    const at = node.data.indexOf(text) + (text.startsWith('\u2060') ? 1 : 0);
    range.setStart(node, at);
    range.setEnd(node, at + 1);
    const mark = range.getBoundingClientRect();
    const word = before.getBoundingClientRect();
    if (mark.width && mark.left < word.left + 1 && mark.top >= word.bottom - 8) found.push(before.textContent + ' | ' + text);
  }
  return found;
}"""


@pytest.mark.parametrize("ring", RINGS, ids=lambda ring: ring["title"])
def test_no_line_begins_with_a_comma(plan: Page, server: str, ring: dict[str, Any]) -> None:
    opened(plan, server, ring)
    found = []
    for width in range(380, 1400, 40):
        plan.set_viewport_size({"width": width, "height": 900})
        found += [(width, each) for each in plan.evaluate(BEGINS_A_LINE)]
    assert found == []


@pytest.mark.parametrize("scheme", ["light", "dark"])
@pytest.mark.parametrize("state", ["plan", "woven", "sheet", "refused", "rings", "sizes", "phone"])
def test_axe_finds_nothing(plan: Page, server: str, state: str, scheme: Any) -> None:
    plan.emulate_media(color_scheme=scheme)
    if state == "woven":
        opened(plan, server, RINGS[1])
    elif state in ("sheet", "phone"):
        if state == "phone":
            plan.set_viewport_size({"width": 390, "height": 844})
        plan.locator("#phrase-band").click()
        expect(plan.get_by_role("dialog").get_by_role("combobox").first).to_be_visible()
    elif state == "refused":
        plan.locator("#phrase-finger").click()
        plan.get_by_role("textbox", name="Size").fill("US 99")
        expect(plan.get_by_test_id("answer")).to_have_attribute("data-standing", "refused")
    elif state == "rings":
        plan.request.post(f"{server}/api/rings", data=RINGS[0])
        plan.get_by_role("button", name="Rings").click()
        expect(plan.get_by_role("link", name="Turned")).to_be_visible()
    elif state == "sizes":
        plan.get_by_role("link", name="Sizes").click()
        expect(plan.get_by_test_id("size-us")).to_be_visible()
    check_axe(plan)


def test_in_forced_colours_the_open_screen_alone_is_underlined(plan: Page) -> None:
    plan.emulate_media(forced_colors="active")
    underlined = """links => links.filter(e => getComputedStyle(e).borderBottomColor !== getComputedStyle(document.body).backgroundColor)
        .map(e => e.textContent)"""
    assert plan.get_by_role("navigation", name="Screens").get_by_role("link").evaluate_all(underlined) == ["Plan"]


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_paper_is_a_bench_card(plan: Page, server: str, scheme: Any) -> None:
    plan.emulate_media(color_scheme=scheme)
    opened(plan, server, {"title": "On paper", "finger": {"size": "US 7"}, "head": {"style": "bead-lock"}})
    start = plan.get_by_test_id("start").inner_text()
    cut = plan.get_by_test_id("cut").first.inner_text()
    plan.wait_for_function("() => document.querySelector('[data-testid=paper] ol li') !== null")
    pages = PdfReader(io.BytesIO(plan.pdf(format="A4", prefer_css_page_size=True))).pages
    assert 1 <= len(pages) <= 2
    text = re.sub(r"\s+", " ", " ".join(page.extract_text() for page in pages))
    for part in (start, cut, "Comes off", "US 7", " in)", "Off the mandrel, wrap one tail", "eyes covered", "Read:", "it is 50 mm"):
        assert part in text, part
    plan.emulate_media(media="print", color_scheme=scheme)
    expect(plan.get_by_role("main")).not_to_be_visible()
    box = plan.get_by_test_id("scale-check").bounding_box()
    assert box is not None and box["width"] == pytest.approx(50 * 96 / 25.4 + 2, abs=0.5)
    ink = plan.get_by_test_id("paper").evaluate("e => [getComputedStyle(e).color, getComputedStyle(document.body).backgroundColor]")
    assert ink == ["rgb(0, 0, 0)", "rgba(0, 0, 0, 0)"]


def test_sizes_are_read_both_ways_and_lead_to_a_plan(plan: Page) -> None:
    plan.get_by_role("link", name="Sizes").click()
    expect(plan.get_by_test_id("size-us")).to_be_visible()
    for width in (390, 820, 1280):
        plan.set_viewport_size({"width": width, "height": 844})
        plan.wait_for_function("() => document.documentElement.scrollWidth === document.documentElement.clientWidth")
    plan.get_by_label("A ring size, as you say it").fill("EU 54")
    expect(plan.get_by_test_id("size-us")).to_have_text("just past US 6¾")
    expect(plan.get_by_test_id("size-eu")).to_have_text("EU 54")
    plan.get_by_label("A ring size, as you say it").fill("US 77")
    expect(plan.get_by_text("is outside the sizes that rings are made in. Use US 0 to US 16.")).to_be_visible()
    plan.get_by_label("Around the finger, mm").fill("54")
    plan.get_by_label("Around the knuckle, mm").fill("58")
    expect(plan.get_by_text("Half-way between the finger")).to_be_visible()
    plan.get_by_label("A ring size, as you say it").fill("UK R")
    plan.get_by_role("button", name="Plan a ring of this size").click()
    expect(plan.get_by_role("button", name="Finger: UK R")).to_be_visible()
