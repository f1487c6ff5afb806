"""Opening the studio: where the file is, how it is written, migrated and copied."""

from __future__ import annotations

import os
import sqlite3
import threading
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from dataclasses import dataclass
from functools import cache
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
from rosy_kettle.store.acknowledged import count_write, mark
from rosy_kettle.store.copies import copy_aside, damage_of, read_only_address
from rosy_kettle.store.durable import to_disk
from rosy_kettle.store.leftovers import clear_leftovers
from rosy_kettle.store.lock import StudioLock
from rosy_kettle.store.write_gate import WriteGate

__all__ = ["FILE_NAME", "Studio", "data_folder", "made_folder", "open_studio", "refuse_unfit"]

FILE_NAME = "studio.sqlite3"
FOLDER_VARIABLE = "ROSY_KETTLE_DATA"
APPLICATION_ID = 0x524B_4554  # "RKET", in the header of the file, so that no foreign database is taken for ours
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
    lock: StudioLock | None = None
    """Held while it is served."""

    @property
    def gate(self) -> WriteGate:
        """Return the gate all writers pass one by one."""
        return WriteGate(self.path, BUSY_TIMEOUT_MS / 1000)

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
        """Open a session that holds the write lock from its start and commits at its end, counted and marked."""
        with self.gate.held():
            with Session(self.engine.execution_options(write=True), expire_on_commit=False) as session, session.begin():
                yield session
                session.flush()
                count = count_write(session)
            mark(self.path, count)

    def fold(self) -> None:
        """Fold the write-ahead log into the file, as far as nobody else is reading or writing."""
        with closing(sqlite3.connect(self.path, timeout=0.5)) as connection:
            try:
                connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
            except sqlite3.OperationalError:
                return  # busy or full; the log keeps what it holds

    def close(self) -> None:
        """Let go of the file; what the log still holds is folded into it."""
        self.watcher.close()
        self.engine.dispose()
        if self.path.exists():
            self.fold()
        if self.lock is not None:
            self.lock.release()


def data_folder() -> Path:
    """Return the folder the studio lives in."""
    named = os.environ.get(FOLDER_VARIABLE)
    return Path(named) if named else user_data_path("rosy-kettle", appauthor=False)


def open_studio(folder: Path | None = None, *, serving: bool = False) -> Studio:
    """Open the studio in a folder, bringing its tables up to date with a safety copy first.

    Nothing that is not ours is altered: the file is looked at before anything is written to it.

    Raises
    ------
    InputError
        If the folder cannot be written, the file is no studio, a newer one, damaged, or being restored.
    """
    place = folder or data_folder()
    path = made_folder(place) / FILE_NAME
    lock = StudioLock(place, alone=False) if serving else None
    try:
        if lock is not None and lock.nobody_else():
            clear_leftovers(place)
        refuse_unfit(path)
        if not path.exists():
            _put_new_studio(path)
        engine = _migrated(path)
        for kept in place.glob(f"{FILE_NAME}*"):
            kept.chmod(0o600)
        return Studio(path, engine, Watcher(path), lock)
    except BaseException as error:
        if lock is not None:
            lock.release()
        if isinstance(error, OSError):
            sentence = f"{path} cannot be written: {error.strerror}; make room or free the folder."
            raise InputError(sentence, quantity="file") from error
        raise


def _put_new_studio(path: Path) -> None:
    """Make an empty studio beside its place and link it there whole: neither a kill nor a full disk leaves half of one."""
    _clear_half_made(path)
    new = path.with_name(f".{path.name}.new-{os.getpid()}")
    try:
        os.close(os.open(new, os.O_CREAT | os.O_WRONLY, 0o600))
        _migrated(new).dispose()
        to_disk(new)
        with suppress(FileExistsError):  # another start was quicker; its studio is as good
            os.link(new, path)
        to_disk(path.parent)
    finally:
        for left in path.parent.glob(f"{new.name}*"):
            left.unlink()


def _clear_half_made(path: Path) -> None:
    """Throw away what a start that was killed had half made; one that still runs keeps its own."""
    for left in path.parent.glob(f".{path.name}.new-*"):
        maker = left.name.rpartition(".new-")[2].partition("-")[0]
        if not (maker.isdecimal() and Path(f"/proc/{maker}").exists()):
            left.unlink(missing_ok=True)


def _migrated(path: Path) -> Engine:
    """Return the engine of a studio file whose tables are up to date."""
    engine = _engine(path)
    try:
        _migrate(engine, path)
    except DatabaseError as error:
        engine.dispose()
        full = getattr(error.orig, "sqlite_errorcode", None) == sqlite3.SQLITE_FULL
        said = "the disk is full; make room and start again" if full else str(error.orig)
        raise InputError(f"The studio in {path.parent} cannot be opened: {said}.", quantity="file") from error
    return engine


def made_folder(place: Path) -> Path:
    """Return the data folder, made where it is missing, for its owner alone.

    Raises
    ------
    InputError
        If it cannot be made or written.
    """
    try:
        if not place.exists():
            place.mkdir(parents=True, mode=0o700)
    except OSError as error:
        raise InputError(f"The data folder {place} cannot be made: {error.strerror}.", quantity=FOLDER_VARIABLE) from error
    if not os.access(place, os.W_OK) or _is_read_only(place):
        sentence = f"The data folder {place} cannot be written; choose another with {FOLDER_VARIABLE}, or make it writable."
        raise InputError(sentence, quantity=FOLDER_VARIABLE)
    return place


def _is_read_only(place: Path) -> bool:
    return bool(os.statvfs(place).f_flag & os.ST_RDONLY) or not place.stat().st_mode & 0o222


def refuse_unfit(path: Path) -> None:
    """Refuse a file that is empty, no studio, of a newer version or damaged, without writing to it.

    Raises
    ------
    InputError
        Naming what is wrong and the way out.
    """
    if not path.exists():
        return
    stopped_uncleanly = path.with_name(f"{path.name}-wal").exists()  # looked for first: looking into the file makes one
    way_out = "move it away, or bring back a backup with 'rosy-kettle restore FILE'"
    if path.stat().st_size == 0:
        raise InputError(f"{path} is empty: {way_out}.", quantity="file")
    try:
        with closing(sqlite3.connect(read_only_address(path), uri=True)) as connection:
            application = connection.execute("PRAGMA application_id").fetchone()[0]
            tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            found = (
                connection.execute("SELECT version_num FROM alembic_version").fetchone() if "alembic_version" in tables else None
            )
    except sqlite3.DatabaseError as error:
        foreign = error.sqlite_errorcode == sqlite3.SQLITE_NOTADB
        said = "is not a Rosy Kettle studio, nor any database" if foreign else f"is damaged ({error})"
        raise InputError(f"{path} {said}: {way_out}.", quantity="file") from error
    if application not in {0, APPLICATION_ID} or (application == 0 and (found is None or "formulas" not in tables)):
        raise InputError(f"{path} is not a Rosy Kettle studio; nothing was changed in it. Move it away.", quantity="file")
    if found is not None and found[0] not in _known_revisions():
        raise InputError(f"{path} was written by a newer Rosy Kettle; install that version to open it.", quantity="file")
    if stopped_uncleanly and (damage := damage_of(path, thorough=False)):
        raise InputError(f"{path} is damaged ({damage}): {way_out}.", quantity="file")


def _known_revisions() -> set[str]:
    return {script.revision for script in _scripts().walk_revisions()}


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    return config


@cache
def _scripts() -> ScriptDirectory:
    """Return the steps of the tables, read from their files once: each opening asks twice."""
    return ScriptDirectory.from_config(_config())


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
    config = _config()
    head = _scripts().get_current_head()
    with engine.connect() as connection:
        current = MigrationContext.configure(connection).get_current_revision()
    if current != head:
        if current is not None:
            copy_aside(path, f"before-{head}", once=True)
        config.attributes["engine"] = engine
        command.upgrade(config, "head")
    with engine.connect() as connection:
        if connection.exec_driver_sql("PRAGMA application_id").scalar() != APPLICATION_ID:
            connection.exec_driver_sql(f"PRAGMA application_id = {APPLICATION_ID}")
            connection.commit()
