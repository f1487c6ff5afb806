"""Readings of one dose in the tub, each null with its reason where it cannot be said."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.mixing.setting import Setting, missing_of
from rosy_kettle.core.mixing.sloped import Sloped
from rosy_kettle.core.models.bath.bath_water import BathPh, bath_ph
from rosy_kettle.core.models.bath.equilibrium import Constants, constants_at
from rosy_kettle.core.models.feel import bath_feel
from rosy_kettle.core.models.gas.gas_release import gas_release
from rosy_kettle.core.models.lather import active_share, foam, tub_concentration
from rosy_kettle.core.models.release import release_minutes
from rosy_kettle.core.models.skin import harshness, scent_share
from rosy_kettle.core.records import Ingredient
from rosy_kettle.core.records.evaluation import Bath, Feel, Lather, Missing, OutOfRange, Release, Skin

__all__ = ["brisk_per_100_g", "read_bath", "read_feel", "read_lather", "read_release", "read_skin"]


def brisk_per_100_g(mix: Mix) -> float:
    """Return the brisk gas of 100 g.

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    float
        Gas [mol/100 g]
    """
    return 100 * gas_release(mix).brisk_co2_mol / mix.total_g


def read_bath(mix: Mix, setting: Setting, *, until_aired: bool = True) -> tuple[Bath, tuple[OutOfRange, ...]]:
    """Return the bath's pH, and what is outside the model.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Tub, tap and dose
    until_aired : bool
        False stops at step-in

    Returns
    -------
    tuple
        pH readings [-] and entries for ``out_of_range``
    """
    share = setting.assumed.dose_g / mix.total_g
    ph = _ph(setting, mix.palette.ingredients, (mix.mass_g * float(share)).tolist(), until_aired=until_aired)
    strength, p = ph.ionic_strength_mol_l, mix.parameters.bath
    bath = Bath(ph.fresh, ph.stepin, ph.soak, ph.aired, strength)
    if mix.sloped:
        bath = _with_slopes(bath, mix, setting, until_aired=until_aired)
    if strength > p.davies_ends_mol_l:
        limit = f"ionic strength {strength:.2f} mol/L is above {p.davies_ends_mol_l:g}"
        return Bath(ionic_strength_mol_l=strength), (OutOfRange("bath.ph_fresh", limit),)
    if strength > p.checked_strength_mol_l:
        limit = f"ionic strength {strength:.2f} mol/L is above {p.checked_strength_mol_l:g}: not checked"
        return bath, (OutOfRange("bath.ph_fresh", limit),)
    return bath, ()


def _ph(
    setting: Setting,
    ingredients: tuple[Ingredient, ...],
    dose_g: list[float],
    constants: Constants | None = None,
    *,
    until_aired: bool,
) -> BathPh:
    use, tables = setting.formula.use, setting.tables
    water = tables.waters[use.hardness]
    alkalinity = water.alkalinity_mg_l_caco3 if use.alkalinity_mg_l is None else use.alkalinity_mg_l
    tap_ph = water.ph if use.tap_ph is None else use.tap_ph
    dose = list(zip(ingredients, dose_g, strict=True))
    return bath_ph(
        dose,
        setting.assumed.tub_l,
        setting.assumed.bath_c,
        alkalinity,
        tap_ph,
        tables,
        constants,
        until_aired=until_aired,
        hardness_mg_l=water.hardness_mg_l_caco3,
    )


def _with_slopes(bath: Bath, mix: Mix, setting: Setting, *, until_aired: bool) -> Bath:
    """Give pH its slopes: differences by what reacts in the dose, then the chain rule through the share of the batch."""
    dose_g = (mix.mass_g * float(setting.assumed.dose_g / mix.total_g)).tolist()
    values = np.array([bath.ph_fresh, bath.ph_stepin, bath.ph_soak, bath.ph_aired], dtype=np.float64)
    rises = np.zeros((4, mix.mass_g.size))
    nudge = mix.parameters.bath.ph_nudge * setting.assumed.dose_g
    constants = constants_at(
        setting.assumed.bath_c, setting.tables.carbonate, dict(setting.tables.acid_systems), mix.parameters.bath
    )
    for index in np.flatnonzero(mix.palette.moves_ph):
        moved = dose_g.copy()
        moved[index] += nudge
        ph = _ph(setting, mix.palette.ingredients, moved, constants, until_aired=until_aired)
        rises[:, index] = (np.array([ph.fresh, ph.stepin, ph.soak, ph.aired]) - values) / nudge
    # A gram more of line i makes dose/M of it, and takes the same share from all that is there.
    per_dose = setting.assumed.dose_g / float(mix.total_g)
    spread = (rises @ mix.mass_g) / float(mix.total_g)
    slopes = per_dose * (rises - spread[:, None])
    found = [Sloped(value, row) for value, row in zip(values.tolist(), slopes, strict=True)]
    return replace(bath, ph_fresh=found[0], ph_stepin=found[1], ph_soak=found[2], ph_aired=found[3])


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


def read_release(mix: Mix, setting: Setting, missing: list[Missing]) -> Release:
    """Return how long a piece takes to go.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Piece, way and bath
    missing : list
        Takes why it will not go

    Returns
    -------
    Release
        Minutes [min]
    """
    assumed = setting.assumed
    minutes = release_minutes(mix, assumed.half_thickness_mm, assumed.way, assumed.bath_c, assumed.room_c, assumed.packing)
    if minutes is None:
        missing.append(Missing("release.minutes", None, None, f"does not go at {assumed.bath_c:g} °C; it needs a warmer bath"))
    return Release(minutes)


def read_feel(mix: Mix, setting: Setting) -> Feel:
    """Return what a dose leaves in water, on skin and tub.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Tub and dose

    Returns
    -------
    Feel
        Oil [g] and indices
    """
    felt = bath_feel(mix, setting.assumed.dose_g, setting.assumed.tub_l, setting.assumed.bath_c)
    return Feel(felt.oil_g, felt.free_oil_g, felt.ring, felt.slip, felt.tint, felt.cloud, felt.stain, felt.slip_load_g)


def read_skin(mix: Mix, setting: Setting, missing: list[Missing], *, active_known: bool) -> Skin:
    """Return harshness and scent, without the ledger.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Tub, dose and certificates
    missing : list
        Takes what cannot be said
    active_known : bool
        Whether every surfactant's active fraction is known

    Returns
    -------
    Skin
        Harshness [mg/L] and scent share [-]
    """
    hard = harshness(mix, setting.assumed.dose_g, setting.assumed.tub_l) if active_known else None
    dried = 1 - mix.parameters.skin.water_evaporates * mix.water_share - mix.alcohol_share
    try:
        return Skin(hard, scent_share(mix, setting.certificates, dried))
    except MissingDataError as error:
        missing.append(missing_of("skin.scent_share", error))
        return Skin(hard, None)
