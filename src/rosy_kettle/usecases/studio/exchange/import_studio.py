"""A studio in from a zip: into an empty one row by row as it was, or into another with both sides shown where they differ."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.exc import OperationalError, StatementError
from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError, WorkbenchError
from rosy_kettle.files.jpeg import is_jpeg
from rosy_kettle.files.studio_zip import StudioZip, open_studio_zip
from rosy_kettle.store import Studio
from rosy_kettle.store.base import Base
from rosy_kettle.store.batches import BatchRow
from rosy_kettle.store.formulas import FormulaRow
from rosy_kettle.store.ingredients import IngredientPriceRow, IngredientSynonymRow, OwnIngredientRow
from rosy_kettle.store.labels import LabelRow
from rosy_kettle.store.lots import LotRow
from rosy_kettle.store.moulds import MouldRow
from rosy_kettle.store.orders import OrderRow
from rosy_kettle.store.photos import keep_photo, photo_folder, settle_photo
from rosy_kettle.store.profiles import ProfileRow
from rosy_kettle.store.rack import PlaceRow, TrayRow
from rosy_kettle.store.settings import SettingsRow
from rosy_kettle.store.tub_tests import TubTestRow
from rosy_kettle.usecases.studio.exchange.look_at_lists import look_at_lists
from rosy_kettle.usecases.studio.exchange.nouns import LISTS, TOLD, table_of, unpointed
from rosy_kettle.usecases.studio.exchange.take_formulas import take_formulas
from rosy_kettle.usecases.studio.exchange.take_in import Difference, Intake
from rosy_kettle.usecases.studio.exchange.take_pantry import take_ingredients, take_lots, take_movements
from rosy_kettle.usecases.studio.exchange.take_told import take_told

__all__ = ["Difference", "ImportedStudio", "import_studio"]

MADE_BY_HAND = (
    FormulaRow, BatchRow, TrayRow, TubTestRow, LabelRow, LotRow, OrderRow, OwnIngredientRow, IngredientPriceRow,
    IngredientSynonymRow,
)  # fmt: skip
"""A studio without a row of these is empty."""
NOT_SAID = frozenset({"id", "request_key", "updated_at", "accepted_at"})
COMES_WITH_IT = (PlaceRow, ProfileRow, MouldRow, SettingsRow)
"""What an empty studio may have already, and gives way."""


@dataclass(frozen=True, slots=True)
class ImportedStudio:
    """What was taken in."""

    made_at: str
    taken: Mapping[str, int]
    """New rows by table."""
    photos: int
    differences: tuple[Difference, ...]


def import_studio(
    studio: Studio, source: Path, *, merge: bool, report: Callable[[int, int], None] = lambda _done, _all: None,
    stopped: Callable[[], bool] = lambda: False,
) -> ImportedStudio:  # fmt: skip
    """Take a zip into the studio, whole or not at all.

    Raises
    ------
    InputError
        If the zip is no studio, or damaged, or the studio is not empty and nobody asked to merge; then nothing has changed.
    StoppedError
        If it was stopped; then nothing has changed.
    """
    zipped = open_studio_zip(source)
    waiting: list[Path] = []
    try:
        with studio.writing() as session:
            empty = is_empty(session)
            if not empty and not merge:
                raise InputError("This studio is not empty; import with merge, or into an empty folder.", quantity="merge")
            intake = Intake(session, zipped, not empty, report, stopped)
            _take_all(intake)
            waiting = _photos(studio, zipped, intake)
    except BaseException:
        for photo in waiting:
            photo.unlink(missing_ok=True)
        raise
    finally:
        zipped.close()
    for photo in waiting:
        settle_photo(photo)
    return ImportedStudio(zipped.made_at, intake.taken, len(waiting), tuple(intake.differences))


def is_empty(session: Session) -> bool:
    """Whether nobody has put anything into the studio yet."""
    return not any(session.scalar(select(func.count()).select_from(table_of(row)).limit(1)) for row in MADE_BY_HAND)


def _take_all(intake: Intake) -> None:
    """Take everything in; a file that holds anything but what stands in its place is named, whatever it was that broke on it."""
    try:
        _take(intake)
    except (WorkbenchError, OperationalError):
        raise  # said already, or a full disk
    except (LookupError, TypeError, ValueError, AttributeError, ArithmeticError, StatementError) as error:
        said = f"{intake.source.reading} in the zip is not what stands in its place; nothing was taken over."
        raise InputError(said, quantity="file") from error


def _take(intake: Intake) -> None:
    if not intake.merge:
        for row in COMES_WITH_IT:
            intake.session.execute(delete(table_of(row)))
    take_ingredients(intake)
    take_formulas(intake)
    take_lots(intake)
    for noun in TOLD:
        take_told(intake, noun)
    take_movements(intake)
    for name, lists in LISTS.items():
        if intake.source.has(name):
            _lists(intake, name, lists)
            look_at_lists(intake.session, name)
            intake.step()


def _lists(intake: Intake, name: str, lists: tuple[tuple[str, type[Base], tuple[str, ...]], ...]) -> None:
    data = intake.source.json(name)
    for each, row_class, by in lists:
        rows = data.get(each, [])
        if not isinstance(rows, list):
            raise InputError(f'{name} in the zip: "{each}" is no list.', quantity="file")
        table = table_of(row_class)
        known = intake.known(table, by)
        numbered = [column.name for column in table.primary_key.columns] == ["id"] and table.c.id.type.python_type is int
        for row in rows:
            pointed: dict[str, Any] = intake.points(row)
            here = known.get(tuple(pointed.get(key) for key in by))
            former = row.get("id") if numbered and row_class is not SettingsRow else None
            if here is None:
                values = intake.values(row, table, name)
                if not intake.set_aside_astray(table, values):
                    intake.insert(table, values, former)
                continue
            if former is not None:
                intake.same(table, former, here["id"])
            if _said(here) != _said(pointed):
                intake.differ(each, str(pointed.get("name") or pointed.get(by[0])), here, pointed, "What is here was kept.")


def _said(row: dict[str, Any]) -> dict[str, Any]:
    said: dict[str, Any] = unpointed({name: value for name, value in row.items() if name not in NOT_SAID})
    return said


def _photos(studio: Studio, zipped: StudioZip, intake: Intake) -> list[Path]:
    """Write photos beside the studio under waiting names; they get their own once all else is committed."""
    folder = photo_folder(studio.path)
    waiting: list[Path] = []
    for name in zipped.names("photos"):
        bare = name.removeprefix("photos/")
        if not (folder / bare).exists():
            picture = zipped.read(name)
            if not is_jpeg(picture):
                for photo in waiting:
                    photo.unlink(missing_ok=True)
                raise InputError(f"{name} in the zip is no picture; nothing was taken over.", quantity="file")
            waiting.append(keep_photo(studio.path, bare, picture))
        intake.step()
    return waiting
