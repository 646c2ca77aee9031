"""Several rings at once: the stage at hand, what is left of it, and how long that takes."""

from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest

from pliant_coil.core.bench.batch import Batch, Bench
from pliant_coil.core.bench.events import Count, Ended, Event, Help, StepOn
from pliant_coil.core.bench.progress import Numbered
from pliant_coil.core.bench.ring_at_bench import RingAtBench
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.tasks import Phase

NOON = datetime(2026, 11, 25, 12, tzinfo=UTC)
HORN = RingAtBench.of(read_ring({"finger": {"size": "US 5.75"}, "band": {"style": "woven", "program": "A1 AB1 B1"}}))
"""Its weave has sixty cycles."""
WEAVE = next(k for k, task in enumerate(HORN.tasks) if task.id == "weave")
MOVE = next(c.move for c in HORN.counters(HORN.tasks[WEAVE]) if c.unit == "cycle")


def bench(cycles: int, *, steps: int = WEAVE, more: Sequence[Event] = (), seconds: float = 14) -> Bench:
    """A bench that took its first steps at once, then so many cycles of so many seconds each."""
    events: list[Event] = [StepOn(id=uuid4(), device="a", at=NOON, task=task.id) for task in HORN.tasks[:steps]]
    events += [Count(id=uuid4(), device="a", at=NOON + timedelta(seconds=seconds * (k + 1)), move=MOVE, n=1) for k in range(cycles)]
    return Bench(HORN, HORN.progress([Numbered(n, event) for n, event in enumerate([*events, *more], 1)]))


def test_five_at_once_stage_by_stage() -> None:
    batch = Batch([bench(n) for n in (60, 60, 22, 0, 0)])
    assert HORN.limits[MOVE] == 60 and batch.stage is Phase.FLAT
    assert batch.repeats_left == 158
    assert batch.minutes_left == pytest.approx(36.9, abs=0.05)


def test_before_anything_is_made_a_practised_hand_is_reckoned_with() -> None:
    assert Batch([bench(0)]).minutes_left == pytest.approx(60 * 14 / 60, rel=0.6), "common practice, no source: within 1.6 of it"


def test_the_last_one_holds_the_stage_and_who_has_ended_doesnt() -> None:
    ahead = bench(60, steps=len(HORN.tasks) - 1)
    assert Batch([ahead, bench(60)]).stage is Phase.FLAT
    assert Batch([ahead]).stage is not Phase.FLAT
    spoiled = Ended(kind="spoiled", id=uuid4(), device="a", at=NOON, why="kinked")
    assert Batch([ahead, bench(3, more=[spoiled])]).stage is ahead.task.phase if ahead.task else False
    assert Batch([bench(3, more=[spoiled])]).stage is None and Batch([bench(3, more=[spoiled])]).minutes_left == 0


def test_what_a_step_took_the_others() -> None:
    on = StepOn(id=uuid4(), device="a", at=NOON + timedelta(seconds=600), task="weave")
    done = [bench(40, more=[on], seconds=s) for s in (10, 12, 15)]
    assert Batch([*done, bench(2)]).usual_minutes("weave") == pytest.approx(10.0), "600 s each, however they were spread"
    assert Batch([bench(2)]).usual_minutes("weave") == 0


def test_who_waits_for_help() -> None:
    asked = Help(kind="help", id=uuid4(), device="a", at=NOON, task="weave")
    came = Help(kind="helped", id=uuid4(), device="b", at=NOON, task="weave")
    assert bench(1, more=[asked]).progress.waits_since == NOON
    assert bench(1, more=[asked, came]).progress.waits_since is None
