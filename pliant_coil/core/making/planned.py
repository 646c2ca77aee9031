"""A ring file planned: its ring solved and made, what is cut of each wire, and every step, each reckoned once."""

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.making.assemble import MadeRing
from pliant_coil.core.making.cutting import Cut, cut_all
from pliant_coil.core.making.markout import Mark, marks
from pliant_coil.core.making.order import work_order
from pliant_coil.core.making.ring import Ring, make_ring
from pliant_coil.core.making.solve import Choice, Solver
from pliant_coil.core.ring_file.document import RingFile
from pliant_coil.core.styles.tasks import Task
from pliant_coil.core.trade.hand import KnownHand


@dataclass(frozen=True)
class Planned:
    """A ring with its solver; `form_mm` is where it is formed, unless the plan says that."""

    ring: Ring
    solver: Solver
    form_mm: float | None = None
    hand: KnownHand | None = None

    @cached_property
    def choices(self) -> list[Choice]:
        """Forms for the aim, the best first."""
        return self.solver.solved(self.ring.aim_mm)

    @cached_property
    def solved(self) -> MadeRing:
        """The ring on the best of them."""
        return self.solver.made(self.choices[0].form)

    @cached_property
    def made(self) -> MadeRing:
        """The ring where it is formed: elsewhere, where the maker's habit starts, or where it was solved."""
        if self.form_mm is not None:
            return self.solver.at(self.form_mm)
        start = self.solver.chosen(self.solved.form.diameter_mm)
        return self.solved if start == self.solved.form.diameter_mm else self.solver.at(start)

    @cached_property
    def cuts(self) -> list[Cut]:
        """Every piece as it is cut."""
        return cut_all(self.made.pieces, self.ring.file.sizing, self.hand)

    @cached_property
    def marks(self) -> list[list[Mark]]:
        """The marks of each piece."""
        return [marks(cut.stretches) for cut in self.cuts]

    @cached_property
    def tasks(self) -> list[Task]:
        """Every step, from the finger to the record."""
        return work_order(self.made, self.cuts, self.marks)


def planned(file: RingFile, *, form_mm: float | None = None, hand: KnownHand | None = None) -> Planned:
    """The ring of a file, planned. Raises `Refusal` for what can't be made."""
    ring = make_ring(file)
    return Planned(ring, Solver(ring), form_mm, hand)
