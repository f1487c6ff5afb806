"""Our tables against what others publish. Values from memory unless an arithmetic definition is given."""

from __future__ import annotations

import math

import pytest

from rosy_kettle.core.records import Tables
from rosy_kettle.reference.tables_reader import table_rows

WATER = {row["id"]: row for row in table_rows("water")}
UNITS = {row["id"]: row for row in table_rows("units")}


@pytest.mark.parametrize(("id_", "at_least", "at_most"), [
    # US Geological Survey, hardness of water as mg/L CaCO3: 0-60 soft, 61-120 moderate, 121-180 hard, above very hard.
    ("soft", 0, 60), ("moderate", 61, 120), ("hard", 121, 180), ("very-hard", 181, math.inf),
])  # fmt: skip
def test_hardness_classes_by_the_geological_survey(id_: str, at_least: float, at_most: float) -> None:
    row = WATER[id_]
    assert float(row["hardness_lo_mg_l_caco3"]) == at_least
    assert at_least <= float(row["hardness_typ_mg_l_caco3"]) <= at_most
    assert float(row["hardness_hi_mg_l_caco3"]) <= at_most


def test_alkalinity_is_what_the_bicarbonate_makes(tables: Tables) -> None:
    """50.04 mg CaCO3 for a millimole of bicarbonate (molar mass of CaCO3 100.087, IUPAC, halved)."""
    for row in WATER.values():
        assert float(row["alkalinity_typ_mg_l_caco3"]) == pytest.approx(50.04 * float(row["hco3_mmol_l"]), rel=0.02, abs=0.5)
        assert tables.waters[row["id"]].hardness_mg_l_caco3 == float(row["hardness_typ_mg_l_caco3"])


@pytest.mark.parametrize(("id_", "ml"), [
    # NIST Handbook 44, appendix C: the gallon is 231 cubic inches of 2.54 cm; a quart, pint, cup are its shares.
    ("us-gallon", 231 * 2.54**3), ("us-quart", 231 * 2.54**3 / 4), ("us-pint", 231 * 2.54**3 / 8), ("us-cup", 231 * 2.54**3 / 16),
    ("us-fl-oz", 231 * 2.54**3 / 128), ("us-tbsp", 231 * 2.54**3 / 256), ("us-tsp", 231 * 2.54**3 / 768),
    # Weights and Measures Act 1985 (UK): the gallon is 4.54609 L, 160 fluid ounces.
    ("imp-fl-oz", 4546.09 / 160), ("imp-pint", 4546.09 / 8),
])  # fmt: skip
def test_measures_by_their_definition(id_: str, ml: float) -> None:
    assert float(UNITS[id_]["ml"]) == pytest.approx(ml, rel=2e-4)


def test_weights_by_their_definition() -> None:
    """International avoirdupois pound 0.453 592 37 kg exactly, 16 ounces (NIST Special Publication 811)."""
    assert float(UNITS["lb"]["grams"]) == pytest.approx(453.59237, rel=1e-5)
    assert float(UNITS["oz"]["grams"]) == pytest.approx(453.59237 / 16, rel=1e-5)


@pytest.mark.parametrize("number", [16, 20, 24, 30, 40, 60])
def test_a_numbered_scoop_is_a_share_of_a_quart(tables: Tables, number: int) -> None:
    """US convention: so many level scoops fill a quart of 946.35 mL."""
    assert tables.tools[f"disher-{number}"].volume_ml == pytest.approx(946.352946 / number, rel=0.005)


@pytest.mark.parametrize(
    ("id_", "inches"), [("ball-1-5in", 1.5), ("ball-2in", 2), ("ball-2-25in", 2.25), ("ball-2-5in", 2.5), ("ball-3in", 3)]
)
def test_a_ball_mould_is_a_sphere(tables: Tables, id_: str, inches: float) -> None:
    assert tables.tools[id_].volume_ml == pytest.approx(math.pi / 6 * (2.54 * inches) ** 3, rel=1e-3)


@pytest.mark.parametrize(("id_", "density"), [
    # CRC Handbook of Chemistry and Physics, densities near 20 °C [g/mL].
    ("baking-soda", 2.20), ("citric-acid-anhydrous", 1.665), ("sodium-carbonate", 2.53), ("potassium-bicarbonate", 2.17),
    ("tartaric-acid", 1.76), ("malic-acid", 1.60), ("sea-salt-fine", 2.17), ("epsom-salt", 1.68), ("glycerin", 1.261),
    ("propanediol", 1.05), ("isopropyl-alcohol-99", 0.785), ("distilled-water", 0.998),
])  # fmt: skip
def test_densities_by_the_crc_handbook(tables: Tables, id_: str, density: float) -> None:
    assert tables.ingredients[id_].true_density_g_ml == pytest.approx(density, rel=0.02)


@pytest.mark.parametrize(("id_", "humidity"), [
    # Greenspan, J. Res. Natl. Bur. Stand. 81A (1977) 89: over the saturated solution at 25 °C 75.3 % (NaCl), 32.8 % (MgCl2).
    ("sea-salt-fine", 0.753), ("pink-salt-fine", 0.753), ("magnesium-chloride-flakes", 0.328),
])  # fmt: skip
def test_humidity_at_which_salts_take_up_water(tables: Tables, id_: str, humidity: float) -> None:
    assert tables.ingredients[id_].traits.deliquescence_share == pytest.approx(humidity, abs=0.01)


@pytest.mark.parametrize(("id_", "low_c", "high_c"), [
    # Clear melting points as the trade's handbooks give them (Bailey's Industrial Oil and Fat Products): cocoa butter 32-36,
    # coconut oil 23-26 (76 °F is 24.4 °C), shea 32-45, mango 30-38, kokum 38-43 °C.
    ("cocoa-butter", 32, 36), ("coconut-oil-76", 23, 26.5), ("shea-butter", 30, 45), ("mango-butter", 28, 40), ("kokum-butter", 36, 44),
])  # fmt: skip
def test_a_fat_has_melted_where_handbooks_say_so(tables: Tables, id_: str, low_c: float, high_c: float) -> None:
    """Under 5 % solid by the top of the published range, over 5 % by its foot."""
    curve = tables.ingredients[id_].tempered_fat
    assert curve is not None

    def solid(temperature_c: float) -> float:
        points = dict(zip(curve.temperatures_c, curve.solid_fractions, strict=True))
        below = max(t for t in points if t <= temperature_c)
        above = min((t for t in points if t >= temperature_c), default=below)
        share = 0.0 if above == below else (temperature_c - below) / (above - below)
        return points[below] + share * (points[above] - points[below])

    assert solid(min(high_c, 40)) <= 0.08
    assert solid(low_c - 6) > 0.05


@pytest.mark.parametrize(("id_", "atoms"), [
    # Sum formulas; atomic weights by IUPAC 2021 (H 1.008, C 12.011, N 14.007, O 15.999, Na 22.990, K 39.098, S 32.06).
    ("sodium-bicarbonate", {"Na": 1, "H": 1, "C": 1, "O": 3}), ("potassium-bicarbonate", {"K": 1, "H": 1, "C": 1, "O": 3}),
    ("citric-acid-anhydrous", {"C": 6, "H": 8, "O": 7}), ("citric-acid-monohydrate", {"C": 6, "H": 10, "O": 8}),
    ("tartaric-acid", {"C": 4, "H": 6, "O": 6}), ("malic-acid", {"C": 4, "H": 6, "O": 5}), ("ascorbic-acid", {"C": 6, "H": 8, "O": 6}),
])  # fmt: skip
def test_molar_masses_by_hand(id_: str, atoms: dict[str, int]) -> None:
    weights = {"H": 1.008, "C": 12.011, "O": 15.999, "Na": 22.990, "K": 39.098}
    row = next(row for row in table_rows("acids") if row["id"] == id_)
    assert float(row["molar_mass_g_mol"]) == pytest.approx(sum(weights[each] * n for each, n in atoms.items()), abs=0.01)
