"""Metal that a saw takes."""

from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.moves.base import Move, Point3


@dataclass(frozen=True)
class Saw(Move):
    """A cut as wide as the blade, `kerf_mm`."""

    kerf_mm: float
    kind: ClassVar[str] = "saw"
    relative_sigma: ClassVar[float] = 0.2
    shapes_ring: ClassVar[bool] = True

    @property
    def length_mm(self) -> float:
        return self.kerf_mm

    @property
    def count(self) -> int:
        return 1

    def arithmetic(self) -> str:
        return f"the blade's width, {self.kerf_mm:g} mm"

    def path(self) -> list[Point3]:
        return []
