"""A bath's equilibrium put together again, ion by ion: mass action, mass balance and neutrality (textbook chemistry)."""

from __future__ import annotations

import pytest

from rosy_kettle.core.models.bath.activity import davies_activity_coefficient
from rosy_kettle.core.models.bath.equilibrium import BathIons, Constants, Solution, constants_at, solve_aired, solve_closed
from rosy_kettle.core.records import Tables

BATH_C = 38.0
DIC = 0.004
CITRIC = 0.01


def activities(constants: Constants, strength: float) -> dict[int, float]:
    return {z: davies_activity_coefficient(z, strength, constants.slope, constants.parameters) for z in (0, 1, 2, 3)}


def citrates(constants: Constants, solved: Solution, total: float) -> list[float]:
    """H3Cit, H2Cit-, HCit2-, Cit3-, each on its own [mol/L]: what of the total is in no pair."""
    g, a = activities(constants, solved.ionic_strength_mol_l), 10**-solved.ph
    alone = [1.0, *(beta / a**step / g[step] for step, beta in enumerate(constants.betas["citric"], start=1))]
    paired = [0.0, *(alone[step] * (pairs_of(constants, solved)[step - 1] - 1) for step in (1, 2, 3))]
    acid = total / (sum(alone) + sum(paired))
    return [acid * each for each in alone]


def pairs_of(constants: Constants, solved: Solution) -> list[float]:
    """Partner with its pairs against the partner alone, for H2Cit-, HCit2-, Cit3-, HCO3-, CO3 2-."""
    g = activities(constants, solved.ionic_strength_mol_l)
    found = []
    for index, charge in enumerate((-1, -2, -3, -1, -2)):
        whole = 1.0
        for metal, pairs in (
            (solved.calcium_mol_l, constants.pairs_calcium),
            (solved.magnesium_mol_l, constants.pairs_magnesium),
        ):
            whole += pairs[index] * g[2] * g[-charge] / g[abs(2 + charge)] * metal
        sodium = {2: constants.pair_na_citrate, 3: constants.pair_na_hco3, 4: constants.pair_na_co3}.get(index, 0.0)
        whole += sodium * g[1] * g[-charge] / g[abs(1 + charge)] * solved.sodium_mol_l
        found.append(whole)
    return found


@pytest.mark.parametrize(
    "hard", [(0.0, 0.0), (0.02, 0.0), (0.0, 0.02), (0.02, 0.03)], ids=["soft", "calcium", "magnesium", "both"]
)
@pytest.mark.parametrize("base", [0.004, 0.012, 0.02, 0.034, 0.05])
@pytest.mark.parametrize("aired", [False, True], ids=["closed", "aired"])
def test_a_bath_is_neutral_and_loses_nothing(tables: Tables, hard: tuple[float, float], base: float, *, aired: bool) -> None:
    constants = constants_at(BATH_C, tables.carbonate, dict(tables.acid_systems))
    calcium, magnesium = hard
    ions = BathIons(base, base, (("citric", CITRIC),), 0.02, calcium_mol_l=calcium, magnesium_mol_l=magnesium)
    solved = solve_aired(ions, constants) if aired else solve_closed(ions, DIC, constants)
    g, a = activities(constants, solved.ionic_strength_mol_l), 10**-solved.ph
    h3, h2, h1, h0 = citrates(constants, solved, CITRIC)
    bicarbonate = constants.k1 * solved.co2_aq_mol_l / a / g[1]
    carbonate = constants.k1 * constants.k2 * solved.co2_aq_mol_l / a**2 / g[2]
    partners = (h2, h1, h0, bicarbonate, carbonate)
    whole = [one * times for one, times in zip(partners, pairs_of(constants, solved), strict=True)]

    assert solved.co2_aq_mol_l + whole[3] + whole[4] == pytest.approx(solved.dic_mol_l, rel=0.01), "carbon"
    if not aired:
        assert solved.dic_mol_l == DIC
    assert h3 + whole[0] + whole[1] + whole[2] == pytest.approx(CITRIC, rel=0.01), "citrate"
    for total, free, pairs in (
        (calcium, solved.calcium_mol_l, constants.pairs_calcium), (magnesium, solved.magnesium_mol_l, constants.pairs_magnesium)
    ):  # fmt: skip
        bound = sum(
            pair * g[2] * g[-charge] / g[abs(2 + charge)] * free * one
            for pair, charge, one in zip(pairs, (-1, -2, -3, -1, -2), partners, strict=True)
        )
        assert free + bound == pytest.approx(total, rel=0.01, abs=1e-12), "hardness"
    negative = constants.kw / a / g[1] + whole[0] + 2 * whole[1] + 3 * whole[2] + whole[3] + 2 * whole[4]
    assert base + a / g[1] == pytest.approx(negative, rel=0.01, abs=1e-7), "neutral"
    bound = h0 * constants.pair_na_citrate * g[3] * g[1] / g[2] + bicarbonate * constants.pair_na_hco3 * g[1] ** 2
    sodium = solved.sodium_mol_l * (1 + bound + carbonate * constants.pair_na_co3 * g[2])
    assert sodium == pytest.approx(base, rel=0.01), "sodium"
    if hard == (0.0, 0.0):  # half the sum of squared charges, each pair at its own
        sodium_carbonate = carbonate * constants.pair_na_co3 * g[2] * solved.sodium_mol_l
        sodium_citrate = h0 * constants.pair_na_citrate * g[3] * g[1] / g[2] * solved.sodium_mol_l
        single = solved.sodium_mol_l + a / g[1] + constants.kw / a / g[1] + bicarbonate + sodium_carbonate + h2
        squares = single + 4 * (carbonate + h1 + sodium_citrate) + 9 * h0
        assert solved.ionic_strength_mol_l == pytest.approx(0.02 + 0.5 * squares, rel=1e-3), "ionic strength"
