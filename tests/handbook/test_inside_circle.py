"""The largest circle inside a ring against `shapely` and an independent optimiser of `scipy`."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from scipy import optimize
from shapely import Point, Polygon, maximum_inscribed_circle

from pliant_coil.core.moves.base import Cause, Obstacle
from pliant_coil.core.moves.inside import largest_circle

RADIUS = 9.05
TEST = Cause("test", "a test")

anywhere = st.tuples(st.floats(-math.pi, math.pi), st.floats(0.02, 0.9), st.floats(0.1, 1.3))
# Ends that lie exactly opposite each other hold a circle between two points, from which it grows to either side.
opposite = st.tuples(
    st.integers(-12, 11).map(lambda k: k * math.pi / 12),
    st.sampled_from([0, 1, 2, 4]).map(lambda k: k * math.pi / 12),
    st.sampled_from([0.4, 1.0]),
)
obstacles = st.one_of(
    [st.lists(kind.map(lambda t: Obstacle(TEST, t[0], t[0] + t[1], t[2])), min_size=1, max_size=6) for kind in (anywhere, opposite)]
)


def outline_radius(angle: float, inside: list[Obstacle]) -> float:
    covering = [o.height_mm for o in inside if (angle - o.from_rad) % (2 * math.pi) <= o.to_rad - o.from_rad]
    return RADIUS - max(covering, default=0.0)


def outline(inside: list[Obstacle], points: int = 4000) -> list[tuple[float, float]]:
    edges = [angle for o in inside for angle in (o.from_rad, o.to_rad)]
    angles = sorted([2 * math.pi * k / points for k in range(points)] + [e % (2 * math.pi) for e in edges])
    return [(outline_radius(a, inside) * math.sin(a), outline_radius(a, inside) * math.cos(a)) for a in angles]


@given(obstacles)
@example([Obstacle(TEST, math.pi, math.pi + 0.5, 1.0), Obstacle(TEST, 0.5, 1.0, 1.0)])
@example([Obstacle(TEST, 0.75 * math.pi, 0.8 * math.pi, 0.4), Obstacle(TEST, -0.25 * math.pi, -0.25 * math.pi, 1.0)])
@settings(max_examples=60, deadline=None)
def test_no_circle_near_by_is_larger(inside: list[Obstacle]) -> None:
    points = outline(inside)
    found = largest_circle(RADIUS, inside)

    def minus_radius(centre: Any) -> float:
        return -min(math.hypot(x - centre[0], y - centre[1]) for x, y in points)

    assert -minus_radius((found.x_mm, found.y_mm)) == pytest.approx(found.radius_mm, abs=5e-3)
    simplex = [(found.x_mm, found.y_mm), (found.x_mm + 0.05, found.y_mm), (found.x_mm, found.y_mm + 0.05)]
    options: Any = {"initial_simplex": simplex, "xatol": 1e-5, "fatol": 1e-6}
    tried = optimize.minimize(minus_radius, np.array([found.x_mm, found.y_mm]), method="Nelder-Mead", options=options)
    assert found.radius_mm >= -tried.fun - 5e-3


@pytest.mark.parametrize(("angle_deg", "wraps_deg", "height"), [(25, 10, 0.8), (30, 5, 0.64), (45, 12, 1.0), (60, 8, 0.4)])
def test_two_locks_against_shapely(angle_deg: float, wraps_deg: float, height: float) -> None:
    start, end = math.radians(angle_deg), math.radians(angle_deg + wraps_deg)
    inside = [Obstacle(TEST, start, end, height), Obstacle(TEST, -end, -start, height)]
    line = maximum_inscribed_circle(Polygon(outline(inside)), tolerance=1e-4)
    found = largest_circle(RADIUS, inside)
    assert found.radius_mm == pytest.approx(line.length, abs=2e-3)
    assert Point(line.coords[0]).distance(Point(found.x_mm, found.y_mm)) < 0.05


@pytest.mark.parametrize(("wire", "us_sizes"), [(0.6438, 0.85), (0.8118, 1.07), (0.4, 0.53)])
def test_locks_by_the_closed_form_and_by_what_makers_report(wire: float, us_sizes: float) -> None:
    """Δr = (2Rw − w²)/(2R + 2(R − w) cos θ), worked out by hand; about a size for 22 and 20 ga: common practice, no source."""
    theta = math.radians(30)
    found = largest_circle(RADIUS, [Obstacle(TEST, side * theta, side * theta, wire) for side in (-1, 1)])
    closed = (2 * RADIUS * wire - wire**2) / (2 * RADIUS + 2 * (RADIUS - wire) * math.cos(theta))
    assert RADIUS - found.radius_mm == pytest.approx(closed, abs=1e-6)
    assert 2 * closed / 0.8128 == pytest.approx(us_sizes, abs=6e-3)


def test_an_empty_ring_and_a_lining() -> None:
    assert largest_circle(RADIUS, []).radius_mm == RADIUS
    lining = [Obstacle(TEST, -2.5, 2.5, 0.4), Obstacle(TEST, 2.0, 4.4, 0.4)]
    assert largest_circle(RADIUS, lining).radius_mm == pytest.approx(RADIUS - 0.4, abs=1e-5)
