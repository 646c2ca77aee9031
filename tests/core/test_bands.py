"""Laws of the single band styles, each by a road of its own."""

import math
from typing import Any

import pytest

from pliant_coil.core.mechanics.braiding import Braid
from pliant_coil.core.plan.build import plan
from pliant_coil.core.plan.model import Plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.trade.sizes import US_STEP_MM
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader, write
from tests.core.polylines import closest


def planned(band: dict[str, Any], **rest: Any) -> Plan:
    return plan(read_ring({"band": band, **rest}), paths=True)


def strands(told: Plan, *kinds: str) -> list[list[list[float]]]:
    assert told.drawing is not None
    return [s.points for s in told.drawing.strands if s.kind in kinds]


def net(told: Plan, role: str) -> float:
    return sum(w.net_mm for w in told.wires if w.role == role)


def test_crossed_strands_pass_each_other_a_wire_apart() -> None:
    told = planned({"style": "crossed"}, wires={"band": {"diameter": "0.8 mm"}})
    under, over = strands(told, "crossing")
    assert closest(under, over) >= 0.9 * 0.8
    assert max(math.hypot(x, y) for x, y, _ in over) - max(math.hypot(x, y) for x, y, _ in under) == pytest.approx(0.8, abs=0.01)
    (crossing,) = (c for c in told.contributions if "crossing" in c.code)
    assert -0.05 < crossing.us_sizes < 0, "makers of crossed bands start at the size: common practice, no source"
    plain = planned({"style": "turned"}, wires={"band": {"diameter": "0.8 mm"}})
    assert 0 < told.wires[0].net_mm - plain.wires[0].net_mm < 5


@pytest.mark.parametrize(("wires", "circle"), [(2, 1.0), (3, 1 / math.sin(math.pi / 3)), (4, math.sqrt(2))])
def test_twisted_wires_are_longer_by_their_helix(wires: int, circle: float) -> None:
    band = {"style": "twisted", "wires": wires, "lay_mm": 9, "claw_mm": 10, "head_gap_mm": 6, "tapped_share": 0}
    told = planned(band, wires={"band": {"diameter": "1 mm"}})
    assert len(told.wires) == wires == told.wires[0].pieces
    radius = told.start.inside_diameter_mm / 2 + (circle + 1) / 2
    expected = (2 * math.pi * radius - 6) * math.sqrt(1 + (math.pi * circle / 9) ** 2) + 20
    assert net(told, "band") / wires == pytest.approx(expected, rel=1e-3)
    for k, one in enumerate(strands(told, "twist")):
        for other in strands(told, "twist")[:k]:
            assert closest(one, other) >= 0.9


def test_a_cord_is_set_by_tapping_it_on_the_mandrel() -> None:
    told = planned({"style": "twisted"})
    assert not told.contributions
    assert told.start.us == told.finished.us
    (form,) = (s for s in told.steps if s.stage == "form")
    assert "tap it all round with a soft mallet" in write(form.text, Reader())


def test_a_twist_may_be_given_by_its_turns() -> None:
    rest: dict[str, Any] = {"wires": {"band": {"diameter": "1 mm"}}, "finger": {"size": "US 8"}}
    told = planned({"style": "twisted", "full_turns": 8, "claw_mm": 0, "tapped_share": 0}, **rest)
    (count,) = {m.count for w in told.wires for m in w.moves if m.kind == "twist"}
    assert count == 8
    along = 2 * math.pi * (told.start.inside_diameter_mm / 2 + 1) - 8
    # Two wires, each on a helix of the wire's own radius.
    assert net(told, "band") / 2 == pytest.approx(math.hypot(along, 8 * math.pi * 1.0), rel=1e-3)
    with pytest.raises(Refusal, match=r"band\.full_turns"):
        planned({"style": "twisted", "full_turns": 60}, **rest)


@pytest.mark.parametrize(("count", "rule"), [(4, (1, 2)), (6, (2, 3)), (8, (3, 4))])
def test_strands_go_over_and_under_by_the_rule(count: int, rule: tuple[int, int]) -> None:
    """From one side over n/2 − 1, from the other over n/2 (common practice, no source): by counting crossings of the drawn strands."""
    braid = Braid(count, 0.6, math.radians(30))
    over, under = [0, 0], [0, 0]
    for side, first in ((0, 0.0), (1, 0.5)):
        for other in range(1, count):
            # Strands a share of the period apart meet where the one that goes back has come as far as this one.
            at = first + 0.5 - other / count / 2
            (z, mine), (z_other, theirs) = braid.across(at), braid.across(at + other / count)
            assert z == pytest.approx(z_other, abs=1e-9)
            if mine > theirs:
                over[side] += 1
            else:
                under[side] += 1
    assert sorted(over) == sorted(rule)
    assert [o + u for o, u in zip(over, under, strict=True)] == [count - 1] * 2


def test_a_braid_follows_what_its_maker_measures() -> None:
    usual = planned({"style": "braided"})
    reckoned = 20 * Braid(6, 0.6, math.radians(30)).wire_per_mm
    more = planned({"style": "braided", "first_20_took_mm": round(1.1 * reckoned, 2)})
    assert net(more, "band") > 1.04 * net(usual, "band")
    wider = planned({"style": "braided", "width_mm": 1.2 * usual.band.width_mm})
    assert wider.band.width_mm == pytest.approx(1.2 * usual.band.width_mm, rel=1e-3)
    assert net(wider, "band") > net(usual, "band")
    assert len({w.cut_mm for w in usual.wires}) == 1, "nobody knows beforehand which strands remain"


@pytest.mark.parametrize("angle", [20, 30, 45])
def test_a_strand_is_longer_than_its_flat_zigzag(angle: int) -> None:
    """1/cos α is the flat zigzag (published braid geometry); going over and under only adds to it, by less than a third."""
    flat = 1 / math.cos(math.radians(angle))
    assert flat < Braid(6, 0.6, math.radians(angle)).wire_per_mm < 1.33 * flat


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


def test_a_stack_is_sawn_small_and_opened_by_the_hammer() -> None:
    """1.6 mm hammered by a quarter opens a ring by 0.094 · ln(4/3) of its circumference; volume goes into width and growth."""
    told = planned({"style": "stacked", "rings": 5}, finger={"size": "UK K"}, wires={"band": {"diameter": "1.6 mm"}})
    assert told.finished.inside_diameter_mm == pytest.approx(told.target.inside_diameter_mm, abs=0.005)
    hammered = next(c for c in told.contributions if "hammer" in c.code)
    assert hammered.us_sizes == pytest.approx(0.094 * math.log(4 / 3) * 15.9 / US_STEP_MM, rel=0.15)
    flat_sided = (math.pi * 1.6**2 / 4 - math.pi * 1.2**2 / 4) / 1.2 + 1.2
    assert 0.93 * flat_sided < told.band.thickness_mm < flat_sided, "the bulged section's width, less what the growth takes"


@pytest.mark.parametrize("room", [None, "none", "quarter", "half", {"us_sizes": 0.3}])
def test_room_for_a_wide_band_is_only_what_its_maker_chose(room: object) -> None:
    sizing = {} if room is None else {"sizing": {"room_for_width": room}}
    told = planned({"style": "woven", "base_wires": 3}, **sizing)
    asked = {"quarter": 0.25, "half": 0.5}.get(room, 0.0) if isinstance(room, str) else 0.3 if room else 0.0
    assert told.finished.inside_diameter_mm - told.target.inside_diameter_mm == pytest.approx(asked * US_STEP_MM, abs=0.005)


@pytest.mark.parametrize(
    ("band", "rest", "field"),
    [
        ({"style": "twisted", "wires": 4, "lay_mm": 2}, {}, "band.lay_mm"),
        ({"style": "twisted"}, {"wires": {"band": {"diameter": "1 mm", "profile": "square"}}}, "wires.band.profile"),
        ({"style": "open"}, {"head": {"style": "bead-lock"}}, "head.style"),
        ({"style": "braided", "width_mm": 1.0}, {}, "band.width_mm"),
        ({"style": "braided", "first_20_took_mm": 60}, {}, "band.first_20_took_mm"),
        ({"style": "woven"}, {"wires": {"weave": {"diameter": "1 mm"}}}, "wires.weave.diameter"),
        ({"style": "woven"}, {"wires": {"base": {"diameter": "1 mm", "profile": "square"}}}, "wires.base.profile"),
        ({"style": "bundled", "runs": "5 outer"}, {}, "band.runs"),
        ({"style": "bundled", "runs": "5 all, 99999999 inner"}, {}, "band.runs"),
        ({"style": "stacked"}, {"wires": {"band": {"diameter": "1.6 mm", "metal": "stainless"}}}, "wires.band.metal"),
        ({"style": "turned", "gather": "short-tail"}, {}, "band.gather"),
        ({"style": "turned", "worked": {"lay_mm": 2}}, {}, "band.worked.lay_mm"),
    ],
)
def test_bands_that_cant_be_made_are_refused(band: dict[str, Any], rest: dict[str, Any], field: str) -> None:
    with pytest.raises(Refusal) as refused:
        planned(band, **rest)
    assert [f.field for f in refused.value.faults] == [field]


@pytest.mark.parametrize(
    ("wires", "band", "warned"),
    [
        # 0.8 wrapped round 0.8: the outer fibre is stretched by 0.4/0.8. Soft copper stands it, half-hard wire doesn't (value from memory).
        ({"band": {"diameter": "0.8 mm"}}, {"style": "turned"}, []),
        ({"band": {"diameter": "0.8 mm", "temper": "half-hard"}}, {"style": "turned"}, ["wires.band.temper"]),
        # An eye of 3 mm: 0.5/2.0.
        ({"band": {"diameter": "1 mm", "temper": "half-hard"}}, {"style": "open", "eye_mm": 3, "overlap_mm": 12}, []),
        ({"band": {"diameter": "1 mm", "temper": "half-hard"}}, {"style": "open", "eye_mm": 1.5}, ["wires.band.temper"]),
    ],
)
def test_wire_that_is_bent_too_sharply_is_told(wires: dict[str, Any], band: dict[str, Any], warned: list[str]) -> None:
    told = planned(band, wires=wires)
    assert [w.field for w in told.warnings if w.code == "bent-too-sharply"] == warned


@pytest.mark.parametrize(("eye", "wire"), [(1.5, "0.8 mm"), (1.2, "0.9 mm"), (2.0, "1 mm")])
def test_eyes_that_close_a_weave_lie_level_and_touch_in_the_top(eye: float, wire: str) -> None:
    """Looked at on the drawing: the middles of facing eyes, and of those beside each other, stand an eye's outside apart."""
    document = {
        "finger": {"size": "US 8"},
        "wires": {"base": {"diameter": wire}},
        "band": {"style": "woven", "close": "eyes", "eye_mm": eye},
        "head": {"style": "spiked-disc"},
    }
    told = plan(read_ring(document), paths=True)
    assert told.drawing is not None
    d = next(w.width_mm for w in told.wires if w.role == "base")
    middles = []
    for strand in (s for s in told.drawing.strands if s.kind == "eye"):
        points = strand.points[:-1] if math.dist(strand.points[0], strand.points[-1]) < 0.1 else strand.points
        middles.append([sum(p[k] for p in points) / len(points) for k in range(3)])
    assert len(middles) == 4
    outside = eye + 2 * d
    for x, y, z in middles:
        facing = min((other for other in middles if other[0] * x < 0), key=lambda other: math.dist(other, (x, y, z)))
        beside = min((other for other in middles if other[2] * z < 0), key=lambda other: math.dist(other, (x, y, z)))
        # Bent round the finger a chord is a little shorter than the arc.
        assert math.dist(facing, (x, y, z)) == pytest.approx(outside, abs=0.15)
        assert math.dist(beside, (x, y, z)) == pytest.approx(outside, abs=0.15)
        assert math.hypot(x, y) == pytest.approx(told.finished.inside_diameter_mm / 2 + 0.4 + d / 2, abs=0.35)
