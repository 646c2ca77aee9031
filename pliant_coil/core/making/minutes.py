"""How long a ring takes at the bench: each move, each task's handling, and the torch's heating and cooling.

All times are common practice, no source: a practised hand's, and the same for every style, so that rings can be compared.
"""

from collections.abc import Iterable, Sequence

from pliant_coil.core.moves.placed import Piece
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.words.say import Say

_SECONDS_A_TASK = 75.0
_SECONDS_OF_TORCH = 480.0
_SECONDS_OF_PICKLE = 420.0


def working_minutes(pieces: Iterable[Piece], tasks: Sequence[Task]) -> float:
    """Minutes from the first straightened wire to the finished ring."""
    seconds = sum(placed.move.takes_s for piece in pieces for placed in piece.moves)
    seconds += _SECONDS_A_TASK * len(tasks)
    seconds += _SECONDS_OF_TORCH * cautioned(tasks, cautions.TORCH) + _SECONDS_OF_PICKLE * cautioned(tasks, cautions.PICKLE)
    return seconds / 60


def cautioned(tasks: Iterable[Task], caution: Say) -> int:
    """How many tasks give this caution; each has one wording, made once."""
    return sum([given is caution for task in tasks for given in task.cautions])
