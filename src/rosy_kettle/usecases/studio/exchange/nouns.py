"""Which rows stand in which file of a studio zip, and how rows point at each other."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from sqlalchemy import Table

from rosy_kettle.store.base import Base
from rosy_kettle.store.batches import BatchEventRow, BatchRow
from rosy_kettle.store.clearances import ClearanceRow
from rosy_kettle.store.complaints import ComplaintRow
from rosy_kettle.store.labels import LabelRow
from rosy_kettle.store.learnt_factors import LearntFactorRow
from rosy_kettle.store.lot_states import LotStateRow
from rosy_kettle.store.measurements import MeasurementRow
from rosy_kettle.store.moulds import MouldRow
from rosy_kettle.store.orders import OrderBatchRow, OrderRow
from rosy_kettle.store.practice_runs import PracticeRunRow
from rosy_kettle.store.profiles import ProfileRow
from rosy_kettle.store.rack import AirRow, PlaceRow, TrayEventRow, TrayRow
from rosy_kettle.store.set_aside import SetAsideRow
from rosy_kettle.store.settings import SettingsRow
from rosy_kettle.store.test_series import TestSeriesRow
from rosy_kettle.store.trial_designs import TrialDesignRow, TrialResultRow
from rosy_kettle.store.troubles import TroubleRow
from rosy_kettle.store.tub_tests import TubTestEventRow, TubTestRow

__all__ = ["LISTS", "POINTS_AT", "TOLD", "Told", "events_table", "repointed", "table_of", "unpointed"]


def table_of(row: type[Base]) -> Table:
    """Return the table of a row class."""
    table: Table = row.__table__  # type: ignore[assignment]
    return table


@dataclass(frozen=True, slots=True)
class Told:
    """A noun with a file for each of its rows, its events in it."""

    folder: str
    prefix: str
    row: type[Base]
    events: type[Base] | None
    of: str
    """Column of the event that names the row."""
    known_by: tuple[str, ...]
    """Columns by which the same thing is known in two studios."""


TOLD = (
    Told("tub-tests", "series-", TestSeriesRow, None, "", ("begun_at", "name")),
    Told("batches", "", BatchRow, BatchEventRow, "batch_id", ("created_at", "name")),
    Told("rack", "", TrayRow, TrayEventRow, "tray_id", ("set_out_at", "name", "request_key")),
    Told("tub-tests", "", TubTestRow, TubTestEventRow, "test_id", ("begun_at", "name")),
    Told("labels", "", LabelRow, None, "", ("created_at", "market", "name")),
)
"""In the order they are written, so that what a row points at stands before it."""

LISTS: Mapping[str, tuple[tuple[str, type[Base], tuple[str, ...]], ...]] = {
    "rack/places.json": (("places", PlaceRow, ("name",)), ("air", AirRow, ("at", "place"))),
    "orders.json": (
        ("orders", OrderRow, ("created_at", "who")), ("order_batches", OrderBatchRow, ("order_id", "batch_id")),
        ("lot_states", LotStateRow, ("at", "lot_id")), ("clearances", ClearanceRow, ("at", "batch_id", "market")),
        ("complaints", ComplaintRow, ("created_at", "what")),
    ),
    "learning.json": (
        ("factors", LearntFactorRow, ("id",)), ("measurements", MeasurementRow, ("at", "kind")),
        ("designs", TrialDesignRow, ("designed_at", "name")), ("results", TrialResultRow, ("at", "design_id", "trial")),
        ("troubles", TroubleRow, ("created_at", "symptom")), ("practice", PracticeRunRow, ("created_at", "scenario")),
    ),
    "settings.json": (("settings", SettingsRow, ("id",)), ("profiles", ProfileRow, ("id",)), ("moulds", MouldRow, ("tool_id",)),
        ("set_aside", SetAsideRow, ("set_aside_at", "of_table", "of_id"))),
}  # fmt: skip
"""Files that hold whole lists, in the order they are taken over."""

POINTS_AT: Mapping[str, str] = {
    "formula_id": "formulas", "trials_formula_id": "formulas", "batch_id": "batches", "tray_id": "trays", "test_id": "tub_tests",
    "series_id": "test_series", "lot_id": "lots",
    "order_id": "orders", "design_id": "trial_designs", "first": "batches", "amends": "trial_results",
    "leaves_out": "measurements",
}  # fmt: skip
"""Table a number points at, by the name it stands under, in columns and inside data alike."""


def events_table(noun: Told) -> Table | None:
    """Return the table of a noun's events; None where it has none."""
    return None if noun.events is None else table_of(noun.events)


def repointed(data: Any, ids: Mapping[str, Mapping[int, int]]) -> Any:
    """Return data with every number that points at a row pointing at where that row stands now."""
    if isinstance(data, dict):
        return {name: _pointed(name, value, ids) for name, value in data.items()}
    return [repointed(each, ids) for each in data] if isinstance(data, list) else data


def unpointed(data: Any) -> Any:
    """Return data without what points at other rows: of two sides of one thing these may differ by where the rows stand."""
    if isinstance(data, dict):
        return {name: unpointed(value) for name, value in data.items() if name not in POINTS_AT}
    return [unpointed(each) for each in data] if isinstance(data, list) else data


def _pointed(name: str, value: Any, ids: Mapping[str, Mapping[int, int]]) -> Any:
    if name in POINTS_AT and isinstance(value, int) and not isinstance(value, bool):
        return ids.get(POINTS_AT[name], {}).get(value, value)
    return repointed(value, ids)
