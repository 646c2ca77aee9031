"""Hammering a closed ring flat: it opens, and its metal goes into width.

Source: ΔC/C = g · ln(t₀/t₁), g fitted to common practice (1.6 mm hammered to 1.2 opens a ring of C 50 by just over a UK
size, to 1.1 by up to two; no source) until the maker's own records say otherwise. Volume is kept.
"""

import math

GROWTH = 0.094
"""g: how much of the flattening goes round the ring instead of across."""


MOST_FLATTENED = 1 / 3
"""Of a wire's height, without annealing it between (common practice, no source)."""


def lengthened(before_mm: float, after_mm: float, growth: float = GROWTH) -> float:
    """How many times as long the way round becomes when it is hammered from one thickness to another."""
    return 1 + growth * math.log(before_mm / after_mm)


def hammered_to_mm(before_mm: float, times: float, growth: float = GROWTH) -> float:
    """To which thickness it is hammered, so that the way round becomes so many times as long."""
    return before_mm / math.exp((times - 1) / growth)


def oval_width_mm(area_mm2: float, thickness_mm: float) -> float:
    """Width of a flat-sided oval (round sides, flat faces `thickness_mm` apart) of this area: A/t + t(1 − π/4)."""
    return area_mm2 / thickness_mm + thickness_mm * (1 - math.pi / 4)
