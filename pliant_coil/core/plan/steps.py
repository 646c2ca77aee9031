"""The steps of a plan: each with its check, and what the mandrel should read where it is read."""

from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.plan import model
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.trade.sizes import MandrelMark
from pliant_coil.core.words.say import Say, listed, say


def step(task: Task, made: MadeRing) -> model.Step:
    """A task as it is told."""
    expected: float | None = None
    sentences: list[Say] = []
    for check in task.checks:
        if check.reads_size:
            expected = made.expects(task)
            sentences.append(say("The mandrel reads {size}.", size=MandrelMark(expected)))
        elif check.says.template:
            sentences.append(check.says)
        if check.otherwise.template:
            sentences.append(check.otherwise)
    return model.Step(
        id=task.id,
        stage=task.stage or task.id.split("-")[0],
        phase=task.phase,
        text=task.says,
        count=task.count,
        check=listed(sentences, " ") if sentences else None,
        expected_mm=expected,
        cautions=list(task.cautions),
        makes=list(task.makes),
    )
