"""A stretch that stays straight, or that leads a short way to the next place."""

import math
from typing import ClassVar

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point3, round_circle
from pliant_coil.core.mechanics.curves import length_mm as along_mm
from pliant_coil.core.moves.base import Move
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Thickness
from pliant_coil.core.words.say import Say, say


@dataclass(frozen=True)
class Straight(Move):
    """From one point to another in ring coordinates [mm]; never nearer to the ring's axis than `clear_mm`, or than both points."""

    start: Point3
    end: Point3
    clear_mm: float = 0.0
    kind: ClassVar[str] = "straight"
    hand: ClassVar[HandKind] = "straight"

    @cached_property
    def length_mm(self) -> float:
        return along_mm(self.path())

    def arithmetic(self) -> Say:
        return say("straight, {length}", length=Thickness(self.length_mm))

    def path(self) -> list[Point3]:
        return round_circle(self.start, self.end, self.clear_mm) if self.clear_mm else [self.start, self.end]


@dataclass(frozen=True)
class Lead(Straight):
    """Led by hand to the next place: a rise, a drop, a neck."""

    kind: ClassVar[str] = "lead"
    hand: ClassVar[HandKind] = "lead"

    def arithmetic(self) -> Say:
        if len(self.path()) > 2:
            return say("taut round the band, {length}", length=Thickness(self.length_mm))
        rise, along = abs(self.end[1] - self.start[1]), math.hypot(self.end[0] - self.start[0], self.end[2] - self.start[2])
        return say("√({rise}² + {along}²), up or down and across", rise=Thickness(rise), along=Thickness(along))


@dataclass(frozen=True)
class Through(Straight):
    """Straight through the hole of a bead or a barrel."""

    kind: ClassVar[str] = "through"

    def arithmetic(self) -> Say:
        return say("through it, {length}", length=Thickness(self.length_mm))


@dataclass(frozen=True)
class ThroughEye(Through):
    """The same through an eye of wire."""

    kind: ClassVar[str] = "through-eye"
