"""What band, head and finish hand each other: an opening that is asked for, a band formed round it, ends, a ledger, the work done."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import field
from enum import StrEnum
from typing import Any, Literal

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.bending import released_diameter_mm
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.hulls import Bundle, row_at
from pliant_coil.core.moves.base import Cause
from pliant_coil.core.moves.placed import Piece, Placed
from pliant_coil.core.styles.repeats import Repeats
from pliant_coil.core.styles.soldered import Soldered
from pliant_coil.core.styles.stones import PlacedStone
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.say import Say

Side = Literal["left", "right"]
Wires = Mapping[str, Wire]

LOCKS = Cause("locks-inside", "lock wraps inside the band")
SPRINGS = Cause("springs-open", "springs open, nothing holds it")
WORST_MISS_MM = 1e-4


class Top(StrEnum):
    """How a band can be at the top; it may be in several ways at once."""

    THROUGH = "through"
    """Its own wire runs through the head, lane by lane."""
    TAILS = "tails"
    """Tails come up beside the head."""
    GAP = "gap"
    """Its ends become the head."""
    ROOT = "root"
    """The head is bent first; its tails run side by side as the band and come round to its other side."""
    CLOSED = "closed"
    """Nothing to give: sewn, threaded or soldered on."""
    ENDS = "ends"
    """It joins itself, and all its ends stand up beside the join."""
    ALONE = "alone"
    """There is no band: the head stands by itself."""


class Joined(StrEnum):
    """What closes the band."""

    BAND = "band"
    HEAD = "head"
    OPEN = "open"


class SizedBy(StrEnum):
    """What sets the finished size."""

    MARK = "mark"
    LENGTH = "length"
    OVERLAP = "overlap"
    NOTHING = "nothing"
    """It has no size: there is no band."""


@dataclass(frozen=True, slots=True)
class Form:
    """Everything that a solver or a reading may change."""

    diameter_mm: float
    locks: int = 2
    """Lock wraps each side."""
    counts: Mapping[str, int] = field(default_factory=dict)
    """Repeats that are fixed, by name: cycles, coils, moves."""

    def repeats(self, name: str, solved: int) -> int:
        """A count that was fixed, or the one that was solved."""
        return self.counts.get(name, solved)


@dataclass(frozen=True, slots=True)
class Stack:
    """Closed rings side by side, as they are before a head is made in their tops [mm]."""

    inside_mm: float
    thick_mm: float
    """Of each along the finger."""
    wide_mm: float
    """Of each away from it."""
    rings: int
    soldered_rad: float
    least_rad: float
    """The least that has to be soldered at the back."""
    seams_rad: tuple[float, ...] = (0.0,)
    """Where the rings' own seams would stand, from the top."""


@dataclass(frozen=True, slots=True)
class HammeredRing:
    """A ring that is hammered flat: the way round before, and its thickness before and as planned after [mm]."""

    around_mm: float
    before_mm: float
    after_mm: float
    task: str
    """The step at which it is hammered."""


@dataclass(frozen=True, slots=True)
class Opening:
    """What a head asks of its band, both sides alike; angles from the top [rad]."""

    foot_rad: float = 0.0
    """Where the lane that runs through the head leaves the band's circle."""
    shoulder_rad: float | None = None
    """Where wraps may begin; the band's own usual unless asked."""
    across: bool = False
    """Whether the head leads the tails across itself; otherwise the band brings each to its own shoulder."""
    gap_rad: float | None = None
    """For a gap: half of it, from the top to where the band's weave or cord ends."""
    lead_mm: float = 0.0
    """Straight and tangent beyond the circle, for flat heads."""
    corner_mm: float = 0.0
    """What a bend at the end of that lead takes off its base wires."""
    bare_mm: float = 0.0
    """Bare wire at each end of the band, for locks."""
    end_mm: tuple[float, ...] = ()
    """What stays of each end beyond the bare wire, lane by lane."""
    span_mm: float = 0.0
    """For a root: the head's extent along the band, fork to neck."""
    neck_mm: float = 0.0
    """For a root: how much of the span lies on the neck's side."""
    root: bool = False
    closed: bool = False
    from_head: bool = False
    """Whether a band wound one way is wound from the head on, which stands at its short tail."""
    ties: bool = False
    """Whether the head's own wire ties the band's ends, so that nothing springs."""
    gather: Literal["tail-wraps"] | None = None
    """How a head that pulls at the tails wants the band bound first, where the maker chose nothing."""
    seam_mm: float = 0.0
    """How far from the top the rings' seams stand, where a seam in the very top would be strained."""
    effect: Effect | None = None
    """What the head's work does to the size of the whole band: the band is drawn as it lies then."""
    facts: Any = None
    """What the head itself needs to know again."""


@dataclass(frozen=True, slots=True)
class End:
    """A wire's end, as the band or the head leaves it."""

    piece: str
    which: Literal["first", "last"]
    side: Side
    lane: int
    at: Point3
    wire: Wire
    role: str
    name: str
    """Its side and lane in an id: `right`, `left.2`."""

    @property
    def key(self) -> tuple[str, str]:
        return self.piece, self.which


@dataclass(frozen=True, slots=True)
class Slot:
    """A place in a piece where the head's moves go in, between two points of the band."""

    piece: str
    index: int
    lane: int
    left: Point3
    right: Point3


@dataclass(frozen=True, slots=True)
class Shoulder:
    """Wraps that lie on a shoulder already, and the next free angle from the top [rad]."""

    wraps: float = 0.0
    free_rad: float = 0.0


@dataclass(frozen=True, slots=True)
class Ledger:
    """Both shoulders."""

    left: Shoulder = Shoulder()
    right: Shoulder = Shoulder()

    def of(self, side: Side) -> Shoulder:
        return self.left if side == "left" else self.right

    def wrapped(self, side: Side, wraps: float, free_rad: float) -> Ledger:
        """The ledger after more wraps on one side."""
        new = Shoulder(self.of(side).wraps + wraps, free_rad)
        return Ledger(new, self.right) if side == "left" else Ledger(self.left, new)


@dataclass(frozen=True, slots=True)
class Effect:
    """Something that changes the band's inside diameter [mm] as a whole, after it was formed, and in which phase."""

    cause: Cause
    inside_mm: float
    phase: str = "form"


@dataclass(frozen=True, slots=True)
class Anchor:
    """An eye at the top that a head can be sewn on: its middle, how far its top stands from the axis, and how wide it is outside [mm]."""

    at: Point3
    top_mm: float
    across_mm: float


@dataclass(frozen=True)
class FormedBand:
    """A band formed on one diameter of the mandrel, all its effects done: the band of the finished ring."""

    form: Form
    pieces: tuple[Piece, ...]
    inside_mm: float
    """Its own inside diameter, before anything lies inside it."""
    strands: int
    width_mm: float
    thickness_mm: float
    strand_z: Callable[[float], tuple[float, ...]]
    """Where its strands lie along the finger at an angle from the top."""
    strand_wire: Wire
    strand_height_mm: float
    """How high a strand stands where others lie on it."""
    ends: tuple[End, ...] = ()
    slots: tuple[Slot, ...] = ()
    anchors: tuple[Anchor, ...] = ()
    effects: tuple[Effect, ...] = ()
    ledger: Ledger = Ledger()
    joined: Joined = Joined.HEAD
    sized_by: SizedBy = SizedBy.MARK
    repeats: Repeats | None = None
    tied: bool = False
    """Whether the band itself ties the ring, so that nothing springs."""
    soldered: Callable[[], tuple[Soldered, ...]] = tuple
    """Where solder holds it; asked for by drawings only."""
    facts: Any = None
    """What the style's own tasks need to know again."""

    @property
    def radius_mm(self) -> float:
        """From the axis to the strands' neutral line."""
        return self.inside_mm / 2 + self.strand_wire.centroid_mm

    @property
    def absent(self) -> bool:
        """Whether there is no band: the head stands by itself."""
        return self.sized_by is SizedBy.NOTHING

    @property
    def tails(self) -> tuple[End, ...]:
        """Ends of the band's own wire, which a head that doesn't use them leaves to the finish."""
        return tuple(end for end in self.ends if end.role == "band")

    @property
    def lining_mm(self) -> float:
        """How thick what lies between its strands and the finger is: a weave, a binder."""
        return (self.thickness_mm - self.strand_height_mm) / 2

    def host(self, angle_rad: float, turned: bool = False) -> Bundle:
        """The strands at an angle, as (along the finger, away from the band's inner side), to be wrapped."""
        zs = self.strand_z(-angle_rad if turned else angle_rad)
        return row_at(self.strand_wire.profile, tuple(-z for z in zs) if turned else zs)


@dataclass(frozen=True)
class HeadWork:
    """What a head, or a finish, makes of what it was given."""

    through: Mapping[int, tuple[Placed, ...]] = field(default_factory=dict)
    onward: Mapping[tuple[str, str], tuple[Placed, ...]] = field(default_factory=dict)
    """Moves led outwards from an end."""
    pieces: tuple[Piece, ...] = ()
    stones: tuple[PlacedStone, ...] = ()
    effects: tuple[Effect, ...] = ()
    tails: tuple[End, ...] = ()
    ledger: Ledger = Ledger()
    tied: bool = False
    height_mm: float = 0.0
    """How high it stands above the finger."""
    soldered: Callable[[], tuple[Soldered, ...]] = tuple
    """Where its own solder holds it, or the band's in its reach; asked for by drawings only."""
    facts: Any = None

    def locked(self, ledger: Ledger) -> HeadWork:
        """The same with what lies on the shoulders when its tails are locked too."""
        # Not by `replace`, which takes as long as the whole of a lock: this is done for every form that is tried.
        rest = (self.tied, self.height_mm, self.soldered, self.facts)
        return HeadWork(self.through, self.onward, self.pieces, self.stones, self.effects, self.tails, ledger, *rest)


@dataclass(frozen=True, slots=True)
class Warn:
    """What a friend at the bench would say: a code that stays, words, and the field of the ring file that it is about."""

    code: str
    text: Say
    field: str


def springback(form_mm: float, wire: Wire, yield_mpa: float | None = None) -> Effect:
    """What a band that nothing holds gains when it comes off the mandrel."""
    released = released_diameter_mm(form_mm, wire.profile, wire.metal.youngs_modulus_mpa, yield_mpa or wire.yield_mpa)
    return Effect(SPRINGS, released - form_mm)


def usual_shoulder_rad(radius_mm: float, wire: Wire) -> float:
    """Where wraps begin when no head stands between them: one and a half wires from the top."""
    return math.asin(min(1.0, 1.5 * wire.width_mm / radius_mm))
