"""Tables that go out: CSV that a spreadsheet reads as it is meant."""

import csv
import io
from collections.abc import Iterable, Sequence

from pliant_coil.core.bench.notebook import GUARD, starts_a_formula


def csv_text(header: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """A table as CSV. No cell is taken for a formula."""
    table = io.StringIO()
    writing = csv.writer(table)
    writing.writerow(header)
    writing.writerows([_plain(cell) for cell in row] for row in rows)
    return table.getvalue()


def _plain(cell: object) -> object:
    return f"{GUARD}{cell}" if isinstance(cell, str) and starts_a_formula(cell) else cell
