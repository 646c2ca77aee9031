"""The laws of drawing and length, for rings from anywhere within bounds."""

import json
from itertools import islice
from typing import Any

import pytest

from pliant_coil.core.making.ring import make_ring
from pliant_coil.core.making.solve import Solver
from pliant_coil.core.mechanics.curves import length_mm
from pliant_coil.core.moves.weaving import FrameWeaving, Weaving
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.handed_on import SizedBy
from pliant_coil.core.words.refusal import Refusal
from tests.core.anywhere import rings
from tests.core.laws import APART_MM, INTO_THE_CIRCLE_MM, apart, as_long_as_drawn, into_the_circle

_LOOKED_AT = 1000


def broken(document: dict[str, Any]) -> list[str]:
    """What a ring breaks of the laws; nothing for one that is refused."""
    try:
        file = read_ring(document)
        told = plan(file, paths=True)
    except Refusal:
        return []
    sized = told.band.sized_by is not SizedBy.NOTHING
    cut = [f"{strand} reaches {mm:.3f} mm into the circle" for strand, mm in into_the_circle(told) if sized and mm > INTO_THE_CIRCLE_MM]
    torn = [f"{one} and {then} are {mm:.2f} mm apart" for one, then, mm in apart(told) if mm > APART_MM]
    return [*cut, *torn, *_other_lengths(document)]


def _other_lengths(document: dict[str, Any]) -> list[str]:
    ring = make_ring(read_ring(document))
    solver = Solver(ring)
    best = solver.solved(ring.aim_mm)[0]
    made = solver.made(best.form)
    found = []
    for piece in made.pieces:
        woven = [placed for placed in piece.moves if isinstance(placed.move, Weaving)]
        along, reckoned = sum(length_mm(placed.path()) for placed in woven), sum(placed.laid_mm for placed in woven)
        # Round the points of a frame wraps fan out; all of a wire's weave together keeps to what was cut for it.
        framed = any(isinstance(placed.move, FrameWeaving) for placed in woven)
        if along != pytest.approx(reckoned, rel=0.03 if framed else 0.015):
            found.append(f"what {piece.id} weaves is drawn {along:.2f} mm long, reckoned {reckoned:.2f}")
        for placed in piece.moves:
            path = placed.path()
            if placed.laid_mm < 0:
                found.append(f"{placed.id} is {placed.laid_mm:.2f} mm long")
            # A braid whose maker measured it takes what that says, however it is drawn.
            measured = placed.move.kind == "strand" and "first_20_took_mm" in document["band"]
            if path and not measured and placed.move.kind not in ("fold", "weave"):
                along = length_mm(path)
                if not as_long_as_drawn(placed.move.kind, along, placed.laid_mm):
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


@pytest.mark.parametrize(
    "band",
    [
        {"style": "turned"},
        {"style": "turned", "winding": "one-way", "gather": "short-tail"},
        {"style": "crossed"},
        {"style": "folded-pair", "eye_mm": 4.98},
        {"style": "woven", "close": "eyes"},
        {"style": "bundled"},
    ],
    ids=lambda band: band["style"],
)
@pytest.mark.parametrize("tail", ["left", "right"])
def test_so_does_a_cage_made_with_one_tail(tail: str, band: dict[str, Any]) -> None:
    for size, locks, passes in (("US 3", 2, 3), ("US 7", 3, 1), ("US 12", 2, 2)):
        head = {"style": "cage", "passes": [{"over": over, "tail": tail} for over in ("front", "back", "middle")[:passes]]}
        document = {"finger": {"size": size}, "band": band, "head": head, "finish": {"wraps_each_side": locks, "ends": "scroll"}}
        assert not broken(document), document
