"""Gas of the whole batch, and how much of the acid is spent while making."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.gas.gas_release import co2_volume_l, gas_release
from rosy_kettle.core.models.gas.prereaction import prereaction_share
from rosy_kettle.core.records.evaluation import Fizz
from rosy_kettle.core.records.reading import Reading

__all__ = ["READINGS", "read_fizz"]

READINGS = (
    Reading(
        "fizz.co2_l", "Fizz", "L", "exact", "batch", "Carbon dioxide by stoichiometry, as a gas at bath temperature and 1 atm.",
        page="gas", question="fizz", place=3, rests_on=("gas",), compute=lambda look: look.fizz.co2_l, curve="bath",
    ),
    Reading(
        "fizz.brisk_co2_l", "Brisk fizz", "L", "practice", "batch",
        "The same with every acid counted by its speed; slow acids such as cream of tartar hardly show.",
        page="gas", question="fizz", place=4, rests_on=("gas",), compute=lambda look: look.fizz.brisk_co2_l, curve="bath",
    ),
    Reading(
        "fizz.base_to_acid", "Base to acid", "g/g", "exact", "batch", "Bases against acids by mass, baking powder left out. "
        "Two to one is the trade's ratio; 1.31 to one uses up both with citric acid.",
        page="gas", question="fizz", place=5, rests_on=("gas",), compute=lambda look: look.fizz.base_to_acid, aim=True,
        scale=(0.0, 6.0), desk=1, curve="bath",
    ),
    Reading(
        "fizz.bicarbonate_left_g", "Bicarbonate left", "g", "exact", "batch", "What the acid leaves unspent.",
        page="gas", question="fizz", place=6, rests_on=("gas",), compute=lambda look: look.fizz.bicarbonate_left_g, curve="bath",
    ),
    Reading(
        "fizz.prereaction_share", "Acid spent in the bowl", "of it", "practice", "batch",
        "Share of the fast acid that free water lets react before the bath. Within a factor of 2.",
        page="gas", question="fizz", place=32, rests_on=("gas",), compute=lambda look: look.fizz.prereaction_share, curve="bath",
    ),
    Reading(
        "fizz.co2_piece_l", "Fizz of a piece", "L", "exact", "piece", "Gas of the batch, by the share of one piece.",
        page="gas", question="fizz", place=33, rests_on=("gas",), compute=lambda look: look.fizz.co2_piece_l, aim=True,
        scale=(0.0, 16.0), desk=0, curve="bath",
    ),
)  # fmt: skip
"""Declarations."""


def read_fizz(mix: Mix, setting: Setting) -> Fizz:
    """Return the gas readings of a batch.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Bath and piece

    Returns
    -------
    Fizz
        Gas by stoichiometry, and brisk gas by the acids' speed
    """
    gas = gas_release(mix)
    litres = co2_volume_l(gas.co2_mol, setting.assumed.bath_c, mix.parameters.gas)
    return Fizz(
        co2_mol=gas.co2_mol,
        co2_g=gas.co2_mol * mix.parameters.gas.carbon_dioxide_g_mol,
        co2_l=litres,
        co2_piece_l=litres * setting.assumed.piece_mass_g / mix.total_g,
        brisk_co2_l=co2_volume_l(gas.brisk_co2_mol, setting.assumed.bath_c, mix.parameters.gas),
        limiting=gas.limiting,
        base_to_acid=gas.base_to_acid,
        bicarbonate_left_g=gas.bicarbonate_left_g,
        brisk_mol_per_100_g=100 * gas.brisk_co2_mol / mix.total_g,
        prereaction_share=prereaction_share(mix, dried_first=setting.dried_first),
    )
