"""Foam and active surfactant of one dose."""

from __future__ import annotations

import numpy as np

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.gas.gas_release import brisk_per_100_g
from rosy_kettle.core.models.lather import active_share, foam, tub_concentration
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.records.evaluation import Lather
from rosy_kettle.core.records.reading import Reading, Watched

__all__ = ["READINGS", "read_lather"]

READINGS = (
    Reading(
        "lather.active_g", "Active in bath", "g", "exact", "dose", "Surfactant lines times their active fraction, for one dose. "
        "Of a whole piece well-liked bars give 3 to 5 g (common practice).",
        page="lather", question="foam", place=8, rests_on=("lather",), compute=lambda look: look.lather and look.lather.active_g,
        aim=True, scale=(0.0, 8.0), desk=1, curve="foam",
    ),
    Reading(
        "lather.concentration_mg_l", "Active in water", "mg/L", "exact", "dose",
        "Active surfactant of a dose over the tub's water.",
        page="lather", question="foam", place=9, rests_on=("lather",),
        compute=lambda look: look.lather and look.lather.concentration_mg_l, curve="foam",
    ),
    Reading(
        "lather.foam_l", "Foam", "L", "practice", "dose",
        f"{USUAL.lather.litres_per_gram:g} L a gram of reference surfactant, lifted by mixing kinds, broken by oil.",
        page="lather", question="foam", place=11, rests_on=("lather",), compute=lambda look: look.lather and look.lather.foam_l,
        curve="foam",
    ),
    Reading(
        "lather.score", "Foam score", "of 100", "practice", "dose",
        "Foam in the tub on a scale that fills; well-liked doses score 50 to 70. "
        f"Band {USUAL.lather.score_band:g}.",
        page="lather", question="foam", place=12, rests_on=("lather",), compute=lambda look: look.lather and look.lather.score,
        aim=True, watched=Watched(1, 12.0), scale=(0.0, 100.0), decimals=0, desk=0, curve="foam",
    ),
    Reading(
        "lather.height_cm", "Foam height", "cm", "practice", "dose", "Foam over the water surface of the tub.",
        page="lather", question="foam", place=13, rests_on=("lather",),
        compute=lambda look: look.lather and look.lather.height_cm,
        aim=True, curve="foam",
    ),
    Reading(
        "lather.character", "Character", "of 100", "practice", "dose",
        "0 creamy to 100 fluffy, by the surfactants; oil makes it creamier.",
        page="lather", question="foam", place=14, rests_on=("lather",),
        compute=lambda look: look.lather and look.lather.character,
        aim=True, scale=(0.0, 100.0), curve="foam",
    ),
    Reading(
        "lather.half_life_min", "Half gone after", "min", "practice", "dose",
        "Minutes from the full tub until half the foam is gone. Within a factor of 2.",
        page="lather", question="foam", place=15, rests_on=("lather",),
        compute=lambda look: look.lather and look.lather.half_life_min, scale=(0.0, 60.0), curve="foam",
    ),
)  # fmt: skip
"""Declarations."""


def read_lather(mix: Mix, spread: FloatArray, setting: Setting) -> Lather:
    """Return active surfactant and foam of a dose.

    Parameters
    ----------
    mix : Mix
        The formula
    spread : FloatArray
        Half width of each line's mass band as a share [-]
    setting : Setting
        Tub and dose

    Returns
    -------
    Lather
        All zero without surfactant

    Raises
    ------
    MissingDataError
        If a surfactant lacks its active fraction.
    """
    assumed, use = setting.assumed, setting.formula.use
    share = active_share(mix)
    active_g = share * assumed.dose_g
    rises = (mix.palette.active_known - float(share)) * mix.mass_g / float(mix.total_g)
    half_width = float(np.sqrt(((rises * spread) ** 2).sum())) * assumed.dose_g
    made = foam(
        mix, assumed.dose_g, assumed.tub_l, use.tub_area_m2, assumed.bath_c,
        _hardness_mg_l(mix, setting), _citrate_mmol_l(mix, setting), brisk_per_100_g(mix), assumed.way,
    )  # fmt: skip
    band = (
        (max(0.0, made.score - mix.parameters.lather.score_band), min(100.0, made.score + mix.parameters.lather.score_band))
        if made.litres > 0
        else (0.0, 0.0)
    )
    return Lather(
        active_g=active_g, active_band_g=(max(0.0, active_g - half_width), active_g + half_width),
        active_piece_g=share * assumed.piece_mass_g, concentration_mg_l=tub_concentration(active_g, assumed.tub_l),
        foam_l=made.litres, score=made.score, score_band=band, height_cm=made.height_cm, character=made.character,
        half_life_min=made.half_life_min, over_the_rim=made.over_the_rim,
    )  # fmt: skip


def _citrate_mmol_l(mix: Mix, setting: Setting) -> float:
    return mix.of(mix.palette.citrate_mmol_g) * setting.assumed.dose_g / mix.total_g / setting.assumed.tub_l


def _hardness_mg_l(mix: Mix, setting: Setting) -> float:
    """Hardness of the bath as calcium carbonate: the tap's, and what Epsom and magnesium chloride bring [mg/L]."""
    tap = setting.tables.waters[setting.formula.use.hardness].hardness_mg_l_caco3
    brought = mix.of(mix.palette.hardness_mmol_g) * setting.assumed.dose_g / mix.total_g / setting.assumed.tub_l
    return tap + mix.parameters.bath.calcium_carbonate_g_mol * brought
