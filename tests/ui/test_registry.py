"""Every style of the registry, chosen by hand in the browser: each field of its form changed once, and a plan or a refusal seen."""

from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from pliant_coil.core.making.fitting import bands_for, simplest_head
from pliant_coil.core.styles.registry import all_bands, all_heads

STYLES = [
    # No band has nothing to set.
    *(("band", band, simplest_head(style())) for band, style in all_bands().items() if set(style.model_fields) - {"style"}),
    *(("head", bands_for(style())[0], head) for head, style in all_heads().items() if head != "none"),
]


MOST_ELEMENTS = 4000
"""In one drawing: a tablet takes a blink to draw more of them, at every change."""


def choose(page: Page, kind: str, title: str) -> None:
    page.locator(f"#phrase-{kind}").click()
    style = page.get_by_role("dialog").get_by_role("combobox").first
    if style.inner_text() != title:
        style.click()
        page.get_by_role("option", name=title, exact=True).click()
    decided(page)


def decided(page: Page) -> None:
    """A plan for what is asked, or a refusal: never a loading text that stays."""
    page.wait_for_function("() => ['fresh', 'refused'].includes(document.querySelector('[data-testid=answer]').dataset.standing)")


def told_at_the_field(page: Page) -> None:
    """What is refused says where it is, and what to use."""
    if page.get_by_test_id("answer").get_attribute("data-standing") == "refused":
        expect(page.get_by_test_id("mind")).not_to_be_empty()


def number_changed(field: Locator, page: Page) -> None:
    before = field.input_value()
    try:
        changed = f"{float(before) * 1.1 + 0.05:.2f}"
    except ValueError:
        changed = "1.5"
    field.fill(changed)
    decided(page)
    told_at_the_field(page)
    # What comes next is asked with it; an answer that nothing is read from isn't waited for.
    field.fill(before)


@pytest.mark.parametrize(("kind", "band", "head"), STYLES, ids=["-".join(style) for style in STYLES])
def test_every_field_of_every_style_can_be_changed(plan: Page, kind: str, band: str, head: str) -> None:
    errors: list[Any] = []
    plan.on("console", lambda message: errors.append(message.text) if message.type == "error" and "422" not in message.text else None)
    choose(plan, "band", all_bands()[band].title)
    expect(plan.get_by_test_id("answer")).to_have_attribute("data-standing", "fresh")
    if kind == "head":
        choose(plan, "head", all_heads()[head].title)
        expect(plan.get_by_test_id("answer")).to_have_attribute("data-standing", "fresh")
    elements: int = plan.evaluate("() => Math.max(...[...document.querySelectorAll('svg')].map((svg) => svg.querySelectorAll('*').length))")
    assert 50 < elements <= MOST_ELEMENTS
    dialog = plan.get_by_role("dialog")
    more = dialog.get_by_role("button", name="More:")
    while more.count():
        more.first.click()
    changed = 0
    fields = dialog.get_by_role("textbox")
    for k in range(fields.count()):
        number_changed(fields.nth(k), plan)
        changed += 1
    for step in ("one more", "one less"):
        buttons = dialog.get_by_role("button", name=step)
        for k in range(buttons.count()):
            if buttons.nth(k).is_enabled():
                buttons.nth(k).click()
                decided(plan)
                told_at_the_field(plan)
                changed += 1
    unpressed = dialog.locator("button[aria-pressed=false]")
    for k in range(unpressed.count()):
        if k < unpressed.count():
            unpressed.nth(k).click()
            decided(plan)
            told_at_the_field(plan)
            changed += 1
    choices = dialog.get_by_role("combobox")
    for k in range(1, choices.count()):
        choices.nth(k).click()
        plan.get_by_role("option").last.click()
        decided(plan)
        told_at_the_field(plan)
        changed += 1
    decided(plan)
    assert changed >= 1, f"{kind} has nothing to set"
    expect(plan.get_by_role("alert")).to_have_count(0)
    assert not errors
