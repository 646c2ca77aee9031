"""Queries about a workshop's own weave programs."""

from uuid import UUID

from sqlalchemy import delete, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from pliant_coil.store.models import WeaveProgram


def kept(session: Session, workshop_id: UUID) -> list[tuple[str, int]]:
    """Programs with their number of base wires, the oldest first."""
    query = select(WeaveProgram).where(WeaveProgram.workshop_id == workshop_id).order_by(WeaveProgram.created_at, WeaveProgram.program)
    return [(p.program, p.base_wires) for p in session.scalars(query)]


def keep(session: Session, workshop_id: UUID, program: str, base_wires: int) -> None:
    """Keep a program; one that is kept already stays as it is."""
    session.execute(insert(WeaveProgram).values(workshop_id=workshop_id, program=program, base_wires=base_wires).on_conflict_do_nothing())


def forget(session: Session, workshop_id: UUID, program: str, base_wires: int) -> None:
    """Forget a program; none is no error."""
    mine = (WeaveProgram.workshop_id == workshop_id, WeaveProgram.program == program, WeaveProgram.base_wires == base_wires)
    session.execute(delete(WeaveProgram).where(*mine))
