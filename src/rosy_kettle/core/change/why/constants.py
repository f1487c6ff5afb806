"""The constants behind each reading, taken from the models themselves, with their sources."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.mixing.batch_loss import REFERENCE_BATCH_KG
from rosy_kettle.core.mixing.solid_fat import WAX_SOLUBILITY_AT_10_C
from rosy_kettle.core.models.bath.bath_water import GAS_LEAVING_AS_BUBBLES, TRANSFER_M_PER_H
from rosy_kettle.core.models.bath.equilibrium import AIR_CO2_ATM, PAIR_NA_HCO3
from rosy_kettle.core.models.dough.behaviour import REST_EFFECT
from rosy_kettle.core.models.dough.texture import LOWER_EDGES
from rosy_kettle.core.models.dough.working_window import LEAST_SOLID_SHARE
from rosy_kettle.core.models.drying.drying_time import STICKY_SATURATION, WATER_ACTIVITY, WATER_DRAWN
from rosy_kettle.core.models.drying.shelf import DAMP_SCALE_PCT, LOSS_AT_50_PCT
from rosy_kettle.core.models.fats.eutectic import LOSS_PER_PRODUCT
from rosy_kettle.core.models.fats.mix_temperature import LATENT_J_G
from rosy_kettle.core.models.feel.bath_feel import ACTIVE_CAPACITY, HLB_WIDTH, RING_SCALE_G
from rosy_kettle.core.models.firmness.piece_firmness import BASE, FAT_RISE, HUMECTANT, LIQUID_OIL, SOLID_FAT
from rosy_kettle.core.models.gas.gas_release import GAS_CONSTANT_L_ATM, SODIUM_BICARBONATE_G_MOL
from rosy_kettle.core.models.gas.prereaction import HIGHEST_LIFT_PCT, STIRRED_DOWN
from rosy_kettle.core.models.lather.foam import HALF_LIFE_MIN, LITRES_PER_GRAM, OIL_HALF, SCORE_SCALE_L, SYNERGY
from rosy_kettle.core.models.pieces.density import DOUGH_PACKING, PACKINGS
from rosy_kettle.core.models.pieces.floating import FLOATS_BELOW
from rosy_kettle.core.models.release.release_time import FIZZ_RATE, HEAT_TRANSFER, SOLID_THAT_LETS_GO
from rosy_kettle.core.models.skin.harshness import MILDED_BY_MIXING

__all__ = ["Constant", "constants_of"]

PRACTICE = "fitted to common practice, no published source"
ESTIMATE = "estimate, no published source"
MEMORY = "Bailey's Industrial Oil and Fat Products, from memory"
IUPAC = "IUPAC standard atomic weights"


@dataclass(frozen=True, slots=True)
class Constant:
    """A figure a reading rests on."""

    name: str
    value: float
    unit: str
    source: str
    confidence: str


_FATS = (
    Constant("heat of melting of a butter", LATENT_J_G, "J/g", MEMORY, "medium"),
    Constant("wax that oil dissolves at 10 °C", WAX_SOLUBILITY_AT_10_C, "g/g", "ideal solubility of cetyl "
             "alcohol", "medium"),
    Constant("solid fat lost by cocoa-like and lauric fats together", LOSS_PER_PRODUCT, "-", ESTIMATE, "low"),
)  # fmt: skip
_CONSTANTS: dict[str, tuple[Constant, ...]] = {
    "mass_g": (),
    "dough": (
        Constant("play dough from S", LOWER_EDGES["play dough"], "-", PRACTICE, "medium"),
        Constant("sticky from S", LOWER_EDGES["sticky"], "-", PRACTICE, "medium"),
        Constant("least solid fat a kneaded dough needs", LEAST_SOLID_SHARE, "-", PRACTICE, "medium"),
        Constant("fresh dough with liquid surfactant is wetter by", REST_EFFECT, "×", PRACTICE, "low"),
        *_FATS,
    ),
    "dough.puff_pct": (
        Constant("highest lift", HIGHEST_LIFT_PCT, "%", PRACTICE, "low"),
        Constant("left once stirred down", STIRRED_DOWN, "-", PRACTICE, "low"),
    ),
    "fizz": (
        Constant("molar mass of sodium bicarbonate", SODIUM_BICARBONATE_G_MOL, "g/mol", IUPAC, "high"),
        Constant("molar gas constant", GAS_CONSTANT_L_ATM, "L atm/(mol K)", "CODATA 2018", "high"),
    ),
    "bath": (
        Constant("carbon dioxide in room air", AIR_CO2_ATM, "atm", "global mean of recent years", "high"),
        Constant("gas of fast acids gone by step-in", GAS_LEAVING_AS_BUBBLES, "-", "estimate, 0.3 to 0.8", "low"),
        Constant("gas transfer of a still bath", TRANSFER_M_PER_H, "m/h", "estimate, 0.02 to 0.25", "low"),
        Constant("log K of NaHCO3(aq) at 25 °C", PAIR_NA_HCO3[0], "-", "minteq.v4 database", "high"),
    ),
    "lather": (
        Constant("foam of a gram of sodium lauryl sulfate", LITRES_PER_GRAM, "L/g", PRACTICE, "medium"),
        Constant("most that amphoteric and anionic lift each other", SYNERGY, "-", PRACTICE, "low"),
        Constant("oil per active that halves the foam", OIL_HALF, "g/g", PRACTICE, "low"),
        Constant("foam that scores 63 in 150 L", SCORE_SCALE_L, "L", PRACTICE, "medium"),
        Constant("foam half gone, creamy and without oil, at 38 °C", HALF_LIFE_MIN, "min", PRACTICE, "low"),
    ),
    "firmness": (
        Constant("base of the hardness sum", BASE, "-", PRACTICE, "medium"),
        Constant("weight of solid fat", SOLID_FAT, "-", PRACTICE, "medium"),
        Constant("weight of humectants", HUMECTANT, "-", PRACTICE, "medium"),
        Constant("weight of liquid oil", LIQUID_OIL, "-", PRACTICE, "medium"),
        Constant("rise of hardness with the cube of solid fat", FAT_RISE, "-",
                 "after Narine and Marangoni, from memory", "medium"),
        *_FATS[1:],
    ),
    "release": (
        Constant("heat from water to melting fat", HEAT_TRANSFER, "W/(m2 K)", ESTIMATE, "low"),
        Constant("fizz rate of a plain 2 : 1 mix", FIZZ_RATE, "mm/min", PRACTICE, "medium"),
        Constant("solid share at which a fat falls apart", SOLID_THAT_LETS_GO, "-", PRACTICE, "low"),
    ),
    "drying": (
        Constant("water activity of a drying dough", WATER_ACTIVITY, "-", PRACTICE, "medium"),
        Constant("water a gram of glycerin holds in even air", WATER_DRAWN, "g/g", "sorption of glycerin, from memory",
                 "medium"),
        Constant("sticky for good from S", STICKY_SATURATION, "-", PRACTICE, "medium"),
    ),
    "shelf": (
        Constant("acid lost a day, naked, 16 mm, 50 % and 21 °C", LOSS_AT_50_PCT, "%/day", PRACTICE, "low"),
        Constant("damp that multiplies the loss by e", DAMP_SCALE_PCT, "% RH", PRACTICE, "low"),
    ),
    "feel": (
        Constant("oil a gram of active keeps dispersed", ACTIVE_CAPACITY, "g/g", ESTIMATE, "low"),
        Constant("width of the HLB fit", HLB_WIDTH, "-", "after Griffin 1949; the width is an estimate", "low"),
        Constant("load that scores 63 in 150 L", RING_SCALE_G, "g", PRACTICE, "low"),
    ),
    "skin": (
        Constant("most that mixed classes take off", MILDED_BY_MIXING, "-", "after published mixed-micelle studies, "
                 "estimate", "low"),
    ),
    "piece": (
        Constant("share of a dough piece that is not air", DOUGH_PACKING, "-", PRACTICE, "medium"),
        Constant("hand-packed damp sand that is not air", PACKINGS["hand"], "-", "a 2 in ball holds 78 to 80 g, common "
                 "practice", "medium"),
        Constant("floats below", FLOATS_BELOW, "g/mL", PRACTICE, "medium"),
    ),
    "cost": (
        Constant("batch whose loss the method states", REFERENCE_BATCH_KG, "kg", PRACTICE, "medium"),
    ),
}  # fmt: skip


def constants_of(reading: str) -> tuple[Constant, ...]:
    """Return the constants a reading rests on, besides the properties of its ingredients.

    Parameters
    ----------
    reading : str
        Dotted path of a reading

    Returns
    -------
    tuple
        Constants with unit, source and confidence
    """
    return _CONSTANTS.get(reading, _CONSTANTS[reading.split(".", maxsplit=1)[0]])
