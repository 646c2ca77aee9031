"""Pages of long lists: from the last one that was seen on, and a count that stops where nobody counts on."""

import re
from collections.abc import Sequence
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


def page_with(
    session: Session, kind: type[Listed], looked_for: Any, words: Sequence[str], which: bool | str, limit: int, after: UUID | None
) -> tuple[list[Listed], int]:
    """Rows of a kind in which all `words` stand, found by a function of the tables' owner: `rings_with`, `jobs_with`, whose second argument
    `which` is. Only the workshop that the transaction is in is looked through."""
    table: Any = kind
    patterns = [f"%{_literal(word.lower())}%" for word in words]
    total = session.scalar(select(func.count()).select_from(looked_for(patterns, which, None, None, MOST_COUNTED + 1))) or 0
    last = session.execute(select(table.updated_at, table.id).where(table.id == after)).one_or_none() if after else (None, None)
    if last is None:
        return [], total
    found = select(looked_for(patterns, which, *last, limit))
    return list(session.scalars(select(kind).where(table.id.in_(found)).order_by(table.updated_at.desc(), table.id.desc()))), total


def _literal(word: str) -> str:
    """A word in which nothing stands for anything else."""
    return re.sub(r"([\\%_])", r"\\\1", word)
