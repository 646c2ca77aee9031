"""How long a ring takes at the bench: each move by its kind, each task's handling, and the torch's heating and cooling.

All times are common practice, no source: a practised hand's, and the same for every style, so that rings can be compared.
"""

from collections.abc import Iterable, Sequence

from pliant_coil.core.moves import Piece, Placed, Weaving
from pliant_coil.core.styles import cautions
from pliant_coil.core.styles.tasks import Task

_SECONDS_A_COUNT: dict[str, float] = {
    "wrap": 8,
    "bead-turn": 25,
    "turns": 20,
    "coil": 5,
    "coil-of-coil": 90,
    "loop": 20,
    "eye": 30,
    "loop-row": 15,
    "nest": 45,
    "bead-row": 20,
    "spike": 75,
    "stitch": 25,
    "strand": 8,
    "prong": 120,
    "claw": 120,
    "figure": 45,
    "scroll": 60,
    "pass": 60,
    "course": 45,
    "crossing": 20,
    "twist": 90,
}
"""For each count of a move, or for the move where nothing is counted."""
_SECONDS_A_WEAVE_WRAP = 7.0
_SECONDS_ELSE = 6.0
_SECONDS_A_TASK = 75.0
_SECONDS_OF_TORCH = 480.0
_SECONDS_OF_PICKLE = 420.0


def _of_move(placed: Placed) -> float:
    move = placed.move
    if isinstance(move, Weaving):
        groups = move.weave.groups if move.half is None else (move.weave.groups[move.half],)
        return move.cycles * sum(g.wraps for g in groups) * _SECONDS_A_WEAVE_WRAP
    return _SECONDS_A_COUNT.get(move.kind, _SECONDS_ELSE) * max(1.0, move.count or 1.0)


def working_minutes(pieces: Iterable[Piece], tasks: Sequence[Task]) -> float:
    """Minutes from the first straightened wire to the finished ring."""
    seconds = sum(_of_move(placed) for piece in pieces for placed in piece.moves)
    for task in tasks:
        seconds += _SECONDS_A_TASK
        seconds += _SECONDS_OF_TORCH if cautions.TORCH in task.cautions else 0.0
        seconds += _SECONDS_OF_PICKLE if cautions.PICKLE in task.cautions else 0.0
    return seconds / 60
