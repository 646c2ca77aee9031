"""How long a ring takes at the bench: each move, each task's handling, and the torch's heating and cooling.

All times are common practice, no source: a practised hand's, and the same for every style, so that rings can be compared.
"""

from collections.abc import Iterable, Sequence

from pliant_coil.core.moves.placed import Piece
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.tasks import Task

_SECONDS_A_TASK = 75.0
_SECONDS_OF_TORCH = 480.0
_SECONDS_OF_PICKLE = 420.0


def working_minutes(pieces: Iterable[Piece], tasks: Sequence[Task]) -> float:
    """Minutes from the first straightened wire to the finished ring."""
    seconds = sum(placed.move.takes_s for piece in pieces for placed in piece.moves)
    for task in tasks:
        seconds += _SECONDS_A_TASK
        seconds += _SECONDS_OF_TORCH if cautions.TORCH in task.cautions else 0.0
        seconds += _SECONDS_OF_PICKLE if cautions.PICKLE in task.cautions else 0.0
    return seconds / 60
