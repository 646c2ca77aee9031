"""What a size reading means: a honey bead ring of the design, read before and after its first lock."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.bench.hand import SizeRead, size_offset
from pliant_coil.core.bench.sizing import Choice, SizeReading, chance_within, read_size_at
from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.ring import Ring, make_ring
from pliant_coil.core.making.solve import Solver
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.trade.sizes import US_STEP_MM

US_0_MM = 11.63
HONEY = {
    "finger": {"size": "US 6 1/2"},
    "wires": {"band": {"diameter": "20 AWG"}},
    "band": {"style": "turned", "winding": "both-ways", "turns": 1},
    "head": {"style": "bead-lock", "bead": {"diameter_mm": 7, "hole_mm": 1.1}},
    "finish": {"wraps_each_side": 2},
}


def us(mm: float) -> float:
    return (mm - US_0_MM) / US_STEP_MM


def mm(size: float) -> float:
    return US_0_MM + size * US_STEP_MM


@pytest.fixture(scope="module")
def honey() -> tuple[Ring, MadeRing]:
    ring = make_ring(read_ring(HONEY))
    solver = Solver(ring)
    return ring, solver.made(solver.solved(ring.aim_mm)[0].form)


def task_of(made: MadeRing, name: str) -> Task:
    return next(task for task in made.tasks if task.id == name)


def test_read_before_the_locks(honey: tuple[Ring, MadeRing]) -> None:
    ring, made = honey
    assert us(made.form.diameter_mm) == pytest.approx(7.63, abs=0.02)
    before = task_of(made, "read-before-locks")
    told = read_size_at(ring, made, before, mm(7.88), ())
    assert us(told.finishes_mm) == pytest.approx(6.75, abs=0.01)
    assert told.chance == pytest.approx(0.496, abs=0.01) and told.zone == "off"
    found = {choice.code: choice for choice in told.choices}
    assert told.choices[0].code == "reform" and told.choices[-1].code == "go-on", "correct first; go on last"
    assert us(found["reform"].finished_mm) == pytest.approx(6.50, abs=0.01)
    assert found["reform"].chance == pytest.approx(0.92, abs=0.01)
    assert [us(found[f"lock-{n}"].finished_mm) for n in (3, 4)] == pytest.approx([6.71, 6.67], abs=0.015)
    assert us(found["back"].finished_mm) == pytest.approx(6.32, abs=0.03)
    nearer = read_size_at(ring, made, before, mm(7.75), ())
    assert us(nearer.finishes_mm) == pytest.approx(6.62, abs=0.01)
    assert nearer.chance == pytest.approx(0.813, abs=0.02) and nearer.zone == "on-course"
    assert nearer.choices[0].code == "go-on"


def test_read_after_the_first_side_is_locked(honey: tuple[Ring, MadeRing]) -> None:
    ring, made = honey
    locks = [task for task in made.tasks if task.id.startswith("lock-")]
    first = locks[0]
    told = read_size_at(ring, made, first, mm(6.80), set(first.makes))
    assert us(told.expected_mm) == pytest.approx(6.63, abs=0.01)
    assert us(told.finishes_mm) == pytest.approx(6.67, abs=0.015)
    assert told.chance == pytest.approx(0.709, abs=0.03) and told.zone == "near"
    codes = [choice.code for choice in told.choices]
    assert "redo" in codes and "reform" not in codes, "a lock has to be opened first"
    trimmed = read_size_at(ring, made, first, mm(6.80), {*first.makes, "trim"})
    assert {choice.code for choice in trimmed.choices} == {"back", "go-on"}, "metal that is cut can't go back"


@given(st.floats(-1.5, 1.5))
def test_what_is_read_as_planned_comes_off_as_planned_and_more_comes_off_more(off: float) -> None:
    ring = make_ring(read_ring(HONEY))
    solver = Solver(ring)
    made = solver.made(solver.solved(ring.aim_mm)[0].form)
    before = task_of(made, "read-before-locks")
    expected = made.reading_after(before)
    told = read_size_at(ring, made, before, expected + off, ())
    assert (told.finishes_mm - made.finished_mm) * off >= -1e-6
    assert told.finishes_mm - made.finished_mm == pytest.approx(off, abs=0.1 * abs(off) + 1e-3)


def test_chances_are_those_of_the_normal_law() -> None:
    # 2Φ(¼ US / √(0.10² + 0.06²)) − 1, with Φ(1.7423) = 0.95927 from a table of the normal distribution (value from memory).
    assert chance_within(17.0, 17.0) == pytest.approx(2 * 0.95927 - 1, abs=2e-4)
    assert chance_within(17.0 + US_STEP_MM / 4, 17.0) == pytest.approx(0.5, abs=1e-3)


def codes(told: SizeReading) -> dict[str, Choice]:
    return {choice.code: choice for choice in told.choices}


def test_what_reads_large_is_drawn_in_before_anything_is_locked(honey: tuple[Ring, MadeRing]) -> None:
    ring, made = honey
    before = task_of(made, "read-before-locks")
    drawn = codes(read_size_at(ring, made, before, mm(7.88), ()))["draw"]
    assert drawn.form_mm == pytest.approx(made.form.diameter_mm) and us(drawn.finished_mm) == pytest.approx(6.5, abs=0.01)
    # Half a size and no further.
    far = codes(read_size_at(ring, made, before, mm(8.5), ()))["draw"]
    assert far.form_mm is not None and us(far.form_mm) == pytest.approx(8.0, abs=0.01)
    locked = read_size_at(ring, made, next(t for t in made.tasks if t.id.startswith("lock-")), mm(7.2), {"left.lock", "right.lock"})
    assert "draw" not in codes(locked), "locked tails don't slide"


def test_what_reads_small_is_pressed_up_or_locked_thinner_or_stretched(honey: tuple[Ring, MadeRing]) -> None:
    ring, made = honey
    before = task_of(made, "read-before-locks")
    small = read_size_at(ring, made, before, mm(7.2), ())
    found = codes(small)
    assert us(found["slide"].finished_mm) == pytest.approx(us(small.finishes_mm) + 0.25, abs=0.01)
    # Two locks of 0.812 mm on each side take 0.8 of it each; of 0.4 mm half as much (the inscribed circle by its own search elsewhere).
    assert us(small.finishes_mm) + 0.3 < us(found["lockwire"].finished_mm) < us(small.finishes_mm) + 0.7
    assert {"draw", "back", "stretch"}.isdisjoint(found)
    trimmed = codes(
        read_size_at(ring, made, task_of(made, "trim"), mm(6.18), {move for task in made.tasks for move in (task.id, *task.makes)})
    )
    assert us(trimmed["stretch"].finished_mm) == pytest.approx(6.5, abs=0.01) and "slide" not in trimmed and "lockwire" not in trimmed
    steel = make_ring(read_ring({**HONEY, "wires": {"band": {"diameter": "20 AWG", "metal": "stainless"}}}))
    planned = Solver(steel).made(Solver(steel).solved(steel.aim_mm)[0].form)
    reading = task_of(planned, "read-before-locks")
    springs = codes(read_size_at(steel, planned, reading, planned.reading_after(reading) - 0.4, ()))
    assert "slide" not in springs and "accept" in springs


def test_repeats_set_a_size_only_where_their_length_does() -> None:
    ring = make_ring(read_ring({"finger": {"size": "US 8"}, "band": {"style": "woven", "close": "eyes"}}))
    solver = Solver(ring)
    made = solver.made(solver.solved(ring.aim_mm)[0].form)
    reading = next(task for task in made.tasks if any(check.reads_size for check in task.checks))
    assert made.band.repeats is not None
    each = made.band.repeats.repeat_changes_mm
    told = codes(read_size_at(ring, made, reading, made.reading_after(reading) - 3 * each - made.finished_mm + ring.aim_mm, ()))
    assert told["count"].finished_mm == pytest.approx(ring.aim_mm, abs=each / 2 + 0.01) and told["count"].form_mm is None
    assert "reform" not in told
    woven = make_ring(read_ring({"finger": {"size": "US 8"}, "band": {"style": "woven"}}))
    planned = Solver(woven).made(Solver(woven).solved(woven.aim_mm)[0].form)
    read = next(task for task in planned.tasks if any(check.reads_size for check in task.checks))
    assert "count" not in codes(read_size_at(woven, planned, read, planned.reading_after(read) - 0.5, ())), "a weave only moves its gap"


def test_a_mandrel_that_runs_small_is_started_higher(honey: tuple[Ring, MadeRing]) -> None:
    """The school's mandrel: the start through the inverse, where a millimetre of form moves the finish by 1.014 mm; figures of the design."""
    ring, made = honey
    solver = Solver(ring)
    reads = [SizeRead("a1", "f1", off) for off in (-0.20, -0.30, -0.22)]
    reads += [SizeRead("a1", "f2", off) for off in (-0.10, -0.15)] + [SizeRead("a2", "f2", 0.14)]
    for family, start in (("f1", 18.055), ("f2", 17.952)):
        off, _, _ = size_offset(reads, "a1", family)
        formed = solver.solved(ring.aim_mm - off)[0].form.diameter_mm
        assert formed == pytest.approx(start, abs=0.01)
        assert formed == pytest.approx(made.form.diameter_mm - off / 1.014, abs=0.004)
    assert sum(1 for read in reads if read.mandrel == "a2") == 1, "one ring only says nothing of a mandrel yet"
