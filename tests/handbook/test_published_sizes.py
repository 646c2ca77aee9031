"""Ring sizes against the published rules and printed equivalences."""

import math

import pytest

from pliant_coil.core.trade.sizes import SYSTEMS, nearest_mark, read_size


@pytest.mark.parametrize(
    ("text", "circumference"),
    [("UK A", 37.5), ("UK C", 40.0), ("UK K", 50.0), ("UK M", 52.5), ("UK Q", 57.5), ("UK Z", 68.75), ("UK Z+1", 70.0)],
)
def test_uk_letters(text: str, circumference: float) -> None:
    """BS 6820: C is 40.00 mm, 1.25 mm a letter."""
    assert math.pi * read_size(text).inside_diameter_mm == pytest.approx(circumference)


@pytest.mark.parametrize(("number", "inches"), [(0, 0.458), (3, 0.554), (7, 0.682), (10, 0.778), (13, 0.874)])
def test_us_sizes_in_inches(number: int, inches: float) -> None:
    """The trade standard of 0.458 in and 0.032 in a size; the rule in mm is rounded to 0.003 mm."""
    assert read_size(f"US {number}").inside_diameter_mm == pytest.approx(inches * 25.4, abs=0.004)


@pytest.mark.parametrize(("number", "diameter"), [(1, 13.0), (4, 14.0), (7, 15.0), (13, 17.0), (16, 18.0), (25, 21.0)])
def test_japanese_sizes(number: int, diameter: float) -> None:
    """JIS S 4700: 13 mm for number 1, a third of a millimetre each."""
    assert read_size(f"JP {number}").inside_diameter_mm == pytest.approx(diameter)


@pytest.mark.parametrize(("text", "circumference"), [("EU 41", 41), ("EU 54", 54), ("EU 76", 76)])
def test_metric_sizes(text: str, circumference: float) -> None:
    """ISO 8653: the size is the inside circumference in mm."""
    assert math.pi * read_size(text).inside_diameter_mm == pytest.approx(circumference)


@pytest.mark.parametrize(
    ("us", "uk", "eu"), [("5", "J 1/2", "49"), ("6", "L 1/2", "52"), ("7", "N 1/2", "54"), ("8", "P 1/2", "57"), ("9", "R 1/2", "60")]
)
def test_printed_equivalences(us: str, uk: str, eu: str) -> None:
    """Conversion charts as printed by jewellers' suppliers (value from memory)."""
    diameter = read_size(f"US {us}").inside_diameter_mm
    assert nearest_mark(diameter, SYSTEMS["uk"]).label == uk
    assert nearest_mark(diameter, SYSTEMS["eu"]).label == eu
