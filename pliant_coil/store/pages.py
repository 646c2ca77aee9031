"""Pages of long lists: from the last one that was seen on, and a count that stops where nobody counts on."""

from typing import Any, TypeVar
from uuid import UUID

from sqlalchemy import ColumnElement, func, select, tuple_
from sqlalchemy.orm import Session

from pliant_coil.store.models import Job, Ring

MOST_COUNTED = 1000
"""Beyond it a list says that there are more: counting a hundred thousand takes longer than finding twelve."""
Listed = TypeVar("Listed", Ring, Job)


def page_of(
    session: Session, kind: type[Listed], conditions: list[ColumnElement[bool]], limit: int, after: UUID | None
) -> tuple[list[Listed], int]:
    """Rows of a kind that meet the conditions, the last changed first, from the one after `after` on; and how many, up to one more than
    `MOST_COUNTED`."""
    table: Any = kind
    counted = select(table.id).where(*conditions).limit(MOST_COUNTED + 1).subquery()
    total = session.scalar(select(func.count()).select_from(counted)) or 0
    query = select(kind).where(*conditions).order_by(table.updated_at.desc(), table.id.desc()).limit(limit)
    if after is not None:
        last = select(table.updated_at, table.id).where(conditions[0], table.id == after).subquery()
        query = query.where(tuple_(table.updated_at, table.id) < select(last.c.updated_at, last.c.id).scalar_subquery())
    return list(session.scalars(query)), total
