"""What a logbook shows when it is drawn: sizes against plans, wire against plans, time by stage, and what cutting close has saved."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from statistics import median
from uuid import UUID

from pliant_coil.core.bench.record import Record
from pliant_coil.core.plan.told import Mm, Text, Told
from pliant_coil.core.styles.tasks import PHASES
from pliant_coil.core.trade.sizes import SizeChange
from pliant_coil.core.words.figures import Length
from pliant_coil.core.words.say import Say, say

CUT_LONG = 0.275
"""Of what is cut long to be safe, thrown away: the middle of 15 to 40 % (common practice, no source)."""


@dataclass(kw_only=True, slots=True)
class SizeDot(Told):
    """A finished ring's size against its plan, in diameter."""

    id: UUID
    title: str
    group: str
    off_mm: Mm
    off: Text


@dataclass(kw_only=True, slots=True)
class WireDot(Told):
    """What a ring used of what was planned."""

    id: UUID
    title: str
    planned_mm: Mm
    used_mm: Mm
    share: float
    said: Text
    counts: bool
    """False where it says nothing of the hand: spoiled, spliced, left out."""


@dataclass(kw_only=True, slots=True)
class StageBar(Told):
    """How long a stage takes: the middle ring, the quickest and the slowest."""

    stage: str
    minutes: float
    least: float
    most: float
    rings: int


@dataclass(kw_only=True, slots=True)
class SpoiledBar(Told):
    """At which step rings were spoiled."""

    step: str
    rings: int


@dataclass(kw_only=True, slots=True)
class PlotsTold(Told):
    """What the newest records show; groups by how many rings they have."""

    by_band: list[SizeDot]
    by_mandrel: list[SizeDot]
    wire: list[WireDot]
    stages: list[StageBar]
    spoiled: list[SpoiledBar]
    scrap_mm: Mm
    cut_long_mm: Mm
    saved: Text | None
    """What was thrown away, beside what cutting long throws away; none where no rest was measured."""


Ended = tuple[UUID, str, Record]


def plots_told(records: Sequence[Ended]) -> PlotsTold:
    """The plots of these records (job, title, record), the oldest first."""
    finished = [each for each in records if each[2].state == "finished"]
    scrap, long = _scrap(record for _, _, record in finished)
    return PlotsTold(
        by_band=[dot for each in finished if (dot := _dot(each, each[2].family.replace("-", " ")))],
        by_mandrel=[dot for each in finished if (dot := _dot(each, each[2].mandrel))],
        wire=[used for each in records if (used := _wire(*each))],
        stages=_stages([record for _, _, record in finished]),
        spoiled=_spoiled(record.at_step for _, _, record in records if record.at_step),
        scrap_mm=scrap,
        cut_long_mm=long,
        saved=_saved(scrap, long) if long else None,
    )


def _dot(each: Ended, group: str) -> SizeDot | None:
    job, title, record = each
    off = record.off_mm
    if off is None or not group:
        return None
    return SizeDot(id=job, title=title, group=group, off_mm=off, off=SizeChange(off, signed=True))


def _wire(job: UUID, title: str, record: Record) -> WireDot | None:
    planned, used = record.planned_mm, record.used_mm
    if not planned:
        return None
    said = say("{used} of {planned} planned", used=Length(used), planned=Length(planned))
    share = round(used / planned, 4)
    return WireDot(id=job, title=title, planned_mm=planned, used_mm=used, share=share, said=said, counts=not record.silent)


def _stages(records: Sequence[Record]) -> list[StageBar]:
    found = []
    for phase in PHASES:
        minutes = [m for record in records if (m := record.stage_minutes.get(phase, 0.0))]
        if minutes:
            found.append(StageBar(stage=phase, minutes=median(minutes), least=min(minutes), most=max(minutes), rings=len(minutes)))
    return found


def _spoiled(steps: Iterable[str]) -> list[SpoiledBar]:
    return [SpoiledBar(step=step, rings=n) for step, n in sorted(Counter(steps).items(), key=lambda each: (-each[1], each[0]))]


def _scrap(records: Iterable[Record]) -> tuple[float, float]:
    """What was cut and not used, and what cutting long would have thrown away for the same rings."""
    scrap = long = 0.0
    for wire in (wire for record in records for wire in record.measured):
        if wire.cut_mm is not None and wire.used_mm is not None:
            scrap += max(0.0, wire.cut_mm + wire.spliced_mm - wire.used_mm)
            long += wire.used_mm * CUT_LONG / (1 - CUT_LONG)
    return scrap, long


def _saved(scrap: float, long: float) -> Say:
    less = "less" if scrap <= long else "more"
    return say(
        f"{{scrap}} were thrown away of what was measured, {{by}} {less} than cutting long to be safe throws away ({{long}}).",
        scrap=Length(scrap),
        by=Length(abs(long - scrap)),
        long=Length(long),
    )
