"""A step in few words, for a hand that has done it often; and the trade's words in it, for one that never has."""

from collections.abc import Iterator, Mapping

from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.moves.placed import Placed
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.trade.glossary import explained
from pliant_coil.core.trade.sizes import MandrelMark
from pliant_coil.core.words.figures import Number
from pliant_coil.core.words.say import NOTHING, Say, listed, say


def in_few_words(task: Task, made: MadeRing, placed: Mapping[str, Placed]) -> Say:
    """A step's figures without its how: what is counted, the mark that its words name, what is read; nothing where it has none."""
    text = task.brief or _counted([placed[move] for move in task.makes if move in placed])
    for mark in _marks(task.says):
        text += say("At {mark}.", mark=mark)
    if any(check.reads_size for check in task.checks):
        text += say("It reads {mark}.", mark=MandrelMark(made.expects(task)))
    return text


def meanings(task: Task) -> list[str]:
    """What the trade's words mean that stand in a step and its checks."""
    text = task.says
    for check in task.checks:
        text += check.says + check.otherwise
    return explained(text)


def _marks(text: Say) -> Iterator[MandrelMark]:
    for figure in text.figures.values():
        if isinstance(figure, MandrelMark):
            yield figure
        elif isinstance(figure, Say):
            yield from _marks(figure)


def _counted(moves: list[Placed]) -> Say:
    """What is counted, kind by kind: `lock: 2, 2.`"""
    by_label: dict[str, list[float]] = {}
    for each in moves:
        if each.move.counted is not None and each.move.count and each.move.count > 1:
            by_label.setdefault(each.move.label, []).append(each.move.count)
    parts = []
    for label, counts in by_label.items():
        # A long row of like pieces is told once.
        told = counts[:1] if len(set(counts)) == 1 and len(counts) > 2 else counts
        often = say("{k} times ", k=str(len(counts))) if len(told) < len(counts) else NOTHING
        parts.append(say("{label}: {often}{counts}", label=label, often=often, counts=listed([Number(n, 1) for n in told])))
    return say("{text}.", text=listed(parts, "; ")) if parts else NOTHING
