"""What is believed about several unknowns at once, and how an observation that is linear in them changes it.

`y = Σ xᵢ·θᵢ + ε` with θ ~ N(m, P), ε ~ N(0, R) gives `S = xᵀPx + R, K = Px/S, m += K(y − xᵀm), P −= K xᵀP`: the conjugate
posterior, one observation at a time (docs/handbook.md).
"""

from __future__ import annotations

import math
from collections.abc import Mapping

from pliant_coil.core.frozen import dataclass

Row = Mapping[str, float]
"""What an observation takes of each unknown; of those that aren't named, nothing."""


@dataclass(frozen=True)
class Belief:
    """Unknowns with their means and how they vary together."""

    names: tuple[str, ...]
    mean: tuple[float, ...]
    covariance: tuple[tuple[float, ...], ...]

    @classmethod
    def prior(cls, spread: Row) -> Belief:
        """Unknowns that don't depend on each other, about 0, with these standard deviations."""
        names = tuple(spread)
        covariance = tuple(tuple(spread[a] ** 2 if a == b else 0.0 for b in names) for a in names)
        return cls(names, (0.0,) * len(names), covariance)

    def value(self, row: Row) -> float:
        """Expected value of a combination."""
        return sum(row.get(name, 0.0) * m for name, m in zip(self.names, self.mean, strict=True))

    def variance(self, row: Row) -> float:
        """Variance of a combination."""
        return max(0.0, sum(row.get(name, 0.0) * p for name, p in zip(self.names, self._times(row), strict=True)))

    def sd(self, row: Row) -> float:
        """Standard deviation of a combination."""
        return math.sqrt(self.variance(row))

    def observed(self, row: Row, value: float, noise_variance: float) -> Belief:
        """What is believed after `value` was seen for a combination, with this variance of its own."""
        shared = self._times(row)
        spread = self.variance(row) + noise_variance
        gain = [s / spread for s in shared]
        missed = value - self.value(row)
        mean = tuple(m + k * missed for m, k in zip(self.mean, gain, strict=True))
        covariance = tuple(
            tuple(p - k * s for p, s in zip(line, shared, strict=True)) for k, line in zip(gain, self.covariance, strict=True)
        )
        return Belief(self.names, mean, covariance)

    def _times(self, row: Row) -> list[float]:
        """P·x."""
        weights = [row.get(name, 0.0) for name in self.names]
        return [sum(p * w for p, w in zip(line, weights, strict=True)) for line in self.covariance]
