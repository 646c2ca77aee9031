"""Browsers that come to a workshop, and who sits before them."""

from collections.abc import Callable
from typing import Any

from fastapi.testclient import TestClient

WORDS = "amber kettle north violin"
"""A password that is nobody's."""
OWNER = {"name": "Ada Fernhill", "password": WORDS}

Visitor = Callable[[], TestClient]


def invited(owner: TestClient, guest: TestClient, name: str, role: str) -> dict[str, Any]:
    """Somebody who has come in by a link; returns what the link was."""
    link: dict[str, Any] = owner.post("/api/links", json={"role": role}).json()
    came = guest.post("/api/links/take", json={"token": link["token"], "name": name, "password": f"{name} {WORDS}"})
    assert came.status_code == 204, came.text
    return link
