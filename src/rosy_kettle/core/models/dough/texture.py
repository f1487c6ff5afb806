"""From saturation to the word a maker would use: dust, damp sand, …, pour, or set."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.mixing.carried import fat_carries
from rosy_kettle.core.mixing.fill import DoughFill
from rosy_kettle.core.mixing.mix import Mix, once_per_mix
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.parameters import USUAL, Parameters
from rosy_kettle.core.parameters.dough import DoughParameters
from rosy_kettle.core.records import WantedDough

__all__ = ["STATES", "TextureCurve", "texture_curve", "texture_of", "wanted_from", "wanted_states"]

STATES = ("set", "dust", "damp sand", "crumbly dough", "play dough", "sticky", "batter", "pour")
"""From cold and hard to hot and thin; a dough never goes backwards in this order on warming."""

SET, BATTER, POUR = STATES.index("set"), STATES.index("batter"), STATES.index("pour")


@dataclass(frozen=True, slots=True, eq=False)
class TextureCurve:
    """State and saturation over temperature, coldest first."""

    temperature_c: FloatArray
    saturation: FloatArray
    """NaN where no powder drinks [-]"""
    state_index: np.typing.NDArray[np.intp]
    """Index into ``STATES``"""

    def state(self, index: int) -> str:
        """Return the state at one of the temperatures."""
        return STATES[int(self.state_index[index])]


def texture_curve(fill: DoughFill, p: Parameters = USUAL) -> TextureCurve:
    """Return the state of one dough at each temperature of its fill.

    Parameters
    ----------
    fill : DoughFill
        Fill of one formula (no leading axes), temperatures rising
    p : Parameters
        Edges of the states

    Returns
    -------
    TextureCurve
        Saturation and state

    Notes
    -----
    Set overrides where fat passes 10 % of the mass, the solid share of fat and oil passes 0.60 - 0.30 c, and
    the fat carries or the other liquids alone leave S under 0.40; a mass that fat carries
    wholly sets by its solid share alone. From S 2.2 on a fat-carried mass with at
    least 10 % solids is a batter (a salve), not a pour.
    """
    carried = fat_carries(float(fill.saturation_molten), float(fill.fat_volume_share), float(fill.fat_share), p.mixing)
    edges = np.array(list(p.dough.lower_edges.values())[1:])
    by_saturation = np.searchsorted(edges, np.where(np.isnan(fill.saturation), np.inf, fill.saturation), side="right") + 1
    salve = (by_saturation == POUR) & (carried >= p.dough.salve_carried_by_fat) & (fill.firm_share >= p.dough.salve_solid_share)
    state = np.where(salve, BATTER, by_saturation)
    lean = float(fill.saturation_lean) if fill.demand_ml > 0 else 0.0
    fat_among_powder = float(fill.fat_share) > p.dough.fat_share_that_sets and (
        carried > 0 or lean < p.dough.lean_saturation_that_keeps_soft
    )
    may_set = carried >= 1 or fat_among_powder
    hard = may_set & (fill.firm_share > p.dough.solid_share_that_sets - p.dough.solid_share_eased_by_fat * carried)
    state = np.where(hard, SET, state)
    return TextureCurve(fill.temperature_c, fill.saturation, np.maximum.accumulate(state))


@once_per_mix
def texture_of(mix: Mix) -> TextureCurve:
    """Return the texture of a mix over all temperatures its fat is looked up at.

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    TextureCurve
        Coldest first
    """
    return texture_curve(mix.fill, mix.parameters)


def wanted_states(wanted: WantedDough, fast_acid_share: float, p: DoughParameters = USUAL.dough) -> tuple[str, ...]:
    """Return the states a method is after.

    Parameters
    ----------
    wanted : WantedDough
        What the method says
    fast_acid_share : float
        Fast acid as a share of the mass [-]
    p : DoughParameters
        From how much acid crumbs are right too

    Returns
    -------
    tuple
        State names
    """
    if fast_acid_share > p.acid_share_that_crumbles:
        return (*wanted.states, *wanted.states_with_acid)
    return wanted.states


def wanted_from(wanted: WantedDough, states: Sequence[str], p: DoughParameters = USUAL.dough) -> float | None:
    """Return from which S a wanted state holds [-].

    Parameters
    ----------
    wanted : WantedDough
        What the method says
    states : sequence of str
        The states that are right for the formula, as ``wanted_states`` tells them
    p : DoughParameters
        Where each state begins

    Returns
    -------
    float or None
        The low end of the method's band, or where a drier state begins that is right too; None where the method has no band
    """
    if wanted.saturation_low is None:
        return None
    return min([wanted.saturation_low, *(p.lower_edges[state] for state in states if state not in wanted.states)])
