"""For whom an answer is written: units, size systems and language of the request."""

from typing import Annotated, Literal

from fastapi import Depends, Query

from pliant_coil.core.trade.sizes import SYSTEMS
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Reader


def reader_from(systems: str, units: Literal["mm", "in"], field: str = "sizes") -> Reader:
    """A reader whose size systems are given as `us,uk`. Raises `Refusal` for a system that isn't known."""
    codes = tuple(code.strip().lower() for code in systems.split(",") if code.strip())
    unknown = [code for code in codes if code not in SYSTEMS]
    if unknown or not codes:
        refuse(field, f"there is no size system “{(unknown or [''])[0][:20]}”", ", ".join(SYSTEMS))
    return Reader(units, codes)


def _reader(
    units: Annotated[Literal["mm", "in"], Query(description="Units of length in every text")] = "mm",
    sizes: Annotated[str, Query(max_length=40, description="Size systems, the first one first: us,uk")] = "us,uk",
) -> Reader:
    return reader_from(sizes, units)


TheReader = Annotated[Reader, Depends(_reader)]
