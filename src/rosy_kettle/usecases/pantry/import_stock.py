"""A supplier's list or a spreadsheet of stock taken over: looked at first, taken over in one go, taken back in one go."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError, NotFoundError, StoppedError
from rosy_kettle.files.spreadsheet import Sheet, read_sheet
from rosy_kettle.reader.stock_list import (
    COLUMNS,
    DATE_ORDERS,
    ReadStockRow,
    asked_row,
    guess_columns,
    guess_names,
    read_stock_rows,
)
from rosy_kettle.reference import Synonym
from rosy_kettle.store.ingredients import learn_synonym, set_price
from rosy_kettle.store.lots import LotRow, MovementRow, add_lots, list_lots, move
from rosy_kettle.usecases.formulas.parse_recipe import name_index
from rosy_kettle.usecases.studio.studio_tables import learned_synonyms, studio_tables

__all__ = ["STOCK_HEADINGS", "ImportAsk", "StockImport", "Watch", "read_list", "stock_rows", "take_import_back", "take_list"]

STOCK_HEADINGS = (
    "Ingredient", "Name", "Lot", "Supplier", "Bought", "Price", "Currency", "Bought g", "Left g", "Best before", "Opened",
)  # fmt: skip


NAMELESS = "Say which column names the ingredient."
AT_ONCE = 5_000  # lots that are put in between two looks at whether to stop
EVERY = 500  # rows between two words of how far it is


@dataclass(frozen=True, slots=True)
class Watch:
    """Who is told how far a long list is, and may stop it."""

    report: Callable[[int, int], None]
    stopped: Callable[[], bool]

    def at(self, row: int, whole: int) -> None:
        """Say how far it is, and stop where that is asked."""
        if row % EVERY == 0:
            self.report(row, whole)
            if self.stopped():
                raise StoppedError("The list was stopped; nothing of it was taken over.", quantity="content")


UNWATCHED = Watch(lambda _done, _all: None, lambda: False)


@dataclass(frozen=True, slots=True)
class ImportAsk:
    """A file, what its columns are, what strange names mean, and whether it is only looked at."""

    data: bytes
    key: str
    """Names this import; the lots it makes are known by it."""
    columns: Mapping[str, int] | None = None
    date_order: str | None = None
    decimal_sign: str | None = None
    """"." or ","; None is as the table shows."""
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


def read_list(session: Session, ask: ImportAsk, watch: Watch = UNWATCHED) -> StockImport:
    """Read a list of stock or prices: the fate of every row, nothing taken over and no name learnt.

    Raises
    ------
    InputError
        If the file is no table, a column is none of its, or the days are said in no known order.
    StoppedError
        If whoever asked has changed their mind.
    """
    sheet = read_sheet(ask.data)
    columns = _columns(sheet, ask)
    if ask.date_order is not None and ask.date_order not in DATE_ORDERS:
        raise InputError(f"Days are written {', '.join(DATE_ORDERS)}.", quantity="date_order")
    tables, meant = studio_tables(session), ask.meanings or {}
    strange = next((id_ for id_ in meant.values() if id_ not in tables.ingredients), None)
    if strange is not None:
        raise InputError(f'Ingredient "{strange[:60]}" is not known.', quantity="meanings")
    known = [each for each in learned_synonyms(session) if each.phrase not in meant]
    index = name_index(tables, known + [Synonym(phrase, id_) for phrase, id_ in meant.items()])
    if "name" not in columns and ask.columns is None:
        named = guess_names(sheet.rows, columns.values(), index)
        columns |= {} if named is None else {"name": named}
    if "name" not in columns:
        if not ask.dry:
            raise InputError(NAMELESS, quantity="columns", headings=list(sheet.headings))
        rows = [asked_row(number, row, NAMELESS) for number, row in enumerate(sheet.rows, start=1)]
        return StockImport(sheet.headings, columns, tuple(rows), 0)
    whole = len(sheet.rows) * (1 if ask.dry else 2)
    rows = read_stock_rows(
        sheet.headings, sheet.rows, columns, index, date_order=ask.date_order, decimal_sign=ask.decimal_sign,
        currency=ask.currency, follow=lambda row: watch.at(row, whole),
    )  # fmt: skip
    return StockImport(sheet.headings, columns, tuple(rows), 0)


def take_list(session: Session, ask: ImportAsk, read: StockImport, watch: Watch = UNWATCHED) -> StockImport:
    """Take over what was read, all of it or nothing, and learn what strange names mean; rows to be asked about are left.

    Raises
    ------
    StoppedError
        If whoever asked has changed their mind; let the session fall, and nothing was taken over.
    """
    for phrase, ingredient_id in (ask.meanings or {}).items():
        learn_synonym(session, phrase, ingredient_id)
    return replace(read, taken=_take(session, read.rows, ask.key, watch))


def _columns(sheet: Sheet, ask: ImportAsk) -> dict[str, int]:
    columns = dict(guess_columns(sheet.headings) if ask.columns is None else ask.columns)
    wrong = next((name for name, at in columns.items() if name not in COLUMNS or not 0 <= at < len(sheet.headings)), None)
    if wrong is not None:
        raise InputError(f'There is no column for "{wrong[:40]}".', quantity="columns")
    return columns


def _take(session: Session, rows: Sequence[ReadStockRow], key: str, watch: Watch) -> int:
    """Take over what need not be asked about: a lot where there is a quantity, else a price."""
    for row in rows:
        if row.fate == "price" and row.ingredient is not None and row.price is not None:
            set_price(session, row.ingredient, row.price, row.currency)
    lots = [row for row in rows if row.fate == "lot"]
    for begin in range(0, len(lots), AT_ONCE):
        watch.at(len(rows) + begin, 2 * len(rows))
        add_lots(session, [_lot(row, key) for row in lots[begin : begin + AT_ONCE]], "taken over from a list")
    return sum(row.fate != "asked" for row in rows)


def _lot(row: ReadStockRow, key: str) -> dict[str, Any]:
    return {
        "ingredient_id": row.ingredient, "code": row.code or f"{row.ingredient} {key[:8]}-{row.row}", "supplier": row.supplier,
        "bought_on": row.bought_on, "price": row.price, "currency": row.currency, "quantity_g": row.quantity_g,
        "best_before": row.best_before, "properties": {}, "request_key": f"{key}-{row.row}",
    }  # fmt: skip


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
