"""Rings that are hammered flat, read on the way: how much this metal under this hammer grows round the ring, and what is still to be done.

ΔC/C = g·ln(t₀/t) (docs/handbook.md §6): what is read on the way says g of this ring. The rest is reckoned from where the ring began, with
that g: reckoned on from the reading, the reading's own error would go in twice.
"""

import math

from pliant_coil.core.bench.belief import Belief
from pliant_coil.core.frozen import dataclass
from pliant_coil.core.mechanics.hammering import GROWTH, hammered_to_mm, lengthened
from pliant_coil.core.styles.handed_on import HammeredRing
from pliant_coil.core.words.figures import Thickness
from pliant_coil.core.words.refusal import refuse
from pliant_coil.core.words.say import say

GROWTH_SD = 0.020
"""How differently hammers, stakes and hands make it grow (common practice, no source)."""
AROUND_SD_MM = 0.15
"""Of a way round that is read on a mandrel (common practice, no source)."""


@dataclass(frozen=True)
class Hammering:
    """What a reading says: g with its standard deviation, what comes of the planned thickness, and what would reach the target [mm]."""

    growth: float
    growth_sd: float
    after_mm: float
    """Thickness that is planned."""
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
    flattened = math.log(ring.before_mm / thickness_mm)
    grown = around_mm / ring.around_mm - 1
    if not -0.1 < grown / flattened < 0.5:
        refuse("value_mm", "no ring grows so", "the size that the mandrel reads now")
    missed = grown + 1 - lengthened(ring.before_mm, thickness_mm)
    seen = Belief.prior({"g": GROWTH_SD}).observed({"g": flattened}, missed, (AROUND_SD_MM / ring.around_mm) ** 2)
    growth = GROWTH + seen.value({"g": 1.0})
    at_planned = ring.around_mm * lengthened(ring.before_mm, ring.after_mm, growth)
    return Hammering(
        growth,
        seen.sd({"g": 1.0}),
        ring.after_mm,
        at_planned,
        hammered_to_mm(ring.before_mm, target_mm / ring.around_mm, growth),
        target_mm / at_planned - 1,
    )
