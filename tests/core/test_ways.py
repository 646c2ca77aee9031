"""Ways that a wire is led: round the band, over a row of beads, back from a sign; and for whom texts are written meanwhile."""

import math
from concurrent.futures import ThreadPoolExecutor
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import LineString, MultiPoint, Point, Polygon

from pliant_coil.core.mechanics.curves import length_mm, round_circle, taut_past
from pliant_coil.core.moves.straight import Lead
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader
from tests.core.polylines import perimeter
from tests.core.test_check_values import made_at

places = st.tuples(st.floats(-math.pi, math.pi), st.floats(0.0, 6.0), st.floats(-4.0, 4.0))


def at(place: tuple[float, float, float], radius: float) -> tuple[float, float, float]:
    angle, out, z = place
    return ((radius + out) * math.sin(angle), (radius + out) * math.cos(angle), z)


@given(
    st.tuples(st.floats(-9, -2), st.floats(-2, 2)),
    st.tuples(st.floats(2, 9), st.floats(-2, 2)),
    st.lists(st.tuples(st.floats(-1.9, 1.9), st.floats(-3, 3)), min_size=3, max_size=12),
)
def test_a_taut_way_past_a_body_is_the_lower_side_of_the_hull(
    start: tuple[float, float], end: tuple[float, float], body: list[tuple[float, float]]
) -> None:
    way = taut_past(start, end, body)
    assert (way[0], way[-1]) == (start, end)
    # What lies above the line between the feet holds no wire that is led past below.
    rise = (end[1] - start[1]) / (end[0] - start[0])
    above = [(x, y) for x, y in body if y >= start[1] + rise * (x - start[0])]
    assert length_mm(way) == pytest.approx(around([start, end, *body]) - around([start, end, *above]) + math.dist(start, end), abs=1e-6)


def around(points: list[tuple[float, float]]) -> float:
    hull = MultiPoint(points).convex_hull
    return float(hull.exterior.length if isinstance(hull, Polygon) else 2 * hull.length)


@given(places, places)
def test_a_taut_way_stays_off_the_circle_and_is_no_longer_than_it_has_to_be(
    one: tuple[float, float, float], other: tuple[float, float, float]
) -> None:
    start, end = at(one, 9.0), at(other, 9.0)
    way = round_circle(start, end, 9.0)
    assert (way[0], way[-1]) == (start, end)
    line = LineString([(x, y) for x, y, _ in way])
    # An arc is cut into chords, each within the drawing's tolerance of it.
    assert line.distance(Point(0, 0)) >= 9.0 - 0.021
    assert math.dist(start, end) - 1e-9 <= length_mm(way) <= length_mm(round_circle(end, start, 9.0)) + 1e-9
    assert all((b[2] - a[2]) * (end[2] - start[2]) > -1e-9 for a, b in pairwise(way)), "it drifts one way only"


@settings(max_examples=40, deadline=None)
@given(st.floats(0.2, 2.8), st.floats(0.0, 5.0), st.floats(0.0, 5.0))
def test_a_taut_way_is_the_hull_of_circle_and_ends(apart: float, out: float, further: float) -> None:
    start, end = at((0.0, out, 0.0), 9.0), at((apart, further, 0.0), 9.0)
    way = round_circle(start, end, 9.0)
    circle = Point(0, 0).buffer(9.0, quad_segs=800)
    if len(way) == 2:
        assert LineString([start[:2], end[:2]]).distance(Point(0, 0)) >= 9.0 - 1e-6
        return
    # Round all of circle and both ends, less what is round the circle with each end alone on its far side.
    whole = perimeter(MultiPoint([start[:2], end[:2], *circle.exterior.coords]).convex_hull)
    tangents = [math.sqrt(max(0.0, math.hypot(x, y) ** 2 - 81)) for x, y, _ in (start, end)]
    far = [math.acos(min(1.0, 9 / math.hypot(x, y))) for x, y, _ in (start, end)]
    back = 9 * (2 * math.pi - apart - sum(far)) + sum(tangents)
    assert length_mm(way) == pytest.approx(whole - back, abs=0.03)


def test_a_lead_without_a_circle_is_straight() -> None:
    lead = Lead("lead", (-8.0, 4.0, 0.0), (8.0, 4.0, 1.0))
    assert lead.path() == [lead.start, lead.end]
    assert lead.length_mm == pytest.approx(math.hypot(16, 1))
    led = Lead("lead", lead.start, lead.end, 8.0)
    assert led.length_mm > lead.length_mm
    assert min(math.hypot(x, y) for x, y, _ in led.path()) == pytest.approx(8.0)


@pytest.mark.parametrize("beads", ["4 4 4", "4 5 4", "5 3 5"])
def test_a_tail_over_a_row_touches_beads_and_cuts_none(beads: str) -> None:
    made = made_at(18.0, {"head": {"style": "bead-lock", "beads": beads, "pass_by": "under-over"}})
    over = next(p for led in made.work.onward.values() for p in led if p.move.label == "over")
    flat = LineString([(x, y) for x, y, _ in over.path()])
    wire = made.pieces[0].wire.height_mm
    gaps = [flat.distance(Point(*stone.centre[:2])) - (stone.height_mm + wire) / 2 for stone in made.stones]
    assert min(gaps) == pytest.approx(0, abs=0.03), "it lies on the outer ones"
    assert all(gap > -0.03 for gap in gaps)
    assert sum(math.dist(a, b) for a, b in pairwise(over.path())) == pytest.approx(over.length_mm, rel=0.002)


def test_a_sign_whose_tails_come_back_too_far_round_is_refused() -> None:
    head: dict[str, Any] = {"style": "outline", "sign": "loops", "loops_count": 3, "rod_mm": 8, "tip_to": "side"}
    ring = {"finger": {"size": "US 5"}, "wires": {"band": {"diameter": "1.2 mm"}}, "band": {"style": "open"}, "head": head}
    with pytest.raises(Refusal) as refused:
        plan(read_ring(ring))
    assert [fault.field for fault in refused.value.faults] == ["head.tip_to"]


def test_readers_at_the_same_time_each_read_their_own_units() -> None:
    told = plan(read_ring({"head": {"style": "nest"}}))
    readers = [Reader("mm", ("us",)), Reader("in", ("uk",))] * 20
    with ThreadPoolExecutor(8) as pool:
        found = list(pool.map(lambda reader: told.document(reader)["wires"][0]["cut"], readers))
    assert found == [told.document(reader)["wires"][0]["cut"] for reader in readers]
    assert found[0].split(" mm")[0] != found[1].split(" in")[0]


@pytest.mark.parametrize("turns", [1, 2, 3])
@pytest.mark.parametrize("gather", ["none", "under-pass", "tail-wraps"])
@pytest.mark.parametrize("row", ["3 × 4", "4 5 4"])
def test_a_row_that_drifts_along_the_finger_is_as_long_as_it_is_drawn(row: str, gather: str, turns: int) -> None:
    for size in (15.0, 18.0, 21.0):
        head = {"style": "bead-lock", "beads": row}
        made = made_at(size, {"band": {"style": "turned", "turns": turns, "gather": gather}, "head": head})
        passes = [placed for piece in made.pieces for placed in piece.moves if placed.id.endswith(".pass")]
        assert len(passes) == 2
        for placed in passes:
            assert length_mm(placed.path()) == pytest.approx(placed.laid_mm, rel=0.003), placed.id
