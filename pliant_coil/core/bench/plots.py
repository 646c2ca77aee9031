"""What a logbook shows when it is drawn: sizes against plans, wire against plans, time by stage, and what cutting close has saved."""

from collections.abc import Iterable, Mapping, Sequence
from statistics import median
from typing import Any
from uuid import UUID

from pliant_coil.core.plan.model import Mm, Text, Told
from pliant_coil.core.styles.tasks import PHASES
from pliant_coil.core.trade.sizes import SizeChange
from pliant_coil.core.words.figures import Length
from pliant_coil.core.words.say import Say, say

CUT_LONG = 0.275
"""Of what is cut long to be safe, thrown away: the middle of 15 to 40 % (common practice, no source)."""


class SizeDot(Told):
    """A finished ring's size against its plan, in diameter."""

    id: UUID
    title: str
    group: str
    off_mm: Mm
    off: Text


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


class StageBar(Told):
    """How long a stage takes: the middle ring, the quickest and the slowest."""

    stage: str
    minutes: float
    least: float
    most: float
    rings: int


class SpoiledBar(Told):
    """At which step rings were spoiled."""

    step: str
    rings: int


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


def plots_told(records: Sequence[tuple[UUID, str, Mapping[str, Any]]]) -> PlotsTold:
    """The plots of these records (job, title, record), the oldest first."""
    finished = [each for each in records if each[2]["state"] == "finished"]
    sized = [each for each in finished if each[2]["size_mm"] is not None and each[2]["planned_size_mm"] is not None]
    scrap, long = _scrap(record for _, _, record in finished)
    return PlotsTold(
        by_band=[_dot(each, each[2]["family"].replace("-", " ")) for each in sized],
        by_mandrel=[_dot(each, each[2]["mandrel"]) for each in sized if each[2]["mandrel"]],
        wire=[dot for each in records if (dot := _wire(*each))],
        stages=_stages([record for _, _, record in finished]),
        spoiled=_spoiled([record for _, _, record in records if record["state"] == "spoiled"]),
        scrap_mm=scrap,
        cut_long_mm=long,
        saved=_saved(scrap, long) if long else None,
    )


def _dot(each: tuple[UUID, str, Mapping[str, Any]], group: str) -> SizeDot:
    job, title, record = each
    off = record["size_mm"] - record["planned_size_mm"]
    return SizeDot(id=job, title=title, group=group, off_mm=off, off=say("{off}", off=SizeChange(off, signed=True)))


def _measured(record: Mapping[str, Any]) -> list[Mapping[str, Any]]:
    return [piece for piece in record["pieces"] if piece["used_mm"] is not None and piece["planned_mm"]]


def _wire(job: UUID, title: str, record: Mapping[str, Any]) -> WireDot | None:
    measured = _measured(record)
    if not measured:
        return None
    planned, used = (sum(piece[name] for piece in measured) for name in ("planned_mm", "used_mm"))
    counts = record["state"] == "finished" and not record.get("left_out") and not any(piece.get("spliced_mm") for piece in measured)
    said = say("{used} of {planned} planned", used=Length(used), planned=Length(planned))
    return WireDot(id=job, title=title, planned_mm=planned, used_mm=used, share=round(used / planned, 4), said=said, counts=counts)


def _stages(records: Sequence[Mapping[str, Any]]) -> list[StageBar]:
    found = []
    for phase in PHASES:
        minutes = [m for record in records if (m := record.get("stage_minutes", {}).get(phase, 0.0))]
        if minutes:
            found.append(StageBar(stage=phase, minutes=median(minutes), least=min(minutes), most=max(minutes), rings=len(minutes)))
    return found


def _spoiled(records: Sequence[Mapping[str, Any]]) -> list[SpoiledBar]:
    steps: dict[str, int] = {}
    for record in records:
        step = record.get("at_step", "")
        steps[step] = steps.get(step, 0) + 1
    return [SpoiledBar(step=step, rings=n) for step, n in sorted(steps.items(), key=lambda each: (-each[1], each[0])) if step]


def _scrap(records: Iterable[Mapping[str, Any]]) -> tuple[float, float]:
    """What was cut and not used, and what cutting long would have thrown away for the same rings."""
    scrap = long = 0.0
    for record in records:
        for piece in _measured(record):
            scrap += max(0.0, piece["cut_mm"] + piece.get("spliced_mm", 0.0) - piece["used_mm"])
            long += piece["used_mm"] * CUT_LONG / (1 - CUT_LONG)
    return scrap, long


def _saved(scrap: float, long: float) -> Say:
    less = "less" if scrap <= long else "more"
    return say(
        f"{{scrap}} were thrown away of what was measured, {{by}} {less} than cutting long to be safe throws away ({{long}}).",
        scrap=Length(scrap),
        by=Length(abs(long - scrap)),
        long=Length(long),
    )
