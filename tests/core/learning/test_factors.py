"""Learning: shrinkage in closed form, a hidden bias found again, a wild observation borne, and nothing lost."""

from __future__ import annotations

import math
from dataclasses import replace
from types import SimpleNamespace

import numpy as np
import pytest

from rosy_kettle.core.learning.apply import with_factors
from rosy_kettle.core.learning.factors import SIDE, Factor, Learnt, learn
from rosy_kettle.core.learning.factors import _off as off
from rosy_kettle.core.learning.observations import Observation, told_by
from rosy_kettle.core.making.plan import Wish, plan_order
from rosy_kettle.core.parameters.learning import LearningParameters
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Room, Tables
from tests.conftest import make_formula
from tests.core.models.test_dough import BETAINE_SCOOP, GLYCERIN_ROLL

P = LearningParameters()


def dried(tables: Tables, *factors: float, formula: Formula = BETAINE_SCOOP) -> list[Observation]:
    hours = evaluate(formula, tables).drying.hours
    assert hours is not None
    return [Observation("dried", formula, {"hours": hours * factor}) for factor in factors]


def factor(learnt: Learnt, id_: str) -> Factor:
    return next(each for each in learnt.factors if each.id == id_)


@pytest.mark.parametrize("factors", [(1.4,), (1.4, 1.3), (0.8, 1.4, 1.3, 1.2), (1.38,) * 9])
def test_shrinkage_is_the_normal_posterior_in_closed_form(tables: Tables, factors: tuple[float, ...]) -> None:
    """Gelman et al., Bayesian Data Analysis, 2.5: precisions add, means are weighed by them."""
    seen = np.log(factors)
    plain = seen.sum() / P.dried_noise**2 / (1 / P.drying_prior**2 + len(seen) / P.dried_noise**2)
    noise = P.dried_noise * math.sqrt(
        (P.noise_counts + (((seen - plain) / P.dried_noise) ** 2).sum()) / (P.noise_counts + len(seen))
    )
    precision = 1 / P.drying_prior**2 + len(seen) / noise**2
    mean = seen.sum() / noise**2 / precision
    told = factor(learn(dried(tables, *factors), tables), "drying")
    assert told.yours == pytest.approx(math.exp(mean))
    assert (told.low, told.high) == (
        pytest.approx(math.exp(mean - SIDE / math.sqrt(precision))), pytest.approx(math.exp(mean + SIDE / math.sqrt(precision)))
    )  # fmt: skip
    assert told.n == len(factors)


def test_what_is_left_is_measured_with_each_observation_left_out(tables: Tables) -> None:
    """Against leaving each out by hand; Allen, Technometrics 16 (1974) 125, gives it from one solution."""
    seen = np.log((1.4, 1.3, 0.8, 1.2, 2.5))
    plain = seen.sum() / P.dried_noise**2 / (1 / P.drying_prior**2 + len(seen) / P.dried_noise**2)
    noise = P.dried_noise * math.sqrt(
        (P.noise_counts + (((seen - plain) / P.dried_noise) ** 2).sum()) / (P.noise_counts + len(seen))
    )
    off = []
    for index in range(len(seen)):
        others = np.delete(seen, index)
        off.append(abs(seen[index] - others.sum() / noise**2 / (1 / P.drying_prior**2 + len(others) / noise**2)))
    (error,) = learn(dried(tables, *np.exp(seen)), tables).errors
    assert (error.before, error.after) == (pytest.approx(np.abs(seen).mean()), pytest.approx(np.mean(off)))


def test_few_observations_stay_near_the_default_and_many_do_not(tables: Tables) -> None:
    one, many = (factor(learn(dried(tables, *([1.5] * n)), tables), "drying") for n in (1, 30))
    assert 1.0 < one.yours < 1.3
    assert one.low < 1.0, "one tray does not settle it"
    assert not one.accepted_by_default
    assert many.yours == pytest.approx(1.5, rel=0.03)
    assert many.low > 1.3
    assert many.accepted_by_default


def test_a_wild_one_among_ten_moves_little(tables: Tables) -> None:
    calm = factor(learn(dried(tables, *([1.2] * 10)), tables), "drying").yours
    for wild in (6.0, 20.0, 0.05):
        moved = factor(learn(dried(tables, *([1.2] * 9), wild), tables), "drying").yours
        assert abs(math.log(moved / calm)) < abs(math.log(wild / calm)) / 5


def test_a_hidden_bias_is_found_and_halves_what_is_off(tables: Tables) -> None:
    """Trays 1.4 times as slow as the model, with noise: within the interval, and leave-one-out errors halved."""
    found = 0
    for seed in range(20):
        chance = np.random.default_rng(seed)
        learnt = learn(dried(tables, *(1.4 * np.exp(chance.normal(0, 0.12, 12)))), tables)
        told, error = factor(learnt, "drying"), learnt.errors[0]
        found += told.low <= 1.4 <= told.high
        assert error.after < 0.62 * error.before
    assert found >= 17


def test_what_powders_drink_is_shared_out_by_what_they_drink(tables: Tables) -> None:
    """Two blends, one all starch and one all soda, tell starch and soda apart."""
    starch = make_formula("glycerin-dough", corn_starch=50)
    soda = make_formula("glycerin-dough", baking_soda=50)

    def rope(formula: Formula, thirst: float) -> Observation:
        at = {}
        for key, wanted in (("rolls_at_g", P.rolls_at), ("smears_at_g", P.smears_at)):
            low, high = 0.1, 200.0
            for _ in range(60):
                middle = math.sqrt(low * high)
                facts = {key: middle, "wetter": "glycerin", "temperature_c": 21.0}
                log_said = told_by(Observation("rope", formula, facts), tables, P).equations[0].seen + math.log(wanted)
                low, high = (middle, high) if log_said < math.log(wanted * thirst) else (low, middle)
            at[key] = low
        return Observation("rope", formula, {**at, "wetter": "glycerin", "temperature_c": 21.0})

    learnt = learn([rope(starch, 1.5)] * 4 + [rope(soda, 0.8)] * 4, tables)
    assert factor(learnt, "demand.starch").yours == pytest.approx(1.5, rel=0.05)
    assert factor(learnt, "demand.base").yours == pytest.approx(0.8, rel=0.05)
    assert learnt.errors[0].after < 0.25 * learnt.errors[0].before


def roped(tables: Tables, formula: Formula, thirst: float) -> Observation:
    """A dough felt sticky or a rope rolled where S is what it would be if all powders drank so many times as much."""
    low, high = 0.1, 400.0
    for _ in range(60):
        middle = math.sqrt(low * high)
        facts = {"rolls_at_g": middle, "wetter": "glycerin", "temperature_c": 21.0}
        said = told_by(Observation("rope", formula, facts), tables, P).equations[0].seen + math.log(P.rolls_at)
        low, high = (middle, high) if said < math.log(P.rolls_at * thirst) else (low, middle)
    return Observation("rope", formula, {"rolls_at_g": low, "wetter": "glycerin", "temperature_c": 21.0})


def test_one_starch_that_drinks_more_is_told_apart_from_the_others(tables: Tables) -> None:
    """Tapioca 1.35 times as thirsty as it says, corn as it says; alone it is its role, and alike nothing is told of it."""
    corn, tapioca = (make_formula("glycerin-dough", **{name: 60.0}) for name in ("corn_starch", "tapioca_starch"))
    both = learn([roped(tables, corn, 1.0)] * 6 + [roped(tables, tapioca, 1.35)] * 6, tables)
    own = factor(both, "demand.tapioca-starch")
    assert own.low <= 1.35 <= own.high
    assert own.accepted_by_default
    assert own.message.startswith("Your tapioca starch drinks")
    alone = learn([roped(tables, tapioca, 1.35)] * 6, tables)
    assert [each.id for each in alone.factors] == ["demand.starch"]
    alike = learn([roped(tables, corn, 1.35)] * 6 + [roped(tables, tapioca, 1.35)] * 6, tables)
    assert [each.id for each in alike.factors] == ["demand.starch"]
    used = with_factors(tables, {"demand.starch": 1.1, "demand.tapioca-starch": 1.35})
    drinks = {id_: used.ingredients[id_].liquid_demand_ml_100g for id_ in ("corn-starch", "tapioca-starch")}
    before = {id_: tables.ingredients[id_].liquid_demand_ml_100g for id_ in drinks}
    assert {id_: drinks[id_] / before[id_] for id_ in drinks} == pytest.approx({"corn-starch": 1.1, "tapioca-starch": 1.35})  # type: ignore[operator]


@pytest.mark.parametrize(("points", "shift"), [(5.0, 5.0), (-5.0, -5.0), (200.0, None), (-200.0, None)])
def test_points_of_firmness_are_added_and_never_leave_the_scale(tables: Tables, points: float, shift: float | None) -> None:
    plain = evaluate(BETAINE_SCOOP, tables).firmness
    moved = evaluate(BETAINE_SCOOP, with_factors(tables, {"firmness": points})).firmness
    assert plain.at_20_c is not None
    assert moved.at_20_c == pytest.approx(plain.at_20_c + shift if shift else (98.0 if points > 0 else 0.0))
    assert evaluate(BETAINE_SCOOP, with_factors(tables, {})).firmness == plain


def test_what_a_tool_packs_reaches_the_plan_and_is_found_again(tables: Tables) -> None:
    def piece_g(of: Tables, tool: str) -> float:
        return plan_order(BETAINE_SCOOP, of, [Wish(4, tool)], None, None, {}).pieces[0].piece_mass_g

    fuller = with_factors(tables, {"packing.disher-24": 1.08})
    assert piece_g(fuller, "disher-24") == pytest.approx(1.08 * piece_g(tables, "disher-24"))
    assert piece_g(fuller, "disher-30") == piece_g(tables, "disher-30")
    weighed = [Observation("pieces", BETAINE_SCOOP, {"tool": "disher-24", "piece_g": [piece_g(fuller, "disher-24")] * 3})] * 20
    told = factor(learn(weighed, tables), "packing.disher-24")
    assert told.low <= 1.08 <= told.high
    assert told.message.startswith("Your spring-handle scoop #24 packs 1.0")


def test_foam_early_tells_its_height_and_late_its_life(tables: Tables) -> None:
    lather = evaluate(BETAINE_SCOOP, tables).lather
    assert lather.height_cm
    assert lather.half_life_min
    seen = []
    for minutes in (5, 10, 20, 30):
        after = max(0.0, minutes - tables.parameters.lather.fill_min)
        rises = min(1.0, minutes / tables.parameters.lather.fill_min)  # the tub fills for so long
        height = 1.3 * rises * lather.height_cm * 2 ** (-after / (0.7 * lather.half_life_min))
        seen += [Observation("foam", BETAINE_SCOOP, {"minutes": minutes, "height_cm": height})] * 6
    learnt = learn(seen, tables)
    assert factor(learnt, "foam").yours == pytest.approx(1.3, rel=0.08)
    assert factor(learnt, "foam_half_life").yours == pytest.approx(0.7, rel=0.12)


def test_pieces_losses_and_drops_are_heard(tables: Tables) -> None:
    learnt = learn([
        *[Observation("yield", BETAINE_SCOOP, {"bowl_g": 1000.0, "pieces_g": 900.0})] * 8,
        *[Observation("pieces", BETAINE_SCOOP, {"tool": "disher-24", "piece_g": [66.0, 67.0, 65.0]})] * 5,
        *[Observation("scratch", BETAINE_SCOOP, {"drops": 30.0})] * 6,
        *[Observation("felt", GLYCERIN_ROLL, {"state": "crumbly dough", "temperature_c": 21.0})] * 6,
    ], tables)  # fmt: skip
    assert 7 < factor(learnt, "loss.betaine-dough").yours < 10
    assert factor(learnt, "packing.disher-24").yours > 1.05
    assert factor(learnt, "firmness").yours > 5
    assert factor(learnt, "demand.base").yours > 1, "it felt drier than said, so the powders drink more"


def test_points_may_be_taken_off_but_no_loss_is_less_than_nothing(tables: Tables) -> None:
    soft = factor(learn([Observation("scratch", BETAINE_SCOOP, {"drops": 2.0})] * 8, tables), "firmness")
    assert soft.yours < -5
    assert soft.low < soft.yours < soft.high < 0
    kept = factor(
        learn([Observation("yield", BETAINE_SCOOP, {"bowl_g": 1000.0, "pieces_g": 1000.0})] * 8, tables), "loss.betaine-dough"
    )
    assert kept.low == 0.0
    assert 0.0 <= kept.yours < kept.high


def test_what_cannot_be_used_is_set_aside_with_its_reason(tables: Tables) -> None:
    never = replace(BETAINE_SCOOP, room=Room(21, 90))
    empty = make_formula(glycerin=100)
    odd = [
        Observation("felt", BETAINE_SCOOP, {"state": "gossip", "temperature_c": 21.0}),
        Observation("felt", BETAINE_SCOOP, {"state": "pour", "temperature_c": 21.0}),
        Observation("dried", never, {"hours": 40.0}),
        Observation("foam", make_formula("damp-press", baking_soda=100), {"minutes": 5.0, "height_cm": 4.0}),
        Observation("pieces", BETAINE_SCOOP, {"tool": "spoon", "piece_g": [50.0]}),
        Observation("yield", BETAINE_SCOOP, {"bowl_g": 100.0, "pieces_g": 120.0}),
        Observation("rope", BETAINE_SCOOP, {"wetter": "nothing", "rolls_at_g": 3.0, "temperature_c": 21.0}),
        Observation("felt", empty, {"state": "sticky", "temperature_c": 21.0}),
        Observation("dried", BETAINE_SCOOP, {"hours": 40.0}, refused="its glycerin is gone"),
    ]
    learnt = learn(odd, tables)
    assert [each.index for each in learnt.set_aside] == list(range(len(odd)))
    assert learnt.factors == ()
    assert "its glycerin is gone" in learnt.set_aside[-1].reason


def test_a_factor_never_runs_further_than_it_is_let(tables: Tables) -> None:
    told = factor(learn(dried(tables, *([40.0] * 40)), tables), "drying")
    assert told.yours == pytest.approx(4 * P.furthest)
    assert not told.accepted_by_default
    assert "beyond what is learnt: look at your scale or your recipe" in told.message


@pytest.mark.parametrize(("truth", "n"), [(1.0, 6), (1.3, 6), (1.8, 6), (2.8, 6), (2.8, 20), (4.5, 12)])
def test_an_interval_holds_the_factor_wherever_it_is(tables: Tables, truth: float, n: int) -> None:
    """90 % intervals over 60 seeded studios whose hours scatter by a fifth; three of their own binomial spreads allowed."""
    dice, held = np.random.default_rng(3), 0
    for _ in range(60):
        told = factor(learn(dried(tables, *(truth * np.exp(dice.normal(0, 0.2, n)))), tables), "drying")
        held += told.low <= truth <= told.high
        assert told.low < told.high
    assert held >= 60 * 0.9 - 3 * math.sqrt(60 * 0.9 * 0.1)


def test_foam_that_is_gone_counts_as_a_millimetre(tables: Tables) -> None:
    """A height of nothing has no logarithm; less than a millimetre nobody reads off a rule: common practice."""

    def seen(height_cm: float) -> float:
        return told_by(Observation("foam", BETAINE_SCOOP, {"minutes": 10.0, "height_cm": height_cm}), tables, P).equations[0].seen

    assert seen(0.0) == seen(0.1)
    assert seen(0.2) - seen(0.1) == pytest.approx(math.log(2))


def test_drops_say_firmness_by_their_own_curve(tables: Tables) -> None:
    """F = 100 (1 - exp(-n/12)): common practice, no published source."""
    said = evaluate(BETAINE_SCOOP, tables).firmness.at_20_c
    assert said is not None
    for drops, firm in ((12.0, 63.212), (24.0, 86.466), (1.0, 7.996)):
        (equation,) = told_by(Observation("scratch", BETAINE_SCOOP, {"drops": drops}), tables, P).equations
        assert equation.seen == pytest.approx(firm - said, abs=1e-2)
        assert equation.weights == {"firmness": 1.0}


@pytest.mark.parametrize(
    ("prior", "half_width"),
    [
        (P.drying_prior, math.log(1.5 / 0.75) / 2), (P.foam_prior, math.log(1.6)), (P.half_life_prior, math.log(2.0)), (P.firmness_prior, 12.0),
        (P.packing_prior, 0.07),
    ],
    ids=["hours × 0.75 to 1.5", "litres ×/÷ 1.6", "life ×/÷ 2", "firmness ± 12", "packing ± 7 %"],
)  # fmt: skip
def test_a_prior_is_as_wide_as_the_band_the_reading_tells(prior: float, half_width: float) -> None:
    """90 % of a normal lie within 1.645 standard deviations (NIST/SEMATECH e-Handbook 1.3.6.7.1)."""
    assert prior == pytest.approx(half_width / 1.6449, rel=0.04)


def test_a_stretch_is_missed_by_the_way_to_its_nearer_end() -> None:
    block = SimpleNamespace(
        between=np.array([[0.1, 0.3], [0.1, 0.3], [0.1, 0.3], [math.nan, math.nan]]), seen=np.array([0.2, 0.2, 0.2, 0.2])
    )
    assert off(block, np.array([0.0, 0.2, 0.45, 0.05])) == pytest.approx([0.1, 0.0, 0.15, 0.15])
