"""Will the tail reach? What is left, what the moves ahead take, and how sure that is.

Slack = T − e − Σ left (1 + θ_kind + u_move)·L − N: T measured with error e, θ what the hand's kind is off by, u this ring's own deviation of
a move (it belongs to the move, not to the halves that it is done in), N what the last move needs to be drawn tight and trimmed.
"""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import field
from statistics import NormalDist

from pliant_coil.core.bench.belief import Belief
from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.trade.hand import HAND, HandKind

SURE = 0.95
"""How sure a tail shall reach before more is begun (common practice, no source; the maker's own figure replaces it)."""
RULE_SD_MM = 1.0
"""Of a tail laid along a rule (common practice, no source)."""
_UNIT = NormalDist()
_GRID = 2000
_ERRORS = ("error", "other error")


@dataclass(frozen=True, slots=True)
class Left:
    """What a move still takes of the tail [mm at plan length]: its id, its kind, and its length."""

    move: str
    kind: HandKind
    length_mm: float


@dataclass(frozen=True)
class Tail:
    """A tail that was measured, what it still has to do, and what is known of the hand."""

    measured_mm: float
    error_mm: float
    left: tuple[Left, ...]
    holds_mm: float
    """To draw the last move tight, and its trim."""
    hand: Mapping[HandKind, tuple[float, float]] = field(default_factory=dict)
    """Learned factors − 1 by kind, with their standard deviations; else the makers' usual spread about 0."""
    seen: tuple[float, float, float, str] | None = None
    """An earlier reading of the same tail inside a move: what it read, its error, what was made since at plan length, and which move."""

    @cached_property
    def _belief(self) -> Belief:
        return _belief_of(self)

    def spread_of(self, kind: HandKind) -> tuple[float, float]:
        """What a kind is off by, and how surely that is known."""
        return self.hand.get(kind, (0.0, HAND[kind].bias))

    def row(self, error: str = "error") -> dict[str, float]:
        """What is over, as a combination of what isn't known: θ of each kind, u of each move, and the error of what was measured."""
        row: dict[str, float] = {error: -1.0}
        for left in self.left:
            for name in (f"kind {left.kind}", f"move {left.move}"):
                row[name] = row.get(name, 0.0) - left.length_mm
        return row

    @property
    def plain_mm(self) -> float:
        """What is over if every move takes what it takes in the plan."""
        return self.measured_mm - sum(left.length_mm for left in self.left) - self.holds_mm

    @property
    def slack_mm(self) -> float:
        """What is expected to be over."""
        return self.plain_mm + self._belief.value(self.row())

    @property
    def sd_mm(self) -> float:
        return self._belief.sd(self.row())

    @property
    def chance(self) -> float:
        """How likely it reaches, 0 to 1."""
        sd = self.sd_mm
        return float(self.slack_mm >= 0) if sd == 0 else _UNIT.cdf(self.slack_mm / sd)


def most(repeats: int, tail_with: Callable[[int], Tail], sure: float = SURE) -> int:
    """The largest number of repeats up to `repeats` with which the tail reaches as surely as that; 0 if none does."""
    return next((n for n in range(repeats, 0, -1) if tail_with(n).chance >= sure), 0)


def _belief_of(*tails: Tail) -> Belief:
    """θ of each kind, u of each move, and each tail's error, after all that the tails have shown.

    The hand is one, whichever tail it works on; a move's own deviation and a reading's error belong to their tail. A move that isn't begun
    varies with its length as the hand is known by then.
    """
    shown = [k for k, tail in enumerate(tails) if tail.seen is not None]
    known = _seen_by(tails, {}) if 0 < len(shown) < len(tails) else None
    longer: dict[str, float] = {}
    if known:
        for k, tail in enumerate(tails):
            if k not in shown:
                longer |= {left.move: known.value({f"kind {left.kind}": 1.0}) for left in tail.left}
    return _seen_by(tails, longer)


def _seen_by(tails: Sequence[Tail], longer: Mapping[str, float]) -> Belief:
    spread: dict[str, float] = {}
    means: dict[str, float] = {}
    for error, tail in zip(_ERRORS, tails, strict=False):
        for left in tail.left:
            mean, sd = tail.spread_of(left.kind)
            spread[f"kind {left.kind}"], means[f"kind {left.kind}"] = sd, mean
            spread[f"move {left.move}"] = HAND[left.kind].noise * (1 + longer.get(left.move, mean))
        spread[error] = tail.error_mm
    belief = Belief.prior(spread)
    belief = Belief(belief.names, tuple(means.get(name, 0.0) for name in belief.names), belief.covariance)
    for error, tail in zip(_ERRORS, tails, strict=False):
        if tail.seen is not None:
            before, off, made, move = tail.seen
            kind = next(left.kind for left in tail.left if left.move == move)
            row = {f"kind {kind}": made, f"move {move}": made, error: -1.0}
            belief = belief.observed(row, before - tail.measured_mm - made, off**2)
    return belief


def both(one: Tail, other: Tail) -> float:
    """How likely both tails of a ring reach: they are worked by one hand, and what one has shown says something of the other.

    What is over of each is jointly normal; the chance is integrated over the first, given which the second is normal again.
    """
    belief = _belief_of(one, other)
    rows = one.row(_ERRORS[0]), other.row(_ERRORS[1])
    over = [tail.plain_mm + belief.value(row) for tail, row in zip((one, other), rows, strict=True)]
    spread = [belief.sd(row) for row in rows]
    if min(spread) == 0:
        return min(tail.chance for tail in (one, other))
    sum_of = {name: rows[0].get(name, 0.0) + rows[1].get(name, 0.0) for name in belief.names}
    shared = (belief.variance(sum_of) - spread[0] ** 2 - spread[1] ** 2) / 2
    own = math.sqrt(max(1e-12, spread[1] ** 2 - (shared / spread[0]) ** 2))
    total = 0.0
    for k in range(-_GRID, _GRID + 1):
        z = 6 * k / _GRID
        if over[0] + spread[0] * z >= 0:
            total += _UNIT.pdf(z) * _UNIT.cdf((over[1] + shared / spread[0] * z) / own) * 6 / _GRID
    return min(1.0, total)


def splice_mm(short: Tail, anchor_mm: float, *, risk: float = 0.02) -> float:
    """How long a new piece has to be that goes on where a tail ends: what is left, its own start, two trims, and the risk of running out."""
    net = sum(left.length_mm for left in short.left) + anchor_mm
    spread = math.sqrt(max(0.0, short.sd_mm**2 - short.error_mm**2))
    return net + 12.0 + 2.0 + _UNIT.inv_cdf(1 - risk) * spread
