"""A mandrel of the maker's own: measured, kept, and from then on every start is told for it."""

from playwright.sync_api import Page, expect

from tests.ui.axe import check_axe


def test_marks_are_told_for_the_mandrel_at_hand(plan: Page, server: str) -> None:
    start = plan.get_by_test_id("start")
    before = start.inner_text()
    finish = plan.get_by_test_id("finish").inner_text()
    plan.goto(f"{server}/mandrels")
    plan.get_by_label("What you call it").fill("the short one")
    lines = plan.get_by_label("A line for each mark")
    lines.fill("US 5 15.1\nUS 99 17\nUS 10 19.2")
    plan.get_by_role("button", name="Keep it").click()
    expect(plan.get_by_text("Use", exact=False).first).to_be_visible()
    expect(lines).to_have_value("US 5 15.1\nUS 99 17\nUS 10 19.2")
    lines.fill("US 5 15.1\nUS 10 19.2")
    plan.get_by_role("button", name="Keep it").click()
    expect(plan.get_by_role("img", name="2 marks measured")).to_be_visible()
    check_axe(plan)
    plan.get_by_role("button", name="Tell marks for this one").click()
    plan.get_by_role("link", name="Plan").click()
    expect(plan.get_by_test_id("answer")).to_have_attribute("data-standing", "fresh")
    expect(plan.get_by_text("Start, form it at, on “the short one”")).to_be_visible()
    assert start.inner_text() != before, "its marks run large: the start lies further up"
    # The drawing, the steps and the paper say the same mark, in both systems; the old one stands nowhere.
    mark = start.inner_text()
    expect(plan.get_by_role("img", name=f"Start at {mark}, comes off at {finish}")).to_be_visible()
    expect(plan.get_by_role("list", name="Steps").or_(plan.get_by_role("main")).first).to_contain_text(mark)
    paper = plan.get_by_test_id("paper").inner_text() or plan.get_by_test_id("paper").text_content() or ""
    assert mark in paper and before not in paper
    assert before not in plan.get_by_role("main").inner_text()
    assert plan.get_by_test_id("finish").inner_text() == finish, "what comes off is a size, not a mark"
