"""Looks whether a studio is whole: its file, its writes, and every record of it; sets aside what no page can read."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path

from rosy_kettle.core.errors import InputError, WorkbenchError
from rosy_kettle.store import Studio, data_folder, open_studio
from rosy_kettle.store.acknowledged import mark_as_it_stands, missing_after
from rosy_kettle.store.copies import copy_verified, damage_of, leaving_no_log, rows_of
from rosy_kettle.store.leftovers import temporary_prefix
from rosy_kettle.store.session import FILE_NAME, refuse_unfit
from rosy_kettle.store.set_aside import list_set_aside, set_aside, set_settings_aside, take_back
from rosy_kettle.usecases.studio.exchange.export_studio import export_studio
from rosy_kettle.usecases.studio.oddities import Oddity, oddities_in
from rosy_kettle.usecases.studio.studio_warnings import StudioWarning, state_of_studio

__all__ = ["CheckedStudio", "Read", "SetAside", "check_studio", "take_record_back"]

Read = Callable[[Studio], Sequence[Oddity]]
"""Reads every record of a studio as its page does, and returns those whose page fails."""


@dataclass(frozen=True, slots=True)
class SetAside:
    """A record that is set aside, and how it is taken back."""

    number: int
    table: str
    id: str
    why: str
    take_back: str


@dataclass(frozen=True, slots=True)
class CheckedStudio:
    """Whether a studio's file is whole, and what is in it."""

    file: str
    integrity: str
    """ok, or the first complaint."""
    counts: dict[str, int]
    """Rows by table; empty where the file is damaged."""
    events_unknown: int
    """Events of a kind this version does not know; they are kept as they are."""
    missing_after: int | None
    """Number of the last acknowledged write that is there, where later ones are missing."""
    last_backup_at: str | None
    warnings: tuple[StudioWarning, ...]
    not_read: tuple[Oddity, ...]
    """Records this version cannot read, each with its number and its way out."""
    set_aside: tuple[SetAside, ...]


def check_studio(folder: Path | None = None, *, repair: bool = False, read: Read = lambda _studio: ()) -> CheckedStudio:
    """Look whether the file is whole, all that was acknowledged is in it and every record can be read, also while it is served.

    ``repair`` accepts that writes are missing, and sets aside the records that no page can read.

    Raises
    ------
    InputError
        If there is no studio, or a newer version wrote it.
    """
    path = _file_in(folder)
    with leaving_no_log(path):
        if damage := damage_of(path):
            return CheckedStudio(str(path), damage, {}, 0, None, None, (), (), ())
        refuse_unfit(path)
        if repair and missing_after(path) is not None:
            mark_as_it_stands(path)
        odd, aside = _looked_through(path, read)
        if repair and any(each.to_set_aside for each in odd):
            _set_aside(path, odd)
            odd, aside = _looked_through(path, read)
        state = state_of_studio(path)
        return CheckedStudio(
            str(path), "ok", rows_of(path), state.events_unknown, state.missing_after, state.last_backup_at, state.warnings,
            tuple(odd), tuple(aside),
        )  # fmt: skip


def take_record_back(number: int, folder: Path | None = None) -> str:
    """Put a record that was set aside back as it was, and return what it is.

    Raises
    ------
    InputError
        If there is no studio.
    NotFoundError, ConflictError
        If nothing is set aside under that number, or its place is taken.
    """
    path = _file_in(folder)
    studio = open_studio(path.parent)
    try:
        with studio.writing() as session:
            row = take_back(session, number)
            return f"{row.of_table} {row.of_id}"
    finally:
        studio.close()


def _file_in(folder: Path | None) -> Path:
    path = (folder or data_folder()) / FILE_NAME
    if not path.exists():
        raise InputError(f"There is no studio at {path}; nothing was checked.", quantity="file")
    return path


def _looked_through(path: Path, read: Read) -> tuple[list[Oddity], list[SetAside]]:
    """Read every record in a copy that is brought up to date: the studio itself is looked at, never written to."""
    with tempfile.TemporaryDirectory(prefix=temporary_prefix("check", os.getpid())) as place:
        copy_verified(path, Path(place) / FILE_NAME)
        studio = open_studio(Path(place))
        try:
            found = {(each.table, each.id): each for each in read(studio)}
            found |= {(each.table, each.id): each for each in oddities_in(studio.path) if not _fails(found, each)}
            if why := _zip_fails(studio):
                found["", "studio.zip"] = why
            with studio.reading() as session:
                aside = [
                    SetAside(row.id, row.of_table, row.of_id, row.why, f"rosy-kettle check --take-back {row.id}")
                    for row in list_set_aside(session)
                ]
        finally:
            studio.close()
    return list(found.values()), aside


def _fails(found: dict[tuple[str, str], Oddity], odd: Oddity) -> bool:
    """Whether the record's page fails anyway: that it is to be set aside says more than what is odd in it."""
    return (odd.table, odd.id) in found and not odd.to_set_aside


def _zip_fails(studio: Studio) -> Oddity | None:
    try:
        export_studio(studio, studio.path.with_name("studio.zip"))
    except WorkbenchError as error:
        said = error.message
    except (LookupError, TypeError, ValueError, AttributeError, ArithmeticError) as error:
        said = f"{type(error).__name__}: {error}"
    else:
        return None
    what, mend = f"no studio zip can be made: {said[:200]}", "set aside what cannot be read"
    return Oddity("", "studio.zip", what, mend, to_set_aside=False)


def _set_aside(path: Path, odd: Sequence[Oddity]) -> None:
    studio = open_studio(path.parent)
    try:
        with studio.writing() as session:
            names = tuple(each.id for each in odd if each.table == "settings" and each.to_set_aside)
            if names:
                set_settings_aside(session, names, "not understood by this version")
            for each in odd:
                if each.to_set_aside and each.table != "settings":
                    set_aside(session, each.table, each.id, each.what)
    finally:
        studio.close()
