"""What the events of a batch, a tray or a tub test add up to, read as their pages will read it."""

from __future__ import annotations

from typing import Any

from rosy_kettle.core.making.bench import BenchState, as_made, state_of, step_from
from rosy_kettle.core.making.happening import Event
from rosy_kettle.core.making.rack.tray import tray_state_of
from rosy_kettle.core.making.tub.tub_test import tub_state_of
from rosy_kettle.files import formula_from_file, formula_to_file
from rosy_kettle.files.bench_state import bench_state_to_data
from rosy_kettle.files.formula_file import FormulaFile

__all__ = ["batch_record", "read_back"]


def batch_record(data: dict[str, Any]) -> dict[str, Any]:
    """Return what other programs read of a batch: the formula as made, and the state its events add up to."""
    plan = data["studio"]["plan"]
    return _record(plan, state_of([step_from(step) for step in plan["steps"]], _events(data["events"])))


def _record(plan: dict[str, Any], state: BenchState) -> dict[str, Any]:
    made = as_made(formula_from_file(FormulaFile.model_validate(plan["formula"])), state)
    return {"made": formula_to_file(made).model_dump(mode="json"), "state": bench_state_to_data(state)}


def _events(told: list[dict[str, Any]]) -> list[Event]:
    return [
        Event(each["seq"], each["at"], each["kind"], each["data"], each.get("event_id"), each.get("made_at")) for each in told
    ]  # fmt: skip


def read_back(folder: str, row: dict[str, Any], events: list[dict[str, Any]]) -> None:
    """Read a row and its events once; whatever its page would fail on fails here, before it is taken in.

    An event that this version does not know, or cannot read, is kept as it is: its page says so.

    Raises
    ------
    LookupError, TypeError, ValueError
        If something in them is not of its kind.
    """
    said = _events(events)
    if folder == "batches":
        plan = row["plan"]
        _record(plan, state_of([step_from(step) for step in plan["steps"]], said))
    elif folder == "rack":
        tray_state_of(row["set_out_at"], row["place"], said)
    elif folder == "tub-tests":
        tub_state_of(said, float(row.get("use", {}).get("dose_g") or 0.0))
    if folder != "batches" and row.get("formula") is not None:
        FormulaFile.model_validate(row["formula"])
