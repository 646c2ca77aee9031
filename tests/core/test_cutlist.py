"""What to cut, by arithmetic written out here; and the marks on the straight wire."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.cutlist import OTHER_RISKS, cut, cut_length_mm, inches_text, standard_deviations
from pliant_coil.core.markout import marks
from pliant_coil.core.moves import Bend, Move, Straight, Through
from pliant_coil.core.recipe import Sizing
from pliant_coil.core.wires import WireRun, WireSpec, read_wire


def straight(length: float, label: str = "leg", **marked: object) -> Straight:
    return Straight(label, (0.0, 0.0, 0.0), (length, 0.0, 0.0), **marked)


def run(*moves: Move, from_reel: bool = False, held: tuple[bool, bool] = (True, True)) -> WireRun:
    return WireRun(read_wire(WireSpec(diameter="0.8 mm", from_reel=from_reel), "band"), moves, held)


def test_standard_deviations_for_usual_risks() -> None:
    """One-sided normal quantiles as printed in statistical tables."""
    assert [round(standard_deviations(risk), 3) for risk in (0.5, 0.1, 0.05, 0.02, 0.001)] == [0.0, 1.282, 1.645, 2.054, 3.090]


@pytest.mark.parametrize(
    ("tape", "grip", "risk", "held", "expected"),
    [
        # 100 mm with 2 % is σ = 2; 100 + 2 × 25 + 2 × 1 + 2.054 × 2 = 156.1.
        ("1 mm", "hand", 0.02, (True, True), 157),
        ("5 mm", "hand", 0.02, (True, True), 160),
        ("1/8 in", "hand", 0.02, (True, True), 50 * 3.175),
        ("1/4 in", "hand", 0.02, (True, True), 25 * 6.35),
        # 100 + 2 × 12 + 2 + 1.282 × 2 = 128.6.
        ("1 mm", "pliers", 0.1, (True, True), 129),
        # One end needs no holding: 100 + 25 + 2 + 4.1 = 131.1.
        ("1 mm", "hand", 0.02, (True, False), 132),
        ("1 mm", "hand", 0.5, (False, False), 102),
    ],
)
def test_cut_by_hand(tape: str, grip: str, risk: float, held: tuple[bool, bool], expected: float) -> None:
    sizing = Sizing.model_validate({"tape": tape, "grip": grip, "risk_of_running_out": risk})
    piece = cut(run(straight(100), held=held), sizing)
    assert piece.cut_mm == pytest.approx(expected)
    assert sum(m.length_mm for m in piece.moves) == pytest.approx(piece.cut_mm)
    assert piece.moves[0].length_mm == pytest.approx(piece.moves[-1].length_mm), "both ends share what is spare"
    assert [m.kind for m in piece.moves].count("grip") == sum(held)


def test_sigmas_add_in_quadrature() -> None:
    """3 and 4 make 5: 150 mm at 2 % and 200 mm at 2 %."""
    assert run(straight(150), straight(200)).sigma_mm == pytest.approx(5)


def test_from_the_reel_nothing_is_rounded() -> None:
    piece = cut(run(straight(100), from_reel=True), Sizing.model_validate({"tape": "5 mm"}))
    assert piece.cut_mm == pytest.approx(152 + standard_deviations(0.02) * 2)


@given(st.floats(10, 900), st.sampled_from(["1 mm", "5 mm", "1/8 in", "1/4 in"]))
def test_a_smaller_risk_never_cuts_less(length: float, tape: str) -> None:
    sizing = Sizing.model_validate({"tape": tape})
    lengths = [cut_length_mm(run(straight(length)), sizing, risk) for risk in OTHER_RISKS]
    assert lengths == sorted(lengths)


@given(st.floats(1, 3000))
def test_inches_never_fall_short(length: float) -> None:
    whole, _, part = inches_text(length).partition(" ")
    top, _, bottom = (part or "0/1").partition("/") if "/" in (part or whole) or not part else ("0", "", "1")
    inches = (int(whole) if "/" not in whole else 0) + (int(top) / int(bottom) if part else 0)
    if "/" in whole:
        top, _, bottom = whole.partition("/")
        inches = int(top) / int(bottom)
    assert length - 1e-3 <= inches * 25.4 < length + 25.4 / 8 + 1e-3


def test_mass_is_volume_times_density() -> None:
    piece = cut(run(straight(100)), Sizing())
    assert piece.mass_g == pytest.approx(piece.cut_mm / 10 * math.pi * 0.04**2 * 8.94)


def test_marks_and_jaws_along_the_wire() -> None:
    """A bend lands one wire diameter past the jaw (common practice, no source)."""
    before = Bend("bend", (0, 0, 0), 0.4, 0.0, math.pi / 2, 0.8)
    after = Bend("bend", (0, 0, 0), 0.4, 0.0, math.pi / 2, 0.8, jaw_at_end=True)
    bead = Through("bead", (0, 0, 0), (7, 0, 0), mark="bead", mark_share=0.5)
    found = marks([straight(10, mark="start"), before, bead, after])
    quarter = math.pi / 2 * 0.4
    assert [(m.kind, m.label, round(m.at_mm, 6)) for m in found] == [
        ("mark", "start", 0),
        ("jaw", "jaw: bend", round(10 - 0.8, 6)),
        ("mark", "bead", round(10 + quarter + 3.5, 6)),
        ("jaw", "jaw: bend", round(10 + quarter + 7 + quarter + 0.8, 6)),
    ]
