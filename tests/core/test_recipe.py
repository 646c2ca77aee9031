"""The ring file: what is read, what is refused, and in which words."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.planner import plan
from pliant_coil.core.recipe import RingFile, read_ring, read_ring_text, ring_schema
from pliant_coil.core.refusal import Refusal
from pliant_coil.core.ring import make_ring
from tests.core.recipes import AMBER_MEADOW


def faults(document: object) -> dict[str, str]:
    with pytest.raises(Refusal) as refused:
        make_ring(read_ring(document))
    return {fault.field: f"{fault.reason} ({fault.accepted})" for fault in refused.value.faults}


def test_every_field_has_its_usual_value() -> None:
    assert plan(read_ring({})).wires[0].cut_mm > 100
    assert plan(read_ring({"band": {"style": "turned"}, "head": {"style": "bead-lock"}})).beads[0].fits


def test_what_isnt_said_of_a_wire_is_as_usual_for_the_band() -> None:
    ring = read_ring({"band": {"style": "woven"}, "wires": {"weave": {"metal": "brass"}}})
    assert ring.wire("weave").diameter == "0.4 mm" and ring.wire("weave").from_reel
    assert ring.wire("weave").metal == "brass"


def test_a_file_reads_back_as_itself() -> None:
    ring = read_ring(AMBER_MEADOW)
    assert RingFile.model_validate_json(ring.model_dump_json()) == ring
    assert read_ring_text(json.dumps(AMBER_MEADOW)) == ring


@pytest.mark.parametrize(
    ("change", "field", "said"),
    [
        ({"foo": 1}, "foo", "isn't a field"),
        ({"version": 7}, "version", "choices (1)"),
        ({"format": "other"}, "format", "pliant-coil/ring"),
        ({"title": 5}, "title", "isn't text"),
        ({"title": "x" * 1_000_000}, "title", "120 characters"),
        ({"finger": {}}, "finger", "no size is given"),
        ({"finger": {"size": "US 7", "inside_circumference_mm": 54}}, "finger", "2 times"),
        ({"finger": {"around_finger_mm": 54}}, "finger.around_knuckle_mm", "missing"),
        ({"finger": {"inside_circumference_mm": -1}}, "finger.inside_circumference_mm", "more than 0"),
        ({"finger": {"inside_circumference_mm": 1e300}}, "finger.inside_circumference_mm", "36.5"),
        ({"finger": {"inside_circumference_mm": float("nan")}}, "finger.inside_circumference_mm", "measured"),
        ({"band": {"style": "knotted"}}, "band.style", "turned"),
        ({"band": {"style": "turned", "turns": 0}}, "band.turns", "at least 1"),
        ({"band": {"style": "turned", "turns": 1.5}}, "band.turns", "whole number"),
        ({"band": {"style": "turned", "laps": 2}}, "band.laps", "isn't a field"),
        ({"band": []}, "band", ""),
        ({"head": {"style": "bead-lock", "bead": {"diameter_mm": 7, "hole_mm": 6.9}}}, "head.bead.hole_mm", "at most 6"),
        ({"head": {"style": "bead-lock", "bead": {"diameter_mm": 3, "hole_mm": 3.5}}}, "head.bead.hole_mm", "leaves nothing"),
        ({"head": {"style": "bead-lock", "bead": {"diameter_mm": 19}}}, "head.bead.diameter_mm", "up to 1"),
        ({"head": {"style": "bead-lock"}, "finish": {"wraps_each_side": 0}}, "finish.wraps_each_side", "at least 1"),
        ({"finish": {"wraps_each_side": 8}, "wires": {"band": {"diameter": "3.2 mm"}}}, "finish.wraps_each_side", "meet at the back"),
        ({"wires": {"string": {}}}, "wires.string", "band, base"),
        ({"wires": {"band": {"metal": "moonstone"}}}, "wires.band.metal", "copper"),
        ({"wires": {"band": {"diameter": "80 mm"}}}, "wires.band.diameter", "0.15 to 3.3"),
        ({"sizing": {"school": "guess"}}, "sizing.school", "one-up"),
        ({"sizing": {"risk_of_running_out": 0}}, "sizing.risk_of_running_out", "at least 0.0001"),
    ],
)
def test_refuses_with_field_and_reason(change: dict[str, Any], field: str, said: str) -> None:
    found = faults({**AMBER_MEADOW, **change})
    assert field in found
    assert said in found[field]
    assert all(len(words) < 600 for words in found.values())


def test_tells_all_faults_at_once() -> None:
    assert set(faults({"band": {"style": "turned", "turns": 9}, "finish": {"wraps_each_side": 99}})) == {
        "band.turns",
        "finish.wraps_each_side",
    }


@pytest.mark.parametrize(
    "text", ["", "{", "[1]", "null", "NaN", '{"title": "' + "x" * 300_000, "\ud800".encode("utf-8", "surrogatepass"), "[" * 50_000]
)
def test_refuses_text_that_is_no_ring_file(text: str | bytes) -> None:
    with pytest.raises(Refusal):
        read_ring_text(text)


def test_control_characters_leave_a_title_readable() -> None:
    assert read_ring({"title": "Bee\x00 ring\ud800"}).title == "Bee  ring "


json_values = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=8),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner, max_size=3),
    max_leaves=8,
)


@given(
    st.fixed_dictionaries(
        {}, optional=dict.fromkeys(("finger", "wires", "band", "head", "finish", "sizing", "title", "version"), json_values)
    )
)
def test_anything_is_planned_or_refused(document: dict[str, Any]) -> None:
    try:
        plan(read_ring(document))
    except Refusal as refusal:
        assert refusal.faults


def test_the_schema_takes_the_example_and_names_the_styles() -> None:
    schema = ring_schema()
    assert set(AMBER_MEADOW) <= set(schema["properties"])
    assert {"Turned", "BeadLock", "NoHead"} <= set(schema["$defs"])
