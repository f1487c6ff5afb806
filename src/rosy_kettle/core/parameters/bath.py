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
    pair_ca_h2cit_log_k: float = parameter(1.1, "log K of calcium with H2Cit- at 25 °C", "-", MINTEQ, "high", (0.8, 1.4))
    pair_ca_h2cit_kj_mol: float = parameter(0.0, "enthalpy of that", "kJ/mol", MINTEQ, "medium")
    pair_ca_hcit_log_k: float = parameter(2.864, "log K of calcium with HCit2- at 25 °C", "-", MINTEQ, "high", (2.564, 3.164))
    pair_ca_hcit_kj_mol: float = parameter(0.0, "enthalpy of that", "kJ/mol", MINTEQ, "medium")
    pair_ca_cit_log_k: float = parameter(4.87, "log K of calcium with Cit3- at 25 °C", "-", MINTEQ, "high", (4.57, 5.17))
    pair_ca_cit_kj_mol: float = parameter(-8.368, "enthalpy of that", "kJ/mol", MINTEQ, "medium")
    pair_ca_hco3_log_k: float = parameter(1.27, "log K of calcium with HCO3- at 25 °C", "-", MINTEQ, "high", (0.97, 1.57))
    pair_ca_hco3_kj_mol: float = parameter(20.0, "enthalpy of that", "kJ/mol", MINTEQ, "medium")
    pair_ca_co3_log_k: float = parameter(3.2, "log K of calcium with CO3 2- at 25 °C", "-", MINTEQ, "high", (2.9, 3.5))
    pair_ca_co3_kj_mol: float = parameter(16.0, "enthalpy of that", "kJ/mol", MINTEQ, "medium")
    pair_mg_h2cit_log_k: float = parameter(1.043, "log K of magnesium with H2Cit- at 25 °C", "-", MINTEQ, "high", (0.743, 1.343))
    pair_mg_h2cit_kj_mol: float = parameter(0.0, "enthalpy of that", "kJ/mol", MINTEQ, "medium")
    pair_mg_hcit_log_k: float = parameter(2.514, "log K of magnesium with HCit2- at 25 °C", "-", MINTEQ, "high", (2.214, 2.814))
    pair_mg_hcit_kj_mol: float = parameter(0.0, "enthalpy of that", "kJ/mol", MINTEQ, "medium")
    pair_mg_cit_log_k: float = parameter(4.89, "log K of magnesium with Cit3- at 25 °C", "-", MINTEQ, "high", (4.59, 5.19))
    pair_mg_cit_kj_mol: float = parameter(8.368, "enthalpy of that", "kJ/mol", MINTEQ, "medium")
    pair_mg_hco3_log_k: float = parameter(1.01, "log K of magnesium with HCO3- at 25 °C", "-", MINTEQ, "high", (0.71, 1.31))
    pair_mg_hco3_kj_mol: float = parameter(4.0, "enthalpy of that", "kJ/mol", MINTEQ, "medium")
    pair_mg_co3_log_k: float = parameter(2.92, "log K of magnesium with CO3 2- at 25 °C", "-", MINTEQ, "high", (2.62, 3.22))
    pair_mg_co3_kj_mol: float = parameter(12.0, "enthalpy of that", "kJ/mol", MINTEQ, "medium")
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

    def pairs(self, ion: str) -> tuple[tuple[float, float], ...]:
        """Log K at 25 °C [-] and enthalpy [kJ/mol] of calcium ("ca") or magnesium ("mg") with citrates, then carbonates."""
        names = [f"pair_{ion}_{partner}" for partner in ("h2cit", "hcit", "cit", "hco3", "co3")]
        return tuple((getattr(self, f"{name}_log_k"), getattr(self, f"{name}_kj_mol")) for name in names)
