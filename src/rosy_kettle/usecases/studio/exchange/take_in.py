"""What is known while a studio zip is taken in: where rows stand now, what differed, how far it has come."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import groupby
from typing import Any

from sqlalchemy import Table, insert, select, update
from sqlalchemy.orm import Session

from rosy_kettle.core.errors import StoppedError
from rosy_kettle.files.studio_zip import StudioZip
from rosy_kettle.store.plain_rows import plain_row, stored_row
from rosy_kettle.store.set_aside import keep_aside
from rosy_kettle.usecases.studio.exchange.nouns import repointed

__all__ = ["FROM_THERE", "Difference", "Intake"]

FROM_THERE = " (from the other studio)"


@dataclass(frozen=True, slots=True)
class Difference:
    """Something that is not the same in both studios: both sides, and what was done about it."""

    noun: str
    name: str
    here: dict[str, Any]
    there: dict[str, Any]
    done: str


@dataclass(slots=True)
class Intake:
    """One zip on its way into a studio."""

    session: Session
    source: StudioZip
    merge: bool
    """Whether there is something in the studio already; else every row keeps its number."""
    report: Callable[[int, int], None]
    stopped: Callable[[], bool]
    ids: dict[str, dict[int, int]] = field(default_factory=dict)
    """Where a row stands now, by table and its former number."""
    differences: list[Difference] = field(default_factory=list)
    taken: dict[str, int] = field(default_factory=dict)
    """How many rows are new, by table."""
    done: int = 0

    def step(self) -> None:
        """Say how far it is, and stop where that is wanted.

        Raises
        ------
        StoppedError
            If it was stopped; the studio is then as it was.
        """
        self.done += 1
        self.report(self.done, len(self.source))
        if self.stopped():
            raise StoppedError("The import was stopped; the studio is as it was.", quantity="file")

    def points(self, data: Any) -> Any:
        """Return data that points at rows where they stand now."""
        return repointed(data, self.ids) if self.merge else data

    def values(self, data: Mapping[str, Any], table: Table, where: str) -> dict[str, Any]:
        """Return the values of a row that points where it should."""
        return stored_row(self.points(dict(data)), table, where)

    def insert(self, table: Table, values: dict[str, Any], former: int | None = None) -> int | None:
        """Add a row and remember where it stands now; a key that is taken already is let go."""
        if self.merge:
            values.pop("id", None) if former is not None else None
            key = values.get("request_key")
            if key is not None and self.session.scalar(select(table.c.id).where(table.c.request_key == key)) is not None:
                values["request_key"] = None
        made = self.session.connection().execute(insert(table).values(**values))
        self.taken[table.name] = self.taken.get(table.name, 0) + 1
        if former is None:
            return None
        key_now = made.inserted_primary_key
        if key_now is None:
            return None
        now = int(key_now[0])
        self.ids.setdefault(table.name, {})[former] = now
        return now

    def set_aside_astray(self, table: Table, values: Mapping[str, Any]) -> bool:
        """Set a row aside that points at one which is not there, as it was in the studio it comes from; return whether it did."""
        astray = [
            key for key in table.foreign_keys
            if values.get(key.parent.name) is not None
            and self.session.scalar(select(key.column).where(key.column == values[key.parent.name])) is None
        ]  # fmt: skip
        if not astray:
            return False
        why = f"it points at a row of {astray[0].column.table.name} that is not there"
        number = str(values.get("id", ""))
        keep_aside(self.session, table, number, why, values)
        self.taken["set_aside"] = self.taken.get("set_aside", 0) + 1
        return True

    def add_all(self, table: Table, rows: Sequence[dict[str, Any]]) -> None:
        """Add many rows at once, in their order; those in a row that name the same columns in one go."""
        for _columns, some in groupby(
            rows, key=tuple
        ):  # of rows that differ, the first alone would say which columns are written
            self.session.execute(insert(table), list(some))
        if rows:
            self.taken[table.name] = self.taken.get(table.name, 0) + len(rows)

    def put(self, table: Table, id_: int, values: Mapping[str, Any]) -> None:
        """Change a row that has gone on in the other studio."""
        self.session.execute(update(table).where(table.c.id == id_).values(**values))

    def same(self, table: Table, former: int, now: int) -> None:
        """Remember that a row of the zip is one that is here already."""
        self.ids.setdefault(table.name, {})[former] = now

    def known(self, table: Table, by: Sequence[str]) -> dict[tuple[Any, ...], dict[str, Any]]:
        """Return the rows that are here, by what the same thing is known by in two studios."""
        rows = self.session.execute(select(table)).mappings()
        plain = [plain_row(row, table) for row in rows] if self.merge else []
        return {tuple(row[name] for name in by): row for row in plain}

    def differ(self, noun: str, name: str, here: Mapping[str, Any], there: Mapping[str, Any], done: str) -> None:
        """Keep both sides of something that is not the same."""
        self.differences.append(Difference(noun, name, dict(here), dict(there), done))
