"""A maker's own mandrel: its line by numpy's least squares, and marks that are told for it."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.trade.own_mandrel import MIDDLE_MM, Line, check_mark, fitted
from pliant_coil.core.trade.sizes import SYSTEMS, MandrelMark, Size, nearest_mark, read_size
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader, say, write

lines = st.builds(Line, st.floats(-0.5, 0.5), st.floats(-0.03, 0.03))


@given(lines, st.floats(11, 24))
def test_what_a_mark_names_and_what_it_measures_turn_round(line: Line, inside_mm: float) -> None:
    assert line.true_mm(line.marked_mm(inside_mm)) == pytest.approx(inside_mm, abs=1e-9)


@given(lines, st.lists(st.floats(13, 22), min_size=6, max_size=12, unique=True))
def test_many_marks_give_the_line_that_they_lie_on(line: Line, named: list[float]) -> None:
    found = fitted([(mark, line.true_mm(mark)) for mark in named])
    # Another road: the same prior as two more observations, by numpy's least squares.
    rows = [[1 / 0.04, (mark - MIDDLE_MM) / 0.04] for mark in named] + [[1 / 0.20, 0], [0, 1 / 0.02]]
    seen = [(line.true_mm(mark) - mark) / 0.04 for mark in named] + [0, 0]
    off, slope = np.linalg.lstsq(np.array(rows), np.array(seen), rcond=None)[0]
    assert (found.off_mm, found.slope) == pytest.approx((off, slope), abs=1e-9)
    if max(named) - min(named) > 4:
        for mark in (15.0, 19.0):
            assert found.true_mm(mark) == pytest.approx(line.true_mm(mark), abs=0.06)


def test_no_mark_says_nothing_and_one_says_most_of_itself() -> None:
    assert fitted([]) == Line(0, 0)
    one = fitted([(17.35, 17.05)])
    assert -0.30 < one.true_mm(17.35) - 17.35 < -0.27, "a caliper is believed, a little less than wholly"


def test_a_mark_that_cant_be_is_named() -> None:
    with pytest.raises(Refusal) as refused:
        check_mark(2, 17.35, 15.2)
    assert refused.value.faults[0].field == "marks.2.measured_mm"


def test_every_mark_of_a_plan_is_told_for_the_mandrel_and_sizes_are_not() -> None:
    file = read_ring({"finger": {"size": "US 7"}})
    small = Line(-0.203, 0.0)
    plain, own = Reader(), Reader(mandrel=small)
    made = plan(file)
    dumped = {reader: made.document(reader) for reader in (plain, own)}
    start = read_size(dumped[plain]["start"]["mark"].removeprefix("just past ").removeprefix("just short of "), "x").inside_diameter_mm
    on_own = read_size(dumped[own]["start"]["mark"].removeprefix("just past ").removeprefix("just short of "), "x").inside_diameter_mm
    assert on_own - start == pytest.approx(0.203, abs=0.11), "a quarter size further up, to the marks' own step"
    for name in ("said", "exact"):
        assert dumped[own]["finished"][name] == dumped[plain]["finished"][name], "what comes off is a size, not a mark"
    differing = [
        (a["id"])
        for a, b in zip(dumped[plain]["steps"], dumped[own]["steps"], strict=True)
        if (a["text"], a["check"]) != (b["text"], b["check"])
    ]
    assert "measure" in differing and any("form" in step for step in differing)


@given(st.floats(14, 22), lines)
def test_a_mark_is_a_size_at_another_place(inside_mm: float, line: Line) -> None:
    at = write(say("{m}", m=MandrelMark(inside_mm)), Reader(mandrel=line))
    assert at == write(say("{m}", m=Size(line.marked_mm(inside_mm))), Reader())
    assert (
        write(say("{m}", m=MandrelMark(inside_mm, 1)), Reader(mandrel=line)) == nearest_mark(line.marked_mm(inside_mm), SYSTEMS["uk"]).text
    )
    assert write(say("{m}", m=MandrelMark(inside_mm, 1)), Reader(systems=("us",), mandrel=line)) == ""
