"""Every head against figures worked out apart from this code: closed forms, integrals and hulls by general libraries.

Whole rings' lengths and sizes stand for what makers do (common practice, no source).
"""

from collections.abc import Callable
from typing import Any

import pytest

from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.words.refusal import Refusal
from tests.core.polylines import closest
from tests.core.test_check_values import made_at

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
