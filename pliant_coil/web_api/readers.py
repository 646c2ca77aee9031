"""For whom an answer is written: units, size systems and language of the request."""

from typing import Annotated, Literal

from fastapi import Depends, Query, Response

from pliant_coil.core.trade.own_mandrel import Line
from pliant_coil.core.trade.sizes import SYSTEMS
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import Reader


class Written(Response):
    """An answer that is JSON already, its texts written for whoever reads them."""

    media_type = "application/json"


def reader_from(systems: str, units: Literal["mm", "in"], field: str = "sizes", mandrel: Line | None = None) -> Reader:
    """A reader whose size systems are given as `us,uk`, with their own mandrel. Raises `Refusal` for a system that isn't known."""
    codes = tuple(code.strip().lower() for code in systems.split(",") if code.strip())
    unknown = [code for code in codes if code not in SYSTEMS]
    if unknown or not codes:
        refuse(field, f"there is no size system “{(unknown or [''])[0][:20]}”", ", ".join(SYSTEMS))
    return Reader(units, codes, mandrel=mandrel)


async def _reader(
    units: Annotated[Literal["mm", "in"], Query(description="Units of length in every text")] = "mm",
    sizes: Annotated[str, Query(max_length=40, description="Size systems, the first one first: us,uk")] = "us,uk",
    mandrel_off: Annotated[float, Query(ge=-1.5, le=1.5, description="By how much the marks of the reader's mandrel are off [mm]")] = 0.0,
    mandrel_slope: Annotated[float, Query(ge=-0.1, le=0.1, description="And by how much more for each millimetre above 17")] = 0.0,
) -> Reader:
    mandrel = Line(mandrel_off, mandrel_slope) if mandrel_off or mandrel_slope else None
    return reader_from(sizes, units, mandrel=mandrel)


TheReader = Annotated[Reader, Depends(_reader)]
