"""Reading ring files: what is refused, what is brought forward, what is opened whatever happens."""

import re
from collections.abc import Iterator
from itertools import product
from typing import Any

import pytest

from pliant_coil.core.making.ring import make_ring
from pliant_coil.core.plan.build import plan
from pliant_coil.core.ring_file.document import Finger, Sizing, read_ring, read_ring_text, ring_schema
from pliant_coil.core.styles.finishes.wraps import Finish
from pliant_coil.core.styles.parameters import Part
from pliant_coil.core.styles.registry import all_bands, all_heads
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader, write


@pytest.mark.parametrize(
    ("document", "field"),
    [
        ({"rings": 1}, "rings"),
        ({"band": {"style": "knitted"}}, "band.style"),
        ({"band": {"style": "open", "overlap_mm": 90}}, "band.overlap_mm"),
        ({"band": {"style": "open", "overlap_mm": "wide"}}, "band.overlap_mm"),
        ({"band": {"style": "turned", "turns": 2.5}}, "band.turns"),
        ({"band": {"style": "turned", "turns": 99999999999999999999}}, "band.turns"),
        ({"band": {"style": "woven", "program": "A99999999999999999999 AB1"}}, "band.program"),
        ({"band": {"style": "bundled", "runs": "99999999999999999999 all"}}, "band.runs"),
        ({"head": {"style": "bead-lock"}, "band": {"style": "braided"}}, "head.style"),
        ({"head": {"style": "bead-lock", "bead": {"diameter_mm": 18}}, "finger": {"size": "US 4"}}, "head.bead.diameter_mm"),
        ({"wires": {"sew": {"diameter": "9 mm"}}}, "wires.sew.diameter"),
        ({"band": {"style": "crossed"}, "finish": {"wraps_each_side": 0}}, "finish.wraps_each_side"),
        ({"band": {"style": "stacked"}, "wires": {"band": {"diameter": "1.5 mm", "metal": "plated-copper"}}}, "wires.band.metal"),
    ],
)
def test_what_cant_be_made_is_refused_at_its_field(document: dict[str, Any], field: str) -> None:
    with pytest.raises(Refusal) as refused:
        plan(read_ring(document))
    assert [f.field for f in refused.value.faults] == [field]


def test_lengths_may_be_typed_with_their_unit() -> None:
    file = read_ring({"band": {"style": "open", "overlap_mm": "1/4 in", "eye_mm": "2 mm"}})
    band = file.band.model_dump()
    assert (band["overlap_mm"], band["eye_mm"]) == (6.35, 2.0)


def test_what_is_stored_opens_though_a_bound_got_tighter() -> None:
    document = {"version": 2, "band": {"style": "open", "overlap_mm": 60}}
    with pytest.raises(Refusal):
        read_ring(document)
    assert read_ring(document, stored=True).band.style == "open"


def test_version_1_is_brought_forward() -> None:
    old = {
        "version": 1,
        "band": {"style": "turned", "winding": "one-way", "turns": 3},
        "head": {"style": "bead-lock"},
        "finish": {"short_tail": "early"},
        "sizing": {"grip": "hand"},
    }
    file = read_ring(old)
    assert file.version == 3
    written = file.model_dump()
    assert written["band"]["gather"] == "short-tail" and written["band"]["gather_wraps"] == 2
    assert written["head"]["pass_by"] == "under-over"
    assert written["sizing"]["tail"] == "fingers" and written["sizing"]["tape"] == "1 mm"
    make_ring(file)


def test_broken_text_is_refused_with_its_place() -> None:
    with pytest.raises(Refusal, match="line 1, column 2"):
        read_ring_text("{nothing}")


def test_the_schema_names_every_style() -> None:
    schema = ring_schema()
    assert {"Turned", "Woven", "FoldedPair", "NestHead", "Prongs", "OpenFrame", "DoubleCoil"} <= set(schema["$defs"])


RUBBISH: tuple[Any, ...] = ("rubbish", -5, True, [], {}, {"x": 1}, [1], ["x"], None, 1e9, 2.5)
PARTS: dict[str, type[Part]] = {"finger": Finger, "sizing": Sizing, "finish": Finish}


def misfits() -> Iterator[dict[str, Any]]:
    """A ring file for every field of every part and style, with every kind of value that doesn't belong there."""
    for kind, styles in (("band", all_bands()), ("head", all_heads())):
        for name, style in styles.items():
            for field, value in product(style.model_fields, RUBBISH):
                yield {kind: {"style": name, field: value}}
    for part, model in PARTS.items():
        for field, value in product(model.model_fields, RUBBISH):
            yield {part: {field: value}}
    for value in RUBBISH:
        yield from (
            {"title": value},
            {"band": value},
            {"wires": value},
            {"wires": {"band": value}},
            {"wires": {"band": {"diameter": value}}},
        )


def test_every_refusal_speaks_the_trades_words() -> None:
    framework = re.compile(r"[Ii]nput should|valid |None|True|[\[\]{}]|\d{7}|e\+")
    found = {}
    for document in misfits():
        try:
            read_ring(document)
        except Refusal as refusal:
            for fault in refusal.faults:
                words = f"{write(fault.reason, Reader())} · {write(fault.accepted, Reader())}"
                if framework.search(words):
                    found[words] = document
    assert not found
