"""The wheel, installed apart from the checkout: its command answers, and serves its own pages."""

import json
import os
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path

import httpx2 as httpx
import pytest

from tests.database import database_url
from tools.postgres import free_port

ROOT = Path(__file__).parents[2]


@pytest.fixture(scope="module")
def installed(tmp_path_factory: pytest.TempPathFactory) -> Iterator[dict[str, str]]:
    """An environment whose pliant_coil comes from the wheel; what it depends on is there already."""
    folder = tmp_path_factory.mktemp("wheel")
    subprocess.run(
        [sys.executable, "-m", "hatchling", "build", "-t", "wheel", "-d", str(folder)], cwd=ROOT, check=True, capture_output=True
    )
    (wheel,) = folder.glob("*.whl")
    site = folder / "site"
    install = [sys.executable, "-m", "pip", "install", "-q", "--no-deps", "--no-index", "--target", str(site), str(wheel)]
    subprocess.run(install, check=True, capture_output=True)
    yield {**os.environ, "PYTHONPATH": str(site)}


def command(environment: dict[str, str], *words: str) -> list[str]:
    return [sys.executable, "-c", "import sys; from pliant_coil.command import main; sys.exit(main())", *words]


def test_it_names_what_it_depends_on(installed: dict[str, str]) -> None:
    code = "import importlib.metadata as m, json, pliant_coil; print(json.dumps([m.requires('pliant-coil'), pliant_coil.__file__]))"
    said = subprocess.run([sys.executable, "-c", code], env=installed, cwd="/", capture_output=True, text=True, check=True).stdout
    requires, where = json.loads(said)
    assert installed["PYTHONPATH"] in where
    assert any(each.startswith("fastapi") for each in requires) and any(each.startswith("argon2") for each in requires)


def test_its_command_answers(installed: dict[str, str]) -> None:
    told = subprocess.run(command(installed, "sizes", "UK", "M"), env=installed, cwd="/", capture_output=True, text=True, check=True).stdout
    assert "6 1/4" in told
    refused = subprocess.run(command(installed, "serve"), env=installed | {"DATABASE_URL": ""}, cwd="/", capture_output=True, text=True)
    assert refused.returncode == 2 and "DATABASE_URL" in refused.stderr and "Traceback" not in refused.stderr


def test_it_serves_its_own_pages(installed: dict[str, str], database_url: str) -> None:
    port = free_port()
    environment = installed | {"DATABASE_URL": database_url}
    with subprocess.Popen(command(installed, "serve", "--port", str(port)), env=environment, cwd="/", stderr=subprocess.DEVNULL) as serving:
        try:
            deadline = time.monotonic() + 60
            with httpx.Client(base_url=f"http://127.0.0.1:{port}") as client:
                while True:
                    try:
                        assert client.get("/api/health").is_success
                        break
                    except httpx.TransportError:
                        assert time.monotonic() < deadline and serving.poll() is None
                        time.sleep(0.1)
                page = client.get("/plan").text
                script = page.partition('src="')[2].partition('"')[0]
                assert script.startswith("/assets/") and client.get(script).is_success
                assert client.get("/api/rings").json()["total"] > 20, "with the demo in it"
        finally:
            serving.terminate()


__all__ = ["database_url"]
