"""Moves where they lie: a piece of wire, and each move on it with its name, its fate and how its stretch was worked."""

from collections.abc import Iterable
from enum import StrEnum

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.mechanics.curves import Point3
from pliant_coil.core.mechanics.twisting import hardened_mpa
from pliant_coil.core.moves.base import Move, Obstacle
from pliant_coil.core.trade.hand import HandKind, makers_at_large
from pliant_coil.core.trade.wire import Wire
from pliant_coil.core.words.say import NOTHING, Say


class Fate(StrEnum):
    """What becomes of a stretch of wire."""

    RING = "ring"
    TRIM = "trim"
    """Cut off when it has done its work."""
    KERF = "kerf"
    """Goes into the saw."""
    HELD = "held"
    """What fingers, pliers or a vise need to hold."""
    SPARE = "spare"
    REMOVED = "removed"
    """A temporary tie that comes out again."""


@dataclass(frozen=True, slots=True)
class Worked:
    """How a stretch was worked before it lies in the ring: its section then, what it has gained in length, its strain."""

    how: str
    width_mm: float | None = None
    height_mm: float | None = None
    stretch: float = 1.0
    """Length as it lies for a length of plain wire."""
    strain: float = 0.0
    """Equivalent strain of the work."""

    def yield_mpa(self, wire: Wire) -> float:
        """Yield strength of the stretch [MPa]."""
        return hardened_mpa(wire.yield_mpa, self.strain, wire.metal.hardening) if self.strain else wire.yield_mpa


PLAIN = Worked("plain")
WIDEST_WIRES = 1.5
"""One move hands on to the next over a step of up to so many of the wire's widths; what is wider is a way that a move has to make."""


@dataclass(frozen=True, slots=True)
class Placed:
    """A move on a piece. Its id stays when the ring is planned again at another size."""

    id: str
    move: Move
    fate: Fate = Fate.RING
    worked: Worked = PLAIN
    turned: bool = False
    """Turned half round about the y axis: how the left side repeats the right one."""
    backwards: bool = False
    """Reckoned from its far end: how a tail at a piece's first end is led outwards."""

    @property
    def length_mm(self) -> float:
        """Plain wire that it takes: what is cut."""
        return self.move.length_mm / self.worked.stretch

    @property
    def laid_mm(self) -> float:
        """Its length as it lies in the ring."""
        return self.move.length_mm

    @property
    def obstacles(self) -> tuple[Obstacle, ...]:
        found = self.move.obstacles
        return tuple(o.turned() for o in found) if self.turned and found else found

    def path(self) -> list[Point3]:
        """The neutral line in ring coordinates, in the piece's own order."""
        points = self.move.path()
        if self.turned:
            points = [(-x, y, -z) for x, y, z in points]
        return points[::-1] if self.backwards else points

    def mirrored(self) -> "Placed":
        """The same on the left side, led outwards from a piece's first end."""
        return Placed(self.id, self.move, self.fate, self.worked, not self.turned, not self.backwards)


class EndCare(StrEnum):
    """What a wire's end asks for when the piece is cut."""

    DRAWN = "drawn"
    """Its last move is drawn tight: a tail to hold, and the flush trim."""
    CUT = "cut"
    """Cut to a mark after forming: the flush trim."""
    SAWN = "sawn"
    """Nothing: a saw or a soldered seam takes it as it is."""


@dataclass(frozen=True)
class Piece:
    """One piece of wire: its moves in the order they lie along it, from its first end to its last."""

    id: str
    role: str
    wire: Wire
    moves: tuple[Placed, ...]
    from_reel: bool = False
    ends: tuple[EndCare, EndCare] = (EndCare.DRAWN, EndCare.DRAWN)
    parts: int = 1
    """Into how many parts it comes: a sawn coil becomes rings."""
    use: Say = NOTHING
    """What it is for, where pieces of one role are for different things."""

    @cached_property
    def _taken(self) -> list[tuple[Placed, float]]:
        """Each move with what it takes, asked for once: all sums of a piece are made of these."""
        return [(placed, placed.length_mm) for placed in self.moves]

    @cached_property
    def net_mm(self) -> float:
        """Wire that stays in the ring."""
        return sum(mm for placed, mm in self._taken if placed.fate is Fate.RING)

    @cached_property
    def mass_g(self) -> float:
        """Of the wire that stays in the ring."""
        return self.net_mm * self.wire.grams_per_mm

    @cached_property
    def beside_mm(self) -> float:
        """Wire that the work itself takes beside it: trimmed ends, saw cuts, a lap for the saw, a vise's grip."""
        return sum(mm for placed, mm in self._taken if placed.fate is not Fate.RING)

    @cached_property
    def lengths(self) -> list[tuple[HandKind, float]]:
        """Each move's kind and what it takes: what a hand may be off by."""
        return [(placed.move.hand, mm) for placed, mm in self._taken]

    @cached_property
    def bends(self) -> list[tuple[Placed, float]]:
        """The moves that bend it sharply, each with the smallest radius of its neutral line [mm]."""
        return [(placed, bent_to_mm) for placed in self.moves if (bent_to_mm := placed.move.bent_to_mm)]

    @cached_property
    def by_kind(self) -> dict[HandKind, float]:
        """What stays in the ring, by the kind that a hand may be off by."""
        found: dict[HandKind, float] = {}
        for placed, mm in self._taken:
            if placed.fate is Fate.RING:
                found[placed.move.hand] = found.get(placed.move.hand, 0.0) + mm
        return found

    @cached_property
    def sigma_mm(self) -> float:
        """Standard deviation of what the moves take, in a hand that nothing is known of."""
        return makers_at_large(self.lengths)


def laid_out(moves: Iterable[Placed]) -> list[tuple[Placed, float, float]]:
    """Each move with where it begins on the straight wire, and how much of it it takes [mm]."""
    found, at = [], 0.0
    for placed in moves:
        length = placed.length_mm
        found.append((placed, at, length))
        at += length
    return found


def named(prefix: str, moves: Iterable[Move], worked: Worked = PLAIN) -> tuple[Placed, ...]:
    """`moves` as placed ones with ids made of `prefix`, their kind, and a number where a kind comes again."""
    seen: dict[str, int] = {}
    found = []
    for move in moves:
        seen[move.kind] = seen.get(move.kind, 0) + 1
        number = "" if seen[move.kind] == 1 else f".{seen[move.kind]}"
        found.append(Placed(f"{prefix}.{move.kind}{number}", move, worked=worked))
    return tuple(found)
