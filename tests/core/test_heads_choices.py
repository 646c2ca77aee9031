"""What can be chosen of a head or a folded band besides the usual: where it leads, what it takes, and what a friend would say."""

import math
from itertools import pairwise
from typing import Any

import pytest
from scipy.integrate import quad

from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.joints import drawn
from pliant_coil.core.making.planned import planned
from pliant_coil.core.mechanics.curves import Point3, length_mm
from pliant_coil.core.moves.hoop_wrap import HoopWrap
from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.outlines import end_for_end, outline_corners
from pliant_coil.core.styles.parameters import WireSpec
from pliant_coil.core.words.figures import Count
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader, write


def made(**document: Any) -> MadeRing:
    return planned(read_ring({"finger": {"size": "US 7"}, **document})).made


def move(ring: MadeRing, end: str) -> Placed:
    return next(p for piece in ring.pieces for p in piece.moves if p.id.endswith(end))


def codes(**document: Any) -> set[str]:
    return {warning.code for warning in plan(read_ring({"finger": {"size": "US 7"}, **document})).warnings}


def lines_of(ring: MadeRing) -> list[Point3]:
    return [point for line in drawn(ring.pieces[0]) for point in line]


STEEL = {"band": {"diameter": "0.7 mm", "metal": "stainless", "temper": "half-hard"}}


@pytest.mark.parametrize("head", ["nest", "bead-lock", "cage", "hoop-seat", "swirl", "none"])
@pytest.mark.parametrize("through", ["other", "bead-leg", "both"])
@pytest.mark.parametrize("turns", [1, 2])
def test_a_folded_pair_is_one_wire_from_end_to_end(head: str, through: str, turns: int) -> None:
    band = {"style": "folded-pair", "through_eye": through, "turns": turns, "eye_mm": 2.0}
    ring = made(wires=STEEL, band=band, head={"style": head})
    points = [line for line in drawn(ring.pieces[0]) if line]
    assert max(math.dist(a[-1], b[0]) for a, b in pairwise(points)) < 1e-6
    # A leg goes through the eye where the fold lies.
    fold = move(ring, "fold").path()
    where = math.atan2(*[sum(p[k] for p in fold) / len(fold) for k in (0, 1)])
    for name in ("other", "bead-leg") if through == "both" else (through,):
        way = move(ring, f"{name}.through").path()
        middle = [(way[0][k] + way[-1][k]) / 2 for k in (0, 1)]
        assert math.atan2(*middle) == pytest.approx(where, abs=2.2 / 8.7)


def test_the_fold_lies_where_it_is_wanted() -> None:
    """Each leg goes once round from there: further by as much as the fold lies aside."""
    legs = {}
    for at in (-20, 0, 20):
        ring = made(wires=STEEL, band={"style": "folded-pair", "fold_at_deg": at})
        fold = move(ring, "fold").path()
        assert math.degrees(math.atan2(*[sum(p[k] for p in fold) / len(fold) for k in (0, 1)])) == pytest.approx(at, abs=11)
        legs[at] = move(ring, "other.round").length_mm
    assert legs[-20] == pytest.approx(legs[0], abs=0.1) and legs[20] == pytest.approx(legs[0], abs=0.1)
    with pytest.raises(Refusal) as refused:
        made(wires=STEEL, band={"style": "folded-pair", "through_eye": "bead-leg", "fold_at_deg": 20}, head={"style": "nest"})
    assert refused.value.faults[0].field == "band.fold_at_deg"


@pytest.mark.parametrize("turns", [2, 3, 4])
def test_a_bowed_barrel_lies_on_the_finger(turns: int) -> None:
    head = {"style": "double-coil", "lies": "bowed", "outer_turns": turns}
    ring = made(wires={"band": {"diameter": "1 mm"}}, band={"style": "open"}, head=head)
    coil = next(piece for piece in ring.pieces if piece.role == "coil")
    barrel = next(p for p in coil.moves if p.id == "coil.barrel")
    inside, fine = ring.band.inside_mm / 2, 0.65
    nearest = min(math.hypot(x, y) for x, y, _ in barrel.path()) - fine / 2
    assert nearest == pytest.approx(inside, abs=0.06)
    # o = m₁ + 2d: outer turns touch half a coil above the finger, so N of them cover N·o/(D/2 + o/2).
    o = 1.5 + 2 * fine
    spread = [math.atan2(x, y) for x, y, _ in barrel.path()]
    # Fine turns stand half a coil beyond both its ends.
    assert 0 <= max(spread) - min(spread) - turns * o / (inside + o / 2) < o / inside
    # The band's wire runs in the middle of the bore, and the drawn coil is as long as it is reckoned.
    through = move(ring, "head.arc")
    assert {round(math.hypot(x, y), 3) for x, y, _ in through.path()} == {round(inside + o + 0.75, 3)}
    assert length_mm(barrel.path()) == pytest.approx(barrel.length_mm, rel=0.015)


def test_a_nest_climbs_as_high_as_is_said() -> None:
    for cover in (1.0, 2.0, 3.0):
        nest = move(made(head={"style": "nest", "cover": cover}), "left.nest")
        seat = move(made(head={"style": "nest", "cover": cover}), "head.through")
        axis = seat.path()[0][1]
        assert max(y for _, y, _ in nest.path()) - axis == pytest.approx(cover, abs=1e-6)


def test_turns_that_find_no_room_lie_on_the_first_ones() -> None:
    ring = made(head={"style": "nest", "nest_turns": 4}, wires={"band": {"diameter": "0.8 mm"}})
    first, over = move(ring, "left.nest"), move(ring, "left.over")
    assert first.move.count == 2 and over.move.count == 2
    # The bead is a wire thicker all round: as far from its middle as that, wherever it isn't at a leg.
    axis = move(ring, "head.through").path()[0][1]
    beside = [math.dist((x, y, z), (0.0, axis, 0.0)) for x, y, z in over.path() if abs(x) < 2]
    assert min(beside) == pytest.approx(3.5 + 0.4 + 0.8, abs=0.05)
    assert over.length_mm - first.length_mm == pytest.approx(2 * 2 * math.pi * 0.8, rel=0.25)
    assert "second-layer" in codes(head={"style": "nest", "nest_turns": 4})


def test_fine_wraps_fill_a_hoop() -> None:
    """A quarter of the hoop at each place, half a lock and a wire's width of it taken."""
    full = made(head={"style": "hoop-seat", "bind_wraps": "fill"})
    wrap = move(full, "bind.far.bind1").move
    assert isinstance(wrap, HoopWrap)
    hoop = wrap.hoop.radius_mm
    band, fine = 0.8118, 0.3
    assert wrap.count == math.floor((math.pi / 2 * hoop - full.form.locks * band / 2 - fine) / fine)


@pytest.mark.parametrize(("name", "points"), [("diamond", 5), ("square", 5), ("star", 5), ("star", 6), ("polygon", 5), ("heart", 5)])
def test_an_outline_turned_end_for_end_twice_is_itself(name: Any, points: int) -> None:
    corners = outline_corners(name, side=9, across=12, width=9, points=points)
    turned = end_for_end(corners)
    assert max(a for a, _ in turned) == pytest.approx(-min(a for a, _ in corners))
    again = end_for_end(turned)
    assert all(min(math.dist(corner, other) for other in again) < 1e-9 for corner in corners)
    around = [length_mm((*each, each[0])) for each in (corners, turned)]
    assert around[0] == pytest.approx(around[1])


def test_neck_and_fork_change_places() -> None:
    star = {"style": "open-frame", "outline": "star", "diameter_mm": 14}
    usual, turned = (
        made(finger={"size": "US 10"}, band={"style": "woven"}, head={**star, **more}) for more in ({}, {"neck_at": "opposite"})
    )
    (first, _), (other, _) = usual.work.facts, turned.work.facts
    assert (other.neck_mm, other.fork_mm) == (pytest.approx(first.fork_mm), pytest.approx(first.neck_mm))
    with pytest.raises(Refusal):
        made(band={"style": "woven"}, head={**star, "neck_at": "tip", "fork_at": "tip"})


def test_forms_that_a_band_cannot_have_are_refused_with_those_that_it_can() -> None:
    for band, form, way_out in (("turned", "face", "bypass"), ("bundled", "bypass", "face")):
        with pytest.raises(Refusal) as refused:
            made(band={"style": band}, head={"style": "swirl", "form": form})
        assert refused.value.faults[0].field == "head.form" and way_out in str(refused.value.faults[0])
    assert (
        made(band={"style": "bundled"}, head={"style": "swirl", "form": "face"}).pieces
        == made(band={"style": "bundled"}, head={"style": "swirl"}).pieces
    )


def test_both_rows_splay_may_be_written_as_one() -> None:
    apart = read_ring({"head": {"style": "loop-rosette", "splay_inner_deg": 30, "splay_outer_deg": 60}})
    assert read_ring({"head": {"style": "loop-rosette", "splay_deg": [30, 60]}}) == apart


ROUGH = {"length_mm": 16, "width_mm": 12, "height_mm": 6}
SAID = [
    ("bead-sinks", {"head": {"style": "nest", "bead": {"diameter_mm": 4, "hole_mm": 1.2}}, "wires": {"band": {"diameter": "1.1 mm"}}}),
    ("hole-shows", {"head": {"style": "nest", "cover": 0.2}}),
    ("bead-chips", {"head": {"style": "nest"}, "wires": {"band": {"diameter": "0.8 mm", "temper": "half-hard"}}}),
    ("pass-scratches", {"head": {"style": "bead-lock", "pass_by": "under-over", "bead": {"made_of": "soft-stone"}}}),
    (
        "locks-far",
        {"finger": {"size": "US 3"}, "head": {"style": "bead-lock", "bead": {"diameter_mm": 10}}, "finish": {"wraps_each_side": 5}},
    ),
    (
        "stone-shaken",
        {
            "band": {"style": "turned", "worked": {}},
            "head": {"style": "wrapped-stone", "stone": {"made_of": "pearl-or-shell", "hole_mm": 2}},
        },
    ),
    ("lips-short", {"band": {"style": "woven", "base_wires": 3}, "head": {"style": "prongs", "lip_eye_mm": 0.6, "foot_radius_mm": 0}}),
    ("prongs-off-corners", {"band": {"style": "woven", "base_wires": 4}, "head": {"style": "prongs", "stone": {"width_mm": 14}}}),
    ("tips-slide", {"band": {"style": "twisted"}, "head": {"style": "prongs", "stone": ROUGH, "lip_mm": 1.2}}),
    (
        "claws-crack",
        {
            "band": {"style": "twisted"},
            "head": {"style": "prongs", "stone": {**ROUGH, "edge_radius_mm": 0.5}},
            "wires": {"band": {"diameter": "1 mm", "temper": "hard"}},
        },
    ),
    ("stone-turns", {"band": {"style": "twisted"}, "head": {"style": "prongs", "stone": ROUGH, "base_mm": 5, "claws_apart_mm": 2}}),
    ("claws-thin", {"band": {"style": "twisted"}, "head": {"style": "prongs", "stone": ROUGH}, "wires": {"band": {"diameter": "0.6 mm"}}}),
    ("squares-stiff", {"band": {"style": "bundled"}, "wires": {"base": {"diameter": "1 mm", "profile": "square", "temper": "half-hard"}}}),
    ("petals-low", {"head": {"style": "loop-rosette", "splay_inner_deg": 80, "splay_outer_deg": 80}}),
    ("tip-dents", {"band": {"style": "open"}, "head": {"style": "outline", "tip_bend_mm": 0.6}}),
    ("row-bare", {"head": {"style": "bead-rows", "side_beads": "2 × 3"}}),
    ("prong-bends-sharp", {"band": {"style": "woven", "base_wires": 3}, "head": {"style": "prongs", "foot_radius_mm": 0.1}}),
    ("knuckle-opens", {"finger": {"around_finger_mm": 54, "around_knuckle_mm": 60}, "band": {"style": "open"}}),
    ("eyes-full", {"band": {"style": "woven", "close": "eyes", "eye_mm": 0.9}, "head": {"style": "spiked-disc", "stitches_per_eye": 3}}),
]


def leads_somewhere(field: str, document: dict[str, Any], roles: set[str]) -> bool:
    """Whether what would mend it is a field of the ring file: of a wire that the ring has, or of its styles."""
    part, *rest = field.split(".")
    if part == "wires":
        return rest[0] in roles and rest[1] in WireSpec.model_fields
    file = read_ring(document)
    return not rest or rest[0] in type(getattr(file, part)).model_fields


@pytest.mark.parametrize(("code", "document"), SAID, ids=[code for code, _ in SAID])
def test_a_friend_says_so_when_it_is_so_and_not_otherwise(code: str, document: dict[str, Any]) -> None:
    told = plan(read_ring({"finger": {"size": "US 7"}, **document}))
    (field,) = [warning.field for warning in told.warnings if warning.code == code]
    assert leads_somewhere(field, document, {wire.role for wire in told.wires})
    usual = {part: {"style": document[part]["style"]} for part in ("band", "head") if part in document}
    usual |= {"band": {**usual["band"], "close": "eyes"}} if code == "eyes-full" else {}
    assert code not in codes(**usual)


def test_what_cannot_be_made_is_refused_where_it_is_typed() -> None:
    beads = [{"diameter_mm": 8}, {"diameter_mm": 3}, {"diameter_mm": 8}]
    for document, field in (
        ({"head": {"style": "bead-lock", "beads": beads}}, "head.beads.1.diameter_mm"),
        ({"band": {"style": "woven", "base_wires": 3}, "head": {"style": "prongs", "half_spread_mm": 1.2}}, "head.half_spread_mm"),
    ):
        with pytest.raises(Refusal) as refused:
            made(**document)
        assert refused.value.faults[0].field == field


@pytest.mark.parametrize("second", ["rest", "new"])
@pytest.mark.parametrize("head", ["open-frame", "framed-bead"])
def test_a_piece_that_is_taken_up_late_is_as_long_as_it_is_cut(head: str, second: str) -> None:
    told = plan(read_ring({"band": {"style": "woven"}, "head": {"style": head, "second_weave": second}}))
    step = next(s for s in told.steps if s.id == "second-half")
    later = next(w for w in told.wires if w.id == "weave.2")
    assert f"It takes {write(later.cut, Reader())}." in write(step.text, Reader())


@pytest.mark.parametrize("slack", [0, 0.02, 0.08])
def test_jogs_take_up_what_the_passes_are_laid_loose(slack: float) -> None:
    """A jog is a whole wave, 0.8 mm to each side over 5 mm: what it takes up, by quadrature, against the taut ways as they are drawn."""
    document = {"finger": {"size": "US 7"}, "head": {"style": "cage", "slack_share": slack}}
    taut = made(head={"style": "cage", "slack_share": 0})
    takes = quad(lambda x: math.hypot(1, 0.8 * math.tau / 5 * math.cos(math.tau * x / 5)), 0, 5)[0] - 5
    jogs = sum(math.ceil(slack * length_mm(move(taut, f"pass.{k}").path()) / takes) for k in (1, 2, 3))
    told = [write(s.text, Reader()) for s in plan(read_ring(document)).steps if s.id == "jogs"]
    assert [f"About {Count(math.ceil(jogs / 3), 'jog', 'jogs').written(Reader())} on each pass" in text for text in told] == [True] * bool(
        slack
    )
