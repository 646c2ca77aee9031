"""Will the tail reach: the design's own rings, and simulation."""

from collections.abc import Callable
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.bench.reach import Left, Tail, both, most, splice_mm
from pliant_coil.core.trade.hand import HandKind

WRAP = 6.773
LOOP = 11.976


def lock(tail: float, wraps: int) -> Tail:
    return Tail(tail, 0.5, (Left("right.lock", "wrap", wraps * WRAP),), 13.0)


def rosette(tail: float, loops: int, *, row: str = "row.1") -> Tail:
    left = (Left(row, "loop", loops * LOOP), Left(f"{row} round", "arc", 31.4), Left(f"{row} lock", "wrap", 20.014))
    return Tail(tail, 1.0, left, 26.0)


def test_three_wraps_on_one_side_and_two_on_the_other() -> None:
    assert lock(36, 3).chance == pytest.approx(0.958, abs=0.002)
    assert lock(31, 3).chance == pytest.approx(0.067, abs=0.002)
    assert lock(31, 2).chance == pytest.approx(1.0, abs=0.002)
    learned = replace(lock(36, 3), hand={"wrap": (0.0524, 0.0340)})
    assert learned.chance == pytest.approx(0.909, abs=0.002)
    assert most(3, lambda n: lock(36, n)) == 3 and most(3, lambda n: lock(31, n)) == 2
    assert most(3, lambda n: replace(lock(36, n), hand={"wrap": (0.0524, 0.0340)})) == 2


def test_a_row_of_loops_from_one_reading_and_from_two() -> None:
    alone = [rosette(238, n).chance for n in (11, 12, 13)]
    assert alone == pytest.approx([0.9986, 0.9455, 0.6666], abs=2e-3)
    seen = [replace(rosette(238, n), seen=(289.0, 1.0, 4 * LOOP, "row.1")) for n in (11, 12, 13)]
    assert [tail.chance for tail in seen] == pytest.approx([1.0, 0.9693, 0.2504], abs=2e-3)
    assert most(16, lambda n: replace(rosette(238, n), seen=(289.0, 1.0, 4 * LOOP, "row.1"))) == 12, "knowing is worth a loop"
    assert most(16, lambda n: rosette(238, n)) == 11


def test_the_other_row_of_a_rosette_profits_from_the_first() -> None:
    # What four loops of the first row say of all loops: b²L/S and b² − b⁴L²/S, reckoned apart.
    made, spread, own = 4 * LOOP, 0.06, 0.04
    seen = made**2 * (spread**2 + own**2) + 2
    hand: dict[HandKind, tuple[float, float]] = {
        "loop": (spread**2 * made * (289 - 238 - made) / seen, (spread**2 - spread**4 * made**2 / seen) ** 0.5)
    }
    other = [replace(rosette(290, n, row="row.2"), hand=hand) for n in (15, 16)]
    assert [tail.chance for tail in other] == pytest.approx([0.994, 0.893], abs=0.003)
    assert most(16, lambda n: replace(rosette(290, n, row="row.2"), hand=hand)) == 15, "fifteen on both, not sixteen"


def test_rows_alike_on_both_sides_from_what_the_first_one_showed() -> None:
    """The flower ring: 238 of 289 left after four loops of the first row, the other tail 290; chances reckoned apart."""

    def joint(first: int, second: int) -> float:
        measured = replace(rosette(238, first - 4), seen=(289.0, 1.0, 4 * LOOP, "row.1"))
        return both(measured, rosette(290, second, row="row.2"))

    assert joint(15, 15) == pytest.approx(0.994, abs=0.002)
    assert joint(16, 16) == pytest.approx(0.872, abs=0.003)
    assert joint(16, 15) == pytest.approx(0.965, abs=0.003)
    assert most_alike(16, joint) == 15, "fifteen on both, not sixteen"


def most_alike(repeats: int, joint: Callable[[int, int], float]) -> int:
    return next(n for n in range(repeats, 0, -1) if joint(n, n) >= 0.95)


def test_both_agrees_with_simulation() -> None:
    one, other = rosette(290, 15), rosette(285, 15, row="row.2")
    random = np.random.default_rng(7)
    n = 400_000
    loop, arc, wrap = (random.normal(0, b, n) for b in (0.06, 0.015, 0.06))
    reach = np.ones(n, dtype=bool)
    for tail in (one, other):
        own = [random.normal(0, s, n) for s in (0.04, 0.01, 0.04)]
        taken = 15 * LOOP * (1 + loop + own[0]) + 31.4 * (1 + arc + own[1]) + 20.014 * (1 + wrap + own[2])
        reach &= tail.measured_mm + random.normal(0, 1, n) - taken - 26 >= 0
    assert both(one, other) == pytest.approx(reach.mean(), abs=0.004)


def test_a_nest_that_runs_out() -> None:
    def nest(turns: float, wraps: int) -> Tail:
        return Tail(61, 1.0, (Left("nest", "nest", turns * 27.0), Left("lock", "wrap", wraps * WRAP)), 13.0)

    assert nest(1.5, 3).slack_mm == pytest.approx(-12.8, abs=0.05)
    assert [nest(1.5, 3).chance, nest(1, 3).chance, nest(1, 2).chance] == pytest.approx([0.010, 0.569, 0.977], abs=0.003)
    assert splice_mm(nest(1.5, 3), 2 * WRAP) == pytest.approx(100.1, abs=0.8)


@given(st.floats(20, 400), st.floats(5, 300), st.integers(1, 10))
def test_more_tail_and_fewer_repeats_never_make_it_less_sure(tail: float, length: float, repeats: int) -> None:
    def left(measured: float, n: int) -> Tail:
        return Tail(measured, 1.0, (Left("row", "loop", n * length / 10),), 13.0)

    assert left(tail + 5, repeats).chance >= left(tail, repeats).chance - 1e-12
    assert left(tail, repeats).slack_mm < left(tail, repeats - 1).slack_mm if repeats > 1 else True
