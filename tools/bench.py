"""What ./bench measures. Machines are shared and noisy, so what counts are the ratios within one run."""

import gc
import gzip
import json
import multiprocessing
import os
import random
import signal
import statistics
import subprocess
import sys
import threading
import time
from collections.abc import Callable
from datetime import UTC, datetime
from functools import partial
from pathlib import Path
from uuid import uuid4

import httpx2 as httpx
from playwright.sync_api import sync_playwright
from sqlalchemy import text

from pliant_coil.core.making.fitting import heads_for, simplest_head
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import RingFile, read_ring
from pliant_coil.core.styles.registry import all_bands
from pliant_coil.services.workshop import seed_demo
from pliant_coil.store.database import connect, migrate, sessions_of
from tools.chromium import LAUNCH
from tools.serving import demo, served_apart, throwaway_database

ROOT = Path(__file__).parents[1]
SIZES = [f"US {n / 4}" for n in range(12, 52)]


def fingers(count: int) -> list[str]:
    """So many sizes from US 3 to 13, none like another: what is asked for has never been asked before, as when somebody types."""
    golden = (5**0.5 - 1) / 2
    return [f"{44 + 26 * (k * golden % 1):.3f} mm" for k in range(count)]


def ring(size: str) -> dict[str, object]:
    """A ring of a size: a bead lock with three wraps."""
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


def in_process(rounds: int = 40) -> dict[str, float]:
    """Planning without a server, with and without paths: a usual ring, the slowest band, the slowest pair of band and head."""
    # As the server keeps house: what is loaded isn't looked through for waste.
    gc.collect()
    gc.freeze()
    files = [read_ring(ring(size)) for size in fingers(3 * 8 * rounds)]
    bare, habits, drawn = (files[k::3] for k in range(3))

    def rings_of(band: str, head: str) -> list[RingFile]:
        return [read_ring({"finger": {"size": size}, "band": {"style": band}, "head": {"style": head}}) for size in fingers(2 * rounds)]

    alone = [rings_of(name, simplest_head(style())) for name, style in all_bands().items()]
    pairs = [rings_of(name, head) for name, style in all_bands().items() for head in heads_for(style())]

    def slowest(of: list[list[RingFile]], paths: bool) -> float:
        return max(milliseconds(partial(plan_one, rings[paths::2], paths), rounds) for rings in of)

    return {
        "plan": milliseconds(partial(plan_one, bare, False), 8 * rounds),
        "plan with habits": milliseconds(lambda k: plan(habits[k]), 8 * rounds),
        "plan with paths": milliseconds(partial(plan_one, drawn, True), 8 * rounds),
        "slowest band": slowest(alone, False),
        "slowest band with paths": slowest(alone, True),
        "slowest pair": slowest(pairs, False),
        "slowest pair with paths": slowest(pairs, True),
    }


JSON = {"content-type": "application/json"}


def figures(client: httpx.Client, body: str, _: int) -> None:
    """A plan's figures, as they are asked for while somebody types."""
    client.post("/api/plan?habits=false", content=body, headers=JSON)


def over_http(address: str) -> dict[str, float]:
    """The plan and a trivial endpoint of the same server, in turn, so that both see the same machine; by a bare client."""
    with httpx.Client(base_url=address) as client:
        trivial, planned = [], []
        for size in fingers(400):
            trivial.append(milliseconds(lambda _: client.get("/api/version"), 1))
            planned.append(milliseconds(partial(figures, client, json.dumps(ring(size))), 1))
        # The first answers warm both up.
        large = json.dumps({**DEAREST, "finger": {"size": "US 16"}})
        woven = milliseconds(lambda _: client.post("/api/plan?paths=true&habits=false", content=large, headers=JSON), 20)
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


MANY_RECORDS = """
    insert into job (id, workshop_id, title, sentence, file, predicted, core_version, state, number, record, updated_at, ended_at)
    select gen_random_uuid(), workshop.id, 'Ring ' || n || ' ' || md5(n::text),
           'US 7, soft copper, 20 AWG, turned once each way', '{}', '{}',
           '0', 'finished', 0, jsonb_build_object(
               'state', 'finished', 'why', '', 'aim_mm', 17, 'planned_size_mm', 17, 'size_mm', 17.1,
               'minutes', 30, 'planned_minutes', 40,
               'family', 'turned', 'mandrel', 'the grooved one',
               'pieces', jsonb_build_array(jsonb_build_object(
                   'piece', 'band.1', 'cut_mm', 200, 'planned_mm', 150, 'used_mm', 150 + n % 9,
                   'kinds', jsonb_build_object('arc', 112, 'wrap', 38)
               ))
           ), now() - n * interval '1 minute', now() - n * interval '1 minute'
    from generate_series(1, 100000) n, workshop
"""


def among_many() -> dict[str, float]:
    """Lists and searches of a workshop with a hundred thousand rings: the time that 95 of a hundred answers keep."""
    with throwaway_database() as url:
        engine = connect(url)
        migrate(engine)
        seed_demo(sessions_of(engine))
        with engine.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
            for statement in ("set statement_timeout = 0", MANY_RINGS, MANY_RECORDS, "analyze ring", "analyze job"):
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
        recorded = {"100 000 records: logbook": {"ended": "true"}, "100 000 records: rare word": {"ended": "true", "q": "c4ca4238"}}
        with served_apart(url) as address, httpx.Client(base_url=address, timeout=30) as client:
            found = {name: nearly_always(partial(listed, client, "/api/rings", query)) for name, query in asked.items()}
            for name, query in recorded.items():
                found[name] = nearly_always(partial(listed, client, "/api/jobs", query))
            found["100 000 records: the hand"] = milliseconds(lambda _: client.get("/api/jobs/hand").raise_for_status(), 3)
            return found


def nearly_always(work: Callable[[int], object]) -> float:
    """The time that 95 of a hundred rounds keep."""
    return sorted(milliseconds(work, 1) for _ in range(40))[37]


def listed(client: httpx.Client, path: str, query: dict[str, str], _: int) -> None:
    """One page of rings or records."""
    assert client.get(path, params={"limit": "12"} | query).is_success


Ask = Callable[[httpx.Client, int], object]


def keep_asking(address: str, greedy: int, ask: Ask) -> None:
    """As many clients as that, each asking again as soon as it is answered."""

    def one(n: int) -> None:
        with httpx.Client(base_url=address, timeout=30) as client:
            while True:
                ask(client, n)

    asking = [threading.Thread(target=one, args=(n,), daemon=True) for n in range(greedy)]
    for thread in asking:
        thread.start()
    asking[0].join()


def meanwhile(address: str, greedy: int, ask: Ask, measured: Ask) -> float:
    """How long 95 of a hundred of somebody's requests take while others, in a process of their own, keep asking."""
    others = multiprocessing.get_context("fork").Process(target=keep_asking, args=(address, greedy, ask), daemon=True)
    others.start()
    try:
        with httpx.Client(base_url=address, timeout=30) as client:
            time.sleep(2)
            return sorted(milliseconds(lambda k: measured(client, k), 1) for _ in range(100))[94]
    finally:
        others.kill()
        others.join()


DEAREST = {"finger": {"size": "US 13"}, "band": {"style": "woven", "program": "AB1"}, "wires": {"weave": {"diameter": "0.25 mm"}}}


def search(client: httpx.Client, _: int) -> None:
    """What a greedy client asks for."""
    client.get("/api/rings", params={"q": "copper"})


def save(client: httpx.Client, _: int) -> None:
    """What somebody else wants kept meanwhile."""
    client.post("/api/rings", json=ring("US 7")).raise_for_status()


def draw(client: httpx.Client, _: int) -> None:
    """One of the dearest plans that are accepted."""
    client.post("/api/plan?paths=true", json=DEAREST)


def health(client: httpx.Client, _: int) -> None:
    """Whether the server is there."""
    client.get("/api/health/live").raise_for_status()


def under_load(address: str) -> dict[str, float]:
    """Others are greedy: what a save and a health check take then; and a tap with fifty benches at once."""
    with httpx.Client(base_url=address) as client:
        jobs = [client.post("/api/jobs", json=ring(size)).json()["id"] for size in (SIZES * 2)[:50]]

    def tap(client: httpx.Client, n: int) -> None:
        event = {"kind": "note", "id": str(uuid4()), "device": "bench", "at": datetime.now(UTC).isoformat(), "task": "cut", "text": "n"}
        client.post(f"/api/jobs/{jobs[n % 50]}/events", json={"events": [event]}).raise_for_status()

    def tap_now_and_then(client: httpx.Client, n: int) -> None:
        # A wrap takes a maker at least a second, and no two of them wait for each other.
        time.sleep(random.uniform(1, 2))
        tap(client, n)

    return {
        "16 greedy clients: a save": meanwhile(address, 16, search, save),
        "5 dearest plans: health": meanwhile(address, 5, draw, health),
        "50 benches: a tap": meanwhile(address, 49, tap_now_and_then, lambda client, _: tap(client, 49)),
    }


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


ASKED = """
async (bodies) => {
  const took = async (...asked) => {
    const began = performance.now();
    await (await fetch(...asked)).json();
    return performance.now() - began;
  };
  const trivial = [], planned = [];
  const headers = { 'content-type': 'application/json' };
  for (const body of bodies) {
    trivial.push(await took('/api/version'));
    planned.push(await took('/api/plan?habits=false', { method: 'POST', headers, body }));
  }
  return [trivial, planned];
}
"""


def in_the_browser(address: str) -> dict[str, float]:
    """What a page waits for a trivial answer and for a plan, in turn; and from a keystroke to the strip's new figures on the screen."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(**LAUNCH)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}/plan")
        page.get_by_role("button", name="Finger").wait_for()
        bodies = [json.dumps(ring(size)) for size in fingers(800)[400:]]
        trivial, planned = (statistics.median(times[40:]) for times in page.evaluate(ASKED, bodies))
        page.get_by_role("button", name="Finger").click()
        page.get_by_role("textbox", name="Size").focus()
        times = [page.evaluate(KEYSTROKE, size) for size in SIZES]
        browser.close()
    return {
        "a page: trivial endpoint": trivial,
        "a page: POST /api/plan": planned,
        "keystroke to figures": statistics.median(times[5:]),
    }


def bundle() -> dict[str, float]:
    """Gzipped JavaScript of the first load: all but what comes when it is asked for."""
    later = ("TurningRing", "SizesScreen", "BenchCard", "BenchScreen", "BenchList", "LogbookScreen", "GalleryScreen", "CompareScreen")
    scripts = [path for path in (ROOT / "web" / "dist" / "assets").glob("*.js") if not path.name.startswith(later)]
    return {"first-load JavaScript": sum(len(gzip.compress(path.read_bytes())) for path in scripts) / 1000}


def commands() -> dict[str, float]:
    """The terminal's answers, and a second start, as whole processes."""
    terminal = str(ROOT / ".venv" / "bin" / "pliant-coil")
    file = next((ROOT / "pliant_coil" / "demo").glob("*.ring.json"))
    # As it is installed: compiled once.
    environment = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}

    def answer(*words: str) -> float:
        return milliseconds(lambda _: subprocess.run([terminal, *words], check=True, capture_output=True, env=environment), 9)

    return {
        "pliant-coil sizes": answer("sizes", "UK M"),
        "pliant-coil plan": answer("plan", str(file)),
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
    "slowest pair": ("≤ 8 ms", "ms"),
    "slowest pair with paths": ("≤ 60 ms", "ms"),
    "largest weave over HTTP": ("≤ 150 ms", "ms"),
    "trivial endpoint": ("", "ms"),
    "POST /api/plan": ("", "ms"),
    "POST /api/plan over trivial": ("≤ 2.5", "×"),
    "a page: trivial endpoint": ("", "ms"),
    "a page: POST /api/plan": ("", "ms"),
    "a page: the plan over trivial": ("≤ 2.5", "×"),
    "keystroke to figures": ("≤ 60 ms", "ms"),
    "first-load JavaScript": ("≤ 230 kB", "kB"),
    "pliant-coil sizes": ("≤ 300 ms", "ms"),
    "pliant-coil plan": ("≤ 300 ms", "ms"),
    "second ./start": ("seconds", "ms"),
    "16 greedy clients: a save": ("≤ 250 ms", "ms"),
    "5 dearest plans: health": ("≤ 50 ms", "ms"),
    "50 benches: a tap": ("≤ 30 ms", "ms"),
    "100 000 rings: list": ("≤ 60 ms", "ms"),
    "100 000 rings: deep page": ("≤ 60 ms", "ms"),
    "100 000 rings: common word": ("≤ 100 ms", "ms"),
    "100 000 rings: rare word": ("≤ 100 ms", "ms"),
    "100 000 rings: eight words": ("≤ 100 ms", "ms"),
    "100 000 records: logbook": ("≤ 100 ms", "ms"),
    "100 000 records: rare word": ("≤ 100 ms", "ms"),
    "100 000 records: the hand": ("", "ms"),
}


def main() -> int:
    """Measure, print, write bench.json."""
    start_once()
    found = in_process() | bundle() | commands() | among_many()
    with demo(served_apart) as address:
        found |= over_http(address) | in_the_browser(address)
    # As ./start serves: a worker for each core.
    with demo(partial(served_apart, workers=os.cpu_count() or 1)) as address:
        found |= under_load(address)
    found["POST /api/plan over trivial"] = found["POST /api/plan"] / found["trivial endpoint"]
    found["a page: the plan over trivial"] = found["a page: POST /api/plan"] / found["a page: trivial endpoint"]
    for name, (limit, unit) in LIMITS.items():
        print(f"{name:<30} {found[name]:>9.2f} {unit:<3} {limit}")
    (ROOT / "bench.json").write_text(json.dumps(found, indent=2) + "\n")
    return 0


if __name__ == "__main__":
    sys.exit(main())
