"""What ./bench measures. Machines are shared and noisy, so what counts are the ratios within one run."""

import gzip
import json
import os
import signal
import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path

import httpx2 as httpx
from playwright.sync_api import sync_playwright
from sqlalchemy import text

from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import RingFile, read_ring
from pliant_coil.core.styles.registry import all_bands
from pliant_coil.services.workshop import seed_demo
from pliant_coil.store.database import connect, migrate, sessions_of
from tools.chromium import LAUNCH
from tools.serving import demo, served_apart, throwaway_database

ROOT = Path(__file__).parents[1]
SIZES = [f"US {n / 4}" for n in range(12, 52)]


def ring(size: str) -> dict[str, object]:
    """A different ring for each size, so that nothing is answered from memory."""
    return {"finger": {"size": size}, "head": {"style": "bead-lock"}, "finish": {"wraps_each_side": 3}}


def milliseconds(work: Callable[[int], object], rounds: int) -> float:
    """Median time of one round."""
    times = []
    for k in range(rounds):
        began = time.perf_counter()
        work(k)
        times.append((time.perf_counter() - began) * 1000)
    return statistics.median(times)


def plan_one(rings: list[RingFile], paths: bool, k: int) -> object:
    """One of several rings, in turn, as the Plan screen asks for it while somebody types."""
    return plan(rings[k % len(rings)], paths=paths, habits=False)


def in_process() -> dict[str, float]:
    """Planning without a server, with and without paths."""
    files = [read_ring(ring(size)) for size in SIZES]
    bands = {style: [read_ring({"finger": {"size": size}, "band": {"style": style}}) for size in SIZES[::2]] for style in all_bands()}

    def slowest(paths: bool) -> float:
        return max(milliseconds(partial(plan_one, rings, paths), 40) for rings in bands.values())

    return {
        "plan": milliseconds(partial(plan_one, files, False), 300),
        "plan with habits": milliseconds(lambda k: plan(files[k % len(files)]), 300),
        "plan with paths": milliseconds(partial(plan_one, files, True), 300),
        "slowest band": slowest(False),
        "slowest band with paths": slowest(True),
    }


def over_http(address: str) -> dict[str, float]:
    """The plan and a trivial endpoint of the same server, in turn, so that both see the same machine."""
    with httpx.Client(base_url=address) as client:
        bodies = [json.dumps(ring(size)) for size in SIZES]
        headers = {"content-type": "application/json"}
        trivial, planned = [], []
        for k in range(400):
            trivial.append(milliseconds(lambda _: client.get("/api/version"), 1))
            planned.append(
                milliseconds(lambda k: client.post("/api/plan?habits=false", content=bodies[k % len(bodies)], headers=headers), 1)
            )
        # The first answers warm both up.
        large = json.dumps(
            {"finger": {"size": "US 16"}, "band": {"style": "woven", "program": "AB1"}, "wires": {"weave": {"diameter": "0.25 mm"}}}
        )
        woven = milliseconds(lambda _: client.post("/api/plan?paths=true&habits=false", content=large, headers=headers), 20)
        return {
            "largest weave over HTTP": woven,
            "trivial endpoint": statistics.median(trivial[40:]),
            "POST /api/plan": statistics.median(planned[40:]),
        }


MANY_RINGS = """
    insert into ring (id, workshop_id, title, band_style, head_style, inside_circumference_mm, sentence, revision, updated_at)
    select gen_random_uuid(), workshop.id, 'Ring ' || n || ' ' || md5(n::text),
           (array['turned', 'woven', 'open'])[1 + n % 3], 'bead-lock', 50,
           'US ' || n % 13 || ', soft copper, 20 AWG, turned once each way, a ' || n % 9 || ' mm bead, locked twice', 1,
           now() - n * interval '1 minute'
    from generate_series(1, 100000) n, workshop
"""


def among_many() -> dict[str, float]:
    """Lists and searches of a workshop with a hundred thousand rings: the time that 95 of a hundred answers keep."""
    with throwaway_database() as url:
        engine = connect(url)
        migrate(engine)
        seed_demo(sessions_of(engine))
        with engine.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
            for statement in ("set statement_timeout = 0", MANY_RINGS, "analyze ring"):
                connection.execute(text(statement))
            deep = connection.exec_driver_sql("select id from ring order by updated_at desc offset 90000 limit 1").scalar()
        engine.dispose()
        asked: dict[str, dict[str, str]] = {
            "100 000 rings: list": {},
            "100 000 rings: deep page": {"after": str(deep)},
            "100 000 rings: common word": {"q": "copper"},
            "100 000 rings: rare word": {"q": "c4ca4238"},
            "100 000 rings: eight words": {"q": "us soft copper awg turned bead locked twice"},
        }
        with served_apart(url) as address, httpx.Client(base_url=address) as client:
            return {name: sorted(milliseconds(partial(listed, client, query), 1) for _ in range(40))[37] for name, query in asked.items()}


def listed(client: httpx.Client, query: dict[str, str], _: int) -> None:
    """One page of rings."""
    assert client.get("/api/rings", params={"limit": "12"} | query).is_success


KEYSTROKE = """
(text) => new Promise(requestIdleCallback).then(() => new Promise((done) => {
  // Nobody types the next letter before the last one's drawing is done.
  const input = document.activeElement;
  const began = performance.now();
  const strips = document.querySelector('main');
  const observer = new MutationObserver((changes) => {
    const onStrip = ({ target }) => (target.closest ? target : target.parentElement).closest('[role=group] svg');
    if (!changes.some(onStrip)) return;
    observer.disconnect();
    // The frame after the change is the one that shows it.
    requestAnimationFrame(() => done(performance.now() - began));
  });
  observer.observe(strips, { subtree: true, childList: true, characterData: true, attributes: true });
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(input, text);
  input.dispatchEvent(new Event('input', { bubbles: true }));
}))
"""


def in_the_browser(address: str) -> dict[str, float]:
    """From a keystroke to the strip's new figures on the screen."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(**LAUNCH)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}/plan")
        page.get_by_role("button", name="Finger").click()
        page.get_by_role("textbox", name="Size").focus()
        times = [page.evaluate(KEYSTROKE, size) for size in SIZES]
        browser.close()
    return {"keystroke to figures": statistics.median(times[5:])}


def bundle() -> dict[str, float]:
    """Gzipped JavaScript of the first load: all but what comes when it is asked for."""
    later = ("TurningRing", "SizesScreen", "BenchCard", "BenchScreen", "BenchList", "LogbookScreen", "GalleryScreen", "CompareScreen")
    scripts = [path for path in (ROOT / "web" / "dist" / "assets").glob("*.js") if not path.name.startswith(later)]
    return {"first-load JavaScript": sum(len(gzip.compress(path.read_bytes())) for path in scripts) / 1000}


def commands() -> dict[str, float]:
    """The terminal's answers, and a second start, as whole processes."""
    terminal = str(ROOT / ".venv" / "bin" / "pliant-coil")
    file = next((ROOT / "pliant_coil" / "demo").glob("*.ring.json"))
    return {
        "pliant-coil sizes": milliseconds(lambda _: subprocess.run([terminal, "sizes", "UK M"], check=True, capture_output=True), 5),
        "pliant-coil plan": milliseconds(lambda _: subprocess.run([terminal, "plan", str(file)], check=True, capture_output=True), 5),
        "second ./start": milliseconds(lambda _: start_once(), 2),
    }


def start_once() -> None:
    """Run ./start until it says where it serves, then end it as Ctrl-C would."""
    with subprocess.Popen([str(ROOT / "start")], stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True, env=os.environ) as process:
        assert process.stdout is not None
        for line in process.stdout:
            if "is at" in line or "runs already" in line:
                break
        process.send_signal(signal.SIGINT)


LIMITS = {
    "plan": ("≤ 3 ms", "ms"),
    "plan with habits": ("", "ms"),
    "plan with paths": ("", "ms"),
    "slowest band": ("≤ 5 ms", "ms"),
    "slowest band with paths": ("≤ 60 ms", "ms"),
    "largest weave over HTTP": ("≤ 150 ms", "ms"),
    "trivial endpoint": ("", "ms"),
    "POST /api/plan": ("", "ms"),
    "POST /api/plan over trivial": ("≤ 2.5", "×"),
    "keystroke to figures": ("≤ 60 ms", "ms"),
    "first-load JavaScript": ("≤ 230 kB", "kB"),
    "pliant-coil sizes": ("≤ 300 ms", "ms"),
    "pliant-coil plan": ("≤ 300 ms", "ms"),
    "second ./start": ("seconds", "ms"),
    "100 000 rings: list": ("≤ 60 ms", "ms"),
    "100 000 rings: deep page": ("≤ 60 ms", "ms"),
    "100 000 rings: common word": ("≤ 100 ms", "ms"),
    "100 000 rings: rare word": ("≤ 100 ms", "ms"),
    "100 000 rings: eight words": ("≤ 100 ms", "ms"),
}


def main() -> int:
    """Measure, print, write bench.json."""
    start_once()
    found = in_process() | bundle() | commands() | among_many()
    with demo(served_apart) as address:
        found |= over_http(address) | in_the_browser(address)
    found["POST /api/plan over trivial"] = found["POST /api/plan"] / found["trivial endpoint"]
    for name, (limit, unit) in LIMITS.items():
        print(f"{name:<30} {found[name]:>9.2f} {unit:<3} {limit}")
    (ROOT / "bench.json").write_text(json.dumps(found, indent=2) + "\n")
    return 0


if __name__ == "__main__":
    sys.exit(main())
