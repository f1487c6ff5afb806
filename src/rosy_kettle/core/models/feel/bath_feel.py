"""What one dose leaves in the water, on the skin and on the tub (practice)."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.mixing.mix import Mix, base_id
from rosy_kettle.core.mixing.sloped import exp
from rosy_kettle.core.records import Ingredient

__all__ = ["BathFeel", "bath_feel"]

ACTIVE_CAPACITY = 0.1  # oil a gram of surfactant keeps dispersed [g/g]; estimate
HLB_WIDTH = 5.0  # how far HLB may miss what the oil asks for [-]
USUAL_REQUIRED_HLB = 8.0  # where an oil lists none [-]; middle of the fixed oils
RING_SCALE_G = 8.0  # load that scores 63 in 150 L [g]
SIGHT_CM = 20.0  # depth one looks through [cm]
SLIP_NONE_G, SLIP_NOTE_G = 5.0, 15.0  # oil on the tub floor [g]; project default, no safety claim
SETTLES = {"clay": 0.1, "cocoa-powder": 0.15, "colloidal-oat": 0.1, "botanical-petals": 0.5, "lavender-buds": 0.5}
"""Share of a gram that shows on the tub [-]; estimate."""


@dataclass(frozen=True, slots=True)
class BathFeel:
    """Of one dose in one bath."""

    oil_g: float
    free_oil_g: float
    ring: float
    slip: str
    slip_load_g: float
    tint: float
    cloud: float
    stain: float


def bath_feel(mix: Mix, dose_g: float, tub_l: float, bath_c: float) -> BathFeel:
    """Return what a dose leaves behind.

    .. math:: ring = 100(1 - e^{-L (150/V)^{2/3}/8}),\\quad tint = 100(1 - 10^{-\\sum \\varepsilon c \\cdot 20\\,cm})

    Parameters
    ----------
    mix : Mix
        The formula
    dose_g : float
        Used in one bath [g]
    tub_l : float
        Water V [L]
    bath_c : float
        Bath temperature [°C]

    Returns
    -------
    BathFeel
        Oil [g], indices from 0 to 100, slip none, note or warn

    References
    ----------
    .. [1] Griffin, W. C. J. Soc. Cosmet. Chem. 1 (1949) 311 (HLB and required HLB; the capacity itself is an estimate).
    """
    share = dose_g / mix.total_g
    oil_g = (mix.oily_g - mix.solid_fat_g(bath_c)) * share
    capacity_g = _capacity(mix) * share
    free_g = max(0.0, oil_g - capacity_g)
    emulsified = min(1.0, capacity_g / oil_g) if oil_g > 0 else (1.0 if mix.grams_of_role("emulsifier") > 0 else 0.0)
    hidden_g = mix.of(mix.palette.hidden_fat) * share
    spread = (150 / tub_l) ** (2 / 3)
    load_g = free_g + 0.5 * hidden_g + _residues(mix, emulsified, bath_c) * share
    slip_g = (free_g + 0.25 * (oil_g - free_g) + 0.25 * hidden_g) * spread
    palette, per_l = mix.palette, share / tub_l
    return BathFeel(
        oil_g=oil_g,
        free_oil_g=free_g,
        ring=100 * (1 - exp(-load_g * spread / RING_SCALE_G)),
        slip="none" if slip_g < SLIP_NONE_G else "note" if slip_g <= SLIP_NOTE_G else "warn",
        slip_load_g=slip_g,
        tint=100 * (1 - 10 ** -(SIGHT_CM * per_l * mix.of(palette.tint_l_g_cm))),
        cloud=100 * (1 - 10 ** -(SIGHT_CM * per_l * mix.of(palette.cloud_l_g_cm))),
        stain=1000 * per_l * mix.of(palette.stain_per_mg_l),
    )


def _capacity(mix: Mix) -> float:
    """Oil that the emulsifiers and the surfactant of the batch keep in the water [g]."""
    emulsifiers = [(item.traits, mass_g) for item, mass_g in mix.items() if item.traits.oil_capacity_g_g and mass_g > 0]
    active_g = sum(mass_g * (item.active_fraction or 0.0) for item, mass_g in mix.items() if item.surfactant)
    total_g = sum(mass_g for _, mass_g in emulsifiers)
    if total_g <= 0:
        return ACTIVE_CAPACITY * active_g
    hlb = sum((traits.hlb_effective or 0.0) * mass_g for traits, mass_g in emulsifiers) / total_g
    oils = [
        (item.required_hlb or USUAL_REQUIRED_HLB, mass_g)
        for item, mass_g in mix.items()
        if _is_oil_or_butter(item.role) and mass_g > 0
    ]
    oil_g = sum(mass_g for _, mass_g in oils)
    required = sum(need * mass_g for need, mass_g in oils) / oil_g if oil_g > 0 else hlb
    fit = 0.5 + 0.5 * exp(-(((hlb - required) / HLB_WIDTH) ** 2))
    return sum((traits.oil_capacity_g_g or 0.0) * mass_g for traits, mass_g in emulsifiers) * fit + ACTIVE_CAPACITY * active_g


def _is_oil_or_butter(role: str) -> bool:
    return role in {"oil", "butter", "wax"}


def _residues(mix: Mix, emulsified: float, bath_c: float) -> float:
    """Weigh what settles on the tub besides oil [g of the batch]."""
    kinds = [_residue(item) for item in mix.palette.ingredients]
    load = 1.5 * mix.solid_fat_g(bath_c) * (1 - emulsified / 2)
    if "mica" in kinds:
        load += 0.8 * mix.of(np.array([kind == "mica" for kind in kinds])) * (1 - 0.6 * emulsified)
    if "pigment" in kinds:
        load += 2.0 * mix.of(np.array([kind == "pigment" for kind in kinds])) * (1 - emulsified / 2)
    return load + mix.of(np.array([SETTLES.get(kind, 0.0) for kind in kinds]))


def _residue(item: Ingredient) -> str:
    if item.has("mica"):
        return "mica"
    if item.has("pigment"):
        return "pigment"
    return "clay" if item.role == "clay" else base_id(item)
