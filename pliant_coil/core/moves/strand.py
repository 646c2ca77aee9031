"""One strand of a flat braid."""

import math
from typing import ClassVar

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.braiding import Braid
from pliant_coil.core.mechanics.curves import CHORD_MM, Point3, dense
from pliant_coil.core.moves.base import Move, on_circle
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Length, Number
from pliant_coil.core.words.say import Say, say


@dataclass(frozen=True)
class Strand(Move):
    """A strand of `braid` over `length_along_mm` of a band whose middle runs `radius_mm` from the axis.

    `phase` says where in its zigzag it begins; `measured` is what the maker's own first centimetres took over what
    was reckoned.
    """

    braid: Braid
    radius_mm: float
    from_rad: float
    length_along_mm: float
    phase: float
    measured: float = 1.0
    kind: ClassVar[str] = "strand"
    seconds: ClassVar[float] = 8.0
    hand: ClassVar[HandKind] = "braid"

    @property
    def length_mm(self) -> float:
        return self.length_along_mm * self.braid.wire_per_mm * self.measured

    @property
    def advance_mm(self) -> float:
        return self.length_along_mm

    def arithmetic(self) -> Say:
        flat = 1 / math.cos(self.braid.angle_rad)
        text = "{along} × {flat} for its lean × {layers} for going over and under"
        if self.measured != 1:
            text += " × {own} by your own first centimetres"
        return say(
            text,
            along=Length(self.length_along_mm),
            flat=Number(flat, 3),
            layers=Number(self.braid.wire_per_mm / flat, 3),
            own=Number(self.measured, 3),
        )

    def _at(self, along_mm: float) -> Point3:
        z, out = self.braid.across(self.phase + along_mm / self.braid.period_mm)
        return on_circle(self.radius_mm + out, self.from_rad + along_mm / self.radius_mm, z)

    @property
    def begins(self) -> Point3:
        return self._at(0.0)

    @property
    def ends(self) -> Point3:
        return self._at(self.length_along_mm)

    def path(self) -> list[Point3]:
        points = dense(self.braid.points(self.phase, self.length_along_mm), CHORD_MM)
        return [on_circle(self.radius_mm + out, self.from_rad + s / self.radius_mm, z) for s, z, out in points]
