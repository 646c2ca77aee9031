"""Circles in a circle against the published exact ratios (R. L. Graham et al., Discrete Mathematics 181, 1998)."""

import math

import pytest

from pliant_coil.core.mechanics.packing import ENCLOSING_RATIO, hole_needed_mm, passes_that_fit
from pliant_coil.core.words.refusal import Refusal

EXACT = (1, 2, 1 + 2 / math.sqrt(3), 1 + math.sqrt(2), 1 + math.sqrt(2 * (1 + 1 / math.sqrt(5))), 3, 3)


def test_ratios() -> None:
    assert pytest.approx(EXACT, abs=1e-4) == ENCLOSING_RATIO


@pytest.mark.parametrize("passes", range(1, 8))
def test_hole_and_count_agree(passes: int) -> None:
    hole = hole_needed_mm(0.8, passes)
    assert passes_that_fit(0.8, hole) == (7 if passes == 6 else passes)
    assert passes_that_fit(0.8, hole - 0.01) < passes or passes == 7


@pytest.mark.parametrize("passes", [0, 8])
def test_more_than_seven_is_refused(passes: int) -> None:
    with pytest.raises(Refusal):
        hole_needed_mm(0.8, passes)
