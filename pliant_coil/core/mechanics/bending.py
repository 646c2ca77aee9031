"""What happens to a wire that is bent and let go: the elastic–plastic moment and springback.

Lengths in mm, moments in N·mm, stress in MPa, curvature in 1/mm. Source for the round section: the moment of an
elastic–perfectly-plastic circular bar, found by integrating min(E·κ·y, Y) over the section (derivation in
docs/handbook.md, checked against numeric integration).
"""

import math

from pliant_coil.core.trade.profiles import Profile


def plastic_moment(profile: Profile, yield_mpa: float) -> float:
    """The moment [N·mm] at which the whole section yields."""
    return yield_mpa * profile.plastic_modulus_mm3


def bending_moment(profile: Profile, curvature: float, youngs_modulus_mpa: float, yield_mpa: float) -> float:
    """Moment [N·mm] that holds a wire at `curvature` [1/mm], bent there from straight; elastic below yield.

    Round: M = Y r³ [(½ asin u − ½u√(1−u²)(1−2u²))/u + (4/3)(1−u²)^(3/2)] with u = Y/(Eκr). Square and flat:
    M = Mp (1 − ⅓u²), u = Y/(Eκ·h/2). A half-round takes the same form with its own Mp and second moment, which is
    exact in both limits and within a few per cent between.
    """
    elastic = youngs_modulus_mpa * profile.second_moment_mm4 * curvature
    if profile.name == "round":
        r = profile.size_mm / 2
        u = yield_mpa / (youngs_modulus_mpa * curvature * r)
        if u >= 1:
            return elastic
        root = math.sqrt(1 - u * u)
        return yield_mpa * r**3 * ((0.5 * math.asin(u) - 0.5 * u * root * (1 - 2 * u * u)) / u + 4 / 3 * root**3)
    full = plastic_moment(profile, yield_mpa)
    # The curvature at which the elastic line meets the plastic law's own first yield: 2/3 of the full moment.
    first_yield = 2 / 3 * full / (youngs_modulus_mpa * profile.second_moment_mm4)
    if curvature <= first_yield:
        return elastic
    return full * (1 - (first_yield / curvature) ** 2 / 3)


def released_diameter_mm(form_diameter_mm: float, profile: Profile, youngs_modulus_mpa: float, yield_mpa: float) -> float:
    """Inside diameter [mm] that a free turn takes when it comes off a mandrel of `form_diameter_mm`.

    Curvature after release is κ − M/(EI). Infinite when the wire was never bent past yield.
    """
    radius = form_diameter_mm / 2 + profile.centroid_mm
    curvature = 1 / radius
    moment = bending_moment(profile, curvature, youngs_modulus_mpa, yield_mpa)
    left = curvature - moment / (youngs_modulus_mpa * profile.second_moment_mm4)
    if left <= 1e-9:
        return math.inf
    return 2 * (1 / left - profile.centroid_mm)


def crushing_force_n(form_diameter_mm: float, profile: Profile, *, yield_mpa: float, strands: int, closed: bool) -> float:
    """Force [N] across a ring at which it folds (limit analysis).

    A closed ring needs four plastic hinges, 4·Mp/R a strand; an open one folds at a single hinge opposite its gap, Mp/R.
    """
    hinges = 4 if closed else 1
    return hinges * plastic_moment(profile, yield_mpa) * strands / (form_diameter_mm / 2 + profile.centroid_mm)


def opening_at_yield_mm(radius_mm: float, wire_mm: float, *, youngs_modulus_mpa: float, yield_mpa: float) -> float:
    """How far a split ring of round wire opens at its ends before it keeps a set: 3πR²Y/(E·d), R to the neutral line."""
    return 3 * math.pi * radius_mm**2 * yield_mpa / (youngs_modulus_mpa * wire_mm)


def force_at_yield_n(radius_mm: float, wire_mm: float, yield_mpa: float) -> float:
    """The pull [N] at its ends at which a split ring of round wire gives way: πd³Y/(64R)."""
    return math.pi * wire_mm**3 * yield_mpa / (64 * radius_mm)
