"""Runs of coils that bind a row of wires: as they are written, and as they fill a length from the middle outwards."""

import math
import re
from collections.abc import Sequence
from functools import lru_cache

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.words.refusal import refuse

_RUN = re.compile(r"\s*(\d+)\s*(middle|inner|all)\s*", re.IGNORECASE)
MOST_COILS = 60


@dataclass(frozen=True, slots=True)
class Run:
    """So many coils round the inner wires, or round all."""

    coils: int
    inner: bool

    @property
    def words(self) -> str:
        return f"{self.coils} {'inner' if self.inner else 'all'}"


@dataclass(frozen=True, slots=True)
class Rhythm:
    """Runs as they fit: the middle one, counted once and mirrored about, and those of each side from the middle outwards."""

    middle: Run | None
    side: tuple[Run, ...]

    @property
    def coils(self) -> int:
        return (self.middle.coils if self.middle else 0) + 2 * sum(run.coils for run in self.side)

    @property
    def words(self) -> str:
        middle = [f"{self.middle.coils} middle"] if self.middle else []
        return ", ".join(middle + [run.words for run in self.side])


@lru_cache(maxsize=256)
def read_runs(text: str, field: str) -> tuple[Run | None, tuple[Run, ...]]:
    """The middle run, if one is written, and the others in their order. Raises `Refusal` at `field`, pointing at the character."""
    found: list[Run] = []
    middle: Run | None = None
    at = 1
    for k, part in enumerate(text.split(",")):
        match = _RUN.fullmatch(part)
        said = f"“{part.strip()[:30]}” at character {at}"
        if not match:
            refuse(field, f"{said} isn't a run", "a count and middle, inner or all: 9 middle, 4 all, 7 inner")
        if len(match.group(1)) > 3 or not 1 <= int(match.group(1)) <= MOST_COILS:
            refuse(field, f"{said} asks for too many coils or none", f"1 to {MOST_COILS}")
        run = Run(int(match.group(1)), match.group(2).lower() != "all")
        if match.group(2).lower() == "middle":
            if k:
                refuse(field, f"{said} comes after others", "the middle run first")
            middle = run
        else:
            found.append(run)
        at += len(part) + 1
    if all(run.inner for run in found):
        refuse(field, "nothing holds the outer wires", "at least one run round all")
    return middle, tuple(found)


def fit(middle: Run | None, written: Sequence[Run], room: float, *, last_min: int, last_max: int) -> Rhythm:
    """Runs from the middle outwards, added in pairs, the last one round all deciding; within a coil a side of `room` coils.

    In this order, where the last run would be too short or too long: a coil more or less in the last inner run, in the
    middle run, the last pair dropped.
    """
    side: list[Run] = []
    taken = float(middle.coils if middle else 0)
    k = 0
    while True:
        run = written[k % len(written)]
        if taken + 2 * run.coils + 2 * last_min > room:
            break
        side.append(run)
        taken += 2 * run.coils
        k += 1
    # The last run lies round all: a run round all before it is taken into it.
    if side and not side[-1].inner:
        taken -= 2 * side.pop().coils
    last = math.floor((room - taken) / 2 + 1e-9)
    if last > last_max and (side or middle):
        # Too long: the last inner run takes what is over, or the middle one.
        over = last - last_max
        if side:
            side[-1] = Run(side[-1].coils + over, True)
        elif middle:
            middle = Run(middle.coils + 2 * over, True)
        last = last_max
    return Rhythm(middle, (*side, Run(max(1, last), False)))
