"""Records that no page can read, put aside as they are with all that belongs to them, and taken back as they were.

Rows are read and written as SQLite holds them: what stands in them may be nothing this version knows.
"""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Any, NamedTuple

from sqlalchemy import Connection, CursorResult, Table, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Mapped, Session, mapped_column

from rosy_kettle.core.errors import ConflictError
from rosy_kettle.store.base import JsonObject, UtcTime, now_utc
from rosy_kettle.store.rows import NumberedRow, find, keep
from rosy_kettle.store.settings import read_settings, write_settings

__all__ = ["SetAsideRow", "keep_aside", "list_set_aside", "set_aside", "set_settings_aside", "take_back"]

SETTINGS = "settings"
BELONGS = "CASCADE"
"""What goes with the row it belongs to, by the tables' own declaration."""


class SetAsideRow(NumberedRow):
    """One record that was set aside."""

    __noun__ = "record set aside"
    __tablename__ = "set_aside"

    id: Mapped[int] = mapped_column(primary_key=True)
    of_table: Mapped[str]
    of_id: Mapped[str]
    why: Mapped[str]
    kept: Mapped[dict[str, Any]] = mapped_column(JsonObject)
    """``rows``: table and values of each row that was taken out; ``cleared``: columns of others that pointed at one."""
    set_aside_at: Mapped[datetime] = mapped_column(UtcTime, default=now_utc)


class _Pointer(NamedTuple):
    table: str
    column: str
    belongs: bool
    nullable: bool


def list_set_aside(session: Session) -> list[SetAsideRow]:
    """Return what is set aside, in its order."""
    return list(session.scalars(select(SetAsideRow).order_by(SetAsideRow.id)))


def set_aside(session: Session, table: str, key: int | str, why: str) -> SetAsideRow | None:
    """Take a row out with all that belongs to it, and keep it as it is; None where it has gone meanwhile."""
    connection = session.connection()
    connection.exec_driver_sql("PRAGMA defer_foreign_keys = ON")
    taken = _Taken(connection)
    taken.gather(table, _key_of(connection, table), key)
    if not taken.rows:
        return None
    triggers = _without_triggers(connection, {each["table"] for each in (*taken.rows, *taken.cleared)})
    for each in taken.cleared:
        asked = 'UPDATE "{table}" SET "{column}" = NULL WHERE rowid = ?'
        _ask(connection, asked, each["row"], table=each["table"], column=each["column"])
    for each in reversed(taken.rows):
        _ask(connection, 'DELETE FROM "{table}" WHERE rowid = ?', each["row"], table=each["table"])
    for trigger in triggers:
        connection.exec_driver_sql(trigger)
    kept = {"rows": [{"table": each["table"], "values": each["values"]} for each in taken.rows], "cleared": taken.cleared}
    return keep(session, SetAsideRow(of_table=table, of_id=str(key), why=why, kept=kept))


def keep_aside(session: Session, table: Table, key: str, why: str, values: Mapping[str, Any]) -> SetAsideRow:
    """Keep a row aside that cannot stand in the studio yet; ``values`` are those of its columns."""
    dialect = session.connection().dialect
    stored = {
        name: value if (bind := table.c[name].type.dialect_impl(dialect).bind_processor(dialect)) is None else bind(value)
        for name, value in values.items()
    }  # fmt: skip
    kept = {"rows": [{"table": table.name, "values": stored}], "cleared": []}
    return keep(session, SetAsideRow(of_table=table.name, of_id=key, why=why, kept=kept))


def set_settings_aside(session: Session, names: tuple[str, ...], why: str) -> SetAsideRow | None:
    """Take single settings out, and keep them as they are; None where none of them is there."""
    said = read_settings(session)
    out = {name: said.pop(name) for name in names if name in said}
    if not out:
        return None
    write_settings(session, said)
    return keep(session, SetAsideRow(of_table=SETTINGS, of_id=", ".join(out), why=why, kept={"settings": out}))


def take_back(session: Session, number: int) -> SetAsideRow:
    """Put what was set aside back as it was.

    Raises
    ------
    NotFoundError
        If nothing is set aside under that number.
    ConflictError
        If something else stands in its place by now, or what it points at is still not there.
    """
    row = find(session, SetAsideRow, number)
    if row.of_table == SETTINGS and "settings" in row.kept:
        write_settings(session, {**row.kept["settings"], **read_settings(session)})
    else:
        _put_back(session, row)
    session.delete(row)
    session.flush()
    return row


def _put_back(session: Session, row: SetAsideRow) -> None:
    connection = session.connection()
    connection.exec_driver_sql("PRAGMA defer_foreign_keys = ON")
    rows, cleared = row.kept["rows"], row.kept["cleared"]
    triggers = _without_triggers(connection, {each["table"] for each in (*rows, *cleared)})
    try:
        for each in rows:
            _insert(connection, each["table"], each["values"])
    except IntegrityError as error:
        said = f"{row.of_table} {row.of_id} cannot be taken back: something else stands in its place."
        raise ConflictError(said, noun="record", reason="taken", id=row.id) from error
    for each in cleared:
        asked = 'UPDATE "{table}" SET "{column}" = ? WHERE rowid = ? AND "{column}" IS NULL'
        _ask(connection, asked, each["value"], each["row"], table=each["table"], column=each["column"])
    for trigger in triggers:
        connection.exec_driver_sql(trigger)
    asked = 'PRAGMA foreign_key_check("{table}")'
    if any(_ask(connection, asked, table=table).first() for table in {each["table"] for each in rows}):
        said = f"{row.of_table} {row.of_id} cannot be taken back yet: what it points at is not there."
        raise ConflictError(said, noun="record", reason="points nowhere", id=row.id)


def _insert(connection: Connection, table: str, values: dict[str, Any]) -> None:
    names, holes = ", ".join(f'"{name}"' for name in values), ", ".join("?" for _ in values)
    _ask(connection, 'INSERT INTO "{table}" ({names}) VALUES ({holes})', *values.values(), table=table, names=names, holes=holes)


class _Taken:
    """What is taken out: rows in the order in which they may stand, and columns of others that point at them."""

    def __init__(self, connection: Connection) -> None:
        self._connection = connection
        self.rows: list[dict[str, Any]] = []
        self.cleared: list[dict[str, Any]] = []

    def gather(self, table: str, where: str, value: object) -> None:
        """Collect a row and, after it, whatever belongs to it; of rows that only point at it, the columns that do."""
        asked = 'SELECT rowid AS "row number", * FROM "{table}" WHERE "{where}" = ?'
        found = _ask(self._connection, asked, value, table=table, where=where).mappings().first()
        if found is None or any(each["table"] == table and each["row"] == found["row number"] for each in self.rows):
            return
        values = {column: said for column, said in found.items() if column != "row number"}
        self.rows.append({"table": table, "row": found["row number"], "values": values})
        key = values.get(_key_of(self._connection, table), found["row number"])
        asked = 'SELECT rowid FROM "{table}" WHERE "{column}" = ?'
        for pointer in _pointers_at(self._connection, table):
            for (number,) in _ask(self._connection, asked, key, table=pointer.table, column=pointer.column).all():
                if pointer.belongs or not pointer.nullable:
                    self.gather(pointer.table, "rowid", number)
                else:
                    self.cleared.append({"table": pointer.table, "row": number, "column": pointer.column, "value": key})


def _ask(connection: Connection, asked: str, *values: object, **names: str) -> CursorResult[Any]:
    """Ask with names of tables and columns, which SQL takes as no values: they are the file's own."""
    return connection.exec_driver_sql(asked.format(**names), values)


def _key_of(connection: Connection, table: str) -> str:
    columns = _ask(connection, 'PRAGMA table_info("{table}")', table=table).mappings().all()
    return str(next((each["name"] for each in columns if each["pk"] == 1), "rowid"))


def _pointers_at(connection: Connection, table: str) -> list[_Pointer]:
    """Return the columns of all tables that point at one."""
    asked = "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'"
    found: list[_Pointer] = []
    for name in connection.exec_driver_sql(asked).scalars().all():
        columns = _ask(connection, 'PRAGMA table_info("{table}")', table=name).mappings().all()
        optional = {each["name"]: not each["notnull"] for each in columns}
        keys = _ask(connection, 'PRAGMA foreign_key_list("{table}")', table=name).mappings().all()
        found += [
            _Pointer(name, key["from"], key["on_delete"] == BELONGS, optional[key["from"]])
            for key in keys if key["table"] == table
        ]  # fmt: skip
    return found


def _without_triggers(connection: Connection, tables: set[str]) -> list[str]:
    """Take the triggers off that keep rows from being changed, and return how to put them back; in one transaction with it."""
    found = connection.exec_driver_sql("SELECT name, tbl_name, sql FROM sqlite_master WHERE type = 'trigger'").all()
    ours = [each for each in found if each[1] in tables]
    for name, _table, _sql in ours:
        _ask(connection, 'DROP TRIGGER "{name}"', name=name)
    return [str(sql) for _name, _table, sql in ours]
