"""The plan: laws that hold for every ring, and one ring worked out by hand."""

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from pliant_coil.core.plan import Plan
from pliant_coil.core.planner import plan
from pliant_coil.core.recipe import read_ring
from pliant_coil.core.ring import make_ring
from pliant_coil.core.sizing import start_mm, wide_band_us
from tests.core.recipes import AMBER_MEADOW, can_be_made, makeable, with_main_wire


def planned(document: dict[str, Any], **changes: Any) -> Plan:
    return plan(read_ring({**document, **changes}), paths=True)


@given(makeable)
def test_start_then_finished_returns_the_target(document: dict[str, Any]) -> None:
    ring = make_ring(read_ring(document))
    start = start_mm(ring, ring.target_mm)
    assert ring.formed(start).finished_mm == pytest.approx(ring.target_mm, abs=0.005)


@given(makeable)
def test_what_comes_off_is_what_is_aimed_at_and_the_causes_add_up(document: dict[str, Any]) -> None:
    told = planned(document)
    assert told.finished.inside_diameter_mm == pytest.approx(told.aim.inside_diameter_mm, abs=0.005)
    assert told.aim.inside_diameter_mm - told.target.inside_diameter_mm == pytest.approx(told.wide_band_us * 0.8128, abs=1e-3)
    change = told.finished.inside_diameter_mm - told.start.inside_diameter_mm
    assert sum(c.mm for c in told.contributions) == pytest.approx(change, abs=1e-3)


@given(makeable, st.sampled_from([0.25, 1, 3]))
def test_a_larger_size_takes_more_wire(document: dict[str, Any], more: float) -> None:
    size = float(document["finger"]["size"].removeprefix("US "))
    larger = {**document, "finger": {"size": f"US {min(16, size + more)}"}}
    assert planned(larger).wires[0].net_mm > planned(document).wires[0].net_mm


@given(makeable)
def test_a_thicker_wire_takes_more_wire(document: dict[str, Any]) -> None:
    thicker = with_main_wire(document, "14 AWG")
    if can_be_made(thicker):
        assert planned(thicker).wires[0].net_mm > planned(document).wires[0].net_mm


@given(makeable, st.sampled_from(["1 mm", "5 mm", "1/8 in", "1/4 in"]), st.sampled_from(["hand", "pliers"]))
def test_the_piece_is_laid_out_from_end_to_end(document: dict[str, Any], tape: str, grip: str) -> None:
    told = planned(document, sizing={"tape": tape, "grip": grip})
    for wire in told.wires:
        at = 0.0
        for move in wire.moves:
            assert move.from_mm == pytest.approx(at, abs=2e-3)
            at = move.to_mm
        assert at == pytest.approx(wire.cut_mm, abs=2e-3)
        assert sum(m.length_mm for m in wire.moves if m.in_ring) == pytest.approx(wire.net_mm, abs=2e-2)
        assert all(0 <= mark.at_mm <= wire.cut_mm for mark in wire.marks)
        if wire.from_reel:
            continue
        step = {"1 mm": 1, "5 mm": 5, "1/8 in": 3.175, "1/4 in": 6.35}[tape]
        assert wire.cut_mm / step == pytest.approx(round(wire.cut_mm / step), abs=1e-3)
        assert [r.cut_mm for r in wire.risks] == sorted(r.cut_mm for r in wire.risks)


@given(makeable)
@settings(max_examples=40)
def test_the_path_in_space_is_as_long_as_the_move_says(document: dict[str, Any]) -> None:
    told = planned(document)
    assert told.drawing is not None
    lengths = {(w.role, w.piece, k): m.length_mm for w in told.wires for k, m in enumerate(w.moves)}
    for strand in told.drawing.strands:
        along = sum(math.dist(a, b) for a, b in zip(strand.points, strand.points[1:], strict=False))
        assert along == pytest.approx(lengths[strand.role, strand.piece, strand.move], rel=0.005, abs=0.01)


@given(makeable)
@settings(max_examples=40)
def test_one_wire_lies_in_one_line(document: dict[str, Any]) -> None:
    told = planned(document)
    assert told.drawing is not None
    for before, after in zip(told.drawing.strands, told.drawing.strands[1:], strict=False):
        # Between neighbours of one piece: sawn rings come apart, and a fold has no drawn way.
        if (before.role, before.piece, before.move + 1) != (after.role, after.piece, after.move):
            continue
        # Consecutive moves meet, but for the step from the band to the bundle it wraps.
        reach = told.band.width_mm + 2 * told.wires[0].width_mm if {"wrap", "bind"} & {before.kind, after.kind} else 1e-2
        assert math.dist(before.points[-1], after.points[0]) <= reach


def test_the_example_ring_by_hand() -> None:
    """Every length of the example, by arithmetic written out here."""
    told = planned(AMBER_MEADOW, sizing={"school": {"start": "17.8 mm"}})
    d = 0.127 * 92 ** ((36 - 20) / 39)
    radius = 17.8 / 2 + d / 2
    foot = math.asin((3.5 + d / 2) / radius)
    drop = (17.8 / 2 + d + 3.5) - radius * math.cos(foot)
    lock = 2 * math.hypot(2 * d + 2 * math.pi * d, d)
    by_hand = {
        "lock ×2": lock,
        "over": 2 * drop + math.pi * (3.5 + d / 2),
        "once round": radius * (2 * math.pi - 2 * foot),
        "shoulder": math.hypot(drop - d / 2, d / 2),
        "bend": math.pi / 4 * d,
        "bead": 7.0,
        "under": 2 * foot * radius,
    }
    for move in told.wires[0].moves:
        if move.in_ring:
            assert move.length_mm == pytest.approx(by_hand[move.label], abs=0.02), move.label
    net = 2 * sum(by_hand[k] for k in ("lock ×2", "once round", "shoulder", "bend")) + sum(by_hand[k] for k in ("over", "bead", "under"))
    assert told.wires[0].net_mm == pytest.approx(net, abs=0.1)
    assert told.wires[0].mass_g == pytest.approx(told.wires[0].cut_mm * math.pi * d * d / 4 * 8.94e-3, rel=1e-3)
    assert [(w.count, w.label) for w in told.wires[0].moves if w.kind == "wrap"] == [(2, "lock ×2")] * 2


def test_schools_say_what_they_give() -> None:
    told = planned(AMBER_MEADOW, sizing={"school": "one-up"})
    by_name = {school.school: school for school in told.schools}
    assert set(by_name) == {"geometry", "at-size", "half-up", "one-up", "two-up", "down"}
    assert told.start.us == "7 1/2" == by_name["one-up"].start_us
    assert told.finished.inside_diameter_mm == pytest.approx(by_name["one-up"].finished_mm, abs=1e-3)
    assert by_name["at-size"].off_by_us < -1
    assert "1.1 US sizes small" in by_name["at-size"].why


def test_a_free_band_springs_open_by_its_temper() -> None:
    def opened(temper: str) -> float:
        (told,) = planned({"finish": {"wraps_each_side": 0}, "wires": {"band": {"diameter": "1 mm", "temper": temper}}}).contributions
        return told.mm

    assert 0.2 < opened("soft") < opened("half-hard") < opened("hard")


def test_a_wide_band_is_given_room() -> None:
    assert [wide_band_us(w) for w in (3.9, 4.0, 5.9, 6.0)] == [0, 0.25, 0.25, 0.5]
    told = planned({"band": {"style": "turned", "turns": 3}, "wires": {"band": {"diameter": "0.8 mm"}}})
    assert told.band.width_mm == pytest.approx(4.8)
    assert told.aim.us == "7 1/4" and told.target.us == "7"


@pytest.mark.parametrize(
    ("changes", "code", "field"),
    [
        ({"head": {"style": "bead-lock", "bead": {"diameter_mm": 7, "hole_mm": 0.8}}}, "bead-hole-too-small", "head.bead.hole_mm"),
        (
            {"wires": {"band": {"diameter": "26 AWG"}}, "band": {"style": "turned", "winding": "one-way"}},
            "band-flimsy",
            "wires.band.diameter",
        ),
        ({"wires": {"band": {"diameter": "1.3 mm"}}, "head": {"style": "none"}}, "too-stiff-for-fingers", "wires.band.diameter"),
        (
            {"finger": {"size": "US 3"}, "head": {"style": "bead-lock", "bead": {"diameter_mm": 11, "hole_mm": 1.1}}},
            "bead-too-wide",
            "head.bead.diameter_mm",
        ),
        ({"finger": {"size": "US 16"}}, "start-off-mandrel", "finger.size"),
        ({"wires": {"band": {"diameter": "20 ga"}}}, "gauge-ambiguous", "wires.band.diameter"),
        ({"wires": {"band": {"metal": "plated-copper"}}}, "metal-care", "wires.band.metal"),
    ],
)
def test_warns_as_a_friend_would(changes: dict[str, Any], code: str, field: str) -> None:
    assert code not in {w.code for w in planned(AMBER_MEADOW).warnings}
    warned = {w.code: w.field for w in planned(AMBER_MEADOW, **changes).warnings}
    assert warned[code] == field


def test_steps_follow_the_order_of_the_trade() -> None:
    told = planned(AMBER_MEADOW)
    stages = list(dict.fromkeys(step.stage for step in told.steps))
    assert stages == ["measure", "test", "straighten", "cut", "mark", "thread", "form", "head", "read", "lock", "trim", "round", "record"]
    assert [s.count for s in told.steps if s.stage == "lock"] == [2, 2]
    assert all("glasses" in s.cautions[0] for s in told.steps if s.stage in ("cut", "trim"))
    assert "US 7 1/2" in next(s.text for s in told.steps if s.stage == "form")


def test_work_from_the_reel_is_not_rounded_to_the_tape() -> None:
    told = planned({"wires": {"band": {"diameter": "0.8 mm", "from_reel": True}}, "sizing": {"tape": "5 mm"}})
    assert told.wires[0].from_reel
    assert told.wires[0].cut_mm % 5 != pytest.approx(0)
    assert any("from the reel" in s.text for s in told.steps if s.stage == "cut")
