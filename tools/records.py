"""The records for whoever works on them from the terminal, whether they are being served just now or not."""

import os
from collections.abc import Iterator
from contextlib import contextmanager

from tools.postgres import Cluster
from tools.state import STATE


@contextmanager
def records_url() -> Iterator[str]:
    """The URL of the records; what was started for this is stopped again. Raises `CannotServe`."""
    given = os.environ.get("DATABASE_URL")
    if given:
        yield given
        return
    cluster = Cluster(STATE / "postgres")
    ran = cluster.runs
    try:
        yield cluster.start()
    finally:
        if not ran:
            cluster.stop()
