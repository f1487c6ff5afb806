"""Opening the studio: where the file is, how it is written, migrated and copied."""

from __future__ import annotations

import os
import sqlite3
import threading
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from platformdirs import user_data_path
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.exc import DatabaseError
from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError

__all__ = ["FILE_NAME", "Studio", "data_folder", "open_studio"]

FILE_NAME = "studio.sqlite3"
FOLDER_VARIABLE = "ROSY_KETTLE_DATA"
BUSY_TIMEOUT_MS = 10_000
PRAGMAS = (
    "journal_mode=WAL",
    "synchronous=FULL",  # NORMAL would survive a killed process, FULL a power cut too
    "foreign_keys=ON",
    f"busy_timeout={BUSY_TIMEOUT_MS}",
    "trusted_schema=OFF",
)


class Watcher:
    """A connection of its own that writes nothing, so that SQLite tells it of every commit of the others."""

    def __init__(self, path: Path) -> None:
        self._connection = sqlite3.connect(path, check_same_thread=False, isolation_level=None)
        self._lock = threading.Lock()

    def stamp(self) -> int:
        """Return SQLite's data version, in about 20 microseconds."""
        with self._lock:
            return int(self._connection.execute("PRAGMA data_version").fetchone()[0])

    def close(self) -> None:
        """Close the connection."""
        self._connection.close()


@dataclass(frozen=True)
class Studio:
    """An open studio."""

    path: Path
    engine: Engine
    watcher: Watcher

    def stamp(self) -> int:
        """Return a number that changes with every commit anyone makes to the file."""
        return self.watcher.stamp()

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """Open a session that reads one consistent state."""
        with Session(self.engine) as session:
            yield session

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """Open a session that holds the write lock from its start and commits at its end."""
        with Session(self.engine.execution_options(write=True), expire_on_commit=False) as session, session.begin():
            yield session

    def close(self) -> None:
        """Let go of the file."""
        self.watcher.close()
        self.engine.dispose()


def data_folder() -> Path:
    """Return the folder the studio lives in."""
    named = os.environ.get(FOLDER_VARIABLE)
    return Path(named) if named else user_data_path("rosy-kettle", appauthor=False)


def open_studio(folder: Path | None = None) -> Studio:
    """Open the studio in a folder, bringing its tables up to date with a safety copy first.

    Raises
    ------
    InputError
        If the folder cannot be written, or the file is no studio.
    """
    place = folder or data_folder()
    try:
        place.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise InputError(f"The data folder {place} cannot be made: {error.strerror}.", quantity=FOLDER_VARIABLE) from error
    path = place / FILE_NAME
    engine = _engine(path)
    try:
        _migrate(engine, path)
    except DatabaseError as error:
        engine.dispose()
        raise InputError(f"{path} is not a Rosy Kettle studio: {error.orig}.", quantity="file") from error
    return Studio(path, engine, Watcher(path))


def _engine(path: Path) -> Engine:
    engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": BUSY_TIMEOUT_MS / 1000})

    @event.listens_for(engine, "connect")
    def _set_pragmas(connection: sqlite3.Connection, _record: object) -> None:
        connection.isolation_level = None  # the driver opens no transaction of its own, so that DDL rolls back too
        for pragma in PRAGMAS:
            connection.execute(f"PRAGMA {pragma}")

    @event.listens_for(engine, "begin")
    def _begin(connection: object) -> None:
        # A read that turns into a write cannot wait for the lock, so writers take it at once.
        write = connection.get_execution_options().get("write")  # type: ignore[attr-defined]
        connection.exec_driver_sql("BEGIN IMMEDIATE" if write else "BEGIN")  # type: ignore[attr-defined]

    return engine


def _migrate(engine: Engine, path: Path) -> None:
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    head = ScriptDirectory.from_config(config).get_current_head()
    with engine.connect() as connection:
        current = MigrationContext.configure(connection).get_current_revision()
    if current == head:
        return
    if current is not None:
        _copy(path, path.with_name(f"studio-before-{head}.sqlite3"))
    config.attributes["engine"] = engine
    command.upgrade(config, "head")


def _copy(source: Path, target: Path) -> None:
    with closing(sqlite3.connect(source)) as origin, closing(sqlite3.connect(target)) as copy:
        origin.backup(copy)
