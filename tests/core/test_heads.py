"""Every head against figures worked out apart from this code: closed forms, integrals and hulls by general libraries.

Whole rings' lengths and sizes stand for what makers do (common practice, no source).
"""

import itertools
import math
from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from scipy.integrate import quad
from scipy.optimize import brentq
from shapely.affinity import scale
from shapely.geometry import LineString, MultiPoint, Point, Polygon, box
from shapely.geometry.base import BaseGeometry

from pliant_coil.core.mechanics.framing import Edge, EdgeShape, Frame, band_lead
from pliant_coil.core.mechanics.hulls import Bundle
from pliant_coil.core.mechanics.program import read_program
from pliant_coil.core.mechanics.weave import Weave
from pliant_coil.core.moves import BeadTurn, Halo, Hoop, HoopWrap, Spike, Spiral, Strung
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.contract import Stack
from pliant_coil.core.styles.heads.cage import Cage, Rough, across_ellipsoid, over_ellipsoid, over_slab
from pliant_coil.core.styles.heads.interlace import knot_for
from pliant_coil.core.styles.heads.outline import Outline
from pliant_coil.core.styles.heads.swirl import Face, half_ellipse_mm
from pliant_coil.core.styles.heads.wave import Waves
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.words.refusal import Refusal
from tests.core.polylines import closest, dense
from tests.core.test_check_values import made_at, net


def perimeter(shape: Any) -> float:
    """Once round a convex body."""
    return float(shape.boundary.length)


def head_mm(document: dict[str, Any], form: float) -> dict[str, float]:
    """What each end of the head takes, by its name."""
    made = made_at(form, document)
    found: dict[str, float] = {}
    for led in made.work.onward.values():
        for placed in led:
            side = placed.id.split(".")[0]
            found[side] = found.get(side, 0.0) + placed.length_mm
    return found


# Bead rows


@pytest.mark.parametrize(
    ("beads", "d", "form", "row", "half_angle"),
    [((5, 5, 5), 0.8, 17.5, 23.1, 1.069), ((4, 8, 4), 0.65, 18.5, 23.8, 1.020), ((6,), 0.8, 16.5, 14.4, None)],
)
def test_a_row_is_the_hull_of_its_holes_and_the_band(
    beads: tuple[float, ...], d: float, form: float, row: float, half_angle: float | None
) -> None:
    strung = Strung(beads, form / 2, form / 2 + d / 2)
    assert strung.length_mm == pytest.approx(row, abs=0.06)
    if half_angle:
        assert strung.angle_rad / 2 == pytest.approx(half_angle, abs=0.001)
    # By another road: what a taut wire round the band's circle and the holes is longer than the circle itself.
    middles = [(r * math.sin(a), r * math.cos(a)) for a, r in strung.corners()[1:-1]]
    circle = Point(0, 0).buffer(strung.radius_mm, quad_segs=20_000)
    hull = MultiPoint([*middles, *circle.boundary.coords]).convex_hull
    excess = perimeter(hull) - 2 * math.pi * strung.radius_mm
    assert strung.length_mm - strung.angle_rad * strung.radius_mm == pytest.approx(excess, abs=0.01)


@pytest.mark.parametrize(
    ("form", "wire", "head", "wraps", "whole", "off"),
    [
        (17.5, "0.8 mm", {"middle_beads": "5 5 5", "side_beads": "4 4 4"}, 2, 173.3, 16.31),
        (18.5, "0.65 mm", {"middle_beads": "4 8 4", "side_beads": "4 × 3"}, 3, 185.0, 17.54),
    ],
)
def test_rings_with_rows(form: float, wire: str, head: dict[str, Any], wraps: int, whole: float, off: float) -> None:
    made = made_at(
        form,
        {"wires": {"band": {"diameter": wire}}, "head": {"style": "bead-rows", "play_mm": 0, **head}, "finish": {"wraps_each_side": wraps}},
    )
    assert net(made, "band") == pytest.approx(whole, rel=0.003)
    assert made.finished_mm == pytest.approx(off, abs=0.03)


def test_play_is_wire_that_the_row_stands_off_with() -> None:
    loose, fixed = (made_at(17.5, {"head": {"style": "bead-rows", "play_mm": play}}) for play in (2.0, 0.0))
    assert net(loose, "band") - net(fixed, "band") == pytest.approx(6.0, abs=0.3)


def test_as_many_beads_as_fit_leave_a_little_bare() -> None:
    filled = made_at(17.5, {"head": {"style": "bead-rows", "side_beads": "fill"}})
    row = next(p.move for led in filled.work.onward.values() for p in led if p.id.endswith("row"))
    bare = row.length_mm - 1.5 - 3 * (row.count or 0)
    assert 5 <= bare < 5 + 2 * 3 + 1


# Loop rosette


@pytest.mark.parametrize(("first", "long", "turned", "ends"), [(3.8, 20.0, 4.565, 4.96), (5.2, 33.0, 5.583, 6.62)])
def test_a_row_wound_as_a_spiral(first: float, long: float, turned: float, ends: float) -> None:
    spiral = Spiral(first, 1.6, 0.0, 0.0, 1)
    assert spiral.turned_rad(long) == pytest.approx(turned, abs=0.002)
    assert spiral.radius_mm(long) == pytest.approx(ends, abs=0.01)
    kappa = 1.6 / (2 * math.pi)
    arc, _ = quad(lambda a: math.hypot(first + kappa * a, kappa), 0, spiral.turned_rad(long))
    assert arc == pytest.approx(long, rel=0.003)


@pytest.mark.parametrize(
    ("form", "wire", "turns", "loops", "bead", "whole", "off", "tie"),
    [(17.5, "0.65 mm", 1, (7, 7), 5, 477.8, 16.79, 29.8), (18.5, "0.8 mm", 2, (9, 6), 6, 681.7, 17.62, 48.2)],
)
def test_rosettes(form: float, wire: str, turns: int, loops: tuple[int, int], bead: float, whole: float, off: float, tie: float) -> None:
    document = {
        "wires": {"band": {"diameter": wire}},
        "band": {"style": "turned", "turns": turns, "gather": "tail-wraps", "gather_wraps": 2},
        "head": {
            "style": "loop-rosette",
            "seat_loop_mm": 4,
            "loops_inner": loops[0],
            "loops_outer": loops[1],
            "bead": {"diameter_mm": bead, "hole_mm": 0.6},
        },
        "finish": {"wraps_each_side": 2},
    }
    made = made_at(form, document)
    assert net(made, "band") == pytest.approx(whole, rel=0.005)
    assert made.finished_mm == pytest.approx(off, abs=0.03)
    assert net(made, "tie") == pytest.approx(tie, abs=0.1)


def test_what_a_maker_cuts_for_two_rows_and_how_many_loops_are_left() -> None:
    """20 ga, two turns each side, two 3 mm seat loops, rows of eight and eleven, both tails kept: about 760 mm (common practice)."""
    told = plan(
        read_ring(
            {
                "band": {"style": "turned", "turns": 2},
                "head": {
                    "style": "loop-rosette",
                    "seat_loop_mm": 3,
                    "petal_mm": 3.5,
                    "loops_inner": 8,
                    "loops_outer": 11,
                    "bead": {"diameter_mm": 4, "hole_mm": 0.6},
                },
            }
        )
    )
    band = next(w for w in told.wires if w.role == "band")
    assert band.cut_mm == pytest.approx(760, rel=0.03)
    assert band.more is not None
    spare = sum(m.length_mm for m in band.moves if m.kind == "spare")
    row = next(m for m in band.moves if m.kind == "loop-row")
    assert row.count is not None
    assert int(str(band.more.figures["n"]).split("=")[1].split(",")[0]) == 2 * math.floor(spare / 2 / (row.length_mm / row.count))


def test_the_loops_lean_so_that_the_bead_touches_them_all_round() -> None:
    made = made_at(
        17.5,
        {
            "wires": {"band": {"diameter": "0.65 mm"}},
            "head": {"style": "loop-rosette", "seat_loop_mm": 4, "bead": {"diameter_mm": 5, "hole_mm": 0.6}},
        },
    )
    facts = made.work.facts
    assert math.degrees(facts.lean_rad) == pytest.approx(34.6, abs=0.1)
    loop = next(p.move for p in made.work.through[0] if p.id == "head.seat1")
    from_middle = [math.dist(point, (0.0, facts.bead_y_mm, 0.0)) for point in loop.path()]
    assert from_middle == pytest.approx([2.83] * len(from_middle), abs=0.03)


# Framed bead


@pytest.mark.parametrize(
    ("inside", "d", "face", "thick", "meets", "theta", "lead", "weave", "inner", "outer", "repeats", "fine"),
    [
        (17.0, 1.0, 12, 4, 9.94, 92.9, 10.99, 50.6, 24.3, 26.5, 14, 286.4),
        (18.5, 0.8, 10, 3.5, 8.31, 80.3, 9.44, 53.9, 20.4, 22.3, 12, 210.7),
    ],
)
def test_frames(
    inside: float,
    d: float,
    face: float,
    thick: float,
    meets: float,
    theta: float,
    lead: float,
    weave: float,
    inner: float,
    outer: float,
    repeats: int,
    fine: float,
) -> None:
    pitch, radius = d + 0.4, inside / 2 + 0.4 + d / 2
    frame = Frame(Edge("round", face, face), 0.4 + d / 2, pitch, 2 * d + pitch / 2, d, inside / 2 + thick / 2)
    angle, straight = band_lead(frame, radius)
    assert (frame.meets_mm, math.degrees(angle), straight) == pytest.approx((meets, theta, lead), abs=0.06)
    assert 2 * (math.pi - angle) * radius + 2 * straight == pytest.approx(weave, abs=0.06)
    bead = face / 2 + 0.4 + d / 2
    stops = math.asin((pitch + d) / (2 * bead))
    to_half = [frame.arc_mm(side) + (bead + (0 if side else pitch)) * stops for side in (True, False)]
    assert to_half == pytest.approx([inner, outer], abs=0.06)
    program = Weave(read_program("A3 AB1", 2, ""), 2, d, 0.4, 0.4, 1.0)
    assert math.floor(frame.arc_mm(inner=True) / program.cycle_mm) == repeats
    assert repeats * program.wire_per_cycle_mm == pytest.approx(fine, abs=0.2)


def test_a_framed_bead_takes_so_much_of_each_wire() -> None:
    made = made_at(17.0, {"wires": {"base": {"diameter": "1 mm"}}, "band": {"style": "woven"}, "head": {"style": "framed-bead"}})
    bases = [piece.net_mm for piece in made.pieces if piece.role == "base"]
    assert bases == pytest.approx([135.2, 135.2], abs=0.2)
    second = next(piece for piece in made.pieces if piece.id == "weave.2")
    assert second.net_mm + 12 == pytest.approx(325.1, rel=0.003)
    assert made.finished_mm == pytest.approx(17.0, abs=0.001), "no size is lost by construction"


@pytest.mark.parametrize("turned", [False, True])
@pytest.mark.parametrize(
    "edge", [("oval", 14, 9, 0), ("oval", 9, 14, 0), ("rectangle", 14, 10, 1.5), ("rectangle", 8, 12, 2), ("drop", 15, 9, 1)]
)
def test_a_frame_keeps_its_distance_from_every_bead(edge: tuple[EdgeShape, float, float, float], turned: bool) -> None:
    shape, long, wide, corner = edge
    bead = Edge(shape, long, wide, corner, turned=turned)
    frame = Frame(bead, 0.9, 1.4, 2.7, 1.0, 10.0)
    # The outline by shapely, from its own parts: a scaled circle, a box grown by its corners, the hull of two circles.
    if shape == "oval":
        outline: BaseGeometry = scale(Point(0, 0).buffer(1, quad_segs=90), long / 2, wide / 2)
    elif shape == "rectangle":
        outline = box(-long / 2 + corner, -wide / 2 + corner, long / 2 - corner, wide / 2 - corner).buffer(corner, quad_segs=90)
    else:
        ends = Point(wide / 2 - long / 2, 0).buffer(wide / 2, quad_segs=90), Point(long / 2 - corner, 0).buffer(corner, quad_segs=90)
        outline = scale(ends[0].union(ends[1]).convex_hull, -1 if turned else 1, 1, origin=(0, 0))
    inner, outer = (LineString(frame.line(side)) for side in (True, False))
    assert outline.distance(inner) == pytest.approx(0.9, abs=0.01)
    assert inner.distance(outer) == pytest.approx(1.4, abs=0.01)
    assert inner.hausdorff_distance(outer) < 3, "both wires go the same way"
    line = frame.line(inner=True)
    # The shoulder's turn ends where it has turned by what is left to the edge's normal.
    turned_mm = (frame.shoulder_mm + frame.pitch_mm / 2) * (math.pi / 2 - frame.parts_rad)
    after = next(k for k in range(len(line)) if LineString(line[: k + 2]).length > turned_mm - 0.01) + 1
    followed = [outline.distance(Point(p)) for p in line[after:]]
    assert followed == pytest.approx([0.9] * len(followed), abs=0.02)


@pytest.mark.parametrize(
    "bead", [{"shape": "oval", "width_mm": 9}, {"shape": "rectangle", "length_mm": 13}, {"shape": "drop", "length_mm": 15, "width_mm": 9}]
)
def test_beads_of_other_faces_are_framed_too(bead: dict[str, Any]) -> None:
    made = made_at(
        18.0, {"wires": {"base": {"diameter": "0.8 mm"}}, "band": {"style": "woven"}, "head": {"style": "framed-bead", "bead": bead}}
    )
    bases = [piece.net_mm for piece in made.pieces if piece.role == "base"]
    assert bases[0] == pytest.approx(bases[1], rel=0.02), "each wire is the inner one on one side and the outer one on the other"
    assert made.finished_mm == pytest.approx(18.0, abs=0.001)
    # Wraps round both wires go round the outer one too, and none comes over the bead by more than the inner wire's wrap.
    stone = made.stones[0]
    half = [Edge(bead["shape"], stone.length_mm, stone.width_mm, 1.5, shift_mm=stone.centre[0]).at(math.pi * k / 360) for k in range(361)]
    outline = Polygon([*half, *((x, -z) for x, z in reversed(half))])
    for weaving in (p for piece in made.pieces for p in piece.moves if p.id in ("weave.frame", "weave.2.frame")):
        off = [outline.distance(Point(x, z)) for x, _, z in weaving.path() if abs(z) > 2.5]
        assert (min(off), max(off)) == pytest.approx((0.2, 0.2 + 0.2 + 0.8 + 0.4 + 0.8 + 0.2), abs=0.1)
    shoulders = [max(abs(x) for x, _, _ in p.path()) for piece in made.pieces for p in piece.moves if p.id.endswith(".frame")]
    assert max(shoulders[:4]) - min(shoulders[:4]) < 1.5


# Interlace


@pytest.mark.parametrize(
    ("formed", "d", "arc", "width", "h", "q", "widest", "path", "lock"),
    [(19.0, 0.9, 18, 9, 2.770, 1.499, 4.05, 20.5, 8.25), (18.0, 1.0, 22, 11, 3.413, 1.918, 5.00, 25.1, 9.08)],
)
def test_knots(formed: float, d: float, arc: float, width: float, h: float, q: float, widest: float, path: float, lock: float) -> None:
    radius, lane = formed / 2 + 0.4 + d / 2, (d + 0.4) / 2
    knot = knot_for(radius, arc, lane, (width - d) / 2)
    assert (knot.bulge_mm, knot.skew_mm, knot.widest_mm) == pytest.approx((h, q, widest), abs=0.002)

    def step(u: float) -> float:
        slope = math.pi * (-lane * math.sin(math.pi * u) + h * math.cos(math.pi * u) + 2 * q * math.cos(2 * math.pi * u))
        return math.hypot(arc, slope)

    flat, _ = quad(step, 0, 1)
    assert flat == pytest.approx(path, rel=0.01)
    # Each end dips and rises by a wire between its crossings.
    document = {
        "wires": {"base": {"diameter": f"{d} mm"}},
        "band": {"style": "woven", "program": "A1 AB1 B1"},
        "head": {"style": "interlace", "knot_arc_mm": arc, "knot_width_mm": width},
    }
    made = made_at(formed, document)
    for piece in made.pieces:
        for placed in piece.moves:
            if placed.id.endswith("knot"):
                assert placed.length_mm == pytest.approx(path, rel=0.016), placed.id
            if placed.id.endswith("lock") and piece.role == "base":
                assert placed.length_mm == pytest.approx(math.hypot(lock, d), abs=0.06)


def test_along_each_wire_of_a_knot_over_and_under_take_turns() -> None:
    told = plan(read_ring({"band": {"style": "woven"}, "head": {"style": "interlace"}}), paths=True)
    assert told.drawing is not None
    knots = [s for s in told.drawing.strands if s.id.endswith("knot")]
    assert len(knots) == 4
    crossings = 0
    for one in knots:
        for other in knots:
            if one is other:
                continue
            a, b = dense(one.points, 0.1), dense(other.points, 0.1)
            cut = LineString(a[:, [0, 2]]).intersection(LineString(b[:, [0, 2]]))
            for place in getattr(cut, "geoms", [cut]):
                if place.is_empty or place.geom_type != "Point":
                    continue
                heights = [line[np.argmin(np.hypot(line[:, 0] - place.x, line[:, 2] - place.y))] for line in (a, b)]
                apart = abs(math.hypot(*heights[0][:2]) - math.hypot(*heights[1][:2]))
                if abs(place.x) < 5:
                    assert apart > 0.6, (one.id, other.id)
                    crossings += 1
    assert crossings == 8, "four crossings, each met from both wires"


# Hoop seat


@pytest.mark.parametrize(
    ("bead", "sunk", "form", "inside", "lift", "whole"), [(8, 0.30, 17.0, 7.40, 2.1, 95.0), (6, 0.40, 17.4, 5.89, 1.8, 84.1)]
)
def test_hoops_that_a_bead_sinks_into(bead: float, sunk: float, form: float, inside: float, lift: float, whole: float) -> None:
    document = {
        "wires": {"band": {"diameter": "0.8 mm"}},
        "head": {"style": "hoop-seat", "sunk_share": sunk, "bead": {"diameter_mm": bead, "hole_mm": 1}},
    }
    seat = made_at(form, document).work.facts
    assert 2 * seat.hoop_mm - 0.8 == pytest.approx(inside, abs=0.01)
    assert seat.lift_mm == pytest.approx(lift, abs=0.05)
    # A ball let down on a torus: it rests where its middle is a radius and a half wire from the torus's own circle.
    rests = brentq(lambda k: math.hypot(seat.hoop_mm, k) - (bead + 0.8) / 2, 0, bead)
    assert seat.above_mm == pytest.approx(rests, abs=1e-6)
    assert sum(head_mm(document, form).values()) == pytest.approx(whole, rel=0.01)


def test_a_hoop_that_is_too_wide_lets_the_bead_through() -> None:
    with pytest.raises(Refusal) as refused:
        plan(read_ring({"head": {"style": "hoop-seat", "rod_mm": 8.6}}))
    assert refused.value.faults[0].field == "head.rod_mm"


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

STONE = (9.0, 6.5, 4.0)


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
    section = over_ellipsoid(STONE, lock, 0.8, tilt)
    way = section.in_space(0.0)
    assert sum(math.dist(a, b) for a, b in itertools.pairwise(way)) == pytest.approx(expected, abs=0.06)
    assert section.crosses_mm == pytest.approx(crosses, abs=0.03)


def test_a_taut_way_is_the_hull_of_the_stone_grown_by_the_wire() -> None:
    a, _, c = STONE
    ellipse = Point(0, 0).buffer(1, quad_segs=4000)
    grown = LineString([(a * x, c + c * y) for x, y in list[tuple[float, float]](ellipse.boundary.coords)]).convex_hull.buffer(
        0.4, quad_segs=200
    )
    hull = grown.union(LineString([(-8, -0.8), (8, -0.8)])).convex_hull
    taut = perimeter(hull) - 16
    way = over_ellipsoid(STONE, (8.0, -0.8), 0.8, 0.0).in_space(0.0)
    assert sum(math.dist(p, q) for p, q in itertools.pairwise(way)) == pytest.approx(taut, abs=0.15)


def test_a_slab_is_passed_like_a_box_with_rounded_edges() -> None:
    slab = Rough(shape="slab", length_mm=14, width_mm=10, height_mm=5, edge_radius_mm=1.5)
    way = over_slab(slab, (8.0, -1.0), 0.8, 0.0).in_space(0.0)
    box = LineString([(-5.5, 1.5), (5.5, 1.5), (5.5, 3.5), (-5.5, 3.5)]).convex_hull.buffer(1.9, quad_segs=400)
    hull = box.union(LineString([(-8, -1), (8, -1)])).convex_hull
    assert sum(math.dist(p, q) for p, q in itertools.pairwise(way)) == pytest.approx(perimeter(hull) - 16, abs=0.1)


def test_a_diagonal_is_longer_than_it_looks_and_both_lean_alike() -> None:
    one, other = (across_ellipsoid(STONE, (8.0, -0.8), 0.8, turn).in_space(0.0) for turn in (0.6, -0.6))
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


# Outline


@pytest.mark.parametrize(
    ("rod", "d", "tip", "leg", "leaves", "sign", "width", "height"),
    [
        (4.0, 1.0, 90, 6.74, 3.00, 40.5, 12.0, 9.6),
        (3.0, 1.0, 84, 5.96, 2.50, 33.2, 10.0, 8.3),
        (4.5, 0.8, 80, 7.90, 3.05, 44.0, 12.2, 10.8),
        (5.0, 1.2, 80, 9.45, 3.70, 51.7, 14.8, 12.9),
    ],
)
def test_hearts(rod: float, d: float, tip: float, leg: float, leaves: float, sign: float, width: float, height: float) -> None:
    shape = Outline(rod_mm=rod, tip_angle_deg=tip).shape(d)
    assert (shape.leg_mm, shape.exit_mm) == pytest.approx((leg, leaves), abs=0.01)
    assert (shape.width_mm, shape.height_mm) == pytest.approx((width, height), abs=0.05)
    points = [p for _, part in shape.parts for p in part]
    assert sum(math.dist(a, b) for a, b in itertools.pairwise(points)) == pytest.approx(sign, abs=0.06)
    xs, ys = [x for x, _ in points], [y for _, y in points]
    assert max(xs) - min(xs) + d == pytest.approx(width, abs=0.06), "its extent is what the curve itself spans"
    assert max(ys) - min(ys) + d == pytest.approx(height, abs=0.06)
    assert points[-1] == pytest.approx((leaves, 0.0), abs=0.01)


def test_a_heart_on_an_open_ring() -> None:
    document = {
        "wires": {"band": {"diameter": "1 mm"}},
        "band": {"style": "open", "overlap_mm": 5, "eye_mm": 1.5},
        "head": {"style": "outline", "tip_angle_deg": 90},
    }
    assert net(made_at(17.3, document), "band") == pytest.approx(112.7, rel=0.005)


def test_a_sign_of_ones_own_has_to_leave_level() -> None:
    own = {"style": "outline", "sign": "own", "program": "left 1 45, straight 6, left 2.5 300"}
    with pytest.raises(Refusal) as refused:
        plan(read_ring({"wires": {"band": {"diameter": "1 mm"}}, "band": {"style": "open"}, "head": own}))
    assert refused.value.faults[0].field == "head.program"


# Wave


@pytest.mark.parametrize(
    ("inside", "wide", "thick", "rings", "crests", "swing", "soldered", "fan", "flat", "top", "half_wave", "strain", "taken", "change"),
    [
        (17.0, 1.80, 1.2, 5, 5, 0.8, 110, 45, True, 10.8, 5.2, 0.17, (0.90, 2.42, 1.80, 1.95, 0.90), -0.83),
        (18.0, 1.65, 1.1, 4, 4, 0.7, 120, 45, True, 7.2, 6.4, 0.09, (0.30, 1.01, 1.01, 0.30), -0.33),
        (16.2, 1.55, 1.2, 3, 5, 0.6, 120, 40, False, 6.0, 5.0, 0.14, (1.19, 1.07, 1.47), -0.49),
    ],
)
def test_waves(
    inside: float,
    wide: float,
    thick: float,
    rings: int,
    crests: int,
    swing: float,
    soldered: float,
    fan: float,
    flat: bool,
    top: float,
    half_wave: float,
    strain: float,
    taken: tuple[float, ...],
    change: float,
) -> None:
    stack = Stack(inside, thick, wide, rings, math.radians(soldered), 0.5)
    swings = tuple(0.0 if flat and k in (0, rings - 1) else swing for k in range(rings))
    free = math.pi - math.radians(soldered) / 2
    waves = Waves(stack, crests, swings, math.radians(fan), free, 0.0)
    assert (waves.wide_mm, waves.half_wave_mm) == pytest.approx((top, half_wave), abs=0.06)
    assert waves.strain == pytest.approx(strain, abs=0.006)
    assert [waves.taken_mm(k) for k in range(rings)] == pytest.approx(taken, abs=0.02)
    assert 2 * (min(waves.reads_mm) - waves.radius_mm) == pytest.approx(change, abs=0.01)
    # By another road: the lane's way, cut fine and measured.
    r = waves.radius_mm
    for lane in range(rings):
        angles = np.linspace(-free, free, 8001)
        zs = np.array([waves.aside(lane, float(a), free) for a in angles])
        long = float(np.hypot(r * np.diff(angles), np.diff(zs)).sum())
        assert long - 2 * free * r == pytest.approx(waves.taken_mm(lane), abs=0.03)


def test_what_the_waves_take_is_added_to_the_coil() -> None:
    waved, plain = (plan(read_ring({"band": {"style": "stacked"}, "head": {"style": style}})) for style in ("wave", "none"))
    assert waved.start.inside_diameter_mm > plain.start.inside_diameter_mm + 0.1
    assert waved.finished.inside_diameter_mm == pytest.approx(plain.finished.inside_diameter_mm, abs=0.005)
    assert "waves-take" in {c.code for c in waved.contributions}


# Swirl


def test_a_face_of_four_ends() -> None:
    face = Face(0.65, Profile("half-round", 0.8), 4, 0.30, 18.0)
    assert (face.coil_mm, face.joined_mm, face.radius_mm) == pytest.approx((1.45, 2.1, 11.83), abs=0.01)
    rise, tuck = math.pi / 2 * face.coil_mm / 2, face.coil_mm
    across, hook = face.across_mm(), face.hook_mm(math.pi, outside=False)
    assert rise + across + hook + tuck == pytest.approx(17.3, abs=0.05)
    assert math.floor((rise + across + hook) / 0.8) == 19
    assert (face.loop_mm(1), face.loop_mm(2)) == pytest.approx((3.75, 5.03), abs=0.01)


@pytest.mark.parametrize(("a", "b", "expected"), [(6.0, 3.2, 14.8), (5.5, 2.8, 13.4)])
def test_half_an_oval(a: float, b: float, expected: float) -> None:
    arc, _ = quad(lambda t: math.hypot(a * math.sin(t), b * math.cos(t)), 0, math.pi)
    assert half_ellipse_mm(a, b) == pytest.approx(arc, rel=1e-5) == pytest.approx(expected, abs=0.05)


# What holds for all of them


@pytest.mark.parametrize(
    ("head", "field"),
    [
        ({"style": "bead-rows", "middle_beads": "9 × 8"}, "head.middle_beads"),
        ({"style": "bead-rows", "middle_beads": "7 × 8"}, "head.middle_beads"),
        ({"style": "cage", "passes": ["middle"]}, "head.passes"),
        ({"style": "cage", "jog_mm": 1.2, "jog_length_mm": 4}, "head.jog_mm"),
        ({"style": "loop-rosette", "seat_loop_mm": 2, "bead": {"diameter_mm": 7}}, "head.seat_loop_mm"),
        ({"style": "spiked-disc", "spikes": 9}, "head.spikes"),
        ({"style": "spiked-disc", "short_mm": 1.5}, "head.short_mm"),
        ({"style": "beaded-hoops", "hoops": []}, "head.hoops"),
        ({"style": "beaded-hoops", "hoops": [{"rod_mm": 12, "beads": 60}]}, "head.hoops.0.beads"),
        ({"style": "wrapped-stone", "stone": {"hole_mm": 2.4, "height_mm": 4, "length_mm": 16}, "nest_turns": 4}, "head.stone.length_mm"),
        ({"style": "hoop-seat", "bead": {"diameter_mm": 18}}, "head.bead.diameter_mm"),
        ({"style": "swirl", "sweeps": ["curl"]}, "head.sweeps.0"),
    ],
)
def test_what_cant_be_made_is_refused_at_its_field(head: dict[str, Any], field: str) -> None:
    with pytest.raises(Refusal) as refused:
        plan(read_ring({"finger": {"size": "US 3"}, "head": head}))
    assert [fault.field for fault in refused.value.faults] == [field]
    assert all(fault.accepted for fault in refused.value.faults) or field == "head.sweeps.0"


@pytest.mark.parametrize("make", [lambda p: p.moves], ids=["moves"])
def test_a_disc_and_its_hoop_never_touch_the_finger(make: Callable[[Any], Any]) -> None:
    made = made_at(17.3, {"head": {"style": "spiked-disc"}})
    lowest = min(y for placed in make(made.work.pieces[0]) if "spike" in placed.id for _, y, _ in placed.path())
    assert lowest > made.band.inside_mm / 2


def test_passes_of_a_cage_lie_apart() -> None:
    told = plan(read_ring({"wires": {"band": {"diameter": "0.8 mm"}}, "head": {"style": "cage"}}), paths=True)
    assert told.drawing is not None
    tops = {
        s.id: [p for p in s.points if p[1] > told.finished.inside_diameter_mm / 2 + 3] for s in told.drawing.strands if ".pass." in s.id
    }
    names = sorted(tops)
    assert len(names) == 3
    for k, one in enumerate(names):
        for other in names[k + 1 :]:
            assert closest(tops[one], tops[other]) > 0.9 * 0.8
