"""Rows of tables as plain data for files, and back."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Callable, Collection, Iterable, Iterator, Mapping, Sequence
from datetime import date, datetime
from decimal import Decimal
from functools import cache, partial
from typing import Any

from sqlalchemy import Boolean, Column, Date, DateTime, Float, Integer, Select, Table, Text, type_coerce
from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.odd_values import odd_in
from rosy_kettle.core.words.cells import begins_formula
from rosy_kettle.store.base import JsonList, JsonObject, UtcTime
from rosy_kettle.store.ingredients import DecimalText

__all__ = ["csv_of", "plain_row", "plain_rows", "rows_of_csv", "stored_row", "stored_rows", "told_rows"]


def plain_row(row: Mapping[str, Any] | Any, table: Table, leave_out: Collection[str] = ()) -> dict[str, Any]:
    """Return a row as JSON data: moments and days as ISO 8601, money as decimal text."""
    as_they_are, written = _columns(table, frozenset(leave_out))
    one = row.__getitem__ if isinstance(row, Mapping) else partial(getattr, row)
    found = {name: one(name) for name in as_they_are}
    for name in written:
        found[name] = _plain(found[name])
    return found


def plain_rows(session: Session, table: Table, asked: Select[Any]) -> Iterator[dict[str, Any]]:
    """Yield the rows of a table as `plain_row` does, several times as quick: no value becomes an object on its way to text.

    ``asked`` says which rows and in which order; what it selects is replaced by the columns.
    """
    return told_rows(stored_rows(session, table, asked), table)


def stored_rows(session: Session, table: Table, asked: Select[Any]) -> Iterator[tuple[Any, ...]]:
    """Yield rows as SQLite holds them, a value for each column of the table."""
    as_text = [type_coerce(each, Text) if type(each.type) in _WRITTEN else each for each in table.columns]
    return (tuple(row) for row in session.execute(asked.with_only_columns(*as_text)))


def told_rows(rows: Iterable[tuple[Any, ...]], table: Table) -> Iterator[dict[str, Any]]:
    """Yield such rows as JSON data."""
    names = [each.name for each in table.columns]
    written = [(each.name, _WRITTEN[type(each.type)]) for each in table.columns if type(each.type) in _WRITTEN]
    for row in rows:
        data = dict(zip(names, row, strict=True))
        for name, write in written:
            if data[name] is not None:
                data[name] = write(data[name])
        yield data


def _moment(stored: str) -> str:
    """Return a moment as ISO 8601; SQLite holds it with a space and microseconds, in UTC."""
    return f"{stored.removesuffix('.000000').replace(' ', 'T')}+00:00"


def _json(stored: str) -> Any:
    """Return JSON as data; what another hand left that is none goes along as the text it is."""
    try:
        return json.loads(stored)
    except (TypeError, ValueError):
        return stored


_WRITTEN: dict[type, Callable[[str], Any]] = {
    UtcTime: _moment, JsonObject: _json, JsonList: _json, Date: str, DecimalText: str,
}  # fmt: skip
"""How what SQLite holds as text is told, by the type of its column."""


def stored_row(data: Mapping[str, Any], table: Table, where: str) -> dict[str, Any]:
    """Return the values of a row from such data; columns it does not name take their default.

    Raises
    ------
    InputError
        If a value cannot stand in its column.
    """
    values: dict[str, Any] = {}
    for column in table.columns:
        if column.name not in data:
            continue
        try:
            values[column.name] = _stored(data[column.name], column)
        except (ValueError, TypeError, ArithmeticError) as error:
            raise InputError(
                f'{where}: "{column.name}" cannot be {str(data[column.name])[:40]!r}.', quantity=column.name
            ) from error
    return values


def csv_of(columns: Sequence[str], rows: Iterable[Mapping[str, Any]]) -> bytes:
    """Return rows as CSV; text that a spreadsheet would take for a formula is quoted, and read back without its quote."""
    out = io.StringIO(newline="")
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(columns)
    writer.writerows([_cell(row[column]) for column in columns] for row in rows)
    return out.getvalue().encode()


def rows_of_csv(data: bytes, where: str) -> list[dict[str, Any]]:
    """Return the rows of such a CSV as JSON data.

    Raises
    ------
    InputError
        If it cannot be read.
    """
    try:
        rows = list(csv.reader(io.StringIO(data.decode("utf-8"), newline="")))
        headings = rows[0]
        told = [dict(zip(headings, map(_uncelled, row), strict=True)) for row in rows[1:]]
    except (ValueError, IndexError, csv.Error) as error:
        raise InputError(f"{where} in the zip cannot be read as CSV.", quantity="file") from error
    if odd := odd_in(told, residues=True):
        raise InputError(f"{where} in the zip: {odd}; nothing was taken over.", quantity="file")
    return told


@cache
def _columns(table: Table, leave_out: frozenset[str]) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Return the columns that are told, and those of them JSON has no kind for: moments, days and money."""
    told = [column for column in table.columns if column.name not in leave_out]
    odd = [column.name for column in told if isinstance(column.type, UtcTime | Date | DateTime | DecimalText)]
    return tuple(column.name for column in told), tuple(odd)


def _plain(value: Any) -> Any:
    if value is None or isinstance(value, str | float | int):
        return value
    if isinstance(value, datetime | date):
        return value.isoformat()
    return str(value) if isinstance(value, Decimal) else value


def _stored(value: Any, column: Column[Any]) -> Any:
    kind = column.type
    if value is None:
        if not column.nullable:
            raise ValueError(column.name)
        return None
    if isinstance(kind, UtcTime):
        moment = datetime.fromisoformat(value)
        if moment.tzinfo is None:
            raise ValueError(value)
        return moment
    if isinstance(kind, Date):
        return date.fromisoformat(value)
    if isinstance(kind, DecimalText):
        return Decimal(value)
    if isinstance(kind, JsonObject | JsonList):
        return value
    if isinstance(kind, Float):
        return _number(value)
    expected = bool if isinstance(kind, Boolean) else int if isinstance(kind, Integer) else str
    if not isinstance(value, expected) or (isinstance(value, bool) and expected is not bool):
        raise ValueError(value)
    return value


def _number(value: Any) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise ValueError(value)
    return float(value)


def _cell(value: Any) -> str:
    """Return a cell: nothing for null, JSON for what is not text, text quoted where it begins like a formula or like JSON."""
    if value is None:
        return ""
    if not isinstance(value, str):
        return json.dumps(value, ensure_ascii=False, separators=(",", ":"))
    odd = not value or value.startswith("'") or begins_formula(value) or _reads_as_json(value)
    return f"'{value}" if odd else value


def _uncelled(cell: str) -> Any:
    if cell == "":
        return None
    if cell.startswith("'"):
        return cell[1:]
    return json.loads(cell) if _reads_as_json(cell) else cell


def _reads_as_json(text: str) -> bool:
    try:
        json.loads(text)
    except ValueError:
        return False
    return True
