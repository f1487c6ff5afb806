"""Fizz: exact stoichiometry."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from hypothesis import given
from hypothesis import strategies as st
from molmass import Formula as ChemicalFormula

from rosy_kettle.core.models.gas.gas_release import co2_volume_l
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from tests.conftest import make_formula

Judge = Callable[[Formula], Evaluation]


def test_two_to_one_by_hand(judge: Judge) -> None:
    """200 g soda = 2.3807 mol; 100 g citric acid = 0.52050 mol x 3 protons = 1.5615 mol: acid runs out first.

    NaHCO3 + H+ -> CO2 + H2O + Na+, so 1.5615 mol CO2 = 68.72 g = 39.86 L at 38 °C, and 0.8192 mol = 68.82 g soda are left.
    Per gram of the 2 : 1 mix that is 0.2291 g CO2.
    """
    fizz = judge(make_formula("damp-press", baking_soda=200, citric_acid_anhydrous=100)).fizz
    assert fizz.co2_mol == pytest.approx(1.5615, abs=1e-4)
    assert fizz.co2_g == pytest.approx(68.72, abs=0.01)
    assert fizz.co2_l == pytest.approx(39.86, abs=0.02)
    assert fizz.bicarbonate_left_g == pytest.approx(68.82, abs=0.02)
    assert (fizz.limiting, fizz.base_to_acid) == ("acid", 2.0)


def test_the_stoichiometric_ratio_of_citric_acid_is_balanced(judge: Judge) -> None:
    fizz = judge(make_formula(baking_soda=131.2, citric_acid_anhydrous=100)).fizz
    assert fizz.limiting == "balanced"


@pytest.mark.parametrize(("more_soda", "limiting"), [
    (1.004, "balanced"), (0.996, "balanced"), (1.0065, "acid"), (0.994, "base"),
])  # fmt: skip
def test_what_is_within_half_a_per_cent_is_balanced(judge: Judge, more_soda: float, limiting: str) -> None:
    """192.124 g of citric acid take 3 x 84.007 g of soda (IUPAC atomic weights)."""
    assert judge(make_formula(baking_soda=3 * 84.007 * more_soda, citric_acid_anhydrous=192.124)).fizz.limiting == limiting


@pytest.mark.parametrize(
    ("ingredient", "chemical", "protons"),
    [
        ("citric-acid-anhydrous", "C6H8O7", 3), ("citric-acid-monohydrate", "C6H10O8", 3), ("tartaric-acid", "C4H6O6", 2),
        ("malic-acid", "C4H6O5", 2), ("fumaric-acid", "C4H4O4", 2), ("cream-of-tartar", "KC4H5O6", 1),
        ("sodium-bisulfate", "NaHSO4", 1), ("ascorbic-acid", "C6H8O6", 1),
    ],
)  # fmt: skip
def test_acids_weigh_what_the_periodic_table_says(tables: Tables, ingredient: str, chemical: str, protons: int) -> None:
    acid = tables.ingredients[ingredient].acid
    assert acid is not None
    assert acid.molar_mass_g_mol == pytest.approx(ChemicalFormula(chemical).mass, abs=0.01)
    assert acid.protons == protons


@pytest.mark.parametrize(
    ("ingredient", "chemical", "equivalents", "carbons"),
    [
        ("baking-soda", "NaHCO3", 1, 1), ("potassium-bicarbonate", "KHCO3", 1, 1), ("sodium-carbonate", "Na2CO3", 2, 1),
        ("sodium-sesquicarbonate", "Na3C2H5O8", 3, 2),
    ],
)  # fmt: skip
def test_bases_weigh_what_the_periodic_table_says(
    tables: Tables, ingredient: str, chemical: str, equivalents: int, carbons: int
) -> None:
    base = tables.ingredients[ingredient].base
    assert base is not None
    assert base.molar_mass_g_mol == pytest.approx(ChemicalFormula(chemical).mass, abs=0.01)
    assert (base.base_equivalents_per_mol, base.carbons_per_mol) == (equivalents, carbons)


def test_carbonate_takes_its_first_proton_without_gas(judge: Judge) -> None:
    """1 mol Na2CO3 with 1 mol H+ makes bicarbonate and no gas; with 2 mol H+ all its carbon."""
    one = judge(make_formula(sodium_carbonate=105.988, sodium_bisulfate=120.06)).fizz
    two = judge(make_formula(sodium_carbonate=105.988, sodium_bisulfate=240.12)).fizz
    assert one.co2_mol == pytest.approx(0, abs=1e-4)
    assert one.bicarbonate_left_g == pytest.approx(84.0, abs=0.1)
    assert two.co2_mol == pytest.approx(1.0, abs=1e-3)


def test_baking_powder_fizzes_by_itself(judge: Judge) -> None:
    fizz = judge(make_formula(baking_powder=300.025)).fizz
    assert fizz.co2_mol == pytest.approx(1.0, rel=1e-6)
    assert fizz.limiting == "balanced"
    assert fizz.base_to_acid is None


def test_only_soda_and_only_acid(judge: Judge) -> None:
    soda = judge(make_formula(baking_soda=218.3)).fizz
    acid = judge(make_formula(citric_acid_anhydrous=50)).fizz
    neither = judge(make_formula(corn_starch=50)).fizz
    assert (soda.co2_mol, soda.limiting, soda.base_to_acid) == (0, "acid", None)
    assert soda.bicarbonate_left_g == pytest.approx(218.3)
    assert (acid.co2_mol, acid.limiting, acid.base_to_acid) == (0, "base", 0.0)
    assert neither.limiting is None


def test_cream_of_tartar_is_no_brisk_fizz(judge: Judge) -> None:
    fizz = judge(make_formula(baking_soda=200, cream_of_tartar=100)).fizz
    assert fizz.co2_l is not None
    assert fizz.brisk_co2_l == pytest.approx(0.1 * fizz.co2_l)


def test_a_mole_of_gas_at_zero_degrees() -> None:
    """22.414 L at 0 °C and 1 atm (CODATA molar volume of an ideal gas)."""
    assert co2_volume_l(1.0, 0.0) == pytest.approx(22.414, abs=0.001)


@given(soda=st.floats(0, 1000), carbonate=st.floats(0, 500), citric=st.floats(0, 500), tartar=st.floats(0, 300))
def test_carbon_and_charge_are_conserved(tables: Tables, soda: float, carbonate: float, citric: float, tartar: float) -> None:
    formula = make_formula(baking_soda=soda, sodium_carbonate=carbonate, citric_acid_anhydrous=citric, cream_of_tartar=tartar)
    fizz = evaluate(formula, tables).fizz
    if fizz.co2_mol is None or fizz.bicarbonate_left_g is None:
        assert soda + carbonate + citric + tartar < 1e-8, "a nanogram is nothing"
        return
    carbon_mol = soda / 84.007 + carbonate / 105.988
    assert -1e-9 <= fizz.co2_mol <= carbon_mol + 1e-9
    assert fizz.co2_mol + fizz.bicarbonate_left_g / 84.007 <= carbon_mol + 1e-6
