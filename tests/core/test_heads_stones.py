"""Heads that hold a stone without a hole."""

import itertools
import math
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from scipy.integrate import quad
from shapely import affinity
from shapely.geometry import LineString, MultiPoint, Point

from pliant_coil.core.mechanics.over_stone import Ellipsoid, Slab
from pliant_coil.core.moves.halo import Halo
from pliant_coil.core.plan.build import plan
from pliant_coil.core.plan.model import Plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.heads.cage import Cage
from pliant_coil.core.words.refusal import Refusal
from tests.core.polylines import perimeter
from tests.core.test_check_values import made_at

# Wrapped stone


@pytest.mark.parametrize(
    ("halo", "expected"),
    [
        (Halo("", 4.5, 4.5, 4, 3, 1.3, 0), 121.6),
        (Halo("", 4, 4, 4, 2, 1.2, 0), 65.3),
        (Halo("", 6, 4, 4, 3, 1.2, 0), 129.1),
        (Halo("", 4, 4, 4, 2, 1.2, 0, climbing=True), 56.8),
    ],
)
def test_turns_round_a_stone(halo: Halo, expected: float) -> None:
    assert halo.length_mm == pytest.approx(expected, rel=0.004)


def test_a_wrapped_stone_in_twisted_strip() -> None:
    document = {
        "wires": {"band": {"diameter": "0.9 mm"}},
        "band": {"style": "crossed", "winding": "one-way", "worked": {"lay_mm": 7}},
        "head": {"style": "wrapped-stone", "lock_at_deg": 50},
    }
    made = made_at(18.0, document)
    band = made.pieces[0]
    assert sum(p.laid_mm for p in band.moves) == pytest.approx(274, rel=0.005)
    assert band.net_mm == pytest.approx(277, rel=0.005)
    tie = next(piece for piece in made.pieces if piece.role == "tie")
    assert tie.net_mm == 0, "the tie comes out again"


# Cage

STONE = Ellipsoid(18.0, 13.0, 8.0)


@pytest.mark.parametrize(
    ("lock", "tilt", "crosses", "expected"),
    [
        ((8.0, -0.8), 0.0, 0.0, 32.4),
        ((8.0, -0.8), 0.457, 3.93, 31.3),
        ((8.0, -0.8), 0.597, 5.0, 30.4),
        ((6.75, -2.8), 0.375, 3.93, 35.2),
        ((6.75, -2.8), 0.0, 0.0, 37.0),
    ],
)
def test_passes_over_a_stone(lock: tuple[float, float], tilt: float, crosses: float, expected: float) -> None:
    section = STONE.over(lock, 0.8, tilt)
    way = section.in_space(0.0)
    assert sum(math.dist(a, b) for a, b in itertools.pairwise(way)) == pytest.approx(expected, abs=0.06)
    assert section.crosses_mm == pytest.approx(crosses, abs=0.03)


def test_a_taut_way_is_the_hull_of_the_stone_grown_by_the_wire() -> None:
    a, c = STONE.length_mm / 2, STONE.height_mm / 2
    ellipse = Point(0, 0).buffer(1, quad_segs=4000)
    grown = LineString([(a * x, c + c * y) for x, y in list[tuple[float, float]](ellipse.boundary.coords)]).convex_hull.buffer(
        0.4, quad_segs=200
    )
    hull = grown.union(LineString([(-8, -0.8), (8, -0.8)])).convex_hull
    taut = perimeter(hull) - 16
    way = STONE.over((8.0, -0.8), 0.8, 0.0).in_space(0.0)
    assert sum(math.dist(p, q) for p, q in itertools.pairwise(way)) == pytest.approx(taut, abs=0.15)


def test_a_slab_is_passed_like_a_box_with_rounded_edges() -> None:
    slab = Slab(14, 10, 5, 1.5)
    way = slab.over((8.0, -1.0), 0.8, 0.0).in_space(0.0)
    box = LineString([(-5.5, 1.5), (5.5, 1.5), (5.5, 3.5), (-5.5, 3.5)]).convex_hull.buffer(1.9, quad_segs=400)
    hull = box.union(LineString([(-8, -1), (8, -1)])).convex_hull
    assert sum(math.dist(p, q) for p, q in itertools.pairwise(way)) == pytest.approx(perimeter(hull) - 16, abs=0.1)


def test_a_diagonal_is_longer_than_it_looks_and_both_lean_alike() -> None:
    one, other = (STONE.across((8.0, -0.8), 0.8, turn).in_space(0.0) for turn in (0.6, -0.6))
    lengths = [sum(math.dist(p, q) for p, q in itertools.pairwise(way)) for way in (one, other)]
    assert lengths[0] == pytest.approx(lengths[1])
    assert max(z for *_, z in one) == pytest.approx(-min(z for *_, z in other))


def test_jogs_take_up_the_slack() -> None:
    one = Cage()._jog_takes()
    arc, _ = quad(lambda s: math.hypot(1, 2 * math.pi * 0.8 / 5 * math.cos(2 * math.pi * s / 5)), 0, 5)
    assert one == pytest.approx(arc - 5, abs=1e-6) == pytest.approx(1.09, abs=0.005)
    told = plan(read_ring({"wires": {"band": {"diameter": "0.8 mm"}}, "head": {"style": "cage"}}), paths=True)
    assert told.drawing is not None
    lengths = {m.id: m.length_mm for w in told.wires for m in w.moves}
    for strand in told.drawing.strands:
        if ".pass." in strand.id:
            assert float(np.linalg.norm(np.diff(np.array(strand.points), axis=0), axis=1).sum()) == pytest.approx(
                lengths[strand.id], rel=0.01
            )


@pytest.mark.parametrize("lies", ["flat", "climbing"])
@pytest.mark.parametrize("turns", [1, 2, 3, 4])
def test_the_temporary_tie_holds_every_turn_and_is_no_part_of_the_ring(lies: str, turns: int) -> None:
    """Its way is drawn, and looked at on the drawing: every turn passes inside its rounds, on both sides of the stone."""
    document = {
        "finger": {"size": "US 9"},
        "band": {"style": "crossed"},
        "head": {"style": "wrapped-stone", "nest_turns": turns, "lies": lies},
    }
    told = plan(read_ring(document), paths=True)
    assert told.drawing is not None
    (tie,) = (s for s in told.drawing.strands if s.role == "tie")
    (halo,) = (s for s in told.drawing.strands if s.kind == "nest")
    crossings = [
        (a[2] + (b[2] - a[2]) * a[0] / (a[0] - b[0]), a[1] + (b[1] - a[1]) * a[0] / (a[0] - b[0]))
        for a, b in pairwise(halo.points)
        if a[0] * b[0] < 0 or a[0] == 0
    ]
    assert len(crossings) == 2 * turns
    rounds = MultiPoint([(z, y) for x, y, z in tie.points if z > 0]), MultiPoint([(z, y) for x, y, z in tie.points if z < 0])
    for z, y in crossings:
        side = rounds[0] if z > 0 else rounds[1]
        held = side.convex_hull.buffer(-tie.height_mm / 2)
        assert held.contains(Point(z, y).buffer(0.9 * halo.height_mm / 2))
    wire = next(w for w in told.wires if w.role == "tie")
    assert {m.fate for m in wire.moves if m.id in ("tie.rounds", "tie.twist1")} == {"removed"}
    assert wire.net_mm == 0


@pytest.mark.parametrize("turns", [2, 3])
def test_the_long_end_of_a_wrapped_stone_locks_beside_the_strand_it_comes_from(turns: int) -> None:
    told = plan(read_ring(_wrapped(turns)), paths=True)
    assert told.drawing is not None
    lock, strand = (next(s for s in told.drawing.strands if s.id == name) for name in ("long.lock", "right.turns"))
    assert math.dist(lock.points[-1], strand.points[0]) < 0.02
    # A wrap goes round every other strand there: a wire wider for each, above and below (closed form, flat rows).
    lengths = [next(m.length_mm for w in ring.wires for m in w.moves if m.id == "long.lock") for ring in (told, _told(turns + 1))]
    assert (lengths[1] - lengths[0]) / 2 == pytest.approx(2 * lock.width_mm, rel=0.02)


def test_a_wrapped_stone_on_one_strand_finds_nothing_to_lock_round() -> None:
    with pytest.raises(Refusal, match="no other strand"):
        _told(1)


def _wrapped(turns: int) -> dict[str, Any]:
    return {
        "finger": {"size": "US 7"},
        "band": {"style": "turned", "winding": "one-way", "turns": turns},
        "head": {"style": "wrapped-stone", "lock_at_deg": 50, "pressed_locks": False},
    }


def _told(turns: int) -> Plan:
    return plan(read_ring(_wrapped(turns)))


# Prongs


@pytest.mark.parametrize("shape", ["round", "oval"])
@pytest.mark.parametrize("bases", [3, 4])
def test_prongs_stand_at_even_angles_round_a_stone_without_corners(shape: str, bases: int) -> None:
    """Seen from above, in the stone's own measure (an oval is a circle drawn out), on its edge but for half a wire."""
    stone: dict[str, Any] = {"shape": shape, "length_mm": 14, "width_mm": 14 if shape == "round" else 11}
    document = {"finger": {"size": "US 9"}, "band": {"style": "woven", "base_wires": bases}, "head": {"style": "prongs", "stone": stone}}
    told = plan(read_ring(document), paths=True)
    assert told.drawing is not None
    d = next(w.width_mm for w in told.wires if w.role == "base")
    a, b = stone["length_mm"] / 2, stone["width_mm"] / 2
    edge = affinity.scale(Point(0, 0).buffer(1, 512), a, b).exterior
    angles = []
    for prong in (s for s in told.drawing.strands if s.kind == "prong"):
        # Its wall: the side that rises most, whichever way the wire is led.
        foot, _ = max(pairwise(prong.points), key=lambda side: abs(side[1][1] - side[0][1]))
        stands = Point(foot[0], foot[2])
        assert edge.distance(stands) == pytest.approx(d / 2, abs=0.01)
        touches = edge.interpolate(edge.project(stands))
        angles.append(math.degrees(math.atan2(touches.y / b, touches.x / a)) % 360)
    apart = 360 / (2 * bases - 2)
    assert np.diff(sorted(angles)) == pytest.approx(apart, abs=0.5)
    assert "prongs-off-corners" not in {w.code for w in told.warnings}


@pytest.mark.parametrize(
    "band",
    [{"style": "woven", "close": "eyes"}, {"style": "braided"}, {"style": "bundled"}, {"style": "stacked"}],
    ids=lambda b: b["style"],
)
def test_a_cage_on_a_closed_band_is_made_of_a_wire_of_its_own(band: dict[str, Any]) -> None:
    """It lies under the stone and goes round all of the band on both sides first: looked at on the drawn wires."""
    told = plan(read_ring({"finger": {"size": "US 9"}, "band": band, "head": {"style": "cage"}}), paths=True)
    assert told.drawing is not None
    own = {s.id: s for s in told.drawing.strands if s.role == "coil"}
    under = own["coil.under"].points
    (stone,) = told.drawing.beads
    assert max(y for _, y, _ in under) <= stone.y_mm - stone.height_mm / 2 + 0.05
    assert len([i for i in own if ".pass." in i]) == 3
    others = [s for s in told.drawing.strands if s.role != "coil"]
    for name, sign in (("coil.left.anchor", -1), ("coil.right.anchor", 1)):
        turns = own[name].points
        angle = sum(math.atan2(x, y) for x, y, _ in turns) / len(turns)
        assert sign * angle > 0
        loop = MultiPoint([(z, math.hypot(x, y)) for x, y, z in turns]).convex_hull
        near = [(z, math.hypot(x, y)) for s in others for x, y, z in s.points if abs(math.atan2(x, y) - angle) < 0.03]
        assert near and all(loop.buffer(0.05).contains(Point(p)) for p in near)
    assert told.finished.inside_diameter_mm < told.start.inside_diameter_mm
    wire = next(w for w in told.wires if w.role == "coil")
    assert [m.label for m in wire.marks] == ["middle"]
