"""Hammered rings against what makers report, and the kept volume."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.making.ring import make_ring
from pliant_coil.core.mechanics.hammering import lengthened
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.bands.stacked import Stacked

UK_LETTER = 1.25


@pytest.mark.parametrize(("after", "letters"), [(1.2, (1.0, 1.3)), (1.1, (1.3, 2.0))])
def test_a_k_opens_by_letters(after: float, letters: tuple[float, float]) -> None:
    """1.6 mm hammered to 1.2 opens a UK K by just over one letter, to 1.1 by up to two (common practice, no source)."""
    opened = 50 * (lengthened(1.6, after) - 1) / UK_LETTER
    assert letters[0] <= opened <= letters[1]


@given(st.floats(1.0, 2.5), st.floats(0.05, 0.45), st.floats(14.0, 22.0))
def test_volume_is_kept(d: float, share: float, coiled: float) -> None:
    """A flat-sided section (a strip between two half rounds) times the new middle line is the round wire times the old one."""
    band = Stacked(style="stacked", hammered_share=share)
    ring_file = read_ring({"band": {"style": "stacked"}, "wires": {"band": {"diameter": f"{d:.4f} mm"}}})
    wire = make_ring(ring_file).wires["band"]
    ring = band.through(coiled, wire)
    section = math.pi * ring.thick_mm**2 / 4 + (ring.wide_mm - ring.thick_mm) * ring.thick_mm
    assert section * (ring.opened_mm + ring.wide_mm) == pytest.approx(
        math.pi * wire.size_mm**2 / 4 * (ring.closed_mm + wire.size_mm), rel=1e-9
    )


def test_five_rings_of_one_wire() -> None:
    """Five rings of 1.6 mm wire with their kerfs: common practice, no source."""
    document = {"version": 1, "finger": {"size": "UK K"}, "band": {"style": "stacked", "rings": 5}}
    told = plan(read_ring(document))
    in_rings = sum(m.length_mm for m in told.wires[0].moves if m.fate in ("ring", "kerf"))
    assert in_rings == pytest.approx(275.1, rel=0.03)
    assert told.start.inside_diameter_mm < told.aim.inside_diameter_mm
    assert {c.code for c in told.contributions} == {"saw-closed", "hammered-open"}
