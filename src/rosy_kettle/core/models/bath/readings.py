"""What the bath's water is: pH fresh, at step-in, after twenty minutes and aired."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.mixing.sloped import Sloped
from rosy_kettle.core.models.bath.bath_water import BathPh, bath_ph
from rosy_kettle.core.models.bath.equilibrium import Constants, constants_at
from rosy_kettle.core.records import Ingredient
from rosy_kettle.core.records.evaluation import Bath, OutOfRange
from rosy_kettle.core.records.reading import Reading, Watched

__all__ = ["PH_WANTED", "READINGS", "read_bath"]

PH_WANTED = (5.5, 8.5)
"""pH of a bath outside which a word is due; project default around the skin's own 4.7 to 5.75, no safety claim."""
READINGS = (
    Reading(
        "bath.ph_fresh", "Bath pH, fresh", "", "physical", "dose",
        "Charge balance with activity and temperature, all gas still in the water. Band 0.1.",
        page="bath", question="kind", place=16, rests_on=("bath",), compute=lambda look: look.bath.ph_fresh, aim=True,
        scale=(3.0, 11.0), decimals=1, half_width=0.1, curve="bath",
    ),
    Reading(
        "bath.ph_stepin", "pH at step-in", "", "physical", "dose", "Half of the fast acids' gas has left as bubbles. "
        "The lane is a project default, no safety claim. Band 0.25.",
        page="bath", question="kind", place=17, rests_on=("bath",), compute=lambda look: look.bath.ph_stepin, aim=True,
        watched=Watched(8, 0.3), scale=(3.0, 11.0), decimals=1, half_width=0.25, desk=0, curve="bath", always=PH_WANTED,
    ),
    Reading(
        "bath.ph_soak", "Bath pH after 20 min", "", "physical", "dose", "Twenty minutes of losing gas to the air. Band 0.3.",
        page="bath", question="kind", place=18, rests_on=("bath",), compute=lambda look: look.bath.ph_soak, aim=True,
        scale=(3.0, 11.0), decimals=1, half_width=0.3, curve="bath", always=PH_WANTED,
    ),
    Reading(
        "bath.ph_aired", "Bath pH, aired", "", "physical", "dose", "Overnight, in balance with the air; nobody bathes in it.",
        page="bath", question="kind", place=19, rests_on=("bath",), compute=lambda look: look.bath.ph_aired, aim=True,
        scale=(3.0, 11.0), decimals=1, half_width=0.3, curve="bath",
    ),
)  # fmt: skip
"""Declarations."""


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
