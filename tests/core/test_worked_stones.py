"""Heads that hold a bead or a stone, stretch by stretch, worked out apart from this code by independent arithmetic (common practice, no source, where makers' rings stand behind them)."""

import math
from itertools import pairwise
from typing import Any

import pytest
from scipy.optimize import brentq

from pliant_coil.core.mechanics.hulls import row, row_at
from pliant_coil.core.mechanics.over_stone import Ellipsoid
from pliant_coil.core.moves.prong import Claw
from pliant_coil.core.styles.heads.cage import Cage
from pliant_coil.core.trade.profiles import Profile
from tests.core.test_check_values import made_at, wound
from tests.core.worked import locks_take, taken

# Hoop seat


@pytest.mark.parametrize(
    ("bead", "d", "inside", "above", "sunk"), [(8, 0.8, 7.5, 1.46, 0.32), (6, 0.8, 5.5, 1.28, 0.29), (10, 1.0, 9.4, 1.79, 0.32)]
)
def test_how_deep_a_bead_sinks_into_a_hoop(bead: float, d: float, inside: float, above: float, sunk: float) -> None:
    # A ball let down on a torus, numerically: the lowest height at which no point of the torus is inside the ball.
    hoop = (inside + d) / 2
    ring = [(hoop + d / 2 * math.cos(a), d / 2 * math.sin(a)) for a in (k * math.pi / 18_000 for k in range(36_000))]
    rests = brentq(lambda k: min(math.hypot(x, y - k) for x, y in ring) - bead / 2, 0.1, bead)
    assert rests == pytest.approx(above, abs=0.006)
    assert (bead / 2 - rests) / bead == pytest.approx(sunk, abs=0.006)

    def seat(rod: float) -> Any:
        head = {"style": "hoop-seat", "rod_mm": rod, "bead": {"diameter_mm": bead, "hole_mm": 1}}
        return made_at(18.0, wound(f"{d} mm", {}, head, 2)).work.facts

    rod = brentq(lambda rod: 2 * seat(rod).hoop_mm - d - inside, inside - 0.6, inside, xtol=1e-6)
    assert seat(rod).above_mm == pytest.approx(rests, abs=0.001)


@pytest.mark.parametrize(
    ("bead", "sunk", "form", "hoop", "shoulder", "lowest", "rises", "sides"),
    [(8, 0.30, 17.0, 25.75, 27.4, 8.791, (3.00, 3.80), (46.7, 48.3)), (6, 0.40, 17.4, 21.03, 21.6, 9.317, (2.64, 3.44), (41.2, 42.8))],
)
def test_hoops_of_a_seat(
    bead: float,
    sunk: float,
    form: float,
    hoop: float,
    shoulder: float,
    lowest: float,
    rises: tuple[float, float],
    sides: tuple[float, float],
) -> None:
    head = {"style": "hoop-seat", "sunk_share": sunk, "bead": {"diameter_mm": bead, "hole_mm": 1}}
    made = made_at(form, wound("0.8 mm", {}, head, 2))
    assert [taken(made, f"{side}.hoop") for side in ("left", "right")] == pytest.approx([hoop] * 2, abs=0.01)
    assert math.degrees(made.work.facts.shoulder_rad) == pytest.approx(shoulder, abs=0.05)
    seat = made.work.facts
    assert seat.upper_mm - seat.lift_mm - 0.8 == pytest.approx(lowest, abs=0.001), "where the lower hoop would touch the finger"
    # They come over to the hoop too, which lies across the finger.
    for side, rise, whole in zip(("left", "right"), rises, sides, strict=True):
        assert rise <= taken(made, f"{side}.rise") < rise + 0.15
        assert sum(taken(made, f"{side}.{part}") for part in ("rise", "hoop", "drop", "lock")) == pytest.approx(whole, rel=0.013)


def test_hoops_with_no_strand_under_the_bead() -> None:
    band = {"winding": "one-way", "turns": 1}
    made = made_at(17.0, wound("0.8 mm", band, {"style": "hoop-seat", "sunk_share": 0.45, "bead": {"diameter_mm": 8, "hole_mm": 1}}, 2))
    seat = made.work.facts
    assert (2 * seat.hoop_mm - 0.8, math.degrees(seat.shoulder_rad)) == pytest.approx((7.96, 29.5), abs=0.02)
    assert (seat.upper_mm - seat.lift_mm - 0.8, seat.lift_mm) == pytest.approx((8.654, 2.6), abs=0.06)
    for side, rise, whole in (("left", 3.55, 49.6), ("right", 4.35, 51.2)):
        assert taken(made, f"{side}.hoop") == pytest.approx(27.53, abs=0.01)
        assert rise <= taken(made, f"{side}.rise") < rise + 0.1
        # Round one strand and the tail's foot where two strands would be: a lock of 14.9.
        assert sum(taken(made, f"{side}.{part}") for part in ("rise", "hoop", "drop")) + 14.9 == pytest.approx(whole, rel=0.012)


def test_what_binds_and_locks_a_seat() -> None:
    made = made_at(17.4, wound("0.8 mm", {}, {"style": "hoop-seat", "sunk_share": 0.40, "bead": {"diameter_mm": 6, "hole_mm": 1}}, 2))
    assert made.work.facts.hoop_mm == pytest.approx(3.35, abs=0.005)
    assert taken(made, "left.lock") == pytest.approx(14.9, abs=0.05)
    seat = {"style": "hoop-seat", "sunk_share": 0.40, "bead": {"diameter_mm": 6, "hole_mm": 1}, "bind_wraps": 4}
    bound = made_at(17.4, {"wires": {"band": {"diameter": "0.8 mm"}, "bind": {"diameter": "0.3 mm"}}, "head": seat})
    fine = [p.length_mm for piece in bound.pieces if piece.role == "bind" for p in piece.moves]
    assert sum(fine) == pytest.approx(90.8, rel=0.018), "led out to where the wraps begin"
    at, inside = math.radians(22), 17.3 / 2
    assert locks_take(inside, at, at + 1.5 * 0.8 / inside, 0.8) / 0.8128 == pytest.approx(1.05, abs=0.01)


# Cage


def test_passes_of_a_cage() -> None:
    stone = Ellipsoid(18.0, 13.0, 8.0)

    def long(lock: tuple[float, float], tilt: float) -> float:
        way = stone.over(lock, 0.8, tilt).in_space(0.0)
        return sum(math.dist(a, b) for a, b in pairwise(way))

    taut = long((6.75, -2.8), 0.0) + 2 * long((6.75, -2.8), 0.375)
    assert taut == pytest.approx(107.3, abs=0.2)
    assert 1.04 * taut == pytest.approx(111.6, abs=0.2)


@pytest.mark.parametrize(("lock", "tilt", "half"), [((8.0, -0.8), 0.457, 8.44), ((6.75, -2.8), 0.375, 8.25)])
def test_a_tilted_pass_goes_round_under_the_stones_ends(lock: tuple[float, float], tilt: float, half: float) -> None:
    # As far as the ellipse in the pass's plane reaches, and half a wire on.
    assert max(u for u, _ in Ellipsoid(18.0, 13.0, 8.0).over(lock, 0.8, tilt).points) == pytest.approx(half + 0.4, abs=0.01)


def test_a_diagonal_pass_has_a_shorter_ellipse() -> None:
    upright = Ellipsoid(18.0, 13.0, 8.0).across((8.0, -0.8), 0.8, 0.6)
    assert max(u for u, _ in upright.points) == pytest.approx(7.92 + 0.4, abs=0.01)


def test_what_locks_and_jogs_of_a_cage_take() -> None:
    assert row(Profile("round", 0.8), 2).loop_mm(0.4) == pytest.approx(6.63, abs=0.005)
    assert row(Profile("round", 1.0), 3).loop_mm(0.5) == pytest.approx(10.28, abs=0.005)
    taken_mm = locks_take(8.75, math.radians(45), math.radians(45), 0.8)
    assert (taken_mm, taken_mm / 0.8128) == pytest.approx((0.93, 1.14), abs=0.006)
    assert Cage(jog_mm=0.6, jog_length_mm=5)._jog_takes() == pytest.approx(0.65, abs=0.005)
    assert math.ceil(0.04 * 37.0 / Cage(jog_mm=0.8, jog_length_mm=5)._jog_takes()) == 2


# Claws


@pytest.mark.parametrize(
    ("across", "thick", "edge", "d", "lip", "whole"), [(16, 6, 2, 0.9, 3, 18.7), (14, 5, 2.5, 0.8, 2.5, 16.1), (12, 8, 1.5, 1.0, 2.5, 18.3)]
)
def test_claws_from_the_stones_middle(across: float, thick: float, edge: float, d: float, lip: float, whole: float) -> None:
    claw = Claw("claw", (0.0, 0.0, 0.0), (across / 2 - edge, 0.0, 0.0), edge + d / 2, thick - 2 * edge, lip, d)
    assert claw.length_mm == pytest.approx(whole, abs=0.05)


@pytest.mark.parametrize(("d", "w", "loop", "eight"), [(0.9, 0.4, 9.48, 11.77), (0.8, 0.3, 8.26, 10.11)])
def test_bindings_of_claws(d: float, w: float, loop: float, eight: float) -> None:
    middles = tuple((k - 1.5) * d for k in range(4))
    assert row_at(Profile("round", d), middles).loop_mm(w / 2) == pytest.approx(loop, abs=0.006)
    head = {"style": "prongs", "setting": "claws", "binding": "eights"}
    made = made_at(
        18.0, {"wires": {"band": {"diameter": f"{d} mm"}, "bind": {"diameter": f"{w} mm"}}, "band": {"style": "twisted"}, "head": head}
    )
    wraps = next(p for piece in made.pieces if piece.role == "bind" for p in piece.moves if p.id == "bind.wraps")
    eights = 8 / (2 * w)
    assert wraps.move.count == round(eights)
    assert wraps.length_mm / round(eights) == pytest.approx(math.hypot(eight, 2 * w), abs=0.01)
    drawn = sum(math.dist(a, b) for a, b in pairwise(wraps.path()))
    assert drawn == pytest.approx(wraps.length_mm, rel=0.005)


def test_a_ring_with_claws() -> None:
    stone = {"length_mm": 16, "width_mm": 12, "height_mm": 6, "edge_radius_mm": 2}
    head = {"style": "prongs", "setting": "claws", "stone": stone, "lip_mm": 3, "claws_apart_mm": 2}
    band = {"style": "twisted", "lay_mm": 5.5, "tapped_share": 1 / 6}
    made = made_at(17.5, {"wires": {"band": {"diameter": "0.9 mm"}}, "band": band, "head": head})
    cord, long, thick, _ = made.band.facts
    assert (long, long / (1 + cord.tapped_growth(thick))) == pytest.approx((51.7, 51.4), abs=0.05)
    assert taken(made, "wire.1.twist") == pytest.approx(57.8, abs=0.05)
    claws = [p.length_mm for led in made.work.onward.values() for p in led if p.id.endswith("claw")]
    assert sum(claws) / 4 == pytest.approx(22.7, abs=0.1), "each is splayed a little, and goes round the finger"
    base = 4 / 9.0
    assert locks_take(9.0, base, base, 0.4) == pytest.approx(0.42, abs=0.006)
    assert locks_take(9.0, base, base, 0.4) / 0.8128 == pytest.approx(0.51, abs=0.01)
