"""What a maker does on the Plan screen, in a real browser."""

import re

import pytest
from playwright.sync_api import Page, expect

from pliant_coil.core.plan.build import plan as plan_of
from pliant_coil.core.ring_file.document import read_ring
from tests.ui.desk import FIRST_RING, cut, phrase, save_as, settled, sheet, shown


def test_from_a_finger_to_a_cut_with_the_keyboard_alone(plan: Page) -> None:
    assert cut(plan) == f"{plan_of(read_ring(FIRST_RING)).wires[0].cut_mm:.0f} mm"
    plan.get_by_role("button", name="Finger: US 6½").focus()
    plan.keyboard.press("Enter")
    expect(plan.get_by_role("textbox", name="Size")).to_be_focused()
    plan.keyboard.type("UK T½")
    larger = plan_of(read_ring({**FIRST_RING, "finger": {"size": "UK T½"}}))
    expect(plan.get_by_test_id("cut")).to_contain_text(f"{larger.wires[0].cut_mm:.0f} mm")
    expect(plan.get_by_role("dialog")).to_contain_text("just short of US 10")
    plan.keyboard.press("Escape")
    expect(plan.get_by_role("button", name="Finger: UK T½")).to_be_focused()
    expect(plan.get_by_role("img", name=f"Start at {shown(larger.start.exact['us'])}, comes off at just short of US 10")).to_be_visible()


def test_every_phrase_changes_the_ring(plan: Page) -> None:
    phrase(plan, "Wire, band")
    plan.get_by_role("textbox", name="Wire").fill("1.3 mm")
    expect(plan.get_by_test_id("mind")).to_contain_text("The 1.1 mm hole doesn't take this wire at all: it needs 1.35 mm")
    plan.get_by_role("textbox", name="Wire").fill("0.8 mm")
    plan.get_by_label("Metal").click()
    plan.get_by_role("option", name="Brass").click()
    phrase(plan, "Band: turned once each way")
    plan.get_by_role("button", name="One way").click()
    plan.get_by_role("textbox", name="Turns").fill("2")
    phrase(plan, "Head: a 7 mm bead")
    plan.get_by_role("textbox", name="Bead").fill("5,5")
    phrase(plan, "Ends and surface: locked twice")
    plan.get_by_role("button", name="Wraps each side: one more").click()
    sheet(plan)
    settled(plan)
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
    expect(plan.get_by_test_id("cut")).to_have_text(f"{expected.wires[0].cut_mm:.0f} mm")


def test_reading_habits_changes_nothing_and_taking_one_does(plan: Page) -> None:
    before = cut(plan)
    plan.get_by_role("button", name="Compare habits").click()
    expect(plan.get_by_text(re.compile("Here it ends 1.1 US sizes too small"))).to_be_visible()
    assert cut(plan) == before
    expect(plan.get_by_role("img", name=re.compile("^Start at just short of US 7¾, comes off at US 6½"))).to_be_visible()
    plan.get_by_role("button", name="Start at the size").click()
    small = plan_of(read_ring({**FIRST_RING, "sizing": {"school": "at-size"}}))
    expect(plan.get_by_role("img", name=f"Start at US 6½, comes off at {shown(small.finished.exact['us'])}")).to_be_visible()


def test_a_bad_size_is_told_at_the_field_and_no_old_figure_looks_current(plan: Page) -> None:
    phrase(plan, "Finger")
    plan.get_by_role("textbox", name="Size").fill("US 99")
    expect(plan.get_by_role("dialog").get_by_text("Use US 0 to US 16.")).to_be_visible()
    answer = plan.get_by_test_id("answer")
    expect(answer).to_have_attribute("data-standing", "refused")
    expect(answer).to_contain_text("can’t be made")
    assert "line-through" in answer.get_by_test_id("start").evaluate("e => getComputedStyle(e).textDecorationLine")
    sheet(plan)
    expect(plan.get_by_role("button", name="Save", exact=True)).to_be_disabled()
    plan.reload()
    expect(plan.get_by_test_id("mind")).to_contain_text("“US 99” is outside the sizes")
    phrase(plan, "Finger: US 99")
    plan.get_by_role("textbox", name="Size").fill("US 9")
    settled(plan)


def test_a_weave_is_planned_and_changed_by_its_counts(plan: Page) -> None:
    phrase(plan, "Band: turned")
    plan.get_by_role("dialog").get_by_role("combobox").first.click()
    plan.get_by_role("option", name="Woven").click()
    program = plan.get_by_role("textbox", name="Weave program")
    program.fill("A3 C1")
    expect(plan.get_by_test_id("mind")).to_contain_text("“C1” at character 4 names wire C")
    program.fill("a2 ab1")
    chart = plan.get_by_role("region", name="The weave chart")
    expect(chart).to_contain_text("repeats of A2 AB1")
    sheet(plan)
    plan.get_by_role("button", name="AB: one more").click()
    plan.get_by_role("button", name="Keep A2 AB2").click()
    expect(plan.get_by_role("button", name="Forget A2 AB2")).to_have_count(1)
    # A group without wraps isn't woven, but stays to be filled again.
    plan.get_by_role("button", name="A: one less", exact=True).click()
    plan.get_by_role("button", name="A: one less", exact=True).click()
    expect(chart).to_contain_text("repeats of AB2")
    plan.get_by_role("button", name="A: one more", exact=True).click()
    expect(chart).to_contain_text("repeats of A1 AB2")
    plan.get_by_role("button", name="A3 AB1", exact=True).click()
    told = plan_of(read_ring({"finger": {"size": "US 6 1/2"}, "band": {"style": "woven"}}))
    assert told.fit is not None
    expect(chart).to_contain_text(f"{told.fit.repeats} repeats of A3 AB1")
    expect(plan.get_by_test_id("cut").first).to_have_text(f"2 × {told.wires[0].cut_mm:.0f} mm")


def test_a_run_of_a_bundle_has_its_own_count(plan: Page, server: str) -> None:
    ring = {"title": "Bound", "band": {"style": "bundled", "runs": "5 middle, 3 all, 6 inner"}}
    made = plan.request.post(f"{server}/api/rings", data=ring).json()
    plan.goto(f"{server}/plan/{made['id']}")
    chart = plan.get_by_role("region", name="The weave chart")
    expect(chart).to_contain_text("Bound 5 middle, 3 all, 6 inner")
    plan.get_by_role("button", name="all: one more").click()
    expect(chart).to_contain_text("Bound 5 middle, 4 all, 6 inner")
    expect(plan.get_by_role("button", name=re.compile("^Band: .*5 middle, 4 all, 6 inner"))).to_be_visible()


def test_ends_are_chosen_at_their_phrase(plan: Page) -> None:
    before = cut(plan)
    phrase(plan, "Ends and surface: locked twice")
    plan.get_by_role("button", name="Scroll").click()
    settled(plan)
    expect(plan.get_by_test_id("cut")).not_to_have_text(before)
    plan.get_by_role("button", name="Loop", exact=True).click()
    plan.get_by_role("textbox", name="Loop, inside").fill("9")
    expect(plan.get_by_role("dialog")).to_contain_text("Is out of range. Use 0.8 mm to 6 mm.")
    expect(plan.get_by_test_id("answer")).to_have_attribute("data-standing", "refused")


def test_room_for_the_width_is_chosen_and_said(plan: Page) -> None:
    plan.get_by_role("button", name="Cutting").click()
    plan.get_by_role("button", name="A quarter size").click()
    expect(plan.get_by_role("main")).to_contain_text("with room of 0.25 US size for its width.")
    expect(plan.get_by_test_id("finish")).to_have_text("US 6¾")


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


def test_the_ring_turns_or_says_why_not(plan: Page) -> None:
    plan.get_by_role("button", name="Turn it").click()
    expect(plan.locator("canvas").or_(plan.get_by_text("This browser can’t draw in space"))).to_be_visible()
    plan.get_by_role("button", name="Still pictures").click()
    expect(plan.get_by_role("img", name="The ring from above")).to_be_visible()


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (820, 1180), (390, 844)])
def test_it_fits_the_devices_on_the_table_and_the_answer_never_leaves(plan: Page, width: int, height: int) -> None:
    plan.set_viewport_size({"width": width, "height": height})
    plan.wait_for_function("() => document.documentElement.scrollWidth === document.documentElement.clientWidth")
    for button in plan.get_by_role("banner").get_by_role("button").all():
        box = button.bounding_box()
        assert box is not None and box["height"] >= 44, button.inner_text()
    for down in (0, 600, 5000):
        plan.mouse.wheel(0, down)
        for figure in ("start", "cut", "finish"):
            expect(plan.get_by_test_id(figure).first).to_be_in_viewport(ratio=1)
    # What is told in passing, and what is set beside the page, never cover the answer.
    plan.evaluate("scrollTo(0, 0)")
    save_as(plan, "On its tag")
    told = plan.get_by_role("alert").bounding_box()
    phrase(plan, "Band: turned")
    answer, beside = plan.get_by_test_id("answer").bounding_box(), plan.get_by_role("dialog").bounding_box()
    assert told is not None and answer is not None and beside is not None
    for part in (told, beside):
        over, under = part["y"] + part["height"] <= answer["y"] + 1, part["y"] >= answer["y"] + answer["height"] - 1
        assert over or under or part["x"] >= answer["x"] + answer["width"] - 1, part
    assert width >= 1200 or beside["height"] <= height / 2


def test_a_finished_ring_is_to_be_another_size(plan: Page) -> None:
    panel = plan.get_by_role("region", name="Another size")
    panel.get_by_label("Wanted").fill("US 7")
    expect(panel).to_contain_text("Lock it again. Unwind the locks, form it again at")
    panel.get_by_label("Wanted").fill("US 9")
    expect(panel).to_contain_text("Stretch it: not this far.")
    panel.get_by_label("Wanted").fill("US 77")
    expect(panel).to_contain_text("Use US 0 to US 16.")
