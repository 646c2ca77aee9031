"""Ring sizes: what people type, both ways, and what is refused."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.trade.mandrels import Along
from pliant_coil.core.trade.sizes import SYSTEMS, SizeSystem, between_finger_and_knuckle, nearest_mark, read_size
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader, write


@pytest.mark.parametrize(
    ("text", "circumference"),
    [
        ("7", 54.41), ("US 7", 54.41), ("size us 7", 54.41), ("7 1/4", 55.05), ("7.25", 55.05), ("7,25", 55.05), ("7¼", 55.05),
        ("7-1/4", 55.05), ("6 and a half", 53.13), ("M½", 53.125), ("m 1/2", 53.125), ("UK M", 52.5), ("ukm", 52.5), ("AU Q", 57.5), ("Z+2", 71.25),
        ("UK Z+2 1/2", 71.875), ("54.4 mm", 54.4), ("5.44 cm", 54.4), ("EU 54", 54), ("54", 54), ("JP 13", math.pi * 17), ("CH 14", 54), ("IT 14", 54),
        ("DE 17.3", math.pi * 17.3), ("17.3 mm", math.pi * 17.3), ("⌀ 17.3", math.pi * 17.3), ("0.68 in", math.pi * 17.272), ('2 1/8"', 53.975),
    ],
)  # fmt: skip
def test_reads_what_people_type(text: str, circumference: float) -> None:
    assert math.pi * read_size(text).inside_diameter_mm == pytest.approx(circumference, abs=0.01)


@pytest.mark.parametrize(
    ("text", "accepted"),
    [("", "US 6 1/2"), ("US 99", "US 16"), ("UK 7", "UK A to UK Z+6"), ("20", "JP 20"), ("-3", "US"), ("NaN", "US"), ("7 1/0", "US"),
     ("54 kg", "US"), ("1e5", "US"), ("54 54", "US"), ("200 mm", "36.5 to 77.5"), ("7" * 5000, "80 characters"), ("<b>7</b>", "US"), ("'; drop table", "US")],
)  # fmt: skip
def test_refuses_with_what_would_do(text: str, accepted: str) -> None:
    with pytest.raises(Refusal) as refused:
        read_size(text)
    (fault,) = refused.value.faults
    assert fault.field == "finger.size"
    assert accepted in write(fault.accepted, Reader())
    assert len(write(fault.reason, Reader())) < 200


@given(system=st.sampled_from(list(SYSTEMS.values())), share=st.floats(0, 1))
def test_every_mark_reads_back_as_itself(system: SizeSystem, share: float) -> None:
    steps = (system.highest - system.lowest) / system.mark_step
    number = system.lowest + round(share * steps) * system.mark_step
    text = f"{system.code} {system.label(number)}"
    assert read_size(text).inside_diameter_mm == pytest.approx(system.to_diameter_mm(number))


@given(diameter=st.floats(12, 24), system=st.sampled_from(list(SYSTEMS.values())))
def test_mark_and_remainder_give_back_the_size(diameter: float, system: SizeSystem) -> None:
    mark = nearest_mark(diameter, system)
    if mark.label is None:
        assert system.to_number(diameter) < system.lowest
        return
    back = read_size(f"{system.code} {mark.label}").inside_diameter_mm + mark.remainder_mm
    assert back == pytest.approx(diameter)
    half_a_mark = (system.to_diameter_mm(1) - system.to_diameter_mm(0)) * system.mark_step / 2
    assert abs(mark.remainder_mm) <= half_a_mark + 1e-9


def test_remainder_is_shown_never_rounded_away() -> None:
    assert nearest_mark(17.5228 + 0.06, SYSTEMS["us"]).text == "just past US 7 1/4"
    assert nearest_mark(17.5228, SYSTEMS["us"]).text == "US 7 1/4"


@given(finger=st.floats(45, 65), excess=st.floats(0, 10))
def test_proposal_lies_between_finger_and_knuckle(finger: float, excess: float) -> None:
    proposal = between_finger_and_knuckle(finger, finger + excess)
    quarter = math.pi * 0.8128 / 4
    assert finger - quarter / 2 <= math.pi * proposal.inside_diameter_mm <= finger + max(excess, quarter) + quarter / 2
    assert ("open band" in write(proposal.reason, Reader())) == (excess > 5)


def test_proposal_names_the_field_it_refuses() -> None:
    with pytest.raises(Refusal, match=r"finger\.around_knuckle_mm"):
        between_finger_and_knuckle(54, 154)


GLYPHS = {"1/2": "½", "1/4": "¼", "3/4": "¾", "1/8": "⅛", "3/8": "⅜", "5/8": "⅝", "7/8": "⅞"}


@given(system=st.sampled_from(list(SYSTEMS.values())), share=st.floats(0, 1), how=st.integers(0, 5))
def test_every_mark_is_read_however_it_is_typed(system: SizeSystem, share: float, how: int) -> None:
    """Code before it in capitals or not, `size` around it, glyphs for fractions, decimals with point or comma, spaces or none."""
    steps = (system.highest - system.lowest) / system.mark_step
    number = system.lowest + round(share * steps) * system.mark_step
    label = system.label(number)
    code = system.code.upper()
    typed = [
        f"{code} {label}",
        f" {code.lower()}  {label} ",
        f"size {code} {label}",
        f"{code} size {label.lower()}",
        f"{code} " + next((label.replace(f" {plain}", glyph) for plain, glyph in GLYPHS.items() if label.endswith(f" {plain}")), label),
        f"{code} {label}" if system.code == "uk" else f"{code} {number:g}".replace(".", ","),
    ][how]
    assert read_size(typed).inside_diameter_mm == pytest.approx(system.to_diameter_mm(number))


@given(whole=st.integers(0, 15), parts=st.sampled_from([2, 4, 8, 16]), top=st.integers(1, 15), gap=st.sampled_from([" ", "-", "  "]))
def test_fractions_stand_by_themselves_or_behind_a_whole_number(whole: int, parts: int, top: int, gap: str) -> None:
    """`13/16` is thirteen sixteenths, `1 3/16` is nineteen: never one for the other."""
    top = top % parts or 1
    step_mm = 0.8128
    assert read_size(f"US {top}/{parts}").inside_diameter_mm == pytest.approx(11.63 + step_mm * top / parts)
    behind = read_size(f"US {whole}{gap}{top}/{parts}").inside_diameter_mm
    assert behind == pytest.approx(11.63 + step_mm * (whole + top / parts))


@given(sixteenths=st.integers(23, 38))
def test_inches_are_lengths_around_or_across(sixteenths: int) -> None:
    """36.5 to 77.5 mm can only be a circumference, 11.6 to 24.7 only a diameter; an inch is 25.4 mm by definition."""
    around = f"1 {sixteenths - 16}/16 in" if sixteenths < 32 else f"2 {sixteenths - 32}/16 in" if sixteenths > 32 else "2 in"
    assert read_size(around).inside_diameter_mm * math.pi == pytest.approx(sixteenths / 16 * 25.4)
    across = sixteenths / 40
    assert read_size(f"{across:.4f} in").inside_diameter_mm == pytest.approx(across * 25.4, abs=2e-3)


@pytest.mark.parametrize(
    ("own", "number", "system"), [(("eu", "jp"), "13", "jp"), (("us",), "13", "us"), (("eu", "ch"), "54", "eu"), (("de",), "17", "de")]
)
def test_a_bare_number_is_in_the_makers_own_system(own: tuple[str, ...], number: str, system: str) -> None:
    assert read_size(number, own=own).system == system


def test_a_bare_number_that_several_of_ones_systems_know_is_asked_about() -> None:
    with pytest.raises(Refusal) as refused:
        read_size("13", own=("us", "jp"))
    (fault,) = refused.value.faults
    assert write(fault.accepted, Reader()) == "US 13 or JP 13"


def test_the_way_along_the_mandrel_is_the_remainder_over_its_taper() -> None:
    """A taper of 1 in 16: 0.1 mm of diameter past US 7 (D 17.32) lies 1.6 mm further down."""
    assert write(Along(17.42), Reader()) == "1.6 mm past US 7"
    assert write(Along(17.22), Reader("in", ("us",))) == "0.063 in before US 7"
    assert write(Along(17.32), Reader()) == "US 7"
