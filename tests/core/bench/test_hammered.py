"""Rings hammered flat and read on the way: the design's own ring, and the law that it follows."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.bench.hammered import read_hammering
from pliant_coil.core.styles.handed_on import HammeredRing
from pliant_coil.core.words.refusal import Refusal

TUBA = HammeredRing(around_mm=50.0, before_mm=1.6, after_mm=1.1, task="hammer")


def test_a_tuba_players_ring_read_at_three_quarters_of_its_thickness() -> None:
    """Prior 0.094 ± 0.020; seen (51.60/50 − 1)/ln(1.6/1.2) ± (0.15/50)/ln(1.6/1.2): means weighted by their inverse variances."""
    told = read_hammering(TUBA, 52.5, 1.2, 51.60)
    seen, sd = 0.032 / math.log(4 / 3), 0.003 / math.log(4 / 3)
    weight = (1 / sd**2) / (1 / sd**2 + 1 / 0.020**2)
    assert told.growth == pytest.approx(0.094 + weight * (seen - 0.094), abs=1e-9)
    assert (told.growth, told.growth_sd, seen) == pytest.approx((0.1076, 0.0092, 0.1112), abs=1e-4)
    assert told.around_mm == pytest.approx(52.01, abs=0.01), "from where it began, not on from the reading: 52.07"
    assert told.thickness_mm == pytest.approx(1.005, abs=0.001)
    assert told.stretch == pytest.approx(0.0093, abs=1e-4)


@given(st.floats(0.05, 0.2), st.floats(1.1, 1.5))
def test_the_more_it_grew_the_thicker_it_may_stay(growth: float, thickness: float) -> None:
    around = 50 * (1 + growth * math.log(1.6 / thickness))
    told, more = (read_hammering(TUBA, 52.5, thickness, read) for read in (around, around + 0.1))
    assert more.thickness_mm > told.thickness_mm and more.stretch < told.stretch
    assert min(0.094, growth) - 1e-9 <= told.growth <= max(0.094, growth) + 1e-9
    # Hammered to the thickness that is said it has the target's way round.
    assert 50 * (1 + told.growth * math.log(1.6 / told.thickness_mm)) == pytest.approx(52.5)


@pytest.mark.parametrize(("thickness", "around"), [(1.6, 50.0), (0.3, 51.0), (1.2, 60.0), (1.2, 45.0)])
def test_what_no_hammered_ring_reads_is_refused(thickness: float, around: float) -> None:
    with pytest.raises(Refusal):
        read_hammering(TUBA, 52.5, thickness, around)
