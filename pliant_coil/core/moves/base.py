"""What every move answers for: its length, its words, its uncertainty, what it puts inside the band, its path.

Ring coordinates [mm]: the finger's axis is z, y points from the ring's centre to the top (where the head sits),
x to the right of somebody looking along −z. Angles [rad] start at the top and grow clockwise: an angle φ at
distance r stands at (r sin φ, r cos φ).
"""

import math
from abc import ABC, abstractmethod
from dataclasses import dataclass, field
from typing import ClassVar

Point3 = tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class Obstacle:
    """Metal between finger and band, from one angle to another [rad], so high [mm] above the band's inner side."""

    cause: str
    from_rad: float
    to_rad: float
    height_mm: float


@dataclass(frozen=True)
class Move(ABC):
    """One thing a wire does on its way from one end to the other."""

    label: str
    """The maker's word for this stretch, short enough to stand on the strip."""
    mark: str = field(default="", kw_only=True)
    """What to mark on the straight wire, `mark_share` of the way along the move; empty for no mark."""
    mark_share: float = field(default=0.0, kw_only=True)

    kind: ClassVar[str]
    relative_sigma: ClassVar[float] = 0.0
    """Standard deviation over length, before the maker's own records say otherwise (common practice, no source)."""
    shapes_ring: ClassVar[bool] = True
    """Whether the stretch stays in the ring and counts in the net length; what is held and trimmed doesn't."""

    @property
    @abstractmethod
    def length_mm(self) -> float:
        """Length of the wire's neutral line."""

    @property
    def count(self) -> int | None:
        """How many times it is done, where a maker counts."""
        return None

    @property
    def sigma_mm(self) -> float:
        """Standard deviation of the length."""
        return self.relative_sigma * self.length_mm

    @property
    def obstacle(self) -> Obstacle | None:
        """What it puts between finger and band."""
        return None

    @property
    def jaw_mm(self) -> float | None:
        """Where along the move the plier's jaw stands, for moves made at pliers; may lie before its start."""
        return None

    @abstractmethod
    def arithmetic(self) -> str:
        """How the length comes about, in the maker's words and figures."""

    @abstractmethod
    def path(self) -> list[Point3]:
        """The neutral line in ring coordinates, from the move's start to its end; empty for what is trimmed off."""


def on_circle(radius_mm: float, angle_rad: float, z_mm: float) -> Point3:
    """The point at `angle_rad` from the top, `radius_mm` from the ring's axis."""
    return (radius_mm * math.sin(angle_rad), radius_mm * math.cos(angle_rad), z_mm)
