"""Copies of the studio file: made while it is in use, verified, named so that none is ever overwritten."""

from __future__ import annotations

import hashlib
import os
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from datetime import UTC, datetime
from pathlib import Path

from rosy_kettle.core.errors import InputError
from rosy_kettle.store.durable import to_disk

__all__ = [
    "SIDE_FILES",
    "astray_in",
    "copy_aside",
    "copy_verified",
    "damage_of",
    "leaving_no_log",
    "read_only_address",
    "replace_file",
    "rows_of",
    "unused_name",
]

SIDE_FILES = ("-wal", "-shm", "-journal")
MOST_OF_A_MINUTE = 10_000  # copies with one time stamp


def copy_verified(source: Path, target: Path) -> dict[str, int]:
    """Copy a studio file with SQLite's backup API into a new file, verify it, and return the rows of every table.

    Parameters
    ----------
    source : Path
        The file, in use or not
    target : Path
        Where the copy goes; it must not be there yet

    Returns
    -------
    dict
        Rows by table name

    Raises
    ------
    InputError
        If the target is there already, cannot be written, or the copy is not whole.
    """
    if target.exists():
        raise InputError(f"{target} is there already; choose another name, nothing was overwritten.", quantity="file")
    part = target.with_name(f".{target.name}.{os.getpid()}.part")
    try:
        os.close(os.open(part, os.O_CREAT | os.O_WRONLY | os.O_EXCL, 0o600))
        with (
            closing(sqlite3.connect(read_only_address(source), uri=True)) as origin,
            closing(sqlite3.connect(part)) as copy,
        ):
            origin.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")
            counted, expected = _rows(copy), _rows(origin)
        if (damage := damage_of(part)) or set(counted) != set(expected):
            raise InputError(f"The copy is not whole ({damage or 'tables are missing'}); it was thrown away.", quantity="file")
        to_disk(part)
        os.link(part, target)  # fails where another process made the name meanwhile
        to_disk(target.parent)
    except (OSError, sqlite3.Error) as error:
        raise InputError(f"{target} cannot be written: {getattr(error, 'strerror', None) or error}.", quantity="file") from error
    finally:
        with suppress(OSError):  # a folder that cannot be written has nothing to throw away, and says so even then
            part.unlink(missing_ok=True)
    return counted


def copy_aside(path: Path, word: str, *, once: bool = False) -> Path:
    """Copy a studio file beside itself under a name that is not taken, verified, and return where it is.

    Parameters
    ----------
    path : Path
        The studio file
    word : str
        What the copy is for, part of its name
    once : bool
        Whether a whole copy of the same content that a try before has made will do

    Returns
    -------
    Path
        The copy
    """
    formers = sorted(path.parent.glob(f"studio-{word}-*.sqlite3"), reverse=True) if once else []
    content = _content_of(path) if formers else ""
    for former in formers:
        if not damage_of(former) and _content_of(former) == content:
            return former
    target = unused_name(path.parent, word)
    copy_verified(path, target)
    return target


def _content_of(path: Path) -> str:
    """Return a fingerprint of all that a file says, however its pages lie."""
    told = hashlib.sha256()
    with closing(sqlite3.connect(read_only_address(path), uri=True)) as connection:
        for line in connection.iterdump():
            told.update(line.encode("utf-8", "surrogatepass"))
    return told.hexdigest()


def unused_name(folder: Path, word: str) -> Path:
    """Return a name with the time in it that nothing in the folder has yet.

    Parameters
    ----------
    folder : Path
        Where it goes
    word : str
        What it is for

    Returns
    -------
    Path
        As studio-kept-20261128T201500Z-1.sqlite3
    """
    stamp = f"{datetime.now(UTC):%Y%m%dT%H%M%SZ}"
    names = (folder / f"studio-{word}-{stamp}-{number}.sqlite3" for number in range(1, MOST_OF_A_MINUTE))
    return next(name for name in names if not name.exists())


def damage_of(path: Path, *, thorough: bool = True) -> str:
    """Return what SQLite finds wrong with a file; "" for a whole one. Rows that point nowhere are no damage: see `astray_in`.

    Parameters
    ----------
    path : Path
        A database file
    thorough : bool
        Whether every index is held against its table too, which takes three times as long

    Returns
    -------
    str
        The first complaint
    """
    try:
        with closing(sqlite3.connect(read_only_address(path), uri=True)) as connection:
            said = str(connection.execute(f"PRAGMA {'integrity' if thorough else 'quick'}_check(1)").fetchone()[0])
            return "" if said == "ok" else said.split("\n", maxsplit=1)[0]
    except sqlite3.Error as error:
        return str(error)


def astray_in(path: Path) -> list[tuple[str, int, str]]:
    """Return the rows of a file that point at a row which is not there.

    Parameters
    ----------
    path : Path
        A database file, in use or not

    Returns
    -------
    list of (str, int, str)
        Table, number of the row, table it points at
    """
    with closing(sqlite3.connect(read_only_address(path), uri=True)) as connection:
        found = connection.execute("PRAGMA foreign_key_check").fetchall()
    return [(str(table), int(row or 0), str(parent)) for table, row, parent, _ in found]


def rows_of(path: Path) -> dict[str, int]:
    """Return how many rows every table of a file has.

    Parameters
    ----------
    path : Path
        A database file, in use or not

    Returns
    -------
    dict
        Rows by table name
    """
    with closing(sqlite3.connect(read_only_address(path), uri=True)) as connection:
        return _rows(connection)


def read_only_address(path: Path) -> str:
    """Return the address under which SQLite opens a file without ever writing to it.

    Parameters
    ----------
    path : Path
        A database file

    Returns
    -------
    str
        A file URI
    """
    return f"{path.absolute().as_uri()}?mode=ro"


@contextmanager
def leaving_no_log(path: Path) -> Iterator[None]:
    """Read a file and leave beside it what was there: SQLite makes a log for a reader, which a start would take for a crash.

    Parameters
    ----------
    path : Path
        A database file, in use or not
    """
    log = path.with_name(f"{path.name}-wal")
    was_there = log.exists()
    try:
        yield
    finally:
        if not was_there and log.exists():
            with suppress(sqlite3.Error), closing(sqlite3.connect(path, timeout=0.5)) as connection:
                connection.execute("PRAGMA wal_checkpoint(PASSIVE)")  # the last to close it takes the log away, nobody else


def replace_file(source: Path, path: Path) -> None:
    """Put a verified file in the place of the studio file, whole or not at all; only with the lock held alone.

    Parameters
    ----------
    source : Path
        What is to stand there, in the same folder
    path : Path
        The studio file
    """
    if path.exists():
        with suppress(sqlite3.Error), closing(sqlite3.connect(path, timeout=20)) as connection:
            connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")  # a kill from here on leaves the former studio whole
    source.replace(path)
    for ending in SIDE_FILES:
        path.with_name(path.name + ending).unlink(missing_ok=True)
    to_disk(path.parent)


def _rows(connection: sqlite3.Connection) -> dict[str, int]:
    names = [
        row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'")
    ]
    return {name: int(connection.execute(f'SELECT count(*) FROM "{name}"').fetchone()[0]) for name in names}  # noqa: S608 - names from SQLite itself
