"""A weave measured on the way: the horn player's ring of the design."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.bench.packing import Packing, packing


def horn(done: int, measured: float) -> Packing:
    return packing(done, measured, repeat_mm=0.8, target_mm=50.97, planned=63, kind="weave")


def test_a_loose_weave_takes_fewer_repeats() -> None:
    at_20 = horn(20, 17.0)
    assert (at_20.factor, at_20.sd) == pytest.approx((1.0601, 0.0184), abs=1e-4)
    assert (at_20.more, at_20.more_planned) == (40, 43)
    assert at_20.all_planned_mm == pytest.approx(53.5, abs=0.05)
    at_40 = horn(40, 33.6)
    assert at_40.factor == pytest.approx(1.0495, abs=1e-4)
    assert at_40.more == 20


@given(st.integers(1, 60), st.floats(0.8, 1.3))
def test_what_was_measured_is_believed_more_the_longer_the_row(done: int, loose: float) -> None:
    found = horn(done, done * 0.8 * loose)
    assert min(1.0, loose) - 1e-9 <= found.factor <= max(1.0, loose) + 1e-9
    assert found.sd < 0.0944, "a measurement never makes less sure"
    filled = found.made_mm + found.more * found.factor * 0.8
    assert filled <= max(50.97, found.made_mm) + 1e-6
    assert found.made_mm >= 50.97 or filled > 50.97 - found.factor * 0.8 - 1e-6, "one more would not fit"
