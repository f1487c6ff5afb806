"""From saturation to the word a maker would use: dust, damp sand, …, pour, or set."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.mixing.carried import fat_carries
from rosy_kettle.core.mixing.fill import DoughFill
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.records import WantedDough

__all__ = ["LOWER_EDGES", "STATES", "TextureCurve", "texture_curve", "wanted_states"]

STATES = ("set", "dust", "damp sand", "crumbly dough", "play dough", "sticky", "batter", "pour")
"""From cold and hard to hot and thin; a dough never goes backwards in this order on warming."""
LOWER_EDGES = {
    "dust": 0.0,
    "damp sand": 0.05,
    "crumbly dough": 0.30,
    "play dough": 0.62,
    "sticky": 1.02,
    "batter": 1.30,
    "pour": 2.2,
}
"""Saturation from which a state holds [-]; calibrated so that common doughs fall where makers put them."""

SET, BATTER, POUR = STATES.index("set"), STATES.index("batter"), STATES.index("pour")
FAT_SHARE_THAT_SETS = 0.10  # less fat than this never makes a dough set hard [-]; common practice
SOLID_SHARE_THAT_SETS = 0.60  # solid share of fat and oil above which a dough is hard, powder-carried [-]; calibrated
SOLID_SHARE_EASED_BY_FAT = 0.30  # how much sooner a fat-carried piece is hard [-]; calibrated
LEAN_SATURATION_THAT_KEEPS_SOFT = 0.40  # a dough this wet without its fat stays workable [-]; calibrated
SALVE_CARRIED_BY_FAT = 0.5  # a mass carried by its fat at least half is a salve, not a slurry [-]; calibrated
SALVE_SOLID_SHARE = 0.10  # fats are plastic from 10 % solids on; Bailey's Industrial Oil and Fat Products, from memory
ACID_SHARE_THAT_CRUMBLES = 0.02  # with more fast acid a crumbly scoop dough is right too [-]; common practice


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


def texture_curve(fill: DoughFill) -> TextureCurve:
    """Return the state of one dough at each temperature of its fill.

    Parameters
    ----------
    fill : DoughFill
        Fill of one formula (no leading axes), temperatures rising

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
    carried = fat_carries(float(fill.saturation_molten), float(fill.fat_volume_share), float(fill.fat_share))
    edges = np.array(list(LOWER_EDGES.values())[1:])
    by_saturation = np.searchsorted(edges, np.where(np.isnan(fill.saturation), np.inf, fill.saturation), side="right") + 1
    salve = (by_saturation == POUR) & (carried >= SALVE_CARRIED_BY_FAT) & (fill.firm_share >= SALVE_SOLID_SHARE)
    state = np.where(salve, BATTER, by_saturation)
    lean = float(fill.saturation_lean) if fill.demand_ml > 0 else 0.0
    fat_among_powder = float(fill.fat_share) > FAT_SHARE_THAT_SETS and (carried > 0 or lean < LEAN_SATURATION_THAT_KEEPS_SOFT)
    may_set = carried >= 1 or fat_among_powder
    hard = may_set & (fill.firm_share > SOLID_SHARE_THAT_SETS - SOLID_SHARE_EASED_BY_FAT * carried)
    state = np.where(hard, SET, state)
    return TextureCurve(fill.temperature_c, fill.saturation, np.maximum.accumulate(state))


def wanted_states(wanted: WantedDough, fast_acid_share: float) -> tuple[str, ...]:
    """Return the states a method is after.

    Parameters
    ----------
    wanted : WantedDough
        What the method says
    fast_acid_share : float
        Fast acid as a share of the mass [-]

    Returns
    -------
    tuple
        State names
    """
    if fast_acid_share > ACID_SHARE_THAT_CRUMBLES:
        return (*wanted.states, *wanted.states_with_acid)
    return wanted.states
