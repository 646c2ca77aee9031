"""Heads stretch by stretch, worked out apart from this code by independent arithmetic (common practice, no source, where makers' rings stand behind them)."""

import math
from itertools import pairwise

import pytest

from pliant_coil.core.mechanics.hulls import row
from pliant_coil.core.moves.bead_row import BeadRow, Strung
from pliant_coil.core.moves.coil import CoilOfCoil
from pliant_coil.core.moves.loop import Scroll
from pliant_coil.core.moves.loop_row import LoopRow
from pliant_coil.core.moves.nest import Nest, StandingBead
from pliant_coil.core.moves.seat import Seat
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.trade.profiles import Profile
from tests.core.test_check_values import made_at, wound
from tests.core.worked import taken, through

# Bead lock


@pytest.mark.parametrize(
    ("form", "d", "turns", "bead", "foot", "shoulder", "seat_and_arcs", "past", "wraps", "lock"),
    [
        (17.5, 0.8, 1, 7.0, 0.440, 0.591, 14.8 + 2 * 48.1, 11.9, 3, 20.0),
        (19.0, 0.65, 2, 10.0, 0.573, 0.696, 23.7 + 2 * 111.0, 16.4, 2, 16.0),
    ],
)
def test_a_bead_on_legs(
    form: float, d: float, turns: int, bead: float, foot: float, shoulder: float, seat_and_arcs: float, past: float, wraps: int, lock: float
) -> None:
    made = made_at(form, wound(f"{d} mm", {"turns": turns}, {"style": "bead-lock", "bead": {"diameter_mm": bead, "hole_mm": 1.1}}, wraps))
    seat: Seat = made.work.facts.seat
    assert (seat.foot_rad, seat.shoulder_rad) == pytest.approx((foot, shoulder), abs=0.001)
    # Where the bend at the foot is counted is another matter; what seat and band take together isn't.
    assert through(made) + taken(made, "turns") == pytest.approx(seat_and_arcs, rel=0.001)
    # A taut way past the bead is a little shorter than half the hull round bead and both legs.
    assert 0.965 * past < taken(made, "left.pass") <= past
    assert taken(made, "left.lock") == pytest.approx(lock, abs=0.05)


def test_beads_two_turns_away_stand_on_what_passes_under_them() -> None:
    made = made_at(19.0, wound("0.65 mm", {"turns": 2}, {"style": "bead-lock", "bead": {"diameter_mm": 10, "hole_mm": 1.1}}, 2))
    assert made.work.facts.seat.axis_y_mm - 9.5 - 5 == pytest.approx(0.61, abs=0.01)


def test_a_stone_drilled_across_raised_by_a_wire() -> None:
    stone = {"shape": "oval", "length_mm": 5, "height_mm": 6, "width_mm": 14, "hole_mm": 1.1}
    made = made_at(17.5, wound("0.8 mm", {}, {"style": "bead-lock", "bead": stone, "pass_by": "under-over"}, 2))
    seat: Seat = made.work.facts.seat
    assert (seat.axis_y_mm, made.work.height_mm) == pytest.approx((12.55, 6.8))
    # The band goes on from the legs' lines to where the tails' wraps begin, drifting by a wire.
    arc = (2 * math.pi - seat.foot_rad - seat.shoulder_rad) * math.hypot(9.15, 0.8 / (2 * math.pi))
    assert through(made) + taken(made, "turns") == pytest.approx(12.5 + 2 * arc, rel=0.002)
    assert taken(made, "left.pass") == pytest.approx(19.9, abs=0.05)
    # Nothing else lies under the stone: the tail lies on the mandrel.
    assert taken(made, "right.pass") == pytest.approx(2 * seat.shoulder_rad * 9.15, rel=0.006)


def test_three_beads_on_the_wire() -> None:
    made = made_at(17.5, wound("0.65 mm", {}, {"style": "bead-lock", "beads": "3 × 4"}, 2))
    assert through(made) == pytest.approx(19.5, abs=0.05)
    assert (made.opening.foot_rad, 2 * made.opening.foot_rad) == pytest.approx((0.940, 1.880), abs=0.001)
    assert made.opening.shoulder_rad == pytest.approx(0.940 + 1.5 * 0.65 / 9.075, abs=0.001)
    beads = [stone.centre for stone in made.stones]
    assert [math.dist(a, b) for a, b in pairwise(beads)] == pytest.approx([4.0, 4.0], abs=0.001)
    assert [math.hypot(x, y) for x, y, _ in beads] == pytest.approx([8.75 + 2] * 3), "each rests on the finger"


# Bead rows


@pytest.mark.parametrize(
    ("form", "d", "middle", "side", "wraps", "reach", "bow", "arc", "base", "bowed", "lock"),
    [
        (17.5, 0.8, "5 5 5", "4 4 4", 2, 1.113, 3.67, 37.5, 22.7, 24.2, 13.4),
        (18.5, 0.65, "4 8 4", "4 × 3", 3, 1.054, 4.25, 40.3, 21.9, 24.0, 16.3),
    ],
)
def test_rows(
    form: float,
    d: float,
    middle: str,
    side: str,
    wraps: int,
    reach: float,
    bow: float,
    arc: float,
    base: float,
    bowed: float,
    lock: float,
) -> None:
    head = {"style": "bead-rows", "middle_beads": middle, "side_beads": side, "play_mm": 0}
    made = made_at(form, wound(f"{d} mm", {}, head, wraps))
    facts, onward = made.work.facts
    assert made.opening.shoulder_rad == pytest.approx(reach, abs=0.001)
    assert facts.bow_mm == pytest.approx(bow, abs=0.005)
    assert taken(made, "left.turns") == pytest.approx(arc, abs=0.05)
    rows = [placed.move for led in onward.values() for placed in led]
    assert [(r.base_mm, r.length_mm) for r in rows] == [pytest.approx((base, bowed), abs=0.06)] * 2
    assert taken(made, "left.lock") == pytest.approx(lock, abs=0.06)


@pytest.mark.parametrize(
    ("beads", "form", "d", "excess"),
    [((5, 5, 5), 17.5, 0.8, 3.5), ((4, 8, 4), 18.5, 0.65, 4.3), ((6,), 16.5, 0.8, 2.4), ((3, 3, 3, 3), 17.5, 0.65, 1.8)],
)
def test_what_a_row_takes_more_than_the_band_under_it(beads: tuple[float, ...], form: float, d: float, excess: float) -> None:
    strung = Strung(beads, form / 2, (form + d) / 2)
    assert strung.length_mm - strung.angle_rad * strung.radius_mm == pytest.approx(excess, abs=0.05)


@pytest.mark.parametrize(("base", "bow", "bowed", "parabola"), [(22.1, 3.67, 23.7, 23.6), (22.4, 4.25, 24.5, None)])
def test_a_bowed_row_is_an_arc(base: float, bow: float, bowed: float, parabola: float | None) -> None:
    strung = Strung((4, 4, 4), 8.75, 9.15)
    half = strung.angle_rad / 2
    ends = [(side * 9.15 * math.sin(half), 9.15 * math.cos(half), 0.0) for side in (-1, 1)]
    level = BeadRow("row", strung, ends[0], ends[1])
    led = BeadRow("row", strung, ends[0], ends[1], base - level.base_mm, bow)
    assert led.length_mm == pytest.approx(bowed, abs=0.06)
    if parabola:
        assert led.base_mm * (1 + 8 / 3 * (bow / led.base_mm) ** 2) == pytest.approx(parabola, abs=0.15)


# Nest


def test_nests_stretch_by_stretch() -> None:
    made = made_at(17.5, wound("0.8 mm", {}, {"style": "nest", "bead": {"diameter_mm": 7, "hole_mm": 1.0}}, 3))
    facts = made.work.facts
    leg = facts.seat.axis_y_mm - facts.seat.radius_mm * math.cos(facts.seat.foot_rad)
    assert (facts.seat.foot_rad, facts.seat.shoulder_rad, leg) == pytest.approx((0.440, 0.591, 3.97), abs=0.005)
    assert through(made) + taken(made, "turns") == pytest.approx(14.8 + 2 * 48.1, rel=0.001)
    top = math.asin(0.5 / 3.9)
    around = [facts.bead.around_mm(a) for a in (-math.pi / 4, (top - math.pi / 4) / 2, top)]
    assert around == pytest.approx([22.6, 25.1, 25.8], abs=0.06)
    assert [taken(made, f"left.{part}") for part in ("nest", "drop", "lock")] == pytest.approx([37.4, 5.2, 20.0], abs=0.06)
    assert taken(made, "left.rise") == pytest.approx(1.9, abs=0.2)
    assert max(o.to_rad for o in made.obstacles) == pytest.approx(0.82, abs=0.01)


def test_a_nest_on_a_band_bound_early() -> None:
    band = {"winding": "one-way", "turns": 2, "gather": "short-tail"}
    made = made_at(18.5, wound("0.65 mm", band, {"style": "nest", "bead": {"diameter_mm": 9, "hole_mm": 1.1}}, 3))
    assert through(made) + taken(made, "turns") == pytest.approx(21.2 + 109.0, rel=0.003)
    parts = ("right.early", "long.anchor", "long.nest", "long.drop", "long.lock")
    assert [taken(made, part) for part in parts] == pytest.approx([16.3, 5.4, 74.4, 7.3, 16.3], abs=0.1)
    assert taken(made, "long.rise") == pytest.approx(3.4, abs=0.6), "it comes over from the edge too"


@pytest.mark.parametrize(("bead", "d", "hole", "turns", "whole"), [(10.0, 0.65, 1.2, 3, 98.0), (7.0, 0.8, 1.0, 2, 49.8)])
def test_nests_alone(bead: float, d: float, hole: float, turns: float, whole: float) -> None:
    stands = StandingBead(bead / 2, bead / 2, bead / 2, d, 12.0)
    top = math.asin(hole / 2 / (bead / 2 + d / 2))
    assert Nest("nest", stands, turns, -math.pi / 4, top).length_mm == pytest.approx(whole, abs=0.1)


def test_a_nest_round_an_oval() -> None:
    oval = StandingBead(5, 3, 3, 0.65, 12.0)
    nest = Nest("nest", oval, 2, -math.pi / 4, math.asin(0.5 / 3.325))
    assert nest.length_mm == pytest.approx(56.3, rel=0.003)


# Loop rosette


@pytest.mark.parametrize(
    ("form", "d", "turns", "loops", "bead", "step", "seats", "arc", "early", "rows", "wound_rad", "ends", "leads"),
    [
        (17.5, 0.65, 1, (7, 7), 5, 4.24, 35.2, 51.0, 10.8, (131.9, 131.9), (1.16, 0.88), (4.81, 5.95), 33.5),
        (18.5, 0.8, 2, (9, 6), 6, 4.48, 36.6, 114.8, 19.7, (176.0, 117.4), (1.32, 0.66), (5.91, 6.98), 43.3),
    ],
)
def test_rosettes_stretch_by_stretch(
    form: float,
    d: float,
    turns: int,
    loops: tuple[int, int],
    bead: float,
    step: float,
    seats: float,
    arc: float,
    early: float,
    rows: tuple[float, float],
    wound_rad: tuple[float, float],
    ends: tuple[float, float],
    leads: float,
) -> None:
    head = {
        "style": "loop-rosette",
        "seat_loop_mm": 4,
        "petal_mm": 4,
        "loops_inner": loops[0],
        "loops_outer": loops[1],
        "bead": {"diameter_mm": bead, "hole_mm": 0.6},
    }
    made = made_at(form, wound(f"{d} mm", {"turns": turns, "gather": "tail-wraps", "gather_wraps": 2}, head, 2))
    assert through(made) == pytest.approx(seats, abs=0.15)
    assert [taken(made, end) for end in ("left.turns", "left.early", "left.lock")] == pytest.approx([arc, early, early], abs=0.07)
    found = sorted(
        (p.move for piece in made.pieces for p in piece.moves if isinstance(p.move, LoopRow)), key=lambda row: row.spiral.first_mm
    )
    assert [row.step_mm for row in found] == pytest.approx([step] * 2, abs=0.005)
    assert [row.length_mm for row in found] == pytest.approx(rows, abs=0.1)
    along = [row.loops * row.step_mm for row in found]
    turned = [row.spiral.turned_rad(mm) / (2 * math.pi) for row, mm in zip(found, along, strict=True)]
    assert turned == pytest.approx(wound_rad, abs=0.02)
    assert [row.spiral.radius_mm(mm) for row, mm in zip(found, along, strict=True)] == pytest.approx(ends, abs=0.06)
    assert taken(made, "rise", "way") == pytest.approx(leads, rel=0.04), "by the nearest half turn down to the shoulder"
    fine = taken(made, "near.wraps", role="tie") / 2
    assert fine == pytest.approx(math.hypot({0.65: 4.28, 0.8: 8.26}[d], 0.3), abs=0.02)


def test_a_larger_bead_leans_the_loops_further() -> None:
    made = made_at(
        18.5,
        wound("0.8 mm", {"turns": 2}, {"style": "loop-rosette", "seat_loop_mm": 4, "bead": {"diameter_mm": 6, "hole_mm": 0.6}}, 2),
    )
    assert math.degrees(made.work.facts.lean_rad) == pytest.approx(45.1, abs=0.1)
    loop = next(p.move for p in made.work.through[0] if p.id == "head.seat1")
    assert [math.dist(point, (0.0, made.work.facts.bead_y_mm, 0.0)) for point in loop.path()] == [pytest.approx(3.40, abs=0.03)] * len(
        loop.path()
    )


# Double coil


@pytest.mark.parametrize(
    ("m1", "d", "m2", "turns", "coil", "whole", "barrel", "across"),
    [(1.2, 0.6, 1.5, 4, 2.40, 259, 9.6, 6.3), (1.5, 0.65, 1.5, 3, 2.80, 223, 8.4, 7.1), (2.0, 0.8, 2.0, 4, 3.60, 408, 14.4, 9.2)],
)
def test_barrels(m1: float, d: float, m2: float, turns: int, coil: float, whole: float, barrel: float, across: float) -> None:
    found = CoilOfCoil("coil", d, m1, m2, turns, 0.0)
    assert (found.coil_mm, found.barrel_length_mm) == pytest.approx((coil, barrel), abs=0.01)
    assert found.length_mm == pytest.approx(whole, abs=0.6)
    assert m2 + 2 * coil == pytest.approx(across, abs=0.01)
    assert found.barrel_mm == pytest.approx(across, abs=0.01)


@pytest.mark.parametrize(
    ("m1", "d", "m2", "leaves", "end", "axis", "leg", "angle"),
    [
        (1.2, 0.6, 1.5, "tangent", 5.30, 11.80, 9.14, 69.2),
        (1.2, 0.6, 1.5, "square", 5.30, 11.80, 4.34, 35.4),
        (2.0, 0.8, 2.0, "tangent", 7.70, 13.25, 12.29, 83.5),
        (2.0, 0.8, 2.0, "square", 7.70, 13.25, 8.31, 57.3),
    ],
)
def test_legs_of_a_barrel(m1: float, d: float, m2: float, leaves: str, end: float, axis: float, leg: float, angle: float) -> None:
    head = {"style": "double-coil", "inner_rod_mm": m1, "outer_rod_mm": m2, "outer_turns": 4, "leaves": leaves}
    document = {"wires": {"band": {"diameter": "1 mm"}, "coil": {"diameter": f"{d} mm"}}, "band": {"style": "open"}, "head": head}
    made = made_at(17.3, document)
    found = made.work.facts
    assert (found.end_x_mm, found.coil.axis_y_mm) == pytest.approx((end, axis), abs=0.01)
    assert math.dist(*found.corners[:2]) == pytest.approx(leg, abs=0.01)
    assert math.degrees(found.foot_rad) == pytest.approx(angle, abs=0.06)


# Scrolls


@pytest.mark.parametrize(("eye", "d", "turns", "whole"), [(1.5, 1.0, 1.5, 18.9), (1.2, 1.0, 1.25, 13.6)])
def test_scrolls_of_a_framed_bead(eye: float, d: float, turns: float, whole: float) -> None:
    scroll = Scroll("scroll", (eye + d) / 2, d, turns, (0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0))
    assert scroll.length_mm == pytest.approx(whole, rel=0.012)


def test_an_end_rolled_in_after_a_sweep() -> None:
    assert Scroll("scroll", 1.0, 0.8, 1.5, (0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)).length_mm == pytest.approx(15.1, rel=0.006)


def test_a_wrap_carries_its_advance() -> None:
    bundle = row(Profile("round", 0.65), 1)
    assert Wrap("coil", 1, bundle, Profile("round", 0.8), 9.0, 0.0).length_mm == pytest.approx(math.hypot(math.pi * 1.45, 0.8))
