"""A maker's old notebook, taken into the logbook: shown first, and nothing kept until it is confirmed."""

from dataclasses import dataclass
from datetime import UTC, datetime, time
from uuid import UUID, uuid5

from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from pliant_coil import __version__
from pliant_coil.core.bench.notebook import Notebook, OldRing, read_notebook
from pliant_coil.core.bench.record import record_from
from pliant_coil.core.words.say import Reader
from pliant_coil.services.rings import UNTITLED
from pliant_coil.services.scope import InWorkshop
from pliant_coil.store import jobs
from pliant_coil.store.models import Job

_NAMES = UUID("2d3c9c1e-5b0b-4d1f-8a55-0f6f2b8b7a41")


@dataclass(frozen=True)
class Shown:
    """A notebook as it was read, and which of its rings the logbook has already."""

    notebook: Notebook
    known: frozenset[int]
    """Their lines."""


class Notebooks(InWorkshop):
    """Old records of one workshop."""

    def show(self, packed: bytes, reader: Reader) -> Shown:
        """What would come in. Raises `Refusal` for what is no table of rings."""
        notebook = read_notebook(packed, reader, datetime.now(UTC).date())
        with self._work() as (session, workshop_id, _):
            names = _named(notebook)
            there = jobs.saved_among(session, workshop_id, names.values())
            return Shown(notebook, frozenset(line for line, name in names.items() if name in there))

    def take_in(self, packed: bytes, reader: Reader) -> int:
        """Take in every line that can be read; one that is there already stays as it is. Returns how many came in."""
        notebook = read_notebook(packed, reader, datetime.now(UTC).date())
        names = _named(notebook)
        while True:
            try:
                with self._work(writes=True) as (session, workshop_id, author):
                    there = jobs.saved_among(session, workshop_id, names.values())
                    fresh = [ring for ring in notebook.rings if ring.line in names and names[ring.line] not in there]
                    for ring in fresh:
                        _keep(session, workshop_id, ring, names[ring.line], author)
                    session.flush()
                    return len(fresh)
            except IntegrityError:
                # The same notebook came in at once from somewhere else: now its lines are there.
                continue


def _named(notebook: Notebook) -> dict[int, UUID]:
    """What each line that can be read is called: the same line of the same notebook is always called the same."""
    seen: dict[str, int] = {}
    found = {}
    for ring in notebook.rings:
        if ring.faults:
            continue
        said = repr((ring.title, ring.ended, ring.size_mm, ring.mandrel, ring.wire, ring.cut_mm, ring.used_mm, ring.minutes, ring.note))
        seen[said] = seen.get(said, 0) + 1
        found[ring.line] = uuid5(_NAMES, f"{seen[said]} {said}")
    return found


def _keep(session: Session, workshop_id: UUID, ring: OldRing, name: UUID, author: UUID | None) -> None:
    ended = datetime.combine(ring.ended, time(12), UTC) if ring.ended else datetime.now(UTC)
    session.add(
        Job(
            workshop_id=workshop_id,
            title=ring.title or UNTITLED,
            sentence=f"From a notebook: {ring.wire}" if ring.wire else "From a notebook",
            file=None,
            predicted={},
            core_version=__version__,
            state=ring.state,
            number=0,
            saved_as=name,
            author_id=author,
            created_at=ended,
            updated_at=ended,
            ended_at=ended,
            record=record_from(ring).model_dump(mode="json"),
        )
    )
