"""An old notebook: lines as people write them, and what is said of those that can't be read."""

import csv
import io
import math
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from pliant_coil.core.bench.notebook import OldRing, read_notebook
from pliant_coil.core.words.refusal import Refusal
from pliant_coil.core.words.say import Reader

TODAY = date(2026, 11, 26)


def read(text: str, reader: Reader = Reader()) -> tuple[OldRing, ...]:
    return read_notebook(text.encode(), reader, TODAY).rings


def columns(rings: tuple[OldRing, ...]) -> list[list[str]]:
    return [[fault.field for fault in ring.faults] for ring in rings]


def test_lines_as_a_maker_wrote_them() -> None:
    table = "Day;Ring;Size;Cut;Left over;Time;Notes\n5.3.2024;Nest;UK M½;9 in;1/2 in;1:10;spare loops\n6 April 2024;Plain;17 mm;230;22;40 min;\n"
    nest, plain = read(table)
    assert (nest.ended, nest.title, nest.minutes, nest.note) == (date(2024, 3, 5), "Nest", 70, "spare loops")
    # UK M½ is 10.5 letters after C: 40 + 1.25 · 10.5 mm round (BS 6820); nine inches less a half.
    assert nest.size_mm == pytest.approx((40 + 1.25 * 10.5) / math.pi)
    assert (nest.cut_mm, nest.used_mm) == pytest.approx((228.6, 8.5 * 25.4))
    assert (plain.size_mm, plain.used_mm, plain.minutes) == (17, 208, 40)
    assert columns((nest, plain)) == [[], []]


def test_bare_lengths_are_in_the_readers_unit_or_the_columns() -> None:
    assert read("title,cut,left\na,9,1\n", Reader(units="in"))[0].used_mm == pytest.approx(8 * 25.4)
    assert read("title,cut [mm],left (in)\na,230,1\n", Reader(units="in"))[0].used_mm == pytest.approx(230 - 25.4)


@pytest.mark.parametrize(
    ("line", "faulty"),
    [
        ("3/5/2024,a,US 7,230,20,40,finished", ["date"]),
        ("2031-01-01,a,US 7,230,20,40,finished", ["date"]),
        ("2024-01-01,a,US 99,230,20,40,finished", ["size"]),
        ("2024-01-01,a,US 7,long,20,40,finished", ["cut"]),
        ("2024-01-01,a,US 7,230,240,40,finished", ["left"]),
        ("2024-01-01,a,US 7,230,20,an hour,finished", ["minutes"]),
        ("2024-01-01,a,US 7,230,20,40,lost", ["state"]),
        ("2024-01-01,,,,,40,", ["title"]),
        ("nonsense,a,US 99,x,y,z,w", ["date", "size", "cut", "left", "minutes", "state"]),
    ],
)
def test_what_cant_be_read_is_said_at_its_column(line: str, faulty: list[str]) -> None:
    rings = read(f"date,title,size,cut,left,minutes,state\n{line}\n2024-01-01,good,US 7,230,20,40,Set aside\n")
    assert sorted(columns(rings)[0]) == sorted(faulty)
    assert rings[1].faults == () and rings[1].state == "set_aside"


@pytest.mark.parametrize(
    "packed", [b"", b"\0\1\2", b"colour,weather\nred,rain\n", b"title\n" + b"x\n" * 5001, b"title\n" + b"x" * 2_000_001]
)
def test_what_is_no_table_of_rings_is_refused(packed: bytes) -> None:
    with pytest.raises(Refusal) as refusal:
        read_notebook(packed, Reader(), TODAY)
    assert [fault.field for fault in refusal.value.faults] == ["file"]


def test_a_spreadsheets_own_encoding_and_its_unknown_columns() -> None:
    notebook = read_notebook("title,weather\nGänseblümchen,rain\n".encode("cp1252"), Reader(), TODAY)
    assert notebook.rings[0].title == "Gänseblümchen" and notebook.unread == ("weather",)


def test_pieces_of_one_ring_are_one_ring() -> None:
    table = (
        "ended,title,size_mm,piece,cut_mm,used_wire_mm,minutes\n"
        + "2024-01-01T10:00:00,a,17.1,base,100,90,30\n2024-01-01T10:00:00,a,17.1,weave,900,860,30\n"
    )
    (ring,) = read(table + "2024-01-02T10:00:00,b,18.0,base,100,,30\n")[:1]
    assert (ring.cut_mm, ring.used_mm, ring.size_mm) == (1000, 950, 17.1)
    assert len(read(table)) == 1


words = st.text(st.characters(codec="utf-8", exclude_characters="\0", exclude_categories=["C"]), max_size=30)


@given(st.lists(st.fixed_dictionaries(dict.fromkeys(("date", "title", "size", "cut", "left", "minutes", "note"), words)), max_size=6))
def test_whatever_stands_there_each_line_is_read_or_its_fault_is_said(lines: list[dict[str, str]]) -> None:
    table = io.StringIO()
    writing = csv.DictWriter(table, ["date", "title", "size", "cut", "left", "minutes", "note"])
    writing.writeheader()
    writing.writerows(lines)
    for ring in read(table.getvalue()):
        assert ring.faults or ring.title or ring.size_mm or ring.cut_mm is not None
        assert ring.used_mm is None or 0 <= ring.used_mm <= (ring.cut_mm or 0)
