"""What is told of rings that have ended: a record in words, written for its reader like the plan."""

from dataclasses import dataclass

from pliant_coil.core.bench.progress import Ending
from pliant_coil.core.bench.record import Record, Return
from pliant_coil.core.making.resizing import WAYS
from pliant_coil.core.plan.told import Mm, Text, Told
from pliant_coil.core.trade.sizes import Size, SizeChange
from pliant_coil.core.words.figures import Length
from pliant_coil.core.words.say import Say, say


@dataclass(kw_only=True, slots=True)
class RecordTold(Told):
    """What came of a ring, beside what was planned."""

    state: Ending
    why: str
    off_mm: Mm | None
    """How far its size is off its plan, in diameter."""
    size: Text | None
    off: Text | None
    wire: Text | None
    """What was used of what was planned, where the rest was measured."""
    minutes: float | None
    planned_minutes: float | None
    """None for a record from a notebook, which has no plan."""
    visits: list[Text]
    """Why it came back, each time, and what was done."""


def record_told(record: Record) -> RecordTold:
    """A record in words. It holds what was written when the ring ended."""
    size, off, planned = record.size_mm, record.off_mm, record.planned_mm
    used = Length(record.used_mm)
    wire = used if planned is None else say("{used} of {planned} planned", used=used, planned=Length(planned))
    return RecordTold(
        state=record.state,
        why=record.why,
        off_mm=off,
        size=None if size is None else Size(size),
        off=None if off is None else SizeChange(off, signed=True),
        wire=wire if record.measured else None,
        minutes=record.minutes,
        planned_minutes=record.planned_minutes,
        visits=[_visit_line(visit) for visit in record.visits],
    )


def _visit_line(visit: Return) -> Say:
    text = say("Back on the bench: {why}.", why=visit.why) if visit.why else Say("Back on the bench.")
    if visit.reads_mm is not None:
        text += say("It read {size}.", size=Size(visit.reads_mm))
    if visit.ways:
        text += say("Done: {ways}.", ways=", ".join(WAYS.get(way, way) for way in visit.ways))
    return text + say("It left with {size}.", size=Size(visit.left_mm)) if visit.left_mm is not None else text
