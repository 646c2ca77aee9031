"""Ring sizes: what people type, both ways, and what is refused."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

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
