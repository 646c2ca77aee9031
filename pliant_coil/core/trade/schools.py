"""Habits of makers about where to start on the mandrel, counted from the finger's size (common practice, no source)."""

from typing import Literal

from pliant_coil.core.frozen import dataclass

School = Literal["geometry", "at-size", "half-up", "one-up", "two-up", "down"]


@dataclass(frozen=True, slots=True)
class SchoolRule:
    """A habit: start so many US sizes from the finger's, and when that is right."""

    school: School
    steps_us: float
    when: str


SCHOOLS = (
    SchoolRule("at-size", 0, "Right where nothing ends up inside the band: plain and crossed turns, ends left free."),
    SchoolRule("half-up", 0.5, "Right with fine wire in the locks, or a single wrap low beside the head."),
    SchoolRule("one-up", 1, "Right for two or three lock wraps of 22 or 20 gauge wire."),
    SchoolRule("two-up", 2, "Right for thick wire in the locks."),
    SchoolRule("down", -1, "Right for bands that are hammered after forming, which opens them."),
)
