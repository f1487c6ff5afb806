"""Devices that may come in are those of the studio as it is: bringing a backup back lets nobody in who was shut out since."""

from __future__ import annotations

import sqlite3
from contextlib import closing
from pathlib import Path

from rosy_kettle.store.copies import read_only_address

__all__ = ["keep_devices", "shut_devices_out"]

COLUMNS = "id, name, role, token_hash, paired_at, revoked_at"


def keep_devices(here: Path, fresh: Path) -> None:
    """Write the paired devices of the studio that is here into the one that takes its place; both of the present version."""
    with closing(sqlite3.connect(read_only_address(here), uri=True)) as connection:
        rows = connection.execute(f"SELECT {COLUMNS} FROM paired_devices").fetchall()  # noqa: S608 - names of ours
    with closing(sqlite3.connect(fresh)) as connection, connection:
        connection.execute("DELETE FROM paired_devices")
        connection.executemany(f"INSERT INTO paired_devices ({COLUMNS}) VALUES (?, ?, ?, ?, ?, ?)", rows)  # noqa: S608 - as above


def shut_devices_out(path: Path) -> int:
    """Shut out every device of a studio whose own list cannot be read any more; return how many there were."""
    with closing(sqlite3.connect(path)) as connection, connection:
        shut = connection.execute("UPDATE paired_devices SET revoked_at = CURRENT_TIMESTAMP WHERE revoked_at IS NULL")
        return shut.rowcount
