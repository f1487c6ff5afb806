"""How does it feel? What the hands say, beside what was predicted, and what mends it in small steps."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from rosy_kettle.core.amounts import grams_from_entry, weigh_formula
from rosy_kettle.core.change.why.levers import Effect, levers
from rosy_kettle.core.errors import InputError, WorkbenchError
from rosy_kettle.core.making.bench.as_made import effects_of, with_corrections
from rosy_kettle.core.making.bench.by_hand import middle_saturation, moved_by_hands, state_at
from rosy_kettle.core.making.bench.record import Correction
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Ingredient, Tables
from rosy_kettle.core.records.evaluation import Dough

__all__ = ["FEELS", "FeelAnswer", "HandFeel", "Mend", "answer_feel", "check_felt"]

SPRAYS = {"isopropyl-alcohol-91": 5, "witch-hazel-distillate": 5, "distilled-water": 4}
"""Strokes of the sprayer that are one small step, by what is sprayed; common practice."""
STEP_SHARE = 0.008  # of the batch: a teaspoon to a kilo, the step makers add at once [-]; common practice
MOST_IN_ALL = 0.10  # of the batch; what would take more is not a correction but another formula [-]
MOST_MENDS = 3
SMALLEST_OF_LIQUID = 0.01  # of the liquid: the step that is always there [-]; common practice
BESIDE_THE_DOUGH = frozenset({"fragrance", "colorant", "preservative"})
WAIT_STATES = frozenset({"sticky", "batter"})


@dataclass(frozen=True, slots=True)
class HandFeel:
    """One tile: what the hands find."""

    state: str
    squeeze: str
    drop: str


FEELS = (
    HandFeel("dust", "falls apart at once", "does not hold a ball"),
    HandFeel("damp sand", "holds, breaks with a snap", "survives a drop from a hand's breadth"),
    HandFeel("crumbly dough", "packs, crumbles at the edges", "breaks into large pieces"),
    HandFeel("play dough", "rolls, leaves the glove clean", "stays whole"),
    HandFeel("sticky", "smears, sticks to glove and paper", "flattens and sticks"),
    HandFeel("batter", "spreads, bubbles rise through it", "splats"),
    HandFeel("pour", "flows", "runs"),
)
"""The squeeze and the drop test, as makers do them; common practice, no published source."""


@dataclass(frozen=True, slots=True)
class Mend:
    """One thing to do now."""

    kind: str
    """add, rest, cool, warm, stir, desk or go-on."""
    text: str
    ingredient: str | None = None
    mass_g: float | None = None
    """One small step [g]; mix and judge again after it."""
    in_all_g: float | None = None
    """What it would take in all, if hands and model agree [g]; None where that would be another formula."""
    effects: tuple[Effect, ...] = ()
    """Of the small step."""
    comes_to: str | None = None
    """What it should feel like after the small step, reckoned from what was felt; None where nothing is added."""


@dataclass(frozen=True, slots=True)
class FeelAnswer:
    """What the Desk said, what the hands say, and what to do."""

    felt: str
    predicted: str | None
    wanted: tuple[str, ...]
    sentence: str
    mends: tuple[Mend, ...]
    saturation: float | None = None
    """S of this bowl as its feels have moved it [-]; None where none can be said."""


def check_felt(state: str) -> None:
    """Refuse what is no feel of a dough.

    Parameters
    ----------
    state : str
        What the hands are said to feel

    Raises
    ------
    InputError
        If the state is none of the tiles.
    """
    if state not in {feel.state for feel in FEELS}:
        raise InputError(f'"{str(state)[:20]}" is no feel of a dough; choose one of the tiles.', quantity="state")


def answer_feel(
    formula: Formula, tables: Tables, felt: str, temperature_c: float | None, *, rested: bool,
    before: Sequence[tuple[str, float]] = (),
) -> FeelAnswer:  # fmt: skip
    """Return what to do about a dough that feels like this.

    Parameters
    ----------
    formula : Formula
        The formula as made so far, in grams
    tables : Tables
        Reference tables
    felt : str
        State by the hands, one of ``FEELS``
    temperature_c : float or None
        Temperature of the dough, where it was taken [°C]
    rested : bool
        Whether it has rested already
    before : sequence of tuple
        What this bowl felt like before: state, and the saturation reckoned at that moment [-]; oldest first

    Returns
    -------
    FeelAnswer
        At most one thing that costs nothing, then up to three small additions

    Raises
    ------
    InputError
        If the state is none of the tiles.
    """
    check_felt(felt)
    whole = evaluate(formula, tables)
    dough = whole.dough or whole.portions[0].dough
    if dough is None or dough.saturation is None or dough.state is None:
        return FeelAnswer(felt, None, (), "Nothing is known of this dough; go by hand.", ())
    p = tables.parameters.dough
    expected = state_at(dough.saturation + moved_by_hands(before, p), p) if moved_by_hands(before, p) else dough.state
    moved = moved_by_hands((*before, (felt, dough.saturation)), p) if expected != felt else moved_by_hands(before, p)
    wanted, reckoned = dough.wanted.states, dough.saturation + moved
    said = _said(dough.state, expected, felt)
    if felt in wanted:
        return FeelAnswer(felt, dough.state, wanted, f"{said}. As meant: go on.", (Mend("go-on", "Go on"),), reckoned)
    mends = [*_free(formula, tables, dough, felt, temperature_c, rested=rested)]
    mends += _additions(formula, tables, dough, felt, moved)
    wet = _is_wet(felt, dough, tables)
    if not any(mend.kind == "add" for mend in mends):
        mends += _by_hand(formula, tables, wet=wet)
    mends = [_with_outlook(mend, formula, tables, moved) for mend in mends]
    way = "too wet" if wet else "too dry"
    return FeelAnswer(felt, dough.state, wanted, f"{said}. It is {way} for {' or '.join(wanted)}.", tuple(mends), reckoned)


def _said(told: str, expected: str, felt: str) -> str:
    """Hold what was expected against what was felt; after a first feel the bowl is expected to go the hands' way."""
    by = f'The Desk said "{told}"' if told == expected else f'By what you felt before, "{expected}" was to be expected'
    return by if expected == felt else f'{by}, your hands say "{felt}"'


def _with_outlook(mend: Mend, formula: Formula, tables: Tables, moved: float) -> Mend:
    """Say what the dough should feel like after the small step, as this bowl has felt so far."""
    if mend.ingredient is None or mend.mass_g is None:
        return mend
    after = evaluate(with_corrections(formula, (Correction(mend.ingredient, mend.mass_g, "", ""),)), tables)
    dough = after.dough or after.portions[0].dough
    if dough is None or dough.saturation is None:
        return mend
    return replace(mend, comes_to=state_at(dough.saturation + moved, tables.parameters.dough) if moved else dough.state)


def _free(formula: Formula, tables: Tables, dough: Dough, felt: str, temperature_c: float | None, *, rested: bool) -> list[Mend]:
    """Find what costs neither foam nor hours; it goes first."""
    method = tables.method_of(formula)
    window = dough.working_window_c
    wet = _is_wet(felt, dough, tables)
    if window is not None and temperature_c is not None and wet and temperature_c > window[1]:
        return [Mend("cool", f"Cool it: {temperature_c:.0f} °C is above the window of {window[0]:.0f} to {window[1]:.0f} °C.")]
    if window is not None and temperature_c is not None and not wet and temperature_c < window[0]:
        return [
            Mend(
                "warm",
                f"Warm it for seconds: {temperature_c:.0f} °C is under its window of {window[0]:.0f} to {window[1]:.0f} °C.",
            )
        ]
    if wet and felt in WAIT_STATES and method.kneaded and not rested:
        return [Mend("rest", "Cover it and rest 5 minutes: the powders still drink.")]
    if wet and any(item.ingredient.role == "acid" for item in weigh_formula(formula, tables)[0]):
        return [Mend("stir", "Swelling? Stir it down until it stays down, then judge again.")]
    return []


def _additions(formula: Formula, tables: Tables, dough: Dough, felt: str, moved: float) -> list[Mend]:
    """Aim the levers by the hands: a dough that feels wetter than predicted is wetter by that much."""
    low, high = dough.wanted.saturation_low, dough.wanted.saturation_high
    aimed = (None if low is None else max(0.01, low - moved), None if high is None else max(0.01, high - moved))
    try:
        found = levers(formula, tables, "dough.saturation", *aimed)
    except WorkbenchError:
        return []
    weighed = weigh_formula(formula, tables)[0]
    total_g = sum(item.mass_g for item in weighed)
    held = {item.ingredient.id for item in weighed}
    damp, wet = "damp sand" in dough.wanted.states, _is_wet(felt, dough, tables)
    mends = []
    for lever in found:
        grown = lever.after_g - lever.before_g
        item = tables.ingredients[lever.ingredient]
        if grown <= 0 or not _in_use(item, held, damp=damp):
            continue  # nothing comes out of the bowl any more, and nobody mends a dough with everything
        if wet is not item.is_powder:
            continue  # hands go before the reckoning: what feels wet gets powder, what feels dry gets liquid or fat
        spray_g = _spray_g(item, tables) if item.reference_id in SPRAYS else None
        small_g = STEP_SHARE * total_g if spray_g is None else SPRAYS[item.reference_id] * spray_g
        step = max(0.1, round(min(grown, small_g), 1))
        after = with_corrections(formula, (Correction(lever.ingredient, step, "", ""),))
        mends.append(Mend(
            "add", _words(lever.name, step, spray_g), lever.ingredient, step,
            round(grown, 1) if grown < MOST_IN_ALL * total_g else None,
            effects_of(formula, after, tables),
        ))  # fmt: skip
        if len(mends) == MOST_MENDS:
            break
    return mends


def _by_hand(formula: Formula, tables: Tables, *, wet: bool) -> list[Mend]:
    """Give the small step that makers take where the reckoning knows none: a hundredth of the liquid, then feel again."""
    weighed = [item for item in weigh_formula(formula, tables)[0] if item.mass_g > 0]
    liquids = [item for item in weighed if item.ingredient.is_liquid and item.ingredient.role not in BESIDE_THE_DOUGH]
    powders = [item for item in weighed if item.ingredient.role in {"starch", "base", "clay", "salt", "milk"}]
    liquid_g = sum(item.mass_g for item in liquids)
    chosen = max(powders if wet else liquids, key=lambda item: item.mass_g, default=None)
    if chosen is None:
        missing = "dry" if wet else "wet"
        return [Mend("desk", f"Nothing in it could {missing} it: note it, and change the formula at the Desk.")]
    total_g = sum(item.mass_g for item in weighed)
    item, step = chosen.ingredient, max(0.1, round(STEP_SHARE * total_g if wet else SMALLEST_OF_LIQUID * liquid_g, 1))
    after = with_corrections(formula, (Correction(item.id, step, "", ""),))
    return [Mend("add", _words(item.short_name, step, None), item.id, step, None, effects_of(formula, after, tables))]


def _spray_g(item: Ingredient, tables: Tables) -> float:
    """Mass of one stroke of the studio's sprayer [g]; as of water where no cup weight says otherwise."""
    return tables.spray_ml if item.us_cup_g is None else grams_from_entry(1, "spray", item, tables.spray_ml)


def _in_use(item: Ingredient, held: set[str], *, damp: bool) -> bool:
    """Whether makers correct a dough of this kind with it."""
    if item.reference_id in SPRAYS:
        return damp
    if item.role in {"oil", "surfactant"}:
        return item.id in held and not item.is_powder
    return item.role in {"base", "starch"} or item.reference_id == "glycerin"


def _words(name: str, step_g: float, spray_g: float | None) -> str:
    if spray_g is not None:
        return f"{max(1, round(step_g / spray_g))} sprays of {name.lower()} over the whole bowl, {step_g:.1f} g"
    return f"{step_g:.1f} g {name.lower()}, mix, judge again"


def _is_wet(felt: str, dough: Dough, tables: Tables) -> bool:
    """Whether what the hands feel is wetter than what is wanted; else it is drier."""
    return middle_saturation(felt, tables.parameters.dough) > _target(dough)


def _target(dough: Dough) -> float:
    ends = [end for end in (dough.wanted.saturation_low, dough.wanted.saturation_high) if end is not None]
    return sum(ends) / len(ends) if ends else math.inf
