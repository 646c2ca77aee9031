"""Densities against `periodictable` (the elements of the CRC Handbook) and the rule of mixtures."""

import periodictable
import pytest

from pliant_coil.core.trade.metals import METALS


@pytest.mark.parametrize(("code", "element"), [("copper", "Cu"), ("fine-silver", "Ag"), ("aluminium", "Al")])
def test_elements(code: str, element: str) -> None:
    assert METALS[code].density_g_cm3 == pytest.approx(getattr(periodictable, element).density, rel=0.005)


@pytest.mark.parametrize(
    ("code", "shares"),
    [
        ("sterling", {"Ag": 0.925, "Cu": 0.075}),
        ("brass", {"Cu": 0.70, "Zn": 0.30}),
        ("bronze", {"Cu": 0.95, "Sn": 0.05}),
        ("stainless", {"Fe": 0.71, "Cr": 0.19, "Ni": 0.10}),
    ],
)
def test_alloys_by_the_rule_of_mixtures(code: str, shares: dict[str, float]) -> None:
    """Shares by mass; alloys differ from an ideal mixture by a few per cent."""
    volume = sum(share / getattr(periodictable, element).density for element, share in shares.items())
    assert METALS[code].density_g_cm3 == pytest.approx(1 / volume, rel=0.03)


def test_every_figure_says_where_it_comes_from() -> None:
    for metal in METALS.values():
        assert metal.density_source and metal.modulus_source and metal.yield_source
        assert metal.yield_mpa["soft"] < metal.yield_mpa["half-hard"] < metal.yield_mpa["hard"]
