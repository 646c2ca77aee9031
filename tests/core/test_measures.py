"""Numbers as makers write and read them."""

import json
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.trade.measures import mixed_number, round_up, tidy
from pliant_coil.core.words.figures import fraction_text, length_text, times_words
from pliant_coil.core.words.refusal import Refusal, fault


@pytest.mark.parametrize(
    ("text", "value"),
    [("7", 7), ("7.25", 7.25), ("7,25", 7.25), (".5", 0.5), ("7 1/4", 7.25), ("7-1/4", 7.25), ("3/8", 0.375), ("0", 0), ("12.", 12)],
)
def test_reads_mixed_numbers(text: str, value: float) -> None:
    assert mixed_number(text) == pytest.approx(value)


@pytest.mark.parametrize("text", ["", " ", "seven", "7/4", "1/0", "7.5 1/2", "--7", "7 1", "1e3", "½", "nan", "99999", "7 1/4 1/4"])
def test_anything_else_is_no_number(text: str) -> None:
    assert mixed_number(text) is None


@given(st.integers(0, 4000), st.sampled_from([2, 4, 8, 16]))
def test_a_fraction_reads_back_as_itself(steps: int, parts: int) -> None:
    text = fraction_text(steps / parts, parts)
    assert mixed_number(text) == pytest.approx(steps / parts)
    assert "/" not in text or int(text.split("/")[1]) <= parts


@given(st.floats(0, 5000), st.sampled_from([1, 5, 3.175, 6.35]))
def test_rounding_up_never_cuts_short(value: float, step: float) -> None:
    rounded = round_up(value, step)
    assert value - 1e-5 * step <= rounded < value + step * (1 + 1e-5)
    assert rounded / step == pytest.approx(round(rounded / step))
    assert round_up(rounded, step) == pytest.approx(rounded), "what stands on a mark stays there"


@pytest.mark.parametrize(("value", "parts", "text"), [(8.25, 8, "8 1/4"), (0.5, 4, "1/2"), (-1.75, 4, "-1 3/4"), (7, 8, "7"), (0, 4, "0")])
def test_fractions_in_lowest_terms(value: float, parts: int, text: str) -> None:
    assert fraction_text(value, parts) == text


def test_tidies_what_phones_type() -> None:
    assert tidy("  7½ ", "size") == "7 1/2"
    assert tidy("6 and a half", "size") == "6 1/2"
    assert tidy("2″", "size") == '2"'
    with pytest.raises(Refusal, match="80 characters"):
        tidy("7" * 81, "size")


def test_lengths_are_written_as_the_drawings_write_them() -> None:
    """One table for both writers: the one of every text, and the one of the numbers in drawings."""
    for row in json.loads(Path("tests/fixtures/lengths.json").read_text("utf-8")):
        assert (length_text(row["mm"], "mm"), length_text(row["mm"], "in")) == (row["as_mm"], row["as_in"])


def test_counts_in_words() -> None:
    assert [times_words(n) for n in (0, 1, 2, 3, 9)] == ["not at all", "once", "twice", "three times", "9 times"]


def test_a_refusal_says_field_reason_and_what_would_do() -> None:
    refusal = Refusal(fault("size", "is odd", "even ones"), fault("", "no good"))
    assert str(refusal) == "size: is odd (even ones); no good"
    assert [f.field for f in refusal.at("finger").faults] == ["finger.size", "finger"]
