"""What a maker's hand has shown: by how much each kind of move takes more or less than planned, and how surely that is known.

The wire used by a ring is `y = Σ_k (1 + δ_k)·L_k + ε`: linear in δ, so the posterior is exact. A ring that was odd counts hardly:
Student's t with four degrees of freedom, by reweighting. Older rings are forgotten slowly. Everything is reckoned anew from all records.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import replace
from statistics import NormalDist

from pliant_coil.core.bench.belief import Belief, Row
from pliant_coil.core.frozen import dataclass
from pliant_coil.core.trade.hand import HAND, HandKind

FREEDOM = 4.0
ODD_BELOW = 0.2
"""A weight under which a ring looked odd."""
HALF_FORGOTTEN_AFTER = 60.0
"""Rings after which one counts half."""
LEAST_RINGS = 2
_KNOWN_BY = 0.8
"""A kind is used once its interval is narrower than this share of what is known of makers at large."""
_PRIOR_RINGS = 10.0
_Z95 = NormalDist().inv_cdf(0.975)


TAIL_SD_MM = 0.7
"""Of a tail that is read on the way, and of what it was cut from (common practice, no source)."""


@dataclass(frozen=True)
class Used:
    """A finished ring: the planned length of each kind [mm], what it used, and the variance of what was read."""

    lengths: Mapping[HandKind, float]
    used_mm: float
    reading_sd_mm: float = 1.0
    left_out: str = ""
    """Why it doesn't count: spoiled, spliced, taken out by the maker."""
    before: tuple[Mapping[HandKind, float], float] | None = None
    """What was made when its tails were measured on the way, by kind at plan length, and what that had used [mm]: tells arcs from wraps."""

    @property
    def planned_mm(self) -> float:
        return sum(self.lengths.values())

    @property
    def variance(self) -> float:
        """Of the reading, and of each move's own noise at plan length."""
        return self.reading_sd_mm**2 + _noise(self.lengths)

    def rows(self) -> list[tuple[Row, float]]:
        """What was seen, as combinations of the factors and what each missed its plan by, independent of each other and of variance 1.

        Read once there is one. A tail that was read on the way stands in two, and so does its error: `R = σ²DDᵀ + diag(Σ(sL)²)`, whitened by
        its Cholesky factor.
        """
        if self.before is None:
            scale = 1 / math.sqrt(self.variance)
            return [({str(kind): length * scale for kind, length in self.lengths.items()}, (self.used_mm - self.planned_mm) * scale)]
        made, used = self.before
        after = {kind: length - made.get(kind, 0.0) for kind, length in self.lengths.items()}
        missed = used - sum(made.values()), self.used_mm - used - sum(after.values())
        read = TAIL_SD_MM**2
        first = math.sqrt(2 * read + _noise(made))
        lower = -read / first
        second = math.sqrt(2 * read + _noise(after) - lower**2)
        row = {str(kind): length / first for kind, length in made.items()}
        rest = {str(kind): (length - lower * row.get(kind, 0.0)) / second for kind, length in after.items()}
        return [(row, missed[0] / first), (rest, (missed[1] - lower * missed[0] / first) / second)]


@dataclass(frozen=True)
class Factor:
    """One kind of move: how much more it takes than planned, as a share, with its 95 % interval and how many rings say so."""

    kind: HandKind
    share: float
    sd: float
    rings: int
    used: bool

    @property
    def low(self) -> float:
        return self.share - _Z95 * self.sd

    @property
    def high(self) -> float:
        return self.share + _Z95 * self.sd


@dataclass(frozen=True)
class Hand:
    """A maker's hand as it is known: the belief, the weight of each ring, and its own noise against the usual."""

    belief: Belief
    weights: tuple[float, ...]
    noise: float
    rings: tuple[Used, ...]

    @property
    def odd(self) -> tuple[int, ...]:
        """Rings that looked odd and count hardly, by their place."""
        return tuple(k for k, w in enumerate(self.weights) if w < ODD_BELOW and not self.rings[k].left_out)

    def factor(self, kind: HandKind) -> Factor:
        """What is known of a kind."""
        counted = sum(1 for ring, w in zip(self.rings, self.weights, strict=True) if ring.lengths.get(kind) and w >= ODD_BELOW)
        sd = self.belief.sd({kind: 1.0}) if kind in self.belief.names else HAND[kind].bias
        share = self.belief.value({kind: 1.0})
        return Factor(kind, share, sd, counted, counted >= LEAST_RINGS and sd <= _KNOWN_BY * HAND[kind].bias)

    def factors(self) -> list[Factor]:
        """Every kind that a ring has shown."""
        return [self.factor(kind) for kind in HAND if any(ring.lengths.get(kind) for ring in self.rings)]

    @property
    def told_apart(self) -> int:
        """Rings of which a tail was read on the way."""
        return sum(1 for ring in self.rings if ring.before and not ring.left_out)

    @property
    def known_rings(self) -> int:
        """Rings that counted."""
        return sum(1 for w in self.weights if w >= ODD_BELOW)

    def expects(self, moves: Sequence[tuple[HandKind, float]]) -> tuple[float, float]:
        """How much more than planned these moves take (kind, planned length), and the standard deviation of all [mm].

        Kinds that too few rings have shown stay as they are among makers.
        """
        row: dict[str, float] = {}
        unknown: dict[HandKind, float] = {}
        own = 0.0
        factors = {kind: self.factor(kind) for kind, _ in moves}
        for kind, length in moves:
            factor = factors[kind]
            if factor.used:
                row[kind] = row.get(kind, 0.0) + length
            else:
                unknown[kind] = unknown.get(kind, 0.0) + length
            own += (HAND[kind].noise * length * (1 + (factor.share if factor.used else 0.0))) ** 2
        unseen = sum((HAND[kind].bias * length) ** 2 for kind, length in unknown.items())
        return self.belief.value(row), math.sqrt(self.belief.variance(row) + unseen + self.noise * own)


def learned(rings: Sequence[Used], *, learn_noise: bool = True, robust: bool = True, forget: bool = True) -> Hand:
    """The hand that these rings show, the oldest first."""
    # Kinds that no ring has shown stay as they are among makers: they needn't be carried along.
    kinds = [kind for kind in HAND if HAND[kind].bias > 0 and any(ring.lengths.get(kind) for ring in rings)]
    prior = Belief.prior({str(kind): HAND[kind].bias for kind in kinds})
    age = [0.5 ** ((len(rings) - 1 - k) / HALF_FORGOTTEN_AFTER) if forget else 1.0 for k in range(len(rings))]
    base = [0.0 if ring.left_out else a for ring, a in zip(rings, age, strict=True)]
    weights, noise = list(base), 1.0
    seen = [ring.rows() for ring in rings]
    belief = prior
    for _ in range(200):
        belief = prior
        for rows, w in zip(seen, weights, strict=True):
            if w > 0:
                for row, missed in rows:
                    belief = belief.observed(row, missed, noise / w)
        squares = [_square(belief, rows, noise) for rows in seen]
        fresh = [b * (min(1.0, (FREEDOM + 1) / (FREEDOM + e2)) if robust else 1.0) for b, e2 in zip(base, squares, strict=True)]
        heard = sum(w * e2 * noise for w, e2 in zip(fresh, squares, strict=True))
        louder = (_PRIOR_RINGS + heard) / (_PRIOR_RINGS + sum(fresh)) if learn_noise else 1.0
        moved = max((abs(a - b) for a, b in zip(fresh, weights, strict=True)), default=0.0) + abs(louder - noise)
        weights, noise = fresh, louder
        if moved < 1e-9:
            break
    return Hand(belief, tuple(weights), noise, tuple(rings))


_WATCHED = 6
_BEFORE = 60
"""Rings that the last ones are held against."""
_ALARM = 3.0


def changed(rings: Sequence[Used]) -> bool:
    """Whether the last rings came out other than the ones before them led to expect: new pliers, another wire, another hand.

    The sum of the last six standardised one-step residuals, over √6, beyond 3. Each is against what was known before its ring.
    """
    counted = [ring for ring in rings if not ring.left_out]
    if len(counted) <= _WATCHED:
        return False
    total = 0.0
    for k in range(len(counted) - _WATCHED, len(counted)):
        before, ring = learned(counted[max(0, k - _BEFORE) : k]), counted[k]
        row = {str(kind): length for kind, length in ring.lengths.items()}
        missed = ring.used_mm - ring.planned_mm - before.belief.value(row)
        unknown = {kind: length for kind, length in ring.lengths.items() if kind not in before.belief.names}
        unseen = sum((HAND[kind].bias * length) ** 2 for kind, length in unknown.items())
        total += missed / math.sqrt(before.belief.variance(row) + unseen + before.noise * ring.variance)
    return abs(total) / math.sqrt(_WATCHED) > _ALARM


def left_out(rings: Sequence[Used], place: int, why: str) -> list[Used]:
    """The same rings with one that doesn't count."""
    return [replace(ring, left_out=why) if k == place else ring for k, ring in enumerate(rings)]


def _noise(lengths: Mapping[HandKind, float]) -> float:
    """Variance of what moves of these lengths take, each by itself."""
    return sum((HAND[kind].noise * length) ** 2 for kind, length in lengths.items())


def _square(belief: Belief, rows: Sequence[tuple[Row, float]], noise: float) -> float:
    """How far off a ring is, squared, against what may be expected of it; the mean of what was seen."""
    return sum((missed - belief.value(row)) ** 2 + belief.variance(row) for row, missed in rows) / noise / len(rows)


SIZE_BY_MANDREL_MM, SIZE_BY_BAND_MM, SIZE_OWN_MM = 0.20, 0.15, 0.12
"""Standard deviations of what a mandrel, a family of bands and a single ring are off by, in diameter (common practice, no source)."""


@dataclass(frozen=True)
class SizeRead:
    """A finished ring's size against its plan [mm of diameter], on which mandrel and of which family of bands."""

    mandrel: str
    family: str
    off_mm: float


def size_offset(reads: Sequence[SizeRead], mandrel: str, family: str) -> tuple[float, float, int]:
    """By how much rings of this family come off this mandrel other than planned [mm], its standard deviation, and how many say so."""
    names = {f"mandrel {read.mandrel}" for read in reads} | {f"mandrel {mandrel}"}
    families = {f"family {read.family}" for read in reads} | {f"family {family}"}
    spread = dict.fromkeys(sorted(names), SIZE_BY_MANDREL_MM) | dict.fromkeys(sorted(families), SIZE_BY_BAND_MM)
    belief = Belief.prior(spread)
    for read in reads:
        belief = belief.observed({f"mandrel {read.mandrel}": 1.0, f"family {read.family}": 1.0}, read.off_mm, SIZE_OWN_MM**2)
    row = {f"mandrel {mandrel}": 1.0, f"family {family}": 1.0}
    return belief.value(row), belief.sd(row), sum(1 for read in reads if read.mandrel == mandrel)
