"""Rows of beads as they are typed, and as they stand in a ring file."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.styles.bead_lists import read_row, row_of
from pliant_coil.core.styles.heads.bead_lock import BeadLock


@pytest.mark.parametrize(
    ("typed", "sizes"),
    [
        ("3 × 5", [5, 5, 5]),
        ("3x5", [5, 5, 5]),
        ("4 8 4", [4, 8, 4]),
        ("2 x 4, 1 x 6, 2 × 4", [4, 4, 6, 4, 4]),
        ("5; 5; 5", [5, 5, 5]),
        ("3 * 5 mm", [5, 5, 5]),
        ("2.5 3.5", [2.5, 3.5]),
        ("none", []),
        ("", []),
    ],
)
def test_rows_are_read_as_makers_write_them(typed: str, sizes: list[float]) -> None:
    assert [bead["diameter_mm"] for bead in read_row(typed)] == sizes


@given(st.lists(st.integers(20, 80).map(lambda tenths: tenths / 10), min_size=1, max_size=8))
def test_a_row_comes_back_as_it_was_written(sizes: list[float]) -> None:
    file = read_ring({"head": {"style": "bead-rows", "middle_beads": " ".join(map(str, sizes))}})
    again = read_ring(file.model_dump(mode="json"))
    assert [b["diameter_mm"] for b in again.model_dump()["head"]["middle_beads"]] == sizes


def test_several_beads_stand_on_one_wire_in_place_of_one() -> None:
    head = read_ring({"head": {"style": "bead-lock", "beads": "4 6 4"}}).head
    assert isinstance(head, BeadLock)
    assert head.whole.length == 14 and head.whole.width == 6
    assert len(row_of(3, 5.0)) == 3
