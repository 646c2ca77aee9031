"""Sections and the loops round them, by another road: `shapely` areas and buffers, numeric integration."""

import math
from collections.abc import Callable

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import integrate
from shapely import MultiPoint, Point, Polygon, affinity, union_all

from pliant_coil.core.mechanics.hulls import Bundle, row
from pliant_coil.core.trade.profiles import Profile, ProfileName

PROFILES = [Profile("round", 0.8), Profile("half-round", 0.812), Profile("square", 0.723), Profile("flat", 0.5, 2.0)]


def width_at(profile: Profile, y: float) -> float:
    """Width of the section at height y over the side that faces the finger."""
    r = profile.size_mm / 2
    match profile.name:
        case "round":
            return 2 * math.sqrt(max(0.0, r * r - (y - r) ** 2))
        case "half-round":
            return 2 * math.sqrt(max(0.0, r * r - y * y))
    return profile.width_mm


@pytest.mark.parametrize("profile", PROFILES, ids=lambda p: p.name)
def test_area_centroid_and_moments_by_integration(profile: Profile) -> None:
    h = profile.height_mm

    def over(f: Callable[[float], float]) -> float:
        return float(integrate.quad(f, 0, h, limit=200)[0])

    area = over(lambda y: width_at(profile, y))
    centroid = over(lambda y: y * width_at(profile, y)) / area
    assert profile.area_mm2 == pytest.approx(area, rel=1e-6)
    assert profile.centroid_mm == pytest.approx(centroid, rel=1e-6)
    assert profile.second_moment_mm4 == pytest.approx(over(lambda y: (y - centroid) ** 2 * width_at(profile, y)), rel=1e-6)
    # Fully plastic: the axis that halves the area.
    heights = np.linspace(0, h, 20001)
    widths = np.array([width_at(profile, y) for y in heights])
    below = integrate.cumulative_trapezoid(widths, heights, initial=0)
    axis = float(np.interp(below[-1] / 2, below, heights))
    assert profile.plastic_modulus_mm3 == pytest.approx(float(integrate.trapezoid(np.abs(heights - axis) * widths, heights)), rel=2e-3)


@pytest.mark.parametrize("profile", PROFILES, ids=lambda p: p.name)
def test_outline_encloses_the_area(profile: Profile) -> None:
    shape = Polygon(profile.outline(720))
    assert shape.exterior.is_ccw
    assert shape.area == pytest.approx(profile.area_mm2, rel=1e-4)
    assert shape.centroid.y == pytest.approx(profile.centroid_mm, rel=1e-4)


@pytest.mark.parametrize("strands", [1, 2, 3, 6])
@pytest.mark.parametrize("wrapping", [Profile("round", 0.4), Profile("half-round", 0.812)], ids=lambda p: p.name)
@pytest.mark.parametrize("profile", PROFILES, ids=lambda p: p.name)
def test_loop_is_the_buffered_hull(profile: Profile, wrapping: Profile, strands: int) -> None:
    pitch = profile.width_mm
    shapes = [affinity.translate(Polygon(profile.outline(720)), k * pitch) for k in range(strands)]
    taut = union_all(shapes).convex_hull.buffer(wrapping.centroid_mm, quad_segs=180)
    bundle = row(profile, strands)
    assert bundle.loop_mm(wrapping.centroid_mm) == pytest.approx(taut.length, rel=1e-3)
    points = bundle.loop_points(wrapping.centroid_mm, 8)
    assert Polygon(points).exterior.length == pytest.approx(taut.length, rel=0.02)


@pytest.mark.parametrize("seed", range(5))
def test_hull_of_scattered_points_against_shapely(seed: int) -> None:
    points = np.random.default_rng(seed).normal(size=(30, 2))
    bundle = Bundle(tuple(map(tuple, points)), 0.0)
    assert bundle.hull_perimeter_mm == pytest.approx(MultiPoint(points).convex_hull.length)


def test_loops_worked_out_beforehand() -> None:
    """Figures worked out by hand for this project before the code was written."""
    fine = Profile("round", 0.4)
    assert row(Profile("round", 0.8), 1).loop_mm(fine.centroid_mm) == pytest.approx(math.pi * 1.2)
    assert Bundle(((0.0, 0.0), (1.2, 0.0)), 0.4).loop_mm(fine.centroid_mm) == pytest.approx(6.170, abs=1e-3)
    name: ProfileName = "half-round"
    assert row(Profile("square", 0.723), 2).loop_mm(Profile(name, 0.812).centroid_mm) == pytest.approx(5.42, abs=5e-3)


HUNDREDTHS = st.integers(-300, 300).map(lambda k: k / 100)
PLACE = st.tuples(HUNDREDTHS, HUNDREDTHS)


@given(st.lists(PLACE, min_size=1, max_size=7), st.sampled_from([0.0, 0.4]), st.one_of(PLACE, PLACE.map(lambda p: (1e3 * p[0], p[1]))))
@settings(max_examples=200, deadline=None)
def test_a_loop_begins_at_its_nearest_point(places: list[tuple[float, float]], rounding: float, to: tuple[float, float]) -> None:
    loop = MultiPoint(places).convex_hull.buffer(rounding + 0.2, quad_segs=400).exterior
    found = Bundle(tuple(places), rounding).nearest(to, 0.2)
    assert loop.distance(Point(found)) < 1e-4, "it lies on the loop"
    assert math.dist(found, to) == pytest.approx(loop.distance(Point(to)), abs=1e-4)
