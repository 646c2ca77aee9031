"""Take the pictures in docs/screenshots/ from the demo data."""

from pathlib import Path
from typing import Literal

from playwright.sync_api import Page, sync_playwright

from tools.chromium import LAUNCH
from tools.serving import demo

FOLDER = Path(__file__).parents[1] / "docs" / "screenshots"


def open_ring(page: Page, title: str) -> None:
    """Open a saved ring as a maker does."""
    page.get_by_role("button", name="Rings").click()
    page.get_by_role("link", name=title).click()
    page.get_by_role("button", name="Saved").wait_for()
    page.wait_for_load_state("networkidle")


def main() -> None:
    """One picture a view."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with demo() as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(**LAUNCH)

        def at(width: int, height: int, scheme: Literal["light", "dark"] = "light") -> Page:
            page = browser.new_page(viewport={"width": width, "height": height}, color_scheme=scheme, reduced_motion="reduce")
            page.goto(f"{address}/plan")
            page.get_by_test_id("cut").wait_for()
            return page

        def take(page: Page, name: str) -> None:
            page.wait_for_load_state("networkidle")
            page.screenshot(path=FOLDER / f"{name}.png", animations="disabled")

        page = at(1280, 800)
        open_ring(page, "Amber meadow ring")
        take(page, "plan")
        page.get_by_role("button", name="Wire, band").click()
        page.get_by_role("textbox", name="Wire").wait_for()
        take(page, "plan-wire")
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Finger").click()
        page.get_by_role("textbox", name="Size").fill("US 65")
        page.get_by_role("dialog").get_by_text("What would do").wait_for()
        take(page, "plan-refused")
        page.keyboard.press("Escape")
        page = at(1280, 800)
        page.get_by_role("button", name="Rings").click()
        page.get_by_role("link", name="Amber meadow ring").wait_for()
        take(page, "rings")
        for title, name in (("Skep", "woven"), ("Smoker", "bundled"), ("Mouthpiece", "braided"), ("Five in a stack", "stacked")):
            page = at(1280, 1100)
            open_ring(page, title)
            take(page, f"plan-{name}")
        page = at(820, 1180)
        open_ring(page, "Trumpet, dark bead")
        take(page, "plan-tablet")
        page = at(390, 844, "dark")
        open_ring(page, "Saturday class")
        take(page, "plan-phone-evening")
        browser.close()


if __name__ == "__main__":
    main()
