"""Photos of rings at the bench: looked at before they are kept, and kept as this server encodes them."""

import hashlib
import io
import warnings
from dataclasses import dataclass
from uuid import UUID

from pliant_coil.core.words.refusal import refuse
from pliant_coil.services.jobs import job_found
from pliant_coil.services.scope import Actor, InWorkshop, NotFound, check_same, digest_of, may_write
from pliant_coil.store import jobs, photos
from pliant_coil.store.database import Sessions
from pliant_coil.store.models import Photo

LARGEST_SENT = 20_000_000
"""Bytes of a photo as it is sent."""
MOST_OF_A_RING = 24
_LONGEST_SIDE = 1600
_QUALITY = 82
_MOST_PIXELS = {"JPEG": 25_000_000, "PNG": 36_000_000, "WEBP": 36_000_000}
"""As it is decoded, at up to four bytes a point: about 150 MB, and one picture at a time (`web_api/heavy.py`)."""
_KINDS = ("JPEG", "PNG", "WEBP")


@dataclass(frozen=True)
class Picture:
    """A picture as it is kept: a JPEG without a word about where and with what it was taken."""

    jpeg: bytes
    width: int
    height: int


def encoded_anew(sent: bytes) -> Picture:
    """What is seen in a picture that was sent, and nothing else that may be in its file. Raises `Refusal` for what is no picture.

    Upright as it was held, its longer side 1600 pixels at most.
    """
    # A picture's reader is heavy, and few requests bring one.
    from PIL import Image, ImageOps

    accepted = "a photo as JPEG, PNG or WebP"
    if len(sent) > LARGEST_SENT:
        refuse("photo", "the file is too large", f"up to {LARGEST_SENT // 1_000_000} MB")
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error")
            image = Image.open(io.BytesIO(sent), formats=_KINDS)
        # A JPEG is read at a half, a quarter or an eighth of its size, whatever it has; the others are whole before they are smaller.
        image.draft("RGB", (2 * _LONGEST_SIDE, 2 * _LONGEST_SIDE))
        most = _MOST_PIXELS[image.format or ""]
        if image.width * image.height > most:
            refuse("photo", "the picture has too many points", f"up to {most // 1_000_000} megapixels, or a JPEG")
        # Smaller first: turning it round and changing its colours take as much again as what they work on.
        image.thumbnail((_LONGEST_SIDE, _LONGEST_SIDE))
        upright = ImageOps.exif_transpose(image).convert("RGB")
    except (OSError, ValueError, SyntaxError, Warning, Image.DecompressionBombError):
        refuse("photo", "that can't be read as a picture", accepted)
    kept = io.BytesIO()
    upright.save(kept, "JPEG", quality=_QUALITY, optimize=True)
    return Picture(kept.getvalue(), *upright.size)


class Photos(InWorkshop):
    """The photos of one workshop's rings."""

    def __init__(self, sessions: Sessions, actor: Actor) -> None:
        super().__init__(sessions, actor)
        self._actor = actor

    def add(self, job_id: UUID, photo_id: UUID, task: str, sent: bytes) -> Photo:
        """Keep a photo under its sender's name for it, once. Raises `Refusal` for what is no picture, or one too many."""
        may_write(self._actor)
        picture, digest = encoded_anew(sent), hashlib.sha256(sent).digest()
        with self._work(writes=True) as (session, workshop_id, author):
            job = job_found(jobs.find(session, workshop_id, job_id, lock=True))
            known = photos.find(session, workshop_id, photo_id)
            if known is not None:
                # Also under another ring's address: a name is one photo's.
                check_same(known.sent_digest, digest)
                check_same(digest_of(known.job_id), digest_of(job_id))
                return known
            if len(photos.of_job(session, workshop_id, job_id)) >= MOST_OF_A_RING:
                refuse("photo", "this ring has its share of photos", f"up to {MOST_OF_A_RING}: delete one first")
            photo = Photo(
                id=photo_id,
                workshop_id=workshop_id,
                job_id=job_id,
                task=task,
                width=picture.width,
                height=picture.height,
                jpeg=picture.jpeg,
                author_id=author,
                sent_digest=digest,
            )
            session.add(photo)
            session.flush()
            session.refresh(photo, ["created_at"])
            jobs.changed(job)
            return photo

    def of_job(self, job_id: UUID) -> list[Photo]:
        """A ring's photos, the first taken first."""
        with self._work() as (session, workshop_id, _):
            return photos.of_job(session, workshop_id, job_found(jobs.find(session, workshop_id, job_id)).id)

    def picture(self, photo_id: UUID) -> bytes:
        """A photo's JPEG."""
        with self._work() as (session, workshop_id, _):
            found = photos.picture(session, workshop_id, photo_id)
        if found is None:
            raise NotFound("there is no such photo")
        return found

    def delete(self, photo_id: UUID, *, deleted: bool = True) -> None:
        """Delete a photo, or take it back."""
        with self._work(writes=True) as (session, workshop_id, _):
            photo = photos.find(session, workshop_id, photo_id)
            if photo is None:
                raise NotFound("there is no such photo")
            photos.delete(session, photo, deleted=deleted)
            jobs.changed(job_found(jobs.find(session, workshop_id, photo.job_id, lock=True)))
