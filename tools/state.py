"""Where a workshop's records are on this machine: in one place, wherever the program lies and whatever its folder is called."""

import fcntl
import os
import shutil
from pathlib import Path

_CHECKOUT = Path(__file__).parents[1]


def _usual() -> Path:
    if os.geteuid() == 0:
        # The database's own user must be able to get there.
        return Path("/var/lib/pliant-coil")
    return Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local" / "share") / "pliant-coil"


STATE = Path(os.environ.get("PLIANT_COIL_STATE") or _usual())
"""The database, its backups and the lock of the one who serves. PLIANT_COIL_STATE puts it elsewhere."""


def open_state() -> Path:
    """The folder, made if it isn't there. Records that an earlier version kept in the checkout are brought here."""
    STATE.mkdir(parents=True, exist_ok=True)
    earlier = _CHECKOUT / ".state" / "postgres"
    if "PLIANT_COIL_STATE" not in os.environ and (earlier / "data").is_dir() and not (STATE / "postgres").exists():
        shutil.move(earlier, STATE / "postgres")
    return STATE


def serving_address() -> str:
    """Where it is served now; empty when it isn't."""
    try:
        with (STATE / "serving").open("r+") as lock:
            try:
                fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except OSError:
                return lock.read().strip() or "an address that isn't known yet"
    except OSError:
        pass
    return ""
