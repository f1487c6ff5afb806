"""Thirty wishes a maker might have: the answers are what one would do at the bench (common practice, no published source)."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from scipy.optimize import differential_evolution

from rosy_kettle.core.change.balance import BalanceProblem, BalanceResult, balance, parse_target
from rosy_kettle.core.change.balance.effort import HELD_ROLES
from rosy_kettle.core.change.balance.guards import watch_of
from rosy_kettle.core.change.balance.task import Task, task_of
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.reference import load_tables
from tests.conftest import make_formula

DRY_SCOOP = make_formula(
    baking_soda=230, slsa_fine=75, corn_starch=100, cream_of_tartar=30, capb_liquid=48, glycerin=22, fragrance_oil_generic=9
)
SCOOP = make_formula(
    baking_soda=225, slsa_fine=78, corn_starch=105, cream_of_tartar=30, kaolin=12, capb_liquid=58, avocado_oil=26, glycerin=36,
    fragrance_oil_generic=9, mica_pigment=2,
)  # fmt: skip
WET_SCOOP = make_formula(
    baking_soda=220, slsa_fine=80, corn_starch=80, cream_of_tartar=20, capb_liquid=90, glycerin=50, fragrance_oil_generic=9
)
ROLL = make_formula(
    "glycerin-dough", baking_soda=450, corn_starch=90, cream_of_tartar=90, slsa_fine=150, glycerin=270, sweet_almond_oil=30
)
BUTTERY = make_formula(
    "butter-dough", baking_soda=390, citric_acid_anhydrous=195, cream_of_tartar=55, slsa_fine=115, cocoa_butter=95, shea_butter=85,
    glycerin=28, polysorbate_80=18, fragrance_oil_generic=12,
)  # fmt: skip
BALL = make_formula(
    "damp-press", baking_soda=380, citric_acid_anhydrous=190, corn_starch=45, slsa_fine=14, sweet_almond_oil=12, isopropyl_alcohol_91=9,
    fragrance_oil_generic=9,
)  # fmt: skip
DUST = make_formula(
    "loose-dust", baking_soda=350, citric_acid_anhydrous=175, slsa_fine=12, kaolin=15, sweet_almond_oil=15, polysorbate_80=6,
    fragrance_oil_generic=8,
)  # fmt: skip
TRUFFLE = make_formula(
    "moulded-truffle", baking_soda=200, citric_acid_anhydrous=100, cocoa_butter=130, polysorbate_80=6, fragrance_oil_generic=3
)
MELT = make_formula(
    "melt", cocoa_butter=60, shea_butter=30, emulsifying_wax=15, baking_soda=40, citric_acid_anhydrous=20, fragrance_oil_generic=3
)

WISHES: list[tuple[str, Formula, list[str]]] = [
    ("a dry scoop dough made workable", DRY_SCOOP, ["dough.saturation=0.65..0.95"]),
    ("a wet scoop dough made workable", WET_SCOOP, ["dough.saturation=0.65..0.90"]),
    ("more foam from a scoop", SCOOP, ["lather.score>=65"]),
    ("much more foam from a scoop", SCOOP, ["lather.score>=75"]),
    ("less foam and milder", SCOOP, ["skin.harshness_mg_l<=6"]),
    ("a harder scoop", SCOOP, ["firmness.at_20_c>=83"]),
    ("a scoop that dries sooner", SCOOP, ["drying.hours<=24"]),
    ("a tenth cheaper scoop", SCOOP, ["cost.piece<=0.54"]),
    ("less oil in the tub", SCOOP, ["feel.oil_g<=0.9"]),
    ("no ring from a scoop", SCOOP, ["feel.ring<=9"]),
    ("a larger batch", SCOOP, ["mass_g=900"]),
    ("a smaller batch with the same foam", SCOOP, ["mass_g=400", "lather.score>=52"]),
    ("creamier foam", SCOOP, ["lather.character<=42"]),
    ("more foam in a workable dough", SCOOP, ["lather.score>=68", "dough.saturation=0.65..0.85"]),
    ("harder and foamier", SCOOP, ["firmness.at_20_c>=80", "lather.score>=62"]),
    ("a roll that dries sooner", ROLL, ["drying.hours<=30"]),
    ("a firmer roll", ROLL, ["firmness.at_20_c>=55"]),
    ("a drier roll", ROLL, ["dough.saturation=0.70..0.80"]),
    ("a roll with more foam", ROLL, ["lather.score>=66"]),
    ("a foamier truffle", BUTTERY, ["lather.score>=66"]),
    ("a harder truffle", BUTTERY, ["firmness.at_20_c>=78"]),
    ("a less oily truffle", BUTTERY, ["feel.oil_g<=9"]),
    ("a truffle for a warm shelf", BUTTERY, ["firmness.at_30_c>=60"]),
    ("a ball with foam", BALL, ["lather.score>=40"]),
    ("a harder ball", BALL, ["firmness.at_20_c>=56"]),
    ("a ball with more oil", BALL, ["feel.oil_g>=2"]),
    ("dust with foam", DUST, ["lather.score>=35"]),
    ("a harder moulded truffle", TRUFFLE, ["firmness.at_20_c>=80"]),
    ("a melt without a ring", MELT, ["feel.ring<=35"]),
    ("a melt that goes sooner", MELT, ["release.minutes<=14", "firmness.at_20_c>=60"]),
]
ANSWERS: dict[str, BalanceResult] = {}


def answer(name: str, tables: Tables) -> BalanceResult:
    if name not in ANSWERS:
        formula, texts = next((formula, texts) for each, formula, texts in WISHES if each == name)
        ANSWERS[name] = balance(BalanceProblem(formula, tuple(map(parse_target, texts))), tables)
    return ANSWERS[name]


@pytest.mark.parametrize(("name", "formula", "texts"), WISHES, ids=[name for name, _, _ in WISHES])
def test_a_maker_would_take_the_answer(tables: Tables, name: str, formula: Formula, texts: list[str]) -> None:
    result = answer(name, tables)
    assert result.status == "solved", [conflict.message for conflict in result.conflicts]
    scaled = any(text.startswith("mass_g") for text in texts)
    if not scaled:
        assert len(result.changes) <= len(texts) + 2
        held = {line.ingredient for line in result.changes} & {i.id for i in tables.ingredients.values() if i.role in HELD_ROLES}
        assert not held
    factor = result.readings_after.mass_g / result.readings_before.mass_g if scaled else 1.0
    for line in result.lines:
        assert 0.25 * factor * line.before_g * 0.99 - 0.1 <= line.after_g <= 4 * factor * line.before_g * 1.01 + 0.1, line
        if tables.ingredients[line.ingredient].role == "base":
            assert line.after_g >= 0.75 * factor * line.before_g, "the bulk stays the bulk"
    problem = BalanceProblem(formula, tuple(map(parse_target, texts)))
    watch = watch_of(problem, tables, [tables.ingredients[line.ingredient] for line in result.lines], _before(result))
    broken = watch.broken(np.array([line.after_g for line in result.lines]))
    assert not [guard for guard in broken if guard.hard]


def test_a_mass_alone_scales_the_batch(tables: Tables) -> None:
    result = answer("a larger batch", tables)
    factors = [line.after_g / line.before_g for line in result.lines if line.before_g > 5]
    assert max(factors) - min(factors) < 0.02


def test_hardly_an_answer_is_beaten_by_a_global_search() -> None:
    """Differential evolution (SciPy) on the same cost: more than 3 % better in at most three of thirty."""
    tables, beaten = load_tables(), []
    for name, formula, texts in WISHES:
        problem = BalanceProblem(formula, tuple(map(parse_target, texts)))
        result = answer(name, tables)
        items = [tables.ingredients[line.ingredient] for line in result.lines]
        watch = watch_of(problem, tables, items, _before(result))
        task = task_of(problem, tables, watch.guards)
        ours = cost(task, np.array([line.after_g for line in result.lines]))
        found = searched(task)
        if found < 0.97 * ours - 0.002:
            beaten.append((name, ours, found))
    assert len(beaten) <= 3, beaten


def _before(result: BalanceResult) -> np.ndarray:
    return np.array([line.before_g for line in result.lines])


def cost(task: Task, mass_g: np.ndarray) -> float:
    """What the balancer weighs: misses by their weight, and the change."""
    missed = task.shortfall(task.values(mass_g))
    return float(task.elastic @ np.where(missed < 2e-3, 0.0, missed)) + task.change(mass_g)


def test_the_end_that_held_an_answer_back_is_named_and_no_other(tables: Tables) -> None:
    for name, formula, texts in WISHES:
        result, wanted = answer(name, tables), tables.method_of(formula).wanted
        told = {held.guard.partition("=")[0].partition(">")[0].partition("<")[0] for held in result.guards}
        dough = result.readings_after.dough
        if dough is not None and dough.saturation is not None and not any(text.startswith("dough") for text in texts):
            ends = [end for end in (wanted.saturation_low, wanted.saturation_high) if end is not None]
            at_an_end = any(abs(dough.saturation - end) < 0.002 for end in ends)
            assert ("dough.saturation" in told) is at_an_end, name
        assert told <= {"dough.saturation"}, "no other end is near in these"


GENERATIONS = 20  # of the search; as many on every machine


def searched(task: Task) -> float:
    free = np.flatnonzero(task.high_g > task.low_g)

    def at(moves: np.ndarray) -> float:
        mass_g = np.clip(task.start_g, task.low_g, task.high_g)
        mass_g[free] = np.where(np.abs(moves) < 0.2, mass_g[free], _moved(task, free, moves))
        return cost(task, mass_g)

    return float(differential_evolution(at, [(-1.0, 1.0)] * free.size, popsize=6, seed=3, polish=False, maxiter=GENERATIONS).fun)


def _moved(task: Task, free: np.ndarray, moves: np.ndarray) -> np.ndarray:
    """A line rests while its move is small, then runs to its lower or upper bound."""
    share = (np.abs(moves) - 0.2) / 0.8
    start, low, high = task.start_g[free], task.low_g[free], task.high_g[free]
    return np.where(moves > 0, start + share**2 * (high - start), start - share**2 * (start - low))


def test_what_makers_complained_of_does_not_come_back(tables: Tables) -> None:
    ball = make_formula(
        "damp-press", baking_soda=360, citric_acid_anhydrous=180, slsa_fine=10, sweet_almond_oil=10, isopropyl_alcohol_91=8
    )
    foamy = balance(BalanceProblem(ball, (parse_target("lather.score>=50"),)), tables)
    assert [line.ingredient for line in foamy.changes] == ["slsa-fine"]
    assert foamy.readings_after.bath.ph_stepin == pytest.approx(6.5, abs=1.0)
    cheaper = balance(BalanceProblem(SCOOP, (parse_target("cost.piece<=0.53"),)), tables)
    assert "fragrance-oil-generic" not in {line.ingredient for line in cheaper.changes}
    exact = balance(
        BalanceProblem(
            make_formula("damp-press", baking_soda=400, citric_acid_anhydrous=200), (parse_target("fizz.base_to_acid=3"),)
        ),
        tables,
    )
    assert exact.status == "solved"
    fizzing = make_formula("melt", cocoa_butter=60, shea_butter=30, emulsifying_wax=15, baking_soda=30, citric_acid_anhydrous=15)
    quick = balance(BalanceProblem(fizzing, tuple(map(parse_target, ("release.minutes<=7", "firmness.at_20_c>=60")))), tables)
    assert quick.status == "another-formula", "a third of a melt of 150 g would move"


def test_guards_can_be_put_aside_and_scent_freed(tables: Tables) -> None:
    wish = (parse_target("dough.saturation>=0.9"),)
    held = balance(BalanceProblem(DRY_SCOOP, wish), tables)
    freed = balance(BalanceProblem(DRY_SCOOP, wish, frees=frozenset({"fragrance-oil-generic"}), guarded=False), tables)
    assert "fragrance-oil-generic" not in {line.ingredient for line in held.changes}
    assert freed.status == held.status == "solved"
    strong = replace(BALL, portions=BALL.portions)
    sour = balance(BalanceProblem(strong, (parse_target("fizz.base_to_acid<=1.2"),)), tables)
    assert (
        sour.status == "infeasible"
        or any("bath.ph" in guard.guard for guard in sour.guards)
        or sour.readings_after.bath.ph_stepin >= 5.49
    )
