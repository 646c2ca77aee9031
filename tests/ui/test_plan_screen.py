"""What a maker does on the Plan screen, in a real browser."""

import json
import re
from pathlib import Path

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


def test_every_phrase_changes_the_ring(plan: Page) -> None:
    phrase(plan, "Wire, band")
    plan.get_by_role("button", name="18 AWG").click()
    expect(plan.get_by_text("hole doesn't take this wire")).not_to_be_visible()
    plan.get_by_role("textbox", name="Wire").fill("1.3 mm")
    expect(plan.get_by_test_id("mind")).to_contain_text("The 1.1 mm hole doesn't take this wire at all: it needs 1.35 mm")
    plan.get_by_role("textbox", name="Wire").fill("0.8 mm")
    plan.get_by_label("Metal").click()
    plan.get_by_role("option", name="Brass").click()
    plan.keyboard.press("Escape")
    phrase(plan, "Band: turned once each way")
    plan.get_by_role("button", name="Turns: one more").click()
    plan.get_by_role("button", name="One way").click()
    plan.keyboard.press("Escape")
    phrase(plan, "Head: a 7 mm bead")
    plan.get_by_role("textbox", name="Bead").fill("5,5")
    plan.keyboard.press("Escape")
    phrase(plan, "Ends: locked twice")
    plan.get_by_role("button", name="Wraps each side: one more").click()
    plan.keyboard.press("Escape")
    expect(plan.get_by_role("main")).to_contain_text(
        "A US 6½ in soft brass, 0.8 mm, turned twice one way, a 5.5 mm bead, locked three times each side."
    )
    expected = plan_of(
        read_ring(
            {
                "finger": {"size": "US 6 1/2"},
                "wires": {"band": {"diameter": "0.8 mm", "metal": "brass"}},
                "band": {"style": "turned", "winding": "one-way", "turns": 2},
                "head": {"style": "bead-lock", "bead": {"diameter_mm": 5.5, "hole_mm": 1.1}},
                "finish": {"wraps_each_side": 3},
            }
        )
    )
    expect(plan.get_by_test_id("cut")).to_contain_text(f"{expected.wires[0].cut_mm:.0f} mm")


def test_a_ring_file_is_written_and_opened_again(plan: Page, tmp_path: Path) -> None:
    save_as(plan, "For a friend")
    plan.get_by_role("button", name="More").click()
    with plan.expect_download() as download:
        plan.get_by_role("menuitem", name="Write the ring file").click()
    assert download.value.suggested_filename == "for-a-friend.ring.json"
    written = json.loads(Path(download.value.path()).read_text())
    assert read_ring(written).title == "For a friend"
    changed = tmp_path / "changed.ring.json"
    changed.write_text(json.dumps({**written, "finger": {"size": "EU 60"}}))
    plan.get_by_test_id("import").set_input_files(changed)
    expect(plan.get_by_role("button", name="Finger: EU 60")).to_be_visible()
    broken = tmp_path / "broken.ring.json"
    broken.write_text("{ not json")
    plan.get_by_test_id("import").set_input_files(broken)
    expect(plan.get_by_text("“broken.ring.json” isn’t a ring file")).to_be_visible()
    expect(plan.get_by_role("button", name="Finger: EU 60")).to_be_visible()


def test_a_weave_is_planned_tapped_and_printed_to_scale(plan: Page) -> None:
    phrase(plan, "Band: turned")
    plan.get_by_role("dialog").get_by_role("combobox").click()
    plan.get_by_role("option", name="Woven").click()
    expect(plan.get_by_role("textbox", name="Weave program")).to_have_value("A3 AB1")
    plan.get_by_role("textbox", name="Weave program").fill("A3 C1")
    expect(plan.get_by_test_id("mind")).to_contain_text("“C1” at character 4 names wire C")
    plan.get_by_role("textbox", name="Weave program").fill("a2 ab1")
    plan.keyboard.press("Escape")
    chart = plan.get_by_role("region", name="The weave chart")
    expect(chart).to_contain_text("repeats of A2 AB1")
    plan.get_by_role("button", name="AB: one wrap more").click()
    plan.get_by_role("button", name="Keep A2 AB2").click()
    expect(plan.get_by_role("button", name="Forget A2 AB2")).to_have_count(1)
    plan.get_by_role("button", name="A3 AB1", exact=True).click()
    expect(chart).to_contain_text("repeats of A3 AB1")
    expect(plan.get_by_role("button", name="A2 AB2", exact=True)).to_be_visible()
    told = plan_of(read_ring({"finger": {"size": "US 6 1/2"}, "band": {"style": "woven"}}))
    assert told.fit is not None
    expect(chart).to_contain_text(f"{told.fit.repeats} repeats")
    expect(plan.get_by_test_id("cut").first).to_contain_text(f"2 × {told.wires[0].cut_mm:.0f} mm")
    plan.emulate_media(media="print")
    expect(plan.get_by_test_id("paper")).to_be_visible()
    expect(plan.get_by_role("main")).not_to_be_visible()
    box = plan.get_by_test_id("scale-check").bounding_box()
    assert box is not None
    assert box["width"] == pytest.approx(50 * 96 / 25.4 + 2, abs=0.5)


def test_a_tapped_coil_lengthens_its_run_on_both_sides(plan: Page, server: str) -> None:
    ring = {"title": "Bound", "band": {"style": "bundled", "runs": "5 inner, 3 all"}}
    made = plan.request.post(f"{server}/api/rings", data=ring).json()
    plan.goto(f"{server}/plan/{made['id']}")
    chart = plan.get_by_role("region", name="The weave chart")
    expect(chart).to_contain_text("Bound 5 inner, 3 all, 5 inner")
    coils = chart.locator("svg rect")
    coils.nth(coils.count() // 2).click()
    expect(chart).to_contain_text("Bound 6 inner, 3 all, 6 inner")
    expect(plan.get_by_role("button", name="Band: 4 wires bound 6 inner, 3 all")).to_be_visible()


def test_ends_and_short_tail_are_chosen_at_their_phrase(plan: Page) -> None:
    before = cut(plan)
    phrase(plan, "Ends: locked twice")
    plan.get_by_role("button", name="Scroll").click()
    plan.keyboard.press("Escape")
    expect(plan.get_by_test_id("cut")).not_to_have_text(before)
    phrase(plan, "Ends: locked twice each side, ends in scrolls")
    plan.get_by_role("button", name="Loop", exact=True).click()
    plan.get_by_role("textbox", name="Loop, inside").fill("9")
    expect(plan.get_by_role("dialog")).to_contain_text("Is out of range. What would do: at most 6.")
    plan.keyboard.press("Escape")
    expect(plan.get_by_test_id("mind")).to_contain_text("The figures below are those of the last ring that could be planned.")
