"""The tails of a ring at the bench: what each has still to do, whether it reaches, and what is made less of where it doesn't."""

import math
from dataclasses import replace
from typing import Literal

from pliant_coil.core.bench.hand import Hand
from pliant_coil.core.bench.progress import Progress
from pliant_coil.core.bench.reach import RULE_SD_MM, SURE, Left, Tail, both, most, splice_mm
from pliant_coil.core.bench.ring_at_bench import RingAtBench
from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.making.cutting import TRIM_MM, tail_mm
from pliant_coil.core.mechanics.hulls import row
from pliant_coil.core.moves.placed import EndCare, Fate, Piece
from pliant_coil.core.trade.hand import HandKind
from pliant_coil.core.trade.profiles import Profile

_GIVES_WAY: tuple[HandKind, ...] = ("loop", "spike", "coil", "nest", "wrap")
"""What is made less of first when a tail is short: repeats of an ornament, turns of a nest, then locks (common practice, no source)."""
_START_WRAPS = 2
"""Wraps that hold the start of a spliced piece (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class TailEnd:
    """An end of a piece whose last moves are still to come."""

    piece: str
    end: str
    label: str
    profile: Profile
    left: tuple[Left, ...]
    holds_mm: float

    @property
    def side(self) -> Literal["left", "right"]:
        """On which side of the ring it comes out."""
        return _side(self.end)


@dataclass(frozen=True, slots=True)
class Spare:
    """A move that is left of which fewer would do: its word, how many are left, and with how few of them it still holds."""

    left: Left
    label: str
    repeats: float
    least: float
    step: float

    def fewer(self, tail: Tail, repeats: float) -> Tail:
        """The same tail if only so many of it were made."""
        each = self.left.length_mm / self.repeats
        return replace(tail, left=tuple(replace(m, length_mm=each * repeats) if m.move == self.left.move else m for m in tail.left))

    def enough(self, tail: Tail) -> float:
        """The largest number of repeats with which a tail surely reaches; 0 if none does."""
        found = most(math.floor(self.repeats / self.step), lambda n: self.fewer(tail, n * self.step)) * self.step
        return found if found >= self.least else 0.0

    def on_both(self, tail: Tail, twin: "Spare", other: Tail) -> float:
        """The largest number that is alike on both sides and surely reaches on both; 0 if none does."""
        n = math.floor(min(self.repeats, twin.repeats) / self.step) * self.step
        while n >= max(self.least, twin.least):
            if both(self.fewer(tail, n), twin.fewer(other, n)) >= SURE:
                return n
            n -= self.step
        return 0.0


@dataclass(frozen=True)
class Tails:
    """Every end that still has moves to come, in a hand if it is known."""

    ring: RingAtBench
    progress: Progress
    hand: Hand | None = None

    @cached_property
    def ends(self) -> list[TailEnd]:
        """The ends, from what is made outwards."""
        made = self.ring.made(self.progress)
        found = []
        for piece in self.ring.planned.pieces:
            for which, care in zip(("first", "last"), piece.ends, strict=True):
                left = self._left(piece, which, made)
                if left:
                    holds = (tail_mm(self.ring.ring.file.sizing) if care is EndCare.DRAWN else 0.0) + TRIM_MM
                    label = f"{piece.role} wire, {_side(which)} end"
                    found.append(TailEnd(piece.id, which, label, piece.wire.profile, tuple(left), holds))
        return found

    def measured(self, end: TailEnd, value_mm: float) -> Tail:
        """An end that was measured, with what an earlier reading in the same row says of it."""
        known = {left.kind: (f.share, f.sd) for left in end.left if self.hand and (f := self.hand.factor(left.kind)).used}
        return Tail(value_mm, RULE_SD_MM, end.left, end.holds_mm, known, self._seen(end))

    def other(self, end: TailEnd) -> tuple[TailEnd, Tail] | None:
        """The end on the ring's other side that was measured last."""
        for reading in reversed(self.progress.readings):
            if reading.what != "tail" or reading.side in ("", end.side):
                continue
            for other in self.ends:
                if (other.piece, other.side) == (reading.piece, reading.side):
                    return other, self.measured(other, reading.value_mm)
        return None

    def spare(self, end: TailEnd) -> Spare | None:
        """Of the moves that are left, the one of which fewer would do: ornament before locks, and only what is repeated."""
        for kind in _GIVES_WAY:
            for left in end.left:
                move = self.ring.placed[left.move].move
                if left.kind != kind or move.counted is None or not move.count or left.length_mm <= 0:
                    continue
                repeats = move.count * left.length_mm / move.length_mm
                if repeats > move.counted.spared_to:
                    return Spare(left, move.label, repeats, move.counted.spared_to, move.counted.spared_by)
        return None

    @property
    def hides_splice(self) -> str:
        """Where a new piece goes on unseen; empty where nothing hides it."""
        head = self.ring.ring.head.hides_splice
        return self.ring.ring.band.hides_splice if head is None else head

    def splice_mm(self, end: TailEnd, short: Tail) -> float:
        """How long a new piece has to be that goes on at an end: its start wrapped round a wire like it."""
        return splice_mm(short, _START_WRAPS * row(end.profile, 1).loop_mm(end.profile.centroid_mm))

    def _left(self, piece: Piece, which: str, made: set[str]) -> list[Left]:
        """What an end has still to do, from its tip inwards to what is made."""
        moves = [placed for placed in piece.moves if placed.fate is Fate.RING]
        found: list[Left] = []
        begun = 0
        for placed in moves if which == "first" else moves[::-1]:
            if placed.id in made:
                return found
            whole = placed.move.count or 1.0
            share = 1 - min(1.0, self.progress.counts.get(placed.id, 0.0) / whole)
            found.append(Left(placed.id, placed.move.hand, placed.length_mm * share))
            if share < 1 and not begun:
                begun = len(found)
        # Nothing further in is made: what lies beyond the move at hand is the other end's. With none at hand this end has no tail of its own.
        return found[:begun]

    def _seen(self, end: TailEnd) -> tuple[float, float, float, str] | None:
        """The earliest reading of this tail within the move at hand."""
        counts = self.progress.counts
        at_hand = next((left.move for left in end.left if counts.get(left.move, 0.0) > 0), None)
        if at_hand is None:
            return None
        first = self.ring.placed[at_hand]
        each = first.length_mm / (first.move.count or 1.0)
        at_row = {task.id for task in self.ring.tasks if first.id in task.makes}
        for reading in self.progress.readings:
            if (reading.what, reading.side, reading.piece) != ("tail", end.side, end.piece):
                continue
            since = counts.get(first.id, 0.0) - self.progress.counted_at[reading.id].get(first.id, 0.0)
            # Read before the row was reached it would say something of other moves too.
            if since > 0 and reading.task in at_row:
                return reading.value_mm, RULE_SD_MM, since * each, first.id
        return None


def measured_on_the_way(ring: RingAtBench, progress: Progress) -> dict[str, tuple[dict[HandKind, float], float]]:
    """By piece whose ends were all measured while it was made: what was made of it then, by kind at plan length, and what was left [mm].

    The last such time counts: mostly just before the locks.
    """
    tails = [reading for reading in progress.readings if reading.what == "tail"]
    found = {}
    for reading in tails:
        then = progress.when(reading)
        ends = [end for end in Tails(ring, then).ends if end.piece == reading.piece]
        read = {
            other.side: other.value_mm
            for other in tails
            if (other.piece, progress.placed_at[other.id], progress.counted_at[other.id]) == (reading.piece, then.place, then.counts)
        }
        if not ends or any(end.side not in read for end in ends):
            continue
        made = next(piece.by_kind for piece in ring.planned.pieces if piece.id == reading.piece)
        for left in (left for end in ends for left in end.left):
            made[left.kind] -= left.length_mm
        found[reading.piece] = made, sum(read[end.side] for end in ends)
    return found


def _side(end: str) -> Literal["left", "right"]:
    return "left" if end == "first" else "right"
