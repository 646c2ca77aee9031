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


def oval_round_mm(volume_mm3: float, inside_mm: float, thickness_mm: float) -> float:
    """Width of a flat-sided oval that a ring's metal becomes round an inside diameter, hammered flat to a thickness.

    Volume = π (inside + w)(t w − t²(1 − π/4)): the oval's area times the way round its middle line, solved for w.
    """
    round_ends = thickness_mm * (1 - math.pi / 4)
    metal = volume_mm3 / (math.pi * thickness_mm)
    less = inside_mm - round_ends
    return (math.sqrt(less**2 + 4 * (metal + round_ends * inside_mm)) - less) / 2
