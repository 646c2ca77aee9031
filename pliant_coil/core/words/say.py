"""Text as templates with typed figures, written once at the edge for whoever reads it.

A `Say` is made where the subject is known and holds no formatted length; `write` turns it into words for a `Reader`:
their units, their size systems, their language. Nothing else formats a length, a size or a count.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping, Sequence
from dataclasses import field
from functools import lru_cache
from string import Formatter
from typing import Literal, Protocol

from pliant_coil.core.frozen import dataclass

Units = Literal["mm", "in"]


class Marked(Protocol):
    """A mandrel whose marks don't stand quite where they should."""

    def marked_mm(self, inside_diameter_mm: float) -> float:
        """The inside diameter that its mark names at a place that measures this."""

    def true_mm(self, marked_mm: float) -> float:
        """What it measures where its mark names this."""


@dataclass(frozen=True, slots=True)
class Reader:
    """Who reads: units of length, size systems with the first one first, and the language."""

    units: Units = "mm"
    systems: tuple[str, ...] = ("us", "uk")
    language: str = "en"
    mandrel: Marked | None = None
    """The mandrel that marks are told for; without one they stand where they should."""


class Figure(ABC):
    """A figure that knows what it is, so that it can be written for any reader."""

    __slots__ = ()

    @abstractmethod
    def written(self, reader: Reader) -> str:
        """The figure in words for this reader."""

    def __format__(self, spec: str) -> str:
        raise TypeError("a figure is written by `write`, for a reader")


@dataclass(frozen=True, slots=True)
class Say(Figure):
    """A template and the figures that stand in it: `Cut {pieces} of {length}.`"""

    template: str
    figures: Mapping[str, Told] = field(default_factory=dict)

    def written(self, reader: Reader) -> str:
        if not self.figures:
            return self.template
        # Asked for hundreds of times a plan: by a pattern that is read once, and what is plain already isn't written first.
        pattern, names = _pattern(self.template)
        words = []
        for name in names:
            value = self.figures[name]
            words.append(value if isinstance(value, _PLAIN) else value.written(reader))
        return pattern % tuple(words)

    def __bool__(self) -> bool:
        return bool(self.template)

    def __add__(self, other: Say) -> Say:
        """Both, one sentence after the other."""
        if not self or not other:
            return self or other
        return Say("{first} {then}", {"first": self, "then": other})


@lru_cache(maxsize=4096)
def _pattern(template: str) -> tuple[str, tuple[str, ...]]:
    """The template for `%`, and the names of what stands in it, in their order."""
    parts = list(Formatter().parse(template))
    pattern = "".join(literal.replace("%", "%%") + ("" if name is None else "%s") for literal, name, _, _ in parts)
    return pattern, tuple(name for _, name, _, _ in parts if name is not None)


Told = Figure | str | int | float
"""What can stand in a text: a figure, another text, plain words, a whole number."""

_PLAIN = (str, int, float)
NOTHING = Say("")


def say(template: str, /, **figures: Told) -> Say:
    """A text. `figures` are `Figure`s, other `Say`s, plain words or whole numbers; never a formatted length."""
    return Say(template, figures)


def listed(parts: Sequence[Figure], join: str = ", ") -> Say:
    """`parts` as one text with `join` between them."""
    if len(parts) == 1 and isinstance(parts[0], Say):
        return parts[0]
    template, names = _joined(len(parts), join)
    return Say(template, dict(zip(names, parts, strict=True)))


@lru_cache(maxsize=256)
def _joined(count: int, join: str) -> tuple[str, tuple[str, ...]]:
    names = tuple(f"part{k}" for k in range(count))
    return join.join(f"{{{name}}}" for name in names), names


def write(said: Told, reader: Reader) -> str:
    """`said` in words for `reader`."""
    return str(said) if isinstance(said, _PLAIN) else said.written(reader)
