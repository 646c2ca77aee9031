"""What a maker would otherwise have to ask: figures of steps against those of the strip, and steps in the order in which they can be made."""

import re
from typing import Any

import pytest

from pliant_coil.core.plan.build import plan
from pliant_coil.core.plan.card import card, repeats
from pliant_coil.core.plan.model import Plan
from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.registry import all_bands, all_heads
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader, write


def pairs() -> list[dict[str, Any]]:
    """Every band with every head that it takes, three base wires too."""
    found = []
    for band_name, band in all_bands().items():
        for head_name, head in all_heads().items():
            for options in ({}, {"base_wires": 3}) if "base_wires" in band.model_fields else ({},):
                if not head().fits(band(**options)):
                    found.append({"band": {"style": band_name, **options}, "head": {"style": head_name}})
    return found


def told(document: dict[str, Any]) -> Plan | None:
    try:
        return plan(read_ring({"finger": {"size": "US 8"}, **document}))
    except Refusal:
        return None


def steps(of: Plan) -> dict[str, str]:
    return {step.id: f"{write(step.text, Reader())} {write(step.check, Reader()) if step.check else ''}" for step in of.steps}


@pytest.mark.parametrize("document", pairs(), ids=lambda d: " ".join(map(str, (*d["band"].values(), *d["head"].values()))))
def test_what_is_marked_is_used_and_what_is_used_is_marked(document: dict[str, Any]) -> None:
    of = told(document)
    if of is None:
        return
    said = " ".join(steps(of).values())
    for wire in of.wires:
        # A bend at pliers is told of at a step; a step that names jaw marks finds them on a strip.
        if any(mark.kind == "jaw" for mark in wire.marks):
            assert re.search(r"\bjaws?\b(?! in)", said.lower().replace("nylon jaws", "")), wire.id
        for mark in wire.marks:
            assert mark.kind == "jaw" or mark.label.split()[-1].lower() in said.lower(), mark.label
    if "jaw marks" in said:
        assert any(mark.kind == "jaw" for wire in of.wires for mark in wire.marks)


def test_jaws_stand_where_the_step_says() -> None:
    """A barrel's first bend: the strip's mark, and the distance that the step gives, read from its words."""
    of = told({"head": {"style": "double-coil"}})
    assert of is not None
    band = next(wire for wire in of.wires if wire.role == "band")
    (jaw,) = (mark.at_mm for mark in band.marks if mark.kind == "jaw")
    (middle,) = (mark.at_mm for mark in band.marks if mark.kind == "mark")
    said = re.search(r"Jaws ([\d.]+) mm to the left", steps(of)["first-bend"])
    assert said and float(said[1]) == pytest.approx(middle - jaw, abs=0.06)


@pytest.mark.parametrize(("side", "outline", "corners"), [(9.0, "diamond", [9.0]), (7.5, "square", None)])
def test_corners_of_a_frame_are_bent_where_its_sides_end(side: float, outline: str, corners: list[float] | None) -> None:
    of = told({"band": {"style": "woven"}, "head": {"style": "open-frame", "outline": outline, "side_mm": side, "corner_radius_mm": 0.2}})
    assert of is not None
    wire = of.wires[0]
    d = wire.width_mm
    (middle,) = (mark.at_mm for mark in wire.marks if mark.label == "middle")
    jaws = sorted(abs(mark.at_mm - middle) for mark in wire.marks if mark.kind == "jaw")
    # A diamond begins at a corner: the next two lie a side away, the jaws a wire short of them; a square begins in the middle of a side.
    expected = [side, side] if corners else [side / 2, side / 2, 1.5 * side, 1.5 * side]
    assert [jaw + d for jaw in jaws] == pytest.approx(expected, abs=0.45)


def test_a_band_that_begins_at_its_frame_is_woven_after_the_frame_is_bent() -> None:
    of = told({"band": {"style": "woven"}, "head": {"style": "open-frame"}})
    assert of is not None
    order = [step.id for step in of.steps]
    assert order.index("outline") < order.index("neck") < order.index("begin") < order.index("weave") < order.index("meet")


@pytest.mark.parametrize("document", pairs(), ids=lambda d: " ".join(map(str, (*d["band"].values(), *d["head"].values()))))
def test_a_card_says_what_comes_again_once(document: dict[str, Any]) -> None:
    of = told(document)
    if of is None:
        return
    lines = card(of, Reader()).splitlines()
    for k in range(len(lines) - 2):
        assert not lines[k].startswith("  ") or not lines[k] == lines[k + 1] == lines[k + 2], lines[k]
    assert not any(re.search(r": 0 (mm|in)$|: [+−]0 ", line) for line in lines)


@pytest.mark.parametrize(
    ("lines", "expected"),
    [
        ("a b c", "a|b|c"),
        ("a a b", "a|a|b"),
        ("a a a b", "3 × a|b"),
        ("x a b a b a b y", "x|3 × (a, b)|y"),
        ("l w s w l w s w l w s w", "3 × (l, w, s, w)"),
    ],
)
def test_repeats(lines: str, expected: str) -> None:
    assert "|".join(repeats(lines.split())) == expected
