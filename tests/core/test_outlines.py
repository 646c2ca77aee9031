"""Outlines of frames: by name, and from an SVG path; measured by a general geometry library."""

import math

import pytest
from shapely.geometry import Polygon

from pliant_coil.core.styles.outlines import OutlineName, outline_corners
from pliant_coil.core.words.refusal import Refusal

NAMES: tuple[OutlineName, ...] = ("diamond", "square", "rectangle", "round", "oval", "marquise", "heart", "star", "polygon")
LEAF = "M 0 0 C 2 3 6 3 8 0 C 6 -3 2 -3 0 0 Z"


def corners(name: OutlineName, path: str = "") -> tuple[tuple[float, float], ...]:
    return outline_corners(name, side=9.0, across=12.0, width=8.0, points=5, path=path)


@pytest.mark.parametrize("name", NAMES)
def test_outlines_are_simple_closed_and_alike_on_both_sides(name: OutlineName) -> None:
    found = corners(name)
    shape = Polygon(found)
    assert shape.is_valid and shape.exterior.is_ccw
    mirrored = Polygon([(a, -z) for a, z in found])
    assert shape.symmetric_difference(mirrored).area < 0.02 * shape.area
    assert found[0][0] == pytest.approx(max(a for a, _ in found)), "it begins at the neck's tip"


def test_sizes_are_what_was_asked_for() -> None:
    assert Polygon(corners("square")).exterior.length == pytest.approx(36)
    assert Polygon(corners("diamond")).area == pytest.approx(81)
    assert Polygon(corners("round")).exterior.length == pytest.approx(math.pi * 12, rel=0.001)
    for name in ("oval", "marquise", "heart"):
        low, bottom, high, top = Polygon(corners(name)).bounds
        assert high - low == pytest.approx(12, rel=0.02), name
        assert top - bottom == pytest.approx(8, rel=0.02), name
    # A regular pentagon of side s covers s²·√(25 + 10√5)/4 (any table of polygons).
    assert Polygon(corners("polygon")).area == pytest.approx(81 * math.sqrt(25 + 10 * math.sqrt(5)) / 4)


def test_a_path_is_laid_along_the_band_and_scaled() -> None:
    low, _, high, _ = Polygon(corners("path", LEAF)).bounds
    assert (low, high) == pytest.approx((-6, 6), abs=0.02)
    # By hand: y = 9t(1 − t), x′ = 6 + 12t(1 − t); ∫ y x′ dt = 9·(6/6 + 12/30) = 12.6 on each side.
    assert Polygon(corners("path", LEAF)).area / 1.5**2 == pytest.approx(25.2, rel=0.002)


@pytest.mark.parametrize(
    ("path", "reason"),
    [
        ("", "no outline stands there"),
        ("a heart", "can't be read"),
        ("M0 0 L 4 2 L 8 0 Z", "two halves differ"),
        ("M 0 0 L 1 1 L 2 0 Z M 5 5 L 6 6 L 7 5 Z", "pieces"),
        ("M 0 0 L 0 0 Z", ""),
        ("M 0 0 H 1e400 Z", ""),
    ],
)
def test_what_is_no_outline_is_refused_at_the_path(path: str, reason: str) -> None:
    with pytest.raises(Refusal) as refused:
        corners("path", path)
    (fault,) = refused.value.faults
    assert fault.field == "head.path"
    assert fault.accepted
