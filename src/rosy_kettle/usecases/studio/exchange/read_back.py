"""What the events of a batch, a tray or a tub test add up to, read as their pages will read it."""

from __future__ import annotations

from typing import Any

from rosy_kettle.core.making.bench import BatchEvent, as_made, check_felt, state_of, step_from
from rosy_kettle.core.making.rack.tray import TrayEvent, tray_state_of
from rosy_kettle.core.making.tub.tub_test import TubEvent, tub_state_of
from rosy_kettle.files import formula_from_file, formula_to_file
from rosy_kettle.files.bench_state import bench_state_to_data
from rosy_kettle.files.formula_file import FormulaFile

__all__ = ["batch_record", "read_back"]


def batch_record(data: dict[str, Any]) -> dict[str, Any]:
    """Return what other programs read of a batch: the formula as made, and the state its events add up to."""
    plan = data["studio"]["plan"]
    steps = [step_from(step) for step in plan["steps"]]
    events = [BatchEvent(each["seq"], each["at"], each["kind"], each["data"]) for each in data["events"]]
    state = state_of(steps, events)
    made = as_made(formula_from_file(FormulaFile.model_validate(plan["formula"])), state)
    return {"made": formula_to_file(made).model_dump(mode="json"), "state": bench_state_to_data(state)}


def read_back(folder: str, row: dict[str, Any], events: list[dict[str, Any]]) -> None:
    """Read a row and its events once; whatever its page would fail on fails here, before it is taken in.

    Raises
    ------
    LookupError, TypeError, ValueError
        If something in them is not of its kind.
    """
    said = [(each["seq"], each["at"], each["kind"], each["data"]) for each in events]
    if folder == "batches":
        batch_record({"studio": row, "events": events})
        for each in events:
            if each["kind"] == "felt":
                check_felt(each["data"]["state"])
    elif folder == "rack":
        tray_state_of(row["set_out_at"], row["place"], [TrayEvent(*each) for each in said])
    elif folder == "tub-tests":
        tub_state_of([TubEvent(*each) for each in said])
    if folder != "batches" and row.get("formula") is not None:
        FormulaFile.model_validate(row["formula"])
