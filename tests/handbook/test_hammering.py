"""Hammered rings against what makers report, and the kept volume."""

import math

import pytest

from pliant_coil.core.hammering import opened_mm, widened_mm
from pliant_coil.core.planner import plan
from pliant_coil.core.recipe import read_ring

UK_LETTER = 1.25


@pytest.mark.parametrize(("after", "letters"), [(1.2, (1.0, 1.3)), (1.1, (1.3, 2.0))])
def test_a_k_opens_by_letters(after: float, letters: tuple[float, float]) -> None:
    """1.6 mm hammered to 1.2 opens a UK K by just over one letter, to 1.1 by up to two (common practice, no source)."""
    opened = math.pi * opened_mm(50 / math.pi, 1.6, after) / UK_LETTER
    assert letters[0] <= opened <= letters[1]


def test_volume_is_kept() -> None:
    area, before, after = math.pi * 1.6**2 / 4, 55.0, 56.3
    assert widened_mm(area, before, after, 1.2) * 1.2 * after == pytest.approx(area * before)


def test_five_rings_from_thirty_centimetres() -> None:
    """About 30 cm of 1.6 mm wire makes five rings at UK K (common practice, no source)."""
    told = plan(read_ring({"finger": {"size": "UK K"}, "band": {"style": "stacked", "rings": 5}}))
    assert 275 <= told.wires[0].net_mm <= 310
    assert told.start.inside_diameter_mm < told.aim.inside_diameter_mm
    assert {c.cause for c in told.contributions} == {"the saw cut closed up", "hammering flat opens it"}
    melting = [s.text for s in told.steps if s.stage == "solder"]
    assert "hard solder" in melting[0] and "medium solder" in melting[1]
    assert any("pickle" in c for s in told.steps for c in s.cautions)
