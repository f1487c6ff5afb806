"""Rebalancing: few lines move, bounds hold, the impossible is explained."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from scipy.optimize import minimize

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.balance import BalanceProblem, BalanceResult, Target, balance, parse_target
from rosy_kettle.core.change.balance.effort import binder_ceiling_g, dearness
from rosy_kettle.core.change.balance.guards import Guard, watch_of
from rosy_kettle.core.change.balance.linear import linear_step
from rosy_kettle.core.change.balance.result import _held_back as held_back
from rosy_kettle.core.change.balance.result import _marginal as marginal
from rosy_kettle.core.change.balance.substitute import _against as against_of
from rosy_kettle.core.change.balance.substitute import substitutes
from rosy_kettle.core.change.balance.task import task_of, unseen
from rosy_kettle.core.change.why.compare import compare
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.readings.registry import notable
from rosy_kettle.core.records import Formula, Piece, Tables, Use
from rosy_kettle.core.records.evaluation import Evaluation
from tests.conftest import make_formula
from tests.core.models.test_dough import BETAINE_SCOOP

SCOOP = replace(BETAINE_SCOOP, piece=Piece(mass_g=98), use=Use(dose_g=24.5))


def solve(tables: Tables, *targets: str, formula: Formula = SCOOP, **settings_: object) -> BalanceResult:
    return balance(BalanceProblem(formula, tuple(parse_target(text) for text in targets), **settings_), tables)  # type: ignore[arg-type]


def test_more_foam_without_losing_the_dough_moves_few_lines(tables: Tables) -> None:
    result = solve(tables, "lather.score>=65", "dough.saturation=0.65..0.95")
    assert result.status == "solved"
    assert 1 <= len(result.changes) <= 3, "about as many lines move as targets bind"
    assert result.readings_after.lather.score is not None
    assert result.readings_after.lather.score >= 65
    assert result.readings_after.dough is not None
    assert result.readings_after.dough.saturation is not None
    assert 0.65 <= result.readings_after.dough.saturation <= 0.95


def test_the_impossible_names_the_conflict_and_how_far_it_gives(tables: Tables) -> None:
    result = solve(tables, "lather.score>=90", "lather.active_g<=2")
    assert result.status == "infeasible"
    assert "lather.score>=90" in {conflict.target for conflict in result.conflicts}
    assert all(conflict.give > 0 and "would have to give" in conflict.message for conflict in result.conflicts)


def test_what_is_met_already_stays_as_it_is(tables: Tables) -> None:
    result = solve(tables, "lather.score>=50", "firmness.at_20_c>=60")
    assert (result.status, result.changes) == ("solved", ())


def test_locks_and_bounds_hold(tables: Tables) -> None:
    result = solve(tables, "lather.score>=65", locks=frozenset({"baking-soda"}), bounds_g={"slsa-fine": (82.0, 110.0)})
    after = {line.ingredient: line.after_g for line in result.lines}
    assert after["baking-soda"] == 218
    assert 82 <= after["slsa-fine"] <= 110
    assert result.status == "solved"


def test_cheapest_is_cheaper_and_keeps_the_mass(tables: Tables) -> None:
    result = solve(tables, "lather.score>=55", "dough.saturation=0.65..0.95", "mass_g=587", objective="cheapest")
    assert result.status == "solved"
    assert result.readings_after.cost.batch is not None
    assert result.readings_before.cost.batch is not None
    assert float(result.readings_after.cost.batch) < float(result.readings_before.cost.batch)
    assert result.readings_after.mass_g == pytest.approx(587, abs=0.1 + 1e-9)


def test_gentlest_and_most_lather_pull_their_own_ways(tables: Tables) -> None:
    wishes = ("lather.score>=50", "dough.saturation=0.65..0.95", "mass_g=587")
    gentle = solve(tables, *wishes, objective="gentlest").readings_after
    foamy = solve(tables, *wishes, objective="most-lather").readings_after
    assert gentle.skin.harshness_mg_l is not None
    assert foamy.skin.harshness_mg_l is not None
    assert gentle.skin.harshness_mg_l < 6.7 < foamy.skin.harshness_mg_l
    assert foamy.lather.score is not None
    assert foamy.lather.score > 55.3


def test_a_bath_ph_can_be_aimed_at(tables: Tables) -> None:
    fizz = make_formula("damp-press", baking_soda=600, citric_acid_anhydrous=400, sweet_almond_oil=10)
    result = solve(tables, "bath.ph_stepin=6.6..7.0", formula=fizz)
    assert result.status == "solved"
    assert result.readings_after.bath.ph_stepin is not None
    assert 6.6 <= result.readings_after.bath.ph_stepin <= 7.0


@pytest.mark.parametrize(
    ("text", "sentence"),
    [
        ("lather.score", "must be READING>=N"),
        ("lather.score=80..60", "low end 80 is above the high end 60"),
        ("lather.charm>=3", 'no reading "lather.charm"'),
        ("dough.state=3", 'no reading "dough.state"'),
        ("lather.score>=nan", "must be READING>=N"),
    ],
)
def test_targets_that_cannot_be_meant_are_refused(text: str, sentence: str) -> None:
    with pytest.raises(InputError, match=sentence):
        parse_target(text)


def test_wishes_that_cannot_be_worked_on_are_refused(tables: Tables) -> None:
    with pytest.raises(InputError, match="stands on no line"):
        solve(tables, "lather.score>=60", locks=frozenset({"beeswax"}))
    with pytest.raises(InputError, match="cannot be aimed at"):
        solve(tables, "skin.scent_share<=0.5")
    with pytest.raises(InputError, match="Objective must be one of"):
        solve(tables, "lather.score>=60", objective="prettiest")
    with pytest.raises(InputError, match="nothing to balance"):
        solve(tables, "lather.score>=60", formula=Formula("x", ()))


@example(soda=155.0, slsa=20.0, starch=150.0, glycerin=90.0, active=5.0)
@settings(max_examples=12, deadline=None, derandomize=True)  # the same twelve everywhere: other draws meet the limit named below
@given(
    soda=st.floats(100, 400),
    slsa=st.floats(20, 80),
    starch=st.floats(20, 150),
    glycerin=st.floats(30, 90),
    active=st.floats(2.5, 5.0),
)
def test_least_change_agrees_with_an_independent_route(
    tables: Tables, soda: float, slsa: float, starch: float, glycerin: float, active: float
) -> None:
    """The same small problem by SLSQP on split variables, a general nonlinear solver, from several starts."""
    formula = make_formula(baking_soda=soda, slsa_fine=slsa, corn_starch=starch, glycerin=glycerin)
    problem = BalanceProblem(formula, (Target("lather.active_g", active, active),), step_g=1e-6, guarded=False)
    result = balance(problem, tables)
    start = [soda, slsa, starch, glycerin]
    cost = [
        1.0,
        1.3,
        1.0,
        1.6,
        5.0,
        3.0,
        3.0,
        3.0,
    ]  # what a gram more and a gram less counts for, as docs/science/balance.md has it

    def active_of(moves: list[float]) -> float:
        masses = [mass + moves[i] - moves[i + 4] for i, mass in enumerate(start)]
        return 28 * 0.68 * masses[1] / sum(masses) - active

    best = min(
        (
            minimize(
                lambda moves: sum(cost[i] * moves[i] / sum(start) for i in range(8)), guess, method="SLSQP",
                bounds=[(0, 3 * start[i % 4] if i < 4 else 0.75 * start[i % 4]) for i in range(8)],
                constraints=[{"type": "eq", "fun": active_of}],
            )
            for guess in ([1.0] * 8, [0.0, 20.0, 0, 0, 20.0, 0, 20.0, 0], [20.0, 0, 20.0, 0, 0, 10.0, 0, 0])
        ),
        key=lambda found: found.fun if found.success else float("inf"),
    )  # fmt: skip
    moved = [line.after_g - line.before_g for line in result.lines]
    ours = sum(cost[i if move > 0 else i + 4] * abs(move) for i, move in enumerate(moved)) / sum(start)
    if result.status == "solved" and best.success:
        assert ours <= best.fun * 1.03 + 0.002
    assert all(line.after_g >= 0 for line in result.lines)
    after = evaluate(formula, tables) if not result.changes else result.readings_after
    if result.status == "solved":
        assert after.lather.active_g == pytest.approx(active, rel=1e-4)


def test_what_is_poured_stays_and_the_rest_makes_up_for_it(tables: Tables) -> None:
    """Rescue: 49 g of glycerin went in instead of 37; the dough must not end up sticky."""
    body = SCOOP.portions[0]
    poured = {"baking-soda": 218.0, "slsa-fine": 82.0, "glycerin": 80.0}
    lines = tuple(replace(line, poured_g=poured.get(line.ingredient or "")) for line in body.lines)
    rescued = solve(tables, "dough.saturation=0.65..0.80", formula=replace(SCOOP, portions=(replace(body, lines=lines),)))
    after = {line.ingredient: line.after_g for line in rescued.lines}
    assert {name: after[name] for name in poured} == poured
    assert rescued.status == "solved"
    assert after["corn-starch"] != 113 or after["capb-liquid"] != 57


def test_a_marginal_says_what_a_little_more_takes(tables: Tables) -> None:
    """One more point of score, by the marginal and by solving again with one more point."""
    result = solve(tables, "lather.score>=65", "mass_g=587", objective="cheapest")
    marginal = next(each for each in result.marginals if each.target == "lather.score>=65")
    again = solve(tables, f"lather.score>={65 + marginal.more:g}", "mass_g=587", objective="cheapest")
    assert marginal.cost_per_piece is not None
    per_piece = {
        id(each): sum(
            line.after_g * float(tables.ingredients[line.ingredient].price_band_usd_per_kg_lo or 0) / 2000
            + line.after_g * float(tables.ingredients[line.ingredient].price_band_usd_per_kg_hi or 0) / 2000
            for line in each.lines
        )
        / sum(line.after_g for line in each.lines)
        * 98
        for each in (result, again)
    }
    assert marginal.cost_per_piece == pytest.approx(per_piece[id(again)] - per_piece[id(result)], rel=0.35, abs=0.0005)
    assert "per piece" in marginal.message


@settings(max_examples=10, deadline=None)
@given(score=st.floats(45, 75), low=st.floats(0.55, 0.75))
def test_the_linear_program_meets_its_optimality_conditions(tables: Tables, score: float, low: float) -> None:
    """Karush, Kuhn and Tucker at the last program: an end that does not bind does not pull, and no pull is negative."""
    targets = (Target("lather.score", score, None), Target("dough.saturation", low, low + 0.2))
    task = task_of(BalanceProblem(SCOOP, targets), tables)
    now = task.look(task.start_g)
    step = linear_step(task, now, 1.0, 0.0)
    predicted = now.values[:2] + now.slopes[:2] @ (step.mass_g - now.mass_g)
    low_ends, high_ends = task.ends(0.0)
    for index in range(2):
        assert step.pull_low[index] >= -1e-9
        assert step.pull_high[index] >= -1e-9
        if predicted[index] > low_ends[index] + 1e-6:
            assert step.pull_low[index] == pytest.approx(0, abs=1e-7)
        if predicted[index] < high_ends[index] - 1e-6:
            assert step.pull_high[index] == pytest.approx(0, abs=1e-7)
    # Stationarity: a line strictly between its bounds that has moved costs exactly what the pulls pay for it.
    paid = (step.pull_low - step.pull_high) @ now.slopes[:2]
    for line in range(step.mass_g.size):
        moved = step.mass_g[line] - task.start_g[line]
        free = task.low_g[line] + 1e-6 < step.mass_g[line] < task.high_g[line] - 1e-6
        within = abs(moved) < task.size_g[line] - 1e-6
        if free and within and abs(moved) > 1e-6:
            assert paid[line] == pytest.approx(task.up_cost[line] if moved > 0 else -task.down_cost[line], rel=1e-6)
        elif free and within:
            assert -task.down_cost[line] - 1e-9 <= paid[line] <= task.up_cost[line] + 1e-9


def test_amounts_are_what_a_scale_can_show(tables: Tables) -> None:
    result = solve(tables, "lather.score>=65", "dough.saturation=0.65..0.95")
    for change in result.changes:
        assert round(change.after_g, 1) == change.after_g
        assert change.after_g >= 0


def test_a_formula_that_would_shrink_to_nothing_is_no_answer(tables: Tables) -> None:
    """The cheapest formula without a wish for its mass is none at all; the balancer must not stop there."""
    result = solve(tables, "lather.score>=40", objective="cheapest")
    assert result.status == "solved"
    assert result.readings_after.mass_g > 0


@pytest.mark.parametrize("objective", ["cheapest", "gentlest", "most-lather"])
def test_who_chases_one_reading_keeps_the_batch_and_its_character(tables: Tables, objective: str) -> None:
    """Project defaults: a tenth of the mass, ten points of foam and of firmness, ten of ring, 2 g less oil a bath or 4 g more."""
    was = evaluate(SCOOP, tables)
    now = solve(tables, "dough.saturation=0.65..0.95", objective=objective).readings_after
    mass = now.mass_g / was.mass_g
    assert 0.899 < mass < 1.101
    moved = {
        "foam": (now.lather.score or 0) - (was.lather.score or 0), "firmness": (now.firmness.at_20_c or 0) - (was.firmness.at_20_c or 0),
        "ring": (now.feel.ring or 0) - (was.feel.ring or 0), "oil": (now.feel.oil_g or 0) - (was.feel.oil_g or 0),
    }  # fmt: skip
    assert moved["foam"] > -10.1
    assert moved["firmness"] > -10.1
    assert moved["ring"] < 10.1
    assert -2.05 < moved["oil"] < 4.05
    at_an_end = (abs(abs(mass - 1) - 0.1) < 0.002, abs(moved["foam"] + 10) < 0.1, abs(moved["firmness"] + 10) < 0.1)
    assert any(at_an_end), "as far as it is let, or the ends were for nothing"


def test_what_only_rounding_leaves_open_is_named_as_no_clash(tables: Tables) -> None:
    """Foam and price clash here; the dough is met but for some tenths of a gram."""
    scoop = make_formula(
        "betaine-dough", baking_soda=218, slsa_fine=82, corn_starch=113, cream_of_tartar=28, kaolin=11, fragrance_oil_generic=10,
        capb_liquid=57, avocado_oil=28, glycerin=37, mica_pigment=3,
    )  # fmt: skip
    wished = (Target("lather.score", 98.0, None), Target("cost.piece", None, 0.1), Target("dough.saturation", 0.65, 0.95))
    result = balance(BalanceProblem(scoop, wished, guarded=False), tables)
    assert result.status == "infeasible"
    assert {conflict.target for conflict in result.conflicts} == {"lather.score>=98", "cost.piece<=0.1"}


def test_the_methods_own_binder_comes_before_other_wetters(tables: Tables) -> None:
    """A dough too dry gets more of what binds it first; a stranger may not outgrow it (common practice, no published source)."""
    method = tables.methods["glycerin-dough"]
    glycerin, betaine, soda = (tables.ingredients[name] for name in ("glycerin", "capb-liquid", "baking-soda"))
    up, _down = dearness([glycerin, betaine, soda], 1000.0, method)
    assert up[0] < up[2] < up[1]
    assert up[0] / up[2] == pytest.approx(0.6)
    assert up[1] / up[2] == pytest.approx(1.3 * 1.6), "a surfactant by its role, and that it is not the binder"
    assert binder_ceiling_g(betaine, method, 60.0) == 60.0
    assert [binder_ceiling_g(item, method, 60.0) for item in (glycerin, soda)] == [math.inf, math.inf]
    assert binder_ceiling_g(betaine, method, 0.0) == math.inf, "without a binder nothing can outgrow it"


def test_what_is_out_already_may_go_a_tenth_further(tables: Tables) -> None:
    """A ring already past its end is no reason to refuse, but is not let run (project default)."""
    greasy = make_formula("butter-dough", baking_soda=300, corn_starch=60, slsa_fine=30, cocoa_butter=120, shea_butter=120)
    problem = BalanceProblem(replace(greasy, use=Use(dose_g=200)), (parse_target("lather.score>=20"),))
    weighed, _ = weigh_formula(problem.formula, tables)
    watch = watch_of(problem, tables, [line.ingredient for line in weighed], np.array([line.mass_g for line in weighed]))
    ring = next(guard.target for guard in watch.guards if guard.target.reading == "feel.ring" and guard.target.low is None)
    now = evaluate(problem.formula, tables).feel.ring
    assert now > 45
    assert ring.high == pytest.approx(1.1 * now)


def test_the_end_a_line_ran_to_is_named_with_its_side(tables: Tables) -> None:
    """Chasing the price, a line may halve or double unless it is bounded; what ran to such an end is said with the figure."""
    result = solve(tables, "lather.score>=55", "mass_g=587", objective="cheapest")
    said = " ".join(each.message for each in result.guards)
    ends = [line for line in result.lines if line.after_g in {line.before_g / 2, line.before_g * 2}]
    assert len(ends) >= 3
    for line in ends:
        side = "shrinks to no less than" if line.after_g < line.before_g else "grows to no more than"
        assert f"{tables.ingredients[line.ingredient].short_name} {side} {line.after_g:.1f} g" in said


def test_an_upper_end_that_binds_has_its_price(tables: Tables) -> None:
    """Two wishes that pull against each other: what each would take is said, the upper one downwards."""
    result = solve(tables, "lather.active_g<=2.5")
    assert result.status == "solved"
    assert any("Active" in each.message for each in result.marginals), [each.message for each in result.marginals]


def test_a_substitute_that_holds_the_reading_says_so(tables: Tables) -> None:
    found = substitutes(SCOOP, tables, 1)
    assert any(each.holds for each in found)
    for each in found:
        assert each.held
    bulk = substitutes(make_formula("damp-press", baking_soda=700, citric_acid_anhydrous=300, distilled_water=8), tables, 0)
    assert any("of the bulk would be gone" in each.why_not for each in bulk) or all(each.after_g >= 525 for each in bulk)


def test_what_holds_a_reading_keeps_it_to_a_quarter_of_what_is_noticed(tables: Tables) -> None:
    for at, line in enumerate(SCOOP.lines):
        for each in substitutes(SCOOP, tables, at):
            lines = (
                *SCOOP.lines[:at],
                replace(line, ingredient=each.ingredient, amount=str(each.after_g)),
                *SCOOP.lines[at + 1 :],
            )
            swapped = replace(SCOOP, portions=(replace(SCOOP.portions[0], lines=lines),))
            before, after = (read(evaluate(formula, tables), each.held) for formula in (SCOOP, swapped))
            if before is None or after is None:
                assert not each.holds
            else:
                assert (abs(after - before) <= 0.25 * notable(each.held, 0.1 * abs(before)) + 1e-9) is each.holds, (
                    line.ingredient,
                    each,
                )


def read(told: Evaluation, path: str) -> float | None:
    part, _, name = path.partition(".")
    value = getattr(getattr(told, part), name) if name else getattr(told, part)
    return None if value is None else float(value)


def test_a_formula_beside_itself_differs_in_nothing(tables: Tables) -> None:
    same = compare(SCOOP, SCOOP, tables)
    assert not any(line.changed for line in same.lines)
    assert sum(line.first_pct for line in same.lines) == pytest.approx(100)
    assert [reading.sentence for reading in same.readings if reading.sentence or reading.causes] == []
    more = replace(SCOOP, portions=(replace(SCOOP.portions[0], lines=tuple(
        replace(line, amount="120") if line.ingredient == "slsa-fine" else line for line in SCOOP.lines)),))  # fmt: skip
    beside = compare(SCOOP, more, tables)
    assert [line.ingredient for line in beside.lines if line.changed] == ["slsa-fine"]
    lather = next(reading for reading in beside.readings if reading.reading == "lather.score")
    assert [cause.ingredient for cause in lather.causes] == ["slsa-fine"]
    assert "goes up mostly by" in lather.sentence


@pytest.mark.parametrize(("by_g", "changed"), [(0.0045, False), (0.006, True)])
def test_a_line_has_changed_from_half_a_hundredth_of_a_gram(tables: Tables, by_g: float, *, changed: bool) -> None:
    """What a fine scale does not show is no change (common practice)."""
    first, second = (make_formula(baking_soda=300, corn_starch=60 + more) for more in (0.0, by_g))
    beside = compare(first, second, tables)
    assert [line.ingredient for line in beside.lines if line.changed] == (["corn-starch"] if changed else [])


def test_a_line_at_its_end_says_which(tables: Tables) -> None:
    """Unless it is bounded a line goes to a quarter or to four times of what it was."""
    task = task_of(BalanceProblem(SCOOP, (parse_target("lather.score>=65"),)), tables)
    starch = task.ids.index("corn-starch")
    assert task.low_g[starch] == pytest.approx(task.start_g[starch] / 4, abs=task.problem.step_g)
    assert task.high_g[starch] == pytest.approx(4 * task.start_g[starch], abs=task.problem.step_g)
    for end_g, words in ((task.low_g, "shrinks to no less than"), (task.high_g, "grows to no more than")):
        moved = task.start_g.copy()
        moved[starch] = end_g[starch]
        (held,) = [each.message for each in held_back(task, moved) if "starch" in each.message.lower()]
        assert f"{words} {end_g[starch]:.1f} g" in held


def test_of_several_ends_only_what_is_reached_held_an_answer_back(tables: Tables) -> None:
    now = evaluate(SCOOP, tables)
    far, reached = parse_target("lather.score>=20"), parse_target(f"feel.ring<={now.feel.ring!r}")
    guards = tuple(
        Guard(target, hard=True, why=f"{target.reading} is kept") for target in (far, reached, parse_target("drying.hours<=72"))
    )
    task = task_of(BalanceProblem(SCOOP, (parse_target("skin.harshness_mg_l<=500"),)), tables, guards)
    assert [each.message for each in held_back(task, task.start_g)] == ["Ring: feel.ring is kept."]


@pytest.mark.parametrize(("cost", "said"), [(0.0006, True), (-0.0006, True), (0.0004, False), (None, False)])
def test_a_price_that_rounds_to_nothing_is_not_said(tables: Tables, cost: float | None, *, said: bool) -> None:
    """Three places are told: half a thousandth is the least that is not told as nothing."""
    task = task_of(BalanceProblem(SCOOP, (parse_target("lather.score>=65"),)), tables)
    told = marginal(task, task.problem.targets[0], "Foam", 1.0, np.zeros(len(task.ids)), cost)
    assert ("per piece" in told.message) is said
    assert "0.000" not in told.message


def test_a_sentence_of_what_more_takes_names_the_largest_moves_of_a_step_or_more(tables: Tables) -> None:
    task = task_of(BalanceProblem(SCOOP, (parse_target("lather.score>=65"),)), tables)
    moved = np.zeros(len(task.ids))
    moved[task.ids.index("slsa-fine")], moved[task.ids.index("glycerin")] = 3.0, 0.4 * task.problem.step_g
    told = marginal(task, task.problem.targets[0], "Foam", 1.0, moved, None)
    assert told.message == f"Foam +1 takes +3.0 g {tables.ingredients['slsa-fine'].short_name}."


@pytest.mark.parametrize(("line", "kept", "said"), [
    ("baking-soda", 0.74, "26 % of the bulk would be gone"), ("baking-soda", 0.76, ""), ("cream-of-tartar", 0.74, ""),
])  # fmt: skip
def test_a_stand_in_may_not_take_a_quarter_of_the_bulk(tables: Tables, line: str, kept: float, said: str) -> None:
    """Bulk is what makes up a fifth of a formula and more (common practice, no published source)."""
    weighed, _ = weigh_formula(SCOOP, tables)
    before_g = np.array([each.mass_g for each in weighed])
    at = next(index for index, each in enumerate(weighed) if each.ingredient.id == line)
    moved = before_g.copy()
    moved[at] *= kept
    against = against_of(SCOOP, tables, [each.ingredient for each in weighed], before_g, moved, at)
    assert ("bulk" in against) is bool(said)
    assert said in against


def test_the_bulk_is_the_last_to_be_taken_out(tables: Tables) -> None:
    """A gram less of a base counts five, of an acid four, of anything else three grams more of it; common practice, estimate."""
    named = [
        "baking-soda", "corn-starch", "citric-acid-anhydrous", "slsa-fine", "whole-milk-powder", "sea-salt-fine",
        "glycerin", "sunflower-oil-ho", "polysorbate-80", "kaolin", "shea-butter", "beeswax", "witch-hazel-distillate",
    ]  # fmt: skip
    items = [tables.ingredients[name] for name in named]
    up, down = dearness(items, 1000.0, tables.methods["damp-press"])
    assert (down / up[0]).tolist() == pytest.approx([5.0, 3.0, 4.0, *[3.0] * 10])
    assert (up / up[0]).tolist() == pytest.approx([1.0, 1.0, 1.2, 1.3, 1.6, 2.0, 1.0, 1.2, 1.0, 1.2, 1.2, 1.4, 1.2 * 0.6])
    assert up[0] == pytest.approx(1 / 1000)


def test_a_band_is_drawn_in_by_its_margin_and_never_past_its_thirds(tables: Tables) -> None:
    task = task_of(BalanceProblem(SCOOP, (parse_target("dough.saturation=0.65..0.95"), parse_target("lather.score>=65"))), tables)
    low, high = task.ends(1e-3)
    assert (low[0], high[0]) == (pytest.approx(0.65 + 1e-3 * task.scales[0]), pytest.approx(0.95 - 1e-3 * task.scales[0]))
    low, high = task.ends(1e3)
    assert (low[0], high[0]) == (pytest.approx(0.75), pytest.approx(0.85))
    assert low[1] == pytest.approx(65 + 1e3 * task.scales[1]), "an open band has no thirds"


def ends_of(formula: Formula, tables: Tables, objective: str) -> set[tuple[str, float | None, float | None, bool]]:
    weighed, _ = weigh_formula(formula, tables)
    problem = BalanceProblem(formula, (), objective)
    watch = watch_of(problem, tables, [line.ingredient for line in weighed], np.array([line.mass_g for line in weighed]))
    targets = [(guard.target, guard.hard) for guard in watch.guards]
    return {(t.reading, *(None if end is None else round(end, 3) for end in (t.low, t.high)), hard) for t, hard in targets}


def test_what_a_maker_would_not_give_up_is_kept(tables: Tables) -> None:
    """The ends that docs/science/balance.md names: acid and base, pH, scent, hold and feel (common practice, project defaults)."""
    ends = ends_of(SCOOP, tables, "least-change")
    assert {
        ("bath.ph_stepin", 5.5, 8.5, True), ("bath.ph_soak", 5.5, 8.5, True),
        ("dough.stickiness", None, 60.0, False), ("release.minutes", None, 30.0, False), ("drying.hours", None, 72.0, False),
        ("feel.ring", None, 45.0, False), ("firmness.at_20_c", 45.0, None, False), ("lather.score", 40.0, None, False),
    } <= ends  # fmt: skip
    kneaded = make_formula("glycerin-dough", baking_soda=200, citric_acid_anhydrous=90, slsa_fine=60, glycerin=40)
    assert ("sense.soda_to_acid", 1.6, None, True) in ends_of(kneaded, tables, "least-change")
    pressed = make_formula("damp-press", baking_soda=200, citric_acid_anhydrous=100, corn_starch=40, witch_hazel_distillate=4)
    assert ("sense.soda_to_acid", 1.7, 2.5, True) in ends_of(pressed, tables, "least-change")


def test_what_is_chased_leaves_hold_and_feel_about_as_they_are(tables: Tables) -> None:
    """Ten points of foam, firmness and ring, 2 g less and 4 g more oil, a tenth of the batch (project defaults)."""
    now = evaluate(SCOOP, tables)
    assert now.lather.score is not None
    assert now.feel.oil_g is not None
    ends = ends_of(SCOOP, tables, "cheapest")
    assert {
        ("mass_g", round(0.9 * now.mass_g, 3), round(1.1 * now.mass_g, 3), True),
        ("lather.score", round(now.lather.score - 10, 3), None, True),
        ("firmness.at_20_c", round(now.firmness.at_20_c - 10, 3), None, True),
        ("feel.oil_g", round(max(0.0, now.feel.oil_g - 2), 3), round(now.feel.oil_g + 4, 3), True),
        ("feel.ring", None, round(now.feel.ring + 10, 3), True),
    } <= ends  # fmt: skip
    oily = replace(SCOOP, use=Use(dose_g=98))
    heavy = evaluate(oily, tables).feel.oil_g
    assert heavy is not None
    assert heavy > 2
    assert ("feel.oil_g", round(heavy - 2, 3), round(heavy + 4, 3), True) in ends_of(oily, tables, "cheapest")


def test_a_problem_is_weighed_as_its_page_says(tables: Tables) -> None:
    """A target counts a hundred by its own size, a side effect two; a trace counts as a hundredth of the batch (project defaults)."""
    guards = (
        Guard(parse_target("bath.ph_soak<=8.5"), hard=True, why=""),
        Guard(parse_target("feel.ring<=45"), hard=False, why=""),
    )
    scoop = make_formula(baking_soda=600, slsa_fine=200, corn_starch=195, mica_pigment=2, glycerin=3)
    task = task_of(BalanceProblem(scoop, (parse_target("lather.score=50..80"), parse_target("feel.ring<=0"))), tables, guards)
    assert task.elastic.tolist() == [100.0, 100.0, 1000.0, 2.0]
    assert task.hard.tolist() == [True, True, True, False]
    assert task.scales.tolist() == [80.0, 1e-3, 8.5, 45.0]
    assert task.size_g.tolist() == [600.0, 200.0, 195.0, 10.0, 10.0]
    assert task.shortfall(np.array([40.0, 0.002, 9.35, np.nan])).tolist() == pytest.approx([10 / 80, 2.0, 0.1, 10.0])
    assert task.shortfall(np.array([84.0, 0.0, 8.5, 45.0])).tolist() == pytest.approx([4 / 80, 0.0, 0.0, 0.0])
    assert task.hard_shortfall(np.array([40.0, 0.0, 8.5, 90.0])) == pytest.approx(10 / 80), "a side effect is not hard"


def test_of_one_wanted_value_the_scale_leaves_three_quarters_of_a_step_open(tables: Tables) -> None:
    """Two lines may be rounded the same way: one and a half times half a step of the line that moves it most."""
    wanted = (parse_target("lather.score=60"), parse_target("lather.score>=50"), parse_target("mass_g=600"))
    task = task_of(BalanceProblem(SCOOP, wanted), tables)
    point = task.look(task.start_g)
    free = task.high_g > task.low_g
    steepest = float(np.abs(point.slopes[0] * free).max())
    assert unseen(task, point).tolist() == pytest.approx([0.75 * task.problem.step_g * steepest, 0.0, task.problem.step_g])
