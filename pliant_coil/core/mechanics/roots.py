"""Where a quantity that only rises reaches a value.

The false position, kept from standing still at one end by halving the other's share (the Illinois rule, Dowell and Jarratt 1971): a handful of
steps where halving the interval takes thirty.
"""

from collections.abc import Callable

_MOST_STEPS = 60


def where_it_reaches(wanted: float, quantity: Callable[[float], float], low: float, high: float, *, close: float = 1e-6) -> float:
    """The place between `low` and `high` at which `quantity`, which only rises, is within `close` of `wanted`; the nearer end beyond them."""
    short, long = quantity(low) - wanted, quantity(high) - wanted
    if short >= 0 or long <= 0:
        return low if short >= 0 else high
    for _ in range(_MOST_STEPS):
        middle = low - short * (high - low) / (long - short)
        missed = quantity(middle) - wanted
        if abs(missed) < close:
            return middle
        if missed < 0:
            low, short, long = middle, missed, long / 2
        else:
            high, long, short = middle, missed, short / 2
    return (low + high) / 2
