"""A whole workshop as open files: out as one archive, and back into this workshop or another."""

import io
import json
import zipfile
from dataclasses import dataclass

from pliant_coil.core.ring_file.document import read_ring
from pliant_coil.core.words.refusal import Refusal, refuse
from pliant_coil.services.rings import columns_of, document_of
from pliant_coil.services.scope import Actor, at_work
from pliant_coil.services.tables import csv_text
from pliant_coil.store import rings as store
from pliant_coil.store import workshops
from pliant_coil.store.database import Sessions

LARGEST_ARCHIVE = 64_000_000
"""Bytes, unpacked."""
_RINGS, _TABLE = "rings/", "rings.csv"


@dataclass(frozen=True)
class Imported:
    """What came out of an archive: how many rings were added, and which files weren't, with the reason."""

    rings: int
    refused: list[tuple[str, str]]


def archive(sessions: Sessions, actor: Actor) -> tuple[str, bytes]:
    """The workshop's name in addresses, and every ring that isn't deleted as a ring file with a table of them: a zip archive."""
    packed, lines = io.BytesIO(), []
    with at_work(sessions, actor) as (session, workshop_id, _), zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as files:
        for ring, document in store.all_newest(session, workshop_id):
            name = f"{_RINGS}{ring.id}.ring.json"
            files.writestr(name, json.dumps(document, ensure_ascii=False, indent=2))
            around = round(ring.inside_circumference_mm, 3)
            lines.append([name, ring.title, ring.sentence, around, ring.revision, ring.updated_at.isoformat()])
        files.writestr(_TABLE, csv_text(("file", "title", "sentence", "inside_circumference_mm", "revision", "updated_at"), lines))
        slug = workshops.named(session, workshop_id).slug
    return slug, packed.getvalue()


def unpack(sessions: Sessions, actor: Actor, packed: bytes) -> Imported:
    """Add every ring of an archive to a workshop: all that can be read in one transaction, what can't is named. Raises `Refusal`."""
    try:
        files = zipfile.ZipFile(io.BytesIO(packed))
    except zipfile.BadZipFile:
        refuse("file", "this isn't an archive of a workshop", "a zip file that Export wrote")
    if sum(entry.file_size for entry in files.infolist()) > LARGEST_ARCHIVE:
        refuse("file", "that is more than a workshop's archive holds", f"up to {LARGEST_ARCHIVE // 1_000_000} MB")
    names = [name for name in files.namelist() if name.endswith(".ring.json")]
    if not names:
        refuse("file", "there is no ring file in it", "a zip file that Export wrote")
    added, refused = 0, []
    with at_work(sessions, actor, writes=True) as (session, workshop_id, author):
        # The last one of the table was changed first: in that order they are listed again.
        for name in reversed(names):
            try:
                file = read_ring(json.loads(files.read(name).decode()))
                store.add(session, workshop_id, columns_of(file), document_of(file), author=author)
                added += 1
            except Refusal as refusal:
                refused.append((name.removeprefix(_RINGS), str(refusal)))
            except (ValueError, zipfile.BadZipFile):
                refused.append((name.removeprefix(_RINGS), "it can't be read"))
    return Imported(added, refused)
