"""What every move answers for: its length, its words, its steadiness, what it puts inside the band, its path.

Ring coordinates [mm]: the finger's axis is z, y points from the ring's centre to the top (where the head sits),
x to the right of somebody looking along −z. Angles [rad] start at the top and grow clockwise: an angle φ at
distance r stands at (r sin φ, r cos φ).
"""

import math
from abc import ABC, abstractmethod
from collections.abc import Callable, Sequence
from dataclasses import field, replace
from typing import ClassVar, Self

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.curves import length_mm as along_mm
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.words.say import NOTHING, Say


@dataclass(frozen=True, slots=True)
class Cause:
    """Why a ring comes off another size than it was formed at: a code that stays, and its words."""

    code: str
    words: str = field(compare=False)


@dataclass(frozen=True, slots=True)
class Obstacle:
    """Metal between finger and band, from one angle to another [rad], so high [mm] above the band's inner side."""

    cause: Cause
    from_rad: float
    to_rad: float
    height_mm: float

    def turned(self) -> "Obstacle":
        """The same after half a turn about the y axis."""
        return Obstacle(self.cause, -self.to_rad, -self.from_rad, self.height_mm)


@dataclass(frozen=True, slots=True)
class Counted:
    """How a move is counted: its unit, in what steps, and between which counts."""

    unit: str
    step: float = 1.0
    least: float = 1.0
    most: float = 200.0
    spared_by: float = 1.0
    """In what steps a maker makes less of it, when the wire is short."""
    spared_to: float = 1.0
    """With how few of it the ring still holds."""


@dataclass(frozen=True)
class Move(ABC):
    """One thing a wire does on its way from one end to the other."""

    label: str
    """The maker's word for this stretch, short enough to stand on the strip; counts are put behind it when it is told."""
    mark: str = field(default="", kw_only=True)
    """What to mark on the straight wire, `mark_share` of the way along the move; empty for no mark."""
    mark_share: float = field(default=0.0, kw_only=True)
    host: str = field(default="", kw_only=True)
    """What it wraps, binds or coils on, where it does."""

    kind: ClassVar[str]
    hand: ClassVar[HandKind]
    """The kind whose steadiness and whose bias it shares."""
    counted: ClassVar[Counted | None] = None
    seconds: ClassVar[float] = 6.0
    """A practised hand's time for each count, or for the move where nothing is counted (common practice, no source)."""

    @property
    def takes_s(self) -> float:
        """Seconds that a practised hand takes for it."""
        return self.seconds * max(1.0, self.count or 1.0)

    @property
    @abstractmethod
    def length_mm(self) -> float:
        """Length of the wire's neutral line."""

    @property
    def count(self) -> float | None:
        """How many times it is done, where a maker counts."""
        return None

    @property
    def advance_mm(self) -> float:
        """How far it goes along its host."""
        return 0.0

    @property
    def obstacles(self) -> tuple[Obstacle, ...]:
        """What it puts between finger and band."""
        return ()

    @property
    def bent_to_mm(self) -> float | None:
        """The smallest radius [mm] that its neutral line is bent to; None where nothing is bent sharply."""
        return None

    @property
    def jaw_mm(self) -> float | None:
        """Where along the move the plier's jaw stands, for moves made at pliers; may lie before its start."""
        return None

    @property
    def jaws_mm(self) -> tuple[float, ...]:
        """The same for every bend of it, where there are several."""
        return () if self.jaw_mm is None else (self.jaw_mm,)

    @abstractmethod
    def arithmetic(self) -> Say:
        """How the length comes about, in the maker's words and figures."""

    @abstractmethod
    def path(self) -> list[Point3]:
        """The neutral line in ring coordinates, from the move's start to its end; empty for what isn't drawn."""

    def with_count(self, count: float) -> Self:
        """The same move done so many times. Raises `ValueError` for a move that isn't counted, or for no whole step."""
        if self.counted is None:
            raise ValueError(f"a {self.kind} isn't counted")
        if count <= 0 or abs(count / self.counted.step - round(count / self.counted.step)) > 1e-9:
            raise ValueError(f"a {self.kind} is counted in steps of {self.counted.step:g}")
        return self._counted(count)

    def split(self, done: float) -> tuple[Self | None, Self | None]:
        """What is made after `done` counts, and what is left; a move that isn't counted is done (1) or not (0)."""
        whole = 1.0 if self.count is None else self.count
        if not 0 <= done <= whole:
            raise ValueError(f"{done:g} of {whole:g} can't be done")
        if done == 0:
            return None, self
        if done == whole:
            return self, None
        if self.counted is None:
            raise ValueError(f"a {self.kind} is done or not")
        return self._made(done), replace(self._after(done), mark="")

    def _counted(self, count: float) -> Self:
        """With another count; counted moves say how."""
        return self

    def _made(self, done: float) -> Self:
        """What is there after so many counts."""
        return self.with_count(done)

    def _after(self, done: float) -> Self:
        """What is left after so many counts; counted moves say how."""
        return self


@dataclass(frozen=True)
class SpaceCurve(Move):
    """A taut or laid wire along a curve in space: its length is that of the curve itself."""

    way: Callable[[], Sequence[Point3]] = field(compare=False)
    """Makes the curve. A solver tries many forms and asks for the length of few: the curve is made when it is asked for, once."""
    why: Say = NOTHING

    @cached_property
    def points(self) -> tuple[Point3, ...]:
        """The curve's corners, from start to end."""
        return tuple(self.way())

    @cached_property
    def _along_mm(self) -> float:
        return along_mm(self.points)

    @property
    def length_mm(self) -> float:
        return self._along_mm

    def arithmetic(self) -> Say:
        return self.why or Say("the length of the curve in space")

    def path(self) -> list[Point3]:
        return list(self.points)


def on_circle(radius_mm: float, angle_rad: float, z_mm: float) -> Point3:
    """The point at `angle_rad` from the top, `radius_mm` from the ring's axis."""
    return (radius_mm * math.sin(angle_rad), radius_mm * math.cos(angle_rad), z_mm)


def on_band(radius_mm: float, along_mm: float, out_mm: float, z_mm: float, straight_from_mm: float | None = None) -> Point3:
    """The point `along_mm` from a band's bottom, clockwise; past ±`straight_from_mm` it goes straight on as a tangent."""
    if straight_from_mm is None or abs(along_mm) <= straight_from_mm:
        return on_circle(radius_mm + out_mm, math.pi + along_mm / radius_mm, z_mm)
    sign = 1 if along_mm > 0 else -1
    angle = math.pi + sign * straight_from_mm / radius_mm
    x, y, z = on_circle(radius_mm + out_mm, angle, z_mm)
    on = along_mm - sign * straight_from_mm
    return (x + on * math.cos(angle), y - on * math.sin(angle), z)
