"""Heads that string beads: closed forms, integrals and hulls by general libraries."""

import math
from typing import Any

import pytest
from scipy.integrate import quad
from scipy.optimize import brentq
from shapely.affinity import scale
from shapely.geometry import LineString, MultiPoint, Point, Polygon, box
from shapely.geometry.base import BaseGeometry

from pliant_coil.core.mechanics.framing import Edge, EdgeShape, Frame, band_lead
from pliant_coil.core.mechanics.program import read_program
from pliant_coil.core.mechanics.weave import Weave
from pliant_coil.core.moves.bead_row import Strung
from pliant_coil.core.moves.loop_row import Spiral
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Say
from tests.core.polylines import perimeter
from tests.core.test_check_values import head_mm, made_at, net

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
    assert isinstance(band.more, Say)
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
