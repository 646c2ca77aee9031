"""Frames, knots, prongs, discs and hoops stretch by stretch, worked out apart from this code by independent arithmetic (common practice, no source)."""

import math
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from scipy.optimize import brentq

from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.mechanics.curves import round_circle
from pliant_coil.core.mechanics.over_stone import Ellipsoid
from pliant_coil.core.moves.halo import Halo
from pliant_coil.core.moves.spike import Spike
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.heads.interlace import knot_for
from pliant_coil.core.styles.heads.outline import Outline
from pliant_coil.core.styles.heads.swirl import _swept
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader
from tests.core.test_check_values import made_at, net
from tests.core.worked import locks_take, taken


def of_base(made: MadeRing, *endings: str) -> float:
    return taken(made, *endings, role="base")


# Open frame


def framed(head: dict[str, Any], d: float = 1.0, form: float = 18.1) -> MadeRing:
    document = {
        "wires": {"base": {"diameter": f"{d} mm"}, "weave": {"diameter": "0.4 mm"}},
        "band": {"style": "woven", "program": "A1 AB1 B1"},
        "head": {"style": "open-frame", **head},
    }
    return made_at(form, document)


def test_a_diamond_side_by_side() -> None:
    made = framed({"outline": "diamond", "side_mm": 9})
    laid = made.band.facts
    assert (laid.radius_mm, laid.woven_mm, laid.woven_mm / 0.8, laid.cycles) == pytest.approx((9.95, 47.23, 59.04, 59), abs=0.01)
    # Outline 36 less what three bends on a radius of 0.8 save, two necks, two lanes of the band and two doubles.
    saved = (2 - math.pi / 2) * 0.8
    assert saved == pytest.approx(0.34, abs=0.005)
    assert (of_base(made, "head.outline"), of_base(made, "head.neck1")) == pytest.approx((36 - 3 * saved, 1.46), abs=0.01)
    assert net(made, "base") == pytest.approx(174.2, abs=0.1)
    assert of_base(made, "head.neck1") + of_base(made, "near.double") - (21.62 - 0.7) == pytest.approx(1.46, abs=0.02)
    # Its weave, with advance: a plain cycle 16.04, a frame's cycle 23.25, a pushed corner three wraps.
    fine = {end: taken(made, end, role="weave") for end in ("weave.weave", "near.weave1", "near.weave2", "near.corner1")}
    assert fine["weave.weave"] == pytest.approx(946.5, abs=0.2) == pytest.approx(59 * 16.04, abs=0.3)
    assert fine["near.weave1"] + fine["near.weave2"] == pytest.approx(209.3, abs=0.1) == pytest.approx(9 * 23.25, abs=0.1)
    assert fine["near.corner1"] == pytest.approx(13.2, abs=0.06)


@pytest.mark.parametrize(("cycles", "size"), [(53, 16.56), (54, 16.82), (55, 17.07)])
def test_what_whole_cycles_of_a_diamond_come_to(cycles: int, size: float) -> None:
    made = framed({"outline": "diamond", "side_mm": 9}, form=size)
    assert made.band.repeats is not None
    assert made.band.repeats.count == cycles
    assert made.finished_mm == pytest.approx(size, abs=0.01)


def test_a_star_from_its_neck_to_its_fork() -> None:
    frame = framed({"outline": "star", "diameter_mm": 16}, 0.8).opening.facts

    def around(corners: tuple[tuple[float, float], ...]) -> float:
        return sum(math.dist(a, b) for a, b in pairwise((*corners, corners[0])))

    assert (around(frame.outline), around(frame.offset)) == pytest.approx((58.12, 86.34), abs=0.02)
    assert (frame.neck_mm, frame.fork_mm) == pytest.approx((10.04, 4.97), abs=0.01)


# Outline


@pytest.mark.parametrize(
    ("rod", "d", "tip", "lobe", "line"),
    [(4.0, 1.0, 90, 13.74, 3.6), (3.0, 1.0, 84, 10.89, 3.3), (4.5, 0.8, 80, 14.34, 4.7), (5.0, 1.2, 80, 16.77, 5.5)],
)
def test_lobes_of_a_heart(rod: float, d: float, tip: float, lobe: float, line: float) -> None:
    sign = Outline(rod_mm=rod, tip_angle_deg=tip).shape(d)
    parts = dict(sign.parts)
    assert sum(math.dist(a, b) for a, b in pairwise(parts["right.lobe"])) == pytest.approx(lobe, abs=0.01)
    tip_at = min(v for points in parts.values() for _, v in points)
    assert parts["right.lobe"][-1][1] - tip_at == pytest.approx(line, abs=0.05)


def test_a_heart_with_its_band() -> None:
    document = {
        "wires": {"band": {"diameter": "1 mm"}},
        "band": {"style": "open", "overlap_mm": 5, "eye_mm": 1.5},
        "head": {"style": "outline", "tip_angle_deg": 90},
    }
    made = made_at(17.3, document)
    sign = sum(p.length_mm for p in made.work.through[0])
    assert sign == pytest.approx(40.55, rel=0.006), "lobes climb over the tails"
    assert net(made, "band") - sign == pytest.approx(57.49 - 6.00 + 5 + 15.71, abs=0.3)


# Interlace


@pytest.mark.parametrize(
    ("formed", "d", "w", "arc", "width", "radius", "half", "h", "q", "widest", "path", "least"),
    [
        (19.0, 0.9, 0.4, 18, 9, 10.35, 49.8, 2.770, 1.499, 4.05, 20.5, 3.6),
        (18.0, 1.0, 0.4, 22, 11, 9.90, 63.7, 3.413, 1.918, 5.00, 25.1, 4.3),
        (16.5, 0.8, 0.3, 16, 8, 8.95, 51.2, 2.460, 1.351, 3.60, 18.3, 3.2),
    ],
)
def test_the_curve_of_a_knot(
    formed: float,
    d: float,
    w: float,
    arc: float,
    width: float,
    radius: float,
    half: float,
    h: float,
    q: float,
    widest: float,
    path: float,
    least: float,
) -> None:
    own = formed / 2 + w + d / 2
    lane = (d + w) / 2
    knot = knot_for(own, arc, lane, (width - d) / 2)
    assert (own, math.degrees(knot.half_rad)) == pytest.approx((radius, half), abs=0.05)
    assert (knot.bulge_mm, knot.skew_mm, knot.widest_mm) == pytest.approx((h, q, widest), abs=0.002)
    # Sampled in space: over and under by half a wire at its crossings, eased between them; its length, and its smallest radius on the band.
    u = np.linspace(0, 1, 20_001)
    z = lane * np.cos(np.pi * u) + h * np.sin(np.pi * u) + q * np.sin(2 * np.pi * u)
    nodes, signs = (0.0, 0.5, 0.75, 1.0), (1.0, -1.0, 1.0, -1.0)
    height = np.zeros_like(u)
    for k in range(3):
        here = (u >= nodes[k]) & (u <= nodes[k + 1])
        share = (1 - np.cos(np.pi * (u[here] - nodes[k]) / (nodes[k + 1] - nodes[k]))) / 2
        height[here] = (signs[k] + (signs[k + 1] - signs[k]) * share) * d / 2
    angle = arc / own * (u - 0.5)
    points = np.stack([(own + height) * np.sin(angle), (own + height) * np.cos(angle), z], axis=1)
    steps = np.diff(points, axis=0)
    assert float(np.linalg.norm(steps, axis=1).sum()) == pytest.approx(path, abs=0.06)
    along = np.gradient(points, axis=0)
    turned = np.linalg.norm(np.cross(along, np.gradient(along, axis=0)), axis=1) / np.linalg.norm(along, axis=1) ** 3
    assert 1 / float(turned[5:-5].max()) == pytest.approx(least, abs=0.05)


def test_a_ring_with_a_knot() -> None:
    document = {
        "wires": {"base": {"diameter": "0.9 mm"}, "weave": {"diameter": "0.4 mm"}},
        "band": {"style": "woven", "program": "A1 AB1 B1"},
        "head": {"style": "interlace", "knot_arc_mm": 18, "knot_width_mm": 9},
        "finish": {"wraps_each_side": 1},
    }
    made = made_at(19.0, document)
    assert of_base(made, "base.1.woven") == pytest.approx(42.4, abs=0.05)
    assert of_base(made, "base.1.woven", "base.1.first.bare", "base.1.last.bare") == pytest.approx(47.0, abs=0.05)
    assert net(made, "base") == pytest.approx(104.7, rel=0.004), "each end dips and rises by a wire"
    at = math.radians(63.7)
    assert 18.0 - locks_take(9.0, at, at, 0.6) == pytest.approx(17.18, abs=0.005)


# Prongs


@pytest.mark.parametrize(
    ("formed", "d", "stone", "spread", "lip", "eye", "radius", "theta", "foot", "runs", "prongs", "lock", "woven", "cycles", "off"),
    [
        (17.3, 0.9, (12, 10, 5, 2.5), 4.0, "full", 1.2, 9.50, 24.9, (5.07, 4.07), (3.87, 3.05), (16.5, 15.7), 12.85, 48.6, 30, 16.77),
        (18.0, 1.0, (16, 12, 6, 3), 5.0, "full", 1.5, 9.90, 30.3, (6.85, 4.85), (4.92, 4.06), (19.9, 19.1), 14.28, 48.7, 30, 17.35),
        (16.5, 0.8, (10, 8, 4, 2), 3.2, "half", 1.2, 9.05, 20.7, (4.28, 3.28), (3.13, 2.42), (11.2, 10.5), 11.43, 47.7, 29, 16.08),
    ],
)
def test_prongs(
    formed: float,
    d: float,
    stone: tuple[float, float, float, float],
    spread: float,
    lip: str,
    eye: float,
    radius: float,
    theta: float,
    foot: tuple[float, float],
    runs: tuple[float, float],
    prongs: tuple[float, float],
    lock: float,
    woven: float,
    cycles: int,
    off: float,
) -> None:
    long, wide, high, corner = stone
    head = {
        "style": "prongs",
        "half_spread_mm": spread,
        "lip": lip,
        "lip_eye_mm": eye,
        "stone": {"length_mm": long, "width_mm": wide, "height_mm": high, "corner_mm": corner},
    }
    wires = {"base": {"diameter": f"{d} mm"}, "weave": {"diameter": "0.4 mm"}}
    made = made_at(formed, {"wires": wires, "band": {"style": "woven", "base_wires": 3}, "head": head})
    facts = made.work.facts
    assert (facts.radius_mm, math.degrees(facts.theta)) == pytest.approx((radius, theta), abs=0.05)
    assert (abs(facts.prongs[0].foot[0]), abs(facts.prongs[0].foot[2])) == pytest.approx(foot, abs=0.01)
    assert sorted({round(p.run_mm, 3) for p in facts.prongs}, reverse=True) == pytest.approx(runs, abs=0.01)
    level = [math.hypot(p.foot[0] - p.start[0], p.foot[2] - p.start[2]) for p in facts.prongs[1::-1]]
    by_hand = [math.hypot(foot[0] - spread, foot[1] - share * d) for share in (0.5, 1.5)]
    assert level == pytest.approx(by_hand, abs=0.01)
    assert sorted({round(p.length_mm, 3) for p in facts.prongs}, reverse=True) == pytest.approx(prongs, abs=0.08)
    assert of_base(made, "left.3.lock") == pytest.approx(math.hypot(lock, d), abs=0.01)
    assert (of_base(made, "base.1.woven"), made.band.facts.cycles) == pytest.approx((woven, cycles), abs=0.05)
    assert made.finished_mm == pytest.approx(off, abs=0.01)


# Spiked disc


def test_a_disc_wrap_by_wrap() -> None:
    document = {"wires": {"sew": {"diameter": "0.4 mm"}}, "band": {"style": "woven", "close": "eyes"}, "head": {"style": "spiked-disc"}}
    made = made_at(18.0, document)
    disc = made.work.facts
    # A wrap round two strands of the hoop: the hull, and with its advance.
    loop = 2 * 0.4 + math.pi * 0.8
    assert (loop, math.hypot(loop, 0.4)) == pytest.approx((3.313, 3.337), abs=0.001)
    assert (disc.places, disc.needed) == pytest.approx((44.0, 42), abs=0.05)
    spikes = [p.move for piece in made.work.pieces for p in piece.moves if isinstance(p.move, Spike)]
    assert sorted({round(s.full_turns, 2) for s in spikes}, reverse=True) == pytest.approx([2.75, 1.5], abs=0.01)
    assert taken(made, "sew.hoop", "sew.start", role="sew") > 40.2
    whole = sum(p.length_mm for p in made.work.pieces[0].moves if p.id.split(".")[1] in ("hoop", "start", "wraps", "spike"))
    assert whole == pytest.approx(280.5, rel=0.006)


def test_a_disc_that_stands_loose_is_offered_what_fills_it() -> None:
    ring = {"wires": {"sew": {"diameter": "0.3 mm"}}, "band": {"style": "woven", "close": "eyes"}}
    head = {"style": "spiked-disc", "rod_mm": 5, "spikes": 8, "long_mm": 4.5, "short_mm": 2.5}
    made = made_at(18.0, {**ring, "head": head})
    disc = made.work.facts
    whole = sum(p.length_mm for p in made.work.pieces[0].moves if p.id.split(".")[1] in ("hoop", "start", "wraps", "spike"))
    assert whole == pytest.approx(184.4, rel=0.007)
    assert (disc.places, disc.needed, disc.needed / disc.places) == pytest.approx((49.2, 34, 0.69), abs=0.05)
    told = plan(read_ring({**ring, "head": head}))
    assert [w.code for w in told.warnings if w.code == "disc-uneven"]
    assert any("4 wraps between" in w.text.written(Reader()) for w in told.warnings)
    four = made_at(18.0, {**ring, "head": {**head, "wraps_between": 4}}).work.facts
    assert (four.needed, four.needed / four.places) == pytest.approx((42, 0.85), abs=0.01)
    with pytest.raises(Refusal):
        plan(read_ring({**ring, "head": {**head, "wraps_between": 5}}))


# Beaded hoops


@pytest.mark.parametrize(
    ("d", "w", "b", "inside", "beads", "by_wraps", "step", "gap", "edge"),
    [
        (0.8, 0.4, 2.0, 12.0, 24, 45, 0.84, 0.02, 308.4),
        (0.8, 0.4, 2.0, 9.0, 19, 33, 0.81, 0.06, 244.0),
        (1.0, 0.3, 3.0, 14.0, 19, 71, 1.24, 0.11, 309.0),
    ],
)
def test_edges_of_hoops(
    d: float, w: float, b: float, inside: float, beads: int, by_wraps: int, step: float, gap: float, edge: float
) -> None:
    def at(rod: float) -> MadeRing:
        document = {
            "wires": {"coil": {"diameter": f"{d} mm", "metal": "copper", "temper": "soft"}, "sew": {"diameter": f"{w} mm"}},
            "band": {"style": "none"},
            "head": {"style": "beaded-hoops", "hoops": [{"rod_mm": rod}], "bead": {"diameter_mm": b, "hole_mm": 0.7}},
        }
        return made_at(17.3, document)

    # The rod from which a soft hoop opens to just this.
    rod = brentq(lambda rod: at(rod).work.facts[0][0].inside_mm - inside, inside - 1.5, inside + 0.5, xtol=1e-5)
    made = at(rod)
    found = made.work.facts[0][0]
    assert (found.beads, found.by_beads, found.by_wraps) == (beads, beads, by_wraps)
    assert (found.step_mm, found.gap_mm) == pytest.approx((step, gap), abs=0.006)
    turns = taken(made, *(f".bead.{k}" for k in range(1, 99)), *(f".wrap.{k}" for k in range(1, 99)), role="sew")
    assert turns == pytest.approx(edge, rel=0.002)


def test_hoops_and_where_they_cross() -> None:
    for d, rod, two in ((0.8, 12, 80.4), (1.0, 14, 94.3)):
        document = {
            "wires": {"coil": {"diameter": f"{d} mm"}},
            "band": {"style": "none"},
            "head": {"style": "beaded-hoops", "hoops": [{"rod_mm": rod}]},
        }
        assert taken(made_at(17.3, document), "hoop1", role="coil") == pytest.approx(two, abs=0.1)
    first, second, apart = 6.4, 4.9, 7.0
    one = math.degrees(math.acos((first**2 + apart**2 - second**2) / (2 * first * apart)))
    other = math.degrees(math.acos((second**2 + apart**2 - first**2) / (2 * second * apart)))
    assert (one, other, 180 - one - other) == pytest.approx((42.6, 62.1, 75.2), abs=0.15)
    hoops = [{"rod_mm": 11.6}, {"rod_mm": 8.7, "x_mm": 7.0, "z_mm": 0.0, "on_top_of": 1}]
    soft = {"diameter": "0.8 mm", "metal": "copper", "temper": "soft"}
    crossed = made_at(
        17.3, {"wires": {"coil": soft}, "band": {"style": "none"}, "head": {"style": "beaded-hoops", "layout": "own", "hoops": hoops}}
    )
    edges = crossed.work.facts[0]
    r0, r1 = (edge.hoop.radius_mm for edge in edges)
    apart = math.dist(edges[0].hoop.centre[::2], edges[1].hoop.centre[::2])
    cut = (apart**2 + r0**2 - r1**2) / (2 * apart)
    assert math.hypot(cut, math.sqrt(r0**2 - cut**2)) == pytest.approx(r0)


# Wrapped stone


def test_a_wrapped_stone_stretch_by_stretch() -> None:
    stone = {"length_mm": 8, "width_mm": 8, "height_mm": 8, "hole_mm": 1.3}
    document = {
        "wires": {"band": {"diameter": "0.9 mm"}},
        "band": {"style": "crossed", "winding": "one-way", "worked": {"lay_mm": 7}},
        "head": {"style": "wrapped-stone", "stone": stone, "lock_at_deg": 50},
    }
    made = made_at(18.0, document)
    laid = {p.id: p.laid_mm for p in made.pieces[0].moves}
    facts = made.work.facts
    assert (facts.mean_mm, facts.strip_mm) == pytest.approx((0.894, 1.19), abs=0.006)
    assert laid["head.halo"] == pytest.approx(109.0, abs=0.1)
    assert (math.degrees(facts.leg_rad), math.degrees(facts.foot_rad)) == pytest.approx((78.8, 28.6), abs=0.05)
    parts = ("head.leg", "short.down", "short.under", "short.lock", "long.lock")
    assert [laid[part] for part in parts] == pytest.approx([12.6, 5.8, 13.2, 14.9, 11.4], abs=0.1)
    round_the_band = sum(mm for move, mm in laid.items() if move.startswith(("first", "second")))
    assert round_the_band == pytest.approx(99.0 + 0.3, rel=0.009)
    assert (sum(laid.values()), made.pieces[0].net_mm) == pytest.approx((274, 277), rel=0.005)


@pytest.mark.parametrize(("x", "y", "radius", "leg", "touches"), [(6.0, 12.95, 9.35, 10.8, 73.9)])
def test_a_leg_is_a_tangent(x: float, y: float, radius: float, leg: float, touches: float) -> None:
    way = round_circle((x, y, 0.0), (0.0, -radius, 0.0), radius)
    assert math.dist(way[0], way[1]) == pytest.approx(leg, abs=0.05)
    assert math.degrees(math.atan2(way[1][0], way[1][1])) == pytest.approx(touches, abs=0.05)


def test_a_bare_end_swept_past_the_other() -> None:
    start = (10 * math.sin(-1.1), 10 * math.cos(-1.1), 0.0)
    swept = _swept(start, 1.1, 10.0, 3.0, 0.0)
    assert sum(math.dist(a, b) for a, b in pairwise(swept)) == pytest.approx(22.2, abs=0.12)


def test_turns_of_strip_with_their_steps() -> None:
    flat = Halo("", 4.5, 4.5, 4, 3, 1.3, 0)
    drawn = sum(math.dist(a, b) for a, b in pairwise(flat.path()))
    assert drawn == pytest.approx(flat.length_mm, rel=0.005)
    assert 121.6 - 0.6 < flat.length_mm < 124.0 + 0.6


@pytest.mark.parametrize(("height", "takes"), [(0.894, 1.08), (1.19, 1.43)])
def test_what_pressed_locks_take(height: float, takes: float) -> None:
    at = math.radians(50)
    assert locks_take(9.0, at, at, height) == pytest.approx(takes, abs=0.006)


# Cage, tilted


@pytest.mark.parametrize(("crosses", "tilt", "b"), [(3.93, 0.457, 4.00), (5.0, 0.597, None)])
def test_a_tilted_section_of_a_stone(crosses: float, tilt: float, b: float | None) -> None:
    stone = Ellipsoid(18.0, 13.0, 8.0)
    section = stone.over((8.0, -0.8), 0.8, tilt)
    assert section.crosses_mm == pytest.approx(crosses, abs=0.01)
    # Where the plane through both locks meets the ellipsoid: half its width and its height there.
    if b is not None:
        y = np.linspace(0, 8, 200_001) + 0.8
        inside = ((y - 0.8 - 4) / 4) ** 2 + (y * math.tan(tilt) / 6.5) ** 2 <= 1
        chord = (y[inside][-1] - y[inside][0]) / math.cos(tilt) / 2
        assert float(chord) == pytest.approx(b, abs=0.02)
