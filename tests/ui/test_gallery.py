"""From everything that can be made to one ring, and rings side by side: as a maker goes about it."""

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.ui.axe import check_axe


@pytest.fixture
def gallery(plan: Page, server: str) -> Page:
    plan.goto(f"{server}/gallery")
    expect(plan.get_by_role("heading", name="Nest", exact=True)).to_be_visible()
    return plan


def tile(page: Page, name: str) -> Locator:
    return page.get_by_role("listitem").filter(has=page.get_by_role("heading", name=name, exact=True))


def test_what_is_at_hand_comes_first_and_is_where_to_start(gallery: Page) -> None:
    gallery.get_by_label("Ring size").fill("UK P")
    gallery.get_by_label("Bead at hand, mm").fill("8")
    gallery.get_by_role("button", name="Half an hour").click()
    first = gallery.get_by_role("listitem").first
    expect(first).to_contain_text("mm bead")
    expect(gallery.get_by_role("heading", name="With something else")).to_be_visible()
    expect(gallery.get_by_text("Needs no bead").first).to_be_visible()
    name = first.get_by_role("heading").inner_text()
    assert name
    first.get_by_role("button", name="Start from this").click()
    expect(gallery.get_by_test_id("answer")).to_have_attribute("data-standing", "fresh")
    expect(gallery.locator("#phrase-finger")).to_contain_text("UK P")


def test_a_size_that_cant_be_read_keeps_the_rings_and_says_so(gallery: Page) -> None:
    gallery.get_by_label("Ring size").fill("enormous")
    expect(gallery.get_by_label("Ring size")).to_have_attribute("aria-invalid", "true")
    expect(gallery.get_by_role("heading", name="Nest", exact=True)).to_be_visible()


def test_rings_are_laid_side_by_side_and_planned_from_there(gallery: Page) -> None:
    for name in ("Framed bead", "Cage", "Wave"):
        tile(gallery, name).get_by_role("button", name="Lay beside").click()
    gallery.get_by_role("button", name="Lay 3 side by side").click()
    for name in ("Framed bead", "Cage", "Wave"):
        column = gallery.get_by_role("region", name=name)
        expect(column).to_contain_text("Weighs")
        expect(column.get_by_role("img")).to_have_count(2)
    expect(gallery.get_by_role("region", name="Wave")).to_contain_text("torch")
    gallery.reload()
    expect(gallery.get_by_role("region", name="Cage")).to_be_visible()
    gallery.get_by_role("region", name="Wave").get_by_role("button", name="Put away").click()
    expect(gallery.get_by_role("region", name="Wave")).to_have_count(0)
    gallery.get_by_role("region", name="Cage").get_by_role("button", name="Plan this one").click()
    expect(gallery.locator("#phrase-head")).to_contain_text("caged")


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_both_screens_are_open_to_everybody(gallery: Page, scheme: str) -> None:
    gallery.emulate_media(color_scheme="dark" if scheme == "dark" else "light", reduced_motion="reduce")
    check_axe(gallery)
    for name in ("Nest", "Cage"):
        tile(gallery, name).get_by_role("button", name="Lay beside").click()
    gallery.get_by_role("button", name="Lay 2 side by side").click()
    expect(gallery.get_by_role("region", name="Cage")).to_contain_text("Weighs")
    check_axe(gallery)


@pytest.mark.parametrize("width", [390, 820])
def test_nothing_stands_outside_a_small_screen(gallery: Page, width: int) -> None:
    gallery.set_viewport_size({"width": width, "height": 900})
    wide = gallery.evaluate(
        "() => [...document.querySelectorAll('body *')].filter((e) => e.getBoundingClientRect().right > innerWidth + 1).map((e) => e.tagName + e.className + e.textContent.slice(0, 30))"
    )
    assert wide == []
    assert gallery.evaluate("() => document.documentElement.scrollWidth <= window.innerWidth")
