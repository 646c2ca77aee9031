"""Debian's Chromium for tests, measurements and pictures: quiet, headless, and no downloads."""

from typing import Any

LAUNCH: dict[str, Any] = {
    "executable_path": "/usr/bin/chromium",
    "chromium_sandbox": False,
    "args": [
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--disable-quic",
        "--no-first-run",
        "--disable-dev-shm-usage",
        "--disable-gpu",
    ],
}
"""What Playwright's `launch` takes."""
