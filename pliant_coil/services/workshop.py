"""The workshop itself: setting one up, and whether its record book answers."""

from collections.abc import Callable
from importlib import resources

from sqlalchemy import Engine
from sqlalchemy.exc import SQLAlchemyError

from pliant_coil.core.ring_file.document import read_ring_text
from pliant_coil.services.demo_log import demo_log
from pliant_coil.services.rings import columns_of, document_of
from pliant_coil.store import rings, workshops
from pliant_coil.store.database import Sessions, fitness, migrate, sessions_of

DEMO_SLUG = "fernhill-bench"
DEMO_NAME = "Fernhill Bench"


def seed_demo(sessions: Sessions) -> bool:
    """Set up the demo workshop with its rings, once and as a whole; whether it was done now."""
    with sessions.begin() as session:
        workshop, made = workshops.ensure(session, DEMO_SLUG, DEMO_NAME)
        for entry in sorted(resources.files("pliant_coil.demo").iterdir(), key=lambda e: e.name, reverse=True):
            if made and entry.name.endswith(".ring.json"):
                file = read_ring_text(entry.read_text("utf-8"))
                rings.add(session, workshop.id, columns_of(file), document_of(file))
        if made:
            demo_log(session, workshop.id)
        return made


def make_ready(engine: Engine, before_migrating: Callable[[], None] = lambda: None) -> bool:
    """Bring a database's tables up to date and put the demo into an empty one; whether that was done now. Raises `Unfit`."""
    if not fitness(engine):
        before_migrating()
        migrate(engine)
    return seed_demo(sessions_of(engine))


def can_keep(sessions: Sessions) -> bool:
    """Whether something can be written into the record book right now."""
    try:
        with sessions.begin() as session:
            workshops.can_write(session)
    except SQLAlchemyError:
        return False
    return True
