"""A simulated bowl: true masses, a dough that answers with delay, heat that flows, water that leaves, acid that is spent.

Everything is a pure function of the scenario and of what was done, so that the same hands meet the same bowl.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.practice.scenario import Scenario
from rosy_kettle.core.records import Formula, Line, Portion, Room
from rosy_kettle.core.records.evaluation import Evaluation

__all__ = ["ACTS", "Act", "BowlState", "Called", "Moment", "Told", "run_bowl", "true_formula"]

ACTS = ("add", "mix", "rest", "feel", "called", "hint", "done", "pieces", "sampled", "shape")
"""What can be done; done, pieces and sampled are written down at the bench and take no time here."""
STEP_MIN = 0.25  # of the simulation [min]
MIXES_IN_MIN, DRINKS_IN_MIN = 1.2, 5.0  # mixing, and powders drinking what is mixed in [min]; project defaults
COOLS_IN_MIN = 22.0  # a kilo of dough in an open bowl [min]; project default
FRESH_WETTER = (
    0.22  # of S: so much wetter a liquid feels before the powders have drunk it [-]; common practice of resting a dough
)
LEAVES_PER_MIN = 6e-4  # of S that dries off a minute in dry air, at 0 % RH [-]; project default
SPENT_PER_MIN = 0.0015  # of the fast acid while wet, a minute at S 1 [-]; project default
COUNTS = 6.0  # how much of the bowl an addition stirs up: so many times its share [-]
FEEL_MIN, ADD_MIN, SHAPE_MIN = 0.5, 0.5, 6.0  # minutes that judging, adding and shaping take [min]
MOST_ACTS, LONGEST_MIN, LARGEST_ADD_G = 200, 240.0, 400.0

Told = Callable[[Formula, Mapping[str, float]], Evaluation]
"""Readings of a formula with factors on what its powders drink."""


@dataclass(frozen=True, slots=True)
class Act:
    """One thing the learner did."""

    kind: str
    ingredient: str = ""
    value: float = 0.0
    """Grams as the scale shows them, minutes, or pieces."""
    word: str = ""
    """What the dough was called, or the step of the bench that is done."""


@dataclass(frozen=True, slots=True)
class Called:
    """What the learner took the dough for, beside what it was."""

    minutes: float
    word: str
    saturation: float
    """As it truly felt [-]."""


@dataclass(frozen=True, slots=True)
class Moment:
    """The bowl at one moment."""

    minutes: float
    settles_at: float
    """S once all is mixed in and drunk [-]."""
    now: float
    """S as it feels now [-]."""
    temperature_c: float
    acid_left: float
    """Share of the fast acid that is not spent [-]."""


@dataclass(frozen=True, slots=True)
class Felt:
    """What the hands said, and what the clock and thermometer showed."""

    minutes: float
    saturation: float
    """As judged, with the hands' own error [-]."""
    temperature_c: float


@dataclass(frozen=True, slots=True)
class BowlState:
    """All of a run so far."""

    path: tuple[Moment, ...]
    felt: tuple[Felt, ...]
    shown_g: Mapping[str, float]
    """What was added, as the scale showed it [g]."""
    formula: Formula
    """As it truly is."""
    told: Evaluation
    ended: bool
    hinted: bool = False
    """Whether the hint was asked for."""
    called: tuple[Called, ...] = ()
    fresh: bool = False
    """Whether the last handful was squeezed after everything that was done."""


def true_formula(scenario: Scenario, added_g: Mapping[str, float]) -> Formula:
    """Return what is really in the bowl: the recipe through the hidden truth, and what was added since.

    Parameters
    ----------
    scenario : Scenario
        The bowl
    added_g : Mapping
        What was added, as the scale showed it [g]

    Returns
    -------
    Formula
        In grams
    """
    scale = math.prod(each.value for each in scenario.hidden if each.kind == "scale") or 1.0
    masses = {id_: mass_g * scale for id_, mass_g in scenario.lines.items()}
    for hidden in scenario.hidden:
        if hidden.kind == "left_out":
            masses.pop(hidden.ingredient, None)
        elif hidden.kind == "mislabelled" and hidden.ingredient in masses:
            masses[hidden.other] = masses.get(hidden.other, 0.0) + masses.pop(hidden.ingredient)
    for id_, mass_g in added_g.items():
        masses[id_] = masses.get(id_, 0.0) + mass_g * scale
    for hidden in scenario.hidden:
        if hidden.kind in {"damp", "watery"} and hidden.ingredient in masses:
            water_g = masses[hidden.ingredient] * hidden.value
            masses[hidden.ingredient] -= water_g
            masses["distilled-water"] = masses.get("distilled-water", 0.0) + water_g
    lines = tuple(Line(id_, f"{mass_g:.6g}", "g") for id_, mass_g in masses.items() if mass_g > 0)
    return Formula(scenario.title, (Portion("bowl", lines),), scenario.method, room=Room(scenario.room_c, scenario.humidity_pct))


def run_bowl(scenario: Scenario, acts: Sequence[Act], told: Told) -> BowlState:
    """Return the bowl after what was done.

    Parameters
    ----------
    scenario : Scenario
        The bowl, its hidden truth among it
    acts : Sequence
        What was done, in order
    told : Callable
        Readings of a formula

    Returns
    -------
    BowlState
        Path in steps of a quarter of a minute, and what the hands said

    Raises
    ------
    InputError
        If something cannot be done: too much at once, after the shaping, or not from this bowl.
    """
    if len(acts) > MOST_ACTS:
        raise InputError(f"After {MOST_ACTS} things done the bowl is worn out; shape it or begin anew.", quantity="acts")
    bowl = _Bowl(scenario, told)
    for act in acts:
        bowl.do(act)
    return bowl.state()


class _Bowl:
    """The running simulation: settled S and its way there, heat, water, acid."""

    def __init__(self, scenario: Scenario, told: Told) -> None:
        self.scenario, self._told = scenario, told
        self.added_g: dict[str, float] = {}
        self.formula = true_formula(scenario, {})
        self.told = told(self.formula, scenario.factors)
        self.minutes, self.dried = 0.0, 0.0
        self.mixed, self.drunk = 0.7, 0.3  # a bowl that has just been brought together
        self.acid = 1.0
        cold = next((each.value for each in scenario.hidden if each.kind == "cold_bowl"), None)
        self.temperature_c = scenario.room_c if cold is None else cold
        self.path = [self._moment()]
        self.felt: list[Felt] = []
        self.called: list[Called] = []
        self.ended = self.hinted = self.fresh = False
        self._chance = np.random.default_rng(scenario.seed + 1)

    @property
    def settles_at(self) -> float:
        """S once all is mixed in and drunk, less what has dried off [-]."""
        dough = self.told.dough
        return max(0.0, (0.0 if dough is None or dough.saturation is None else dough.saturation) - self.dried)

    def do(self, act: Act) -> None:
        """Do one thing."""
        self._refuse(act)
        self.fresh = act.kind == "feel" or (self.fresh and act.kind not in {"add", "mix", "rest"})
        if act.kind == "add":
            self._add(act.ingredient, act.value)
        elif act.kind in {"mix", "rest"}:
            self._pass(act.value, mixing=act.kind == "mix")
        elif act.kind == "feel":
            self._pass(FEEL_MIN, mixing=False)
            noise = float(self._chance.normal(0.0, self.scenario.noise))
            self.felt.append(Felt(self.minutes, max(0.0, self.path[-1].now + noise), round(self.temperature_c, 1)))
        elif act.kind == "called":
            self.called.append(Called(self.minutes, act.word, self.path[-1].now))
        elif act.kind == "hint":
            self.hinted = True
        elif act.kind == "shape":
            self._pass(SHAPE_MIN, mixing=False)
            self.ended = True

    def state(self) -> BowlState:
        """Return all of the run so far."""
        return BowlState(
            tuple(self.path), tuple(self.felt), dict(self.added_g), self.formula, self.told, self.ended, self.hinted,
            tuple(self.called), self.fresh,
        )  # fmt: skip

    def _refuse(self, act: Act) -> None:
        if self.ended:
            raise InputError("This bowl is shaped; begin another.", quantity="acts")
        if act.kind not in ACTS:
            raise InputError(f"At the bowl one can {', '.join(ACTS)}.", quantity="kind", value=act.kind)
        if act.kind == "called" and not self.fresh:
            raise InputError("Squeeze a handful first: since the last one something was done.", quantity="word")
        if act.kind == "add" and not 0 < act.value <= LARGEST_ADD_G:
            raise InputError(f"Add above 0 and up to {LARGEST_ADD_G:g} g at a time.", quantity="value", value=act.value)
        if act.kind in {"mix", "rest"} and not (act.value > 0 and self.minutes + act.value <= LONGEST_MIN):
            raise InputError(
                f"A bowl lasts {LONGEST_MIN:g} minutes in all; mix or rest for less.", quantity="value", value=act.value
            )

    def _add(self, ingredient: str, shown_g: float) -> None:
        before = self.told.mass_g
        self.added_g[ingredient] = self.added_g.get(ingredient, 0.0) + shown_g
        self.formula = true_formula(self.scenario, self.added_g)
        self.told = self._told(self.formula, self.scenario.factors)
        stirred = max(0.0, 1 - COUNTS * shown_g / max(before, 1.0))
        self.mixed *= stirred
        self.drunk *= stirred
        self._pass(ADD_MIN, mixing=False)

    def _pass(self, minutes: float, *, mixing: bool) -> None:
        left = minutes
        while left > 1e-9:  # noqa: PLR2004 - what binary minutes leave over
            step = min(STEP_MIN, left)
            left -= step
            self.minutes += step
            if mixing:
                self.mixed = 1 - (1 - self.mixed) * math.exp(-step / MIXES_IN_MIN)
            self.drunk += self.mixed * (1 - self.drunk) * (1 - math.exp(-step / DRINKS_IN_MIN))
            room = self.scenario.room_c
            self.temperature_c = room + (self.temperature_c - room) * math.exp(-step / COOLS_IN_MIN)
            self.dried += LEAVES_PER_MIN * (1 - self.scenario.humidity_pct / 100) * step
            self.acid *= math.exp(-SPENT_PER_MIN * self.settles_at * step)
            self.path.append(self._moment())

    def _moment(self) -> Moment:
        s = self.settles_at
        return Moment(self.minutes, s, s * (1 + FRESH_WETTER * (1 - self.drunk)), self.temperature_c, self.acid)
