"""What to cut, by arithmetic written out here; and the marks on the straight wire."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.making.cutting import OTHER_RISKS, Cut, cut_all, standard_deviations
from pliant_coil.core.making.markout import marks
from pliant_coil.core.moves.base import Move
from pliant_coil.core.moves.bend import Bend
from pliant_coil.core.moves.loop import Scroll
from pliant_coil.core.moves.placed import EndCare, Fate, Piece, Placed, Worked, laid_out
from pliant_coil.core.moves.straight import Straight, Through
from pliant_coil.core.ring_file.document import Sizing
from pliant_coil.core.styles.parameters import WireSpec, read_wire
from pliant_coil.core.words.figures import inches_up

DRAWN, FILED, SAWN = EndCare.DRAWN, EndCare.CUT, EndCare.SAWN


def straight(length: float, mark: str = "") -> Straight:
    return Straight("leg", (0.0, 0.0, 0.0), (length, 0.0, 0.0), mark=mark)


def piece(*moves: Move, from_reel: bool = False, ends: tuple[EndCare, EndCare] = (DRAWN, DRAWN), name: str = "band.1") -> Piece:
    placed = tuple(Placed(f"{name}.{k}", move) for k, move in enumerate(moves))
    return Piece(name, "band", read_wire(WireSpec(diameter="0.8 mm"), "band"), placed, from_reel, ends)


def cut(of: Piece, **sizing: object) -> Cut:
    (found,) = cut_all((of,), Sizing.model_validate(sizing))
    return found


def test_standard_deviations_for_usual_risks() -> None:
    """One-sided normal quantiles as printed in statistical tables."""
    assert [round(standard_deviations(risk), 3) for risk in (0.5, 0.1, 0.05, 0.02, 0.001)] == [0.0, 1.282, 1.645, 2.054, 3.090]


@pytest.mark.parametrize(
    ("tape", "tail", "risk", "ends", "expected"),
    [
        # 100 mm of straights: 2 % of its own and 2 % that straights share, σ = 2.83; 100 + 2 × 25 + 2 × 1 + 2.054 × 2.83 = 157.8.
        ("1 mm", "fingers", 0.02, (DRAWN, DRAWN), 158),
        ("5 mm", "fingers", 0.02, (DRAWN, DRAWN), 160),
        ("1/8 in", "fingers", 0.02, (DRAWN, DRAWN), 50 * 3.175),
        ("1/4 in", "fingers", 0.02, (DRAWN, DRAWN), 25 * 6.35),
        # 100 + 2 × 12 + 2 + 1.282 × 2.83 = 129.6.
        ("1 mm", "pliers", 0.1, (DRAWN, DRAWN), 130),
        # One end is cut to a mark: 100 + 25 + 2 + 5.8 = 132.8.
        ("1 mm", "fingers", 0.02, (DRAWN, FILED), 133),
        # Sawn at both ends: nothing to hold, nothing to trim.
        ("1 mm", "fingers", 0.5, (SAWN, SAWN), 100),
        ("1 mm", {"mm": 15}, 0.5, (DRAWN, DRAWN), 132),
    ],
)
def test_cut_by_hand(tape: str, tail: object, risk: float, ends: tuple[EndCare, EndCare], expected: float) -> None:
    found = cut(piece(straight(100), ends=ends), tape=tape, tail=tail, risk_of_running_out=risk)
    assert found.cut_mm == pytest.approx(expected)
    assert sum(m.length_mm for m in found.moves) == pytest.approx(found.cut_mm)
    assert found.moves[0].length_mm == pytest.approx(found.moves[-1].length_mm), "both ends share what is spare"
    assert [m.fate for m in found.moves].count(Fate.HELD) == ends.count(DRAWN)
    assert len({m.id for m in found.moves}) == len(found.moves)


def test_a_hands_bias_adds_up_and_its_noise_does_not() -> None:
    """150 and 200 mm of straights: noise 3 and 4 make 5; the bias that they share 2 % of 350 = 7; √(25 + 49). A scroll has a hand of its own."""
    assert piece(straight(150), straight(200)).sigma_mm == pytest.approx(math.sqrt(74))
    scroll = Scroll("scroll", 0.5, 0.9, 1.5, (0, 0, 0), (1, 0, 0), (0, 1, 0))
    both = math.hypot(0.06 * scroll.length_mm, 0.08 * scroll.length_mm)
    assert piece(straight(150), straight(200), scroll).sigma_mm == pytest.approx(math.sqrt(74 + both**2))


def test_from_the_reel_nothing_is_rounded() -> None:
    found = cut(piece(straight(100), from_reel=True), tape="5 mm", tail="fingers")
    assert found.cut_mm == pytest.approx(152 + standard_deviations(0.02) * math.sqrt(8))


@given(st.floats(10, 900), st.sampled_from(["1 mm", "5 mm", "1/8 in", "1/4 in"]))
def test_a_smaller_risk_never_cuts_less_and_like_cuts_are_one_choice(length: float, tape: str) -> None:
    found = [cut(piece(straight(length)), tape=tape, risk_of_running_out=risk).cut_mm for risk in OTHER_RISKS]
    assert found == sorted(found)
    shown = [mm for _, mm in cut(piece(straight(length)), tape=tape).risks]
    assert shown == sorted(set(shown)) == pytest.approx(sorted({round(mm, 3) for mm in found}))


@given(st.floats(30, 300), st.floats(1, 10))
def test_pieces_that_differ_a_little_are_cut_alike(length: float, more: float) -> None:
    one, other = cut_all((piece(straight(length)), piece(straight(length + min(more, length / 8)), name="band.2")), Sizing())
    assert one.cut_mm == pytest.approx(other.cut_mm)


@given(st.floats(1, 3000))
def test_inches_never_fall_short(length: float) -> None:
    inches = sum(int(top) / int(bottom or 1) for top, _, bottom in (part.partition("/") for part in inches_up(length).split()))
    assert length - 1e-3 <= inches * 25.4 < length + 25.4 / 8 + 1e-3


def test_mass_is_volume_times_density() -> None:
    found = cut(piece(straight(100)))
    assert found.mass_g == pytest.approx(found.cut_mm / 10 * math.pi * 0.04**2 * 8.94)


def test_worked_wire_is_cut_shorter_than_it_lies() -> None:
    """Hammering a stretch a tenth longer: 110 mm in the ring were 100 mm of wire."""
    placed = Placed("band.1.0", straight(110), worked=Worked("hammered", 1.0, 0.5, 1.1, 0.4))
    whole = Piece("band.1", "band", read_wire(WireSpec(diameter="0.8 mm"), "band"), (placed,))
    assert whole.net_mm == pytest.approx(100)
    assert placed.laid_mm == pytest.approx(110)


def test_marks_and_jaws_along_the_wire() -> None:
    """A bend lands one wire diameter past the jaw (common practice, no source)."""
    before = Bend("bend", (0, 0, 0), 0.4, 0.0, math.pi / 2, 0.8)
    after = Bend("bend", (0, 0, 0), 0.4, 0.0, math.pi / 2, 0.8, jaw="after")
    bead = Through("bead", (0, 0, 0), (7, 0, 0), mark="bead", mark_share=0.5)
    found = marks(laid_out(piece(straight(10, mark="start"), before, bead, after).moves))
    quarter = math.pi / 2 * 0.4
    assert [(m.kind, m.label, round(m.at_mm, 6)) for m in found] == [
        ("mark", "start", 0),
        ("jaw", "jaw: bend", round(10 - 0.8, 6)),
        ("mark", "bead", round(10 + quarter + 3.5, 6)),
        ("jaw", "jaw: bend", round(10 + quarter + 7 + quarter + 0.8, 6)),
    ]
