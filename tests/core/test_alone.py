"""Ornaments without a band: no size, no mandrel, and only their own wire."""

import json
import math

import pytest

from pliant_coil.core.bench.ring_at_bench import RingAtBench
from pliant_coil.core.making.planned import planned
from pliant_coil.core.making.resizing import resize
from pliant_coil.core.plan.build import plan
from pliant_coil.core.plan.card import card
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.registry import all_heads
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader

ALONE = ["spiked-disc", "beaded-hoops"]


def document(head: str, **more: object) -> dict[str, object]:
    return {"band": {"style": "none"}, "head": {"style": head, **more}}


@pytest.mark.parametrize("head", ALONE)
def test_the_finger_says_nothing(head: str) -> None:
    """The same wires, weight and steps at any size, also when none is given."""
    plans = [plan(read_ring({**document(head), **finger})) for finger in ({}, {"finger": {"size": "US 3"}}, {"finger": {"size": "US 13"}})]
    same = ("sentence", "wires", "steps", "band", "warnings", "minutes")
    documents = [{part: whole[part] for part in same} for whole in (told.document() for told in plans)]
    assert documents[0] == documents[1] == documents[2]
    told = plans[0]
    assert told.band.sized_by == "nothing" and told.band.width_mm == 0
    assert not any(phrase.part in ("finger", "finish") for phrase in told.sentence)
    assert all(step.expected_mm is None for step in told.steps)


@pytest.mark.parametrize("head", ALONE)
def test_no_word_of_a_mandrel_or_a_ring_size(head: str) -> None:
    text = card(plan(read_ring(document(head))), Reader())
    assert not any(word in text for word in ("andrel", "Start at", "Comes off", "Finger", "US "))


def test_the_discs_wire_is_its_hoop_wraps_spikes_crystal_and_ends() -> None:
    """Hoop 40.2, wraps 106.8, spikes 133.5 and crystal 45.5 are checked elsewhere; each end goes round the doubled hoop three times more."""
    (wire,) = plan(read_ring(document("spiked-disc"))).wires
    around = 0.4 * (2 + 2 * math.pi)
    assert wire.net_mm == pytest.approx(280.5 + 45.5 + 2 * 3 * around, rel=0.005)


def test_hoops_take_what_they_take_on_a_band_but_for_the_sewing() -> None:
    worn = plan(read_ring({"finger": {"size": "US 8"}, "band": {"style": "braided"}, "head": {"style": "beaded-hoops"}}))
    alone = plan(read_ring(document("beaded-hoops")))
    own = {wire.id: wire.net_mm for wire in worn.wires if wire.role in ("coil", "sew") and wire.id != "sew.band"}
    assert {wire.id: wire.net_mm for wire in alone.wires} == pytest.approx(own)


@pytest.mark.parametrize("head", [head for head in all_heads() if head not in ALONE])
def test_what_needs_a_band_says_so(head: str) -> None:
    with pytest.raises(Refusal) as refused:
        plan(read_ring(document(head)))
    (fault,) = refused.value.faults
    assert fault.field == "head.style"
    assert all(all_heads()[name].title in str(refused.value) for name in ALONE)


@pytest.mark.parametrize("head", ALONE)
def test_it_goes_to_the_bench_and_can_be_saved(head: str) -> None:
    file = read_ring(document(head))
    at_bench = RingAtBench.of(file)
    assert [task.id for task in at_bench.tasks][-1] == "record"
    assert resize(planned(file).made, 18.0) == []
    assert read_ring(json.loads(file.model_dump_json(exclude_unset=True))) == file
