"""What one dose leaves in the water, on the skin and on the tub (practice)."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import exp
from rosy_kettle.core.records import Ingredient

__all__ = ["BathFeel", "bath_feel"]

SETTLES = {"clay": 0.1, "cocoa-powder": 0.15, "colloidal-oat": 0.1, "botanical-petals": 0.5, "lavender-buds": 0.5}
"""Share of a gram that shows on the tub [-]; estimate."""


@dataclass(frozen=True, slots=True)
class BathFeel:
    """Of one dose in one bath."""

    oil_g: float
    free_oil_g: float
    ring: float
    slip: str
    richness: str
    slip_load_g: float
    tint: float
    cloud: float
    stain: float


def bath_feel(mix: Mix, dose_g: float, tub_l: float, bath_c: float) -> BathFeel:
    """Return what a dose leaves behind.

    .. math:: ring = 100(1 - e^{-L (V_{ref}/V)^{2/3}/L_{ring}}),\\quad tint = 100(1 - 10^{-\\sum \\varepsilon c \\cdot depth})

    V_ref, L_ring, depth: ``reference_bath_l``, ``ring_scale_g``, ``sight_cm``.

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
    p = mix.parameters.feel
    share = dose_g / mix.total_g
    oil_g = (mix.oily_g - mix.solid_fat_g(bath_c)) * share
    capacity_g = _capacity(mix) * share
    free_g = max(0.0, oil_g - capacity_g)
    emulsified = min(1.0, capacity_g / oil_g) if oil_g > 0 else (1.0 if mix.grams_of_role("emulsifier") > 0 else 0.0)
    hidden_g = mix.of(mix.palette.hidden_fat) * share
    spread = (p.reference_bath_l / tub_l) ** (2 / 3)
    load_g = free_g + p.hidden_fat_rings * hidden_g + _residues(mix, emulsified, bath_c) * share
    slip_g = (free_g + p.dispersed_oil_slips * (oil_g - free_g) + p.hidden_fat_slips * hidden_g) * spread
    palette, per_l = mix.palette, share / tub_l
    return BathFeel(
        oil_g=oil_g,
        free_oil_g=free_g,
        ring=100 * (1 - exp(-load_g * spread / p.ring_scale_g)),
        slip="none" if slip_g < p.slip_note_g else "note" if slip_g <= p.slip_warn_g else "warn",
        richness=p.richness(oil_g),
        slip_load_g=slip_g,
        tint=100 * (1 - 10 ** -(p.sight_cm * per_l * mix.of(palette.tint_l_g_cm))),
        cloud=100 * (1 - 10 ** -(p.sight_cm * per_l * mix.of(palette.cloud_l_g_cm))),
        stain=1000 * per_l * mix.of(palette.stain_per_mg_l),
    )


def _capacity(mix: Mix) -> float:
    """Oil that the emulsifiers and the surfactant of the batch keep in the water [g]."""
    p = mix.parameters.feel
    emulsifiers = [(item.traits, mass_g) for item, mass_g in mix.items() if item.traits.oil_capacity_g_g and mass_g > 0]
    active_g = sum(mass_g * (item.active_fraction or 0.0) for item, mass_g in mix.items() if item.surfactant)
    total_g = sum(mass_g for _, mass_g in emulsifiers)
    if total_g <= 0:
        return p.active_capacity * active_g
    hlb = sum((traits.hlb_effective or 0.0) * mass_g for traits, mass_g in emulsifiers) / total_g
    oils = [
        (item.required_hlb or p.usual_required_hlb, mass_g)
        for item, mass_g in mix.items()
        if _is_oil_or_butter(item.role) and mass_g > 0
    ]
    oil_g = sum(mass_g for _, mass_g in oils)
    required = sum(need * mass_g for need, mass_g in oils) / oil_g if oil_g > 0 else hlb
    fit = p.hlb_least + (1 - p.hlb_least) * exp(-(((hlb - required) / p.hlb_width) ** 2))
    return sum((traits.oil_capacity_g_g or 0.0) * mass_g for traits, mass_g in emulsifiers) * fit + p.active_capacity * active_g


def _is_oil_or_butter(role: str) -> bool:
    return role in {"oil", "butter", "wax"}


def _residues(mix: Mix, emulsified: float, bath_c: float) -> float:
    """Weigh what settles on the tub besides oil [g of the batch]."""
    kinds = [_residue(item) for item in mix.palette.ingredients]
    p = mix.parameters.feel
    load = p.solid_fat_rings * mix.solid_fat_g(bath_c) * (1 - p.residue_dispersed * emulsified)
    if "mica" in kinds:
        load += p.mica_rings * mix.of(np.array([kind == "mica" for kind in kinds])) * (1 - p.mica_dispersed * emulsified)
    if "pigment" in kinds:
        load += p.pigment_rings * mix.of(np.array([kind == "pigment" for kind in kinds])) * (1 - p.residue_dispersed * emulsified)
    return load + mix.of(np.array([SETTLES.get(kind, 0.0) for kind in kinds]))


def _residue(item: Ingredient) -> str:
    if item.has("mica"):
        return "mica"
    if item.has("pigment"):
        return "pigment"
    return "clay" if item.role == "clay" else item.reference_id
