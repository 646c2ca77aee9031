"""The laws of drawing and length, for rings from anywhere within bounds."""

import json
import math
from itertools import islice, pairwise
from typing import Any

import pytest

from pliant_coil.core.making.ring import make_ring
from pliant_coil.core.making.solve import Solver
from pliant_coil.core.plan.build import plan
from pliant_coil.core.plan.model import Plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.handed_on import SizedBy
from pliant_coil.core.words.refusal import Refusal
from tests.core.anywhere import rings

_LOOKED_AT = 600
_INTO_THE_CIRCLE_MM, _APART_MM = 0.03, 0.02


def broken(document: dict[str, Any]) -> list[str]:
    """What a ring breaks of the laws; nothing for one that is refused."""
    try:
        file = read_ring(document)
        told = plan(file, paths=True)
    except Refusal:
        return []
    return [*_cut_by_the_circle(told), *_torn(told), *_other_lengths(document)]


def _cut_by_the_circle(told: Plan) -> list[str]:
    drawing = told.drawing
    assert drawing is not None
    if told.band.sized_by is SizedBy.NOTHING:
        return []
    wires = {(wire.role, wire.piece): wire for wire in told.wires}
    found = []
    for strand in drawing.strands:
        wire = wires[strand.role, strand.piece]
        # A half-round lies flat side in (see test_plan).
        below = 2 / (3 * math.pi) * wire.width_mm if wire.profile == "half-round" else strand.height_mm / 2
        least = min(math.hypot(x - drawing.inside_x_mm, y - drawing.inside_y_mm) for x, y, _ in strand.points)
        if least - below < drawing.inside_radius_mm - _INTO_THE_CIRCLE_MM:
            found.append(f"{strand.id} reaches {drawing.inside_radius_mm - least + below:.3f} mm into the circle")
    return found


def _torn(told: Plan) -> list[str]:
    assert told.drawing is not None
    return [
        f"{one.id} and {then.id} are {math.dist(one.points[-1], then.points[0]):.2f} mm apart"
        for one, then in pairwise(told.drawing.strands)
        if (one.role, one.piece, one.move + 1) == (then.role, then.piece, then.move)
        and math.dist(one.points[-1], then.points[0]) > _APART_MM
    ]


def _other_lengths(document: dict[str, Any]) -> list[str]:
    ring = make_ring(read_ring(document))
    solver = Solver(ring)
    best = solver.solved(ring.aim_mm)[0]
    made = solver.made(best.form)
    found = []
    for piece in made.pieces:
        for placed in piece.moves:
            path = placed.path()
            if placed.laid_mm < 0:
                found.append(f"{placed.id} is {placed.laid_mm:.2f} mm long")
            # A braid whose maker measured it takes what that says, however it is drawn.
            measured = placed.move.kind == "strand" and "first_20_took_mm" in document["band"]
            if path and not measured and placed.move.kind not in ("fold", "weave"):
                along = sum(math.dist(a, b) for a, b in pairwise(path))
                # A prong is reckoned with two right angles, though its run may rise to its foot.
                if along != pytest.approx(placed.laid_mm, rel=0.025 if placed.move.kind == "prong" else 0.015, abs=0.05):
                    found.append(f"{placed.id} is drawn {along:.2f} mm long, reckoned {placed.laid_mm:.2f}")
    if made.band.sized_by is SizedBy.MARK and abs(made.finished_mm - ring.aim_mm) > 0.005:
        found.append(f"comes off {made.finished_mm - ring.aim_mm:.3f} mm off")
    return found


def test_every_ring_keeps_the_laws_of_drawing_and_length() -> None:
    failed = {}
    for document in islice(rings(2026), _LOOKED_AT):
        if faults := broken(document):
            failed[json.dumps(document)] = faults
    assert not failed
