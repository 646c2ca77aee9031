"""./bench runs through, whatever styles there are: it is run by hand, and seldom."""

from tools.bench import LIMITS, in_process


def test_every_pair_is_planned() -> None:
    measured = in_process(rounds=1)
    assert measured.keys() <= LIMITS.keys()
    assert all(milliseconds > 0 for milliseconds in measured.values())
