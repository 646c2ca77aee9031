"""Where solder holds a stack, as it is drawn: looked at on the drawn wires themselves."""

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from pliant_coil.core.making.planned import planned
from pliant_coil.core.plan.build import plan
from pliant_coil.core.plan.model import Drawing
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.words.refusal import Refusal

HOUSE = {"finger": {"size": "US 10"}}


def drawing_of(band: dict[str, Any], head: dict[str, Any]) -> Drawing:
    drawn = plan(read_ring({**HOUSE, "band": {"style": "stacked", **band}, "head": head}), paths=True).drawing
    assert drawn is not None
    return drawn


def off(point: Sequence[float], line: Sequence[Sequence[float]]) -> float:
    """How far a point stands off a polyline."""
    least = math.inf
    for a, b in pairwise(line):
        ab = [q - p for p, q in zip(a, b, strict=True)]
        whole = sum(v * v for v in ab) or 1.0
        share = max(0.0, min(1.0, sum((c - p) * v for c, p, v in zip(point, a, ab, strict=True)) / whole))
        least = min(least, math.dist(point, [p + share * v for p, v in zip(a, ab, strict=True)]))
    return least


def angle(point: Sequence[float]) -> float:
    """From the top."""
    return math.atan2(point[0], point[1])


@given(
    st.integers(3, 6),
    st.sampled_from(("top", "spread")),
    st.integers(20, 300),
    st.integers(0, 25),
    st.sampled_from(({"style": "none"}, {"style": "wave"}, {"style": "wave", "half_waves": 5, "jitter_share": 0.3})),
)
@settings(max_examples=40, deadline=None)
def test_every_ring_has_one_seam_on_it_and_none_lies_under_the_solder(
    rings: int, seams: str, soldered: int, stagger: int, head: dict[str, Any]
) -> None:
    try:
        drawn = drawing_of({"rings": rings, "seams": seams, "soldered_deg": soldered, "stagger_deg": stagger}, head)
    except Refusal:
        return
    found = [s.points for s in drawn.soldered if s.what == "seam"]
    backs = [s.points for s in drawn.soldered if s.what == "back"]
    assert (len(found), len(backs)) == (rings, rings - 1)
    lanes = [s.points for s in drawn.strands if s.kind in ("arc", "course")]
    for seam in found:
        # Its middle lies in its ring's metal.
        middle = [(a + b) / 2 for a, b in zip(seam[0], seam[2], strict=True)]
        assert min(off(middle, lane) for lane in lanes) < 0.12
        assert all(abs(angle(seam[0])) < abs(angle(end)) - math.radians(2) for back in backs for end in (back[0], back[-1]))


@pytest.mark.parametrize("crests", [3, 4, 5, 6])
@pytest.mark.parametrize("flat", [True, False])
def test_neighbours_touch_where_their_contact_is_drawn(crests: int, flat: bool) -> None:
    band, head = {"rings": 4}, {"style": "wave", "half_waves": crests, "flat_ends": flat, "contacts_min": 1}
    drawn = drawing_of(band, head)
    waves = planned(read_ring({**HOUSE, "band": {"style": "stacked", **band}, "head": head})).made.work.facts
    contacts = [s.points[0] for s in drawn.soldered if s.what == "contact"]
    assert len(contacts) == sum(waves.contacts)
    lanes = [s.points for s in drawn.strands if s.kind == "course"]
    for contact in contacts:
        near = sorted(off(contact, lane) for lane in lanes)[:2]
        assert near == pytest.approx([waves.stack.thick_mm / 2] * 2, abs=0.06)


@pytest.mark.parametrize("crests", [4, 5])
def test_tubes_that_the_windows_take_stand_clear_of_the_lanes(crests: int) -> None:
    band, head = {"rings": 5}, {"style": "wave", "half_waves": crests, "amplitude_mm": 0.8}
    waves = planned(read_ring({**HOUSE, "band": {"style": "stacked", **band}, "head": head})).made.work.facts
    tube = math.floor(20 * waves.window_mm) / 20
    drawn = drawing_of(band, {**head, "settings": {"diameter_mm": tube, "count": 3}})
    tubes = [s.points for s in drawn.soldered if s.what == "tube"]
    assert len(tubes) == 3
    for points in tubes:
        # On the height of the lanes' middle lines: half-way between both rims.
        half = len(points) // 2
        level = [[(a + b) / 2 for a, b in zip(up, down, strict=True)] for up, down in zip(points[:half], points[half:], strict=True)]
        for lane in (s.points for s in drawn.strands if s.kind == "course"):
            assert min(off(p, lane) for p in level) > waves.stack.thick_mm / 2 - 0.06
