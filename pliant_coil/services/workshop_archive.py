"""A whole workshop as open files, out as one zip archive: rings, records with their events and photos, mandrels, weave programs."""

import json
import zipfile
from typing import IO, Any

from sqlalchemy.orm import Session

from pliant_coil.core.bench.record import Record
from pliant_coil.services.scope import Actor, at_work
from pliant_coil.services.tables import csv_text
from pliant_coil.store import batches, jobs, mandrels, photos, weave_programs, workshops
from pliant_coil.store import rings as store
from pliant_coil.store.database import Sessions
from pliant_coil.store.models import Batch, Job

RINGS, BATCHES, RECORDS, PHOTOS = ".ring.json", ".batch.json", ".record.json", ".photo.jpg"
"""How the files of each kind end."""
MANDRELS, PROGRAMS = "mandrels.json", "weave-programs.json"
_TABLE = "rings.csv"


def pack(sessions: Sessions, actor: Actor, target: IO[bytes]) -> str:
    """Write the workshop into `target`, file by file; returns its name in addresses."""
    with at_work(sessions, actor) as (session, workshop_id, _), zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as files:
        lines = []
        for ring, document in store.all_newest(session, workshop_id):
            name = f"rings/{ring.id}{RINGS}"
            _write(files, name, document)
            around = round(ring.inside_circumference_mm, 3)
            lines.append([name, ring.title, ring.sentence, around, ring.revision, ring.updated_at.isoformat()])
        files.writestr(_TABLE, csv_text(("file", "title", "sentence", "inside_circumference_mm", "revision", "updated_at"), lines))
        for batch in batches.everything(session, workshop_id):
            _write(files, f"batches/{batch.id}{BATCHES}", _batch(batch))
        for job in jobs.everything(session, workshop_id):
            kept = photos.of_job(session, workshop_id, job.id)
            taken = [{"id": str(photo.id), "task": photo.task, "created_at": photo.created_at.isoformat()} for photo in kept]
            _write(files, f"records/{job.id}{RECORDS}", {**_record(session, job), "photos": taken})
            for photo in kept:
                picture = photos.picture(session, workshop_id, photo.id)
                # A JPEG is as small as it gets.
                files.writestr(f"photos/{photo.id}{PHOTOS}", picture or b"", zipfile.ZIP_STORED)
        own = [{"name": m.name, "kind": m.kind, "marks": m.marks} for m in mandrels.kept(session, workshop_id)]
        _write(files, MANDRELS, own)
        programs = [{"program": program, "base_wires": wires} for program, wires in weave_programs.kept(session, workshop_id)]
        _write(files, PROGRAMS, programs)
        return workshops.named(session, workshop_id).slug


def _write(files: zipfile.ZipFile, name: str, document: Any) -> None:
    files.writestr(name, json.dumps(document, ensure_ascii=False, indent=2))


def _batch(batch: Batch) -> dict[str, Any]:
    return {
        "id": str(batch.id),
        "title": batch.title,
        "kind": batch.kind,
        "file": batch.file,
        "created_at": batch.created_at.isoformat(),
    }


def _record(session: Session, job: Job) -> dict[str, Any]:
    return {
        "id": str(job.id),
        "title": job.title,
        "sentence": job.sentence,
        "state": job.state,
        "for_whom": job.for_whom,
        "batch": str(job.batch_id) if job.batch_id else None,
        "created_at": job.created_at.isoformat(),
        "updated_at": job.updated_at.isoformat(),
        "ended_at": job.ended_at.isoformat() if job.ended_at else None,
        "file": job.file,
        "record": None if job.record is None else Record.model_validate(job.record).model_dump(mode="json"),
        "events": [event.event for event in jobs.events(session, job)],
    }
