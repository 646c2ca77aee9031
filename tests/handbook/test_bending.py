"""Springback against numeric integration of the stress over the section (`scipy`)."""

import math

import pytest
from scipy import integrate

from pliant_coil.core.mechanics.bending import bending_moment, crushing_force_n, plastic_moment, released_diameter_mm
from pliant_coil.core.trade.profiles import Profile


def integrated_moment(profile: Profile, curvature: float, modulus: float, yields: float) -> float:
    """M = ∫ σ y dA with σ = min(Eκy, Y), about the middle of a symmetric section."""
    half = profile.height_mm / 2

    def width(y: float) -> float:
        return 2 * math.sqrt(max(0.0, half * half - y * y)) if profile.name == "round" else profile.width_mm

    bend = yields / (modulus * curvature)
    inner = integrate.quad(lambda y: modulus * curvature * y * y * width(y), 0, min(half, bend))[0]
    outer = integrate.quad(lambda y: yields * y * width(y), min(half, bend), half)[0]
    return 2 * float(inner + outer)


@pytest.mark.parametrize(
    "profile", [Profile("round", 0.8), Profile("round", 1.3), Profile("square", 0.7), Profile("flat", 0.5, 3)], ids=str
)
@pytest.mark.parametrize("radius", [2.0, 8.66, 60.0, 600.0])
@pytest.mark.parametrize(("modulus", "yields"), [(117_000, 70), (193_000, 290), (75_000, 310)])
def test_moment(profile: Profile, radius: float, modulus: float, yields: float) -> None:
    expected = integrated_moment(profile, 1 / radius, modulus, yields)
    assert bending_moment(profile, 1 / radius, modulus, yields) == pytest.approx(expected, rel=1e-5)


@pytest.mark.parametrize(
    ("wire", "modulus", "yields", "opens"), [(0.8, 117_000, 70, 0.43), (1.3, 117_000, 70, 0.27), (0.8, 193_000, 290, 1.11)]
)
def test_springback_worked_out_beforehand(wire: float, modulus: float, yields: float, opens: float) -> None:
    """Formed at 17.32 mm; figures worked out by hand for this project before the code was written."""
    assert released_diameter_mm(17.32, Profile("round", wire), modulus, yields) - 17.32 == pytest.approx(opens, abs=6e-3)


def test_half_round_is_right_in_both_limits() -> None:
    profile = Profile("half-round", 2.0)
    assert bending_moment(profile, 1e-6, 117_000, 70) == pytest.approx(117_000 * profile.second_moment_mm4 * 1e-6)
    assert bending_moment(profile, 10, 117_000, 70) == pytest.approx(plastic_moment(profile, 70), rel=1e-3)


def test_a_wire_that_never_yields_springs_straight() -> None:
    assert released_diameter_mm(400, Profile("round", 0.2), 193_000, 965) == math.inf


def test_crushing_force_is_the_ring_with_four_hinges() -> None:
    """Limit analysis of a ring under two opposite point loads: P = 4 Mp / R (standard plastic analysis)."""
    profile = Profile("round", 0.8)
    assert crushing_force_n(17.2, profile, yield_mpa=70, strands=1, closed=True) == pytest.approx(4 * 70 * 0.8**3 / 6 / 9.0)
