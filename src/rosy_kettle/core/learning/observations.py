"""What was seen, beside what the models said: each observation becomes an equation for the factors it speaks of.

An equation says: the sum of weights times unknowns is ``seen``, give or take ``noise``. Unknowns are logarithms of factors, or an
offset in points or per cent.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.core.making.plan import Wish, plan_order
from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.mixing.setting import setting_of
from rosy_kettle.core.models.lather.over_time import share_after
from rosy_kettle.core.parameters.learning import LearningParameters
from rosy_kettle.core.readings.look import Look
from rosy_kettle.core.records import Formula, Tables

__all__ = ["Equation", "Observation", "Told", "told_by"]

FEWEST_FOR_SPREAD = 2


@dataclass(frozen=True, slots=True)
class Observation:
    """One thing that was seen of a formula; ``facts`` hold the figures of its kind."""

    kind: str
    formula: Formula
    facts: Mapping[str, Any] = field(default_factory=dict)
    refused: str = ""
    """Why its formula cannot be read, where an ingredient has gone; then it is set aside."""


@dataclass(frozen=True, slots=True)
class Equation:
    """What an observation says of some unknowns."""

    reading: str
    weights: Mapping[str, float]
    """Weight of each unknown, by the factor's id [-]."""
    seen: float
    """Logarithm of seen over said, or the offset."""
    noise: float
    measure: str
    """What ``seen`` is a measure of: log, points or per cent."""
    default: float = 0.0
    """What stands for the unknown before learning."""
    between: tuple[float, float] | None = None
    """Ends where only a stretch was seen, as a state of the dough is; ``seen`` is then its middle."""
    parts: Mapping[tuple[str, str], float] = field(default_factory=dict)
    """The same weights by ingredient: factor's id and ingredient's id [-]."""


@dataclass(frozen=True, slots=True)
class Told:
    """What one observation says of the defaults: equations, or why it says nothing."""

    kind: str
    equations: tuple[Equation, ...] = ()
    code: str = ""
    """Why it is set aside; empty where it is used."""
    facts: Mapping[str, Any] = field(default_factory=dict)


class UnusableError(Exception):
    """An observation that says nothing of any factor."""

    def __init__(self, code: str, **facts: Any) -> None:
        super().__init__(code)
        self.code, self.facts = code, facts


def told_by(observation: Observation, tables: Tables, p: LearningParameters | None = None) -> Told:
    """Return what an observation says.

    Parameters
    ----------
    observation : Observation
        What was seen
    tables : Tables
        Reference tables with the defaults
    p : LearningParameters or None
        How far one observation is off; None takes what is usual

    Returns
    -------
    Told
        At least one equation; or the code of why it is set aside, where the models say nothing to hold it against
    """
    try:
        return Told(observation.kind, tuple(_equations_of(observation, tables, p or LearningParameters())))
    except UnusableError as error:
        return Told(observation.kind, (), error.code, error.facts)


def _equations_of(observation: Observation, tables: Tables, p: LearningParameters) -> list[Equation]:
    if observation.refused:
        raise UnusableError("not_weighed", why=observation.refused)
    try:
        return KINDS[observation.kind](observation, tables, p)
    except WorkbenchError as error:
        raise UnusableError("not_weighed", why=error.message.rstrip(".")) from error


def _felt(observation: Observation, tables: Tables, p: LearningParameters) -> list[Equation]:
    state = str(observation.facts["state"])
    edges = list(tables.parameters.dough.lower_edges.items())
    at = next((index for index, (name, _edge) in enumerate(edges) if name == state), None)
    if at is None:
        raise UnusableError("no_state", state=state[:40])
    if at in {0, len(edges) - 1}:
        raise UnusableError("edge_state", state=state)
    low, high = math.log(edges[at][1]), math.log(edges[at + 1][1])
    middle = _drunk(observation.formula, float(observation.facts["temperature_c"]), tables, (low + high) / 2, p.felt_noise)
    half = (high - low) / 2
    return [replace(middle, between=(middle.seen - half, middle.seen + half))]


def _rope(observation: Observation, tables: Tables, p: LearningParameters) -> list[Equation]:
    facts = observation.facts
    found = []
    for key, at in (("rolls_at_g", p.rolls_at), ("smears_at_g", p.smears_at)):
        if facts.get(key) is not None:
            wetted = _with_wetter(observation.formula, str(facts["wetter"]), float(facts[key]), tables)
            found.append(_drunk(wetted, float(facts["temperature_c"]), tables, math.log(at), p.rope_noise))
    if not found:
        raise UnusableError("no_dough")
    return found


def _with_wetter(formula: Formula, wetter: str, mass_g: float, tables: Tables) -> Formula:
    """Return the blend with so much of its wetter, which may be a line of it or come to it."""
    if wetter not in tables.ingredients:
        raise UnusableError("no_wetter")
    first = formula.portions[0]
    line = replace(first.lines[0], ingredient=wetter, amount=repr(mass_g), unit="g", text="")
    kept = tuple(each for each in first.lines if each.ingredient != wetter)
    return replace(formula, portions=(replace(first, lines=(*kept, line)), *formula.portions[1:]))


def _look(formula: Formula, tables: Tables) -> Look:
    """Return the formula as it is looked at: only the readings an observation is held against are worked out."""
    weighed = [item for item in weigh_formula(formula, tables)[0] if item.mass_g > 0]
    if not weighed:
        raise UnusableError("no_dough")
    mass_g = np.array([item.mass_g for item in weighed])
    setting = setting_of(formula, tables, float(mass_g.sum()))
    mix = setting.mix(make_palette([item.ingredient for item in weighed], tables.parameters), mass_g)
    return Look(mix, setting, whole=len(formula.portions) == 1)


def _drunk(formula: Formula, temperature_c: float, tables: Tables, seen_log_s: float, noise: float) -> Equation:
    """Say what powders drink from S seen and S said; each role by its share of what all of them drink."""
    mix = _look(formula, tables).mix
    said = mix.saturation(temperature_c)
    if said is None or said <= 0 or mix.demand_ml <= 0:
        raise UnusableError("no_dough")
    shares: dict[str, float] = {}
    parts: dict[tuple[str, str], float] = {}
    for index, item in enumerate(mix.palette.ingredients):
        share = float(mix.palette.liquid_demand_known[index] * mix.mass_g[index] / mix.demand_ml)
        if share > 0:
            role = f"demand.{item.role}"
            shares[role] = shares.get(role, 0.0) + share
            parts[role, item.id] = parts.get((role, item.id), 0.0) + share
    return Equation("dough.saturation", shares, math.log(said) - seen_log_s, noise, "log", parts=parts)


def _dried(observation: Observation, tables: Tables, p: LearningParameters) -> list[Equation]:
    drying = _look(observation.formula, tables).drying
    said = None if drying is None else drying.hours
    if said is None or said <= 0:
        raise UnusableError("never_dries")
    seen = math.log(float(observation.facts["hours"]) / said)
    return [Equation("drying.hours", {"drying": 1.0}, seen, p.dried_noise, "log")]


def _foam(observation: Observation, tables: Tables, p: LearningParameters) -> list[Equation]:
    lather, minutes = _look(observation.formula, tables).lather, float(observation.facts["minutes"])
    if lather is None or not lather.height_cm or not lather.half_life_min:
        raise UnusableError("no_foam")
    after = max(0.0, minutes - tables.parameters.lather.fill_min)
    said = lather.height_cm * share_after(minutes, lather.half_life_min, tables.parameters.lather)
    if said <= 0:
        raise UnusableError("too_early", minutes=minutes)
    seen = math.log(max(0.1, float(observation.facts["height_cm"])) / said)
    weights = {"foam": 1.0, "foam_half_life": math.log(2) * after / lather.half_life_min}
    return [Equation("lather.height_cm", {k: v for k, v in weights.items() if v > 0}, seen, p.foam_noise, "log")]


def _scratch(observation: Observation, tables: Tables, p: LearningParameters) -> list[Equation]:
    firmness = _look(observation.formula, tables).firmness
    said = None if firmness is None else firmness.at_20_c
    if said is None:
        raise UnusableError("no_firmness")
    seen = 100 * (1 - math.exp(-float(observation.facts["drops"]) / p.drops_scale))
    return [Equation("firmness.at_20_c", {"firmness": 1.0}, seen - said, p.scratch_noise, "points")]


def _pieces(observation: Observation, tables: Tables, p: LearningParameters) -> list[Equation]:
    tool, masses = str(observation.facts["tool"]), [float(mass_g) for mass_g in observation.facts["piece_g"]]
    fill = str(observation.facts.get("scoop_fill", "level"))
    try:
        planned = plan_order(observation.formula, tables, [Wish(1, tool, scoop_fill=fill)], None, None, {})
        said = planned.pieces[0].piece_mass_g
    except WorkbenchError as error:
        raise UnusableError("no_mass", why=error.message.rstrip(".")) from error
    mean = sum(masses) / len(masses)
    scatter = _scatter(masses) / mean / math.sqrt(len(masses))
    return [Equation("piece.mass_g", {f"packing.{tool}": 1.0}, math.log(mean / said), math.hypot(scatter, p.pieces_noise), "log")]


def _scatter(masses: Sequence[float]) -> float:
    return float(np.std(masses, ddof=1)) if len(masses) >= FEWEST_FOR_SPREAD else 0.0


def _yield(observation: Observation, tables: Tables, p: LearningParameters) -> list[Equation]:
    bowl_g, pieces_g = float(observation.facts["bowl_g"]), float(observation.facts["pieces_g"])
    if pieces_g > bowl_g:
        raise UnusableError("more_than_bowl")
    method = tables.method_of(observation.formula)
    lost_pct, default = 100 * (1 - pieces_g / bowl_g), 100 * method.loss_fraction
    return [Equation("batch.loss_pct", {f"loss.{method.id}": 1.0}, lost_pct - default, p.loss_noise_pct, "per cent", default)]


KINDS: dict[str, Callable[[Observation, Tables, LearningParameters], list[Equation]]] = {
    "felt": _felt, "rope": _rope, "dried": _dried, "pieces": _pieces, "yield": _yield, "foam": _foam, "scratch": _scratch,
}  # fmt: skip
