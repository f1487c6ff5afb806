"""Foam in the tub (practice, with published relative data)."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.sloped import clip, exp
from rosy_kettle.core.parameters.lather import LatherParameters

__all__ = ["Foam", "foam"]


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

    .. math:: F = litres\\sum A_i f_i/100 \\cdot synergy \\cdot antifoam \\cdot water \\cdot way
    .. math:: score = 100(1 - e^{-F/(F_{score} (V/V_{ref})^{2/3})})

    litres, F_score, V_ref: ``litres_per_gram``, ``score_scale_l``, ``reference_bath_l``.

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
    palette, p = mix.palette, mix.parameters.lather
    active_g = mix.of(palette.foaming) * share
    if active_g <= 0:
        return Foam(0.0, 0.0, 0.0, 0.0, 0.0, over_the_rim=False)
    anionic_g = mix.of(palette.foaming * palette.is_anionic) * share
    lift = _synergy(anionic_g, mix.of(palette.foaming * ~palette.is_anionic) * share, p)
    antifoam = 1 / (1 + _harmful_oil(mix, share, bath_c) / (p.oil_half * active_g))
    loss = mix.of(palette.foaming * palette.hardness_loss) * share / active_g
    effective = hardness_mg_l - p.citrate_softens_mg_mmol * citrate_mmol_l
    water = 1 - loss * clip((effective - p.hardness_from_mg_l) / p.hardness_span_mg_l)
    stirred = 1.0 if way != "whole" else p.whole_way + (1 - p.whole_way) * clip(brisk_mol_per_100_g / p.brisk_for_full_mol)
    strength_g = mix.of(palette.foaming * palette.foam_rel) * share / 100
    free = p.litres_per_gram * strength_g * lift * antifoam * water * stirred
    litres = min(free, p.rim_l_per_m2 * tub_area_m2)
    fluff = mix.of(palette.foaming * palette.fluff) * share / active_g
    lifted = (lift - 1) / p.synergy
    character = clip(fluff - p.creamy_by_oil * (1 - antifoam) - p.creamy_by_synergy * lifted, 0, 100)
    return Foam(
        litres=litres,
        score=100 * (1 - exp(-litres / (p.score_scale_l * (tub_l / p.reference_bath_l) ** (2 / 3)))),
        height_cm=litres / (10 * tub_area_m2),
        character=character,
        half_life_min=p.half_life_min
        * (1 - p.fluff_shortens * character)
        * antifoam
        * (1 + p.synergy_lengthens * lifted)
        * 2 ** ((p.half_life_reference_c - bath_c) / p.half_life_halves_per_c),
        over_the_rim=free > litres,
    )


def _synergy(anionic_g: float, mild_g: float, p: LatherParameters) -> float:
    """Return how anionic and amphoteric or nonionic surfactants lift each other.

    Parameters
    ----------
    anionic_g : float
        Active anionic surfactant [g]
    mild_g : float
        Active amphoteric and nonionic surfactant [g]
    p : LatherParameters
        How much, and at which ratio

    Returns
    -------
    float
        Factor from 1 to 1.25 [-]
    """
    if anionic_g <= 0 or mild_g <= 0:
        return 1.0
    return 1 + p.synergy * min(1.0, mild_g / (p.synergy_ratio * anionic_g), anionic_g / (p.synergy_ratio * mild_g))


def _harmful_oil(mix: Mix, share: float, bath_c: float) -> float:
    """Oil that breaks foam: molten and liquid, less what is emulsified, and half of what hides in milk and cocoa."""
    p = mix.parameters.lather
    oil_g = (mix.oily_g - mix.solid_fat_g(bath_c)) * share
    emulsifier_g = mix.grams_of_role("emulsifier") * share
    eased = p.eased_by_emulsifier * min(1.0, emulsifier_g / (p.emulsifier_for_oil * oil_g)) if oil_g > 0 else 0.0
    return oil_g * (1 - eased) + p.hidden_fat_counts * mix.of(mix.palette.hidden_fat) * share
