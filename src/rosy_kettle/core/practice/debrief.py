"""After the shaping the truth is opened: what was hidden, what each correction did, what the best hand would have done."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from rosy_kettle.core.practice.bowl import Act, BowlState, Told, run_bowl, true_formula
from rosy_kettle.core.practice.scenario import Scenario

__all__ = ["HINT_COSTS", "BestHand", "Debrief", "Effect", "Score", "best_hand", "debrief", "score_of"]

TRIES_G = (2.0, 4.0, 6.0, 9.0, 12.0, 16.0, 20.0, 25.0, 30.0, 36.0, 44.0, 54.0, 66.0, 80.0, 100.0)
MIX_MIN, REST_MIN = 3.0, 8.0
WEIGHTS = {"dough": 60.0, "foam": 10.0, "hours": 10.0, "waste": 10.0, "minutes": 10.0}
"""Points of a hundred for each; project default."""
FAR_S, FAR_HOURS, FAR_MINUTES, FAR_SHARE = 0.20, 72.0, 90.0, 0.30
"""How far off each is worth nothing: S, hours of drying above the recipe's, minutes at the bowl, share of the mass added."""
FREE_MINUTES = 25.0
HINT_COSTS = 8.0  # points of a hundred; project default


@dataclass(frozen=True, slots=True)
class Score:
    """Points by what they are for, adding up to at most 100."""

    dough: float
    foam: float
    hours: float
    waste: float
    minutes: float
    hint: float = 0.0
    """What the hint has cost: nothing, or less [points]."""

    @property
    def whole(self) -> float:
        """All points."""
        return max(0.0, self.dough + self.foam + self.hours + self.waste + self.minutes + self.hint)


@dataclass(frozen=True, slots=True)
class Effect:
    """What one correction did to the dough."""

    act: Act
    minutes: float
    before: float
    """S it would have settled at [-]."""
    after: float


@dataclass(frozen=True, slots=True)
class BestHand:
    """The best sequence the search found, and how it would have ended."""

    acts: tuple[Act, ...]
    score: Score
    settles_at: float


@dataclass(frozen=True, slots=True)
class Debrief:
    """Everything that is told afterwards."""

    score: Score
    wanted: tuple[float, float]
    settles_at: float
    effects: tuple[Effect, ...]
    best: BestHand


def score_of(scenario: Scenario, state: BowlState, told: Told) -> Score:
    """Return the points of a bowl that is shaped.

    Parameters
    ----------
    scenario : Scenario
        The bowl
    state : BowlState
        As it was shaped
    told : Callable
        Readings of a formula

    Returns
    -------
    Score
        Each part from 0 to its weight [points]
    """
    meant = told(true_formula(replace(scenario, hidden=(), factors={}), {}), {})
    low, high = _wanted(state)
    last = state.path[-1]  # what it is shaped at, and what the pieces settle at: both count
    off = max(low - last.now, last.now - high, low - last.settles_at, last.settles_at - high, 0.0)
    foam = min(1.0, (state.told.lather.score or 0.0) / max(meant.lather.score or 1.0, 1.0))
    hours = max(0.0, (state.told.drying.hours or 2 * FAR_HOURS) - (meant.drying.hours or 0.0))
    added = sum(state.shown_g.values()) / max(meant.mass_g, 1.0)
    late = max(0.0, state.path[-1].minutes - FREE_MINUTES)
    return Score(
        WEIGHTS["dough"] * max(0.0, 1 - off / FAR_S), WEIGHTS["foam"] * foam * state.path[-1].acid_left,
        WEIGHTS["hours"] * max(0.0, 1 - hours / FAR_HOURS), WEIGHTS["waste"] * max(0.0, 1 - added / FAR_SHARE),
        WEIGHTS["minutes"] * max(0.0, 1 - late / FAR_MINUTES), -HINT_COSTS if state.hinted else 0.0,
    )  # fmt: skip


def debrief(
    scenario: Scenario, acts: Sequence[Act], told: Told, report: Callable[[int, int], None] = lambda _done, _all: None
) -> Debrief:
    """Return what is told after the shaping.

    Parameters
    ----------
    scenario : Scenario
        The bowl
    acts : Sequence
        What was done, the shaping last
    told : Callable
        Readings of a formula
    report : Callable
        Is told how far the search has come [-]

    Returns
    -------
    Debrief
        With the best hand found by searching single and paired corrections
    """
    state = run_bowl(scenario, acts, told)
    effects = []
    for at, act in enumerate(acts):
        if act.kind == "add":
            before, after = (run_bowl(scenario, acts[:end], told).path[-1] for end in (at, at + 1))
            effects.append(Effect(act, after.minutes, before.settles_at, after.settles_at))
    return Debrief(
        score_of(scenario, state, told),
        _wanted(state),
        state.path[-1].settles_at,
        tuple(effects),
        best_hand(scenario, told, report),
    )


def best_hand(scenario: Scenario, told: Told, report: Callable[[int, int], None] = lambda _done, _all: None) -> BestHand:
    """Return the best of doing nothing, one correction, or one after which a smaller one follows.

    Parameters
    ----------
    scenario : Scenario
        The bowl
    told : Callable
        Readings of a formula
    report : Callable
        Is told how far the search has come [-]

    Returns
    -------
    BestHand
        By points; the search knows what is hidden
    """
    settle = [Act("mix", value=MIX_MIN), Act("rest", value=REST_MIN)]
    tries: list[list[Act]] = [[], settle]
    tries += [[Act("add", jar, grams), *settle] for jar in (scenario.wet, scenario.dry) for grams in TRIES_G]
    best = _tried(scenario, tries[0], told)
    for number, acts in enumerate(tries):
        found = _tried(scenario, acts, told)
        best = found if found.score.whole > best.score.whole else best
        report(number + 1, len(tries))
    return best


def _tried(scenario: Scenario, acts: Sequence[Act], told: Told) -> BestHand:
    done = (*acts, Act("shape"))
    state = run_bowl(scenario, done, told)
    return BestHand(done, score_of(scenario, state, told), state.path[-1].settles_at)


def _wanted(state: BowlState) -> tuple[float, float]:
    dough = state.told.dough
    if dough is None:
        return 0.0, 0.0
    return dough.wanted.saturation_low or 0.0, dough.wanted.saturation_high or 0.0
