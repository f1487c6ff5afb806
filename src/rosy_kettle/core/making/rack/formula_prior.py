"""What a formula says of its drying before anything is weighed."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.making.rack.drying_curve import Prior, prior_of
from rosy_kettle.core.making.rack.weigh_ins import READY_SHARE
from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.mixing.setting import setting_of
from rosy_kettle.core.models.drying.readings import read_drying
from rosy_kettle.core.records import Formula, Tables

__all__ = ["prior_of_formula"]

DAMP = frozenset({"air_too_damp", "sweats", "weeps"})
"""Codes of pieces that take up what they should give off."""


def prior_of_formula(formula: Formula | None, tables: Tables) -> Prior:
    """Return the prior of a formula's pieces.

    Parameters
    ----------
    formula : Formula or None
        The formula as typed, in the air its pieces dry in
    tables : Tables
        Reference tables

    Returns
    -------
    Prior
        The model's hours and what leaves; a wide one where there is no formula, or nothing in it

    Raises
    ------
    InputError
        If a line cannot be meant
    """
    if formula is None:
        return Prior()
    weighed, _ = weigh_formula(formula, tables)
    mass_g = np.array([item.mass_g for item in weighed], dtype=np.float64)
    if mass_g.sum() <= 0:
        return Prior()
    palette = make_palette([item.ingredient for item in weighed], tables.parameters)
    setting = setting_of(formula, tables, float(mass_g.sum()))
    mix = setting.mix(palette, mass_g)
    leaving = mix.wet_share(dried_first=setting.dried_first) + mix.alcohol_share
    told = read_drying(mix, setting)
    return replace(prior_of(told.hours, float(leaving), READY_SHARE), damp=told.why_not in DAMP)
