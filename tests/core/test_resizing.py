"""A finished ring made another size: what each way gives, by arithmetic written out here."""

import math
from typing import Any

import pytest

from pliant_coil.core.making.resizing import Way, resize
from pliant_coil.core.making.ring import make_ring
from pliant_coil.core.making.solve import Solver
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.trade.sizes import read_size
from tests.core.recipes import AMBER_MEADOW


def ways(document: dict[str, Any], wanted: str) -> dict[str, Way]:
    return {way.code: way for way in resize(make_ring(read_ring(document)), read_size(wanted).inside_diameter_mm)}


def test_stretching_only_makes_it_larger_and_only_a_little() -> None:
    """A quarter size for locked rings, a whole one for soldered ones (common practice, no source)."""
    assert ways(AMBER_MEADOW, "US 6 3/4")["stretch"].reaches
    assert not ways(AMBER_MEADOW, "US 7")["stretch"].reaches
    assert not ways(AMBER_MEADOW, "US 6")["stretch"].reaches
    stack = {"finger": {"size": "US 7"}, "band": {"style": "stacked"}}
    assert ways(stack, "US 8")["stretch"].reaches and not ways(stack, "US 8 1/4")["stretch"].reaches
    assert "lock-again" not in ways(stack, "US 8")


@pytest.mark.parametrize("wanted", ["US 6", "US 7", "US 9"])
def test_locked_again_it_takes_no_more_wire_than_is_in_it(wanted: str) -> None:
    there = plan(read_ring(AMBER_MEADOW)).wires[0].net_mm
    way = ways(AMBER_MEADOW, wanted)["lock-again"]
    needs = {
        locks: plan(read_ring({**AMBER_MEADOW, "finger": {"size": wanted}, "finish": {"wraps_each_side": locks}})).wires[0].net_mm
        for locks in (1, 2)
    }
    assert way.reaches == (needs[1] <= there + 0.02)
    if not way.reaches:
        assert f"{needs[1] - there:.1f}".rstrip("0").rstrip(".") in str(way.says.figures["missing"])


def test_an_open_band_is_worn_as_far_as_its_overlap_goes() -> None:
    """Opened until two millimetres still lie side by side: (12 − 2)/π larger across."""
    document = {"finger": {"size": "US 7"}, "band": {"style": "open", "overlap_mm": 12}}
    now = plan(read_ring(document)).finished.inside_diameter_mm
    way = ways(document, "US 8")["overlap"]
    assert way.high_mm - now == pytest.approx((12 - 2) / math.pi, abs=1e-3)
    assert way.reaches and "stretch" not in ways(document, "US 8")
    assert not ways(document, "US 13")["overlap"].reaches


def test_turns_that_nothing_ties_slide_as_far_as_their_ends_reach() -> None:
    document = {"band": {"style": "turned", "turns": 2}, "finish": {"wraps_each_side": 0}, "head": {"style": "none"}}
    ring = make_ring(read_ring(document))
    now = Solver(ring).made(Solver(ring).solved(ring.aim_mm)[0].form).finished_mm
    found = ways(document, "US 7")["slide"]
    assert found.low_mm < now < found.high_mm
    tied = {**document, "finish": {"wraps_each_side": 2}}
    assert "slide" not in ways(tied, "US 7")
