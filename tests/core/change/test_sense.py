"""What a maker never does, held against everything that changes a formula: wishes, levers and substitutes over all families.

The rules are common practice, no published source; their figures stand in `core/change/sense` and on docs/science/balance.md.
"""

from __future__ import annotations

import math

import numpy as np
import pytest

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.balance import BalanceProblem, BalanceResult, balance
from rosy_kettle.core.change.balance.aims import aims_of
from rosy_kettle.core.change.balance.problem import parse_target
from rosy_kettle.core.change.balance.substitute import substitutes
from rosy_kettle.core.change.sense import ANOTHER_FORMULA, FIGURES, MASS_KEPT, moved_share
from rosy_kettle.core.change.why import levers
from rosy_kettle.core.readings.registry import watched_paths
from rosy_kettle.core.records import Formula, Tables
from tests.conftest import make_formula

FAMILIES = {
    "scoop": make_formula(
        "betaine-dough", baking_soda=225, slsa_fine=78, corn_starch=105, cream_of_tartar=30, kaolin=12, capb_liquid=58, avocado_oil=26,
        glycerin=36,
    ),
    "bar": make_formula("glycerin-dough", baking_soda=250, citric_acid_anhydrous=90, slsa_fine=80, corn_starch=60, glycerin=55, cocoa_butter=20),
    "butter bar": make_formula("butter-dough", baking_soda=200, cream_of_tartar=60, slsa_fine=80, corn_starch=60, shea_butter=70, sweet_almond_oil=20),
    "truffle": make_formula(
        "moulded-truffle", cocoa_butter=100, shea_butter=50, baking_soda=80, citric_acid_anhydrous=40, slsa_fine=30, polysorbate_80=6
    ),
    "melt": make_formula("melt", shea_butter=70, cocoa_butter=30, sweet_almond_oil=20, emulsifying_wax=12),
    "ball": make_formula(
        "damp-press", baking_soda=360, citric_acid_anhydrous=180, corn_starch=60, sweet_almond_oil=14, witch_hazel_distillate=6
    ),
    "Epsom ball": make_formula(
        "damp-press", baking_soda=400, citric_acid_anhydrous=200, epsom_salt=250, sweet_almond_oil=14, witch_hazel_distillate=6
    ),
    "dust": make_formula("loose-dust", baking_soda=300, citric_acid_anhydrous=140, slsa_fine=40, corn_starch=60, sweet_almond_oil=15),
}  # fmt: skip
WISHES = (
    "firmness.at_20_c>=60", "lather.score>=55", "fizz.co2_l>=60", "feel.ring<=30", "dough.saturation=0.16..0.25", "drying.hours<=24",
    "feel.oil_g>=6", "skin.harshness_mg_l<=150",
)  # fmt: skip
"""Eight wishes for each of eight families; those that cannot be aimed at are left out."""


def figures(formula: Formula, tables: Tables, mass_g: np.ndarray, ids: tuple[str, ...]) -> dict[str, float]:
    paths = (*FIGURES, "fizz.prereaction_share", "release.minutes", *watched_paths())
    values = aims_of(paths, formula, tables, [tables.ingredients[name] for name in ids]).at(mass_g, sloped=False)[0]
    return dict(zip(paths, values.tolist(), strict=True))


def broken(
    formula: Formula, tables: Tables, before_g: np.ndarray, after_g: np.ndarray, ids: tuple[str, ...], aimed: str
) -> list[str]:
    """Written anew, not by the product's own guards: what of section 1 of a maker's sense a change breaks."""
    was, now = figures(formula, tables, before_g, ids), figures(formula, tables, after_g, ids)
    found = [
        path for path, most in (("sense.water_on_acid_pct", 1.5), ("sense.alcohol_pct", 3.0), ("fizz.prereaction_share", 0.03))
        if not math.isnan(was[path]) and now[path] > max(was[path], most) * 1.001
    ]  # fmt: skip
    found += [path for path in watched_paths() if not math.isnan(was[path]) and math.isnan(now[path])]
    low, high = (1.6, math.inf) if tables.method_of(formula).kneaded else (1.7, 2.5)
    ratio = now["sense.soda_to_acid"]
    if (
        not math.isnan(ratio)
        and aimed != "fizz.base_to_acid"
        and low <= was["sense.soda_to_acid"] <= high
        and not low * 0.999 <= ratio <= high * 1.001
    ):
        found.append("proportion")
    if formula.method == "melt" and was["release.minutes"] <= 30 < now["release.minutes"] * 0.999 and aimed != "release.minutes":
        found.append("release")
    return found


def wished(name: str, wish: str, tables: Tables) -> tuple[BalanceResult, np.ndarray, np.ndarray, tuple[str, ...]] | None:
    try:
        result = balance(BalanceProblem(FAMILIES[name], (parse_target(wish),)), tables)
    except ValueError:
        return None  # a reading that cannot be said of this family
    ids = tuple(line.ingredient for line in result.lines)
    return result, np.array([line.before_g for line in result.lines]), np.array([line.after_g for line in result.lines]), ids


@pytest.mark.parametrize("name", FAMILIES)
def test_no_answer_to_a_wish_does_what_a_maker_never_does(name: str, tables: Tables) -> None:
    for wish in WISHES:
        answer = wished(name, wish, tables)
        if answer is None:
            continue
        result, before_g, after_g, ids = answer
        size = after_g.sum() / before_g.sum()
        if result.status == "solved":
            assert broken(FAMILIES[name], tables, before_g, after_g, ids, wish) == [], (name, wish)
            assert all(guard.kept for guard in result.guards), (name, wish)
            assert moved_share(before_g, after_g) <= ANOTHER_FORMULA
            assert MASS_KEPT[0] - 0.001 <= size <= MASS_KEPT[1] + 0.001
        elif result.status == "infeasible":
            assert result.conflicts, (name, wish)
            assert MASS_KEPT[0] - 0.01 <= size <= MASS_KEPT[1] + 0.01, (name, wish)
            assert moved_share(before_g, after_g) <= ANOTHER_FORMULA + 0.01, "the nearest is the same formula still"


@pytest.mark.parametrize("name", FAMILIES)
def test_the_first_levers_are_a_makers(name: str, tables: Tables) -> None:
    formula = FAMILIES[name]
    weighed, _ = weigh_formula(formula, tables)
    for wish in WISHES:
        target = parse_target(wish)
        try:
            found = levers(formula, tables, target.reading, target.low, target.high)
        except ValueError:
            continue
        first = [each for each in found if not each.why_not]
        assert found[: len(first)] == tuple(first), "what speaks against stands last"
        for lever in first:
            ids = [item.ingredient.id for item in weighed]
            before_g = [item.mass_g for item in weighed]
            at = (
                len(ids)
                if lever.position is None
                else next(i for i, item in enumerate(weighed) if item.position == lever.position)
            )
            ids, before_g = ([*ids, lever.ingredient], [*before_g, 0.0]) if lever.position is None else (ids, before_g)
            after = np.array(before_g)
            after[at] = lever.after_g
            assert broken(formula, tables, np.array(before_g), after, tuple(ids), target.reading) == [], (
                name,
                wish,
                lever.message,
            )


@pytest.mark.parametrize("name", FAMILIES)
def test_the_first_substitutes_leave_the_formula_what_it_is(name: str, tables: Tables) -> None:
    formula = FAMILIES[name]
    weighed, _ = weigh_formula(formula, tables)
    before_g = np.array([item.mass_g for item in weighed])
    for at, item in enumerate(weighed):
        for each in substitutes(formula, tables, item.position)[:3]:
            if each.why_not:
                continue
            ids = [other.ingredient.id for other in weighed]
            ids[at] = each.ingredient
            after_g = before_g.copy()
            after_g[at] = each.after_g
            swapped = figures(formula, tables, after_g, tuple(ids))
            was = figures(formula, tables, before_g, tuple(other.ingredient.id for other in weighed))
            for path, most in (("sense.water_on_acid_pct", 1.5), ("sense.alcohol_pct", 3.0), ("fizz.prereaction_share", 0.03)):
                assert math.isnan(was[path]) or math.isnan(swapped[path]) or swapped[path] <= max(was[path], most) * 1.001, (
                    name,
                    each.name,
                    path,
                )
            assert each.after_g > 0.2 * each.before_g or item.ingredient.role not in {
                "butter",
                "oil",
                "base",
                "acid",
                "starch",
            }, each.name


def test_what_was_seen_going_wrong_does_not_come_back(tables: Tables) -> None:
    scoop, ball, epsom, truffle = (FAMILIES[name] for name in ("scoop", "ball", "Epsom ball", "truffle"))
    assert "alcohol" not in levers(scoop, tables, "dough.saturation", 0.75, 0.95)[0].ingredient
    assert "alcohol" not in levers(truffle, tables, "firmness.at_20_c", 80, None)[0].ingredient
    assert levers(ball, tables, "dough.saturation", 0.16, 0.25)[0].ingredient not in {
        "capb-liquid",
        "distilled-water",
        "isopropyl-alcohol-91",
    }
    hazel = next(
        line
        for line in balance(BalanceProblem(epsom, (parse_target("firmness.at_20_c>=60"),)), tables).lines
        if line.ingredient == "witch-hazel-distillate"
    )
    assert hazel.after_g <= 2 * hazel.before_g
    butters = substitutes(truffle, tables, 1)
    assert all(each.after_g > 10 or each.why_not for each in butters)
    acids = {each.ingredient: each for each in substitutes(ball, tables, 1)}
    assert acids["citric-acid-monohydrate"].why_not == ""
    assert acids["citric-acid-monohydrate"].after_g == pytest.approx(180 * 210.14 / 192.12, abs=0.2), (
        "equal moles (molar masses: CRC Handbook)"
    )
    assert not acids["fumaric-acid"].holds, "slow gas is no brisk fizz"
    tartar = substitutes(scoop, tables, 3)
    assert any(each.holds and not each.why_not for each in tartar), "a hardener without acid has stand-ins"


def test_a_locked_binder_lets_the_others_grow_and_halves_nothing(tables: Tables) -> None:
    scoop = FAMILIES["scoop"]
    result = balance(
        BalanceProblem(scoop, (parse_target("dough.saturation=0.85..0.95"),), locks=frozenset({"capb-liquid"})), tables
    )
    assert result.status == "solved"
    assert all(line.after_g >= 0.5 * line.before_g - 0.05 for line in result.lines)


def test_levers_and_parts_answer_for_a_dough_of_several(tables: Tables) -> None:
    from dataclasses import replace

    from rosy_kettle.core.change.why import contributions

    one = FAMILIES["scoop"].portions[0]
    two = replace(FAMILIES["scoop"], portions=(one, replace(one, name="other", lines=one.lines[:-1])))
    for portion, first in ((0, 0), (1, len(one.lines))):
        found = levers(two, tables, "dough.saturation", 0.85, 0.95, portion=portion)
        places = {each.position for each in found if each.position is not None}
        assert places
        assert min(places) >= first
        assert {part.position for part in contributions(two, tables, "dough.saturation", portion)} <= set(
            range(first, first + len(one.lines))
        )
