"""Bath water: published constants, conservation, directions."""

from __future__ import annotations

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from molmass import Formula as ChemicalFormula

from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.models.bath.activity import davies_activity_coefficient, debye_huckel_slope
from rosy_kettle.core.models.bath.bath_water import SODIUM_CITRATE_G_MOL, SPECTATORS_MOL_STRENGTH_PER_G, BathPh, bath_ph
from rosy_kettle.core.models.bath.equilibrium import BathIons, constants_at, solve_aired, solve_closed
from rosy_kettle.core.models.bath.equilibrium import _Balance as Balance
from rosy_kettle.core.records import Tables


def bath(
    tables: Tables, litres: float = 150, bath_c: float = 38, alkalinity: float = 80, tap_ph: float = 7.6, **grams: float
) -> BathPh:
    dose = [(tables.ingredients[name.replace("_", "-")], mass_g) for name, mass_g in grams.items()]
    return bath_ph(dose, litres, bath_c, alkalinity, tap_ph, tables)


@pytest.mark.parametrize(
    ("grams", "fresh", "soak", "aired"),
    [
        ({"baking_soda": 60.0}, 7.99, 8.0, 8.98),
        ({"baking_soda": 60.0, "citric_acid_anhydrous": 30.0}, 6.37, 6.65, 8.71),
        ({"baking_soda": 200.0, "citric_acid_anhydrous": 100.0}, 6.20, 6.48, 8.98),
        ({"baking_soda": 0.0}, 7.60, 7.65, 8.44),
    ],
)
def test_baths_of_the_check_table(tables: Tables, grams: dict[str, float], fresh: float, soak: float, aired: float) -> None:
    """150 L, 38 °C, alkalinity 80 mg/L as CaCO3, pH 7.6: figures from an independent calculation."""
    ph = bath(tables, **grams)
    assert ph.fresh == pytest.approx(fresh, abs=0.03)
    assert ph.soak == pytest.approx(soak, abs=0.03)
    assert ph.aired == pytest.approx(aired, abs=0.03)


def test_acid_alone_is_sour(tables: Tables) -> None:
    assert bath(tables, citric_acid_anhydrous=30).fresh == pytest.approx(4.7, abs=0.05)


def test_the_debye_huckel_slope_is_the_textbook_one() -> None:
    """Robinson and Stokes, Electrolyte Solutions: A = 0.5115 at 25 °C, 0.5241 at 38 °C (interpolated), from memory."""
    assert debye_huckel_slope(25) == pytest.approx(0.5115, abs=0.003)
    assert debye_huckel_slope(38) == pytest.approx(0.524, abs=0.004)


def test_davies_at_zero_and_at_its_limit() -> None:
    assert davies_activity_coefficient(1, 0.0, 0.509) == 1
    assert davies_activity_coefficient(3, 0.9, 0.509) == davies_activity_coefficient(3, 0.5, 0.509)
    assert davies_activity_coefficient(2, 0.1, 0.509) == pytest.approx(davies_activity_coefficient(1, 0.1, 0.509) ** 4)


# IAPWS release on the ionization constant of water (2007), saturated liquid: pKw 14.17 at 20, 13.995 at 25, 13.53 at 40 °C.
@pytest.mark.parametrize(("temperature_c", "pkw"), [(20, 14.17), (25, 13.995), (30, 13.83), (40, 13.53)])
def test_the_ion_product_of_water_follows_iapws(tables: Tables, temperature_c: float, pkw: float) -> None:
    constants = constants_at(temperature_c, tables.carbonate, dict(tables.acid_systems))
    assert -math.log10(constants.kw) == pytest.approx(pkw, abs=0.02)


@pytest.mark.parametrize(("dic", "co2"), [(0.004, None), (None, 1e-5)])
@pytest.mark.parametrize("ph", [3.0, 4.5, 6.3, 8.0, 10.2])
def test_the_slope_of_the_charge_is_its_derivative(tables: Tables, ph: float, dic: float | None, co2: float | None) -> None:
    """Central differences of the balance itself over ln a, with acids of one, two and three protons (calculus)."""
    constants = constants_at(38, tables.carbonate, dict(tables.acid_systems))
    acids = (("citric", 0.003), ("malic", 0.002), ("ascorbic", 0.001))
    ions = BathIons(0.006, 0.006, acids, 0.0, calcium_mol_l=0.001, magnesium_mol_l=0.0005)
    balance = Balance(ions, constants, dic, co2, 0.01, (0.006, 0.0008, 0.0004))
    log_a, step = -ph * math.log(10), 1e-4
    (above, _), (below, _) = (balance.charge(math.exp(log_a + side)) for side in (step, -step))
    assert balance.charge(math.exp(log_a))[1] == pytest.approx((above - below) / (2 * step), rel=1e-5)


def test_pure_water_is_neutral(tables: Tables) -> None:
    constants = constants_at(38, tables.carbonate, dict(tables.acid_systems))
    assert solve_closed(BathIons(0, 0, (), 0), 0.0, constants).ph == pytest.approx(-math.log10(constants.kw) / 2, abs=1e-5)


def test_rain_water_in_air_is_slightly_sour(tables: Tables) -> None:
    """Unpolluted rain in balance with air: pH 5.6 at 25 °C (textbook)."""
    constants = constants_at(25, tables.carbonate, dict(tables.acid_systems))
    assert solve_aired(BathIons(0, 0, (), 0), constants).ph == pytest.approx(5.6, abs=0.05)


def test_tartar_and_tartaric_acid_with_a_base_make_the_same_water(tables: Tables) -> None:
    """KHT is H2T and KOH: a mole of each gives tartrate of the same kind; potassium bicarbonate supplies the KOH here."""
    bitartrate = bath(tables, cream_of_tartar=18.8177)
    acid = bath(tables, tartaric_acid=15.0087, potassium_bicarbonate=10.0115)
    assert acid.aired == pytest.approx(bitartrate.aired, abs=0.02)


def test_sodium_citrate_is_citric_acid_that_soda_has_met(tables: Tables) -> None:
    """A mole of Na3C6H5O7.2H2O is one of citric acid and three of soda, once their gas has gone (IUPAC atomic weights)."""
    salt = bath(tables, sodium_citrate=29.41)
    made = bath(tables, citric_acid_anhydrous=19.2124, baking_soda=3 * 8.4007)
    assert salt.aired == pytest.approx(made.aired, abs=0.01)
    assert salt.fresh > made.fresh + 0.5, "before that it is another water"


def test_salt_changes_strength_and_hardly_ph(tables: Tables) -> None:
    plain, salted = bath(tables, baking_soda=60), bath(tables, baking_soda=60, sea_salt_fine=300)
    assert salted.ionic_strength_mol_l > plain.ionic_strength_mol_l + 0.03
    assert salted.fresh == pytest.approx(plain.fresh, abs=0.25)


AMOUNT = st.floats(0, 200)
ROUNDING = 1e-4  # the activity rounds end at a ten-thousandth of the ionic strength


@settings(max_examples=80, deadline=None)
@given(
    soda=AMOUNT,
    citric=AMOUNT,
    tartaric=AMOUNT,
    malic=AMOUNT,
    bisulfate=st.floats(0, 20),
    litres=st.floats(10, 400),
    bath_c=st.floats(15, 45),
)
def test_every_bath_is_balanced_and_in_order(
    tables: Tables, soda: float, citric: float, tartaric: float, malic: float, bisulfate: float, litres: float, bath_c: float
) -> None:
    grams = {
        "baking_soda": soda, "citric_acid_anhydrous": citric, "tartaric_acid": tartaric, "malic_acid": malic, "sodium_bisulfate": bisulfate,
    }  # fmt: skip
    ph = bath(tables, litres, bath_c, **grams)
    assert ph.charge_error_mol_l < 1e-9, "charge is balanced"
    assert 1 < ph.fresh < 12
    assert ph.fresh <= ph.stepin + ROUNDING, "gas that leaves takes acid with it"
    more_soda = bath(tables, litres, bath_c, **(grams | {"baking_soda": soda + 20}))
    assert more_soda.aired > ph.aired - ROUNDING, "more soda, more alkaline in the end"
    more_acid = bath(tables, litres, bath_c, **(grams | {"citric_acid_anhydrous": citric + 20}))
    assert more_acid.fresh < ph.fresh + ROUNDING, "more acid, more sour"


@pytest.mark.parametrize(("salt", "formula", "per_mol"), [
    ("sea-salt-fine", "NaCl", 1), ("epsom-salt", "MgSO4(H2O)7", 4), ("magnesium-chloride-flakes", "MgCl2(H2O)6", 3),
    ("sodium-sulfate", "Na2SO4", 3),
])  # fmt: skip
def test_the_ionic_strength_of_salts_is_half_the_sum_of_squared_charges(salt: str, formula: str, per_mol: int) -> None:
    """By definition, with molar masses by a periodic-table package."""
    assert per_mol / SPECTATORS_MOL_STRENGTH_PER_G[salt] == pytest.approx(ChemicalFormula(formula).mass, abs=0.02)


def test_sodium_citrate_weighs_what_the_periodic_table_says() -> None:
    assert pytest.approx(ChemicalFormula("Na3C6H5O7(H2O)2").mass, abs=0.02) == SODIUM_CITRATE_G_MOL


def test_acids_bases_salts_and_citrate_move_the_ph_and_powders_that_stay_powder_do_not(tables: Tables) -> None:
    """What dissolves to ions counts in the charge balance or its ionic strength (textbook); starch, clay and butter do not."""
    named = ["citric-acid-anhydrous", "baking-soda", "sea-salt-fine", "sodium-citrate", "corn-starch", "kaolin", "cocoa-butter"]
    palette = make_palette([tables.ingredients[name] for name in named])
    assert palette.moves_ph.tolist() == [True, True, True, True, False, False, False]
