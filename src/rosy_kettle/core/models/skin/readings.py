"""What a bath asks of the skin, without the ledger. No safety claim is made."""

from __future__ import annotations

from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting, missing_of
from rosy_kettle.core.models.skin import harshness, scent_share
from rosy_kettle.core.models.skin.finished import dried_share
from rosy_kettle.core.records.evaluation import Missing, Skin
from rosy_kettle.core.records.reading import Reading, Watched

__all__ = ["READINGS", "read_skin"]

READINGS = (
    Reading(
        "skin.harshness_mg_l", "Harshness", "mg/L", "practice", "dose",
        "As much sodium lauryl sulfate as would bite alike; no safety claim. Within a factor of 1.6.",
        page="skin", question="kind", place=27, rests_on=("skin",), compute=lambda look: look.skin.harshness_mg_l, aim=True,
        watched=Watched(7, 10.0), scale=(0.0, 60.0), desk=1,
    ),
    Reading(
        "skin.scent_share", "Scent on skin", "of its limit", "exact", "dose",
        "Each scent against its own certificate, summed, on dried mass. Without a certificate it is not known.",
        page="skin", question="kind", place=28, rests_on=("skin",), compute=lambda look: look.skin.scent_share, aim=True,
        scale=(0.0, 2.0), desk=2, lane=(None, 1.0),
    ),
)  # fmt: skip
"""Declarations."""


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
    dried = dried_share(mix, setting)
    try:
        return Skin(hard, scent_share(mix, setting.certificates, dried))
    except MissingDataError as error:
        missing.append(missing_of("skin.scent_share", error))
        return Skin(hard, None)
