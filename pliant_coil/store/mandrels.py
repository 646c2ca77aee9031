"""Queries about a workshop's own mandrels. None commits."""

from typing import Any
from uuid import UUID

from sqlalchemy import delete, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from pliant_coil.store.models import Mandrel


def kept(session: Session, workshop_id: UUID) -> list[Mandrel]:
    """All of them, by name."""
    return list(session.scalars(select(Mandrel).where(Mandrel.workshop_id == workshop_id).order_by(Mandrel.name)))


def keep(session: Session, workshop_id: UUID, name: str, kind: str, marks: list[dict[str, Any]]) -> None:
    """A mandrel under its name; measured again, the new measures stand in the place of the old ones."""
    row = {"name": name, "kind": kind, "marks": marks}
    fresh = insert(Mandrel).values(workshop_id=workshop_id, **row)
    session.execute(fresh.on_conflict_do_update(index_elements=["workshop_id", "name"], set_=row))


def forget(session: Session, workshop_id: UUID, mandrel_id: UUID) -> bool:
    """Forget one; whether it was there."""
    query = delete(Mandrel).where(Mandrel.workshop_id == workshop_id, Mandrel.id == mandrel_id).returning(Mandrel.id)
    return session.execute(query).one_or_none() is not None
