"""The only place that composes a ring: band, head and finish on one form, as it stands after any of its tasks."""

from collections.abc import Iterable, Mapping

from pliant_coil.core.frozen import cached_property, dataclass
from pliant_coil.core.making.ring import Ring
from pliant_coil.core.moves.base import Obstacle
from pliant_coil.core.moves.inside import InsideCircle, largest_circle
from pliant_coil.core.moves.placed import Piece, Placed
from pliant_coil.core.styles.handed_on import Effect, Form, FormedBand, HeadWork, Opening, SizedBy
from pliant_coil.core.styles.stones import PlacedStone
from pliant_coil.core.styles.tasks import PHASES, Phase, Task


@dataclass(frozen=True)
class MadeRing:
    """A ring on one form: its pieces with all their moves, what changes its size, and the circle that a mandrel reads."""

    ring: Ring
    form: Form
    opening: Opening
    band: FormedBand
    work: HeadWork
    pieces: tuple[Piece, ...]

    @property
    def stones(self) -> tuple[PlacedStone, ...]:
        return self.work.stones

    @cached_property
    def drilled(self) -> tuple[PlacedStone, ...]:
        """One of each kind of bead or stone that a wire passes."""
        kinds = {}
        for stone in reversed(self.stones):
            if stone.hole_mm is not None:
                passing = tuple((wire.label, times) for wire, times in stone.passing)
                kinds[stone.what, stone.length_mm, stone.width_mm, stone.height_mm, stone.hole_mm, passing] = stone
        return tuple(reversed(kinds.values()))

    @property
    def locked(self) -> bool:
        """Whether any tail is locked round the band, by its head or by the finish."""
        return any("lock" in placed.id.split(".") for piece in self.pieces for placed in piece.moves)

    @cached_property
    def effects(self) -> tuple[Effect, ...]:
        return (*self.band.effects, *self.work.effects)

    @cached_property
    def _lying_inside(self) -> list[tuple[str, tuple[Obstacle, ...]]]:
        """The moves that put something between finger and band."""
        found = [(placed.id, placed.obstacles) for piece in self.pieces for placed in piece.moves]
        return [(move, obstacles) for move, obstacles in found if obstacles]

    @cached_property
    def obstacles(self) -> tuple[Obstacle, ...]:
        """All that lies between finger and band in the finished ring."""
        return tuple(o for _, obstacles in self._lying_inside for o in obstacles)

    @cached_property
    def inside(self) -> InsideCircle:
        """The circle that the mandrel reads when the ring comes off it."""
        return largest_circle(self.band.inside_mm / 2, self.obstacles)

    @property
    def finished_mm(self) -> float:
        """Inside diameter that comes off the mandrel."""
        return 2 * self.inside.radius_mm

    @cached_property
    def tasks(self) -> tuple[Task, ...]:
        """Every task of band, head and finish, in the order of the phases."""
        band, head = self.ring.band.tasks(self.band, self.opening), self.ring.head.tasks(self.band, self.work)
        # A band that begins at its head can't be made before that is bent.
        found = [*head, *band] if self.opening.root else [*band, *head]
        found += self.ring.finish.tasks(self.band, self.work.tails)
        return tuple(sorted(found, key=lambda task: PHASES.index(task.phase)))

    @cached_property
    def _to_come(self) -> dict[str, set[str]]:
        """For each of its tasks, the moves that are still to be made when it is done."""
        left = {move for task in self.tasks for move in task.makes}
        found: dict[str, set[str]] = {}
        for task in self.tasks:
            left = left.difference(task.makes)
            found.setdefault(task.id, left)
        return found

    def expects(self, task: Task) -> float:
        """Inside diameter [mm] that the mandrel should read at a step: of this ring's own, or of those that are the same for every ring."""
        # Where an overlap sets the size, it is told where that is set; elsewhere the mandrel is read.
        return self.reading_after(task) if task.id in self._to_come and self.band.sized_by is not SizedBy.OVERLAP else self.finished_mm

    def reading_after(self, task: Task) -> float:
        """Inside diameter [mm] that the mandrel should read when this task is done: the ring as it stands then."""
        to_come = self._to_come.get(task.id, set())
        standing = [o for move, obstacles in self._lying_inside if move not in to_come for o in obstacles]
        at = PHASES.index(task.phase)
        later = sum(e.inside_mm for e in self.effects if PHASES.index(Phase(e.phase)) > at)
        return 2 * largest_circle((self.band.inside_mm - later) / 2, standing).radius_mm


def assemble(ring: Ring, form: Form) -> MadeRing:
    """The whole ring on this form. Raises `Refusal` when it can't be made so."""
    opening = ring.head.opening(form, ring.band, ring.wires)
    band = ring.band.form(form, ring.wires, opening)
    work = ring.head.make(form, band, ring.wires, opening)
    finished = ring.finish.lock(band, work)
    reeled = ring.from_reel
    pieces = []
    for piece in (*band.pieces, *work.pieces):
        moves = _composed(piece, band, work.through, (work.onward, finished.onward))
        # Not by `replace`, which takes as long as a bead's whole seat: this is done for every form that is tried.
        pieces.append(Piece(piece.id, piece.role, piece.wire, moves, piece.role in reeled, piece.ends, piece.parts, piece.use))
    return MadeRing(ring, form, opening, band, work.locked(finished.ledger), tuple(pieces))


def _composed(
    piece: Piece,
    band: FormedBand,
    through: Mapping[int, tuple[Placed, ...]],
    onward: Iterable[Mapping[tuple[str, str], tuple[Placed, ...]]],
) -> tuple[Placed, ...]:
    """A piece's moves with the head's put into their slots, and led on from both ends."""
    moves = list(piece.moves)
    for slot in sorted((s for s in band.slots if s.piece == piece.id), key=lambda s: -s.index):
        moves[slot.index : slot.index] = through.get(slot.lane, ())
    for more in onward:
        first, last = more.get((piece.id, "first"), ()), more.get((piece.id, "last"), ())
        moves = [*reversed(first), *moves, *last]
    return tuple(moves)
