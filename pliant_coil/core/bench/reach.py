"""Will the tail reach? What is left, what the moves ahead take, and how sure that is.

Slack = T − e − Σ left (1 + θ_kind + u_move)·L − N: T measured with error e, θ what the hand's kind is off by, u this ring's own deviation of
a move (it belongs to the move, not to the halves that it is done in), N what the last move needs to be drawn tight and trimmed.
"""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from statistics import NormalDist

from pliant_coil.core.bench.belief import Belief
from pliant_coil.core.trade.hand import HAND, HandKind

SURE = 0.95
"""How sure a tail shall reach before more is begun (common practice, no source; the maker's own figure replaces it)."""
RULE_SD_MM = 1.0
"""Of a tail laid along a rule (common practice, no source)."""
_UNIT = NormalDist()
_GRID = 400


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
        """θ of each kind, u of each move, and the error of what was measured."""
        kinds = {left.kind for left in self.left}
        moves = {left.move: left.kind for left in self.left}
        spread = {f"kind {kind}": self._of(kind)[1] for kind in kinds}
        spread |= {f"move {move}": HAND[kind].noise * (1 + self._of(kind)[0]) for move, kind in moves.items()}
        belief = Belief.prior(spread | {"error": self.error_mm})
        means = {f"kind {kind}": self._of(kind)[0] for kind in kinds}
        belief = Belief(belief.names, tuple(means.get(name, 0.0) for name in belief.names), belief.covariance)
        if self.seen is None:
            return belief
        before, error, made, move = self.seen
        row = {f"kind {moves[move]}": made, f"move {move}": made, "error": -1.0}
        return belief.observed(row, before - self.measured_mm - made, error**2)

    def _of(self, kind: HandKind) -> tuple[float, float]:
        return self.hand.get(kind, (0.0, HAND[kind].bias))

    def _row(self) -> dict[str, float]:
        row: dict[str, float] = {"error": -1.0}
        for left in self.left:
            for name in (f"kind {left.kind}", f"move {left.move}"):
                row[name] = row.get(name, 0.0) - left.length_mm
        return row

    @property
    def slack_mm(self) -> float:
        """What is expected to be over."""
        plain = self.measured_mm - sum(left.length_mm for left in self.left) - self.holds_mm
        return plain + self._belief.value(self._row())

    @property
    def sd_mm(self) -> float:
        return self._belief.sd(self._row())

    @property
    def chance(self) -> float:
        """How likely it reaches, 0 to 1."""
        sd = self.sd_mm
        return float(self.slack_mm >= 0) if sd == 0 else _UNIT.cdf(self.slack_mm / sd)


def most(repeats: int, tail_with: Callable[[int], Tail], sure: float = SURE) -> int:
    """The largest number of repeats up to `repeats` with which the tail reaches as surely as that; 0 if none does."""
    return next((n for n in range(repeats, 0, -1) if tail_with(n).chance >= sure), 0)


def both(one: Tail, other: Tail, shared: Sequence[HandKind]) -> float:
    """How likely both tails of a ring reach: their hand is the same, whatever else isn't.

    Given what the hand is off by in the shared kinds, the tails know nothing of each other: the chance is integrated over it.
    """
    kinds = [kind for kind in shared if any(left.kind == kind for left in (*one.left, *other.left))]
    # All kinds move together with the sum that they share: one direction carries their spread into both slacks.
    sums = [{kind: sum(left.length_mm for left in tail.left if left.kind == kind) for kind in kinds} for tail in (one, other)]
    spread = [math.sqrt(sum((one._of(kind)[1] * s[kind]) ** 2 for kind in kinds)) for s in sums]
    own = [math.sqrt(max(1e-12, tail.sd_mm**2 - by**2)) for tail, by in zip((one, other), spread, strict=True)]
    total = 0.0
    for k in range(-_GRID, _GRID + 1):
        z = 6 * k / _GRID
        chances = [_UNIT.cdf((tail.slack_mm - by * z) / sd) for tail, by, sd in zip((one, other), spread, own, strict=True)]
        total += _UNIT.pdf(z) * chances[0] * chances[1] * 6 / _GRID
    return min(1.0, total)


def splice_mm(short: Tail, anchor_mm: float, *, risk: float = 0.02) -> float:
    """How long a new piece has to be that goes on where a tail ends: what is left, its own start, two trims, and the risk of running out."""
    net = sum(left.length_mm for left in short.left) + anchor_mm
    spread = math.sqrt(max(0.0, short.sd_mm**2 - short.error_mm**2))
    return net + 12.0 + 2.0 + _UNIT.inv_cdf(1 - risk) * spread
