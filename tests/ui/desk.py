"""What a maker does over and over on the Plan screen."""

from playwright.sync_api import Page, expect

FIRST_RING = {
    "finger": {"size": "US 6 1/2"},
    "wires": {"band": {"diameter": "20 AWG"}},
    "head": {"style": "bead-lock", "bead": {"diameter_mm": 7, "hole_mm": 1.1}},
}


def cut(page: Page) -> str:
    return page.get_by_test_id("cut").first.inner_text()


def shown(text: str) -> str:
    """A size with its fraction as the screen writes it."""
    return text.replace(" 1/2", "½").replace(" 1/4", "¼").replace(" 3/4", "¾")


def phrase(page: Page, name: str) -> None:
    page.get_by_role("button", name=name).click()


def sheet(page: Page) -> None:
    """Close what is open beside the page."""
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)


def settled(page: Page) -> None:
    """The figures are those of the ring in the sentence."""
    expect(page.get_by_test_id("answer")).to_have_attribute("data-standing", "fresh")


def save_as(page: Page, title: str) -> None:
    page.get_by_label("Name of the ring").fill(title)
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("button", name="Saved", exact=True)).to_be_visible()
