"""Tabulated properties against handbook values."""

from __future__ import annotations

import pytest

from rosy_kettle.reference.tables_reader import table_rows

ACIDS = {row["id"]: row for row in table_rows("acids")}


# Mass per cent in the saturated solution, CRC Handbook of Chemistry and Physics, "Aqueous Solubility of Inorganic
# Compounds at Various Temperatures", and for citric acid the same handbook's organic table; values from memory.
@pytest.mark.parametrize(
    ("id_", "mass_pct", "at_c"),
    [("sodium-bicarbonate", 8.73, 20), ("potassium-bicarbonate", 24.9, 20), ("sodium-carbonate", 23.5, 25),
     ("citric-acid-anhydrous", 59.2, 20)],
)  # fmt: skip
def test_solubility_by_the_crc_handbook(id_: str, mass_pct: float, at_c: float) -> None:
    row = ACIDS[id_]
    assert float(row["solubility_temp_c"]) == at_c
    assert float(row["solubility_g_100ml_water"]) == pytest.approx(100 * mass_pct / (100 - mass_pct), rel=0.03)


def test_slow_acids_are_the_hardly_soluble_ones() -> None:
    """Cream of tartar and fumaric acid dissolve under 1 g in 100 mL (CRC, from memory); the fast ones over 25."""
    traits = {row["id"]: row["acid_speed"] for row in table_rows("reading_traits") if row["acid_speed"]}
    for id_, speed in traits.items():
        solubility = float(ACIDS[id_]["solubility_g_100ml_water"])
        assert (solubility < 1) == (float(speed) < 0.5), id_
