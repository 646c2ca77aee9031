"""A database of the tests' own: fixtures for those that need one."""

from collections.abc import Iterator

import pytest
from sqlalchemy import Engine, text

from pliant_coil.services.workshop import DEMO_NAME, DEMO_SLUG
from pliant_coil.store import workshops
from pliant_coil.store.database import Sessions, connect, migrate, sessions_of
from tools.serving import throwaway_database


@pytest.fixture(scope="session")
def database_url() -> Iterator[str]:
    """A throw-away PostgreSQL server for this run."""
    with throwaway_database() as url:
        yield url


@pytest.fixture(scope="session")
def engine(database_url: str) -> Iterator[Engine]:
    """Its tables, made by the migrations."""
    engine = connect(database_url)
    migrate(engine)
    yield engine
    engine.dispose()


@pytest.fixture
def sessions(engine: Engine) -> Sessions:
    """Sessions on an empty workshop."""
    with engine.begin() as connection:
        connection.execute(text("truncate workshop, person, failed_sign_in cascade"))
    made = sessions_of(engine)
    with made.begin() as session:
        workshops.ensure(session, DEMO_SLUG, DEMO_NAME)
    return made
