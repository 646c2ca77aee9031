"""Each move's length by a road of its own: numeric arc length of a curve written here, or counting."""

import math
from collections.abc import Callable

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import integrate

from pliant_coil.core.hulls import row
from pliant_coil.core.moves import Arc, Bend, Crossing, Eye, Over, Scroll, Turns, Twist, Wrap
from pliant_coil.core.profiles import Profile


def arc_length(velocity: Callable[[float], tuple[float, ...]], start: float, end: float) -> float:
    """∫ |v| dt."""
    return float(integrate.quad(lambda t: math.hypot(*velocity(t)), start, end, limit=400)[0])


@given(st.floats(5, 12), st.floats(0.1, 6), st.floats(-3, 3))
def test_an_arc_with_drift_is_a_helix(radius: float, sweep: float, drift: float) -> None:
    move = Arc("arc", radius, 1.0, sweep, 0.0, drift)
    assert move.length_mm == pytest.approx(arc_length(lambda _: (radius, drift / sweep), 0, sweep))


@given(st.integers(1, 4), st.floats(0.3, 1.2), st.floats(0.3, 0.9))
def test_turns_step_once_at_each_top_they_pass(turns: int, lane: float, step: float) -> None:
    move = Turns("turns", 9.0, step, 2 * math.pi * turns - 2 * step, 0.0, lane, step)
    assert move.z_to_mm == pytest.approx((turns - 1) * lane)
    plain = 9.0 * (2 * math.pi * turns - 2 * step - (turns - 1) * 2 * step)
    assert move.length_mm == pytest.approx(plain + (turns - 1) * math.hypot(18.0 * step, lane))
    path = move.path()
    assert path[-1][2] == pytest.approx(move.z_to_mm)
    assert all(math.hypot(x, y) == pytest.approx(9.0) for x, y, _ in path)


def test_over_a_bead_is_the_taut_line_round_it() -> None:
    """Feet straight below the bead's flanks: up, half round, down. Feet further out: two tangents and the arc between."""
    upright = Over("over", 4.0, 8.0, 13.0, 4.0, 0.0)
    assert upright.length_mm == pytest.approx(5 + math.pi * 4 + 5)
    aslant = Over("over", 6.0, 8.0, 13.0, 4.0, 0.0)
    away = math.hypot(6, 5)
    tangent = math.sqrt(away**2 - 16)
    arc = 2 * (math.pi - math.acos(4 / away) - math.acos(5 / away))
    assert aslant.length_mm == pytest.approx(2 * tangent + 4 * arc)
    assert max(y for _, y, _ in aslant.path()) == pytest.approx(17.0, abs=1e-6)


@given(st.integers(1, 8), st.integers(1, 6), st.sampled_from([0.4, 0.8, 1.0]))
def test_wraps_round_a_row(wraps: int, strands: int, wire: float) -> None:
    move = Wrap("lock", wraps, row(Profile("round", 0.8), strands), Profile("round", wire), 8.6, 0.4, "lock")
    loop = 2 * (strands - 1) * 0.8 + math.pi * (0.8 + wire)
    assert move.length_mm == pytest.approx(wraps * math.hypot(loop, wire))
    obstacle = move.obstacle
    assert obstacle.height_mm == wire
    assert (obstacle.to_rad - obstacle.from_rad) * 8.6 == pytest.approx((wraps - 1) * wire, abs=1e-9)


@given(st.floats(0.5, 4), st.floats(0.3, 1.5))
def test_an_eye_is_one_turn_of_its_neutral_line(inside: float, wire: float) -> None:
    move = Eye("eye", inside, wire, 9.0, 0.0, 0.0, 1.0)
    assert move.length_mm == pytest.approx(2 * math.pi * (inside + wire) / 2)


@given(st.floats(0.2, 1), st.floats(0.4, 1.5), st.floats(0.5, 3))
def test_a_scroll_is_an_archimedean_spiral(inner: float, pitch: float, turns: float) -> None:
    move = Scroll("scroll", inner, pitch, turns, 9.0, 0.0, 0.0, True)
    b = pitch / (2 * math.pi)
    assert move.length_mm == pytest.approx(arc_length(lambda t: (b, inner + b * t), 0, 2 * math.pi * turns), rel=1e-6)


@given(st.floats(0.2, 0.9), st.floats(4, 20), st.floats(0, 6.28), st.sampled_from([-1, 1]))
def test_a_twisted_strand_round_a_band(helix: float, lay: float, phase: float, hand: int) -> None:
    radius, sweep = 9.5, 5.6
    move = Twist("twist", radius, 0.3, sweep, helix, lay, phase, hand)
    rate = hand * 2 * math.pi * radius / lay

    def velocity(angle: float) -> tuple[float, ...]:
        turn = phase + rate * angle
        return (radius + helix * math.cos(turn), -helix * rate * math.sin(turn), helix * rate * math.cos(turn))

    assert move.length_mm == pytest.approx(arc_length(velocity, 0, sweep), rel=2e-3)


@pytest.mark.parametrize("over", [True, False])
def test_a_crossing_is_longer_than_the_way_round(over: bool) -> None:
    radius, sweep, wire = 9.0, 0.9, 0.8

    def velocity(u: float) -> tuple[float, ...]:
        rise = wire * math.sin(math.pi * u) if over else 0.0
        rising = math.pi * wire * math.cos(math.pi * u) if over else 0.0
        return ((radius + rise) * sweep, rising, math.pi * wire / 2 * math.sin(math.pi * u))

    move = Crossing("cross", radius, 2.7, sweep, wire, True, over, 0.003, "crossing")
    assert move.length_mm == pytest.approx(arc_length(velocity, 0, 1), rel=1e-3)
    assert (move.obstacle is None) == over


def test_a_bend_turns_about_its_corner() -> None:
    move = Bend("bend", (3.5, 12.8, 0.0), 0.4, 0.0, math.pi / 2, 0.8)
    assert move.length_mm == pytest.approx(math.pi / 2 * 0.4)
    assert move.path()[0] == pytest.approx((3.5, 13.2, 0.0))
    assert move.path()[-1] == pytest.approx((3.9, 12.8, 0.0))
