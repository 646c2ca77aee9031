"""One ring, not two: what is planned from a file and what is planned from what was kept of it are the same.

A wire that is given only in part takes what is usual for its role; what was asked and what was taken are both kept.
"""

import itertools
import json
from collections.abc import Iterator
from typing import Any

import pytest

from pliant_coil.core.making.ring import make_ring, with_defaults_taken
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import RingFile, read_ring
from pliant_coil.core.styles.bands.bundled import Bundled
from pliant_coil.core.styles.parameters import WireSpec
from pliant_coil.core.styles.registry import all_bands, all_heads
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader

OTHER: dict[str, Any] = {"diameter": "0.47 mm", "profile": "square", "metal": "bronze", "temper": "half-hard", "from_reel": True}
"""A wire of which no field is usual for any role."""


def pairs() -> Iterator[tuple[str, str]]:
    """Every band and head that fit, as they usually are."""
    for (band, b), (head, h) in itertools.product(all_bands().items(), all_heads().items()):
        if not h().fits(b()):
            yield band, head


def given_in_part() -> Iterator[dict[str, Any]]:
    """Every pair of the registry, every role that it has, every subset of a wire's fields."""
    for band, head in pairs():
        document = {"band": {"style": band}, "head": {"style": head}}
        for role in make_ring(read_ring(document)).wires:
            for n in range(len(OTHER) + 1):
                for fields in itertools.combinations(OTHER, n):
                    yield {**document, "wires": {role: {name: OTHER[name] for name in fields}}}


def kept(file: RingFile) -> RingFile:
    """As it comes back out of the records: written as JSON, with what was taken beside what was asked."""
    return read_ring(json.loads(json.dumps(with_defaults_taken(file).model_dump(mode="json", exclude_none=True))), stored=True)


def test_what_is_kept_of_a_wire_given_in_part_is_the_same_wire() -> None:
    held, refused = 0, 0
    for document in given_in_part():
        file = read_ring(document)
        try:
            ring = make_ring(file)
        except Refusal:
            refused += 1
            continue
        again = make_ring(kept(file))
        assert (again.wires, again.from_reel) == (ring.wires, ring.from_reel), document
        assert {role: wire.label for role, wire in again.wires.items()} == {role: wire.label for role, wire in ring.wires.items()}
        held += 1
    assert held > 2500 and refused < held / 2, (held, refused)


def test_the_plan_of_what_is_kept_is_the_plan() -> None:
    held = 0
    for band, head in pairs():
        document = {"band": {"style": band}, "head": {"style": head}}
        role = next(iter(make_ring(read_ring(document)).wires))
        file = read_ring({**document, "wires": {role: {"metal": "brass"}}})
        try:
            there = plan(file)
        except Refusal:
            continue
        assert plan(kept(file)).json(Reader()) == there.json(Reader()), document
        assert plan(kept(kept(file))).json(Reader()) == there.json(Reader()), document
        held += 1
    assert held > 60


@pytest.mark.parametrize("document", [{}, {"band": {"style": "braided"}}, {"head": {"style": "spiked-disc"}, "band": {"style": "none"}}])
def test_what_is_kept_of_a_ring_of_few_words_plans_alike(document: dict[str, Any]) -> None:
    file = read_ring(document)
    assert plan(kept(file)).json(Reader()) == plan(file).json(Reader())


def test_what_was_asked_is_told_apart_from_what_was_taken() -> None:
    file = kept(read_ring({"band": {"style": "bundled"}, "wires": {"base": {"diameter": "1 mm"}}}))
    assert file.model_dump(mode="json")["wires"] == {"base": {"diameter": "1 mm"}}
    assert file.taken is not None and (file.taken.band, file.taken.head) == ("bundled", "none")
    assert file.taken.wires["base"].profile == "square" and file.taken.wires["bind"].temper == "half-hard"


def test_a_later_change_of_what_is_usual_changes_no_ring_that_is_kept(monkeypatch: pytest.MonkeyPatch) -> None:
    file = read_ring({"band": {"style": "bundled"}, "wires": {"base": {"diameter": "1 mm"}}})
    before, stored = make_ring(file).wires, kept(file)
    monkeypatch.setattr(Bundled, "usual_wires", {"base": WireSpec(diameter="0.7 mm"), "bind": WireSpec(diameter="0.5 mm")})
    assert make_ring(file).wires != before
    assert make_ring(stored).wires == before


def test_another_band_or_head_takes_anew_what_was_not_asked() -> None:
    bundled = kept(read_ring({"band": {"style": "bundled"}, "wires": {"base": {"metal": "brass"}}}))
    woven = read_ring({**bundled.model_dump(mode="json", exclude_none=True), "band": {"style": "woven"}})
    assert make_ring(woven).wires == make_ring(read_ring({"band": {"style": "woven"}, "wires": {"base": {"metal": "brass"}}})).wires
    assert make_ring(kept(woven)).wires == make_ring(woven).wires
    headed = read_ring(
        {**kept(read_ring({"band": {"style": "woven"}})).model_dump(mode="json"), "head": {"style": "prongs", "setting": "claws"}}
    )
    assert (
        make_ring(headed).wires == make_ring(read_ring({"band": {"style": "woven"}, "head": {"style": "prongs", "setting": "claws"}})).wires
    )


def test_files_of_version_2_have_asked_for_all_that_they_say() -> None:
    whole = {"diameter": "1 mm", "profile": "round", "strip_width_mm": 2.0, "metal": "copper", "temper": "soft", "from_reel": False}
    file = read_ring({"version": 2, "band": {"style": "bundled"}, "wires": {"base": whole}}, stored=True)
    assert file.version == 3 and file.taken is None
    assert make_ring(kept(file)).wires == make_ring(file).wires
    assert make_ring(file).wires["base"].profile.name == "round"
