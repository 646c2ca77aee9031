"""Every button and link of every screen keeps its keys: Enter and Space press what has the focus, and nothing else."""

import re

from playwright.sync_api import Page, expect

from tests.ui.test_bench import HONEY, MARIGOLD, begin, on_to

SCREENS = ("plan", "gallery", "compare", "bench", "logbook", "sizes", "mandrels", "tools", "people")
TAKEN = """() => [...document.querySelectorAll('button, a[href], [role=button]')]
  .filter((control) => control.getClientRects().length > 0)
  .flatMap((control) => ['Enter', ' '].map((key) => ({ control, key })))
  .filter(({ control, key }) => {
    control.focus();
    const pressed = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
    return !control.dispatchEvent(pressed);
  })
  .map(({ control, key }) => `${control.textContent || control.ariaLabel} (${key})`)"""
"""The controls at which a key doesn't do what it does anywhere: somebody else has taken it."""
CONTROLS = "() => document.querySelectorAll('button, a[href], [role=button]').length"


def test_no_screen_takes_the_keys_of_its_controls(plan: Page, server: str) -> None:
    seen = 0
    for screen in SCREENS:
        plan.goto(f"{server}/{screen}")
        expect(plan.locator("header")).to_be_visible()
        expect(plan.locator("main").first).to_be_visible()
        assert plan.evaluate(TAKEN) == [], screen
        seen += plan.evaluate(CONTROLS)
    for ring in (HONEY, MARIGOLD):
        begin(plan, server, ring)
        for words in ("", "Done"):
            step = plan.get_by_role("heading", level=2).first.inner_text()
            assert plan.evaluate(TAKEN) == []
            expect(plan.get_by_role("heading", level=2).first).to_have_text(step)
            seen += plan.evaluate(CONTROLS)
            if not words:
                plan.get_by_role("button", name="Done, on").click()
    assert seen > 150


def test_a_focused_control_of_the_bench_does_what_it_says(plan: Page, server: str) -> None:
    begin(plan, server, HONEY)
    on_to(plan, "Hold the head on top of the mandrel")
    at = plan.get_by_role("heading", level=2).first
    here = at.inner_text()
    back = plan.get_by_role("button", name="Back", exact=True)
    back.focus()
    plan.keyboard.press("Enter")
    expect(at).not_to_have_text(here)
    plan.get_by_role("button", name="Done, on").focus()
    plan.keyboard.press("Space")
    expect(at).to_have_text(here)
    plan.get_by_role("button", name="Tail left").focus()
    plan.keyboard.press("Enter")
    expect(plan.get_by_role("dialog", name="Tail left")).to_be_visible()
    plan.keyboard.press("Escape")
    expect(at).to_have_text(here)
    plan.get_by_role("link", name="Logbook").focus()
    plan.keyboard.press("Enter")
    expect(plan).to_have_url(re.compile("/logbook"))
    plan.go_back()
    expect(at).to_have_text(here)


def test_a_pedal_goes_on_after_a_button_was_tapped(plan: Page, server: str) -> None:
    """A tap leaves the keys to the step: the pedal's Enter isn't the tapped button's."""
    begin(plan, server, HONEY)
    on_to(plan, "Hold the head on top of the mandrel")
    at = plan.get_by_role("heading", level=2).first
    here = at.inner_text()
    plan.get_by_role("button", name="Back", exact=True).click()
    expect(at).not_to_have_text(here)
    plan.keyboard.press("Enter")
    expect(at).to_have_text(here)


def test_a_note_is_still_there_after_escape_and_after_a_reload(plan: Page, server: str) -> None:
    begin(plan, server, HONEY)
    plan.keyboard.press("n")
    note = plan.get_by_role("dialog", name="Note").get_by_role("textbox", name="Note")
    note.fill("the left tail springs")
    plan.keyboard.press("Escape")
    expect(plan.get_by_role("dialog")).to_have_count(0)
    plan.reload()
    expect(plan.get_by_role("button", name="Done, on")).to_be_visible()
    plan.keyboard.press("n")
    expect(note).to_have_value("the left tail springs")
    plan.get_by_role("button", name="Write it down").click()
    plan.keyboard.press("n")
    expect(note).to_have_value("")
