"""Several rings at once: a quintet stage by stage, and a class with somebody who waits for help."""

import re

from playwright.sync_api import Page, expect

from tests.ui.axe import check_axe


def test_a_quintet_is_begun_from_one_plan(plan: Page) -> None:
    plan.get_by_label("Name of the ring").fill("Quintet")
    plan.get_by_role("button", name="Several of it").click()
    sheet = plan.get_by_role("dialog")
    lines = sheet.get_by_label("A line for each ring")
    lines.fill("US 7, horn\nUS 99, tuba")
    sheet.get_by_role("button", name="Take 2 rings to the bench").click()
    expect(sheet.get_by_text("Line 2:")).to_be_visible()
    expect(lines).to_have_value("US 7, horn\nUS 99, tuba")
    lines.fill("US 7, horn\nUK Q 1/2, tuba\nUS 5")
    check_axe(plan)
    sheet.get_by_role("button", name="Take 3 rings to the bench").click()
    expect(plan.get_by_role("heading", name="Now: Wire")).to_be_visible()
    rings = plan.get_by_role("list", name="Rings").get_by_role("listitem")
    expect(rings).to_have_count(3)
    check_axe(plan)

    # The horn's wire is done: the tuba's comes next, not the horn's forming.
    rings.nth(0).get_by_role("link").click()
    for _ in range(8):
        following = plan.get_by_role("link", name="on to tuba")
        if following.count():
            break
        now = plan.get_by_role("heading", level=2).first.inner_text()
        plan.keyboard.press("Enter")
        expect(plan.get_by_role("heading", level=2).first).not_to_have_text(now)
    plan.get_by_role("link", name="on to tuba").click()
    expect(plan.get_by_text("Quintet, tuba ·")).to_be_visible()

    # And the tuba asks for help.
    plan.get_by_role("button", name="Ask for help").click()
    plan.get_by_role("link", name="One of 3: see them all").click()
    expect(plan.get_by_text("tuba waits for help.")).to_be_visible()
    check_axe(plan)

    # The board is told when that ends elsewhere, and asks for nothing meanwhile.
    asked: list[str] = []
    plan.on("request", lambda request: asked.append(request.url) if re.search(r"/api/batches/[^/]+$", request.url) else None)
    pupil = plan.context.new_page()
    pupil.goto(f"{plan.url.split('/bench')[0]}{rings.nth(1).get_by_role('link').get_attribute('href')}")
    pupil.get_by_role("button", name="Help has come").click()
    expect(plan.get_by_text("tuba waits for help.")).to_be_hidden()
    assert len(asked) <= 2, asked
    pupil.close()
    plan.get_by_role("navigation").get_by_role("link", name="Bench").click()
    expect(plan.get_by_role("link", name="Quintet: all of them")).to_be_visible()
