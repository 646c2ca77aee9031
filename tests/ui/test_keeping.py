"""What is kept of a ring on the desk: saved, opened, copied, taken back, without a server and beside another tab."""

import json
import re
from pathlib import Path

from playwright.sync_api import APIResponse, Browser, Page, Route, expect

from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.store.database import Sessions
from tests.ui.desk import cut, phrase, save_as, settled, sheet

ORIGINAL = re.compile("^Meadow & <i.ring")


def test_a_saved_ring_is_found_opened_copied_deleted_and_taken_back(plan: Page, server: str) -> None:
    save_as(plan, "Meadow & <i>ring")
    address = plan.url
    assert re.search(r"/plan/[0-9a-f-]{36}$", address)
    plan.goto(f"{server}/plan")
    plan.get_by_role("button", name="Rings").click()
    plan.get_by_label("Search").fill("meadow 20 awg 6½")
    plan.get_by_role("button", name="Copy Meadow").click()
    expect(plan.get_by_text("Meadow & <i>ring (copy)")).to_be_visible()
    plan.get_by_role("button", name="Delete Meadow & <i>ring", exact=True).click()
    expect(plan.get_by_text("is deleted.")).to_be_visible()
    plan.get_by_role("button", name="Show deleted rings").click()
    plan.get_by_role("button", name="Take Meadow & <i>ring back").click()
    plan.get_by_role("button", name="Back to the saved rings").click()
    plan.get_by_label("Search").fill("nothing like it")
    expect(plan.get_by_text("Fewer words find more.")).to_be_visible()
    plan.get_by_label("Search").fill("")
    plan.get_by_role("link", name=re.compile(r"Meadow & <i>ring US")).click()
    expect(plan).to_have_url(address)
    expect(plan.get_by_label("Name of the ring")).to_have_value("Meadow & <i>ring")


def test_a_list_that_was_on_its_way_before_a_ring_was_copied_is_asked_for_again(plan: Page) -> None:
    save_as(plan, "Clover ring")
    before: list[tuple[Route, APIResponse]] = []
    plan.route("**/api/rings?q=clover*", lambda route: before.append((route, route.fetch())), times=1)
    plan.get_by_role("button", name="Rings").click()
    copy = plan.get_by_role("button", name="Copy Clover ring")
    expect(copy).to_be_visible()
    with plan.expect_request("**/api/rings?q=clover*"):
        plan.get_by_label("Search").fill("clover")
    with plan.expect_response("**/duplicate"):
        copy.click()
    [(route, answer)] = before
    route.fulfill(response=answer)
    expect(plan.get_by_text("Clover ring (copy)")).to_be_visible()


def test_two_benches_that_saved_one_ring_keep_both(plan: Page) -> None:
    save_as(plan, "Shared ring")
    other = plan.context.new_page()
    other.goto(plan.url)
    expect(other.get_by_label("Name of the ring")).to_have_value("Shared ring")
    save_as(plan, "Shared ring, first")
    other.get_by_label("Name of the ring").fill("Shared ring, second")
    other.keyboard.press("Control+s")
    beside = other.get_by_role("dialog")
    expect(beside).to_contain_text("“Shared ring, first”")
    expect(beside).to_contain_text("On this desk: “Shared ring, second”")
    other.get_by_role("button", name="Save the desk’s as another ring").click()
    expect(other.get_by_label("Name of the ring")).to_have_value("Shared ring, second (copy)")
    assert other.url != plan.url
    plan.reload()
    expect(plan.get_by_label("Name of the ring")).to_have_value("Shared ring, first")


def test_every_edit_can_be_taken_back_and_a_style_remembers_what_was_set(plan: Page) -> None:
    phrase(plan, "Band: turned once each way")
    plan.get_by_role("textbox", name="Turns").fill("3")
    settled(plan)
    thrice = cut(plan)
    band = plan.get_by_role("dialog").get_by_role("combobox").first
    band.click()
    plan.get_by_role("option", name="Crossed").click()
    settled(plan)
    assert cut(plan) != thrice
    band.click()
    plan.get_by_role("option", name="Turned").click()
    settled(plan)
    expect(plan.get_by_role("textbox", name="Turns")).to_have_value("3")
    assert cut(plan) == thrice
    sheet(plan)
    plan.get_by_role("button", name="New").click()
    expect(plan.get_by_role("button", name="Band: turned once each way")).to_be_visible()
    plan.get_by_role("button", name="Undo").click()
    expect(plan.get_by_role("button", name="Band: turned three times each way")).to_be_visible()
    plan.keyboard.press("Control+z")
    expect(plan.get_by_role("button", name=re.compile("Band: turned twice and crossed"))).to_be_visible()
    plan.keyboard.press("Control+Shift+z")
    expect(plan.get_by_role("button", name="Band: turned three times each way")).to_be_visible()


def test_new_from_a_saved_ring_loses_nothing_that_stood_on_the_desk(plan: Page, server: str) -> None:
    """The unsaved ring at the address of new ones, and what was typed into the saved one, are both still there."""
    save_as(plan, "Saved one")
    saved = plan.url
    plan.goto(f"{server}/plan")
    name = plan.get_by_label("Name of the ring")
    name.fill("Unsaved, at the new address")
    settled(plan)
    plan.goto(saved)
    name.fill("Saved one, typed on")
    plan.get_by_role("button", name="New").click()
    expect(name).to_have_value("")
    plan.get_by_role("button", name="Undo").click()
    expect(name).to_have_value("Unsaved, at the new address")
    name.fill("And on")
    plan.reload()
    expect(name).to_have_value("And on")
    plan.goto(saved)
    expect(name).to_have_value("Saved one, typed on")


def test_a_key_held_down_saves_once_and_what_is_typed_meanwhile_stays(plan: Page, server: str) -> None:
    name = plan.get_by_label("Name of the ring")
    name.fill("Held")
    settled(plan)
    for _ in range(6):
        plan.keyboard.press("Control+s")
    expect(plan.get_by_role("button", name="Saved", exact=True)).to_be_visible()
    assert plan.request.get(f"{server}/api/rings").json()["total"] == 1
    # The answer to a save comes late: what was typed on the way is not replaced by it.
    held: list[Route] = []
    plan.route("**/api/rings/*", lambda route: held.append(route))
    name.fill("Held fast")
    with plan.expect_request("**/api/rings/*"):
        plan.keyboard.press("Control+s")
    name.fill("Held fast, and on")
    held[0].continue_()
    expect(plan.get_by_role("button", name="Save", exact=True)).to_be_enabled()
    expect(name).to_have_value("Held fast, and on")


def test_without_the_server_nothing_looks_current_and_a_save_is_made_up_for(plan: Page, server: str) -> None:
    plan.get_by_label("Name of the ring").fill("Kept for later")
    plan.context.set_offline(True)
    phrase(plan, "Finger")
    plan.get_by_role("textbox", name="Size").fill("US 8")
    answer = plan.get_by_test_id("answer")
    expect(answer).to_have_attribute("data-standing", "unreachable")
    expect(answer).to_contain_text("The server doesn’t answer")
    plan.keyboard.press("Control+s")
    expect(plan.get_by_role("button", name="Will be saved")).to_be_visible()
    plan.context.set_offline(False)
    settled(plan)
    expect(plan.get_by_role("button", name="Saved", exact=True)).to_be_visible()
    assert plan.request.get(f"{server}/api/rings").json()["total"] == 1


def test_what_stands_on_a_screen_stays_when_a_part_of_it_does_not_come(browser: Browser, server: str, sessions: Sessions) -> None:
    # Without the worker, which would have the part at hand soon.
    page = browser.new_context(service_workers="block").new_page()
    card = re.compile("/assets/BenchCard")
    refused: list[str] = []

    def refuse(route: Route) -> None:
        refused.append(route.request.url)
        route.abort()

    page.route(card, refuse)
    with page.expect_event("requestfailed", lambda request: card.search(request.url) is not None):
        page.goto(f"{server}/plan")
    page.get_by_label("Name of the ring").fill("It goes on")
    phrase(page, "Finger")
    page.get_by_role("textbox", name="Size").fill("US 8")
    settled(page)
    assert refused and page.get_by_test_id("paper").count() == 0
    page.unroute(card)
    page.wait_for_function("() => document.querySelector('[data-testid=paper] ol li') !== null")
    expect(page.get_by_label("Name of the ring")).to_have_value("It goes on")
    page.context.close()


def test_two_tabs_are_two_drafts(plan: Page, server: str) -> None:
    plan.get_by_label("Name of the ring").fill("The first tab's")
    other = plan.context.new_page()
    other.goto(f"{server}/plan")
    expect(other.get_by_label("Name of the ring")).to_have_value("")
    other.get_by_label("Name of the ring").fill("The second tab's")
    plan.reload()
    expect(plan.get_by_label("Name of the ring")).to_have_value("The first tab's")


def test_a_ring_file_is_written_and_opened_again(plan: Page, tmp_path: Path) -> None:
    save_as(plan, "For a friend")
    plan.get_by_role("button", name="Ring file").click()
    with plan.expect_download() as download:
        plan.get_by_role("menuitem", name="Write the ring file").click()
    assert download.value.suggested_filename == "for-a-friend.ring.json"
    written = json.loads(Path(download.value.path()).read_text())
    assert read_ring(written).title == "For a friend"
    changed = tmp_path / "changed.ring.json"
    changed.write_text(json.dumps({**written, "finger": {"size": "UK V"}}))
    plan.get_by_test_id("import").set_input_files(changed)
    expect(plan.get_by_role("button", name="Finger: UK V")).to_be_visible()
    for name, text in (("broken.ring.json", "{ not json"), ("other.json", '{"title": "no ring"}')):
        (tmp_path / name).write_text(text)
        plan.get_by_test_id("import").set_input_files(tmp_path / name)
        expect(plan.get_by_text(f"“{name}” isn’t a ring file")).to_be_visible()
    expect(plan.get_by_role("button", name="Finger: UK V")).to_be_visible()


def test_an_address_of_no_ring_says_so(plan: Page, server: str) -> None:
    plan.goto(f"{server}/plan/00000000-0000-4000-8000-000000000000")
    expect(plan.get_by_text("That ring isn’t here.")).to_be_visible()
    plan.get_by_role("link", name="Plan a new ring").click()
    expect(plan.get_by_test_id("cut")).to_be_visible()


def test_what_is_typed_while_a_new_ring_is_saved_goes_on_at_its_address(plan: Page, server: str) -> None:
    """The newer words stand there, unsaved and to be saved; Undo and the focus are where they were."""
    name = plan.get_by_label("Name of the ring")
    name.fill("First words")
    settled(plan)
    held: list[Route] = []
    plan.route("**/api/rings", lambda route: held.append(route) if route.request.method == "POST" else route.continue_())
    with plan.expect_request("**/api/rings"):
        plan.keyboard.press("Control+s")
    name.fill("First words, and more")
    held[0].continue_()
    expect(plan).to_have_url(re.compile(r"/plan/[0-9a-f-]{36}$"))
    expect(plan.get_by_role("button", name="Save", exact=True)).to_be_enabled()
    expect(name).to_have_value("First words, and more")
    expect(name).to_be_focused()
    plan.reload()
    expect(name).to_have_value("First words, and more")
    plan.keyboard.press("Control+s")
    expect(plan.get_by_role("button", name="Saved", exact=True)).to_be_visible()
    [ring] = plan.request.get(f"{server}/api/rings").json()["rings"]
    assert (ring["title"], ring["revision"]) == ("First words, and more", 2)
    plan.goto(f"{server}/plan")
    expect(name).to_have_value("")


def test_what_is_typed_while_a_save_waits_for_the_server_is_not_lost(plan: Page) -> None:
    name = plan.get_by_label("Name of the ring")
    name.fill("Offline")
    plan.context.set_offline(True)
    plan.keyboard.press("Control+s")
    expect(plan.get_by_role("button", name="Will be saved")).to_be_visible()
    name.fill("Offline, typed on")
    plan.context.set_offline(False)
    expect(plan).to_have_url(re.compile(r"/plan/[0-9a-f-]{36}$"))
    expect(name).to_have_value("Offline, typed on")
    plan.keyboard.press("Control+z")
    expect(name).not_to_have_value("Offline, typed on")


def test_a_ring_laid_out_over_an_unsaved_one_gives_it_back_after_a_reload_too(plan: Page, server: str) -> None:
    name = plan.get_by_label("Name of the ring")
    name.fill("Not saved yet")
    settled(plan)
    plan.goto(f"{server}/gallery")
    plan.get_by_role("button", name="Start from this").first.click()
    expect(plan.get_by_text("What lay here before wasn’t saved")).to_be_visible()
    expect(name).to_have_value("")
    settled(plan)
    plan.reload()
    settled(plan)
    plan.get_by_role("button", name="Undo").click()
    expect(name).to_have_value("Not saved yet")


def test_each_visit_of_a_field_is_an_edit_of_its_own(plan: Page) -> None:
    name = plan.get_by_label("Name of the ring")
    for words in ("one", "one two", "one two three"):
        name.fill(words)
        plan.get_by_role("button", name="Rings").focus()
    undo = plan.get_by_role("button", name="Undo")
    for words in ("one two", "one", ""):
        undo.click()
        expect(name).to_have_value(words)
