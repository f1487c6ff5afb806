"""Reads every record as its page does, and says which cannot be read: what ``check`` looks at."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from flask_openapi3 import OpenAPI
from sqlalchemy import Column, Table, select
from sqlalchemy.orm import Session

from rosy_kettle.api.app import create_app
from rosy_kettle.api.orders import order_answer
from rosy_kettle.store import Studio
from rosy_kettle.store.base import Base
from rosy_kettle.store.orders import find_order
from rosy_kettle.usecases.each_alone import NOT_UNDERSTOOD
from rosy_kettle.usecases.studio.oddities import KEPT, REPAIR, Oddity

__all__ = ["PAGES", "read_records"]

PAGES: dict[str, tuple[str, ...]] = {
    "formulas": ("/api/formulas/{id}",),
    "batches": ("/api/batches/{id}", "/api/batches/{id}/record.json"),
    "trays": ("/api/rack/{id}",),
    "tub_tests": ("/api/tub-tests/{id}",),
    "test_series": ("/api/test-series/{id}",),
    "trial_designs": ("/api/trial-designs/{id}",),
    "troubles": ("/api/troubles/{id}",),
    "lots": ("/api/lots/{id}",),
    "labels": ("/api/labels/{id}",),
    "practice_runs": ("/api/practice-runs/{id}",),
}
"""Where a record is shown, by its table."""
LISTS = {
    "own_ingredients": "/api/ingredients", "profiles": "/api/profiles", "settings": "/api/settings", "moulds": "/api/moulds",
    "measurements": "/api/measurements", "learnt_factors": "/api/learning", "movements": "/api/movements?limit=200",
    "journal": "/api/journal?limit=200", "rack_places": "/api/rack",
}  # fmt: skip
"""Where records are shown that have no page of their own."""
EVENTS_OF = {"batches": "batch_events", "trays": "tray_events", "tub_tests": "tub_test_events"}
FAILED = 500


def read_records(studio: Studio, report: Callable[[int, int], None] = lambda _done, _whole: None) -> list[Oddity]:
    """Return the records whose page fails, each with its number.

    ``report`` hears how many are read, of how many.
    """
    app = create_app(studio)
    app.config["PROPAGATE_EXCEPTIONS"] = False
    app.logger.disabled = True  # what fails is told by its number
    with studio.reading() as session:
        asked = list(_asked(session))
    found: dict[tuple[str, str], Oddity] = {}
    for done, (table, id_, address) in enumerate(asked, 1):
        report(done, len(asked))
        for each in _odd(app, table, id_, address):
            found.setdefault((each.table, each.id), each)
    return [*found.values(), *_orders(studio)]


def _orders(studio: Studio) -> Iterator[Oddity]:
    """Yield the orders that cannot be told: they have no page of their own, and a list would blame a neighbour."""
    with studio.reading() as session:
        for id_ in session.scalars(select(_table("orders").c.id)).all():
            try:
                order_answer(find_order(session, id_))
            except NOT_UNDERSTOOD:
                yield Oddity("orders", str(id_), "it cannot be told in any list", REPAIR, to_set_aside=True)


def _asked(session: Session) -> Iterator[tuple[str, str, str]]:
    """Yield table, number and address of everything there is to read; "" where a list has no number."""
    for table, addresses in PAGES.items():
        number: Column[int] = _table(table).c.id
        for id_ in session.scalars(select(number).order_by(number)):
            yield from ((table, str(id_), address.format(id=id_)) for address in addresses)
    for table, address in LISTS.items():
        yield table, "", address


def _table(name: str) -> Table:
    return Base.metadata.tables[name]


def _odd(app: OpenAPI, table: str, id_: str, address: str) -> Iterator[Oddity]:
    """Yield the record where its page fails, and the events its page does not understand."""
    with app.test_client().get(address) as answer:
        if answer.status_code >= FAILED or (answer.is_json and (answer.json or {}).get("code") == "not_read"):
            yield Oddity(table, id_, f"{address} cannot be shown", REPAIR, to_set_aside=bool(id_))
        elif table in EVENTS_OF and answer.is_json:
            state = (answer.json or {}).get("state") or {}
            for event in state.get("unknown") or ():
                what = f'event {event["seq"]} of {address}, "{event["kind"]}", is not understood; its page says so'
                yield Oddity(EVENTS_OF[table], f"{id_}/{event['seq']}", what, KEPT, to_set_aside=False)
