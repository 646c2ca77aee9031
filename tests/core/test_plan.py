"""Laws that hold for every ring, of every band and head."""

import ast
import math
import re
from itertools import pairwise
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings

from pliant_coil.core.making.assemble import MadeRing, assemble
from pliant_coil.core.making.ring import Ring, make_ring
from pliant_coil.core.making.solve import Solver, contributions
from pliant_coil.core.moves.placed import Fate
from pliant_coil.core.plan.build import plan
from pliant_coil.core.plan.card import card
from pliant_coil.core.plan.model import Plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.handed_on import Form, SizedBy
from pliant_coil.core.styles.registry import all_bands, all_heads
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader, write
from tests.core.laws import APART_MM, INTO_THE_CIRCLE_MM, apart, as_long_as_drawn, into_the_circle
from tests.core.recipes import AMBER_MEADOW, makeable

CORE = Path(__file__).parents[2] / "pliant_coil" / "core"


def planned(document: dict[str, Any], **changes: Any) -> Plan:
    return plan(read_ring({**document, **changes}), paths=True)


@given(makeable)
@settings(max_examples=60, deadline=None)
def test_start_and_finish_invert_and_the_causes_add_up(document: dict[str, Any]) -> None:
    ring = make_ring(read_ring(document))
    solver = Solver(ring)
    best = solver.solved(ring.aim_mm)[0]
    made = solver.made(best.form)
    if made.band.sized_by is SizedBy.MARK:
        assert made.finished_mm == pytest.approx(ring.aim_mm, abs=0.005)
    elif made.band.repeats:
        assert abs(best.off_mm) <= made.band.repeats.repeat_changes_mm / 2 + 0.005
    assert sum(c.mm for c in contributions(made)) == pytest.approx(made.finished_mm - best.form.diameter_mm, abs=1e-6)


@given(makeable)
@settings(max_examples=60, deadline=None)
def test_the_drawing_is_the_finished_ring(document: dict[str, Any]) -> None:
    """No drawn metal reaches into the circle that the mandrel reads."""
    for strand, reaches in into_the_circle(planned(document)):
        assert reaches <= INTO_THE_CIRCLE_MM, strand


@given(makeable)
@settings(max_examples=60, deadline=None)
def test_consecutive_moves_meet_where_they_are_drawn(document: dict[str, Any]) -> None:
    for one, then, mm in apart(planned(document)):
        assert mm <= APART_MM, (one, then)


@given(makeable)
@settings(max_examples=60, deadline=None)
def test_paths_are_as_long_as_their_moves_and_strips_have_no_gaps(document: dict[str, Any]) -> None:
    ring = make_ring(read_ring(document))
    made = Solver(ring).made(Solver(ring).solved(ring.aim_mm)[0].form)
    for piece in made.pieces:
        for placed in piece.moves:
            path = placed.path()
            if placed.move.kind in ("fold", "weave") or not path:
                # Weaves that change base wires are drawn with slack: within 1.6 %, tested beside their check values.
                continue
            along = sum(math.dist(a, b) for a, b in pairwise(path))
            assert as_long_as_drawn(placed.move.kind, along, placed.laid_mm), (placed.id, along, placed.laid_mm)
    told = planned(document)
    for wire in told.wires:
        at = 0.0
        for move in wire.moves:
            assert move.from_mm == pytest.approx(at, abs=1e-6)
            assert move.length_mm >= 0
            at = move.to_mm
        assert at == pytest.approx(wire.cut_mm, abs=1e-6)
        assert all(-0.5 <= mark.at_mm <= wire.cut_mm + 0.5 for mark in wire.marks)


@given(makeable)
@settings(max_examples=40, deadline=None)
def test_ids_stay_when_the_size_changes_and_every_reading_is_expected(document: dict[str, Any]) -> None:
    ring = make_ring(read_ring(document))
    solver = Solver(ring)
    start = solver.solved(ring.aim_mm)[0].form.diameter_mm
    made = solver.at(start)
    try:
        larger = solver.at(start + 0.2)
    except Refusal:
        return
    if document["band"]["style"] != "bundled":
        assert [[p.id for p in piece.moves] for piece in made.pieces] == [[p.id for p in piece.moves] for piece in larger.pieces]
    ids = [p.id for piece in made.pieces for p in piece.moves]
    assert len(ids) == len(set(ids))
    for task in made.tasks:
        assert set(task.makes) <= set(ids), task.id
        if any(check.reads_size for check in task.checks):
            low, high = sorted((made.finished_mm, made.form.diameter_mm))
            assert low - 0.3 <= made.reading_after(task) <= high + 1.2


@given(makeable)
@settings(max_examples=40, deadline=None)
def test_a_move_splits_into_what_is_made_and_what_is_left(document: dict[str, Any]) -> None:
    ring = make_ring(read_ring(document))
    made = Solver(ring).at(ring.band.start_mm(ring.aim_mm))
    for piece in made.pieces:
        for placed in piece.moves:
            move = placed.move
            assert move.split(0) == (None, move)
            if move.counted is None or move.count is None:
                assert move.split(1) == (move, None)
                continue
            assert move.split(move.count) == (move, None)
            if move.count > move.counted.step:
                part, rest = move.split(move.counted.step)
                assert part is not None and rest is not None
                assert part.length_mm + rest.length_mm == pytest.approx(move.length_mm, rel=0.005, abs=0.02), placed.id


def test_no_words_hold_a_length_that_is_not_a_figure() -> None:
    """A length inside words is a typed figure or told in both units; a usual wire (`0.8 mm` alone) is not words."""
    found = []
    for path in (p for floor in ("styles", "moves", "making", "plan") for p in (CORE / floor).rglob("*.py")):
        tree = ast.parse(path.read_text("utf-8"))
        docstrings = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
        for node in ast.walk(tree):
            if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in docstrings:
                units = set(re.findall(r"\d (mm|in)\b", node.value))
                if len(units) == 1 and not re.fullmatch(r"[\d./]+ (mm|in)", node.value):
                    found.append(f"{path.name}:{node.lineno} {node.value}")
    assert found == []


@given(makeable)
@settings(max_examples=30, deadline=None)
def test_a_reader_never_meets_another_unit_or_system(document: dict[str, Any]) -> None:
    plain = plan(read_ring(document))
    for reader, foreign in ((Reader("in", ("uk",)), " US "), (Reader("mm", ("us",)), " UK ")):
        # Cuts are told in both units: the reader's first, the other in brackets.
        other_unit = re.compile(r"\d mm\b|millimet" if reader.units == "in" else r"\d in\b|\binch(es)?\b")
        for line in card(plain, reader).splitlines():
            assert foreign not in f" {line} ", line
            assert not other_unit.search(re.sub(r"\([^()]* (mm|in)\)", "", line)), line


def test_every_pair_that_fits_plans_at_every_size() -> None:
    refused = []
    for band_name, band in all_bands().items():
        for head_name, head in all_heads().items():
            for options in ({}, {"base_wires": 3}) if "base_wires" in band.model_fields else ({},):
                if head().fits(band(**options)):
                    continue
                for us in (3, 5, 7, 10, 13):
                    document = {"finger": {"size": f"US {us}"}, "band": {"style": band_name, **options}, "head": {"style": head_name}}
                    try:
                        told = plan(read_ring(document), paths=True)
                    except Refusal as refusal:
                        refused.append((band_name, head_name, us, refusal.faults[0].field))
                        continue
                    assert told.steps and len(told.json()) < 300_000
                    texts = [text for step in told.steps for text in (step.text, step.check)] + [w.text for w in told.warnings]
                    for text in (write(text, Reader()) for text in texts if text):
                        assert not re.search(r"(^|[.!?] )[a-z]|  | [,.]", text), text
                    # A thing is said once.
                    said = [(warning.code, warning.field) for warning in told.warnings]
                    assert len(said) == len(set(said)), (band_name, head_name, us, said)
    # Small fingers can't take a large head: each refusal names the head's own field.
    assert all(us <= 7 and field.startswith(("head.", "finish.")) for _, _, us, field in refused), refused
    assert len(refused) <= 14


@pytest.mark.parametrize("head", ["bead-lock", "nest", "hoop-seat"])
def test_a_start_is_found_with_one_ring_where_only_locks_lie_inside(head: str, monkeypatch: pytest.MonkeyPatch) -> None:
    made: list[float] = []

    def counting(ring: Ring, form: Form) -> MadeRing:
        made.append(form.diameter_mm)
        return assemble(ring, form)

    monkeypatch.setattr("pliant_coil.core.making.solve.assemble", counting)
    for eighths in range(24, 105):
        made.clear()
        ring = make_ring(read_ring({"finger": {"size": f"US {eighths / 8}"}, "head": {"style": head}}))
        best = Solver(ring).solved(ring.aim_mm)[0]
        assert best.off_mm == pytest.approx(0, abs=0.001)
        assert made == [best.form.diameter_mm]


def test_mass_counts_only_what_stays_in_the_ring() -> None:
    told = planned({"band": {"style": "stacked"}})
    ring = make_ring(read_ring({"band": {"style": "stacked"}}))
    made = Solver(ring).at(told.start.inside_diameter_mm)
    (piece,) = made.pieces
    kept = sum(p.length_mm for p in piece.moves if p.fate is Fate.RING)
    assert told.band.mass_g == pytest.approx(kept * math.pi * 1.5**2 / 4 * 8.94e-3, rel=1e-3)
    assert {p.fate for p in piece.moves} == {Fate.RING, Fate.KERF, Fate.TRIM, Fate.SPARE}


def test_the_example_card() -> None:
    told = planned(AMBER_MEADOW)
    assert [w.role for w in told.wires] == ["band"]
    assert told.beads[0].fits
    assert [c.code for c in told.contributions] == ["locks-inside"]
    assert [s.phase for s in told.steps] == sorted((s.phase for s in told.steps), key=[s.phase for s in told.steps].index)
    assert sum(len(s.cautions) for s in told.steps) >= 5
