"""What is kept of a ring that has ended: predicted beside what came out. It is stored as JSON; what older records don't have has its default."""

from pydantic import BaseModel, ConfigDict, Field

from pliant_coil.core.bench.events import Ended
from pliant_coil.core.bench.hand import Used
from pliant_coil.core.bench.notebook import OldRing
from pliant_coil.core.bench.progress import Ending, Progress, Visit
from pliant_coil.core.bench.ring_at_bench import RingAtBench
from pliant_coil.core.bench.tails import measured_on_the_way
from pliant_coil.core.making.planned import Planned
from pliant_coil.core.trade.hand import HandKind

Kinds = dict[HandKind, float]


class _Kept(BaseModel):
    model_config = ConfigDict(frozen=True)


class OnTheWay(_Kept):
    """What was made of a piece when its tails were measured before it was done, by kind at plan length, and what that had used [mm]."""

    kinds: Kinds
    used_mm: float


class Wire(_Kept):
    """One piece of wire: what was cut, added, planned and used of it [mm]; None where that isn't known."""

    piece: str
    cut_mm: float | None = None
    spliced_mm: float = 0.0
    planned_mm: float | None = None
    used_mm: float | None = None
    kinds: Kinds = Field(default_factory=dict)
    """Planned, by kind of move."""
    before: OnTheWay | None = None


class Return(_Kept):
    """A finished ring that came back: why, when, what it read, what was wanted, what was done, and with which size it left."""

    why: str = ""
    came: str = ""
    reads_mm: float | None = None
    wanted_mm: float | None = None
    ways: list[str] = Field(default_factory=list)
    left_mm: float | None = None


class Record(_Kept):
    """A ring that has ended. Sizes are inside diameters [mm]; what a record from a notebook can't know is None."""

    state: Ending
    why: str = ""
    aim_mm: float | None = None
    planned_size_mm: float | None = None
    size_mm: float | None = None
    stage_minutes: dict[str, float] = Field(default_factory=dict)
    at_step: str = ""
    """The step at which it was spoiled."""
    minutes: float | None = None
    planned_minutes: float | None = None
    family: str = ""
    mandrel: str = ""
    left_out: str = ""
    """Why it says nothing of its maker's hand."""
    pieces: list[Wire] = Field(default_factory=list)
    visits: list[Return] = Field(default_factory=list)

    @property
    def off_mm(self) -> float | None:
        """How far its size is off its plan."""
        return None if self.size_mm is None or self.planned_size_mm is None else self.size_mm - self.planned_size_mm

    @property
    def measured(self) -> list[Wire]:
        """The pieces whose rest was measured."""
        return [wire for wire in self.pieces if wire.used_mm is not None]

    @property
    def used_mm(self) -> float:
        """Wire of the measured pieces that it used."""
        return sum(wire.used_mm or 0.0 for wire in self.measured)

    @property
    def planned_mm(self) -> float | None:
        """Wire that was planned for the measured pieces; None where a piece had no plan."""
        planned = [wire.planned_mm for wire in self.measured]
        return None if None in planned else sum(mm or 0.0 for mm in planned)

    @property
    def silent(self) -> str:
        """Why it says nothing of the hand that made it; empty where it does."""
        if self.left_out:
            return self.left_out
        if any(wire.spliced_mm for wire in self.measured):
            # What the start of a new piece took says nothing of the hand.
            return "spliced"
        if self.state != "finished":
            return self.state
        return "" if self.measured else "nothing was measured"

    def as_used(self) -> Used:
        """The ring as the hand sees it."""
        lengths: Kinds = {}
        for wire in self.measured:
            for kind, length in wire.kinds.items():
                lengths[kind] = lengths.get(kind, 0.0) + length
        on_the_way = next((wire.before for wire in self.measured if wire.before), None)
        before = (on_the_way.kinds, on_the_way.used_mm) if on_the_way else None
        return Used(lengths, self.used_mm, left_out=self.silent, before=before)


def record_of(as_planned: Planned, at_bench: RingAtBench, progress: Progress, ended: Ended, planned_minutes: float) -> Record:
    """The record of a ring that has ended. Its wires were cut as they were planned first, and made as it is formed by now."""
    read = [reading.value_mm for reading in progress.readings if reading.what == "size"]
    return Record(
        state=ended.kind,
        why=ended.why,
        aim_mm=at_bench.ring.aim_mm,
        planned_size_mm=at_bench.planned.finished_mm,
        size_mm=ended.size_mm if ended.size_mm is not None else (read[-1] if read else None),
        stage_minutes=_stage_minutes(at_bench, progress),
        at_step=progress.task if ended.kind == "spoiled" else "",
        minutes=round(sum(progress.seconds.values()) / 60, 1),
        planned_minutes=planned_minutes,
        family=at_bench.ring.band.style,
        mandrel=ended.mandrel.strip(),
        left_out=progress.left_out,
        pieces=_wires(as_planned, at_bench, progress, ended),
        visits=[_return(visit) for visit in progress.visits],
    )


def record_from(ring: OldRing) -> Record:
    """The record of a ring from an old notebook: it had no plan, so it says nothing of a hand."""
    measured = ring.cut_mm is not None or ring.used_mm is not None
    return Record(
        state=ring.state,
        why=ring.note,
        size_mm=ring.size_mm,
        minutes=ring.minutes,
        mandrel=ring.mandrel,
        left_out="from a notebook",
        pieces=[Wire(piece="wire", cut_mm=ring.cut_mm, used_mm=ring.used_mm)] if measured else [],
    )


def _wires(as_planned: Planned, at_bench: RingAtBench, progress: Progress, ended: Ended) -> list[Wire]:
    on_the_way = measured_on_the_way(at_bench, progress)
    made = {piece.id: piece for piece in at_bench.planned.pieces}
    found = []
    for cut in as_planned.cuts:
        piece = made[cut.piece.id]
        was_cut = progress.cut.get(piece.id, cut.cut_mm)
        added, left = progress.spliced.get(piece.id, 0.0), ended.left_mm.get(piece.id)
        used = None if left is None else was_cut + added - left
        seen = on_the_way.get(piece.id)
        found.append(
            Wire(
                piece=piece.id,
                cut_mm=was_cut,
                spliced_mm=added,
                planned_mm=piece.net_mm,
                used_mm=used,
                kinds=piece.by_kind,
                before=OnTheWay(kinds=seen[0], used_mm=was_cut - seen[1]) if seen and used is not None else None,
            )
        )
    return found


def _stage_minutes(at_bench: RingAtBench, progress: Progress) -> dict[str, float]:
    seconds: dict[str, float] = {}
    for task in at_bench.tasks:
        seconds[task.phase] = seconds.get(task.phase, 0.0) + progress.seconds.get(task.id, 0.0)
    return {str(phase): round(s / 60, 2) for phase, s in seconds.items() if s}


def _return(visit: Visit) -> Return:
    came, left = visit.came, visit.left
    return Return(
        why=came.why,
        came=came.at.isoformat(),
        reads_mm=came.reads_mm,
        wanted_mm=came.wanted_mm,
        ways=[mended.way for mended in visit.mended],
        left_mm=left.size_mm if left else None,
    )
