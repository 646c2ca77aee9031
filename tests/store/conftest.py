"""On the tests' database."""

from tests.database import database_url, engine, sessions

__all__ = ["database_url", "engine", "sessions"]
