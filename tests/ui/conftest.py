"""The built front end in Debian's Chromium, on a server with the tests' database."""

from collections.abc import Iterator
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from pliant_coil.store.database import Sessions
from tests.database import database_url, engine, sessions
from tools.chromium import LAUNCH
from tools.serving import served

expect.set_options(timeout=15_000)


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    return LAUNCH


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, Any]:
    return {"viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce", "locale": "en-GB"}


@pytest.fixture(scope="session")
def server(database_url: str) -> Iterator[str]:
    with served(database_url) as address:
        yield address


@pytest.fixture
def plan(page: Page, server: str, sessions: Sessions) -> Page:
    """The Plan screen of an empty workshop, with its first figures there."""
    page.on("pageerror", lambda error: pytest.fail(f"the page failed: {error}"))
    page.goto(f"{server}/plan")
    expect(page.get_by_test_id("answer")).to_have_attribute("data-standing", "fresh")
    return page


__all__ = ["database_url", "engine", "sessions"]
