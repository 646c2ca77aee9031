"""The weave program: how it is written and read.

A program is a row of groups such as `A3 AB1`: three wraps on wire A, then one round A and B. Base wires are lettered
from one edge. Source: common practice.
"""

import re
from functools import lru_cache

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.words.refusal import refuse

LETTERS = "ABCD"
MOST_WRAPS = 20
MOST_GROUPS = 12

PRESETS = {
    "A3 AB1": "three and one, on two wires",
    "A2 AB1": "two and one, on two wires",
    "AB1": "round both",
    "A1 AB1 B1": "one, both, one: both edges alike",
    "AB2 BC2": "two and two, on three wires",
    "AB1 BC1": "one and one, on three wires",
    "AB2 BC2 CD2 BC2": "out and back over the pairs, on four wires",
}
"""Programs that makers use (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Group:
    """`wraps` wraps round the base wires `first` to `last`, numbered from 0."""

    first: int
    last: int
    wraps: int

    @property
    def wires(self) -> int:
        """How many base wires it goes round."""
        return self.last - self.first + 1

    @property
    def name(self) -> str:
        return LETTERS[self.first : self.last + 1]


_GROUP = re.compile(r"([A-Za-z]+)\s*(\d*)")


@lru_cache(maxsize=256)
def read_program(text: str, base_wires: int, field: str) -> tuple[Group, ...]:
    """Read a program for `base_wires` wires (2 to 4). Raises `Refusal` at `field`, pointing at the character."""
    example = "A3 AB1, or AB2 BC2 for three wires"
    groups: list[Group] = []
    at = 0
    while at < len(text):
        if text[at] in " ,":
            at += 1
            continue
        match = _GROUP.match(text, at)
        if not match:
            refuse(field, f"“{text[at]}” at character {at + 1} is no wire's letter", example)
        groups.append(_group(match, base_wires, field))
        at = match.end()
    if not groups:
        refuse(field, "the program is empty", example)
    if len(groups) > MOST_GROUPS:
        refuse(field, f"a cycle of {len(groups)} groups is more than can be kept in the hand", f"up to {MOST_GROUPS} groups")
    for wire in range(base_wires - 1):
        if not any(g.first <= wire < g.last for g in groups):
            refuse(field, f"nothing holds {LETTERS[wire]} and {LETTERS[wire + 1]} together", f"a group such as {LETTERS[wire : wire + 2]}1")
    return tuple(groups)


def _group(match: re.Match[str], base_wires: int, field: str) -> Group:
    letters, count = match.group(1).upper(), match.group(2)
    where = f"“{match.group(0)}” at character {match.start() + 1}"
    known = LETTERS[:base_wires]
    for letter in letters:
        if letter not in known:
            refuse(field, f"{where} names wire {letter}, and there is no such base wire", f"wires {known[0]} to {known[-1]}")
    first, last = LETTERS.index(letters[0]), LETTERS.index(letters[-1])
    if letters != LETTERS[first : last + 1]:
        refuse(field, f"{where} isn't a row of neighbours", f"letters side by side in order, such as {known[:2]}")
    if not count or not 1 <= int(count[:6]) <= MOST_WRAPS:
        said = "has no number of wraps" if not count else f"asks for {int(count[:6])} wraps"
        refuse(field, f"{where} {said}", f"1 to {MOST_WRAPS}")
    return Group(first, last, int(count))


def program_text(groups: tuple[Group, ...]) -> str:
    """A program as it is written: `A3 AB1`."""
    return " ".join(f"{g.name}{g.wraps}" for g in groups)


def wires_named(program: str) -> int:
    """How many base wires a program's letters ask for."""
    return max(LETTERS.index(letter) for letter in program if letter in LETTERS) + 1
