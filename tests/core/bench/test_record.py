"""What is kept of a ring: older records are still read, and each says why it says nothing of a hand."""

import pytest

from pliant_coil.core.bench.notebook import OldRing
from pliant_coil.core.bench.record import OnTheWay, Record, Wire, record_from

BAND = {"piece": "band.1", "cut_mm": 200, "planned_mm": 150, "used_mm": 154, "kinds": {"arc": 112, "wrap": 38}}
TIE = {"piece": "tie.1", "cut_mm": 90, "planned_mm": 60, "used_mm": None, "kinds": {"wrap": 60}}
OLD = {
    "state": "finished", "why": "", "aim_mm": 17, "planned_size_mm": 17.0, "size_mm": 17.1, "minutes": 30, "planned_minutes": 40,
    "family": "turned", "mandrel": "the grooved one",
    "pieces": [BAND, TIE],
}  # fmt: skip


def test_a_record_of_an_older_version_is_read_with_what_it_has() -> None:
    record = Record.model_validate(OLD)
    assert record.off_mm == pytest.approx(0.1) and record.visits == [] and record.stage_minutes == {} and record.silent == ""
    assert (record.used_mm, record.planned_mm) == (154, 150), "a wire whose rest wasn't measured says nothing"
    used = record.as_used()
    assert dict(used.lengths) == {"arc": 112, "wrap": 38} and used.used_mm == 154 and used.before is None
    assert Record.model_validate(record.model_dump(mode="json")) == record


@pytest.mark.parametrize(
    ("changes", "why"),
    [
        ({"left_out": "it was odd"}, "it was odd"),
        ({"state": "spoiled"}, "spoiled"),
        ({"pieces": [{**BAND, "spliced_mm": 20.0}]}, "spliced"),
        ({"pieces": [TIE]}, "nothing was measured"),
    ],
)
def test_a_ring_that_says_nothing_of_a_hand_says_why(changes: dict[str, object], why: str) -> None:
    record = Record.model_validate({**OLD, **changes})
    assert record.silent == why and record.as_used().left_out == why


def test_a_tail_read_on_the_way_comes_to_the_hand_and_an_old_ring_never_does() -> None:
    wire = Wire(piece="band.1", cut_mm=190, planned_mm=150, used_mm=153, kinds={"arc": 112, "wrap": 38})
    read = wire.model_copy(update={"before": OnTheWay(kinds={"arc": 112}, used_mm=113.5)})
    assert Record(state="finished", pieces=[read]).as_used().before == ({"arc": 112}, 113.5)
    old = record_from(OldRing(2, title="Bee", cut_mm=230, used_mm=208, size_mm=17.0, minutes=40))
    assert old.off_mm is None and old.planned_mm is None and old.used_mm == 208 and old.silent == "from a notebook"
    assert record_from(OldRing(3, title="Bee")).pieces == []
