"""Each move's length by a road of its own: numeric arc length of a curve written here, or counting."""

import math
from collections.abc import Callable
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import integrate, special
from shapely import get_coordinates
from shapely.geometry import LineString, MultiPoint, Point

from pliant_coil.core.mechanics.hulls import row
from pliant_coil.core.mechanics.twisting import Cord
from pliant_coil.core.moves.arc import Arc, Turns
from pliant_coil.core.moves.base import Cause, Move
from pliant_coil.core.moves.bend import Bend
from pliant_coil.core.moves.crossing import Crossing
from pliant_coil.core.moves.grip import Fold
from pliant_coil.core.moves.loop import Eye, Loop, Scroll
from pliant_coil.core.moves.nest import Nest, StandingBead
from pliant_coil.core.moves.passing import pass_over, pass_under
from pliant_coil.core.moves.twist import Twist
from pliant_coil.core.moves.wrap import Wrap
from pliant_coil.core.trade.profiles import Profile

ORIGIN, RIGHT, UP = (0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)


def arc_length(velocity: Callable[[float], tuple[float, ...]], start: float, end: float) -> float:
    """∫ |v| dt."""
    return float(integrate.quad(lambda t: math.hypot(*velocity(t)), start, end, limit=400)[0])


@given(st.floats(5, 12), st.floats(0.1, 6), st.floats(-3, 3))
def test_an_arc_with_drift_is_a_helix(radius: float, sweep: float, drift: float) -> None:
    move = Arc("arc", radius, 1.0, sweep, 0.0, drift)
    assert move.length_mm == pytest.approx(arc_length(lambda _: (radius, drift / sweep), 0, sweep))


@given(st.integers(1, 4), st.floats(0.4, 1.3), st.floats(0.1, 0.6))
def test_turns_are_one_helix_that_steps_a_lane_a_turn(turns: int, lane: float, shoulder: float) -> None:
    sweep = 2 * math.pi * turns - 2 * shoulder
    move = Turns("turns", 9.0, shoulder, sweep, 0.0, lane * sweep / (2 * math.pi), turns)
    assert move.length_mm == pytest.approx(arc_length(lambda _: (9.0, lane / (2 * math.pi)), 0, sweep))
    more = move.with_count(turns + 1)
    assert more.length_mm - move.length_mm == pytest.approx(math.hypot(18 * math.pi, lane))
    assert more.z_to_mm - move.z_to_mm == pytest.approx(lane)


def test_over_a_bead_is_up_half_an_ellipse_and_down() -> None:
    """Feet below the flanks of a round body of 4 mm: 5 up, half a circle, 5 down."""
    move = pass_over("over", (-4.0, 8.0, 0.0), (4.0, 8.0, 0.0), centre_y_mm=13.0, a_mm=4.0, b_mm=4.0)
    assert move.length_mm == pytest.approx(10 + math.pi * 4, rel=2e-3)
    assert max(y for _, y, _ in move.path()) == pytest.approx(17.0, abs=1e-9)


def test_under_a_bead_is_an_arc_of_the_band() -> None:
    start, end = (-9 * math.sin(0.5), 9 * math.cos(0.5), -1.0), (9 * math.sin(0.5), 9 * math.cos(0.5), 1.0)
    move = pass_under("under", start, end, radius_mm=9.0)
    assert move.length_mm == pytest.approx(math.hypot(9.0, 2.0), rel=1e-3)
    assert all(math.hypot(x, y) == pytest.approx(9.0) for x, y, _ in move.path())


@given(st.integers(1, 8), st.integers(1, 6), st.sampled_from([0.4, 0.8, 1.0]))
def test_wraps_round_a_row(wraps: int, strands: int, wire: float) -> None:
    move = Wrap("lock", wraps, row(Profile("round", 0.8), strands), Profile("round", wire), 8.6, 0.4, inside_mm=wire, cause=Cause("c", "c"))
    loop = 2 * (strands - 1) * 0.8 + math.pi * (0.8 + wire)
    assert move.length_mm == pytest.approx(wraps * math.hypot(loop, wire))
    (obstacle,) = move.obstacles
    assert obstacle.height_mm == wire
    # From where the wraps begin to the crest of the last one.
    assert (obstacle.to_rad - obstacle.from_rad) * 8.6 == pytest.approx((wraps - 0.5) * wire, abs=1e-9)
    assert move.path()[0] == pytest.approx(move.begins)
    assert move.path()[-1] == pytest.approx(move.ends, abs=1e-6)


@given(st.sampled_from([0.5, 1.5, 2.5]), st.integers(1, 4))
def test_half_wraps_end_on_the_other_edge(wraps: float, strands: int) -> None:
    move = Wrap("bind", wraps, row(Profile("round", 0.8), strands), Profile("round", 0.8), 8.6, 0.4, start=(-1e3, 0.4))
    assert move.path()[-1] == pytest.approx(move.ends, abs=1e-6)
    assert move.begins[2] < 0 < move.ends[2]


@given(st.floats(0.5, 4), st.floats(0.3, 1.5), st.sampled_from([0.5, 1.0, 2.0]))
def test_loops_are_turns_of_their_neutral_line(inside: float, wire: float, turns: float) -> None:
    for kind in (Eye, Loop):
        move = kind("eye", inside, wire, ORIGIN, RIGHT, UP, turns)
        assert move.length_mm == pytest.approx(turns * 2 * math.pi * (inside + wire) / 2)
    assert Fold("fold", inside, wire).length_mm == pytest.approx(math.pi * (inside + wire) / 2)


@given(st.floats(0.2, 1), st.floats(0.4, 1.5), st.floats(0.5, 3))
def test_a_scroll_is_an_archimedean_spiral(inner: float, pitch: float, turns: float) -> None:
    move = Scroll("scroll", inner, pitch, turns, ORIGIN, RIGHT, UP)
    b = pitch / (2 * math.pi)
    assert move.length_mm == pytest.approx(arc_length(lambda t: (b, inner + b * t), 0, 2 * math.pi * turns), rel=1e-6)


@given(st.integers(2, 4), st.floats(0.5, 1.2), st.floats(5, 20), st.sampled_from([-1, 1]))
def test_a_twisted_strand_winds_round_its_cord(wires: int, wire: float, lay: float, hand: int) -> None:
    """n wires of d lie on a circle of d/sin(π/n); the strand's helix by its velocity along a cord, as good as straight and round a ring."""
    cord = Cord(wires, wire, lay)
    helix = wire / math.sin(math.pi / wires) / 2
    for radius, close in ((1e7, 1e-6), (9.5, 1e-3)):
        move = Twist("twist", cord, radius, 0.3, 50.0, 0.7, hand)

        def velocity(along: float, radius: float = radius) -> tuple[float, ...]:
            turn = 0.7 + hand * 2 * math.pi * along / lay
            spins = helix * 2 * math.pi / lay
            return (1.0 + helix * math.cos(turn) / radius, -spins * math.sin(turn), spins * math.cos(turn))

        assert move.length_mm == pytest.approx(arc_length(velocity, 0, 50), rel=close)


@given(st.integers(2, 4), st.floats(0.5, 1.2), st.floats(4, 10), st.floats(0.65, 1))
def test_a_tapped_cord_is_spread_as_its_wire_asks(wires: int, wire: float, lay: float, flat: float) -> None:
    """The elliptical helix has the round one's length: by the complete elliptic integral of the second kind (scipy)."""
    cord = Cord(wires, wire, lay)
    up, aside = (2 * math.pi / lay * mm for mm in (cord.helix_mm * flat, cord.aside_mm(flat)))
    longest = 1 + aside**2
    assert 2 / math.pi * math.sqrt(longest) * special.ellipe((aside**2 - up**2) / longest) == pytest.approx(cord.wire_per_mm, rel=1e-9)


@pytest.mark.parametrize("bead", [StandingBead(4, 4, 4, 0.76, 5), StandingBead(3, 3, 4.5, 0.6, 5), StandingBead(5, 4, 3, 0.8, 5)])
@pytest.mark.parametrize(("turns", "from_rad", "to_rad"), [(0.5, -0.78, 0.5), (0.5, 0.1, 1.5), (1.5, 0.5, 1.5), (2.5, -0.78, 0.1)])
def test_a_nest_is_as_long_as_its_climb_round_bead_and_legs(bead: StandingBead, turns: float, from_rad: float, to_rad: float) -> None:
    """Rounds of bead and legs by shapely's discs and hulls, at many heights, each gone round by its own share."""
    legs = [p for side in (-1, 1) for p in get_coordinates(Point(side * bead.leg_x_mm, 0).buffer(bead.wire_mm, quad_segs=16)).tolist()]
    grown = bead.wire_mm / 2
    places = []
    steps = round(160 * turns)
    for k in range(steps + 1):
        angle = from_rad + (to_rad - from_rad) * k / steps
        semi = [(half + grown) * math.cos(angle) for half in (bead.half_length_mm, bead.half_width_mm)]
        body = [(semi[0] * math.sin(turn), semi[1] * math.cos(turn)) for turn in (2 * math.pi * j / 96 for j in range(96))]
        around = [(x, y) for x, y in get_coordinates(MultiPoint([*legs, *body]).convex_hull).tolist()[:-1]]
        first = around.index(min(around))
        whole = LineString([*around[first:], *around[: first + 1]])
        at = whole.interpolate(turns * k / steps % 1, normalized=True)
        places.append((at.x, bead.reach_mm * math.sin(angle), at.y))
    along = sum(math.dist(a, b) for a, b in pairwise(places))
    assert Nest("nest", bead, turns, from_rad, to_rad).length_mm == pytest.approx(along, rel=3e-3)


@pytest.mark.parametrize("over", [True, False])
def test_a_crossing_is_longer_than_the_way_round(over: bool) -> None:
    radius, sweep, wire = 9.0, 0.9, 0.8

    def velocity(u: float) -> tuple[float, ...]:
        rise = wire * math.sin(math.pi * u) if over else 0.0
        rising = math.pi * wire * math.cos(math.pi * u) if over else 0.0
        return ((radius + rise) * sweep, rising, math.pi * wire / 2 * math.sin(math.pi * u))

    move = Crossing("cross", radius, 2.7, sweep, wire, wire / 2, -wire / 2, over, 0.003, Cause("crossing", "pressed"))
    assert move.length_mm == pytest.approx(arc_length(velocity, 0, 1), rel=2e-3)
    assert bool(move.obstacles) != over


def test_a_bend_turns_about_its_corner() -> None:
    move = Bend("bend", (3.5, 12.8, 0.0), 0.4, 0.0, math.pi / 2, 0.8)
    assert move.length_mm == pytest.approx(math.pi / 2 * 0.4)
    assert move.path()[0] == pytest.approx((3.5, 13.2, 0.0))
    assert move.path()[-1] == pytest.approx((3.9, 12.8, 0.0))


@pytest.mark.parametrize(
    "move",
    [
        Wrap("lock", 4, row(Profile("round", 0.8), 3), Profile("round", 0.8), 9.0, 0.4, start=(-1e3, 0.4)),
        Turns("turns", 9.0, 0.3, 12.0, 0.0, 1.5, 2),
        Loop("loop", 3.0, 0.8, ORIGIN, RIGHT, UP, 2.0),
    ],
)
def test_what_is_left_goes_on_where_the_made_part_ends(move: Move) -> None:
    made, left = move.split(1)
    assert made is not None and left is not None
    assert made.length_mm + left.length_mm == pytest.approx(move.length_mm, rel=1e-9)
    assert made.path()[-1] == pytest.approx(left.path()[0], abs=1e-6)
    assert left.path()[-1] == pytest.approx(move.path()[-1], abs=1e-6)
    with pytest.raises(ValueError, match="can't be done"):
        move.split(99)
    with pytest.raises(ValueError, match="steps"):
        move.with_count(0.3)
