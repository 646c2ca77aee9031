"""Bands stretch by stretch, worked out apart from this code by independent arithmetic (common practice, no source, where makers' rings stand behind them)."""

import math

import pytest

from pliant_coil.core.mechanics.bending import force_at_yield_n, opening_at_yield_mm, released_diameter_mm
from pliant_coil.core.mechanics.braiding import Braid, angle_from_width_rad
from pliant_coil.core.mechanics.hulls import Bundle, row
from pliant_coil.core.mechanics.program import read_program
from pliant_coil.core.mechanics.twisting import Cord, Strip
from pliant_coil.core.mechanics.weave import Weave
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.words.figures import Number
from pliant_coil.core.words.say import Say
from tests.core.test_check_values import made_at
from tests.core.worked import taken

SOFT = {"metal": "copper", "temper": "soft"}


# Braided


def test_a_braid_by_its_lean_and_with_its_changes_of_layer() -> None:
    usual, flat = Braid(6, 0.6, math.radians(30)), angle_from_width_rad(6, 0.6, 2.3)
    assert flat is not None
    wide = Braid(6, 0.6, flat)
    assert (60 / math.cos(usual.angle_rad), 60 / math.cos(flat)) == pytest.approx((69.3, 76.7), abs=0.05)
    assert (60 * wide.wire_per_mm, wide.bight_mm) == pytest.approx((82.4, 0.96), abs=0.05)
    assert [round(60 / braid.bight_mm) for braid in (usual, wide)] == pytest.approx([50, 62], abs=0.6)
    eight, four = Braid(8, 0.5, math.radians(30)), Braid(4, 0.8, math.radians(30))
    assert (58 / math.cos(eight.angle_rad), 58 * eight.wire_per_mm, eight.width_mm) == pytest.approx((67.0, 70.0, 2.31), abs=0.06)
    assert (55 / math.cos(four.angle_rad), 55 * four.wire_per_mm, four.width_mm) == pytest.approx((63.5, 69.2, 1.85), abs=0.06)
    assert four.bight_mm == pytest.approx(1.6, abs=0.005)


@pytest.mark.parametrize(
    ("strands", "d", "form", "taper", "long", "longest"),
    [(6, 0.65, 18.5, 2.6, 57.0, 81.1), (4, 0.8, 17.0, 0.8, 54.8, 79.4), (8, 0.5, 18.0, 3.5, 53.7, 76.1)],
)
def test_braided_rings(strands: int, d: float, form: float, taper: float, long: float, longest: float) -> None:
    band = {"style": "braided", "strands": strands, "eye_mm": 2.0}
    made = made_at(form, {"wires": {"band": {"diameter": f"{d} mm", **SOFT}}, "band": band})
    assert (made.band.facts.taper_mm, made.band.facts.length_mm) == pytest.approx((taper, long), abs=0.05)
    assert max(piece.net_mm for piece in made.pieces) / 2 == pytest.approx(longest, abs=0.1)


@pytest.mark.parametrize(("strands", "moves"), [(4, 8), (5, 10), (6, 12), (8, 16)])
def test_strands_stand_as_at_the_start_after_the_rules_moves(strands: int, moves: int) -> None:
    # Left outermost over into the middle, then right outermost; by hand on a list.
    order = list(range(strands))
    for k in range(moves):
        half = strands // 2 if k % 2 == 0 else strands - 1 - strands // 2
        if k % 2 == 0:
            order.insert(half, order.pop(0))
        else:
            order.insert(strands - 1 - half, order.pop())
    assert order == list(range(strands))
    period = Braid(strands, 0.6, math.radians(30))
    assert period.period_mm / period.bight_mm * 2 == pytest.approx(2 * strands, abs=0.01)


# Bundled

SQUARES, BINDER = Profile("square", 0.65), Profile("half-round", 0.8)


@pytest.mark.parametrize(
    ("across", "stacked", "loop", "advanced"),
    [(1, 1, 3.67, 3.75), (2, 1, 4.97, 5.03), (3, 1, 6.27, 6.32), (4, 1, 7.57, 7.61), (4, 2, 8.87, 8.90), (8, 1, 12.77, 12.79)],
)
def test_coils_round_squares(across: int, stacked: int, loop: float, advanced: float) -> None:
    corners = tuple((x * 0.65 * across / 2, y * 0.65 * stacked / 2) for x in (-1, 1) for y in (-1, 1))
    bundle = Bundle(corners, 0.0)
    assert bundle.loop_mm(BINDER.centroid_mm) == pytest.approx(loop, abs=0.006)
    assert Wrap("coil", 1, bundle, BINDER, 9.0, 0.0).length_mm == pytest.approx(advanced, abs=0.006)
    if stacked == 1:
        assert row(SQUARES, across).loop_mm(BINDER.centroid_mm) == pytest.approx(loop, abs=0.006)


def test_a_bound_bundle_run_by_run() -> None:
    wires = {"base": {"diameter": "0.65 mm", "profile": "square"}, "bind": {"diameter": "0.8 mm", "profile": "half-round"}}
    band = {"style": "bundled", "runs": "9 middle, 4 all, 7 inner", "lap_mm": 9, "form_down_us": 0}
    made = made_at(17.0, {"wires": wires, "band": band})
    bound = made.band.facts
    assert (2 * math.pi * bound.middle_mm, made.band.width_mm) == pytest.approx((57.96, 3.4), abs=0.005)
    # What is left beside the bare place that the join needs, at the binder's height, in coils of its width.
    pattern = 2 * math.pi - 9 / bound.middle_mm
    assert pattern == pytest.approx(5.308, abs=0.001)
    assert pattern * bound.touch_mm / 0.8 == pytest.approx(59.05, abs=0.01)
    assert bound.rhythm.coils * 0.8 == pytest.approx(47.2)
    coils = {p.id: (p.move.count, p.length_mm) for piece in made.pieces if piece.role == "bind" for p in piece.moves if "join" not in p.id}
    inner = [mm for count, mm in coils.values() if count in (9, 7)]
    outer = [mm for count, mm in coils.values() if count in (4, 3)]
    assert (sum(inner), sum(outer)) == pytest.approx((186.1, 167.4), abs=0.1)


# Folded pair


@pytest.mark.parametrize(
    ("form", "d", "eye", "turns", "leg"), [(18.0, 0.8, 1.2, 1, 60.6), (17.0, 0.7, 1.0, 2, 112.6), (17.3, 0.8, 1.5, 1, 58.7)]
)
def test_a_leg_of_a_folded_pair_up_to_the_top(form: float, d: float, eye: float, turns: int, leg: float) -> None:
    document = {
        "wires": {"band": {"diameter": f"{d} mm", **SOFT}},
        "band": {"style": "folded-pair", "eye_mm": eye, "turns": turns},
        "head": {"style": "none"},
    }
    made = made_at(form, document)
    to_the_eye = taken(made, "bead-leg.round") + taken(made, "fold") / 2
    assert to_the_eye + taken(made, "other.through") == pytest.approx(leg, rel=0.006)


@pytest.mark.parametrize(("free", "d", "strength", "wound"), [(18.0, 0.7, 600, 15.69), (18.0, 0.8, 290, 16.94)])
def test_hard_wire_is_wound_smaller(free: float, d: float, strength: float, wound: float) -> None:
    # Stainless steel's modulus: value from memory.
    assert released_diameter_mm(wound, Profile("round", d), 193_000, strength) == pytest.approx(free, abs=0.01)


# Open


@pytest.mark.parametrize(
    ("form", "d", "overlap", "eye", "rolled", "reach", "angle", "share"),
    [
        (17.3, 1.0, 5, 1.5, 7.85, 10.35, 64.8, 0.91),
        (18.2, 1.0, 8, 2.0, 9.42, 13.42, 80.1, 0.99),
        (16.5, 0.8, 4, 1.2, 6.28, 8.28, 54.9, 0.82),
    ],
)
def test_where_an_open_band_is_cut(
    form: float, d: float, overlap: float, eye: float, rolled: float, reach: float, angle: float, share: float
) -> None:
    band = {"style": "open", "overlap_mm": overlap, "eye_mm": eye}
    made = made_at(form, {"wires": {"band": {"diameter": f"{d} mm"}}, "band": band})
    assert taken(made, "left.eye") == pytest.approx(rolled, abs=0.01)
    cut = overlap / 2 + rolled
    assert cut == pytest.approx(reach, abs=0.01)
    # Seen straight at the back: the end stands at the sine of its angle.
    radius = (form + d) / 2
    assert (math.degrees(cut / radius), math.sin(cut / radius)) == pytest.approx((angle, share), abs=0.06)


@pytest.mark.parametrize(
    ("d", "strength", "opens", "force"), [(1.0, 70, 0.47, 0.38), (1.0, 250, 1.69, 1.34), (0.8, 70, 0.58, 0.19), (0.8, 250, 2.06, 0.69)]
)
def test_how_far_an_open_band_gives(d: float, strength: float, opens: float, force: float) -> None:
    radius = (17.3 + d) / 2
    assert opening_at_yield_mm(radius, d, youngs_modulus_mpa=117_000, yield_mpa=strength) == pytest.approx(opens, abs=0.006)
    assert force_at_yield_n(radius, d, strength) == pytest.approx(force, abs=0.006)


def test_how_far_an_open_band_can_be_set() -> None:
    made = made_at(
        17.3,
        {"wires": {"band": {"diameter": "1 mm", **SOFT}}, "band": {"style": "open", "overlap_mm": 5, "eye_mm": 1.5, "overlap_min_mm": 2}},
    )
    low, high = made.ring.band.adjusts_mm(made.band) or (0.0, 0.0)
    assert math.pi * (high - 17.3) == pytest.approx(3.0, abs=0.02)
    assert math.pi * (17.3 - low) == pytest.approx(12.6, abs=0.1)
    assert ((high - 17.3) / 0.8128, (17.3 - low) / 0.8128) == pytest.approx((1.2, 4.9), abs=0.06)


# Stacked


@pytest.mark.parametrize(
    ("start", "d", "t", "closed", "opened", "wide", "straight"),
    [
        (16.5, 1.4, 1.05, 16.405, 16.85, 1.64, 1.69),
        (17.0, 1.6, 1.25, 16.905, 17.30, 1.82, 1.88),
        (16.0, 1.3, 1.0, 15.905, 16.30, 1.50, 1.54),
    ],
)
def test_sawn_rings(start: float, d: float, t: float, closed: float, opened: float, wide: float, straight: float) -> None:
    band = {"style": "stacked", "hammered_share": round(1 - t / d, 6), "rings": 4}
    ring = made_at(start, {"wires": {"band": {"diameter": f"{d} mm"}}, "band": band}).band.facts
    assert (ring.closed_mm, ring.opened_mm, ring.wide_mm) == pytest.approx((closed, opened, wide), abs=0.006)
    # A flat-sided oval of the same area: (w − t)t + πt²/4; straight wire has all of it in its width.
    assert (math.pi * d * d / 4 - math.pi * t * t / 4) / t + t == pytest.approx(straight, abs=0.006)
    assert ring.wide_mm < straight


def test_what_a_coil_for_four_rings_takes() -> None:
    band = {"style": "stacked", "rings": 4, "hammered_share": 0.25, "wound_down_us": 0}
    made = made_at(16.5, {"wires": {"band": {"diameter": "1.4 mm"}}, "band": band})
    turns = taken(made, ".1") + taken(made, ".2") + taken(made, ".3") + taken(made, "ring.4")
    assert (turns, taken(made, "lap"), taken(made, "start")) == pytest.approx((225.0, 14.1, 10.0), abs=0.4)
    smaller = {**band, "wound_down_us": round(1.6 / 0.8128, 6)}
    told = plan(read_ring({"finger": {"inside_circumference_mm": 55}, "wires": {"band": {"diameter": "1.4 mm"}}, "band": smaller}))
    coil = next(step for step in told.steps if step.id == "coil")
    assert isinstance(coil.text, Say)
    wound, start = coil.text.figures["turns"], told.start.inside_diameter_mm
    assert isinstance(wound, Number)
    # The same wire on a mandrel 1.6 mm smaller: at 16.5 it would be 4.67 turns.
    assert wound.value == pytest.approx(4.25 * (start + 1.4) / (start - 0.2), abs=0.01) == pytest.approx(4.67, abs=0.03)


# Twisted


def test_cords_and_strips_of_other_wires() -> None:
    assert (52 * Cord(2, 0.9, 5.5).wire_per_mm, Cord(3, 0.6, 6).thickness_mm) == pytest.approx((58.5, 1.29), abs=0.05)
    assert (Cord(2, 0.9, 5.5).tapped_growth(1.5), Cord(2, 0.8, 5).flattening(1.3)) == pytest.approx((0.0062, 0.0795), abs=2e-4)
    one, other = Strip(0.9, 0.6, 7), Strip(1.0, 0.7, 8)
    assert (one.strip_per_wire, other.width_mm, other.axis_share) == pytest.approx((0.989, 1.27, 0.958), abs=0.005)
    assert (one.mean_mm, other.mean_mm) == pytest.approx(((1.19 + 0.6) / 2, (1.27 + 0.7) / 2), abs=0.01)


# Woven


@pytest.mark.parametrize(
    ("program", "wires", "d", "loops", "advanced", "cycle"),
    [("A3 AB1", 2, 1.0, 20.39, 20.46, 1.6), ("A1 AB1 B1", 2, 0.9, 14.85, 14.90, 0.8), ("A2 AB2", 2, 0.8, 19.88, 19.95, 1.6)],
)
def test_a_cycle_of_loops(program: str, wires: int, d: float, loops: float, advanced: float, cycle: float) -> None:
    weave = Weave(read_program(program, wires, ""), wires, d, 0.4, 0.4, 1.0)
    one, two = math.pi * (d + 0.4), 2 * (d + 0.4) + math.pi * (d + 0.4)
    by_hand = sum(group.wraps * (two if group.last > group.first else one) for group in weave.groups)
    assert by_hand == pytest.approx(loops, abs=0.01)
    assert (weave.wire_per_cycle_mm, weave.cycle_mm) == pytest.approx((advanced, cycle), abs=0.01)


def test_three_bases_folded_and_eyes() -> None:
    folded = Weave(read_program("AB2 BC2", 3, ""), 3, 0.9, 0.4, 0.4, 1.0, True)
    assert 4 * (2 * 1.3 + math.pi * 1.3) == pytest.approx(26.74, abs=0.01)
    assert (folded.wire_per_cycle_mm, 30 * folded.wire_per_cycle_mm) == pytest.approx((26.78, 803.5), abs=0.2)
    band = {"style": "woven", "close": "eyes", "eye_mm": 1.2, "stem_mm": 0.4}
    made = made_at(18.0, {"wires": {"base": {"diameter": "0.9 mm"}, "weave": {"diameter": "0.4 mm"}}, "band": band})
    laid = made.band.facts
    assert laid.radius_mm == pytest.approx(9.85, abs=0.04), "whole repeats, to the nearest"
    assert 2 * math.pi * laid.radius_mm - laid.woven_mm == pytest.approx(6.8, abs=0.01)
    eye = taken(made, "first.eye", role="base") + taken(made, "first.stem", role="base")
    assert eye / 2 == pytest.approx(7.0, abs=0.01), "two bases, an eye on each"
    assert row(Profile("round", 0.9), 2).loop_mm(0.2) == pytest.approx(5.88, abs=0.01)


@pytest.mark.parametrize(("scrap", "bent"), [(0.4, 18.4), (1.0, 17.8)])
def test_guides(scrap: float, bent: float) -> None:
    document = {
        "wires": {"base": {"diameter": "1 mm"}, "weave": {"diameter": "0.4 mm"}},
        "band": {"style": "woven", "guide_wire_mm": scrap},
    }
    repeats = made_at(17.0, document).band.repeats
    assert repeats is not None and repeats.guide is not None
    assert repeats.guide.bent_at_mm == pytest.approx(bent)
