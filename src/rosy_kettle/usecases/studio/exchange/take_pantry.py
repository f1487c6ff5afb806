"""Ingredients, lots and movements out of a studio zip; what a lot holds is always the sum of its movements."""

from __future__ import annotations

from typing import Any

from sqlalchemy import Table, func, select, update

from rosy_kettle.store.certificates import ScentCertificateRow
from rosy_kettle.store.ingredients import IngredientPriceRow, IngredientSynonymRow, OwnIngredientRow
from rosy_kettle.store.lots import LotRow, MovementRow
from rosy_kettle.store.plain_rows import plain_row, rows_of_csv
from rosy_kettle.usecases.studio.exchange.nouns import table_of
from rosy_kettle.usecases.studio.exchange.take_in import FROM_THERE, Intake

__all__ = ["take_ingredients", "take_lots", "take_movements"]

INGREDIENTS, LOTS, MOVEMENTS = "pantry/ingredients.csv", "pantry/lots.csv", "pantry/movements.csv"
PARTS = (
    ("own", OwnIngredientRow, "id"), ("price", IngredientPriceRow, "ingredient_id"),
    ("certificate", ScentCertificateRow, "ingredient_id"),
)  # fmt: skip
AT_ONCE = 20_000
WHEN = {"updated_at", "created_at"}


def take_ingredients(intake: Intake) -> None:
    """Take in own ingredients, prices, certificates and learned names; what differs stays as it is here, and is told."""
    if not intake.source.has(INGREDIENTS):
        return
    known = {part: intake.known(table_of(row), (key,)) for part, row, key in PARTS}
    names = intake.known(table_of(IngredientSynonymRow), ("phrase",))
    for row in rows_of_csv(intake.source.read(INGREDIENTS), INGREDIENTS):
        for part, row_class, key in PARTS:
            if row.get(part) is not None:
                there = {key: row["id"], **row[part]}
                _one(intake, part, table_of(row_class), known[part].get((row["id"],)), there)
        for name in row.get("synonyms") or []:
            there = {"ingredient_id": row["id"], **name}
            _one(intake, "synonym", table_of(IngredientSynonymRow), names.get((name["phrase"],)), there)
    intake.step()


def _one(intake: Intake, noun: str, table: Table, here: dict[str, Any] | None, there: dict[str, Any]) -> None:
    if here is None:
        intake.insert(table, intake.values(there, table, INGREDIENTS))
    elif _said(here) != _said(there):
        name = str(there.get("phrase") or there.get("id") or there.get("ingredient_id"))
        intake.differ(noun, name, here, there, "What is here was kept.")


def _said(row: dict[str, Any]) -> dict[str, Any]:
    return {name: value for name, value in row.items() if name not in WHEN}


def take_lots(intake: Intake) -> None:
    """Take in lots; the same code of the same ingredient is the same jar."""
    if not intake.source.has(LOTS):
        return
    table = table_of(LotRow)
    known = intake.known(table, ("code",))
    for row in rows_of_csv(intake.source.read(LOTS), LOTS):
        here = known.get((row["code"],))
        if here is not None and here["ingredient_id"] == row["ingredient_id"]:
            intake.same(table, row["id"], here["id"])
            continue
        values = intake.values(row, table, LOTS)
        if here is not None:
            values["code"] = f"{row['code']}{FROM_THERE}"
            intake.differ("lot", row["code"], here, row, f'Another jar has this code; the other is "{values["code"]}".')
        intake.insert(table, values, row["id"])
    intake.step()


def take_movements(intake: Intake) -> None:
    """Take in movements that are not here yet, and reckon what every jar holds."""
    if not intake.source.has(MOVEMENTS):
        return
    table, waiting = table_of(MovementRow), list[dict[str, Any]]()
    here: set[tuple[Any, ...]] = set()
    if intake.merge:
        here = {_known(plain_row(row, table)) for row in intake.session.execute(select(table)).mappings()}
    for row in rows_of_csv(intake.source.read(MOVEMENTS), MOVEMENTS):
        pointed = intake.points(row)
        if _known(pointed) in here:
            continue
        values = intake.values(row, table, MOVEMENTS)
        if intake.merge:
            values.pop("id", None)
        waiting.append(values)
        if len(waiting) >= AT_ONCE:
            intake.add_all(table, waiting)
            waiting.clear()
            intake.step()
    intake.add_all(table, waiting)
    if intake.merge:
        lots = table_of(LotRow)
        left = select(func.coalesce(func.sum(table.c.mass_g), 0.0)).where(table.c.lot_id == lots.c.id).scalar_subquery()
        intake.session.execute(update(lots).values(left_g=left))
    intake.step()


def _known(row: dict[str, Any]) -> tuple[Any, ...]:
    return (row["lot_id"], row["batch_id"], row["kind"], row["mass_g"], row["at"])
