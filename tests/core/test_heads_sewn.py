"""Heads of fine wire that are sewn on: hoops, their beads, discs of spikes."""

import itertools
import math
from typing import Any

import pytest
from shapely import get_coordinates
from shapely.geometry import LineString, Point

from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.moves.hoop_wrap import BeadTurn, Hoop, HoopWrap
from pliant_coil.core.moves.spike import Spike
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.words.refusal import Refusal
from tests.core.polylines import perimeter
from tests.core.test_check_values import made_at

# Spiked disc


@pytest.mark.parametrize(
    ("wire", "head", "folds", "hoop", "wraps", "spikes"),
    [
        (0.4, {}, (6.50, 3.54), 40.2, 106.8, 133.5),
        (0.3, {"rod_mm": 5, "spikes": 8, "long_mm": 4.5, "short_mm": 2.5}, None, 33.3, 65.1, 86.0),
    ],
)
def test_discs(wire: float, head: dict[str, Any], folds: tuple[float, float] | None, hoop: float, wraps: float, spikes: float) -> None:
    document = {
        "wires": {"sew": {"diameter": f"{wire} mm"}},
        "band": {"style": "woven", "close": "eyes"},
        "head": {"style": "spiked-disc", **head},
    }
    made = made_at(18.0, document)
    piece = made.work.pieces[0]

    def of(*kinds: str) -> float:
        return sum(p.length_mm for p in piece.moves if p.id.split(".")[1] in kinds)

    assert of("hoop") == pytest.approx(hoop, abs=0.1)
    assert of("start", "wraps") == pytest.approx(wraps, rel=0.012)
    assert of("spike") == pytest.approx(spikes, rel=0.005)
    if folds:
        moves = [p.move for p in piece.moves if isinstance(p.move, Spike)]
        assert sorted({round(m.fold_mm, 2) for m in moves}, reverse=True) == pytest.approx(list(folds), abs=0.01)
        assert of("crystal", "anchor") == pytest.approx(45.5, abs=0.1)


@pytest.mark.parametrize(("w", "d", "belt"), [(0.4, 0.9, 5.46), (0.3, 0.8, 4.44)])
def test_a_stitch_is_a_belt_round_two_wires(w: float, d: float, belt: float) -> None:
    document = {
        "wires": {"sew": {"diameter": f"{w} mm"}, "base": {"diameter": f"{d} mm"}},
        "band": {"style": "woven", "close": "eyes", "eye_mm": 1.5},
        "head": {"style": "spiked-disc", "wraps_between": 2},
    }
    assert made_at(18.0, document).work.facts.belt_mm == pytest.approx(belt, abs=0.01)
    apart = w + (w + d) / 2
    hull = Point(0, 0).buffer(w, quad_segs=4000).union(Point(apart, 0).buffer((d + w) / 2, quad_segs=4000)).convex_hull
    assert perimeter(hull) == pytest.approx(belt, abs=0.01)


def test_too_many_spikes_for_the_hoop_are_refused_with_what_closes() -> None:
    with pytest.raises(Refusal) as refused:
        plan(read_ring({"head": {"style": "spiked-disc", "spikes": 16, "wraps_between": 5}}))
    assert refused.value.faults[0].field == "head.wraps_between"


# Beaded hoops


@pytest.mark.parametrize(
    ("d", "w", "b", "inside", "stands", "plain", "beaded"),
    [(0.8, 0.4, 2.0, 12.0, 1.34, 5.37, 7.37), (1.0, 0.3, 3.0, 14.0, 1.94, 6.08, 9.98)],
)
def test_a_bead_turn_is_the_hull_of_wires_and_hole(
    d: float, w: float, b: float, inside: float, stands: float, plain: float, beaded: float
) -> None:
    reach = math.sqrt((b / 2 + d / 2) ** 2 - (d / 2) ** 2)
    assert reach == pytest.approx(stands, abs=0.01)
    hoop, pair, fine = (
        Hoop((0, 0, 0), (inside + d) / 2, (0, 1, 0), (1, 0, 0)),
        Bundle(((0, -d / 2), (0, d / 2)), d / 2),
        Profile("round", w),
    )
    turn = BeadTurn("bead", 1, pair, fine, hoop, 0.0, 0.1, bead_mm=b, reach_mm=reach)
    assert HoopWrap("wrap", 1, pair, fine, hoop, 0.0, 0.1).loop_mm == pytest.approx(plain, abs=0.01)
    assert turn.loop_mm == pytest.approx(beaded, abs=0.01)
    discs = [Point(0, s * d / 2).buffer((d + w) / 2, quad_segs=2000) for s in (-1, 1)]
    hull = discs[0].union(discs[1]).union(LineString([(reach, -b / 2), (reach, b / 2)])).convex_hull
    assert turn.loop_mm == pytest.approx(perimeter(hull), abs=0.001)


def test_beads_and_their_gaps_close_each_hoop() -> None:
    made = made_at(17.3, {"wires": {"coil": {"diameter": "0.8 mm", "temper": "soft"}}, "head": {"style": "beaded-hoops"}})
    edges, _ = made.work.facts
    for edge in edges:
        out = edge.hoop.radius_mm + edge.reach_mm
        around = edge.beads * 2 * math.asin((2.0 + edge.gap_mm) / (2 * out))
        assert around == pytest.approx(2 * math.pi, abs=1e-6)
        assert 0 <= edge.gap_mm < 2.0
    crossing = made.work.facts[0]
    apart = math.dist(crossing[0].hoop.centre[::2], crossing[1].hoop.centre[::2])
    assert apart == pytest.approx(0.65 * (crossing[0].hoop.radius_mm + crossing[1].hoop.radius_mm))


@pytest.mark.parametrize(
    ("pattern", "spikes", "heights"),
    [(["L", "S", "S"], 9, "LSSLSSLSS"), ("own", 8, "LLSSLLSS"), ("alternate", 6, "LSLSLS"), ("same", 5, "LLLLL")],
)
def test_spikes_stand_in_the_pattern_that_was_asked_for(pattern: object, spikes: int, heights: str) -> None:
    head = {"style": "spiked-disc", "pattern": pattern, "spikes": spikes, **({"groups": "L L, S S"} if pattern == "own" else {})}
    (piece,) = made_at(17.3, {"head": head}).work.pieces
    found = [p.move for p in piece.moves if isinstance(p.move, Spike)]
    assert "".join("L" if spike.height_mm == 5.5 else "S" for spike in found) == heights
    # Evenly round the disc: each stands as far from the next as all of them do.
    turned = [spike.from_rad for spike in found]
    assert max(b - a for a, b in itertools.pairwise(turned)) == pytest.approx(min(b - a for a, b in itertools.pairwise(turned)))


@pytest.mark.parametrize(
    ("groups", "spikes", "accepted"), [("LSS", 10, "9 or 12"), ("LLLSSS", 8, "6 or 12"), ("XYZ", 9, "LSS"), ("", 9, "LSS")]
)
def test_a_pattern_that_doesnt_close_is_refused_with_the_nearest_that_do(groups: str, spikes: int, accepted: str) -> None:
    head = {"style": "spiked-disc", "pattern": "own", "groups": groups, "spikes": spikes}
    with pytest.raises(Refusal) as refused:
        plan(read_ring({"head": head}))
    assert accepted in str(refused.value.faults[0])


HOOPS = [{"rod_mm": 12}, {"rod_mm": 9}, {"rod_mm": 9}]


def test_hoops_lie_where_they_are_put_and_on_what_they_are_put() -> None:
    places = [{}, {"x_mm": 7, "z_mm": 2}, {"x_mm": 11, "z_mm": -4, "on_top_of": 2}]
    edges, _ = made_at(18.0, {"head": {"style": "beaded-hoops", "hoops": HOOPS, "layout": places}}).work.facts
    assert [(e.hoop.centre[0], e.hoop.centre[2]) for e in edges] == [(0, 0), (7, 2), (11, -4)]
    layers = [e.hoop.centre[1] - edges[0].hoop.centre[1] for e in edges]
    assert layers[0] == 0 < layers[1] < layers[2] and [e.below for e in edges] == [None, 0, 1]
    # Where the second lies on the first, by circles drawn and cut by another library.
    first, second = (Point(e.hoop.centre[0], e.hoop.centre[2]).buffer(e.hoop.radius_mm, quad_segs=4000).boundary for e in edges[:2])
    ties = [p.move for piece in made_at(18.0, {"head": {"style": "beaded-hoops", "hoops": HOOPS, "layout": places}}).work.pieces for p in piece.moves
            if p.id.startswith("sew.2.") and p.id.endswith("tie")]  # fmt: skip
    at = sorted((tie.hoop.at(tie.from_rad)[0], tie.hoop.at(tie.from_rad)[2]) for tie in ties if isinstance(tie, HoopWrap))
    met = sorted((float(x), float(z)) for x, z in get_coordinates(first.intersection(second)))
    assert [math.dist(a, b) for a, b in zip(at, met, strict=True)] == pytest.approx([0, 0], abs=0.01)


@pytest.mark.parametrize(
    ("places", "field"),
    [
        ([{}, {"x_mm": 12}], "head.hoops.1.x_mm"),
        ([{}, {"x_mm": 0.5}], "head.hoops.1.rod_mm"),
        ([{}, {}], "head.hoops.1.x_mm"),
        ([{}, {"x_mm": 7, "on_top_of": 3}, {"x_mm": -7}], "head.hoops.1.on_top_of"),
    ],
)
def test_hoops_that_dont_meet_are_refused(places: list[dict[str, float]], field: str) -> None:
    with pytest.raises(Refusal) as refused:
        plan(read_ring({"finger": {"size": "US 9"}, "head": {"style": "beaded-hoops", "layout": places}}))
    assert refused.value.faults[0].field == field


def test_hoops_that_cross_flat_and_beads_in_the_way_are_told() -> None:
    def codes(x: float) -> set[str]:
        head = {"style": "beaded-hoops", "hoops": HOOPS[:2], "layout": [{}, {"x_mm": x}]}
        return {w.code for w in plan(read_ring({"finger": {"size": "US 9"}, "head": head})).warnings}

    # Of radii 6.5 and 5 the angle is acos((6.5² + 5² − x²)/(2 · 6.5 · 5)): 35° at x = 3.7.
    assert "hoops-cross-flat" in codes(2.5) and "hoops-cross-flat" not in codes(7)
    assert "bead-makes-room" in codes(7)
