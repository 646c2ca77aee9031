"""Alembic's entry: runs on the connection that it is handed, or on DATABASE_URL."""

import os

from alembic import context
from sqlalchemy import Connection

from pliant_coil.store.database import connect
from pliant_coil.store.models import Base


def run(connection: Connection) -> None:
    context.configure(connection=connection, target_metadata=Base.metadata, compare_type=True)
    with context.begin_transaction():
        context.run_migrations()


given = context.config.attributes.get("connection")
if given is not None:
    run(given)
else:
    with connect(os.environ["DATABASE_URL"]).begin() as connection:
        run(connection)
