"""Bath water with a dose in it: pH fresh, at step-in, after twenty minutes, and aired."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from rosy_kettle.core.models.bath.equilibrium import (
    BathIons,
    Constants,
    Solution,
    constants_at,
    solve_aired,
    solve_closed,
    solve_outgassing,
)
from rosy_kettle.core.records import Ingredient, Tables

__all__ = ["BathPh", "bath_ph"]

SOAK_MINUTES = 20
MONOSALT = ("sea-salt-fine", "sea-salt-coarse", "pink-salt-fine", "dendritic-salt", "dead-sea-salt")
SPECTATORS_MOL_STRENGTH_PER_G = {
    **dict.fromkeys(MONOSALT, 1 / 58.443),  # NaCl: I = c
    "epsom-salt": 4 / 246.475,  # MgSO4.7H2O: I = 4 c
    "magnesium-chloride-flakes": 3 / 203.303,  # MgCl2.6H2O: I = 3 c
    "sodium-sulfate": 3 / 142.042,  # Na2SO4: I = 3 c
}
"""Ionic strength a gram brings to a litre [mol/g]; IUPAC standard atomic weights."""
SODIUM_PER_MOL = {"baking-soda": 1, "sodium-carbonate": 2, "sodium-sesquicarbonate": 3, "baking-powder": 1}
SODIUM_CITRATE_G_MOL = 294.10  # Na3C6H5O7.2H2O [g/mol]; IUPAC standard atomic weights


@dataclass(frozen=True, slots=True)
class BathPh:
    """What the bather meets, and the two ends that bracket it."""

    fresh: float
    stepin: float
    soak: float
    aired: float
    ionic_strength_mol_l: float
    charge_error_mol_l: float


def bath_ph(
    dose: Sequence[tuple[Ingredient, float]], tub_l: float, bath_c: float, alkalinity_mg_l: float, tap_ph: float,
    tables: Tables, constants: Constants | None = None, *, until_aired: bool = True, hardness_mg_l: float = 0.0,
) -> BathPh:  # fmt: skip
    """Return the pH of a bath with one dose dissolved in it.

    .. math:: DIC_{stepin} = DIC - b \\frac{fast\\ acid}{acid}(CO_2 - CO_{2,tap}),\\quad
              \\frac{dDIC}{dt} = -\\frac{k_L}{d}(CO_2 - K_H\\, p_{air})

    b: ``gas_leaving_as_bubbles``; k_L: ``transfer_m_per_h``; p_air: ``air_co2_atm``; d, the depth [m].

    Parameters
    ----------
    dose : Sequence
        Ingredient and mass of each line in one dose [g]
    tub_l : float
        Water in the tub [L]
    bath_c : float
        Bath temperature [°C]
    alkalinity_mg_l : float
        Alkalinity of the tap as CaCO3 [mg/L]
    tap_ph : float
        pH of the tap [-]
    tables : Tables
        Carbonate table and acid systems
    constants : Constants or None
        Constants at this temperature, where they are at hand
    until_aired : bool
        False stops at step-in; soak and aired are then NaN
    hardness_mg_l : float
        Hardness of the tap as CaCO3, taken as calcium [mg/L]

    Returns
    -------
    BathPh
        Four figures; only step-in and soak are what the bather meets

    References
    ----------
    .. [1] Plummer, L. N.; Busenberg, E. Geochim. Cosmochim. Acta 46 (1982) 1011 (carbonate constants).
    .. [2] Goldberg, R. N.; Kishore, N.; Lennen, R. M. J. Phys. Chem. Ref. Data 31 (2002) 231 (acids, recalled).
    """
    constants = constants or constants_at(bath_c, tables.carbonate, dict(tables.acid_systems), tables.parameters.bath)
    p = constants.parameters
    calcium_mol_l = hardness_mg_l / p.calcium_carbonate_mg_per_eq / 2
    tap_charge, tap_dic, tap_co2 = _tap(alkalinity_mg_l, tap_ph, calcium_mol_l, constants)
    ions, carbon_mol_l, fast_share = _totals(dose, tub_l, tap_charge, calcium_mol_l)
    fresh = solve_closed(ions, tap_dic + carbon_mol_l, constants)
    lost = p.gas_leaving_as_bubbles * fast_share * max(0.0, fresh.co2_aq_mol_l - tap_co2)
    stepin = solve_closed(ions, tap_dic + carbon_mol_l - lost, constants, fresh)
    if not until_aired:
        return BathPh(fresh.ph, stepin.ph, math.nan, math.nan, fresh.ionic_strength_mol_l, stepin.charge_error_mol_l)
    soak = _soak(ions, stepin, constants, tub_l)
    aired = solve_aired(ions, constants, fresh)
    error = max(abs(each.charge_error_mol_l) for each in (fresh, stepin, soak, aired))
    return BathPh(fresh.ph, stepin.ph, soak.ph, aired.ph, fresh.ionic_strength_mol_l, error)


def _tap(alkalinity_mg_l: float, tap_ph: float, calcium_mol_l: float, constants: Constants) -> tuple[float, float, float]:
    """Find strong charge, carbon and CO2(aq) of plain tap water; one round of activity is enough at its strength."""
    charge = alkalinity_mg_l / constants.parameters.calcium_carbonate_mg_per_eq
    strength = charge + calcium_mol_l
    root = strength**0.5
    gamma = 10 ** (-constants.slope * (root / (1 + root) - constants.parameters.davies * strength))
    a = 10**-tap_ph
    with_calcium = (
        1 + constants.pairs_calcium[3] * gamma**4 * calcium_mol_l,
        1 + constants.pairs_calcium[4] * gamma**8 * calcium_mol_l,
    )
    x1 = constants.k1 / (a * gamma) * with_calcium[0]
    x2 = constants.k1 * constants.k2 / (a * a * gamma**4) * with_calcium[1]
    carbonate_charge = charge + a / gamma - constants.kw / (a * gamma)
    co2 = max(0.0, carbonate_charge) / (x1 + 2 * x2)
    return charge, co2 * (1 + x1 + x2), co2


def _totals(
    dose: Sequence[tuple[Ingredient, float]], tub_l: float, tap_charge: float, calcium_mol_l: float
) -> tuple[BathIons, float, float]:
    acids: dict[str, float] = {}
    charge = sodium = carbon = spectators = acid_eq = fast_eq = magnesium = 0.0
    for item, mass_g in dose:
        base_id = item.reference_id
        if item.acid is not None:
            mol = mass_g / item.acid.molar_mass_g_mol
            acids[item.acid.system] = acids.get(item.acid.system, 0.0) + mol
            charge += mol * item.acid.strong_cations
            acid_eq += mol * item.acid.protons
            fast_eq += mol * item.acid.protons * item.acid.speed
        if item.base is not None:
            mol = mass_g / item.base.molar_mass_g_mol
            carbon += mol * item.base.carbons_per_mol
            charge += mol * (item.base.base_equivalents_per_mol - item.base.own_acid_equivalents_per_mol)
            sodium += mol * SODIUM_PER_MOL.get(base_id, 0)
        if base_id == "sodium-citrate":
            mol = mass_g / SODIUM_CITRATE_G_MOL
            acids["citric"] = acids.get("citric", 0.0) + mol
            charge += 3 * mol
            sodium += 3 * mol
        magnesium += mass_g * item.traits.hardness_mmol_g / 1000
        spectators += mass_g * SPECTATORS_MOL_STRENGTH_PER_G.get(base_id, 0.0)
    ions = BathIons(
        strong_charge_mol_l=tap_charge + charge / tub_l,
        sodium_mol_l=sodium / tub_l,
        acids_mol_l=tuple((name, mol / tub_l) for name, mol in acids.items() if mol > 0),
        spectator_strength_mol_l=0.5 * tap_charge + spectators / tub_l,
        calcium_mol_l=calcium_mol_l,
        magnesium_mol_l=magnesium / tub_l,
    )
    return ions, carbon / tub_l, fast_eq / acid_eq if acid_eq > 0 else 0.0


def _soak(ions: BathIons, stepin: Solution, constants: Constants, tub_l: float) -> Solution:
    p = constants.parameters
    depth_m = p.reference_depth_m * (tub_l / p.reference_bath_l) ** (1 / 3)
    rate_per_min = p.transfer_m_per_h / depth_m / 60
    at_air = constants.kh_mol_l_atm * p.air_co2_atm
    return solve_outgassing(ions, stepin, constants, rate_per_min, at_air, SOAK_MINUTES)
