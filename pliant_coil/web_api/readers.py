"""For whom an answer is written: units, size systems and language of the request."""

from typing import Annotated, Literal

from fastapi import Depends, Query, Response
from pydantic import BaseModel, Field

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


class Reads(BaseModel):
    """Who reads, as a request's query tells it."""

    units: Literal["mm", "in"] = Field("mm", description="Units of length in every text")
    sizes: str = Field("us,uk", max_length=40, description="Size systems, the first one first: us,uk")
    mandrel_off: float = Field(0.0, ge=-1.5, le=1.5, description="By how much the marks of the reader's mandrel are off [mm]")
    mandrel_slope: float = Field(0.0, ge=-0.1, le=0.1, description="And by how much more for each millimetre above 17")

    @property
    def reader(self) -> Reader:
        """The reader. Raises `Refusal` for a system that isn't known."""
        mandrel = Line(self.mandrel_off, self.mandrel_slope) if self.mandrel_off or self.mandrel_slope else None
        return reader_from(self.sizes, self.units, mandrel=mandrel)


async def _reader(reads: Annotated[Reads, Query()]) -> Reader:
    return reads.reader


TheReader = Annotated[Reader, Depends(_reader)]
