"""The connection to PostgreSQL, and bringing its tables up to date."""

from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine
from sqlalchemy.orm import Session, sessionmaker

Sessions = sessionmaker[Session]
LONGEST_STATEMENT_MS = 5_000
"""What a statement may take before the server gives it up."""


def connect(url: str) -> Engine:
    """An engine for `url` (postgresql://…); a connection that died is noticed and replaced."""
    url = url.replace("postgresql://", "postgresql+psycopg://", 1).replace("postgres://", "postgresql+psycopg://", 1)
    return create_engine(
        url,
        pool_pre_ping=True,
        pool_size=5,
        max_overflow=10,
        pool_timeout=5,
        connect_args={"connect_timeout": 3, "options": f"-c statement_timeout={LONGEST_STATEMENT_MS}"},
    )


def sessions_of(engine: Engine) -> Sessions:
    """Makes sessions whose objects stay readable after the commit."""
    return sessionmaker(engine, expire_on_commit=False)


def migrate(engine: Engine) -> None:
    """Bring the tables to the newest version; nothing stored is dropped."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    with engine.begin() as connection:
        # What a statement of the server may take is no limit for bringing a large record book up to date.
        connection.exec_driver_sql("set local statement_timeout = 0")
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
