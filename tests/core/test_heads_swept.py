"""Heads of the band's own ends: knots, signs, waves, sweeps."""

import itertools
import math
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from scipy.integrate import quad
from shapely.geometry import LineString, Point

from pliant_coil.core.making.planned import planned
from pliant_coil.core.mechanics.face import Face, half_ellipse_mm
from pliant_coil.core.plan.build import plan
from pliant_coil.core.plan.model import Plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.handed_on import Stack
from pliant_coil.core.styles.heads.interlace import knot_for
from pliant_coil.core.styles.heads.outline import Outline
from pliant_coil.core.styles.heads.wave.lanes import Waves
from pliant_coil.core.trade.profiles import Profile
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader, write
from tests.core.laws import APART_MM, INTO_THE_CIRCLE_MM, apart, into_the_circle
from tests.core.polylines import closest, dense
from tests.core.test_check_values import made_at, net

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


@pytest.mark.parametrize(("turns", "climbs"), [(None, 0.0), (2, 1.0)])
def test_a_heart_on_its_side_has_its_tails_led_back_to_the_band(turns: int | None, climbs: float) -> None:
    # By coordinates: round by 135° on a radius of 1, a straight at 45°, and 45° back, from 3 mm beside the band's line onto it.
    head = {"style": "outline", "tip_angle_deg": 90, "tip_to": "side"}
    lying = made_at(18.0, {"wires": {"band": {"diameter": "1 mm"}}, "band": {"style": "turned", "turns": turns}, "head": head})
    parts = {p.id.removeprefix("head."): p for p in next(piece for piece in lying.pieces if piece.role == "band").moves if "head" in p.id}
    slant = (3 + 2 * math.sin(math.pi / 4) - 1) * math.sqrt(2)
    reach = 1 + 2 * math.sin(math.pi / 4) + slant / math.sqrt(2)
    # The band's helix is a tenth of a wire off its line at the foot.
    assert parts["left.bent-back"].length_mm == pytest.approx(math.pi + slant, abs=0.06)
    last = parts["right.bent-back"].path()[-1]
    assert math.hypot(last[0], last[1]) == pytest.approx(9.5 + climbs, abs=0.01)
    assert math.atan2(last[0], last[1]) * (9.5 + climbs) == pytest.approx(reach, abs=0.01)
    assert ("left.down" in parts) == bool(climbs), "it comes down only where it lay on something"
    tip = parts["tip"].path()
    assert tip[len(tip) // 2][2] == pytest.approx(0, abs=0.01)
    assert tip[len(tip) // 2][0] > 3, "its tip points to the right"
    lobes = [z for side in ("left", "right") for *_, z in parts[f"{side}.lobe"].path()]
    assert max(lobes) == pytest.approx(-min(lobes)) == pytest.approx(5.5, abs=0.02)


@pytest.mark.parametrize("sign", [{"sign": "loops", "rod_mm": 4}, {"sign": "heart", "rod_mm": 4}])
@pytest.mark.parametrize("band", [{"style": "open"}, {"style": "turned", "turns": 2}])
def test_tails_of_a_flat_sign_lie_on_the_mandrel(sign: dict[str, Any], band: dict[str, Any]) -> None:
    told = plan(
        read_ring({"finger": {"size": "US 9"}, "band": band, "head": {"style": "outline", "tip_to": "side", "lies": "flat", **sign}}),
        paths=True,
    )
    assert max(mm for _, mm in into_the_circle(told)) <= INTO_THE_CIRCLE_MM
    assert max(mm for *_, mm in apart(told)) <= APART_MM


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


@pytest.mark.parametrize("crests", [3, 4, 5, 6])
@pytest.mark.parametrize("jitter", [-0.3, 0.0, 0.2])
def test_seams_stand_where_a_lane_crosses_its_own_middle(crests: int, jitter: float) -> None:
    """A seam is strained least at a node; seen by the lane itself, looked along in small steps."""
    stack = Stack(18.0, 1.1, 1.65, 4, math.radians(100), 0.5)
    waves = Waves(stack, crests, (0.0, 0.7, 0.7, 0.0), math.radians(45), math.radians(130), jitter)
    rest = waves.places_mm[1]
    assert waves.aside(1, waves.seam_rad, waves.free_rad) == pytest.approx(rest, abs=1e-3)
    angles = np.linspace(0, waves.free_rad - waves.fan_rad, 4001)
    swing = np.array([waves.aside(1, float(a), waves.free_rad) - rest for a in angles])
    crossed = angles[1:][np.diff(np.sign(swing)) != 0] if crests % 2 else angles[:1]
    assert waves.seam_rad == pytest.approx(crossed[0], abs=0.001)
    both = np.linspace(-angles[-1], angles[-1], 8001)
    out = np.abs([waves.aside(1, float(a), waves.free_rad) - rest for a in both])
    tops = both[1:-1][(out[1:-1] > out[:-2]) & (out[1:-1] >= out[2:])]
    assert waves.seam_clear_mm == pytest.approx(min(abs(tops - waves.seam_rad)) * waves.radius_mm, abs=0.02)


def test_the_card_says_where_the_seams_go() -> None:
    """With five crests one stands in the very top: the seams go a quarter wave aside; with four they stay there."""
    for crests, words in ((5, "to one side of the top"), (4, "in line at the top")):
        tie = next(s for s in wave_plan(crests, "top").steps if s.id == "tie")
        assert words in write(tie.text, Reader())
        assert "seam-strained" not in {w.code for w in wave_plan(crests, "top").warnings}


@pytest.mark.parametrize("crests", [4, 5, 6])
def test_a_spread_seam_near_a_crest_is_told(crests: int) -> None:
    ring = planned(read_ring(wave_document(crests, "spread"))).made
    waves = ring.work.facts
    # By another road: crests lie a half wave apart, counted from the middle of the free top.
    half = 2 * (waves.free_rad - waves.fan_rad) / crests
    tops = [half * (k - (crests - 1) / 2) for k in range(crests)]
    reached = math.radians(60) < waves.free_rad - waves.fan_rad
    near = min(abs(math.radians(60) - top) for top in tops) * waves.radius_mm if reached else math.inf
    told = "seam-strained" in {w.code for w in plan(read_ring(wave_document(crests, "spread"))).warnings}
    assert told == (near < 2.0)


@pytest.mark.parametrize(("fan", "swing", "crowded"), [(45, 0.8, False), (25, 1.4, True), (60, 1.0, False)])
def test_lanes_that_part_too_steeply_are_told(fan: int, swing: float, crowded: bool) -> None:
    """By another road: the lanes as lines in a plane, and their distance as a geometry library measures it."""
    document = wave_document(4, "top", fan_deg=fan, amplitude_mm=swing)
    waves = planned(read_ring(document)).made.work.facts
    angles = np.linspace(-waves.free_rad, waves.free_rad, 2001)
    lanes = [
        LineString([(float(a) * waves.radius_mm, waves.aside(k, float(a), waves.free_rad)) for a in angles])
        for k in range(waves.stack.rings)
    ]
    nearest = min(high.distance(Point(p)) for low, high in pairwise(lanes) for p in low.coords[20:-20:4])
    assert waves.nearest_share == pytest.approx(nearest / waves.stack.thick_mm, abs=0.02)
    assert (nearest < 0.9 * waves.stack.thick_mm) == crowded
    assert ("lanes-crowded" in {w.code for w in plan(read_ring(document)).warnings}) == crowded


def wave_document(crests: int, seams: str, **head: object) -> dict[str, Any]:
    head = {"style": "wave", "half_waves": crests, "jitter_share": 0, **head}
    return {"finger": {"size": "US 10"}, "band": {"style": "stacked", "seams": seams}, "head": head}


def wave_plan(crests: int, seams: str, **head: object) -> Plan:
    return plan(read_ring(wave_document(crests, seams, **head)))


def test_what_the_waves_take_is_added_to_the_coil() -> None:
    waved, plain = (plan(read_ring({"band": {"style": "stacked"}, "head": {"style": style}})) for style in ("wave", "none"))
    assert waved.start.inside_diameter_mm > plain.start.inside_diameter_mm + 0.1
    assert waved.finished.inside_diameter_mm == pytest.approx(plain.finished.inside_diameter_mm, abs=0.005)
    assert "waves-take" in {c.code for c in waved.contributions}


# Swirl


def test_a_face_of_four_ends() -> None:
    face = Face(0.65, Profile("half-round", 0.8), 4, 0.30, 18.0)
    assert (face.coil_mm, face.joined_mm, face.radius_mm) == pytest.approx((1.45, 2.1, 11.83), abs=0.01)
    rise, tuck = face.rise_mm, face.coil_mm
    across, hook = face.across_mm(), face.hook_mm(math.pi, outside=False)
    assert rise + across + hook + tuck == pytest.approx(17.3, abs=0.05)
    assert face.coils_that_fit(math.pi) == 19
    assert (face.loop_mm(1), face.loop_mm(2)) == pytest.approx((3.75, 5.03), abs=0.01)


@pytest.mark.parametrize(("a", "b", "expected"), [(6.0, 3.2, 14.8), (5.5, 2.8, 13.4)])
def test_half_an_oval(a: float, b: float, expected: float) -> None:
    arc, _ = quad(lambda t: math.hypot(a * math.sin(t), b * math.cos(t)), 0, math.pi)
    assert half_ellipse_mm(a, b) == pytest.approx(arc, rel=1e-5) == pytest.approx(expected, abs=0.05)


STRANDS = {
    "finger": {"size": "US 10"},
    "band": {"style": "woven", "base_wires": 4, "program": "AB1 BC1 CD1"},
    "wires": {"base": {"diameter": "0.6 mm"}, "weave": {"diameter": "0.25 mm"}},
    "head": {"style": "interlace", "strand_wires": 2, "knot_width_mm": 12, "knot_arc_mm": 21},
}


def ways(document: dict[str, Any], ending: tuple[str, ...]) -> dict[str, list[list[float]]]:
    drawing = plan(read_ring(document), paths=True).drawing
    assert drawing is not None
    return {strand.id: strand.points for strand in drawing.strands if strand.id.endswith(ending)}


def test_a_faces_coils_come_in_the_order_in_which_they_are_wound_and_fill_the_sweep() -> None:
    made = made_at(18.0, {"band": {"style": "bundled"}, "head": {"style": "swirl", "tie_after_coils": 5}})
    binder = next(piece for piece in made.pieces if piece.role == "bind")
    coils = [p for p in binder.moves if p.id.startswith("bind.right.") and p.move.label in ("coils", "tie", "rest")]
    coils = coils[::-1] if coils[0].backwards else coils
    assert [p.move.label for p in coils] == sorted((p.move.label for p in coils), key=("coils", "tie", "rest").index)
    # Round one square a coil takes 4s + 2πc, round two 6s + 2πc, and each goes on by the binder's width.
    wire, square = binder.wire, made.ring.wires["base"].width_mm
    one, two = (math.hypot(2 * (n + 1) * square + 2 * math.pi * wire.centroid_mm, wire.width_mm) for n in (1, 2))
    facts: Any = made.work.facts
    taken = {label: sum(p.length_mm for p in coils if p.move.label == label) for label in ("coils", "tie", "rest")}
    assert taken == pytest.approx({"coils": 5 * one, "tie": 3 * two, "rest": (facts.coils - 8) * one})


def test_a_faces_oval_is_half_an_ellipse_and_its_coils_lie_on_the_band() -> None:
    made = made_at(18.0, {"band": {"style": "bundled"}, "head": {"style": "swirl"}})
    face: Face = made.work.facts.face
    (oval, *_) = [p for piece in made.pieces for p in piece.moves if p.id.endswith(".round")]
    assert oval.length_mm == pytest.approx(face.oval_mm(), rel=0.005)
    drawn = [p for piece in made.pieces for p in piece.moves if p.id.endswith(("coils", "tie")) and p.path()]
    assert drawn
    for p in drawn:
        turns = [math.atan2(x, y) for x, y, _ in p.path()]
        assert max(map(abs, turns)) <= face.half_rad + 0.02


def test_a_knot_of_two_wires_a_strand_keeps_all_of_them_apart() -> None:
    """Nine tenths of a diameter, over and under and side by side; the strands' over and under is that of a knot of single wires."""
    found = ways(STRANDS, ("knot",))
    assert len(found) == 8
    for (a, first), (b, second) in itertools.combinations(found.items(), 2):
        assert closest(first, second) >= 0.9 * 0.6 - 1e-3, (a, b)
    widest = max(abs(p[2]) for way in found.values() for p in way)
    assert 2 * widest + 0.6 == pytest.approx(12, abs=0.15)
    # Twins stay a pitch apart in the band and beside each other on the way, never one over the other.
    for side in ("left", "right"):
        shares = np.linspace(0, 1, 40)
        heights = [[math.hypot(x, y) for x, y, _ in found[f"{side}.{k}.knot"]] for k in (1, 2)]
        one, twin = (np.interp(shares, np.linspace(0, 1, len(high)), high) for high in heights)
        assert one == pytest.approx(twin, abs=0.12)


def test_a_knot_asks_for_as_many_ends_as_its_strands_have_wires() -> None:
    for wires, bases in ((1, 4), (2, 2)):
        head = {"style": "interlace", "strand_wires": wires}
        with pytest.raises(Refusal) as refused:
            plan(read_ring({**STRANDS, "band": {"style": "woven", "base_wires": bases, "program": "AB1"}, "head": head}))
        assert "base wires" in str(refused.value)


@pytest.mark.parametrize("end", ["scroll", "hook", "ball"])
@pytest.mark.parametrize("size", ["US 5", "US 8", "US 11"])
def test_ends_at_a_gap_sweep_past_each_other(end: str, size: str) -> None:
    document = {"finger": {"size": size}, "band": {"style": "woven"}, "head": {"style": "swirl", "end": end}}
    told = plan(read_ring(document))
    assert "swirl-free" in {w.code for w in told.warnings}
    sweeps = ways(document, ("sweep", "end"))
    for (a, one), (b, other) in itertools.combinations(sweeps.items(), 2):
        if a.rsplit(".", 1)[0] != b.rsplit(".", 1)[0]:
            assert closest(one, other) >= 0.9 * 0.8 - 1e-3, (a, b)
    # Turned half round it is the same: every point has its twin.
    points = np.concatenate([dense(way) for name, way in sweeps.items() if name.startswith("left")])
    twins = np.concatenate([dense(way) for name, way in sweeps.items() if name.startswith("right")]) * [-1, 1, -1]
    assert max(np.min(np.linalg.norm(twins - p, axis=1)) for p in points[::7]) < 0.12
