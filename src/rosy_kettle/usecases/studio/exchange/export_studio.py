"""A studio out as a zip of open files: one consistent look, streamed, the same bytes for the same studio."""

from __future__ import annotations

import os
from collections.abc import Callable, Iterable, Iterator, Sequence
from contextlib import suppress
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session, selectinload

from rosy_kettle.core.errors import InputError, StoppedError, WorkbenchError
from rosy_kettle.files import formula_to_file
from rosy_kettle.files.studio_zip import StudioZipWriter, json_bytes
from rosy_kettle.store import Studio
from rosy_kettle.store.certificates import ScentCertificateRow
from rosy_kettle.store.durable import to_disk
from rosy_kettle.store.formulas import FormulaRow, PortionRow, VersionRow, record_of
from rosy_kettle.store.ingredients import IngredientPriceRow, IngredientSynonymRow, OwnIngredientRow
from rosy_kettle.store.lots import LotRow, MovementRow
from rosy_kettle.store.photos import photo_folder
from rosy_kettle.store.plain_rows import csv_of, plain_row, plain_rows, stored_rows
from rosy_kettle.usecases.studio.exchange.nouns import LISTS, TOLD, Told, events_table, table_of
from rosy_kettle.usecases.studio.exchange.told_files import Runner, Sheaf, beside, told_files

__all__ = ["export_studio"]

AT_ONCE = 200
MANY = 2_000  # files from which a second process is worth its start
INGREDIENT_PARTS = ("own", "price", "certificate", "synonyms")


def export_studio(
    studio: Studio, target: Path, report: Callable[[int, int], None] = lambda _done, _all: None,
    stopped: Callable[[], bool] = lambda: False,
) -> int:  # fmt: skip
    """Write the studio into a new zip and return how many files it holds.

    Raises
    ------
    InputError
        If there is a file of that name, or it cannot be written.
    StoppedError
        If it was stopped; then nothing is left behind.
    """
    if target.exists():
        raise InputError(f"{target} is there already; choose another name, nothing was overwritten.", quantity="file")
    part = target.with_name(f".{target.name}.{os.getpid()}.part")
    done = 0
    try:
        writer = StudioZipWriter(part)
        try:
            with studio.reading() as session:
                whole = _how_many(session)
                for name, data in _files(session, studio.path):
                    if stopped():
                        raise StoppedError("The export was stopped; nothing was written.", quantity="file")
                    writer.add(name, data)
                    done += 1
                    report(done, max(done, whole))
        except BaseException:
            writer.drop()
            raise
        writer.close(datetime.now(UTC).isoformat())
        part.chmod(0o600)
        to_disk(part)
        os.link(part, target)
    except OSError as error:
        raise InputError(f"{target} cannot be written: {error.strerror}.", quantity="file") from error
    except WorkbenchError:
        raise
    except (LookupError, TypeError, ValueError, AttributeError, ArithmeticError) as error:
        said = "A record cannot be read, so no zip was written: 'rosy-kettle check' names it, 'check --repair' sets it aside."
        raise InputError(said, quantity="studio") from error
    finally:
        with suppress(OSError):  # a folder that cannot be written has nothing to throw away, and says so even then
            part.unlink(missing_ok=True)
    return done


def _how_many(session: Session) -> int:
    tables = [table_of(VersionRow), *(table_of(noun.row) for noun in TOLD)]
    return sum(session.scalar(select(func.count()).select_from(table)) or 0 for table in tables) + len(LISTS) + 3


def _files(session: Session, studio_path: Path) -> Iterator[tuple[str, bytes]]:
    yield from _formulas(session)
    with beside(sum(len(_ids(session, noun)) for noun in TOLD) >= MANY) as run:
        for noun in TOLD:
            yield from _told(session, noun, run)
    yield from _pantry(session)
    for name, lists in LISTS.items():
        yield name, json_bytes({each: _rows(session, table_of(row)) for each, row, _by in lists})
    folder = photo_folder(studio_path)
    for photo in sorted(folder.glob("*.jpg")) if folder.exists() else ():
        yield f"photos/{photo.name}", photo.read_bytes()


def _rows(session: Session, table: Any) -> list[dict[str, Any]]:
    keys = list(table.primary_key.columns)
    return list(plain_rows(session, table, select(table).order_by(*keys)))


def _formulas(session: Session) -> Iterator[tuple[str, bytes]]:
    formulas, versions = table_of(FormulaRow), table_of(VersionRow)
    deep = selectinload(FormulaRow.versions).selectinload(VersionRow.portions).selectinload(PortionRow.lines)
    for ids in _chunks(list(session.scalars(select(FormulaRow.id).order_by(FormulaRow.id)))):
        for row in session.scalars(select(FormulaRow).where(FormulaRow.id.in_(ids)).order_by(FormulaRow.id).options(deep)):
            for version in row.versions:
                file = formula_to_file(record_of(row, version)).model_dump(mode="json")
                grams = [[line.grams for line in portion.lines] for portion in version.portions]
                studio = {
                    "formula": plain_row(row, formulas),
                    "kept": plain_row(version, versions, ("settings", "method", "batch_g", "formula_id")), "grams": grams,
                }  # fmt: skip
                yield f"formulas/{row.id:06d}-{version.number:04d}.json", json_bytes(file | {"studio": studio})
        session.expunge_all()


def _told(session: Session, noun: Told, run: Runner) -> Iterator[tuple[str, bytes]]:
    for files in run(told_files, (_stored(session, noun, ids) for ids in _chunks(_ids(session, noun)))):
        yield from files


def _ids(session: Session, noun: Told) -> list[int]:
    table = table_of(noun.row)
    return list(session.scalars(select(table.c.id).order_by(table.c.id)))


def _stored(session: Session, noun: Told, ids: Sequence[int]) -> Sheaf:
    table, events = table_of(noun.row), events_table(noun)
    happened: list[tuple[Any, ...]] = []
    if events is not None:
        asked = select(events).where(events.c[noun.of].in_(ids)).order_by(events.c.id)
        happened = list(stored_rows(session, events, asked))
    rows = list(stored_rows(session, table, select(table).where(table.c.id.in_(ids)).order_by(table.c.id)))
    return Sheaf(TOLD.index(noun), rows, happened)


def _pantry(session: Session) -> Iterator[tuple[str, bytes]]:
    own, prices, papers = (table_of(row) for row in (OwnIngredientRow, IngredientPriceRow, ScentCertificateRow))
    found: dict[str, dict[str, Any]] = {}
    for part, table, key in (("own", own, "id"), ("price", prices, "ingredient_id"), ("certificate", papers, "ingredient_id")):
        for row in plain_rows(session, table, select(table)):
            found.setdefault(row.pop(key), {})[part] = row
    names = table_of(IngredientSynonymRow)
    for row in plain_rows(session, names, select(names).order_by(names.c.phrase)):
        found.setdefault(row.pop("ingredient_id"), {}).setdefault("synonyms", []).append(row)
    rows = ({"id": id_} | {part: found[id_].get(part) for part in INGREDIENT_PARTS} for id_ in sorted(found))
    yield "pantry/ingredients.csv", csv_of(("id", *INGREDIENT_PARTS), rows)
    for name, row_class in (("lots", LotRow), ("movements", MovementRow)):
        table = table_of(row_class)
        yield f"pantry/{name}.csv", csv_of([column.name for column in table.columns], _streamed(session, table))


def _streamed(session: Session, table: Any) -> Iterable[dict[str, Any]]:
    return plain_rows(session, table, select(table).order_by(table.c.id).execution_options(yield_per=5_000))


def _chunks(ids: Sequence[int]) -> Iterator[Sequence[int]]:
    return (ids[begin : begin + AT_ONCE] for begin in range(0, len(ids), AT_ONCE))
