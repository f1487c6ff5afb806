"""Figures a maker has an eye on while a formula is changed, beside its readings; each carries slopes where the mix does."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from types import MappingProxyType

from rosy_kettle.core.readings.look import Look

__all__ = ["FIGURES", "LABELS", "WATER_ON_ACID", "figure_at"]

PERCENT = 100.0
WATER_ON_ACID = "sense.water_on_acid_pct"
"""Said only where there is fast acid and soda."""


def _water_on_acid_pct(look: Look) -> float | None:
    """Free water beside fast acid and soda, of the batch [%]: plain water, hydrosols, juices, liquid foamers, alcohol's share."""
    mix = look.mix
    if float(mix.fast_acid_share) <= 0 or not mix.fizzes:
        return None
    return PERCENT * mix.wet_share(dried_first=look.setting.dried_first)


def _alcohol_pct(look: Look) -> float:
    """Alcohol, of the batch [%]."""
    return PERCENT * look.mix.alcohol_share


def _soda_to_acid(look: Look) -> float | None:
    """Soda against acid by what they can do [g of sodium bicarbonate per g of anhydrous citric acid that would do the same].

    None without a fast acid: cream of tartar alone is there to harden.
    """
    mix = look.mix
    gas, palette = mix.parameters.gas, mix.palette
    acid_eq = mix.of(palette.acid_mol_g * palette.is_acid)
    if float(mix.fast_acid_share) <= 0 or float(acid_eq) <= 0 or look.fizz.base_to_acid is None:
        return None
    base_eq = mix.of(palette.base_mol_g * palette.is_plain_base)
    return base_eq * gas.sodium_bicarbonate_g_mol / (acid_eq * gas.citric_g_per_eq)


FIGURES: Mapping[str, Callable[[Look], float | None]] = MappingProxyType({
    WATER_ON_ACID: _water_on_acid_pct, "sense.alcohol_pct": _alcohol_pct, "sense.soda_to_acid": _soda_to_acid,
})  # fmt: skip
"""By the path they are looked at under; none of them is a reading, or can be wished for."""


LABELS: Mapping[str, str] = MappingProxyType({
    WATER_ON_ACID: "Water on the acid", "sense.alcohol_pct": "Alcohol", "sense.soda_to_acid": "Soda to acid",
})  # fmt: skip


def figure_at(path: str, look: Look) -> float | None:
    """Return a reading, or a figure of the maker's sense, by its path; None where it cannot be said.

    Parameters
    ----------
    path : str
        Dotted path
    look : Look
        The formula at some masses

    Returns
    -------
    float or None
        In its own unit; with slopes where the mix has them
    """
    own = FIGURES.get(path)
    return look.value(path) if own is None else own(look)
