"""Practice runs: begun, carried on act by act, opened at their end. They read the reference alone, never the studio."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass
from functools import lru_cache

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import ConflictError, InputError
from rosy_kettle.core.learning.apply import with_factors
from rosy_kettle.core.making.bench import check_felt
from rosy_kettle.core.practice.bowl import Act, BowlState, run_bowl
from rosy_kettle.core.practice.cards import drawn_cards
from rosy_kettle.core.practice.debrief import Debrief, debrief, score_of
from rosy_kettle.core.practice.scenario import Hidden, Scenario, drawn_again
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Portion, Room
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.reference import load_practice, load_tables
from rosy_kettle.store.practice_runs import PracticeRunRow, add_practice_run, find_practice_run

__all__ = [
    "Run", "act_in_run", "begin_run", "bowl_of", "cards", "look_at_run", "state_words", "told_by_reference",
    "truth_words", "was_done",
]  # fmt: skip

LARGEST_SEED = 2**31
NUMBER_OF_TOLD = 4_000


@dataclass(frozen=True, slots=True)
class Run:
    """A run as it stands; the debrief only once it has ended."""

    row: PracticeRunRow
    scenario: Scenario
    acts: tuple[Act, ...]
    state: BowlState
    debrief: Debrief | None


def begin_run(session: Session, scenario_id: str, seed: int, key: str | None) -> PracticeRunRow:
    """Begin a run.

    Raises
    ------
    InputError
        If there is no such bowl or seed.
    """
    _scenario(scenario_id, seed)
    return add_practice_run(session, PracticeRunRow(scenario=scenario_id, seed=seed, acts=[], request_key=key))


def was_done(session: Session, run_id: int, event_id: str | None) -> bool:
    """Whether something of that name was done at this bowl already: its answer was lost on the way."""
    return event_id is not None and any(act.get("id") == event_id for act in find_practice_run(session, run_id).acts)


def act_in_run(session: Session, run_id: int, after: int, act: Act, event_id: str | None = None) -> None:
    """Do one thing in a run.

    Raises
    ------
    InputError
        If it cannot be done.
    ConflictError
        If something else was done since.
    """
    row = find_practice_run(session, run_id)
    if after != len(row.acts):
        raise ConflictError("Something else was done at this bowl since; look at it again.", noun="practice run", reason="acts")
    if act.kind == "called":
        check_felt(act.word)
    if act.kind == "add" and act.ingredient not in load_tables().ingredients:
        raise InputError(f'Ingredient "{act.ingredient[:60]}" is not known.', quantity="ingredient")
    acts = [*_acts(row), act]
    scenario = _scenario(row.scenario, row.seed)
    state = run_bowl(scenario, acts, told_by_reference)
    named = asdict(act) | ({} if event_id is None else {"id": event_id})
    row.acts, row.ended = [*row.acts, named], state.ended
    if state.ended:
        row.score = score_of(scenario, state, told_by_reference).whole


def look_at_run(session: Session, run_id: int) -> Run:
    """Return a run.

    Raises
    ------
    NotFoundError
        If there is none under that number.
    """
    row = find_practice_run(session, run_id)
    scenario, acts = bowl_of(row)
    state = run_bowl(scenario, acts, told_by_reference)
    return Run(row, scenario, tuple(acts), state, debrief(scenario, acts, told_by_reference) if row.ended else None)


def told_by_reference(formula: Formula, factors: Mapping[str, float]) -> Evaluation:
    """Return the readings of a practice bowl by the reference and its own hidden factors; the studio's own are left out."""
    return _told(formula.method, formula.portions, formula.room, tuple(sorted(factors.items())))


@lru_cache(maxsize=NUMBER_OF_TOLD)
def _told(method: str, portions: tuple[Portion, ...], room: Room, factors: tuple[tuple[str, float], ...]) -> Evaluation:
    return evaluate(Formula("practice", portions, method, room=room), with_factors(load_tables(), dict(factors)))


def _scenario(scenario_id: str, seed: int) -> Scenario:
    found = load_practice().get(scenario_id)
    if found is None:
        raise InputError(f'There is no practice bowl "{scenario_id[:40]}".', quantity="scenario")
    if not 0 <= seed < LARGEST_SEED:
        raise InputError("A seed is a whole number from 0 on.", quantity="seed", value=seed)
    return drawn_again(found, seed)


def bowl_of(row: PracticeRunRow) -> tuple[Scenario, list[Act]]:
    """Return the bowl of a run, and what was done at it."""
    return _scenario(row.scenario, row.seed), _acts(row)


def _acts(row: PracticeRunRow) -> list[Act]:
    return [Act(**{name: value for name, value in each.items() if name != "id"}) for each in row.acts]


def state_words(saturation: float) -> str:
    """Return what a dough of some saturation is called."""
    edges = load_tables().parameters.dough.lower_edges
    return [state for state, edge in edges.items() if saturation >= edge][-1]


def truth_words(scenario: Scenario) -> list[str]:
    """Return what was hidden, one sentence each."""
    return [_truth(each) for each in scenario.hidden] or ["Nothing was hidden: the recipe is right, it only had to rest."]


def _truth(hidden: Hidden) -> str:
    items = load_tables().ingredients
    name = items[hidden.ingredient].short_name if hidden.ingredient in items else hidden.ingredient
    other = items[hidden.other].short_name if hidden.other in items else hidden.other
    words = {
        "thirsty": f"The {name} drinks {hidden.value:.2f} times what the table says.",
        "damp": f"{hidden.value:.1%} of the {name} is water.",
        "watery": f"{hidden.value:.0%} of the {name} is more water than its sheet says.",
        "scale": f"The scale shows {1 / (hidden.value or 1):.3f} times what is there.",
        "left_out": f"{name} was left out.",
        "mislabelled": f"The jar of {name} holds {other}.",
        "hot_room": f"The room is {hidden.value:.0f} °C.", "cold_bowl": f"The bowl came at {hidden.value:.0f} °C.",
        "humid": f"The air is damp, {hidden.value:.0f} % RH: it dries slowly afterwards.",
    }  # fmt: skip
    return words[hidden.kind]


def cards(seed: int) -> Sequence[tuple[float, str]]:
    """Return doughs for the eye, each with its saturation and what it is."""
    return drawn_cards(load_tables().parameters.dough.lower_edges, seed)
