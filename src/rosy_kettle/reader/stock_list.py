"""Price lists and stock as suppliers and spreadsheets have them: which column is what, and what each row means."""

from __future__ import annotations

import re
from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from rosy_kettle.core.amounts.units import OUNCE_G, POUND_G
from rosy_kettle.reader.decimal_signs import decimal_sign_of, read_number, two_ways
from rosy_kettle.reader.names import NameIndex, plain

__all__ = [
    "COLUMNS",
    "DATE_ORDERS",
    "ReadStockRow",
    "asked_row",
    "guess_columns",
    "guess_date_order",
    "guess_names",
    "read_stock_rows",
]

COLUMNS = {
    "name": ("name", "ingredient", "item", "product", "description", "article", "material", "zutat", "artikel"),
    "quantity": ("quantity", "qty", "amount", "stock", "on hand", "weight", "pack", "size", "net", "menge", "quantite"),
    "unit": ("unit", "units", "uom", "einheit"),
    "price": ("price", "cost", "total", "unit price", "preis", "prix", "paid", "amount paid"),
    "currency": ("currency", "curr", "wahrung", "devise"),
    "supplier": ("supplier", "vendor", "from", "shop", "bought from", "lieferant", "fournisseur"),
    "code": ("lot", "lot no", "lot number", "batch", "batch no", "code", "charge", "lot code"),
    "best_before": ("best before", "bb", "bbe", "expiry", "expires", "expiry date", "use by", "exp", "mhd", "haltbar bis"),
    "bought_on": ("bought", "date", "purchase date", "bought on", "received", "gekauft", "ordered"),
}  # fmt: skip
"""What a table may hold, and the headings it is known by."""
GRAMS = {
    "g": 1.0, "gr": 1.0, "gram": 1.0, "grams": 1.0, "gramm": 1.0, "kg": 1000.0, "kilo": 1000.0, "kilos": 1000.0,
    "oz": OUNCE_G, "ounce": OUNCE_G, "ounces": OUNCE_G, "lb": POUND_G, "lbs": POUND_G, "pound": POUND_G,
    "pounds": POUND_G, "mg": 0.001, "t": 1_000_000.0,
}  # fmt: skip
"""Grams of a unit of mass, by the names lists give it."""
CURRENCIES = {"$": "USD", "€": "EUR", "£": "GBP", "¥": "JPY", "kr": "SEK", "zł": "PLN", "fr": "CHF"}
DATE_ORDERS = ("day-month-year", "month-day-year", "year-month-day")
DATE = re.compile(r"^(\d{1,4})[./\- ](\d{1,2})[./\- ](\d{1,4})")
CENTURY = 2000
LOOKED_AT = 60  # rows that tell what a column holds
LARGEST_DAY, LARGEST_MONTH = 31, 12


@dataclass(frozen=True, slots=True)
class ReadStockRow:
    """What a row was taken for."""

    row: int
    """From 1, the headings not counted."""
    text: str
    fate: str
    """lot, price or asked."""
    ingredient: str | None
    quantity_g: float | None
    price: Decimal | None
    currency: str
    supplier: str
    code: str
    best_before: date | None
    bought_on: date | None
    why: str
    """What has to be said of it, or asked."""
    suggestions: tuple[str, ...] = ()


def guess_columns(headings: Sequence[str]) -> dict[str, int]:
    """Return which column is what, as far as the headings say."""
    found: dict[str, int] = {}
    told = [plain(re.sub(r"[(\[].*?[)\]]", "", heading)) for heading in headings]
    for exactly in (True, False):
        for column, names in COLUMNS.items():
            for index, heading in enumerate(told):
                fits = heading in names if exactly else any(set(name.split()) <= set(heading.split()) for name in names)
                if column not in found and index not in found.values() and fits:
                    found[column] = index
    if "quantity" not in found:  # a heading that says a mass, "Gebinde (kg)", heads masses whatever it is called
        massive = (index for index, heading in enumerate(headings) if set(plain(heading).split()) & set(GRAMS))
        first = next((index for index in massive if index not in found.values()), None)
        found |= {} if first is None else {"quantity": first}
    return found


def guess_names(rows: Sequence[Sequence[str]], taken: Collection[int], index: NameIndex) -> int | None:
    """Return the column most of whose cells are names of ingredients; None where in none at least a third are."""
    seen = rows[:LOOKED_AT]
    counts = {
        column: sum(index.match(row[column]).ingredient is not None for row in seen)
        for column in range(len(seen[0]) if seen else 0) if column not in taken
    }  # fmt: skip
    best = max(counts, key=lambda column: counts[column], default=None)
    return best if best is not None and 3 * counts[best] >= len(seen) else None


def guess_date_order(cells: Sequence[str]) -> str | None:
    """Return the one order that all days of a column can be read in; None where several can, or none."""
    orders = set(DATE_ORDERS)
    for cell in cells:
        if DATE.match(cell):
            orders &= {order for order in DATE_ORDERS if _day(cell, order) is not None}
    return orders.pop() if len(orders) == 1 else None


def read_stock_rows(
    headings: Sequence[str], rows: Sequence[Sequence[str]], columns: Mapping[str, int], index: NameIndex, *,
    date_order: str | None, decimal_sign: str | None, currency: str, follow: Callable[[int], None] = lambda _row: None,
) -> list[ReadStockRow]:  # fmt: skip
    """Return what every row means; one that cannot be meant for sure is asked about, none is dropped.

    ``follow`` hears the number of every row that is read.
    """
    unit = _unit_of_heading(headings, columns)
    order = {
        name: date_order or guess_date_order([row[columns[name]] for row in rows])
        for name in ("best_before", "bought_on") if name in columns
    }  # fmt: skip
    massive = [columns[name] for name in ("quantity", "price") if name in columns]
    sign = decimal_sign or decimal_sign_of(row[column] for row in rows for column in massive)
    found = []
    for number, row in enumerate(rows, start=1):
        follow(number)
        found.append(_row(number, row, columns, index, unit, order, sign, currency))
    return found


def asked_row(number: int, row: Sequence[str], why: str) -> ReadStockRow:
    """Return a row of which nothing can be read until something is answered."""
    text = " · ".join(each for each in row if each)[:200]
    return ReadStockRow(number, text, "asked", None, None, None, "", "", "", None, None, why, ())


def _unit_of_heading(headings: Sequence[str], columns: Mapping[str, int]) -> str:
    if "quantity" not in columns:
        return ""
    words = plain(headings[columns["quantity"]]).split()
    return next((word for word in reversed(words) if word in GRAMS), "")


def _row(
    number: int, row: Sequence[str], columns: Mapping[str, int], index: NameIndex, unit: str, order: Mapping[str, str | None],
    sign: str | None, currency: str,
) -> ReadStockRow:  # fmt: skip
    def cell(name: str) -> str:
        return row[columns[name]] if name in columns else ""

    asked: list[str] = []
    match = index.match(cell("name"))
    if match.ingredient is None:
        asked.append(f'What is "{cell("name")[:60]}"?' if cell("name") else "The row names nothing.")
    quantity_g = _grams(cell("quantity"), cell("unit") or unit, sign, asked)
    price = None
    if cell("price"):
        unsure = len(asked)
        price = _number(cell("price"), sign, asked)
        if len(asked) == unsure and (price is None or price < 0):
            asked.append(f'"{cell("price")[:20]}" is no price.')
            price = None
    days = {name: _asked_day(cell(name), order.get(name), asked) for name in ("best_before", "bought_on")}
    fate = "asked" if asked else "lot" if quantity_g else "price" if price is not None else "asked"
    if fate == "asked" and not asked:
        asked.append("There is neither a quantity nor a price.")
    return ReadStockRow(
        number, " · ".join(each for each in row if each)[:200], fate, match.ingredient, quantity_g, price,
        _currency(cell("currency"), cell("price"), currency), cell("supplier")[:200], cell("code")[:80], days["best_before"],
        days["bought_on"], " ".join(asked), match.suggestions,
    )  # fmt: skip


def _grams(text: str, unit: str, sign: str | None, asked: list[str]) -> float | None:
    if not text:
        return None
    unsure = len(asked)
    value = _number(text, sign, asked)
    if len(asked) > unsure:
        return None
    words = [word for word in re.findall(r"[^\W\d_]+", text.casefold()) if word]
    told = next((word for word in words if word in GRAMS), plain(unit))
    if value is None or value <= 0:
        asked.append(f'"{text[:20]}" is no quantity.')
        return None
    if told not in GRAMS:
        asked.append(f'How many grams are "{text[:20]} {unit}"?' if (unit or words) else f'In which unit is "{text[:20]}"?')
        return None
    return float(value) * GRAMS[told]


def _number(text: str, sign: str | None, asked: list[str]) -> Decimal | None:
    """Return a number; one that can be read two ways is asked about unless the table shows how decimals are written."""
    if sign is None and two_ways(text):
        asked.append(f'"{text[:20]}" can be read two ways; say how decimals are written.')
        return None
    return read_number(text, sign or ".")


def _currency(cell: str, price: str, otherwise: str) -> str:
    if re.fullmatch(r"[A-Za-z]{3}", cell.strip()):
        return cell.strip().upper()
    both = f"{cell} {price}".casefold()
    code = re.search(r"\b(usd|eur|gbp|chf|pln|sek|nok|dkk|jpy|cad|aud)\b", both)
    if code:
        return code[1].upper()
    return next((name for sign, name in CURRENCIES.items() if sign in both), otherwise)


def _asked_day(text: str, order: str | None, asked: list[str]) -> date | None:
    if not text:
        return None
    if DATE.match(text) is None:
        asked.append(f'"{text[:20]}" is no day.')
        return None
    if re.match(r"^\d{4}[./\- ]", text):
        order = "year-month-day"
    if order is None:
        asked.append(f'Which is the day in "{text[:20]}"? Say in which order days are written.')
        return None
    day = _day(text, order)
    if day is None:
        asked.append(f'"{text[:20]}" is no day when read {order}.')
    return day


def _day(text: str, order: str) -> date | None:
    found = DATE.match(text)
    if found is None:
        return None
    parts = dict(zip(order.split("-"), (int(each) for each in found.groups()), strict=True))
    year = parts["year"] if parts["year"] >= 1000 else CENTURY + parts["year"]  # noqa: PLR2004 - written in full
    try:
        return date(year, parts["month"], parts["day"])
    except ValueError:
        return None
