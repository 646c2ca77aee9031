"""Hammered rings against what makers report, and the kept volume."""

import math

import pytest

from pliant_coil.core.mechanics.hammering import opened_mm, widened_mm
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring

UK_LETTER = 1.25


@pytest.mark.parametrize(("after", "letters"), [(1.2, (1.0, 1.3)), (1.1, (1.3, 2.0))])
def test_a_k_opens_by_letters(after: float, letters: tuple[float, float]) -> None:
    """1.6 mm hammered to 1.2 opens a UK K by just over one letter, to 1.1 by up to two (common practice, no source)."""
    opened = math.pi * opened_mm(50 / math.pi, 1.6, after) / UK_LETTER
    assert letters[0] <= opened <= letters[1]


def test_volume_is_kept() -> None:
    area, before, after = math.pi * 1.6**2 / 4, 55.0, 56.3
    assert widened_mm(area, before, after, 1.2) * 1.2 * after == pytest.approx(area * before)


def test_five_rings_of_one_wire() -> None:
    """Five rings of 1.6 mm wire with their kerfs: common practice, no source."""
    document = {"version": 1, "finger": {"size": "UK K"}, "band": {"style": "stacked", "rings": 5}}
    told = plan(read_ring(document))
    in_rings = sum(m.length_mm for m in told.wires[0].moves if m.fate in ("ring", "kerf"))
    assert in_rings == pytest.approx(275.1, rel=0.03)
    assert told.start.inside_diameter_mm < told.aim.inside_diameter_mm
    assert {c.code for c in told.contributions} == {"saw-closed", "hammered-open"}
