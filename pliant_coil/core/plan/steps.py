"""The steps of a plan: each with its check, in few words too for a hand that has done it often, and with what the trade's words mean."""

from collections.abc import Mapping

from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.planned import Planned
from pliant_coil.core.moves import Placed
from pliant_coil.core.plan import model
from pliant_coil.core.styles.contract import SizedBy
from pliant_coil.core.styles.tasks import Phase, Task
from pliant_coil.core.trade.glossary import explained
from pliant_coil.core.trade.sizes import MandrelMark
from pliant_coil.core.words.figures import CutLength, Number
from pliant_coil.core.words.say import NOTHING, Say, listed, say


def steps_of(all_of_it: Planned) -> list[model.Step]:
    """Every step of a ring, from the finger to the record."""
    placed = {each.id: each for piece in all_of_it.made.pieces for each in piece.moves}
    return [_step(task, all_of_it, placed) for task in all_of_it.tasks]


def _step(task: Task, all_of_it: Planned, placed: Mapping[str, Placed]) -> model.Step:
    made = all_of_it.made
    expected: float | None = None
    said: list[Say] = []
    for check in task.checks:
        if check.reads_size:
            # What sets the size is told where it is set; elsewhere the mandrel is read.
            expected = made.finished_mm if made.band.sized_by is SizedBy.OVERLAP else _reading(task, made)
            said.append(say("The mandrel reads {size}.", size=MandrelMark(expected)) + check.otherwise)
        else:
            said.append(check.says + check.otherwise)
    text = NOTHING
    for each in said:
        text += each
    return model.Step(
        id=task.id,
        stage=task.stage or task.id.split("-")[0],
        phase=task.phase,
        text=task.says,
        brief=_brief(task, all_of_it, placed, expected),
        words=explained(task.says + text),
        count=task.count,
        check=text or None,
        expected_mm=expected,
        cautions=list(task.cautions),
        makes=list(task.makes),
    )


def _reading(task: Task, made: MadeRing) -> float:
    known = {each.id for each in made.tasks}
    return made.reading_after(task) if task.id in known else made.finished_mm


def _brief(task: Task, all_of_it: Planned, placed: Mapping[str, Placed], reads_mm: float | None) -> Say:
    """The figures of a step without its how; nothing where it has none."""
    if task.phase is Phase.WIRE and task.id.startswith("cut-"):
        cut = all_of_it.cuts[int(task.id.removeprefix("cut-")) - 1]
        return say("Cut {length}, {role}.", length=CutLength(cut.cut_mm, cut.inch_parts), role=cut.piece.role)
    moves = [placed[i] for i in task.makes if i in placed]
    found = [_counted(moves)]
    if task.phase is Phase.FORM and any(each.move.hand == "arc" for each in moves):
        found.append(say("Form at {mark}.", mark=MandrelMark(all_of_it.made.form.diameter_mm)))
    if reads_mm is not None:
        found.append(say("It reads {mark}.", mark=MandrelMark(reads_mm)))
    text = NOTHING
    for each in found:
        text += each
    return text


def _counted(moves: list[Placed]) -> Say:
    """What is counted, kind by kind: `Lock: 2, 2.`"""
    by_label: dict[str, list[float]] = {}
    for each in moves:
        if each.move.counted is not None and each.move.count and each.move.count > 1:
            by_label.setdefault(each.move.label, []).append(each.move.count)
    if not by_label:
        return NOTHING
    parts = []
    for label, counts in by_label.items():
        # A long row of like pieces is told once.
        told = counts[:1] if len(set(counts)) == 1 and len(counts) > 2 else counts
        often = say("{k} times ", k=str(len(counts))) if len(told) < len(counts) else NOTHING
        parts.append(say("{label}: {often}{counts}", label=label, often=often, counts=listed([say("{n}", n=Number(n, 1)) for n in told])))
    text = listed(parts, "; ")
    return say("{text}.", text=text)
