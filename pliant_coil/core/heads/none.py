"""No head: the band alone."""

from typing import ClassVar, Literal

from pydantic import Field

from pliant_coil.core.heads.base import HeadStyle, Seat
from pliant_coil.core.wires import RoleWire


class NoHead(HeadStyle):
    """Nothing at the top: the ends meet there and wrap the band."""

    title: ClassVar[str] = "No head"
    bands: ClassVar[tuple[str, ...]] = ("turned", "crossed", "open", "twisted", "stacked", "woven", "bundled", "braided")
    style: Literal["none"] = Field("none", title="Head")

    def seat(self, inside_radius_mm: float, wire: RoleWire) -> Seat:
        return Seat(inside_radius_mm, wire)

    def phrase(self) -> str:
        return "no head"
