"""A maker's old notebook as a table: each line read as people write it, and said to be wrong where it can't be read.

A line a ring, its columns in any order, by the words over them; or this logbook's own table, a line a piece.
"""

import csv
import io
import re
import unicodedata
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import field, replace
from datetime import date, datetime
from typing import get_args

from pliant_coil.core.bench.progress import Ending
from pliant_coil.core.frozen import dataclass
from pliant_coil.core.trade.measures import read_length_mm
from pliant_coil.core.trade.sizes import read_size
from pliant_coil.core.words.refusal import Fault, Refusal, fault, refuse
from pliant_coil.core.words.say import Reader, say

MOST_LINES = 5000
LARGEST = 2_000_000
"""Bytes of a table."""
COLUMNS: Mapping[str, tuple[str, ...]] = {
    "date": ("date", "ended", "day", "made on"),
    "title": ("title", "name", "ring", "design"),
    "size": ("size", "finished size", "size_mm"),
    "mandrel": ("mandrel",),
    "wire": ("wire",),
    "cut": ("cut", "cut length", "cut_mm"),
    "left": ("left", "left over", "left_mm"),
    "used": ("used", "used_wire_mm"),
    "minutes": ("minutes", "min", "time"),
    "state": ("state", "ended as"),
    "note": ("note", "notes", "why", "remarks"),
    "piece": ("piece",),
}
"""What is read, and the words that may stand over it."""
_NAMED = {word: name for name, words in COLUMNS.items() for word in words}
_UNIT = re.compile(r"\s*[\[(](mm|in|min)[\])]\s*$")
_MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
_DOTTED = re.compile(r"(\d{1,2})\.\s*(\d{1,2})\.\s*(\d{4})")
_WORDED = re.compile(r"(\d{1,2})\.?\s+([A-Za-z]{3})[a-z]*\.?,?\s+(\d{4})")
_LONGEST = 200
GUARD = "'"
"""What keeps a spreadsheet from reckoning with a cell."""
_FORMULA, _SKIPPED = "=+-@", ",;|\"'"
_A_DAY = 24 * 60
_DATES = "2024-03-05, 5.3.2024 or 5 March 2024"


@dataclass(frozen=True)
class OldRing:
    """A ring as the notebook has it: lengths in mm, what isn't there None or empty, and what can't be read."""

    line: int
    title: str = ""
    ended: date | None = None
    size_mm: float | None = None
    mandrel: str = ""
    wire: str = ""
    cut_mm: float | None = None
    used_mm: float | None = None
    minutes: float | None = None
    state: Ending = "finished"
    note: str = ""
    faults: tuple[Fault, ...] = ()


@dataclass(frozen=True)
class Notebook:
    """What was read, and the columns that nothing was read from."""

    rings: tuple[OldRing, ...]
    unread: tuple[str, ...] = field(default=())


def read_notebook(packed: bytes, reader: Reader, today: date) -> Notebook:
    """Read a table that a spreadsheet wrote. Lengths without a unit are in the reader's. Raises `Refusal` for what is no table of rings."""
    if len(packed) > LARGEST:
        refuse("file", "the table is too large", f"up to {LARGEST // 1_000_000} MB")
    try:
        text = packed.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = packed.decode("cp1252", errors="replace")
    if "\0" in text:
        refuse("file", "this isn't a table", "a CSV file, as a spreadsheet saves it")
    first = text.partition("\n")[0]
    rows = csv.reader(io.StringIO(text), delimiter=max(",;\t", key=first.count))
    try:
        header, lines = next(rows, []), [(rows.line_num, row) for row in rows if any(cell.strip() for cell in row)]
    except csv.Error:
        refuse("file", "this isn't a table", "a CSV file, as a spreadsheet saves it")
    columns = [_column(word) for word in header]
    if not {name for name, _ in columns} & {"title", "size", "cut", "used"}:
        refuse("file", "no column says what ring it was", ", ".join(sorted(COLUMNS)) + " in its first line")
    if len(lines) > MOST_LINES:
        refuse("file", say("it has {n} lines", n=str(len(lines))), f"up to {MOST_LINES}: in parts")
    rings = [_ring(n, dict(zip(columns, row, strict=False)), reader, today) for n, row in lines]
    if "piece" in {name for name, _ in columns}:
        rings = list(_whole(rings))
    unread = tuple(word.strip() for word, (name, _) in zip(header, columns, strict=True) if not name and word.strip())
    return Notebook(tuple(rings), unread)


def _column(word: str) -> tuple[str, str]:
    """What a column is, empty for none that is known, and its unit where it names one."""
    plain = word.strip().lower()
    unit = _UNIT.search(plain)
    plain = _UNIT.sub("", plain)
    named = _NAMED.get(plain, "")
    return named, "mm" if plain.endswith("_mm") else unit.group(1) if unit else ""


def _ring(line: int, cells: Mapping[tuple[str, str], str], reader: Reader, today: date) -> OldRing:
    faults: list[Fault] = []
    said = {name: (_unquoted(cell), unit) for (name, unit), cell in cells.items() if name}

    def text(name: str) -> str:
        found = said.get(name, ("", ""))[0]
        if len(found) > _LONGEST:
            faults.append(fault(name, say("that is {n} characters long", n=str(len(found))), f"up to {_LONGEST}"))
        return found[:_LONGEST]

    def length(name: str) -> float | None:
        found, unit = said.get(name, ("", ""))
        if not found:
            return None
        bare = found if re.search(r"[A-Za-z\"]", found) else f"{found} {unit or reader.units}"
        try:
            return read_length_mm(bare, name)
        except Refusal as refusal:
            faults.extend(refusal.faults)
            return None

    ended, size = _date(text("date"), today, faults), _size(*said.get("size", ("", "")), reader, faults)
    cut, left, used = length("cut"), length("left"), length("used")
    if left is not None and cut is not None and left > cut:
        faults.append(fault("left", "more is left than was cut", "what was left of the cut"))
    if used is None and cut is not None and left is not None:
        used = max(0.0, cut - left)
    title = text("title")
    if not title and size is None and cut is None and used is None and not faults:
        faults.append(fault("title", "nothing says what ring it was", "a title, a size or a length"))
    return OldRing(
        line, title, ended, size, text("mandrel"), text("wire"), cut, used, _minutes(text("minutes"), faults),
        _state(text("state"), faults), text("note"), tuple(faults),
    )  # fmt: skip


def _whole(rings: Sequence[OldRing]) -> Iterator[OldRing]:
    """Lines that are pieces of one ring, one after the other with the same day and title, as one ring."""
    held: OldRing | None = None
    for ring in rings:
        if held and (held.ended, held.title, held.size_mm, held.minutes) == (ring.ended, ring.title, ring.size_mm, ring.minutes):
            cut, used = (_sum(getattr(held, name), getattr(ring, name)) for name in ("cut_mm", "used_mm"))
            held = replace(held, cut_mm=cut, used_mm=used, faults=(*held.faults, *ring.faults))
            continue
        if held:
            yield held
        held = ring
    if held:
        yield held


def _sum(a: float | None, b: float | None) -> float | None:
    return None if a is None or b is None else a + b


def starts_a_formula(cell: str) -> bool:
    """Whether a spreadsheet may reckon with a cell: what it skips before a formula's first sign is skipped here too.

    Blanks, separators, quotes and signs that nobody sees; a wide sign is the same as a narrow one (common practice, no source)."""
    for sign in cell:
        if unicodedata.category(sign)[0] in "ZC" or sign in _SKIPPED:
            continue
        return unicodedata.normalize("NFKC", sign)[:1] in _FORMULA
    return False


def _unquoted(cell: str) -> str:
    """A cell without its blanks, and without the mark that kept a spreadsheet from reckoning with it."""
    plain = " ".join(cell.split())
    return plain[1:] if plain[:1] == GUARD and starts_a_formula(plain[1:]) else plain


def _date(text: str, today: date, faults: list[Fault]) -> date | None:
    if not text:
        return None
    found = None
    try:
        if dotted := _DOTTED.fullmatch(text):
            found = date(int(dotted[3]), int(dotted[2]), int(dotted[1]))
        elif (worded := _WORDED.fullmatch(text)) and worded[2].lower() in _MONTHS:
            found = date(int(worded[3]), _MONTHS.index(worded[2].lower()) + 1, int(worded[1]))
        else:
            found = datetime.fromisoformat(text).date()
    except ValueError:
        faults.append(fault("date", say("“{text}” isn't a day that can be read", text=text), _DATES))
        return None
    if not date(1900, 1, 1) <= found <= today:
        faults.append(fault("date", say("“{text}” isn't a day that has been", text=text), "from 1900 to today"))
    return found


def _size(text: str, unit: str, reader: Reader, faults: list[Fault]) -> float | None:
    if not text:
        return None
    try:
        return read_size(f"{text} mm diameter" if unit == "mm" else text, "size", reader.systems).inside_diameter_mm
    except Refusal as refusal:
        faults.extend(refusal.faults)
        return None


def _minutes(text: str, faults: list[Fault]) -> float | None:
    """`90`, `90 min`, `1:30` or `1 h 30`."""
    if not text:
        return None
    hours = re.fullmatch(r"(\d{1,2})\s*(?::|h)\s*(\d{1,2})?\s*(?:min)?", text.lower())
    plain = re.fullmatch(r"(\d{1,4}(?:[.,]\d+)?)\s*(?:min|minutes)?", text.lower())
    value = int(hours[1]) * 60 + int(hours[2] or 0) if hours else float(plain[1].replace(",", ".")) if plain else None
    if value is None or value > _A_DAY:
        faults.append(fault("minutes", say("“{text}” isn't a time that can be read", text=text), "90, 90 min or 1:30"))
        return None
    return float(value)


def _state(text: str, faults: list[Fault]) -> Ending:
    plain = text.lower().replace(" ", "_") or "finished"
    for state in get_args(Ending):
        if plain == state:
            found: Ending = state
            return found
    faults.append(fault("state", say("“{text}” isn't how a ring ends here", text=text), "finished, spoiled or set aside"))
    return "finished"
