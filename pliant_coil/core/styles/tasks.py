"""Bench tasks: what is done in which phase, which moves it makes, what is checked, what to mind.

Styles place tasks in phases, never beside each other's tasks. Counts, lengths and drawing of a task come from the moves
that it makes.
"""

from enum import StrEnum

from pliant_coil.core.frozen import dataclass
from pliant_coil.core.words.say import NOTHING, Say


class Phase(StrEnum):
    """The stages of the bench, in their order."""

    WIRE = "wire"
    WORK = "work"
    FLAT = "flat"
    FORM = "form"
    GATHER = "gather"
    HEAD = "head"
    READ = "read"
    LOCK = "lock"
    TRIM = "trim"
    ROUND = "round"
    NOTE = "note"


PHASES = tuple(Phase)


@dataclass(frozen=True, slots=True)
class Check:
    """What to look at when a task is done, and what to do when it isn't so.

    With `reads_size` the mandrel is read: what it should say is reckoned from the ring as it stands then.
    """

    says: Say = NOTHING
    otherwise: Say = NOTHING
    reads_size: bool = False
    within_mm: float = 0.1
    """Tolerance of a size reading, in diameter."""


@dataclass(frozen=True, slots=True)
class Task:
    """One thing to do."""

    id: str
    phase: Phase
    says: Say
    makes: tuple[str, ...] = ()
    """Ids of the moves that are made by it."""
    checks: tuple[Check, ...] = ()
    cautions: tuple[Say, ...] = ()
    stage: str = ""
    """A name for the step that is finer than its phase."""
    count: int | None = None
    """How often, where it isn't a move's own count."""
    takes: str = ""
    """Id of the piece that is taken up here, long after the others were cut: its length is told once more."""
    brief: Say = NOTHING
    """Its figures in few words, where they aren't those of the moves that it makes."""


def reads(within_mm: float = 0.1, otherwise: Say = NOTHING) -> Check:
    """The mandrel is read here."""
    return Check(otherwise=otherwise, reads_size=True, within_mm=within_mm)


def look(text: Say | str, otherwise: Say | str = NOTHING) -> Check:
    """Something to look at or feel."""
    return Check(Say(text) if isinstance(text, str) else text, Say(otherwise) if isinstance(otherwise, str) else otherwise)
