"""A supplier's list or a spreadsheet of stock taken over: looked at first, taken over in one go, taken back in one go."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError, NotFoundError
from rosy_kettle.files.spreadsheet import Sheet, read_sheet
from rosy_kettle.reader.stock_list import COLUMNS, DATE_ORDERS, ReadStockRow, guess_columns, read_stock_rows
from rosy_kettle.store.ingredients import learn_synonym, set_price
from rosy_kettle.store.lots import LotRow, MovementRow, add_lots, list_lots, move
from rosy_kettle.usecases.formulas.parse_recipe import name_index
from rosy_kettle.usecases.studio.studio_tables import learned_synonyms, studio_tables

__all__ = ["STOCK_HEADINGS", "ImportAsk", "StockImport", "import_stock", "stock_rows", "take_import_back"]

STOCK_HEADINGS = (
    "Ingredient", "Name", "Lot", "Supplier", "Bought", "Price", "Currency", "Bought g", "Left g", "Best before", "Opened",
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class ImportAsk:
    """A file, what its columns are, what strange names mean, and whether it is only looked at."""

    data: bytes
    key: str
    """Names this import; the lots it makes are known by it."""
    columns: Mapping[str, int] | None = None
    date_order: str | None = None
    currency: str = "USD"
    meanings: Mapping[str, str] | None = None
    """Ingredient by the name in the file, learnt as a synonym."""
    dry: bool = True


@dataclass(frozen=True, slots=True)
class StockImport:
    """What a file says, and what was taken over."""

    headings: tuple[str, ...]
    columns: dict[str, int]
    rows: tuple[ReadStockRow, ...]
    taken: int


def import_stock(session: Session, ask: ImportAsk) -> StockImport:
    """Read a list of stock or prices, and take it over unless it is only looked at; rows that have to be asked about are left.

    Raises
    ------
    InputError
        If the file is no table, a column is none of its, or the days are said in no known order.
    """
    sheet = read_sheet(ask.data)
    columns = _columns(sheet, ask)
    if ask.date_order is not None and ask.date_order not in DATE_ORDERS:
        raise InputError(f"Days are written {', '.join(DATE_ORDERS)}.", quantity="date_order")
    tables = studio_tables(session)
    for phrase, ingredient_id in (ask.meanings or {}).items():
        if ingredient_id not in tables.ingredients:
            raise InputError(f'Ingredient "{ingredient_id[:60]}" is not known.', quantity="meanings")
        learn_synonym(session, phrase, ingredient_id)
    session.flush()
    index = name_index(tables, learned_synonyms(session))
    rows = read_stock_rows(sheet.headings, sheet.rows, columns, index, date_order=ask.date_order, currency=ask.currency)
    taken = 0 if ask.dry else _take(session, rows, ask.key)
    return StockImport(sheet.headings, columns, tuple(rows), taken)


def _columns(sheet: Sheet, ask: ImportAsk) -> dict[str, int]:
    columns = dict(guess_columns(sheet.headings) if ask.columns is None else ask.columns)
    wrong = next((name for name, at in columns.items() if name not in COLUMNS or not 0 <= at < len(sheet.headings)), None)
    if wrong is not None:
        raise InputError(f'There is no column for "{wrong[:40]}".', quantity="columns")
    if "name" not in columns:
        raise InputError("Say which column names the ingredient.", quantity="columns", headings=list(sheet.headings))
    return columns


def _take(session: Session, rows: list[ReadStockRow], key: str) -> int:
    """Take over what need not be asked about: a lot where there is a quantity, else a price."""
    for row in rows:
        if row.fate == "price" and row.ingredient is not None and row.price is not None:
            set_price(session, row.ingredient, row.price, row.currency)
    lots = [row for row in rows if row.fate == "lot"]
    add_lots(session, [
        {
            "ingredient_id": row.ingredient, "code": row.code or f"{row.ingredient} {key[:8]}-{row.row}",
            "supplier": row.supplier,
            "bought_on": row.bought_on, "price": row.price, "currency": row.currency, "quantity_g": row.quantity_g,
            "best_before": row.best_before, "properties": {}, "request_key": f"{key}-{row.row}",
        }
        for row in lots
    ], "taken over from a list")  # fmt: skip
    return sum(row.fate != "asked" for row in rows)


def take_import_back(session: Session, key: str) -> int:
    """Withdraw every lot an import made; return how many. What a batch has drawn from stays.

    Raises
    ------
    NotFoundError
        If nothing was taken over under that name.
    """
    rows = list(session.scalars(select(LotRow).where(LotRow.request_key.startswith(f"{key}-", autoescape=True), LotRow.counted)))
    if not rows:
        raise NotFoundError("Nothing of that import is in the Pantry.", noun="import", id=key)
    used = set(session.scalars(select(MovementRow.lot_id).where(MovementRow.batch_id.is_not(None)).distinct()))
    back = [row for row in rows if row.id not in used]
    for row in back:
        move(session, row, "withdrawn", -row.left_g, "the import was taken back")
        row.counted = False
    return len(back)


def stock_rows(session: Session) -> list[tuple[str, ...]]:
    """Return all lots that count as rows of a table."""
    tables = studio_tables(session)
    found: list[tuple[str, ...]] = []
    for row in reversed(list_lots(session, query="", ingredient_id=None, before=None, limit=1_000_000)):
        item = tables.ingredients.get(row.ingredient_id)
        found.append((
            row.ingredient_id, row.ingredient_id if item is None else item.name, row.code, row.supplier, str(row.bought_on or ""),
            "" if row.price is None else str(row.price), row.currency, f"{row.quantity_g:.1f}", f"{row.left_g:.1f}",
            str(row.best_before or ""), str(row.opened_on or ""),
        ))  # fmt: skip
    return found
