"""Figures bent into a cage's last pass, by closed forms and quadrature, and where they stand on the ring."""

import math
from itertools import pairwise

import pytest
from scipy.integrate import quad

from pliant_coil.core.making.joints import drawn
from pliant_coil.core.making.planned import planned
from pliant_coil.core.mechanics.curves import Point3, length_mm
from pliant_coil.core.mechanics.motifs import motif
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring

D, SWING, LONG = 0.8, 0.8, 5.0
NAMES = ("spiral", "wave", "crescent", "two-loops")


def bent(name: str) -> list[Point3]:
    return motif(name, D, jog_mm=SWING, jog_length_mm=LONG)


def by_hand(name: str) -> float:
    """What the figure takes, from its description alone."""
    if name == "two-loops":
        # Each loop's helix steps aside by as much as it needs to pass itself: less than 1 % more.
        return 2 * math.pi * (3.0 + D) + 3 * 4.0
    if name == "wave":
        slope = 2 * math.pi * 2 * SWING / LONG
        return 3 * quad(lambda s: math.hypot(1, slope * math.cos(2 * math.pi * s / LONG)), 0, LONG)[0]
    if name == "spiral":
        inner, pitch = 0.6 * D, 1.15 * D
        rolled = quad(lambda turn: math.hypot(inner + pitch * turn, pitch / 2 / math.pi) * 2 * math.pi, 0, 2)[0]
        outer = inner + 2 * pitch
        # Out of the middle on top of the coils, up and down at both ends over one wire's width.
        return rolled + 2 * math.sqrt(2) * D + (outer + inner - D)
    wide = 5.8 * math.sin(math.radians(125))
    return 2.9 * math.radians(250) + 2 * 2.4 * math.asin(wide / 2 / 2.4)


@pytest.mark.parametrize("name", NAMES)
def test_a_motif_takes_what_its_bends_take(name: str) -> None:
    assert length_mm(bent(name)) == pytest.approx(by_hand(name), rel=0.01)


@pytest.mark.parametrize("name", NAMES)
def test_a_motif_begins_and_ends_on_the_way_and_never_dips_into_the_stone(name: str) -> None:
    figure = bent(name)
    assert figure[0] == pytest.approx((0, 0, 0)) and figure[-1][1:] == pytest.approx((0, 0))
    assert min(up for _, _, up in figure) > -1e-9


@pytest.mark.parametrize("over", ["middle", "front", "diagonal"])
@pytest.mark.parametrize("name", NAMES)
def test_the_last_pass_goes_on_from_its_motif(name: str, over: str) -> None:
    """One wire, and what the way between the figure's feet spares is taken off the pass."""
    document = {"head": {"style": "cage", "passes": ["back", "middle", over], "motif": name}}
    plain, with_motif = (planned(read_ring({"head": {**document["head"], "motif": m}})).made for m in ("none", name))
    lines = [line for line in drawn(with_motif.pieces[0]) if line]
    assert max(math.dist(a[-1], b[0]) for a, b in pairwise(lines)) < 1e-6
    spared = bent(name)[-1][0] * 1.04
    more = with_motif.pieces[0].net_mm - plain.pieces[0].net_mm
    assert more == pytest.approx(by_hand(name) - spared, abs=0.9)


def test_what_stands_up_is_told() -> None:
    told = {m: plan(read_ring({"head": {"style": "cage", "motif": m}})) for m in ("none", "two-loops")}
    assert told["two-loops"].band.height_mm == pytest.approx(told["none"].band.height_mm + 4 + 1.9, abs=0.02)
    assert any(move.id.endswith("motif") for move in told["two-loops"].wires[0].moves)
