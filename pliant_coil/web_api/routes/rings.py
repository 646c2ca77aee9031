"""Saved rings."""

import re
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Depends, Header, Path, Query, Request, Response
from fastapi.responses import JSONResponse

from pliant_coil.core.ring_file.document import RingFile, Text
from pliant_coil.services.rings import Conflict, KeptRing, Rings
from pliant_coil.web_api.actors import WHO, TheActor
from pliant_coil.web_api.problems import MISSING, REFUSED
from pliant_coil.web_api.readers import Written
from pliant_coil.web_api.schemas import RevisionTold, RingConflict, RingList, RingListed, RingSave, RingTold

router = APIRouter(prefix="/rings", tags=["rings"], responses=WHO)
# A ring file goes out as it was saved: without the fields that were left out.


async def _rings(request: Request, actor: TheActor) -> Rings:
    return Rings(request.app.state.sessions, actor)


TheRings = Annotated[Rings, Depends(_rings)]
Key = Annotated[UUID | None, Header(description="What the sender calls this request: sent again, it is done once")]
Number = Annotated[int, Path(ge=1, le=2_000_000_000)]


def _told(kept: KeptRing) -> RingTold:
    return RingTold.model_validate(kept)


@router.get("", responses=REFUSED)
def list_rings(
    rings: TheRings,
    q: Annotated[Text, Query(max_length=200, description="Words in title, styles or sentence")] = "",
    limit: Annotated[int, Query(ge=1, le=100)] = 20,
    after: Annotated[UUID | None, Query(description="The last ring of the page before")] = None,
    deleted: Annotated[bool, Query(description="Those that were deleted, to be taken back")] = False,
) -> RingList:
    """Saved rings, the last changed first."""
    page = rings.page(q, limit, after, deleted=deleted)
    return RingList(rings=[RingListed.model_validate(ring) for ring in page.rings], total=page.total)


@router.post("", response_model_exclude_none=True, status_code=201, responses=REFUSED)
def create(file: RingFile, rings: TheRings, idempotency_key: Key = None) -> RingTold:
    """Save a new ring; sent again under the same key, it is saved once."""
    return _told(rings.create(file, idempotency_key))


@router.get("/{ring_id}", response_model_exclude_none=True, responses=MISSING | REFUSED)
def read(ring_id: UUID, rings: TheRings) -> RingTold:
    """A saved ring."""
    return _told(rings.read(ring_id))


@router.put(
    "/{ring_id}", response_model_exclude_none=True, response_model=RingTold, responses=MISSING | REFUSED | {409: {"model": RingConflict}}
)
def save(ring_id: UUID, body: RingSave, rings: TheRings, idempotency_key: Key = None) -> RingTold | JSONResponse:
    """Save a new revision. 409 when somebody saved meanwhile; then nothing is overwritten."""
    try:
        return _told(rings.save(ring_id, body.file, body.base_revision, idempotency_key))
    except Conflict as conflict:
        return _conflict(
            conflict, "This ring was saved from somewhere else meanwhile. Nothing was overwritten: take theirs, or keep yours as a copy."
        )


def _conflict(conflict: Conflict, reason: str) -> JSONResponse:
    told = RingConflict(reason=reason, current=_told(conflict.current))
    return JSONResponse(told.model_dump(mode="json", exclude_none=True), 409)


@router.delete("/{ring_id}", status_code=204, response_model=None, responses=MISSING | REFUSED | {409: {"model": RingConflict}})
def delete(ring_id: UUID, rings: TheRings, base_revision: Annotated[int | None, Query(ge=1, le=2_000_000_000)] = None) -> Response | None:
    """Put a ring away; it can be taken out again. 409 when it isn't the revision that was looked at any more."""
    try:
        rings.delete(ring_id, base_revision)
    except Conflict as conflict:
        return _conflict(conflict, "This ring was saved from somewhere else meanwhile: look at it again before you delete it.")
    return None


@router.post("/{ring_id}/restore", response_model_exclude_none=True, responses=MISSING | REFUSED)
def restore(ring_id: UUID, rings: TheRings) -> RingTold:
    """Undo a deletion."""
    return _told(rings.restore(ring_id))


@router.post("/{ring_id}/duplicate", response_model_exclude_none=True, status_code=201, responses=MISSING | REFUSED)
def duplicate(ring_id: UUID, rings: TheRings, idempotency_key: Key = None) -> RingTold:
    """A copy of a ring; sent again under the same key, one copy."""
    return _told(rings.duplicate(ring_id, idempotency_key))


@router.get("/{ring_id}/revisions", responses=MISSING | REFUSED)
def revisions(ring_id: UUID, rings: TheRings) -> list[RevisionTold]:
    """Every revision, the newest first."""
    return [RevisionTold(number=number, created_at=at, saved_by=by) for number, at, by in rings.revisions(ring_id)]


@router.get("/{ring_id}/revisions/{number}", response_model_exclude_none=True, responses=MISSING | REFUSED)
def read_revision(ring_id: UUID, number: Number, rings: TheRings) -> RingTold:
    """A ring as it was saved then."""
    return _told(rings.read(ring_id, number))


@router.get("/{ring_id}/file", response_model=RingFile, responses=MISSING | REFUSED)
def ring_file(ring_id: UUID, rings: TheRings) -> Response:
    """The ring file, to keep or to send."""
    file = rings.read(ring_id).file
    name = re.sub(r"[^a-z0-9]+", "-", file.title.lower()).strip("-") or "ring"
    headers = {"content-disposition": f'attachment; filename="{name[:60]}.ring.json"'}
    return Written(file.model_dump_json(indent=2, exclude_none=True), headers=headers)
