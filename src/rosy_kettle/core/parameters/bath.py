"""Constants of the bath's water."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import ESTIMATE, IUPAC, parameter

__all__ = ["BathParameters"]

MINTEQ = "minteq.v4 database"
MALMBERG = "Malmberg and Maryott 1956"


@dataclass(frozen=True, slots=True)
class BathParameters:
    """Constants of carbonate, ion pairs, activity and the gas that leaves."""

    air_co2_atm: float = parameter(4.2e-4, "carbon dioxide in room air", "atm", "global mean of recent years", "high", (4.0e-4, 1.5e-3))
    gas_leaving_as_bubbles: float = parameter(0.5, "gas of fast acids gone by step-in", "-", "estimate, 0.3 to 0.8", "low", (0.3, 0.8))
    transfer_m_per_h: float = parameter(0.08, "gas transfer of a still bath", "m/h", "estimate, 0.02 to 0.25", "low", (0.02, 0.25))
    reference_bath_l: float = parameter(150.0, "bath whose depth is stated", "L", "by definition", "high")
    reference_depth_m: float = parameter(0.20, "mean depth of that bath", "m", ESTIMATE, "medium", (0.15, 0.3))
    pair_na_hco3_log_k: float = parameter(-0.25, "log K of NaHCO3(aq) at 25 °C", "-", MINTEQ, "high", (-0.4, 0.1))
    pair_na_hco3_kj_mol: float = parameter(-13.7, "enthalpy of NaHCO3(aq)", "kJ/mol", MINTEQ, "medium")
    pair_na_co3_log_k: float = parameter(1.27, "log K of NaCO3- at 25 °C", "-", MINTEQ, "high", (1.0, 1.5))
    pair_na_co3_kj_mol: float = parameter(-20.35, "enthalpy of NaCO3-", "kJ/mol", MINTEQ, "medium")
    pair_na_citrate_log_k: float = parameter(1.03, "log K of NaCit2- at 25 °C", "-", MINTEQ, "high", (0.8, 1.5))
    pair_na_citrate_kj_mol: float = parameter(-2.8, "enthalpy of NaCit2-", "kJ/mol", MINTEQ, "medium")
    calcium_carbonate_mg_per_eq: float = parameter(50_043.5, "calcium carbonate in an equivalent", "mg/mol", IUPAC, "high")
    calcium_carbonate_g_mol: float = parameter(100.087, "molar mass of calcium carbonate", "g/mol", IUPAC, "high")
    debye_huckel_factor: float = parameter(1.82e6, "factor of the Debye-Hückel slope", "-", "Truesdell and Jones 1974, from memory", "high")
    permittivity_0: float = parameter(87.740, "permittivity of water at 0 °C", "-", MALMBERG, "high")
    permittivity_1: float = parameter(-0.40008, "its first coefficient", "1/°C", MALMBERG, "high")
    permittivity_2: float = parameter(9.398e-4, "its second coefficient", "1/°C2", MALMBERG, "high")
    permittivity_3: float = parameter(-1.410e-6, "its third coefficient", "1/°C3", MALMBERG, "high")
    davies: float = parameter(0.3, "linear term of the Davies equation", "-", "Davies 1962", "high", (0.2, 0.3))
    davies_ends_mol_l: float = parameter(0.5, "ionic strength where the Davies equation ends", "mol/kg", "Davies 1962", "high")
    checked_strength_mol_l: float = parameter(0.05, "ionic strength up to which pH was compared with PHREEQC", "mol/kg", "own tests", "high")
    ph_nudge: float = parameter(0.01, "step of a line's mass for the slopes of pH, as a share of the dose", "-", "numerical", "high")
