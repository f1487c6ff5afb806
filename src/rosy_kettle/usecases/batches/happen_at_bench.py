"""Let things happen to a batch: each is known by its id, follows what was seen, and is on disk before anyone is told."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import asdict, replace
from datetime import UTC, datetime, timedelta
from typing import Any, Protocol

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import ConflictError, InputError
from rosy_kettle.core.making.bench import BATCH_EVENTS, BenchState, about_batch, as_made, check_event
from rosy_kettle.core.making.happening import About, Event
from rosy_kettle.store.batches import add_event
from rosy_kettle.usecases.batches.run_batch import Bench, open_bench, options, predicted_state
from rosy_kettle.usecases.happen import Coming, follow, is_repeat, read_before_kept
from rosy_kettle.usecases.pantry.draw_stock import settle_stock
from rosy_kettle.usecases.pantry.keep_lots import named_lot

__all__ = ["Clock", "let_happen"]


class Clock(Protocol):
    """The bench's time; it may run fast where devices are simulated."""

    rate: float

    def now(self) -> float:
        """Return seconds since 1970 UTC."""
        ...


def let_happen(session: Session, batch_id: int, coming: Coming, clock: Clock) -> bool:
    """Let one thing happen to a batch; return whether it is new, for a repeat changes nothing.

    Raises
    ------
    ConflictError
        If the batch has moved on, is closed, or the step is another, and it is not to be held.
    InputError
        If it cannot be meant.
    """
    bench = open_bench(session, batch_id)
    if is_repeat(coming, bench.events):
        return False
    try:
        following = follow(BATCH_EVENTS, coming, bench.events)
        declared = BATCH_EVENTS.kind(coming.kind)
        amends = bench.state.closed_at is not None and declared.late == "amends"
        if amends:
            declared.check(bench.state, following.data)
        else:
            check_event(bench.state, following.kind, following.data)
    except ConflictError:
        if not (coming.hold and BATCH_EVENTS.kind(coming.kind).waits):
            raise
        _keep(session, bench, _held(coming, bench))
        return True
    following = replace(following, data=_worked_out(session, bench, following, clock))
    if amends:
        following = _amendment(following, _about(bench))
    state = _keep(session, bench, following)
    if following.kind == "rescued" and following.data["way"] != "take-out":
        weighed = {"step": following.data["step"], "actual_g": following.data["actual_g"], "source": following.data["source"]}
        _keep(session, replace(bench, state=state), Coming(state.seq, "weighed", weighed, None, following.made_at))
    elif following.kind == "closed":
        bench.row.closed_at = datetime.now(UTC)
        settle_stock(session, batch_id, state)
    elif state.closed_at is not None:
        settle_stock(session, batch_id, state, _restocked(following, bench.state))
    return True


def _keep(session: Session, bench: Bench, coming: Coming) -> BenchState:
    """Read an event as the pages will, then keep it."""

    def look(state: BenchState) -> object:
        return as_made(bench.planned, state)

    state = read_before_kept(BATCH_EVENTS, bench.state, coming.as_event(), _about(bench), look)
    add_event(session, bench.row.id, coming.after, coming.kind, coming.data, coming.id, coming.made_at)
    return state


def _about(bench: Bench) -> About:
    return about_batch(bench.state, bench.events, lambda id_: _name(bench, id_))


def _name(bench: Bench, ingredient_id: str) -> str:
    item = bench.tables.ingredients.get(ingredient_id)
    return ingredient_id if item is None else item.short_name.lower()


def _held(coming: Coming, bench: Bench) -> Coming:
    """Return what is kept of an event that no longer follows."""
    last = bench.events[-1].seq if bench.events else 0
    data: dict[str, Any] = {"after": coming.after, "what": {"kind": coming.kind, "data": coming.data}}
    since = [each for each in bench.events if each.seq > coming.after and each.kind == coming.kind]
    if any(_figures(each.data) == _figures(coming.data) for each in since):
        data["same"] = True
    return replace(coming, after=last, kind="held", data=data)


def _figures(data: Mapping[str, Any]) -> dict[str, Any]:
    """Return what an event tells, whoever told it."""
    return {name: value for name, value in data.items() if name not in {"source", "predicted"}}


def _amendment(coming: Coming, about: About) -> Coming:
    """Return what a note, a photo, a count, a sample or a jar becomes after the record is closed: an amendment that does it."""
    if coming.kind == "note":
        return replace(coming, kind="amended", data={"text": coming.data["text"]})
    text = BATCH_EVENTS.told(Event(0, "", coming.kind, coming.data), about)
    return replace(coming, kind="amended", data={"text": text, "what": {"kind": coming.kind, "data": coming.data}})


def _restocked(coming: Coming, before: BenchState) -> set[str]:
    """Return the ingredients that a closed batch took otherwise than the book has it, by what was just said."""
    held = next((each for each in before.held if each.id == coming.data.get("of")), None)
    what = coming.data.get("what") or ({} if held is None else {"data": held.data})
    data = what.get("data", {})
    step = next((each for each in before.steps if each.key == data.get("step")), None)
    return {each for each in (data.get("ingredient"), None if step is None else step.ingredient) if each is not None}


def _worked_out(session: Session, bench: Bench, coming: Coming, clock: Clock) -> dict[str, Any]:
    """Return what is kept of an event: what the device said, and what only the studio knows."""
    worked_out = WORKED_OUT.get(coming.kind)
    return dict(coming.data if worked_out is None else worked_out(session, bench, coming.data, clock))


def _timer(_session: Session, _bench: Bench, data: Mapping[str, Any], clock: Clock) -> dict[str, Any]:
    ends = datetime.now(UTC) + timedelta(minutes=float(data["minutes"]) / clock.rate)
    return {**data, "ends_at": ends.isoformat()}


def _temperature(_session: Session, _bench: Bench, data: Mapping[str, Any], clock: Clock) -> dict[str, Any]:
    return {**data, "at": datetime.fromtimestamp(clock.now(), UTC).isoformat()}


def _felt(_session: Session, bench: Bench, data: Mapping[str, Any], _clock: Clock) -> dict[str, Any]:
    return {**data, "predicted": predicted_state(bench.now)}


def _corrected(_session: Session, bench: Bench, data: Mapping[str, Any], _clock: Clock) -> dict[str, Any]:
    if data["ingredient"] not in bench.tables.ingredients:
        raise InputError(f'Ingredient "{data["ingredient"][:60]}" is not known.', quantity="ingredient")
    return dict(data)


def _lot(session: Session, bench: Bench, data: Mapping[str, Any], _clock: Clock) -> dict[str, Any]:
    named = named_lot(session, bench.made, data["ingredient"], data["code"])
    return named | ({} if data.get("mass_g") is None else {"mass_g": data["mass_g"]})


def _rescued(session: Session, bench: Bench, data: Mapping[str, Any], _clock: Clock) -> dict[str, Any]:
    chosen = next(iter(options(session, bench, data["actual_g"], data["way"])), None)
    if chosen is None or chosen.why_not:
        reason = "is not offered" if chosen is None else f"is not possible: {chosen.why_not}"
        raise InputError(f'"{data["way"][:20]}" {reason}.', quantity="way")
    return {
        "source": "scale", **data, "text": chosen.text,
        "targets": {str(position): mass_g for position, mass_g in chosen.targets.items()},
        "effects": [asdict(effect) for effect in chosen.effects],
    }  # fmt: skip


WORKED_OUT: Mapping[str, Callable[[Session, Bench, Mapping[str, Any], Clock], dict[str, Any]]] = {
    "timer": _timer, "temperature": _temperature, "felt": _felt, "corrected": _corrected, "lot": _lot, "rescued": _rescued,
}  # fmt: skip
