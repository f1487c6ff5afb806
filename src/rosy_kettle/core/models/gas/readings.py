"""Gas of the whole batch, and how much of the acid is spent while making."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.gas.gas_release import co2_volume_l, gas_release
from rosy_kettle.core.models.gas.prereaction import prereaction_share
from rosy_kettle.core.records.evaluation import Fizz

__all__ = ["read_fizz"]


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
