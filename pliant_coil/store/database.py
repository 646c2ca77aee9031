"""The connection to PostgreSQL, and bringing its tables up to date."""

from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from alembic.util.exc import CommandError
from sqlalchemy import Engine, create_engine, inspect
from sqlalchemy.orm import Session, sessionmaker

Sessions = sessionmaker[Session]
LONGEST_STATEMENT_MS = 5_000
"""What a statement may take before the server gives it up."""
LONGEST_LOCK_MS = 3_000
"""How long it waits for a row that another one holds."""
WORKER = "pliant_coil_worker"
"""The role as which every transaction of a workshop works: it owns nothing, so the database's policies hold for it."""
_MIGRATING = 8_420_001
"""Number of the lock that one server holds while it brings the tables up to date."""


class Unfit(Exception):
    """A database that this version can't serve: nothing in it was touched."""


def connect(url: str) -> Engine:
    """An engine for `url` (postgresql://…); a connection that died is noticed and replaced."""
    url = url.replace("postgresql://", "postgresql+psycopg://", 1).replace("postgres://", "postgresql+psycopg://", 1)
    return create_engine(
        url,
        pool_pre_ping=True,
        # What is kept stands in no error's text.
        hide_parameters=True,
        pool_size=5,
        max_overflow=10,
        pool_timeout=5,
        connect_args={
            "connect_timeout": 3,
            # A statement prepared for any word is planned for none: a rare one would be looked for in every ring.
            "prepare_threshold": None,
            "options": f"-c statement_timeout={LONGEST_STATEMENT_MS} -c lock_timeout={LONGEST_LOCK_MS}",
        },
    )


def sessions_of(engine: Engine) -> Sessions:
    """Makes sessions whose objects stay readable after the commit."""
    return sessionmaker(engine, expire_on_commit=False)


def fitness(engine: Engine) -> bool:
    """Whether the tables are up to date. Raises `Unfit` for somebody else's database, or one that a newer version made."""
    with engine.connect() as connection:
        found = MigrationContext.configure(connection).get_current_revision()
        if found is None:
            tables = inspect(connection).get_table_names()
            if tables:
                raise Unfit(f"this database holds other tables ({', '.join(sorted(tables)[:3])}): give Pliant Coil one of its own")
            return False
    scripts = ScriptDirectory.from_config(_config())
    try:
        scripts.get_revision(found)
    except CommandError:
        raise Unfit(f"these records were last opened by a newer version (tables {found}): use that one, or a backup from before") from None
    return found == scripts.get_current_head()


def migrate(engine: Engine) -> None:
    """Bring the tables to the newest version; nothing stored is dropped. Of several at once, one does it and the others wait."""
    config = _config()
    with engine.begin() as connection:
        # What a statement of the server may take is no limit for bringing a large record book up to date.
        connection.exec_driver_sql("set local statement_timeout = 0")
        connection.exec_driver_sql("set local lock_timeout = 0")
        connection.exec_driver_sql(f"select pg_advisory_xact_lock({_MIGRATING})")
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations").replace("%", "%%"))
    return config
