"""Temperature of a dough after the warm wet phase met powders and bowl (physical: an enthalpy balance)."""

from __future__ import annotations

import numpy as np

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import Sloped, slopes_of

__all__ = ["bowl_heat_j_k", "mix_temperature"]

STEPS = 201  # temperatures tried between powders and wet phase


def mix_temperature(mix: Mix, wet_c: float, room_c: float, bowl_j_k: float) -> float:
    """Return the temperature at which wet phase, powders and bowl agree.

    .. math:: \\sum_{powders,bowl} C (T - T_{room}) = \\sum_{wet} C (T_{wet} - T) + L\\, (m_{solid}(T) - m_{solid}(T_{wet}))

    L: ``latent_j_g``.

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

    References
    ----------
    .. [1] Heat balance; heat capacities of powders: CRC Handbook, of fats and the heat of melting: Bailey, from memory.
    """
    palette, p = mix.palette, mix.parameters.fats
    wets = palette.is_fat | palette.is_lean_liquid
    powders_j_k = mix.of(palette.heat_capacity_j_gk * ~wets)
    cold_j_k = powders_j_k + bowl_heat_j_k(mix, bowl_j_k)
    warm_j_k = p.fat_cp_j_gk * mix.fat_g + p.liquid_cp_j_gk * mix.of(palette.is_lean_liquid)
    if wet_c == room_c:
        return room_c
    grid_c = np.linspace(room_c, wet_c, STEPS)
    solid_g = float(mix.holding_g) * np.interp(grid_c, mix.fill.temperature_c, mix.fill.solid_share)
    frozen_g = solid_g - float(mix.solid_fat_g(wet_c))
    surplus_j = float(warm_j_k) * (wet_c - grid_c) + p.latent_j_g * frozen_g - float(cold_j_k) * (grid_c - room_c)
    # The surplus falls steadily from the cold to the warm end; where it crosses zero, all agree.
    even_c = float(np.interp(0.0, -surplus_j if wet_c > room_c else surplus_j, grid_c))
    if not mix.sloped:
        return even_c
    per_c = p.latent_j_g * float(mix.holding_g) * mix.solid_share_per_c(even_c) - float(warm_j_k + cold_j_k)
    left_j = (
        warm_j_k * (wet_c - even_c)
        + p.latent_j_g * (mix.solid_fat_g(even_c) - mix.solid_fat_g(wet_c))
        - cold_j_k * (even_c - room_c)
    )
    return Sloped(even_c, -slopes_of(left_j, mix.mass_g.size) / per_c)


def bowl_heat_j_k(mix: Mix, bowl_j_k: float) -> float:
    """Return the heat capacity of the bowl a batch is mixed in [J/K].

    .. math:: C = C_{ref} \\max(1, m / m_{ref})^{power}

    m_ref: ``bowl_mass_kg``; power: ``bowl_power``.

    Parameters
    ----------
    mix : Mix
        The formula
    bowl_j_k : float
        Heat capacity of the bowl at 1.1 kg [J/K]

    Returns
    -------
    float
        Heat capacity [J/K]; a small batch is made in the usual bowl, a large one in a larger

    References
    ----------
    .. [1] Fitted to common practice, its power an estimate; no published source.
    """
    p = mix.parameters.fats
    heat_j_k: float = bowl_j_k * max(1.0, mix.total_g / 1000 / p.bowl_mass_kg) ** p.bowl_power
    return heat_j_k
