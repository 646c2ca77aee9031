"""People in the browser: from alone to two, with a link, a draft that waits for a sign-in, and somebody who only looks on."""

from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Page, expect

from pliant_coil.store.database import Sessions
from tests.ui.axe import check_axe
from tools.serving import served

WORDS = "amber kettle north violin"


@pytest.fixture
def server(database_url: str, sessions: Sessions) -> Iterator[str]:
    """A server that hasn't met anybody yet: one that has never forgets it."""
    with served(database_url) as address:
        yield address


def come_in(page: Page, password: str, *, name: str = "", button: str = "Come in") -> None:
    if name:
        page.get_by_label("Your name").fill(name)
    page.get_by_label("Password", exact=False).first.fill(password)
    page.get_by_role("button", name=button).click()


def test_from_alone_to_a_workshop_with_people(page: Page, browser: Browser, server: str) -> None:
    page.goto(f"{server}/plan")
    page.get_by_role("link", name="Fernhill Bench").click()
    expect(page.get_by_role("heading", name="You work alone here")).to_be_visible()
    check_axe(page)
    come_in(page, "short", name="Ada Fernhill", button="Take this name")
    expect(page.get_by_text("5 characters won't do")).to_be_visible()
    come_in(page, WORDS, button="Take this name")
    expect(page.get_by_text("Ada Fernhill, you")).to_be_visible()
    check_axe(page)

    page.get_by_role("combobox", name="As").click()
    page.get_by_role("option", name="Looks on").click()
    page.get_by_role("button", name="Make a link").click()
    link = page.get_by_test_id("link").inner_text()

    guest = browser.new_page(viewport={"width": 390, "height": 844}, reduced_motion="reduce")
    guest.goto(f"{server}/plan")
    expect(guest.get_by_role("heading", name="Who is at the bench?")).to_be_visible()
    check_axe(guest)
    guest.goto(link)
    guest.reload()
    expect(guest.get_by_role("heading", name="Welcome to Fernhill Bench")).to_be_visible()
    check_axe(guest)
    come_in(guest, f"{WORDS} vera", name="Vera")
    expect(guest.get_by_test_id("answer")).to_have_attribute("data-standing", "fresh")
    expect(guest.get_by_role("button", name="You look on here")).to_be_disabled()
    expect(guest.get_by_role("button", name="To the bench")).to_be_disabled()
    again = browser.new_page()
    again.goto(link)
    expect(again.get_by_role("heading", name="This link opens nothing")).to_be_visible()

    # She is let go: at the next thing that is asked she stands at the door.
    page.reload()
    row = page.get_by_role("listitem").filter(has_text="Vera")
    row.get_by_role("button", name="Works here no longer").click()
    row.get_by_role("button", name="Really?").click()
    expect(row).to_have_count(0)
    guest.get_by_role("button", name="Rings").click()
    expect(guest.get_by_role("heading", name="Who is at the bench?")).to_be_visible()


def test_what_was_typed_waits_for_its_maker(page: Page, server: str) -> None:
    page.goto(f"{server}/people")
    come_in(page, WORDS, name="Ada Fernhill", button="Take this name")
    expect(page.get_by_role("link", name="Fernhill Bench, Ada Fernhill")).to_be_visible()
    page.get_by_role("link", name="Plan").click()
    page.get_by_label("Name of the ring").fill("Drone's last dance")
    expect(page.get_by_test_id("answer")).to_have_attribute("data-standing", "fresh")
    page.get_by_role("link", name="Fernhill Bench, Ada Fernhill").click()
    page.get_by_role("button", name="Sign out", exact=True).click()
    expect(page.get_by_role("heading", name="Who is at the bench?")).to_be_visible()
    come_in(page, "not this one at all", name="Ada Fernhill")
    expect(page.get_by_text("name and password don’t belong together", exact=False)).to_be_visible()
    come_in(page, WORDS)
    page.get_by_role("link", name="Plan").click()
    expect(page.get_by_label("Name of the ring")).to_have_value("Drone's last dance")


def test_another_workshop_is_another_place(page: Page, server: str) -> None:
    page.goto(f"{server}/people")
    come_in(page, WORDS, name="Ada Fernhill", button="Take this name")
    page.get_by_label("Name of a new workshop").fill("Saturday class")
    page.get_by_role("button", name="Open", exact=True).click()
    page.get_by_role("button", name="Go there").click()
    expect(page.get_by_role("link", name="Saturday class, Ada Fernhill")).to_be_visible()
    page.get_by_role("link", name="Plan").click()
    page.get_by_role("button", name="Rings").click()
    expect(page.get_by_text("No ring", exact=False)).to_be_visible()
