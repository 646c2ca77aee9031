"""The trade's words in a sentence each, for somebody who hears them for the first time (common practice, no source)."""

import re
from collections.abc import Mapping
from functools import lru_cache

from pliant_coil.core.words.say import Say

GLOSSARY: Mapping[str, tuple[str, str]] = {
    "mandrel": (r"mandrels?", "The mandrel is the tapered rod that rings are formed on and read on; its marks are ring sizes."),
    "shoulder": (r"shoulders?", "A shoulder is where the band meets the head, left or right of it."),
    "tail": (r"tails?", "A tail is the end of a wire that still has something to do; it is trimmed when nothing is left for it."),
    "lock": (r"locks?|locked", "A lock is a tail wound close round the shoulder: it keeps the ring from opening."),
    "flush": (r"flush(?: cutter)?", "A flush cut is flat: the cutter's flat side lies against the part that stays."),
    "jaw": (r"jaws?", "The jaws are the two halves that grip; a mark is held one wire's width inside their edge."),
    "weave": (
        r"weaves?|woven|weaving",
        "To weave is to wind the fine wire round the thick ones in a pattern that repeats; once through the pattern is a cycle.",
    ),
    "base": (r"base wires?", "The base wires are the thick ones that the fine wire is wound on."),
    "temper": (r"temper|half hard", "Temper is how hard a wire is: soft bends by hand, half hard springs back."),
    "anneal": (r"anneal(?:ed|ing)?", "To anneal is to heat metal until it is soft again."),
    "quench": (r"quench(?:ed)?", "To quench is to cool hot metal in water."),
    "pickle": (r"pickle[d]?", "Pickle is a warm acid bath that takes the dark skin off heated metal."),
    "flux": (r"flux(?:ed)?", "Flux keeps heated metal clean, so that solder runs."),
    "scroll": (r"scrolls?", "A scroll is a wire's end rolled up in its own plane."),
    "spike": (r"spikes?", "A spike is a fold of wire left standing out and twisted."),
    "re-round": (r"re-round", "To re-round is to press and tap a ring on the mandrel until it is round again."),
}
"""By its name: what it looks like in a text, and what it means."""
_PATTERNS = {name: re.compile(rf"\b(?:{looks})\b", re.IGNORECASE) for name, (looks, _) in GLOSSARY.items()}


def explained(text: Say) -> list[str]:
    """A sentence for each of the trade's words in a text."""
    return list(_meanings(_words(text)))


@lru_cache(maxsize=4096)
def _meanings(words: str) -> tuple[str, ...]:
    return tuple(GLOSSARY[name][1] for name, pattern in _PATTERNS.items() if pattern.search(words))


def _words(text: Say) -> str:
    inner = [_words(figure) if isinstance(figure, Say) else figure for figure in text.figures.values() if isinstance(figure, Say | str)]
    return " ".join([text.template, *inner])
