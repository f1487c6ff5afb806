"""How long a piece takes to melt, fizz and wash away (practice on physical parts)."""

from __future__ import annotations

import numpy as np

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import Sloped, clip, exp, slopes_of
from rosy_kettle.core.models.gas.gas_release import gas_release

__all__ = ["release_minutes"]

HEAT_TRANSFER = 300.0  # water to melting fat [W/(m2 K)]; estimate for still bath water
FAT_KG_M3, LATENT_J_KG = 930.0, 150e3  # density and heat of melting of a butter; Bailey, from memory
MM_PER_MIN = 6e4  # m/s in mm/min
SOLID_THAT_LETS_GO = 0.06  # solid share at which a fat falls apart [-]
FIZZ_RATE = 7.0  # mm/min of a plain 2 : 1 mix [mm/min]; fitted to balls of 2 and 2.5 in
PRESSED_SLOWER = 0.85  # [-]
WASH_MM_MIN = {"whole": 0.25, "held": 2.0, "crumbled": 1.0}  # [mm/min]; fitted to common practice
WASH_FAT = {"whole": 4.0, "held": 2.0, "crumbled": 2.0}  # how fat slows washing [-]
CRUMB_MM = 4.0  # half thickness of a crumb [mm]
SLOWEST_MM_MIN = 0.02  # slower than this it does not go [mm/min]
BICARBONATE_G_MOL = 84.0  # [g/mol]


def release_minutes(mix: Mix, half_thickness_mm: float, way: str, bath_c: float, room_c: float, packing: str) -> float | None:
    """Return the time a piece takes to go.

    .. math:: t = \\ell/(melt + fizz + wash)

    Parameters
    ----------
    mix : Mix
        The formula
    half_thickness_mm : float
        Half thickness, or the radius of a ball [mm]
    way : str
        crumbled, held or whole
    bath_c : float
        Bath temperature [°C]
    room_c : float
        Room temperature, for the solid fat the piece starts with [°C]
    packing : str
        A pressed piece fizzes slower

    Returns
    -------
    float or None
        Minutes [min]; None when it will not go at this temperature
    """
    length_mm = CRUMB_MM if way == "crumbled" else half_thickness_mm
    warmth = 2 ** ((bath_c - 38) / 15)
    carried = clip((mix.oily_share - 0.35) / 0.30)
    rate = _melt(mix, carried, bath_c, room_c) + _fizz(mix, packing) * warmth
    if carried < 1:
        rate += WASH_MM_MIN[way] * exp(-WASH_FAT[way] * mix.oily_share) * warmth
    return length_mm / rate if rate >= SLOWEST_MM_MIN else None


def _melt(mix: Mix, carried: float, bath_c: float, room_c: float) -> float:
    if carried <= 0 or mix.fat_g <= 0:
        return 0.0
    below = np.flatnonzero(mix.fill.solid_share <= SOLID_THAT_LETS_GO)
    if below.size == 0:
        return 0.0
    last, grid_c = int(below[0]), mix.fill.temperature_c
    lets_go_c = float(grid_c[0]) if last == 0 else float(
        np.interp(-SOLID_THAT_LETS_GO, -mix.fill.solid_share[last - 1 : last + 1], grid_c[last - 1 : last + 1])
    )  # fmt: skip
    if mix.sloped and (per_c := mix.solid_share_per_c(lets_go_c)):
        lets_go_c = Sloped(lets_go_c, -slopes_of(mix.solid_share(lets_go_c), mix.mass_g.size) / per_c)
    solid = max(mix.solid_share(room_c), SOLID_THAT_LETS_GO)
    return carried * HEAT_TRANSFER * max(0.0, bath_c - lets_go_c) / (FAT_KG_M3 * LATENT_J_KG * solid) * MM_PER_MIN


def _fizz(mix: Mix, packing: str) -> float:
    palette = mix.palette
    acid_mol = mix.of(palette.acid_mol_g)
    if acid_mol <= 0:
        return 0.0
    base_mol = mix.of(palette.base_mol_g)
    brisk_mol = gas_release(mix).brisk_co2_mol
    acid_g = sum(mass * item.acid.speed for item, mass in mix.items() if item.acid is not None)
    burning = (BICARBONATE_G_MOL * brisk_mol + acid_g * min(1.0, base_mol / acid_mol)) / mix.total_g
    slowed = 1 + 4 * (mix.grams_of_role("surfactant") + 0.5 * mix.grams_of_role("starch")) / mix.total_g
    rate = FIZZ_RATE * burning * exp(-4 * mix.oily_share) / slowed
    return rate * (PRESSED_SLOWER if packing == "press" else 1.0)
