"""Photos of rings at the bench."""

from datetime import datetime
from functools import partial
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Depends, Header, Query, Request, Response
from pydantic import BaseModel, ConfigDict

from pliant_coil.core.ring_file.document import Text
from pliant_coil.services.photos import Photos
from pliant_coil.web_api.actors import WHO, TheActor
from pliant_coil.web_api.files import sent_as
from pliant_coil.web_api.heavy import ThePhotoQueue
from pliant_coil.web_api.problems import BUSY, MISSING, REFUSED

router = APIRouter(tags=["bench"], responses=WHO)
_JPEG: dict[int | str, dict[str, object]] = {200: {"content": {"image/jpeg": {}}}}
# Whatever it is taken for, nothing in it runs.
_AS_A_PICTURE = {"cache-control": "private, max-age=31536000, immutable", "content-security-policy": "default-src 'none'; sandbox"}


class PhotoTold(BaseModel):
    """A photo of a ring, and the step at which it was taken."""

    model_config = ConfigDict(from_attributes=True)

    id: UUID
    task: str
    width: int
    height: int
    created_at: datetime


async def _photos(request: Request, actor: TheActor) -> Photos:
    return Photos(request.app.state.sessions, actor)


ThePhotos = Annotated[Photos, Depends(_photos)]


@router.get("/jobs/{job_id}/photos", responses=MISSING)
def list_photos(job_id: UUID, photos: ThePhotos) -> list[PhotoTold]:
    """A ring's photos, the first taken first."""
    return [PhotoTold.model_validate(photo) for photo in photos.of_job(job_id)]


@router.post(
    "/jobs/{job_id}/photos", status_code=201, responses=MISSING | REFUSED | BUSY, openapi_extra=sent_as("application/octet-stream")
)
async def add(
    job_id: UUID,
    photos: ThePhotos,
    queue: ThePhotoQueue,
    request: Request,
    idempotency_key: Annotated[UUID, Header(description="What its sender calls it: sent again, it is kept once")],
    task: Annotated[Text, Query(max_length=80, description="The step at which it was taken")] = "",
) -> PhotoTold:
    """Keep a photo: JPEG, PNG or WebP, encoded anew and without what its camera wrote into it."""
    sent = await request.body()
    return PhotoTold.model_validate(await queue.run(partial(photos.add, job_id, idempotency_key, task, sent)))


@router.get("/photos/{photo_id}", response_class=Response, responses=MISSING | _JPEG)
def picture(photo_id: UUID, photos: ThePhotos) -> Response:
    """The picture."""
    return Response(photos.picture(photo_id), media_type="image/jpeg", headers=_AS_A_PICTURE)


@router.delete("/photos/{photo_id}", status_code=204, responses=MISSING)
def delete(photo_id: UUID, photos: ThePhotos) -> None:
    """Delete a photo; it can be taken back."""
    photos.delete(photo_id)


@router.post("/photos/{photo_id}/restore", status_code=204, responses=MISSING)
def restore(photo_id: UUID, photos: ThePhotos) -> None:
    """Take a deleted photo back."""
    photos.delete(photo_id, deleted=False)
