"""Backed up, lost, and brought back: every screen of the workshop looks as it did."""

import re
import tempfile
from pathlib import Path

from playwright.sync_api import Page, expect
from sqlalchemy import text

from pliant_coil.services.workshop import seed_demo
from pliant_coil.store.database import connect, migrate, sessions_of
from tools import backups
from tools.postgres import Cluster
from tools.serving import served


def pictures(page: Page, url: str) -> dict[str, bytes]:
    """What somebody sees on each screen that shows records."""
    taken = {}
    with served(url) as address:
        page.goto(f"{address}/plan")
        page.get_by_role("button", name="Rings").click()
        page.get_by_role("dialog").get_by_role("listitem").nth(5).wait_for()
        taken["rings"] = page.screenshot(animations="disabled")
        page.get_by_role("dialog").get_by_role("link").first.click()
        expect(page.get_by_role("button", name="Saved", exact=True)).to_be_visible()
        expect(page.get_by_test_id("answer")).to_have_attribute("data-standing", "fresh")
        page.wait_for_load_state("networkidle")
        taken["ring"] = page.screenshot(animations="disabled", full_page=True)
        page.goto(f"{address}/logbook")
        page.wait_for_load_state("networkidle")
        taken["logbook"] = page.screenshot(animations="disabled", full_page=True)
        page.goto(f"{address}/bench")
        # Its batch and its photos come after it, and a bench listens for as long as it is open: the network never rests.
        with page.expect_response(re.compile("/batches/.")), page.expect_response(re.compile("/photos$")):
            page.get_by_role("link", name="Quintet, tuba").click()
        page.get_by_role("button", name="Tail left").wait_for()
        page.get_by_role("img", name="The ring end-on").wait_for()
        taken["bench"] = settled(page)
        page.goto("about:blank")
    return taken


def settled(page: Page) -> bytes:
    """The page, once it looks the same twice running."""
    before = page.screenshot(animations="disabled")
    while (now := page.screenshot(animations="disabled")) != before:
        before = now
    return now


def test_every_screen_looks_as_it_did(page: Page) -> None:
    with tempfile.TemporaryDirectory(prefix="pliant-coil-restored-") as made:
        folder = Path(made)
        folder.chmod(0o755)
        cluster = Cluster(folder / "postgres", durable=False)
        try:
            url = cluster.start()
            engine = connect(url)
            migrate(engine)
            seed_demo(sessions_of(engine))
            before = pictures(page, url)
            file = backups.back_up(url, folder / "all.dump")
            with engine.begin() as connection:
                connection.execute(text("truncate workshop cascade"))
            engine.dispose()
            backups.restore(cluster, file)
            after = pictures(page, cluster.start())
        finally:
            cluster.remove()
    assert {name for name in before if before[name] != after[name]} == set()
    assert len({len(picture) for picture in before.values()}) > 1
