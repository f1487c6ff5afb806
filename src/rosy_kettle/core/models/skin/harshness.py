"""Harshness of the surfactants in the tub, and scent against its certificates. No safety claim is made."""

from __future__ import annotations

from collections.abc import Mapping

from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.records import Certificate

__all__ = ["harshness", "scent_share"]


def harshness(mix: Mix, dose_g: float, tub_l: float) -> float:
    """Return the harshness of a bath in mg/L of sodium lauryl sulfate that would bite as much.

    .. math:: H = \\sum c_i\\, irritation_i/100\\,(1 - milded\\min(1, am/an, an/am))

    milded: ``milded_by_mixing``; am, an: amphoteric and anionic actives.

    Parameters
    ----------
    mix : Mix
        The formula
    dose_g : float
        Used in one bath [g]
    tub_l : float
        Water [L]

    Returns
    -------
    float
        Harshness [mg/L]

    References
    ----------
    .. [1] Irritation: zein tables, from memory; what mixing takes off: after mixed-micelle studies, estimate.
    """
    per_mass = 1000 * dose_g / mix.total_g / tub_l
    palette = mix.palette
    anionic = mix.of(palette.foaming * palette.is_anionic) * per_mass
    mild = mix.of(palette.foaming * ~palette.is_anionic) * per_mass
    weighted = mix.of(palette.foaming * palette.irritation_rel) * per_mass / 100
    eased = min(1.0, mild / anionic, anionic / mild) if anionic > 0 and mild > 0 else 0.0
    return weighted * (1 - mix.parameters.skin.milded_by_mixing * eased)


def scent_share(mix: Mix, certificates: Mapping[str, Certificate], dried_share: float) -> float:
    """Return the scents' shares of their own certificate limits, summed, on dried mass.

    Parameters
    ----------
    mix : Mix
        The formula
    certificates : Mapping
        Certificate by ingredient id, each with ``limit_pct`` [%]
    dried_share : float
        Mass left after drying [-]

    Returns
    -------
    float
        Sum of share over limit [-]; 1 is the limit, 0 without scent

    Raises
    ------
    MissingDataError
        If a scent has no certificate with a limit: unknown is never safe.
    """
    total = 0.0
    for item, mass_g in mix.items():
        if item.role != "fragrance" or mass_g <= 0:
            continue
        certificate = certificates.get(item.id)
        limit = None if certificate is None else certificate.limit_pct
        if limit is None or limit <= 0:
            raise MissingDataError(
                f"{item.short_name} has no certificate with a limit for this kind of product; ask its supplier",
                ingredient=item.id,
                property="limit_pct",
            )
        total += 100 * mass_g / (mix.total_g * dried_share) / limit
    return total
