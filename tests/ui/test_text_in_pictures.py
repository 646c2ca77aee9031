"""No text leaves its picture, at any width: in every drawing of every ring of the demo, and for sizes with the longest words."""

import json
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page

from tests.ui.test_every_ring import DEMO, decided

WIDTHS = ((1280, 800), (820, 1180), (390, 844))
SIZES = ("US 7 3/4", "US 8 1/4", "UK P 1/2", "EU 57.5")
"""With the words before a mark that is nearly reached, or just passed."""
OUTSIDE = """() => [...document.querySelectorAll('main svg')].flatMap((svg) => {
  const box = svg.getBoundingClientRect();
  const hides = getComputedStyle(svg).overflow !== 'visible';
  const [left, top, right, bottom] = hides
    ? [box.left, box.top, box.right, box.bottom]
    : [0, -Infinity, document.documentElement.clientWidth, Infinity];
  return [...svg.querySelectorAll('text')]
    .map((text) => ({ text: text.textContent, name: svg.getAttribute('aria-label'), at: text.getBoundingClientRect() }))
    .filter(({ text, at }) => text.trim() && at.width > 0)
    .filter(({ at }) => at.left < left - 1 || at.top < top - 1 || at.right > right + 1 || at.bottom > bottom + 1)
    .map(({ text, name }) => `${text} (${name})`);
})"""
TEXTS = "() => document.querySelectorAll('main svg text').length"


def outside(page: Page) -> dict[int, list[str]]:
    """What leaves its picture, by the width of the screen."""
    found = {}
    for width, height in WIDTHS:
        page.set_viewport_size({"width": width, "height": height})
        page.evaluate("() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))")
        if leaving := page.evaluate(OUTSIDE):
            found[width] = leaving
    return found


def laid_out(page: Page, server: str, document: dict[str, Any]) -> None:
    ring = page.request.post(f"{server}/api/rings", data=document).json()
    page.goto(f"{server}/plan/{ring['id']}")
    decided(page)


@pytest.mark.parametrize("path", DEMO, ids=[path.name[:2] for path in DEMO])
def test_no_text_leaves_its_picture(plan: Page, server: str, path: Path) -> None:
    laid_out(plan, server, json.loads(path.read_text()))
    assert outside(plan) == {}
    assert plan.evaluate(TEXTS) > 5


@pytest.mark.parametrize("size", SIZES)
def test_the_longest_words_of_a_size_stay_in_the_mandrels_picture(plan: Page, server: str, size: str) -> None:
    for head in ("bead-lock", "nest", "none"):
        laid_out(plan, server, {"finger": {"size": size}, "band": {"style": "turned"}, "head": {"style": head}})
        assert outside(plan) == {}, head
