"""Temperature of a dough after the warm wet phase met powders and bowl (physical: an enthalpy balance)."""

from __future__ import annotations

import numpy as np

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import Sloped, slopes_of

__all__ = ["mix_temperature"]

FAT_CP_J_GK = 2.0  # molten or solid fat [J/(g K)]; Bailey, from memory
LIQUID_CP_J_GK = 2.3  # other liquids of these doughs [J/(g K)]; estimate between glycerin 2.4 and oil 2.0
LATENT_J_G = 150.0  # heat of melting of a whole butter [J/g]; Bailey, from memory
BOWL_MASS_KG = 1.1  # batch a mixer bowl is sized for [kg]
STEPS = 201  # temperatures tried between powders and wet phase
BOWL_POWER = 0.75  # how a bowl's heat capacity grows with its batch [-]; estimate


def mix_temperature(mix: Mix, wet_c: float, room_c: float, bowl_j_k: float) -> float:
    """Return the temperature at which wet phase, powders and bowl agree.

    .. math:: \\sum_{powders,bowl} C (T - T_{room}) = \\sum_{wet} C (T_{wet} - T) + 150\\, (m_{solid}(T) - m_{solid}(T_{wet}))

    Parameters
    ----------
    mix : Mix
        The formula
    wet_c : float
        Wet phase as it is poured [°C]
    room_c : float
        Powders and bowl [°C]
    bowl_j_k : float
        Heat capacity of the bowl at 1.1 kg [J/K]

    Returns
    -------
    float
        Temperature [°C]
    """
    palette = mix.palette
    wets = palette.is_fat | palette.is_lean_liquid
    powders_j_k = mix.of(palette.heat_capacity_j_gk * ~wets)
    cold_j_k = powders_j_k + bowl_j_k * max(1.0, mix.total_g / 1000 / BOWL_MASS_KG) ** BOWL_POWER
    warm_j_k = FAT_CP_J_GK * mix.fat_g + LIQUID_CP_J_GK * mix.of(palette.is_lean_liquid)
    if wet_c == room_c:
        return room_c
    grid_c = np.linspace(room_c, wet_c, STEPS)
    solid_g = float(mix.holding_g) * np.interp(grid_c, mix.fill.temperature_c, mix.fill.solid_share)
    frozen_g = solid_g - float(mix.solid_fat_g(wet_c))
    surplus_j = float(warm_j_k) * (wet_c - grid_c) + LATENT_J_G * frozen_g - float(cold_j_k) * (grid_c - room_c)
    # The surplus falls steadily from the cold to the warm end; where it crosses zero, all agree.
    even_c = float(np.interp(0.0, -surplus_j if wet_c > room_c else surplus_j, grid_c))
    if not mix.sloped:
        return even_c
    per_c = LATENT_J_G * float(mix.holding_g) * mix.solid_share_per_c(even_c) - float(warm_j_k + cold_j_k)
    left_j = (
        warm_j_k * (wet_c - even_c)
        + LATENT_J_G * (mix.solid_fat_g(even_c) - mix.solid_fat_g(wet_c))
        - cold_j_k * (even_c - room_c)
    )
    return Sloped(even_c, -slopes_of(left_j, mix.mass_g.size) / per_c)
