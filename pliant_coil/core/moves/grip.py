"""What is held and what is spare: wire that is cut, never part of the ring."""

from dataclasses import dataclass
from typing import ClassVar

from pliant_coil.core.moves.base import Move, Point3


@dataclass(frozen=True)
class Grip(Move):
    """The tail that fingers or pliers need to pull on."""

    held_mm: float
    kind: ClassVar[str] = "grip"
    shapes_ring: ClassVar[bool] = False

    @property
    def length_mm(self) -> float:
        return self.held_mm

    def arithmetic(self) -> str:
        return f"{self.held_mm:g} mm to hold"

    def path(self) -> list[Point3]:
        return []


@dataclass(frozen=True)
class Spare(Move):
    """What one end gets for the trim, for the chance that the ring takes more, and for rounding to the tape."""

    spare_mm: float
    why: str
    kind: ClassVar[str] = "spare"
    shapes_ring: ClassVar[bool] = False

    @property
    def length_mm(self) -> float:
        return self.spare_mm

    def arithmetic(self) -> str:
        return self.why

    def path(self) -> list[Point3]:
        return []
