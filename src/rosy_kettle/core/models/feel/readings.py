"""What one dose leaves in water, on skin and tub."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.feel import bath_feel
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.records.evaluation import Feel
from rosy_kettle.core.records.reading import Reading, Watched

__all__ = ["READINGS", "read_feel"]

READINGS = (
    Reading(
        "feel.oil_g", "Oil per bath", "g", "exact", "dose", "Liquid oil and molten fat in one dose.",
        page="feel", question="feel", place=24, rests_on=("feel",), compute=lambda look: look.feel and look.feel.oil_g, aim=True,
        scale=(0.0, 30.0), desk=0,
    ),
    Reading(
        "feel.free_oil_g", "Free oil", "g", "practice", "dose", "Oil that no emulsifier keeps in the water.",
        page="feel", question="feel", place=25, rests_on=("feel",), compute=lambda look: look.feel and look.feel.free_oil_g,
        aim=True, watched=Watched(6, 2.0),
    ),
    Reading(
        "feel.ring", "Ring", "of 100", "practice", "dose", "Free oil, solid fat, mica, clay and the like on the tub. "
        "Under 10 none, under 30 faint. Band 15.",
        page="feel", question="feel", place=26, rests_on=("feel",), compute=lambda look: look.feel and look.feel.ring, aim=True,
        watched=Watched(5, 15.0), scale=(0.0, 100.0), decimals=0, desk=1, always=(None, 30.0),
    ),
    Reading(
        "feel.tint", "Tint", "of 100", "practice", "dose",
        f"Light a bather loses over {USUAL.feel.sight_cm:g} cm of water to dyes. Band 15.",
        page="feel", question="feel", place=34, rests_on=("feel",), compute=lambda look: look.feel and look.feel.tint, aim=True,
        scale=(0.0, 100.0),
    ),
    Reading(
        "feel.cloud", "Cloud", "of 100", "practice", "dose", "The same to what scatters: milk, clay, starch. Band 25.",
        page="feel", question="feel", place=35, rests_on=("feel",), compute=lambda look: look.feel and look.feel.cloud, aim=True,
        scale=(0.0, 100.0),
    ),
    Reading(
        "feel.stain", "Stain", "of the warning line", "practice", "dose", "Each colour against the line where it stains, summed.",
        page="feel", question="feel", place=36, rests_on=("feel",), compute=lambda look: look.feel and look.feel.stain,
    ),
)  # fmt: skip
"""Declarations."""


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
    return Feel(
        felt.oil_g, felt.free_oil_g, felt.ring, felt.slip, felt.richness, felt.tint, felt.cloud, felt.stain, felt.slip_load_g
    )
