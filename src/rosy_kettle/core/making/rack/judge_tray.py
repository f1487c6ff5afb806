"""How far a tray is: from its weigh-ins where there are some, from the model until then."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from rosy_kettle.core.making.plan.drying_span import least_hours
from rosy_kettle.core.making.rack.air import Air, RackAdvice, air_advice
from rosy_kettle.core.making.rack.drying_curve import Prior
from rosy_kettle.core.making.rack.formula_prior import prior_of_formula
from rosy_kettle.core.making.rack.tray import TrayState, TrayWeighing, hours_between
from rosy_kettle.core.making.rack.weigh_ins import READY_SHARE, DryingFit, WeighIn, fit_drying
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Room, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.core.words.rack import other_air_words

__all__ = ["WEIGH_AGAIN", "DueTask", "RackQuestion", "TrayFit", "TrayKnown", "TrayReading", "fit_tray", "judge_tray", "know_tray"]

OPEN_LOSS_PCT = 5.0  # fizz that may be lost by lying open once dry [% of the acid]; project default
USUAL_STEP_G = 0.1
WEIGH_AGAIN = "weigh-again"
OTHER_AIR = 0.01  # slower or quicker by less than this is the same air [-]


@dataclass(frozen=True, slots=True)
class DueTask:
    """Something to do with the pieces."""

    kind: str
    title: str
    due_at: str
    """UTC, ISO 8601."""
    due_h: float
    """The same, since they were set out [h]."""
    done_at: str | None
    moved: bool
    late: bool
    changes: int
    """How often it was moved, done or taken back."""


@dataclass(frozen=True, slots=True)
class RackQuestion:
    """A question to the hands."""

    id: str
    text: str
    from_h: float
    asked: bool
    """Whether its hour has come."""
    passed: bool | None


@dataclass(frozen=True, slots=True)
class TrayReading:
    """Where a tray stands: hours since it was set out."""

    age_h: float
    likely_h: float | None
    low_h: float | None
    high_h: float | None
    dry_pct: float | None
    """How much of what leaves has left [%]."""
    ready: bool
    message: str
    fit: DryingFit | None
    """What the weigh-ins say; None before the first."""
    from_model_h: float | None
    tasks: tuple[DueTask, ...]
    questions: tuple[RackQuestion, ...]
    wrap_by_h: float | None
    """When lying open has cost the fizz about a twentieth."""
    open_loss_pct_day: float | None
    advice: tuple[RackAdvice, ...]
    air: Air | None
    """The air it has stood in, on the mean."""


@dataclass(frozen=True, slots=True)
class TrayFit:
    """What weigh-ins, formula and air say of a tray's drying."""

    formula: Formula | None
    """As made, in the air it has stood in."""
    prior: Prior
    fit: DryingFit | None
    air: Air | None


@dataclass(frozen=True, slots=True)
class TrayKnown:
    """What takes time to work out, and stays the same until something happens to the tray or its air."""

    formula: Formula | None
    """As made, in the air it has stood in."""
    told: Evaluation | None
    prior: Prior
    fit: DryingFit | None
    air: Air | None
    last_air: Air | None
    slower: float = 1.0
    """By how much the air it stands in now makes it dry slower than the air it has stood in, on the mean [×]."""

    @property
    def sets_rather_than_dries(self) -> bool:
        """Whether so little leaves the piece that weighing tells nothing: it is done when its fat has set."""
        if self.formula is None or self.prior.share >= 2 * READY_SHARE:
            return False
        if self.fit is None or self.fit.weighed < 2 or not self.fit.curve:  # noqa: PLR2004 - one weighing shows no loss
            return True
        fresh_g = self.fit.curve[0][1]
        return fresh_g - (self.fit.lasting_g or fresh_g) < 2 * READY_SHARE * fresh_g


def know_tray(state: TrayState, formula: Formula | None, tables: Tables, airs: Sequence[Air]) -> TrayKnown:
    """Return what weigh-ins, formula and air say of a tray, and what its formula says in that air.

    Parameters
    ----------
    state : TrayState
        What happened to it
    formula : Formula or None
        As made; None for pieces from elsewhere
    tables : Tables
        Reference tables and what the studio has learnt
    airs : sequence of Air
        What was logged where it stands, oldest first

    Returns
    -------
    TrayKnown
        Readings and fit in the mean of that air
    """
    dried = fit_tray(state, formula, tables, airs)
    told = None if dried.formula is None else evaluate(dried.formula, tables)
    slower = _slower(dried.formula, told, tables, airs)
    return TrayKnown(dried.formula, told, dried.prior, dried.fit, dried.air, airs[-1] if airs else None, slower)


def _slower(formula: Formula | None, told: Evaluation | None, tables: Tables, airs: Sequence[Air]) -> float:
    """Hold the air of the last hours against the mean of all; where it lets nothing dry, the dampest that does."""
    if formula is None or told is None or not told.drying.hours or len(airs) < 2:  # noqa: PLR2004 - one air is its own mean
        return 1.0
    room = Room(airs[-1].temperature_c, airs[-1].humidity_pct)
    hours = evaluate(replace(formula, room=room), tables).drying.hours or least_hours(formula, tables, room)
    return hours / told.drying.hours if hours else 1.0


def fit_tray(state: TrayState, formula: Formula | None, tables: Tables, airs: Sequence[Air]) -> TrayFit:
    """Return what a tray's weigh-ins say of its drying, and nothing else.

    Parameters
    ----------
    state : TrayState
        What happened to it
    formula : Formula or None
        As made; None for pieces from elsewhere
    tables : Tables
        Reference tables and what the studio has learnt
    airs : sequence of Air
        What was logged where it stands since it was set out, oldest first

    Returns
    -------
    TrayFit
        The fit in the mean of that air; none before the first weigh-in
    """
    air = _mean(airs)
    placed = _in_air(formula, air)
    prior = prior_of_formula(placed, tables)
    return TrayFit(placed, prior, _fit(state.weighings, prior), air)


def judge_tray(state: TrayState, set_out_at: str, now: str, known: TrayKnown, tables: Tables) -> TrayReading:
    """Return where a tray stands.

    Parameters
    ----------
    state : TrayState
        What happened to it
    set_out_at : str
        When its pieces were set out [UTC, ISO 8601]
    now : str
        The present moment [UTC, ISO 8601]
    known : TrayKnown
        What weigh-ins, formula and air say
    tables : Tables
        Reference tables

    Returns
    -------
    TrayReading
        Ready only by what was weighed, never by the clock
    """
    end = state.wrapped_at or now
    age_h = max(0.0, hours_between(set_out_at, end))
    formula, told, fit = known.formula, known.told, known.fit
    setting = known.sets_rather_than_dries
    ends = _hours(None if setting else fit, told)
    likely, low, high = (None if end is None else end + max(0.0, end - age_h) * (known.slower - 1) for end in ends)
    loss = None if told is None else told.shelf.acid_loss_pct_day
    questions = _questions(state, formula, tables, likely, age_h)
    ready = _set(questions, likely, age_h) if setting else fit is not None and fit.ready
    message = _in_other_air(known, (likely, low, high), age_h) or _message(known, likely, age_h, ready=ready)
    return TrayReading(
        age_h=age_h, likely_h=likely, low_h=low, high_h=high, dry_pct=_dry_pct(known, age_h), ready=ready,
        message=message, fit=fit, from_model_h=None if told is None else told.drying.hours,
        tasks=(*_tasks(state, set_out_at, now, formula, tables, likely), *_weighing_asked(state, set_out_at, now, known)),
        questions=questions,
        wrap_by_h=None if loss is None or likely is None or loss <= 0 else likely + 24 * OPEN_LOSS_PCT / loss,
        open_loss_pct_day=loss, advice=air_advice(known.last_air, formula, told, tables), air=known.air,
    )  # fmt: skip


def _mean(airs: Sequence[Air]) -> Air | None:
    if not airs:
        return None
    return replace(
        airs[-1], temperature_c=sum(each.temperature_c for each in airs) / len(airs),
        humidity_pct=sum(each.humidity_pct for each in airs) / len(airs),
    )  # fmt: skip


def _in_air(formula: Formula | None, air: Air | None) -> Formula | None:
    if formula is None or air is None:
        return formula
    return replace(formula, room=Room(air.temperature_c, air.humidity_pct))


def _fit(weighings: Sequence[TrayWeighing], prior: Prior) -> DryingFit | None:
    counted = [each for each in weighings if not each.left_out]
    if not counted:
        return None
    step_g = max(each.step_g for each in counted)
    taken = [WeighIn(each.hours, each.mass_g, each.pieces, each.temperature_c, each.humidity_pct) for each in counted]
    return fit_drying(taken, step_g, prior)


def _hours(fit: DryingFit | None, told: Evaluation | None) -> tuple[float | None, float | None, float | None]:
    """Likely, earliest and latest hour: weighed where there are two weigh-ins that can tell, the model's until then."""
    if fit is not None and (fit.weighed > 1 or told is None) and (fit.state != "cannot-tell" or told is None):
        return fit.ready_h, fit.low_h, fit.high_h
    if told is None:
        return None, None, None
    return told.drying.hours, told.drying.low_hours, told.drying.high_hours


def _set(questions: Sequence[RackQuestion], likely_h: float | None, age_h: float) -> bool:
    """Whether the hands have said so, once its hour has come; the clock alone says nothing."""
    return likely_h is not None and age_h >= likely_h and bool(questions) and all(each.passed for each in questions)


def _dry_pct(known: TrayKnown, age_h: float) -> float | None:
    fit, prior = known.fit, known.prior
    if not known.sets_rather_than_dries and fit is not None and fit.weighed > 1:
        if fit.to_lose_g is None or not fit.curve:
            return None
        loses = fit.curve[0][1] - (fit.lasting_g or 0.0)
        return 100.0 if loses <= 0 else min(100.0, max(0.0, 100 * (1 - fit.to_lose_g / loses)))
    return None if prior.hours is None else 100 * (1 - math.exp(-age_h / prior.tau_h))


def _in_other_air(known: TrayKnown, ends: tuple[float | None, float | None, float | None], age_h: float) -> str:
    """Say the hours as the air now makes them, where weighings speak and it is another air; "" elsewhere."""
    likely, low, high = ends
    weighed = known.fit is not None and known.fit.weighed > 1 and known.fit.state == "drying"
    if not weighed or known.sets_rather_than_dries or likely is None or low is None or high is None or likely <= age_h:
        return ""
    if abs(known.slower - 1) < OTHER_AIR or (known.fit is not None and not known.fit.scale_good_enough):
        return ""
    return other_air_words(likely, low, high, slower=known.slower > 1)


def _message(known: TrayKnown, likely: float | None, age_h: float, *, ready: bool) -> str:
    fit, told = known.fit, known.told
    if known.sets_rather_than_dries and told is not None and told.drying.reason is None:
        return "Set: the hands have said so." if ready else "Hardly anything leaves it, so weighing tells nothing: ask the hands."
    if fit is not None:
        return fit.message
    if told is None:
        return "Nothing is known of these pieces; weigh them now and in a few hours."
    if told.drying.reason:
        return f"They will not dry here: {told.drying.reason}."
    if likely is None:
        return "When they are dry is not known; weigh them now and in a few hours."
    return "By the model they are dry by now; weigh them to know." if age_h >= likely else "Not weighed yet: by the model alone."


def _tasks(
    state: TrayState, set_out_at: str, now: str, formula: Formula | None, tables: Tables, likely_h: float | None
) -> tuple[DueTask, ...]:
    if formula is None:
        return ()
    begin = datetime.fromisoformat(set_out_at)
    roles = _held(formula, tables)
    found = []
    for task in tables.method_of(formula).rack_tasks:
        if task.only_with and not roles & set(task.only_with):
            continue
        moved = state.due.get(task.kind)
        if moved is None and likely_h is None:
            continue
        due_at = moved or (begin + timedelta(hours=round(task.share * (likely_h or 0.0), 2))).isoformat()
        done = state.done.get(task.kind)
        late = done is None and state.wrapped_at is None and hours_between(due_at, now) > 0
        found.append(DueTask(
            task.kind, task.title, due_at, hours_between(set_out_at, due_at), done, moved is not None, late,
            state.moves.get(task.kind, 0),
        ))  # fmt: skip
    return tuple(found)


def _weighing_asked(state: TrayState, set_out_at: str, now: str, known: TrayKnown) -> tuple[DueTask, ...]:
    """Ask for another weighing where those there are cannot tell, when one would; what was said before the last is past."""
    fit = known.fit
    if fit is None or fit.again_h is None or known.sets_rather_than_dries or state.wrapped_at is not None:
        return ()
    last_h = max(each.hours for each in state.weighings)
    moved, done = (
        said if said is not None and hours_between(set_out_at, said) > last_h else None
        for said in (state.due.get(WEIGH_AGAIN), state.done.get(WEIGH_AGAIN))
    )
    due_at = moved or (datetime.fromisoformat(set_out_at) + timedelta(hours=round(fit.again_h, 2))).isoformat()
    late = done is None and hours_between(due_at, now) > 0
    return (
        DueTask(
            WEIGH_AGAIN, "Weigh again", due_at, hours_between(set_out_at, due_at), done, moved is not None, late,
            state.moves.get(WEIGH_AGAIN, 0),
        ),
    )  # fmt: skip


def _held(formula: Formula, tables: Tables) -> set[str]:
    items = [tables.ingredients[line.ingredient] for line in formula.lines if line.ingredient]
    return {each.role for each in items} | {each.id for each in items}


def _questions(
    state: TrayState, formula: Formula | None, tables: Tables, likely_h: float | None, age_h: float
) -> tuple[RackQuestion, ...]:
    if formula is None or likely_h is None:
        return ()
    return tuple(
        RackQuestion(each.id, each.text, each.share * likely_h, age_h >= each.share * likely_h, state.checks.get(each.id))
        for each in tables.method_of(formula).rack_checks
    )
