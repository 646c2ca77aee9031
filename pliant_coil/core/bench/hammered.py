"""Rings that are hammered flat, read on the way: how much this metal under this hammer grows round the ring, and what is still to be done.

ΔC/C = g·ln(t₀/t) (docs/handbook.md §6): what is read on the way says g of this ring. The rest is reckoned from where the ring began, with
that g: reckoned on from the reading, the reading's own error would go in twice.
"""

import math
from dataclasses import dataclass

from pliant_coil.core.bench.belief import Belief
from pliant_coil.core.mechanics.hammering import GROWTH
from pliant_coil.core.styles.contract import HammeredRing
from pliant_coil.core.words.figures import Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import say

GROWTH_SD = 0.020
"""How differently hammers, stakes and hands make it grow (common practice, no source)."""
AROUND_SD_MM = 0.15
"""Of a way round that is read on a mandrel (common practice, no source)."""
MOST_FLATTENED = 1 / 3
"""Of the thickness, without annealing it between; half for sterling (common practice, no source)."""


@dataclass(frozen=True)
class Hammering:
    """What a reading says: g with its standard deviation, what comes of the planned thickness, and what would reach the target [mm]."""

    growth: float
    growth_sd: float
    raw: float
    planned_mm: float
    """Way round that was planned at the thickness that was read."""
    around_mm: float
    """Way round at the planned thickness, with this g."""
    thickness_mm: float
    """At which the target would be reached by hammering alone."""
    stretch: float
    """Share by which it would have to be stretched from the planned thickness; negative where it comes out large."""


def read_hammering(ring: HammeredRing, target_mm: float, thickness_mm: float, around_mm: float) -> Hammering:
    """What a ring says that reads `around_mm` at a thickness; `target_mm` is the way round that it shall have. Raises `Refusal` for no reading."""
    if not 0.4 * ring.before_mm < thickness_mm < ring.before_mm - 0.02:
        refuse(
            "thickness_mm",
            "that isn't a ring that has been hammered a little",
            say("between {low} and {high}", low=Thickness(0.4 * ring.before_mm), high=Thickness(ring.before_mm)),
        )
    drawn = math.log(ring.before_mm / thickness_mm)
    raw = (around_mm / ring.around_mm - 1) / drawn
    if not -0.1 < raw < 0.5:
        refuse("value_mm", "no ring grows so", "the size that the mandrel reads now")
    prior = Belief.prior({"g": GROWTH_SD})
    seen = prior.observed({"g": drawn}, around_mm / ring.around_mm - 1 - GROWTH * drawn, (AROUND_SD_MM / ring.around_mm) ** 2)
    growth = GROWTH + seen.value({"g": 1.0})
    at_planned = ring.around_mm * (1 + growth * math.log(ring.before_mm / ring.after_mm))
    return Hammering(
        growth,
        seen.sd({"g": 1.0}),
        raw,
        ring.around_mm * (1 + GROWTH * drawn),
        at_planned,
        ring.before_mm / math.exp((target_mm / ring.around_mm - 1) / growth),
        target_mm / at_planned - 1,
    )
