"""What axe finds on a page: nothing, if everybody can use it."""

from pathlib import Path

from playwright.sync_api import Page

_AXE = (Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text("utf-8")


def check_axe(page: Page) -> None:
    """Fail with each rule that is broken, and where."""
    # As an init script would it stand under the page's policy; evaluated, it is a tool beside it.
    page.evaluate(_AXE + "; undefined")
    found = page.evaluate("() => axe.run(document, { resultTypes: ['violations'] })")
    broken = [(v["id"], [n["html"][:120] for n in v["nodes"][:3]]) for v in found["violations"]]
    assert not broken, broken
