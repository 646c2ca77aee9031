"""Take the pictures in docs/screenshots/ from the demo data, and lay them on one contact sheet to be looked at.

Each picture waits for the plan of what it shows; an error on the page, a loading text or an empty screen stops the run.
"""

import base64
import sys
from collections.abc import Callable
from pathlib import Path
from tempfile import gettempdir
from typing import Literal

from playwright.sync_api import Browser, Page, sync_playwright

from tools.chromium import LAUNCH
from tools.serving import demo

FOLDER = Path(__file__).parents[1] / "docs" / "screenshots"
CONTACT = Path(gettempdir()) / "pliant-coil-contact.png"
PASSWORD = "amber kettle north violin"
"""Of the demo's people, who are gone with the pictures."""
LOADING = ("Working it out", "on its way", "Opening the ring", "being worked out")


class Photographer:
    """Opens pages, waits until they say what they should, and takes them."""

    def __init__(self, browser: Browser, address: str) -> None:
        self._browser, self.address = browser, address
        self._errors: list[str] = []

    def page(self, width: int, height: int, scheme: Literal["light", "dark"] = "light", path: str = "/plan") -> Page:
        """A new page on an untouched screen."""
        page = self._browser.new_page(viewport={"width": width, "height": height}, color_scheme=scheme, reduced_motion="reduce")
        page.on("pageerror", lambda error: self._errors.append(str(error)))
        page.goto(f"{self.address}{path}")
        return page

    def ring(self, page: Page, title: str) -> None:
        """Open a saved ring as a maker does."""
        planned(page)
        page.get_by_role("button", name="Rings").click()
        page.get_by_label("Search").fill(title)
        page.get_by_role("link", name=title).click()
        page.get_by_role("button", name="Saved", exact=True).wait_for()
        planned(page)

    def take(self, page: Page, name: str, whole: bool = False, *, listens: bool = False) -> None:
        """The picture, once nothing is under way; a page that listens for changes is never idle."""
        page.wait_for_load_state("load" if listens else "networkidle")
        page.evaluate("document.fonts.ready")
        said = page.locator("body").inner_text()
        waiting = [text for text in LOADING if text in said]
        if self._errors or waiting or len(said) < 60:
            raise SystemExit(f"{name}: {self._errors or waiting or 'an empty page'}")
        page.screenshot(path=FOLDER / f"{name}.png", animations="disabled", full_page=whole)
        page.close()


def planned(page: Page) -> None:
    """Wait for the figures of what the sentence says."""
    page.locator("[data-testid=answer][data-standing=fresh]").wait_for()


def card(page: Page) -> None:
    page.locator("[data-testid=paper] ol li").first.wait_for(state="attached")
    page.emulate_media(media="print")


def mandrel(page: Page, name: str, marks: str) -> None:
    """One that was measured."""
    page.get_by_label("What you call it").fill(name)
    page.get_by_label("A line for each mark").fill(marks)
    page.get_by_role("button", name="Keep it").click()
    page.get_by_role("img", name="marks measured").wait_for()


def people(photographer: "Photographer") -> Page:
    """A workshop with an owner and two who came by a link."""
    page = photographer.page(1280, 800, path="/people")
    page.get_by_label("Your name").fill("Ada Fernhill")
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Take this name").click()
    page.get_by_role("button", name="Make a link").wait_for()
    for name, role in (("Ben Marsh", "maker"), ("Saturday class", "viewer")):
        link = page.request.post(f"{photographer.address}/api/links", data={"role": role}).json()
        guest = page.context.browser
        assert guest is not None
        coming = guest.new_context()
        who = {"token": link["token"], "name": name, "password": PASSWORD}
        taken = coming.request.post(f"{photographer.address}/api/links/take", data=who)
        assert taken.ok, taken.text()
        coming.close()
    page.reload()
    page.get_by_role("button", name="Make a link").click()
    page.get_by_test_id("link").wait_for()
    return page


def nothing(_: Page) -> None:
    """The ring as it opens."""


SHOTS: tuple[tuple[str, str, tuple[int, int], Literal["light", "dark"], Callable[[Page], None], bool], ...] = (
    ("plan", "Amber meadow ring", (1280, 800), "light", nothing, False),
    ("plan-woven", "Skep", (1280, 1000), "light", nothing, False),
    ("plan-claws", "Honeycomb shard", (1280, 1000), "dark", nothing, False),
    ("plan-frame", "Hive window", (1280, 1400), "light", nothing, False),
    ("plan-rosette", "Linden blossom", (1280, 1000), "light", nothing, False),
    ("plan-framed", "Frame of comb", (1280, 1000), "light", nothing, False),
    ("plan-knot", "Swarm knot", (1280, 1000), "dark", nothing, False),
    ("plan-phone-evening", "Saturday class", (390, 844), "dark", nothing, False),
    ("bench-card", "Amber meadow ring", (794, 1123), "light", card, True),
)


def contact_sheet(browser: Browser) -> None:
    """All pictures on one sheet, beside the project: to be opened, not committed."""
    pictures = []
    for path in sorted(FOLDER.glob("*.png")):
        data = base64.b64encode(path.read_bytes()).decode()
        pictures.append(f"<figure><img src='data:image/png;base64,{data}'><figcaption>{path.stem}</figcaption></figure>")
    style = "body{display:flex;flex-wrap:wrap;gap:8px;font:14px sans-serif}figure{margin:0}img{height:300px;border:1px solid #999}"
    page = browser.new_page(viewport={"width": 1700, "height": 900})
    page.set_content(f"<style>{style}</style>{''.join(pictures)}")
    page.screenshot(path=CONTACT, full_page=True)
    print(f"Look at {CONTACT} before committing.", file=sys.stderr)


def main() -> None:
    """One picture a view; old ones that no view has any more are taken away."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    for old in FOLDER.glob("*.png"):
        old.unlink()
    with demo() as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(**LAUNCH)
        photographer = Photographer(browser, address)
        for name, title, (width, height), scheme, do, whole in SHOTS:
            page = photographer.page(width, height, scheme)
            photographer.ring(page, title)
            do(page)
            photographer.take(page, name, whole)
        page = photographer.page(1280, 800, path="/sizes")
        page.get_by_test_id("size-us").wait_for()
        photographer.take(page, "sizes")
        page = photographer.page(1280, 1000, path="/gallery")
        page.get_by_role("heading", name="Nest", exact=True).wait_for()
        photographer.take(page, "gallery")
        page = photographer.page(1280, 1200, path="/gallery")
        for name in ("Bead rows", "Cage", "Spiked disc"):
            page.get_by_role("listitem").filter(has=page.get_by_role("heading", name=name, exact=True)).get_by_role(
                "button", name="Lay beside"
            ).click()
        page.get_by_role("button", name="Lay 3 side by side").click()
        page.get_by_text("Weighs").nth(2).wait_for()
        photographer.take(page, "compare")
        for name, width, height in (("bench", 1280, 800), ("bench-tablet", 820, 1180)):
            page = photographer.page(width, height, path="/bench")
            page.get_by_role("link", name="Quintet, tuba").click()
            page.get_by_role("button", name="Done, on").wait_for()
            page.get_by_role("img", name="The ring end-on").wait_for()
            photographer.take(page, name, listens=True)
        page = photographer.page(1280, 900)
        photographer.ring(page, "Amber meadow ring")
        page.get_by_role("button", name="To the bench").click()
        while "Hold the head" not in (said := page.get_by_role("heading", level=2).first.inner_text()):
            page.keyboard.press("Enter")
            page.get_by_role("heading", level=2).filter(has_not_text=said).first.wait_for()
        page.get_by_role("button", name="Reading").click()
        page.get_by_label("The mandrel reads").fill("US 7 7/8")
        page.get_by_role("button", name="Form it again").wait_for()
        photographer.take(page, "bench-reading", listens=True)
        page = photographer.page(1280, 1100, path="/logbook")
        page.get_by_text("Your wraps").wait_for()
        page.get_by_text("Wire against plan").wait_for()
        photographer.take(page, "logbook")
        page = photographer.page(1280, 800, path="/bench")
        page.get_by_role("link", name="Quintet: all of them").click()
        page.get_by_text("waits for help").wait_for()
        photographer.take(page, "several", listens=True)
        page = photographer.page(1280, 800, path="/mandrels")
        mandrel(page, "The long steel one", "US 4 14.70\nUS 7 17.12\nUS 10 19.52\nUS 13 21.95")
        page.get_by_role("button", name="Tell marks for this one").click()
        photographer.take(page, "mandrels")
        # From here on everybody says who they are: nothing is taken after it.
        photographer.take(people(photographer), "people")
        contact_sheet(browser)
        browser.close()


if __name__ == "__main__":
    main()
