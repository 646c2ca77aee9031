"""The logbook as its maker uses it: an old notebook comes in, a ring comes back and is mended, a photo stays with it."""

import re
from pathlib import Path

from PIL import Image
from playwright.sync_api import Page, expect

from tests.ui.axe import check_axe
from tests.ui.test_bench import HONEY, begin

TABLE = "date,title,size,wire,cut,left,note\n2023-05-02,Plain wrap,US 7,0.8 copper,230,22,it fits\n2023-06-01,Nest,US 99,,,,\n"


def test_an_old_notebook_is_looked_at_before_it_comes_in(plan: Page, tmp_path: Path) -> None:
    table = tmp_path / "book.csv"
    table.write_text(TABLE)
    plan.get_by_role("navigation").get_by_role("link", name="Logbook").click()
    plan.get_by_role("button", name="An old notebook").click()
    plan.get_by_test_id("notebook").set_input_files(table)
    sheet = plan.get_by_role("dialog", name="An old notebook")
    expect(sheet.get_by_role("status")).to_have_text("1 ring can come in, 1 can’t be read.")
    expect(sheet.get_by_role("listitem").first).to_contain_text("“US 99” is outside the sizes that rings are made in")
    check_axe(plan)
    expect(plan.get_by_role("region", name="Rings that were made").get_by_role("listitem")).to_have_count(0)
    sheet.get_by_role("button", name="Take 1 ring into the logbook").click()
    expect(sheet.get_by_role("status")).to_have_text("One ring has come in.")
    made = plan.get_by_role("region", name="Rings that were made").get_by_role("listitem")
    expect(made).to_contain_text("Plain wrap")
    expect(made).to_contain_text("wire 208 mm")
    # It is filtered by how rings ended.
    plan.get_by_label("Which").click()
    plan.get_by_role("option", name="Spoiled").click()
    expect(plan.get_by_text("No ring ended so.")).to_be_visible()


def test_a_ring_comes_back_with_a_photo_and_leaves_mended(page: Page, server: str, sessions: object, tmp_path: Path) -> None:
    begin(page, server, HONEY)
    page.get_by_role("button", name="End it here").click()
    end = page.get_by_role("dialog", name="How it ended")
    end.get_by_label("Its size").fill("US 6 1/4")
    end.get_by_role("button", name="Into the logbook").click()
    page.get_by_role("button", name="It came back").click()
    sheet = page.get_by_role("dialog", name="It came back")
    sheet.get_by_label("Why it came back").fill("It sits tight")
    sheet.get_by_label("It reads").fill("US 6 1/4")
    sheet.get_by_label("It shall be").fill("US 99")
    expect(sheet).to_contain_text("outside the sizes")
    sheet.get_by_label("It shall be").fill("US 6 1/2")
    sheet.get_by_role("button", name="On the bench with it").click()
    ways = page.get_by_role("list", name="What can be done")
    expect(ways.get_by_role("listitem").first).to_contain_text("Press it down the mandrel, turning it end for end, to US 6½")
    check_axe(page)

    photo = tmp_path / "ring.png"
    Image.new("RGB", (300, 200), (190, 120, 60)).save(photo)
    page.get_by_test_id("photo").set_input_files(photo)
    shown = page.get_by_role("img", name="Photo 1")
    expect(shown).to_be_visible()
    page.wait_for_function("() => document.querySelector('img[alt^=Photo]').naturalWidth === 300")
    page.get_by_role("button", name="Delete photo 1").click()
    expect(shown).to_be_hidden()
    page.get_by_role("button", name="Take it back").click()
    expect(shown).to_be_visible()

    page.get_by_role("button", name="Done so: Stretch it").click()
    expect(page.get_by_text("Done so far: stretch it.")).to_be_visible()
    # Read again: nothing more is to be done.
    page.get_by_label("The mandrel reads now").fill("US 6 1/2")
    page.get_by_role("button", name="It leaves again").click()
    end.get_by_label("Its size").fill("US 6 1/2")
    end.get_by_role("button", name="Into the logbook").click()
    expect(page.get_by_role("heading", name="It is finished.")).to_be_visible()
    page.get_by_role("link", name="See it in the logbook").click()
    line = page.get_by_role("listitem").filter(has_text="Honey ring")
    expect(line).to_contain_text(re.compile("Back on the bench: It sits tight. It read US 6¼. Done: stretched. It left with US 6½."))


def test_a_bench_says_more_or_the_figures(page: Page, server: str, sessions: object) -> None:
    begin(page, server, HONEY)
    heading = page.get_by_role("heading", level=2).first
    for _ in range(12):
        if "wrap one tail" in heading.inner_text():
            break
        before = heading.inner_text()
        page.keyboard.press("Enter")
        expect(heading).not_to_have_text(before)
    expect(page.get_by_text("Measure both tails before you lock it")).to_be_visible()
    explained = page.get_by_text("A shoulder is where the band meets the head")
    expect(explained).to_be_hidden()
    page.get_by_role("button", name="Says what is done").click()
    expect(heading).to_have_text("lock: 2.")
    page.get_by_role("button", name="Says the figures").click()
    expect(explained).to_be_visible()
    check_axe(page)
    page.reload()
    expect(explained).to_be_visible()


def test_a_spoiled_ring_is_begun_again(page: Page, server: str, sessions: object) -> None:
    begin(page, server, HONEY)
    page.get_by_role("button", name="End it here").click()
    end = page.get_by_role("dialog", name="How it ended")
    end.get_by_label("The ring is").click()
    page.get_by_role("option", name="Spoiled").click()
    end.get_by_label("Why").fill("kinked")
    end.get_by_label("Left of the band wire [mm]").fill("150")
    end.get_by_role("button", name="Into the logbook").click()
    expect(page.get_by_text("150 mm of the band wire is too short to begin again")).to_be_visible()
    spoiled = page.url
    page.get_by_role("button", name="Start it again").click()
    expect(page.get_by_text("Honey ring · Measure · step 1 of")).to_be_visible()
    assert page.url != spoiled
