"""Lots in the studio: entered, counted, drawn from by batches, traced both ways."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import UTC, date, datetime
from decimal import Decimal, InvalidOperation
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import ConflictError, InputError
from rosy_kettle.core.making.stock.lots import Lot, LotWord, draw_from_lots, in_drawing_order, words_of_lot
from rosy_kettle.core.records import Formula
from rosy_kettle.store.batches import BatchRow, counted_pieces, find_batch
from rosy_kettle.store.lot_states import HELD, RELEASED, LotStateRow, add_lot_state
from rosy_kettle.store.lots import (
    LotRow,
    MovementRow,
    add_lot,
    find_lot,
    list_movements,
    lot_by_code,
    lots_of,
    lots_of_ingredients,
    move,
    movements_of_batch,
)
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = [
    "LotEntry",
    "LotTrace",
    "LotUse",
    "certify_lot",
    "cost_of_batch",
    "cost_of_mass",
    "cost_of_movement",
    "count_ingredient",
    "count_lot",
    "enter_lot",
    "hold_lot",
    "lots_to_use",
    "named_lot",
    "record_of_lot",
    "said_of",
    "trace_lot",
    "withdraw_lot",
]  # fmt: skip

LEAST_MOVED_G = 1e-6  # what is left of a draw that was put right is rounding
MOST_TRACED = 5_000
HIGHEST_PRICE = 10_000_000
LARGEST_G = 10_000_000.0


@dataclass(frozen=True, slots=True)
class LotEntry:
    """A purchase as it is typed."""

    ingredient_id: str
    code: str
    quantity_g: float
    supplier: str = ""
    bought_on: date | None = None
    price: str | None = None
    currency: str = "USD"
    best_before: date | None = None
    opened_on: date | None = None
    properties: Mapping[str, float] = field(default_factory=dict)
    certificate: Mapping[str, Any] | None = None
    key: str | None = None


@dataclass(frozen=True, slots=True)
class LotUse:
    """A batch that drew from a lot."""

    batch_id: int
    name: str
    made_at: datetime
    mass_g: float
    pieces: int
    assumed_g: float
    """How much of it nobody has said came from this lot."""


@dataclass(frozen=True, slots=True)
class LotTrace:
    """A lot with everything that came and went."""

    row: LotRow
    movements: tuple[MovementRow, ...]
    uses: tuple[LotUse, ...]


def record_of_lot(row: LotRow) -> Lot:
    """Return a lot for the core."""
    return Lot(
        row.id, row.ingredient_id, row.code, row.left_g, row.quantity_g, row.best_before, row.opened_on, row.held
    )  # fmt: skip


def said_of(row: LotRow) -> list[LotWord]:
    """Return what is to be said of a lot today."""
    return words_of_lot(record_of_lot(row), _today())


def hold_lot(session: Session, lot_id: int, state: str, reason: str, who: str, key: str | None = None) -> None:
    """Hold a lot back, or release it; who and why stay beside it.

    Raises
    ------
    InputError
        If no reason is given, or there is no such state.
    NotFoundError
        If there is no such lot.
    """
    lot = find_lot(session, lot_id)
    if state not in {HELD, RELEASED}:
        raise InputError(f"A lot is {HELD} or {RELEASED}.", quantity="state")
    if not reason.strip():
        raise InputError("Why? A sentence is enough; it stays beside the lot.", quantity="reason")
    row = LotStateRow(lot_id=lot_id, state=state, reason=reason.strip(), who=who.strip(), request_key=key)
    lot.held = reason.strip() if add_lot_state(session, row).state == HELD else None
    session.flush()


def _today() -> date:
    return datetime.now(UTC).date()


def enter_lot(session: Session, entry: LotEntry) -> LotRow:
    """Enter a purchase.

    Raises
    ------
    InputError
        If the ingredient is not known, a figure cannot be meant, or it was best before it was bought.
    ConflictError
        If another lot has its code.
    """
    if entry.ingredient_id not in studio_tables(session).ingredients:
        raise InputError(f'Ingredient "{entry.ingredient_id[:60]}" is not known.', quantity="ingredient")
    if not entry.code.strip():
        raise InputError("The lot has no code; give it what stands on the jar.", quantity="code")
    if not 0 < entry.quantity_g <= LARGEST_G:
        raise InputError("The quantity must be a number of grams above 0.", quantity="quantity_g", value=entry.quantity_g)
    if entry.best_before is not None and entry.bought_on is not None and entry.best_before < entry.bought_on:
        raise InputError("It was best before it was bought; look at the two dates again.", quantity="best_before")
    return add_lot(session, LotRow(
        ingredient_id=entry.ingredient_id, code=entry.code.strip(), supplier=entry.supplier.strip(), bought_on=entry.bought_on,
        price=_price(entry.price), currency=entry.currency, quantity_g=entry.quantity_g, best_before=entry.best_before,
        opened_on=entry.opened_on, properties=dict(entry.properties), request_key=entry.key,
        certificate=None if entry.certificate is None else dict(entry.certificate),
    ))  # fmt: skip


def certify_lot(session: Session, lot_id: int, certificate: Mapping[str, Any]) -> None:
    """Keep the supplier's paper of a lot; one that says nothing is taken away.

    Raises
    ------
    NotFoundError
        If there is no such lot.
    """
    row = find_lot(session, lot_id)
    row.certificate = dict(certificate) if any(value not in (None, {}, []) for value in certificate.values()) else None


def _price(text: str | None) -> Decimal | None:
    if text is None or not text.strip():
        return None
    try:
        price = Decimal(text.strip().replace(",", "."))
    except InvalidOperation as error:
        raise InputError(f'The price must be a number such as 21.50, got "{text[:20]}".', quantity="price") from error
    if not price.is_finite() or not 0 <= price <= HIGHEST_PRICE:
        raise InputError(f"The price must lie between 0 and {HIGHEST_PRICE}.", quantity="price")
    return price


def count_lot(session: Session, lot_id: int, left_g: float, reason: str) -> LotRow:
    """Right a lot by what was counted; the difference is a movement with its reason.

    Raises
    ------
    InputError
        If no reason is given.
    """
    row = find_lot(session, lot_id)
    if not reason.strip():
        raise InputError("Why is it otherwise than the book says? A word is enough: counted, spilt, gone off.", quantity="reason")
    if left_g != row.left_g:
        move(session, row, "stocktake", left_g - row.left_g, reason.strip())
    return row


def withdraw_lot(session: Session, lot_id: int) -> None:
    """Take a lot out that was entered by mistake.

    Raises
    ------
    ConflictError
        If a batch has drawn from it: its trace stays.
    """
    row = find_lot(session, lot_id)
    used = [
        each for each in list_movements(session, lot_id=lot_id, batch_id=None, before=None, limit=MOST_TRACED) if each.batch_id
    ]
    if used:
        raise ConflictError(
            f"{row.code} went into batch {used[-1].batch_id}; its trace stays. Count it down to nothing instead.",
            noun="lot", reason="used",
        )  # fmt: skip
    move(session, row, "withdrawn", -row.left_g, "entered by mistake")
    row.counted = False


def count_ingredient(session: Session, ingredient_id: str, on_hand_g: float | None) -> None:
    """Say what is on hand of an ingredient as a whole: its lots are righted, or its first lot entered; None is not known."""
    rows = lots_of(session, ingredient_id)
    if on_hand_g is None:
        for row in rows:
            move(session, row, "withdrawn", -row.left_g, "no longer counted")
            row.counted = False
        return
    if not rows:
        code = f"counted {ingredient_id} {datetime.now(UTC):%Y-%m-%d %H:%M:%S.%f}"
        add_lot(session, LotRow(ingredient_id=ingredient_id, code=code, quantity_g=on_hand_g, properties={}), "counted")
        return
    by_id = {row.id: row for row in rows}
    more_g = on_hand_g - sum(row.left_g for row in rows)
    if more_g > 0:
        move(session, rows[-1], "stocktake", more_g, "counted")
    for draw in draw_from_lots([record_of_lot(row) for row in rows], max(0.0, -more_g), _today()):
        move(session, by_id[draw.lot_id], "stocktake", -draw.mass_g, "counted")


def lots_to_use(session: Session, ingredient_ids: list[str]) -> dict[str, list[LotRow]]:
    """Return the lots of some ingredients in the order they are to be used."""
    found = lots_of_ingredients(session, ingredient_ids)
    ordered = {}
    for id_, rows in found.items():
        by_id = {row.id: row for row in rows}
        ordered[id_] = [by_id[lot.id] for lot in in_drawing_order([record_of_lot(row) for row in rows], _today())]
    return ordered


def named_lot(session: Session, made: Formula, ingredient_id: str, code: str) -> dict[str, Any]:
    """Return what the bench keeps of a lot that was tapped, scanned or typed.

    Raises
    ------
    InputError
        If no such jar is known, it holds something else, or the batch has no such line.
    """
    row = lot_by_code(session, code.strip())
    if row is None or not row.counted:
        raise InputError(f'There is no lot "{code.strip()[:60]}".', quantity="code")
    if row.ingredient_id != ingredient_id:
        raise InputError(f"{row.code} is a jar of {row.ingredient_id}, not of {ingredient_id}.", quantity="code")
    if ingredient_id not in {line.ingredient for line in made.lines}:
        raise InputError("This batch has no such line.", quantity="ingredient")
    return {"ingredient": ingredient_id, "lot_id": row.id, "code": row.code}


def trace_lot(session: Session, lot_id: int) -> LotTrace:
    """Return where a lot went: its movements, and the batches with their pieces.

    Raises
    ------
    NotFoundError
        If there is none under that number.
    """
    row = find_lot(session, lot_id)
    movements = list_movements(session, lot_id=lot_id, batch_id=None, before=None, limit=MOST_TRACED)
    by_batch: dict[int, tuple[float, float]] = {}
    for movement in movements:
        if movement.batch_id is not None:
            mass_g, assumed_g = by_batch.get(movement.batch_id, (0.0, 0.0))
            more_g = -movement.mass_g if movement.assumed is not False else 0.0
            by_batch[movement.batch_id] = (mass_g - movement.mass_g, assumed_g + more_g)
    used = {batch_id: masses_g for batch_id, masses_g in by_batch.items() if masses_g[0] > LEAST_MOVED_G}
    counted = counted_pieces(session, list(used))
    uses = tuple(_use(find_batch(session, batch_id), *masses_g, counted.get(batch_id)) for batch_id, masses_g in used.items())
    return LotTrace(row, tuple(movements), uses)


def _use(batch: BatchRow, mass_g: float, assumed_g: float, counted: int | None) -> LotUse:
    pieces = counted or sum(int(each["pieces"]) for each in batch.plan["pieces"])
    return LotUse(batch.id, batch.name, batch.created_at, mass_g, pieces, assumed_g)


def cost_of_batch(session: Session, batch_id: int) -> tuple[dict[str, Decimal], bool]:
    """Return what the lots of a batch cost by currency, and whether every lot it drew from has a price."""
    found: dict[str, Decimal] = {}
    whole = True
    for movement, lot in movements_of_batch(session, batch_id):
        cost = cost_of_movement(movement, lot)
        if cost is None:
            whole = False
        else:
            found[lot.currency] = found.get(lot.currency, Decimal(0)) + cost
    return found, whole


def cost_of_movement(movement: MovementRow, lot: LotRow) -> Decimal | None:
    """Return what a movement out of a lot cost, by the lot's own price; None where it has none."""
    return cost_of_mass(lot, -movement.mass_g)


def cost_of_mass(lot: LotRow, mass_g: float) -> Decimal | None:
    """Return what a mass out of a lot costs, by the lot's own price; None where it has none."""
    return None if lot.price is None else lot.price * Decimal(str(mass_g)) / Decimal(str(lot.quantity_g))
