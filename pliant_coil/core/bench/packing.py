"""How a row of repeats comes out in this hand, measured on the way: how many more it takes to fill its length.

What is measured is m = f·(repeats · length of one) + e. f is near 1, with the makers' spread and this ring's own; the rule's error is its own.
"""

import math

from pliant_coil.core.bench.belief import Belief
from pliant_coil.core.frozen import dataclass
from pliant_coil.core.trade.hand import HAND, HandKind

RULE_SD_MM = 0.3
"""Of a steel rule along a band (common practice, no source)."""


@dataclass(frozen=True)
class Packing:
    """How much longer each repeat comes out than planned, how surely, and what that means for the rest."""

    factor: float
    sd: float
    made_mm: float
    more: int
    """Whole repeats that still fill the length."""
    more_planned: int
    all_planned_mm: float
    """How long it would be with all the repeats that were planned."""


def packing(done: int, measured_mm: float, *, repeat_mm: float, target_mm: float, planned: int, kind: HandKind) -> Packing:
    """What a row of `done` repeats that measures so says. `done` ≥ 1; lengths in mm."""
    steady = HAND[kind]
    belief = Belief.prior({"longer": math.hypot(steady.bias, steady.noise)})
    row = {"longer": done * repeat_mm}
    belief = belief.observed(row, measured_mm - done * repeat_mm, RULE_SD_MM**2)
    factor = 1 + belief.value({"longer": 1.0})
    each = factor * repeat_mm
    more = max(0, math.floor((target_mm - measured_mm) / each + 1e-9))
    return Packing(
        factor, belief.sd({"longer": 1.0}), measured_mm, more, max(0, planned - done), measured_mm + max(0, planned - done) * each
    )
