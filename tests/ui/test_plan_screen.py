"""What a maker does on the Plan screen, in a real browser."""

import re

import pytest
from playwright.sync_api import Page, expect

from pliant_coil.core.plan.build import plan as plan_of
from pliant_coil.core.ring_file.document import read_ring

ORIGINAL = re.compile("^Meadow & <i.ring US")
FIRST_RING = {
    "finger": {"size": "US 6 1/2"},
    "wires": {"band": {"diameter": "20 AWG"}},
    "head": {"style": "bead-lock", "bead": {"diameter_mm": 7, "hole_mm": 1.1}},
}


def cut(page: Page) -> str:
    return page.get_by_test_id("cut").inner_text()


def phrase(page: Page, name: str) -> None:
    page.get_by_role("button", name=name).click()


def save_as(page: Page, title: str) -> None:
    page.get_by_label("Name of the ring").fill(title)
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("button", name="Saved")).to_be_visible()


def test_from_a_finger_to_a_cut_with_the_keyboard_alone(plan: Page) -> None:
    assert cut(plan).startswith(f"{plan_of(read_ring(FIRST_RING)).wires[0].cut_mm:.0f} mm")
    plan.get_by_role("button", name="Finger: US 6 1/2").focus()
    plan.keyboard.press("Enter")
    expect(plan.get_by_role("textbox", name="Size")).to_be_focused()
    plan.keyboard.type("UK T½")
    larger = plan_of(read_ring({**FIRST_RING, "finger": {"size": "UK T½"}}))
    expect(plan.get_by_test_id("cut")).to_contain_text(f"{larger.wires[0].cut_mm:.0f} mm")
    expect(plan.get_by_role("dialog")).to_contain_text("just short of US 10")
    plan.keyboard.press("Escape")
    expect(plan.get_by_role("button", name="Finger: just short of US 10")).to_be_focused()


def test_a_school_is_taken_and_says_what_it_gives(plan: Page) -> None:
    plan.get_by_role("button", name="At the size").click()
    expect(plan.get_by_text(re.compile("Here it ends .* too small"))).to_be_visible()


def test_a_bad_size_is_told_at_the_field_and_nothing_typed_is_lost(plan: Page) -> None:
    before = cut(plan)
    phrase(plan, "Finger")
    plan.get_by_role("textbox", name="Size").fill("US 99")
    expect(plan.get_by_role("dialog").get_by_text("What would do: US 0 to US 16")).to_be_visible()
    assert cut(plan) == before
    plan.keyboard.press("Escape")
    expect(plan.get_by_role("button", name="Save", exact=True)).to_be_disabled()
    plan.reload()
    expect(plan.get_by_test_id("mind")).to_contain_text("“US 99” is outside the sizes")
    phrase(plan, "Finger: US 99")
    plan.get_by_role("textbox", name="Size").fill("US 9")
    expect(plan.get_by_test_id("cut")).to_be_visible()


def test_a_saved_ring_is_found_opened_copied_put_away_and_taken_back(plan: Page, server: str) -> None:
    save_as(plan, "Meadow & <i>ring")
    address = plan.url
    assert re.search(r"/plan/[0-9a-f-]{36}$", address)
    plan.goto(f"{server}/plan")
    plan.get_by_role("button", name="Rings").click()
    plan.get_by_label("Search").fill("meadow 20 awg")
    plan.get_by_role("button", name="Copy Meadow").click()
    expect(plan.get_by_text("Meadow & <i>ring (copy)")).to_be_visible()
    plan.get_by_role("button", name="Put Meadow & <i>ring away", exact=True).click()
    expect(plan.get_by_role("link", name=ORIGINAL)).to_have_count(0)
    plan.get_by_role("button", name="Undo").click()
    plan.get_by_role("link", name=ORIGINAL).click()
    expect(plan).to_have_url(address)
    expect(plan.get_by_label("Name of the ring")).to_have_value("Meadow & <i>ring")
    phrase(plan, "Finger: US 6 1/2")
    expect(plan.get_by_role("textbox", name="Size")).to_have_value("US 6 1/2")
    plan.keyboard.press("Escape")
    plan.get_by_role("button", name="Rings").click()
    plan.get_by_label("Search").fill("nothing like it")
    expect(plan.get_by_text("Fewer words find more.")).to_be_visible()


def test_the_second_of_two_savers_keeps_theirs_as_a_copy(plan: Page) -> None:
    save_as(plan, "Shared ring")
    other = plan.context.new_page()
    other.goto(plan.url)
    expect(other.get_by_label("Name of the ring")).to_have_value("Shared ring")
    save_as(plan, "Shared ring, mine")
    other.get_by_label("Name of the ring").fill("Shared ring, theirs")
    other.keyboard.press("Control+s")
    expect(other.get_by_role("dialog")).to_contain_text("“Shared ring, mine” was saved")
    other.get_by_role("button", name="Keep mine as a copy").click()
    expect(other.get_by_label("Name of the ring")).to_have_value("Shared ring, theirs (copy)")
    assert other.url != plan.url
    plan.reload()
    expect(plan.get_by_label("Name of the ring")).to_have_value("Shared ring, mine")


def test_how_figures_are_read_is_remembered(plan: Page) -> None:
    plan.get_by_role("button", name="mm · US UK").click()
    plan.get_by_role("button", name="Inches first").click()
    plan.get_by_role("button", name="Evening").click()
    plan.get_by_label("On the right").click()
    plan.get_by_role("option", name="Japan").click()
    plan.keyboard.press("Escape")
    plan.reload()
    expect(plan.get_by_test_id("cut")).to_have_text(re.compile(r"^\d.* in"))
    expect(plan.get_by_role("button", name="in · US JP")).to_be_visible()
    expect(plan.locator("html")).to_have_attribute("data-light", "dark")


def test_a_stretch_shows_its_arithmetic_and_lights_up_on_the_ring(plan: Page) -> None:
    strip = plan.get_by_role("group", name=re.compile("arrow keys"))
    strip.focus()
    for _ in range(3):
        plan.keyboard.press("ArrowRight")
    expect(plan.get_by_test_id("arithmetic")).to_contain_text("lock ×2")
    expect(plan.get_by_test_id("arithmetic")).to_contain_text("2 × √(")
    lit = plan.get_by_role("img", name="The ring end-on").locator("path[stroke='var(--mui-palette-primary-main)']")
    expect(lit).not_to_have_count(0)
    plan.keyboard.press("Escape")
    expect(lit).to_have_count(0)


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (820, 1180), (390, 844)])
def test_it_fits_the_devices_on_the_table(plan: Page, width: int, height: int) -> None:
    plan.set_viewport_size({"width": width, "height": height})
    expect(plan.get_by_test_id("cut")).to_be_visible()
    plan.wait_for_function("document.documentElement.scrollWidth === document.documentElement.clientWidth")
    for button in plan.get_by_role("banner").get_by_role("button").all():
        box = button.bounding_box()
        assert box is not None
        assert box["height"] >= 44, button.inner_text()


def test_an_address_of_no_ring_says_so(plan: Page, server: str) -> None:
    plan.goto(f"{server}/plan/00000000-0000-4000-8000-000000000000")
    expect(plan.get_by_text("That ring isn’t here.")).to_be_visible()
    plan.get_by_role("link", name="Plan a new ring").click()
    expect(plan.get_by_test_id("cut")).to_be_visible()


def test_the_ring_turns_or_says_why_not(plan: Page) -> None:
    plan.get_by_role("button", name="Turn it").click()
    expect(plan.locator("canvas").or_(plan.get_by_text("This browser can’t draw in space"))).to_be_visible()
    plan.get_by_role("button", name="Still pictures").click()
    expect(plan.get_by_role("img", name="The ring from above")).to_be_visible()
