"""Laws of the single band styles, each by a road of its own."""

import math
from typing import Any

import pytest
from scipy.spatial.distance import cdist

from pliant_coil.core.braiding import Braid
from pliant_coil.core.plan import Plan
from pliant_coil.core.planner import plan
from pliant_coil.core.recipe import read_ring
from pliant_coil.core.refusal import Refusal
from tests.core.polylines import closest, dense


def planned(band: dict[str, Any], **rest: Any) -> Plan:
    return plan(read_ring({"band": band, **rest}), paths=True)


def strands(told: Plan, *kinds: str) -> list[list[list[float]]]:
    assert told.drawing is not None
    return [s.points for s in told.drawing.strands if s.kind in kinds]


def test_crossed_strands_pass_each_other_a_wire_apart() -> None:
    told = planned({"style": "crossed"}, wires={"band": {"diameter": "0.8 mm"}})
    under, over = strands(told, "crossing")
    assert closest(under, over) >= 0.9 * 0.8
    assert max(math.hypot(x, y) for x, y, _ in over) - max(math.hypot(x, y) for x, y, _ in under) == pytest.approx(0.8, abs=0.01)
    (crossing,) = (c for c in told.contributions if "crossing" in c.cause)
    assert -0.05 < crossing.us_sizes < 0, "makers of crossed bands start at the size: common practice, no source"
    plain = planned({"style": "turned"}, wires={"band": {"diameter": "0.8 mm"}})
    assert 0 < told.wires[0].net_mm - plain.wires[0].net_mm < 4


def test_an_open_band_adjusts_by_its_overlap() -> None:
    told = planned({"style": "open", "overlap_mm": 12, "eye_mm": 2}, finger={"size": "US 7"}, wires={"band": {"diameter": "1 mm"}})
    radius = told.start.inside_diameter_mm / 2 + 0.5
    by_hand = 2 * math.pi * radius + 12 + 2 * math.pi * 3.0
    assert told.wires[0].net_mm == pytest.approx(by_hand, abs=0.15)
    assert any("3.9 US sizes up" in (s.check or "") for s in told.steps)
    assert [c.cause for c in told.contributions] == ["springs open, nothing holds it"]
    assert told.contributions[0].mm > 0


@pytest.mark.parametrize(("wires", "circle"), [(2, 1.0), (3, 1 / math.sin(math.pi / 3)), (4, math.sqrt(2))])
def test_twisted_wires_are_longer_by_their_helix(wires: int, circle: float) -> None:
    told = planned({"style": "twisted", "wires": wires, "lay_mm": 9, "claw_mm": 10, "top_gap_mm": 6}, wires={"band": {"diameter": "1 mm"}})
    assert len(told.wires) == wires == told.wires[0].pieces
    radius = told.start.inside_diameter_mm / 2 + (circle + 1) / 2
    band = 2 * math.pi * radius - 6
    expected = band * math.sqrt(1 + (math.pi * circle / 9) ** 2) + 20
    # Single strands differ by where they lie when the twist ends; together they don't.
    assert sum(wire.net_mm for wire in told.wires) / wires == pytest.approx(expected, rel=1e-3)
    for k, one in enumerate(strands(told, "twist")):
        for other in strands(told, "twist")[:k]:
            assert closest(one, other) >= 0.9


@pytest.mark.parametrize(
    ("band", "rest", "field"),
    [
        ({"style": "twisted", "wires": 4, "lay_mm": 2}, {}, "band.lay_mm"),
        ({"style": "twisted"}, {"wires": {"band": {"diameter": "1 mm", "profile": "square"}}}, "wires.band.profile"),
        ({"style": "twisted", "top_gap_mm": 20}, {"finger": {"size": "US 3"}}, "band.top_gap_mm"),
        ({"style": "crossed"}, {"finish": {"wraps_each_side": 0}}, "finish.wraps_each_side"),
        ({"style": "open"}, {"head": {"style": "bead-lock"}}, "head.style"),
        ({"style": "open", "eye_mm": 0.8}, {"wires": {"band": {"diameter": "3 mm"}}}, "band.eye_mm"),
    ],
)
def test_bands_that_cant_be_made_are_refused(band: dict[str, Any], rest: dict[str, Any], field: str) -> None:
    with pytest.raises(Refusal) as refused:
        planned(band, **rest)
    assert [f.field for f in refused.value.faults] == [field]


@pytest.mark.parametrize("strands", [3, 4, 6, 8])
def test_braided_strands_clear_each_other(strands: int) -> None:
    told = planned({"style": "braided", "strands": strands}, wires={"band": {"diameter": "0.6 mm"}})
    assert told.drawing is not None
    paths = [dense(s.points) for s in told.drawing.strands if s.kind == "strand"]
    assert len(paths) == strands
    for k, one in enumerate(paths):
        for other in paths[:k]:
            assert cdist(one, other).min() >= 0.9 * 0.6


def test_a_braid_follows_what_its_maker_measures() -> None:
    usual = planned({"style": "braided"})
    reckoned = 20 * Braid(6, 0.6, math.radians(30)).wire_per_mm
    more = planned({"style": "braided", "first_20_took_mm": round(1.1 * reckoned, 2)})
    assert more.wires[0].net_mm > 1.05 * usual.wires[0].net_mm
    wider = planned({"style": "braided", "width_mm": 1.2 * usual.band.width_mm})
    assert wider.band.width_mm == pytest.approx(1.2 * usual.band.width_mm, rel=1e-3)
    assert wider.wires[0].net_mm > usual.wires[0].net_mm
    assert [w.marks[0].label for w in usual.wires] == ["fold"] * 3


def test_six_strands_go_over_two_and_over_three() -> None:
    """The pattern of a six-strand flat braid: common practice, no source."""
    braid = Braid(6, 0.6, math.radians(30))
    over = [braid.across(m / 12)[1] > 0 for m in range(1, 12) if m != 6]
    assert over == [True, True, False, False, False, True, True, True, False, False]
    assert "over 2 from one side, over 3 from the other" in "".join(s.text for s in planned({"style": "braided"}).steps)


@pytest.mark.parametrize("angle", [20, 30, 45])
def test_a_strand_is_longer_than_its_flat_zigzag(angle: int) -> None:
    """1/cos α is the flat zigzag (published braid geometry); going over and under only adds to it, by less than a third."""
    braid = Braid(6, 0.6, math.radians(angle))
    flat = 1 / math.cos(math.radians(angle))
    assert flat < braid.wire_per_mm < 1.33 * flat


@pytest.mark.parametrize(
    ("band", "field"),
    [
        ({"style": "braided", "strands": 5}, "band.strands"),
        ({"style": "braided", "width_mm": 1.0}, "band.width_mm"),
        ({"style": "braided", "first_20_took_mm": 60}, "band.first_20_took_mm"),
    ],
)
def test_braids_that_cant_be_made_are_refused(band: dict[str, Any], field: str) -> None:
    with pytest.raises(Refusal) as refused:
        planned(band)
    assert [f.field for f in refused.value.faults] == [field]


@pytest.mark.parametrize(("ends", "each"), [("loop", math.pi * 2.8), ("scroll", None)])
def test_ends_that_show_take_wire_on_both_sides(ends: str, each: float | None) -> None:
    rest: dict[str, Any] = {"wires": {"band": {"diameter": "0.8 mm"}}, "sizing": {"school": {"start": "18 mm"}}}
    hidden = planned({"style": "turned"}, **rest)
    shown = planned({"style": "turned"}, finish={"ends": ends}, **rest)
    more = (shown.wires[0].net_mm - hidden.wires[0].net_mm) / 2
    if each is None:
        # The spiral by small steps: 1.5 turns from 0.48 mm, 0.92 mm wider each.
        turns = [1.5 * (k + 0.5) / 3000 for k in range(3000)]
        each = sum(math.hypot((0.48 + 0.92 * t) * 2 * math.pi, 0.92) * 1.5 / 3000 for t in turns)
    assert more == pytest.approx(each, rel=1e-3)
    assert shown.finished.inside_diameter_mm == hidden.finished.inside_diameter_mm
    assert any(ends in s.text for s in shown.steps if s.stage == "trim")


def test_the_short_tail_binds_early_when_asked() -> None:
    told = planned({"style": "turned", "winding": "one-way", "turns": 3}, finish={"short_tail": "early"})
    assert any("once the first turn lies" in s.text for s in told.steps if s.stage == "lock")


def test_a_twist_may_be_given_by_its_turns() -> None:
    rest: dict[str, Any] = {"wires": {"band": {"diameter": "1 mm"}}, "finger": {"size": "US 8"}}
    told = planned({"style": "twisted", "full_turns": 8, "claw_mm": 0}, **rest)
    (count,) = {m.count for w in told.wires for m in w.moves if m.kind == "twist"}
    assert count == 8
    along = 2 * math.pi * (told.start.inside_diameter_mm / 2 + 1) - 8
    # Two wires, each on a helix of the wire's own radius.
    assert sum(w.net_mm for w in told.wires) / 2 == pytest.approx(math.hypot(along, 8 * math.pi * 1.0), rel=1e-3)
    with pytest.raises(Refusal, match=r"band\.full_turns"):
        planned({"style": "twisted", "full_turns": 60}, **rest)


def test_a_stack_says_how_far_it_is_soldered_and_how_thin_it_gets() -> None:
    told = planned({"style": "stacked", "soldered_deg": 110}, finger={"size": "UK K"}, wires={"band": {"diameter": "1.6 mm"}})
    words = " ".join(s.text for s in told.steps)
    arc = math.radians(110) * (told.finished.inside_diameter_mm + told.band.thickness_mm) / 2
    assert f"over {arc:.0f} mm, 110° round the back" in words
    assert "from 1.60 to 1.20 mm seen from the side" in words
    assert told.band.width_mm == pytest.approx(5 * 1.2)


@pytest.mark.parametrize(
    ("wire", "said"),
    [
        ({"diameter": "0.8 mm"}, "flatten it a little"),
        ({"diameter": "1.2 mm"}, "with a soft mallet"),
        ({"diameter": "0.8 mm", "temper": "half-hard"}, "Tap it lightly"),
    ],
)
def test_open_bands_are_hardened_by_their_wire(wire: dict[str, Any], said: str) -> None:
    told = planned({"style": "open"}, wires={"band": wire})
    assert said in next(s.text for s in told.steps if s.stage == "harden")
