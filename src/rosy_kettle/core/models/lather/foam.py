"""Foam in the tub (practice, with published relative data)."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import clip, exp

__all__ = ["Foam", "foam"]

LITRES_PER_GRAM = 15.0  # foam of a gram of sodium lauryl sulfate under the tap [L/g]; fitted to liked doses
RIM_L_PER_M2 = 250.0  # more foam than this goes over the rim [L/m2]
SYNERGY = 0.25  # most that amphoteric and anionic lift each other [-]
SYNERGY_RATIO = 0.33  # of the one to the other for the full lift [-]
OIL_HALF = 6.0  # grams of oil per gram of active that halve the foam [g/g]
EMULSIFIER_FOR_OIL = 0.11  # emulsifier per oil that takes half its harm away [g/g]
HARDNESS_FROM, HARDNESS_SPAN = 90.0, 160.0  # mg/L as CaCO3
CITRATE_SOFTENS = 50.0  # hardness bound by a mmol/L of citrate [mg/L]
WHOLE_WAY, BRISK_FOR_FULL = 0.35, 0.10  # foam of a piece dropped in whole; brisk gas that stirs it up [mol/100 g]
SCORE_SCALE_L = 60.0  # foam that scores 63 in 150 L [L]
CREAMY_BY_OIL, CREAMY_BY_SYNERGY = 60.0, 10.0  # points of character
HALF_LIFE_MIN = 30.0  # of creamy foam without oil at 38 °C [min]


@dataclass(frozen=True, slots=True)
class Foam:
    """Foam of one dose; all zero without surfactant."""

    litres: float
    score: float
    height_cm: float
    character: float
    half_life_min: float
    over_the_rim: bool


def foam(
    mix: Mix, dose_g: float, tub_l: float, tub_area_m2: float, bath_c: float, hardness_mg_l: float,
    citrate_mmol_l: float, brisk_mol_per_100_g: float, way: str,
) -> Foam:  # fmt: skip
    """Return the foam of one dose after the fill.

    .. math:: F = 15\\sum A_i f_i/100 \\cdot synergy \\cdot antifoam \\cdot water \\cdot way
    .. math:: score = 100(1 - e^{-F/(60 (V/150)^{2/3})})

    Parameters
    ----------
    mix : Mix
        The formula
    dose_g : float
        Used in one bath [g]
    tub_l : float
        Water V [L]
    tub_area_m2 : float
        Water surface [m2]
    bath_c : float
        Bath temperature [°C]
    hardness_mg_l : float
        Hardness as CaCO3 [mg/L]
    citrate_mmol_l : float
        Citrate in the bath, which binds hardness [mmol/L]
    brisk_mol_per_100_g : float
        Brisk gas [mol/100 g]
    way : str
        crumbled, held or whole

    Returns
    -------
    Foam
        Litres, score, height and character; score band 12

    References
    ----------
    .. [1] Relative foam per gram of active: equal-active Ross-Miles style scale, estimates, 15 points.
    """
    share = dose_g / mix.total_g
    palette = mix.palette
    active_g = mix.of(palette.foaming) * share
    if active_g <= 0:
        return Foam(0.0, 0.0, 0.0, 0.0, 0.0, over_the_rim=False)
    anionic_g = mix.of(palette.foaming * palette.is_anionic) * share
    lift = _synergy(anionic_g, mix.of(palette.foaming * ~palette.is_anionic) * share)
    antifoam = 1 / (1 + _harmful_oil(mix, share, bath_c) / (OIL_HALF * active_g))
    loss = mix.of(palette.foaming * palette.hardness_loss) * share / active_g
    effective = hardness_mg_l - CITRATE_SOFTENS * citrate_mmol_l
    water = 1 - loss * clip((effective - HARDNESS_FROM) / HARDNESS_SPAN)
    stirred = 1.0 if way != "whole" else WHOLE_WAY + (1 - WHOLE_WAY) * clip(brisk_mol_per_100_g / BRISK_FOR_FULL)
    strength_g = mix.of(palette.foaming * palette.foam_rel) * share / 100
    free = LITRES_PER_GRAM * strength_g * lift * antifoam * water * stirred
    litres = min(free, RIM_L_PER_M2 * tub_area_m2)
    fluff = mix.of(palette.foaming * palette.fluff) * share / active_g
    lifted = (lift - 1) / SYNERGY
    character = clip(fluff - CREAMY_BY_OIL * (1 - antifoam) - CREAMY_BY_SYNERGY * lifted, 0, 100)
    return Foam(
        litres=litres,
        score=100 * (1 - exp(-litres / (SCORE_SCALE_L * (tub_l / 150) ** (2 / 3)))),
        height_cm=litres / (10 * tub_area_m2),
        character=character,
        half_life_min=HALF_LIFE_MIN * (1 - 0.006 * character) * antifoam * (1 + 0.3 * lifted) * 2 ** ((38 - bath_c) / 10),
        over_the_rim=free > litres,
    )


def _synergy(anionic_g: float, mild_g: float) -> float:
    """Return how anionic and amphoteric or nonionic surfactants lift each other.

    Parameters
    ----------
    anionic_g : float
        Active anionic surfactant [g]
    mild_g : float
        Active amphoteric and nonionic surfactant [g]

    Returns
    -------
    float
        Factor from 1 to 1.25 [-]
    """
    if anionic_g <= 0 or mild_g <= 0:
        return 1.0
    return 1 + SYNERGY * min(1.0, mild_g / (SYNERGY_RATIO * anionic_g), anionic_g / (SYNERGY_RATIO * mild_g))


def _harmful_oil(mix: Mix, share: float, bath_c: float) -> float:
    """Oil that breaks foam: molten and liquid, less what is emulsified, and half of what hides in milk and cocoa."""
    oil_g = (mix.oily_g - mix.solid_fat_g(bath_c)) * share
    emulsifier_g = mix.grams_of_role("emulsifier") * share
    eased = 0.5 * min(1.0, emulsifier_g / (EMULSIFIER_FOR_OIL * oil_g)) if oil_g > 0 else 0.0
    return oil_g * (1 - eased) + 0.5 * mix.of(mix.palette.hidden_fat) * share
