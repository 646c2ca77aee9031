"""A finished ring made another size: what each way gives, by arithmetic written out here."""

import math
from typing import Any

import pytest

from pliant_coil.core.making.planned import planned
from pliant_coil.core.making.resizing import Way, resize
from pliant_coil.core.making.ring import make_ring
from pliant_coil.core.making.solve import Solver
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.trade.sizes import read_size
from pliant_coil.core.words.figures import Thickness
from tests.core.recipes import AMBER_MEADOW


def ways(document: dict[str, Any], wanted: str) -> dict[str, Way]:
    return {way.code: way for way in resize(planned(read_ring(document)).solved, read_size(wanted).inside_diameter_mm)}


def test_stretching_only_makes_it_larger_as_far_as_its_wire_stands() -> None:
    """Half a size by hand and mallet, a whole one for soldered rings; half of soft copper's uniform elongation of 15 % (from memory)."""
    assert ways(AMBER_MEADOW, "US 7")["stretch"].reaches
    assert not ways(AMBER_MEADOW, "US 7 1/8")["stretch"].reaches
    assert not ways(AMBER_MEADOW, "US 6")["stretch"].reaches
    stack = {"finger": {"size": "US 7"}, "band": {"style": "stacked"}}
    assert ways(stack, "US 8")["stretch"].reaches and not ways(stack, "US 8 1/4")["stretch"].reaches
    assert "lock-again" not in ways(stack, "US 8")


BEAD_RING = {
    "finger": {"size": "US 6 1/2"},
    "band": {"style": "turned", "winding": "both-ways", "turns": 1},
    "head": {"style": "bead-lock", "bead": {"diameter_mm": 7, "hole_mm": 1.1}},
    "finish": {"wraps_each_side": 2},
}


def us(size: float) -> float:
    """Inside diameter of a US size (0.458 in + 0.032 in a size)."""
    return 25.4 * (0.458 + 0.032 * size)


def repaired(document: dict[str, Any], reads: float, wanted: float) -> dict[str, Way]:
    return {way.code: way for way in resize(planned(read_ring(document)).solved, us(wanted), us(reads))}


def test_a_bead_ring_that_came_off_half_a_size_large() -> None:
    """The design's own figures: a wrap of 0.4 at the back leaves 6.57, one of 0.3 leaves 6.68."""
    found = repaired(BEAD_RING, 7.0, 6.5)
    left = {code: (way.low_mm - us(0)) / 0.8128 for code, way in found.items() if code.startswith("back")}
    assert left == pytest.approx({"back-4": 6.57, "back-3": 6.68}, abs=0.012)
    assert found["back-4"].reaches and not found["stretch"].reaches
    assert found["lock-again"].reaches and "hammer" not in found


def test_a_bead_ring_that_came_off_small() -> None:
    """Strain ΔD/D: 1.56 % from 6.18 to 6.5. Soft copper stands it; steel gives under one per cent (from memory) and is refused."""
    found = repaired(BEAD_RING, 6.18, 6.5)
    strain = us(6.5) / us(6.18) - 1
    assert strain == pytest.approx(0.0156, abs=5e-5)
    assert found["stretch"].reaches and str(found["stretch"].says.figures).count("Share(share=0.0156") == 1
    assert not any(code.startswith("back") for code in found), "a wrap only makes it smaller"
    steel = {**BEAD_RING, "wires": {"band": {"metal": "stainless"}}}
    assert not repaired(steel, 6.18, 6.5)["stretch"].reaches
    assert repaired(BEAD_RING, 6.4, 6.5)["stretch"].low_mm == pytest.approx(us(6.4)), "it is reckoned from what it reads"


def test_a_hammered_back_grows_by_the_law_of_hammering() -> None:
    way = repaired(BEAD_RING, 6.3, 6.5)["hammer"]
    assert way.reaches
    # Half of the way round grows by 0.094 · ln(t₀/t): that is what is wanted in all.
    before, after = (figure.mm for name in ("before", "after") if isinstance(figure := way.says.figures[name], Thickness))
    grown = 0.094 * math.log(before / after)
    assert grown * math.pi * (us(6.5) + 0.8) / 2 == pytest.approx(math.pi * (us(6.5) - us(6.3)), rel=0.06)
    assert "hammer" not in repaired({**BEAD_RING, "wires": {"band": {"metal": "plated-copper"}}}, 6.3, 6.5)


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
