"""Wire that is cut and never part of the ring: what is held, what is spare, what a saw takes, what is trimmed off."""

import math
from typing import ClassVar

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.moves.base import Move
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.figures import Length, Thickness
from pliant_coil.core.words.say import Say, say


@dataclass(frozen=True)
class Undrawn(Move):
    """A stretch that is there when the wire is cut, and gone when the ring is done."""

    mm: float
    why: Say
    hand: ClassVar[HandKind] = "none"

    @property
    def length_mm(self) -> float:
        return self.mm

    def arithmetic(self) -> Say:
        return self.why

    def path(self) -> list[Point3]:
        return []


@dataclass(frozen=True)
class Grip(Undrawn):
    """The tail that fingers, pliers or a vise need to hold."""

    kind: ClassVar[str] = "grip"


@dataclass(frozen=True)
class Spare(Undrawn):
    """What one end gets for the trim, for the chance that the ring takes more, and for rounding to the tape."""

    kind: ClassVar[str] = "spare"


@dataclass(frozen=True)
class Saw(Undrawn):
    """A cut as wide as the blade."""

    kind: ClassVar[str] = "saw"


def saw(label: str, kerf_mm: float) -> Saw:
    """A saw cut of this width."""
    return Saw(label, kerf_mm, say("the blade's width, {kerf}", kerf=Thickness(kerf_mm)))


def to_hold(label: str, mm: float) -> Grip:
    """A tail to hold."""
    return Grip(label, mm, say("{length} to hold", length=Length(mm)))


@dataclass(frozen=True)
class Fold(Move):
    """Half round a wire or a jaw where a wire is folded at its middle: π × (inside + d)/2, led along `points`."""

    inside_mm: float
    wire_mm: float
    points: tuple[Point3, ...] = ()
    kind: ClassVar[str] = "fold"
    hand: ClassVar[HandKind] = "loop"

    @property
    def length_mm(self) -> float:
        return math.pi * (self.inside_mm + self.wire_mm) / 2

    @property
    def bent_to_mm(self) -> float:
        return (self.inside_mm + self.wire_mm) / 2

    def arithmetic(self) -> Say:
        return say("half round: π × ({inside} + {wire}) / 2", inside=Thickness(self.inside_mm), wire=Thickness(self.wire_mm))

    def path(self) -> list[Point3]:
        return list(self.points)
