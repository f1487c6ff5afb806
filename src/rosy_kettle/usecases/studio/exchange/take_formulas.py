"""Formulas out of a studio zip: one that goes on there is taken on, two edits of one are kept side by side."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from sqlalchemy import select

from rosy_kettle.core.errors import InputError
from rosy_kettle.files import formula_from_file, formula_to_file
from rosy_kettle.files.formula_file import formula_file_from_data
from rosy_kettle.store.formulas import FormulaRow, VersionRow, put_version, record_of
from rosy_kettle.store.plain_rows import plain_row, stored_row
from rosy_kettle.usecases.studio.exchange.nouns import table_of
from rosy_kettle.usecases.studio.exchange.take_in import FROM_THERE, Intake

__all__ = ["take_formulas"]

Versions = dict[int, dict[str, Any]]
"""Files of one formula by number of the version."""


def take_formulas(intake: Intake) -> None:
    """Take in every formula of the zip.

    Raises
    ------
    InputError
        If a file is no formula.
    """
    here: dict[str, list[FormulaRow]] = {}
    for row in intake.session.scalars(select(FormulaRow)) if intake.merge else ():
        here.setdefault(plain_row(row, table_of(FormulaRow))["created_at"], []).append(row)
    for former, there in _by_formula(intake):
        meta = there[max(there)]["studio"]["formula"]
        alike = here.get(meta["created_at"], [])
        alike.sort(key=lambda row: (row.id != former, row.name != meta["name"]))
        if not _known(intake, alike, former, there) and not _goes_on(intake, alike, former, there, meta):
            _keep_both(intake, alike, former, there, meta)
        intake.session.flush()


def _by_formula(intake: Intake) -> Iterator[tuple[int, Versions]]:
    """Files are read one formula after the other, its versions together."""
    former, versions = 0, Versions()
    for name in intake.source.names("formulas"):
        data = intake.source.json(name)
        try:
            id_, number = (int(part) for part in name.removeprefix("formulas/").removesuffix(".json").split("-"))
            data["studio"]["formula"]["created_at"], data["studio"]["kept"]["number"]
        except (ValueError, KeyError, TypeError) as error:
            raise InputError(f"{name} in the zip is no version of a formula.", quantity="file") from error
        if id_ != former and versions:
            yield former, versions
            versions = {}
        former = id_
        versions[number] = data
        intake.step()
    if versions:
        yield former, versions


def _add(intake: Intake, former: int, there: Versions, meta: dict[str, Any], more: str = "") -> None:
    values = stored_row(meta, table_of(FormulaRow), f"formulas/{former}")
    if intake.merge:
        values.pop("id", None)
    row = FormulaRow(**{**values, "name": f"{values['name']}{more}"[:200]})
    for number in sorted(there):
        _put(intake, row, there[number])
    intake.session.add(row)
    intake.session.flush()
    intake.same(table_of(FormulaRow), former, row.id)
    intake.taken["formulas"] = intake.taken.get("formulas", 0) + 1


def _put(intake: Intake, row: FormulaRow, data: dict[str, Any]) -> None:
    formula = formula_from_file(formula_file_from_data({**_file(data), "name": data["name"]}))
    kept = stored_row(data["studio"]["kept"], table_of(VersionRow), f"formulas/{row.name}")
    if intake.merge:
        kept.pop("id", None)
    flat = [mass_g for portion in data["studio"].get("grams", []) for mass_g in portion]
    put_version(row, formula, {at: mass_g for at, mass_g in enumerate(flat) if mass_g is not None}, kept)


def _file(data: dict[str, Any]) -> dict[str, Any]:
    """Return a version without what only the studio needs, and without its name: a formula may be called otherwise here."""
    return {name: value for name, value in data.items() if name not in {"studio", "name"}}


def _versions_here(row: FormulaRow) -> Versions:
    return {version.number: _file(formula_to_file(record_of(row, version)).model_dump(mode="json")) for version in row.versions}


def _known(intake: Intake, alike: list[FormulaRow], former: int, there: Versions) -> bool:
    """Whether a formula that is here has every version of it already."""
    theirs = {number: _file(data) for number, data in there.items()}
    found = next((row for row in alike if theirs.items() <= _versions_here(row).items()), None)
    if found is not None:
        intake.same(table_of(FormulaRow), former, found.id)
    return found is not None


def _goes_on(intake: Intake, alike: list[FormulaRow], former: int, there: Versions, meta: dict[str, Any]) -> bool:
    """Whether the other studio has all versions of one that is here and more: those are added."""
    theirs = {number: _file(data) for number, data in there.items()}
    found = next((row for row in alike if _versions_here(row).items() <= theirs.items()), None)
    if found is None:
        return False
    for number in sorted(set(theirs) - set(_versions_here(found))):
        _put(intake, found, there[number])
    found.updated_at = stored_row(meta, table_of(FormulaRow), "formulas")["updated_at"]
    found.revision += 1
    intake.same(table_of(FormulaRow), former, found.id)
    return True


def _keep_both(intake: Intake, alike: list[FormulaRow], former: int, there: Versions, meta: dict[str, Any]) -> None:
    """Add a formula; where another edit of it is here, both sides are told."""
    own = next((row for row in alike if row.id == former or row.name == meta["name"]), None)
    if own is None:
        return _add(intake, former, there, meta)
    here = formula_to_file(record_of(own)).model_dump(mode="json")
    _add(intake, former, there, meta, FROM_THERE)
    shown = {name: value for name, value in there[max(there)].items() if name != "studio"}
    intake.differ("formula", own.name, here, shown, f'Both are kept: the other is "{meta["name"]}{FROM_THERE}".')
    return None
