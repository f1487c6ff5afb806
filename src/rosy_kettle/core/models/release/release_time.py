"""How long a piece takes to melt, fizz and wash away (practice on physical parts)."""

from __future__ import annotations

import numpy as np

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import clip, exp, log1p
from rosy_kettle.core.models.gas.gas_release import gas_release

__all__ = ["release_minutes"]

MM_PER_MIN = 6e4  # m/s in mm/min


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

    References
    ----------
    .. [1] Fitted to common practice, no published source.
    """
    p = mix.parameters.release
    length_mm = p.crumb_mm if way == "crumbled" else half_thickness_mm
    warmth = 2 ** ((bath_c - p.reference_c) / p.doubles_per_c)
    carried = clip((mix.oily_share - p.carried_from_oil) / p.carried_over_oil)
    rate = _melt(mix, carried, bath_c, room_c) + _fizz(mix, packing) * warmth
    if carried < 1:
        rate += p.wash_mm_min[way] * exp(-p.fat_slows_wash[way] * mix.oily_share) * warmth
    return length_mm / rate if rate >= p.slowest_mm_min else None


def _melt(mix: Mix, carried: float, bath_c: float, room_c: float) -> float:
    if carried <= 0 or mix.fat_g <= 0:
        return 0.0
    p = mix.parameters.release
    lets_go = p.solid_that_lets_go + p.dispersed_solid * _dispersing_share(mix)
    below = np.flatnonzero(mix.fill.solid_share <= lets_go)
    if below.size == 0:
        return 0.0
    solid = max(mix.solid_share(room_c), lets_go)
    # Fat lets go over a few degrees, not at one: the drive falls off softly as its own temperature nears the bath's.
    warmer = (bath_c - _lets_go_c(mix, int(below[0]), lets_go)) / p.lets_go_over_c
    drive_c = p.lets_go_over_c * log1p(exp(warmer))
    return carried * p.heat_transfer_w_m2k * drive_c / (p.fat_kg_m3 * p.latent_j_kg * solid) * MM_PER_MIN


def _dispersing_share(mix: Mix) -> float:
    """Emulsifier that takes fat into water, of it and the fat [g/g]; what is solid of it swells in the bath and holds nothing."""
    least = mix.parameters.release.disperses_from_hlb
    grams = sum(mass for item, mass in mix.items() if item.role == "emulsifier" and (item.traits.hlb_effective or 0.0) >= least)
    return grams / max(grams, mix.fat_g + mix.liquid_oil_g) if grams > 0 else 0.0


def _lets_go_c(mix: Mix, last: int, solid_share: float) -> float:
    """Temperature at which the solid share has fallen so far, along the line to the grid's point that is below it [°C]."""
    grid_c = mix.fill.temperature_c
    if last == 0:
        return float(grid_c[0])
    from_c, to_c = float(grid_c[last - 1]), float(grid_c[last])
    above, below = mix.solid_share(from_c), mix.solid_share(to_c)
    return from_c + (to_c - from_c) * (above - solid_share) / (above - below)


def _fizz(mix: Mix, packing: str) -> float:
    palette, p = mix.palette, mix.parameters.release
    acid_mol = mix.of(palette.acid_mol_g)
    if acid_mol <= 0:
        return 0.0
    base_mol = mix.of(palette.base_mol_g)
    brisk_mol = gas_release(mix).brisk_co2_mol
    acid_g = sum(mass * item.acid.speed for item, mass in mix.items() if item.acid is not None)
    burning = (p.bicarbonate_g_mol * brisk_mol + acid_g * min(1.0, base_mol / acid_mol)) / mix.total_g
    slowed = (
        1 + p.slowed_by_powders * (mix.grams_of_role("surfactant") + p.starch_counts * mix.grams_of_role("starch")) / mix.total_g
    )
    rate = p.fizz_rate_mm_min * burning * exp(-p.fat_slows_fizz * mix.oily_share) / slowed
    return rate * (p.pressed_slower if packing == "press" else 1.0)
