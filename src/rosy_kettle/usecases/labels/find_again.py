"""A recall: from one code to the lots, batches, trays, labels, orders and people that hang together with it."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from sqlalchemy import or_, select
from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError
from rosy_kettle.store.batches import PRINTED_CODE, BatchRow, counted_pieces, printed_code
from rosy_kettle.store.complaints import complaints_of_batches
from rosy_kettle.store.labels import LabelRow
from rosy_kettle.store.lots import LotRow
from rosy_kettle.store.orders import OrderBatchRow, OrderRow, orders_of_batches
from rosy_kettle.store.rack import trays_of_batch
from rosy_kettle.usecases.pantry.draw_stock import drawn_by
from rosy_kettle.usecases.pantry.keep_lots import trace_lot
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["Recall", "recall"]

NAMED, ASSUMED = "a jar named at the bench", "no jar was named, so the one due was assumed"
Entry = dict[str, Any]


@dataclass(slots=True)
class Recall:
    """What hangs together with a code, each with how; what is only assumed stands under ``assumed`` as well."""

    code: str
    lots: list[Entry] = field(default_factory=list)
    batches: list[Entry] = field(default_factory=list)
    trays: list[Entry] = field(default_factory=list)
    labels: list[Entry] = field(default_factory=list)
    orders: list[Entry] = field(default_factory=list)
    people: list[Entry] = field(default_factory=list)
    photos: list[Entry] = field(default_factory=list)
    complaints: list[Entry] = field(default_factory=list)
    assumed: list[Entry] = field(default_factory=list)


def recall(session: Session, code: str) -> Recall:
    """Return all that hangs together with a lot's code, a batch's code or name, or a printed code.

    Raises
    ------
    InputError
        If no code is given.
    """
    asked = code.strip()
    if not asked:
        raise InputError("Which code? That of a lot, of a batch, or the one printed on the label.", quantity="code")
    found = Recall(asked)
    batches: dict[int, str] = {}
    for lot in _lots_called(session, asked):
        found.lots.append(_lot(session, lot, "the code on the jar"))
        for use in trace_lot(session, lot.id).uses:
            sure = use.assumed_g <= 0
            batches.setdefault(use.batch_id, f"{use.mass_g:.1f} g of lot {lot.code}: {NAMED if sure else ASSUMED}")
            if not sure:
                why = f"{use.assumed_g:.1f} g of lot {lot.code} in batch {use.batch_id}: {ASSUMED}"
                found.assumed.append({"noun": "batch", "id": use.batch_id, "text": why})
    for batch_id, how in _batches_called(session, asked).items():
        batches.setdefault(batch_id, how)
    rows = {id_: row for id_ in batches if (row := session.get(BatchRow, id_)) is not None}
    for id_, row in rows.items():
        found.batches.append(_batch(session, row, batches[id_]))
        _hangs_on(session, row, found)
    _orders(session, rows, found)
    found.complaints = [
        {"id": each.id, "batch_id": each.batch_id, "kind": each.kind, "what": each.what, "how": "a complaint of the batch"}
        for each in complaints_of_batches(session, list(rows))
    ]  # fmt: skip
    return found


def _lots_called(session: Session, code: str) -> list[LotRow]:
    return list(session.scalars(select(LotRow).where(or_(LotRow.code == code, LotRow.code.ilike(code))).order_by(LotRow.id)))


def _batches_called(session: Session, code: str) -> dict[int, str]:
    """Return batches by their printed code, by the code on a kept label, and by their name."""
    found: dict[int, str] = {}
    printed = PRINTED_CODE.fullmatch(code)
    row = session.get(BatchRow, int(printed[1])) if printed else None
    if row is not None and printed_code(row) == code:
        found[row.id] = "the code of the batch"
    labelled = select(LabelRow).where(LabelRow.batch_id.is_not(None)).order_by(LabelRow.id)
    for label in session.scalars(labelled):
        if label.batch_id is not None and str(label.facts.get("batch_code") or "").casefold() == code.casefold():
            found.setdefault(label.batch_id, f"the code on label {label.id}")
    for named in session.scalars(select(BatchRow).where(BatchRow.name.ilike(code)).order_by(BatchRow.id)):
        found.setdefault(named.id, "the name of the batch")
    return found


def _lot(session: Session, lot: LotRow, how: str) -> Entry:
    item = studio_tables(session).ingredients.get(lot.ingredient_id)
    return {
        "id": lot.id, "code": lot.code, "ingredient": lot.ingredient_id, "supplier": lot.supplier,
        "name": lot.ingredient_id if item is None else item.short_name, "how": how,
    }  # fmt: skip


def _batch(session: Session, row: BatchRow, how: str) -> Entry:
    pieces = counted_pieces(session, [row.id]).get(row.id) or sum(int(each["pieces"]) for each in row.plan["pieces"])
    return {
        "id": row.id, "code": printed_code(row), "name": row.name, "made_at": row.created_at.isoformat(), "pieces": pieces,
        "how": how,
    }  # fmt: skip


def _hangs_on(session: Session, row: BatchRow, found: Recall) -> None:
    """Add what one batch came from and went to."""
    known = {each["id"] for each in found.lots}
    for drawn in drawn_by(session, row.id):
        if drawn.lot.id not in known and drawn.mass_g > 0:
            known.add(drawn.lot.id)
            said = NAMED if drawn.assumed is False else ASSUMED
            found.lots.append(_lot(session, drawn.lot, f"{drawn.mass_g:.1f} g in batch {row.id}: {said}"))
            if drawn.assumed is not False:
                text = f"lot {drawn.lot.code} in batch {row.id}: {ASSUMED}"
                found.assumed.append({"noun": "lot", "id": drawn.lot.id, "text": text})
    for tray in trays_of_batch(session, row.id):
        found.trays.append({
            "id": tray.id, "name": tray.name, "pieces": tray.pieces, "place": tray.place, "batch_id": row.id,
            "wrapped_at": None if tray.wrapped_at is None else tray.wrapped_at.isoformat(), "how": "set out from the batch",
        })  # fmt: skip
    for label in session.scalars(select(LabelRow).where(LabelRow.batch_id == row.id).order_by(LabelRow.id)):
        found.labels.append({
            "id": label.id, "market": label.market, "code": label.facts.get("batch_code") or "", "copies": label.copies,
            "draft": label.draft, "batch_id": row.id, "printed_at": label.created_at.isoformat(), "how": "printed for the batch",
        })  # fmt: skip


def _orders(session: Session, rows: dict[int, BatchRow], found: Recall) -> None:
    """Add orders that were made from the batches, and those that only may have been: of the same formula, and made since."""
    sure: set[int] = set()
    for order, batch_id in orders_of_batches(session, list(rows)):
        if order.id not in sure:
            sure.add(order.id)
            _order(order, f"made from batch {batch_id}", found)
    formulas = {row.formula_id: row for row in rows.values() if row.formula_id is not None}
    if not formulas:
        return
    told = set(session.scalars(select(OrderBatchRow.order_id)))
    asked = select(OrderRow).where(OrderRow.formula_id.in_(formulas), OrderRow.state == "made").order_by(OrderRow.id)
    for order in session.scalars(asked):
        row = formulas[order.formula_id]
        if order.id in sure or order.id in told or (order.due_at is not None and order.due_at < row.created_at):
            continue
        how = f"of the same formula as batch {row.id}; nobody said which batches it was made from"
        _order(order, how, found)
        found.assumed.append({"noun": "order", "id": order.id, "text": f"order {order.id} for {order.who}: {how}"})


def _order(order: OrderRow, how: str, found: Recall) -> None:
    found.orders.append({
        "id": order.id, "who": order.who, "pieces": order.pieces, "state": order.state, "for": order.for_, "note": order.note,
        "due_at": None if order.due_at is None else order.due_at.isoformat(), "how": how,
    })  # fmt: skip
    found.people.append({"who": order.who, "contact": order.note, "order_id": order.id, "how": how})
