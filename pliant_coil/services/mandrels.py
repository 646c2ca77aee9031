"""A workshop's own mandrels, measured at their marks."""

from collections.abc import Sequence
from dataclasses import dataclass
from uuid import UUID

from pliant_coil.core.trade.own_mandrel import MandrelKind, check_mark
from pliant_coil.core.trade.sizes import read_size
from pliant_coil.core.words.refusal import refuse
from pliant_coil.services.scope import InWorkshop, NotFound
from pliant_coil.store import mandrels as store


@dataclass(frozen=True)
class MeasuredMark:
    """A mark as it is typed, the inside diameter that it names, and what was measured there [mm]."""

    mark: str
    named_mm: float
    measured_mm: float


@dataclass(frozen=True)
class KnownMandrel:
    """A mandrel with its marks."""

    id: UUID
    name: str
    kind: MandrelKind
    marks: list[MeasuredMark]


class Mandrels(InWorkshop):
    """The mandrels of one workshop."""

    def all(self) -> list[KnownMandrel]:
        """Every mandrel, by name."""
        with self._work() as (session, workshop_id, _):
            found = store.kept(session, workshop_id)
        return [KnownMandrel(each.id, each.name, each.kind, [MeasuredMark(**mark) for mark in each.marks]) for each in found]

    def keep(self, name: str, kind: MandrelKind, marks: Sequence[tuple[str, float]]) -> None:
        """Keep a mandrel, or measure it again under its name. Raises `Refusal` naming the mark that can't be."""
        plain = " ".join(name.split())
        if not plain:
            refuse("name", "a mandrel needs a name", "as you call it: the grooved one")
        if not marks:
            refuse("marks", "no mark is measured", "two or three marks, far apart, each with what a caliper reads there")
        read = []
        for n, (mark, measured_mm) in enumerate(marks):
            named_mm = read_size(mark, f"marks.{n}.mark").inside_diameter_mm
            check_mark(n, named_mm, measured_mm)
            read.append({"mark": mark, "named_mm": named_mm, "measured_mm": measured_mm})
        with self._work(writes=True) as (session, workshop_id, _):
            store.keep(session, workshop_id, plain, kind, read)

    def forget(self, mandrel_id: UUID) -> None:
        """Forget a mandrel."""
        with self._work(writes=True) as (session, workshop_id, _):
            if not store.forget(session, workshop_id, mandrel_id):
                raise NotFound("there is no such mandrel")
