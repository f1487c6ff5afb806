"""Constants of gas: stoichiometry, puff, acid spent in the bowl."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import ESTIMATE, IUPAC, PRACTICE, parameter

__all__ = ["GasParameters"]


@dataclass(frozen=True, slots=True)
class GasParameters:
    """Constants of the gas and of what happens before the bath."""

    sodium_bicarbonate_g_mol: float = parameter(84.007, "molar mass of sodium bicarbonate", "g/mol", IUPAC, "high")
    carbon_dioxide_g_mol: float = parameter(44.009, "molar mass of carbon dioxide", "g/mol", IUPAC, "high")
    citric_g_per_eq: float = parameter(192.124 / 3, "citric acid in an acid equivalent", "g/mol", IUPAC, "high")
    gas_constant_l_atm: float = parameter(0.082057366, "molar gas constant", "L atm/(mol K)", "CODATA 2018", "high")
    balanced_within: float = parameter(0.005, "acid and base this near count as balanced", "-", PRACTICE, "medium", (0.001, 0.02))
    ordinary_air: float = parameter(0.45, "air in which a dough is made, for salts that melt in it", "-", ESTIMATE, "medium", (0.35, 0.6))
    wept_from_salt: float = parameter(0.3, "water such a salt brings onto the acid", "g/g", ESTIMATE, "low", (0.1, 0.6))
    highest_lift_pct: float = parameter(40.0, "highest lift", "%", PRACTICE, "low", (20.0, 80.0))
    acid_scale_pct: float = parameter(2.0, "acid that gives 63 % of the lift", "%", PRACTICE, "low", (1.0, 4.0))
    water_scale_pct: float = parameter(3.0, "water that gives 63 % of the lift", "%", PRACTICE, "low", (1.5, 6.0))
    stirred_down: float = parameter(0.35, "left once stirred down", "-", PRACTICE, "low", (0.2, 0.5))
