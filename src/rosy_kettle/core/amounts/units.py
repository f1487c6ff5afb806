"""Units of an amount, and how many grams of an ingredient they hold.

Volumes go through the weight of a US cup of the ingredient, because a maker's cup is filled loosely and
no true density says what it holds.
"""

from __future__ import annotations

from rosy_kettle.core.errors import InputError, MissingDataError
from rosy_kettle.core.records import USUAL_SPRAY_ML, Ingredient

__all__ = ["SHARE_UNITS", "UNITS", "VOLUME_ML", "WEIGHT_G", "grams_from_entry", "relative_spread"]

US_CUP_ML = 236.5882365  # US customary cup [mL]; NIST Handbook 44, appendix C
ZERO_CELSIUS_K = 273.15  # [K]; by definition of the degree Celsius
OUNCE_G = 28.349523125  # avoirdupois ounce [g]; NIST Handbook 44, appendix C (exact)
POUND_G = 453.59237  # avoirdupois pound [g]; NIST Handbook 44, appendix C (exact)

WEIGHT_G = {"g": 1.0, "kg": 1000.0, "mg": 0.001, "oz": OUNCE_G, "lb": POUND_G}
"""Grams in one unit of weight [g]."""
VOLUME_ML = {
    "ml": 1.0, "l": 1000.0, "floz": US_CUP_ML / 8, "cup": US_CUP_ML, "tbsp": US_CUP_ML / 16, "tsp": US_CUP_ML / 48,
}  # fmt: skip
"""Millilitres in one unit of volume [mL]."""
SHARE_UNITS = ("part", "pct")
"""Units that share out the batch."""
UNITS = (*WEIGHT_G, *VOLUME_ML, "drop", "spray", *SHARE_UNITS)
"""Every unit a line may carry."""

DROP_ML_BY_ROLE = {"fragrance": 0.035, "oil": 0.0244}  # normal dropper [mL]; Tate's law from 20 drops of water = 1 g
DROP_ML_BY_ID = {"glycerin": 0.0343, "polysorbate-80": 0.027, "polysorbate-20": 0.027}  # as above [mL]
DROP_ML_OTHER = 0.05  # watery liquids: the pharmacopoeia's normal dropper, 20 drops of water = 1 g [mL]

SPREAD_LIGHT_SURFACTANT = 0.30  # of a scooped volume, common practice: one cup of surfactant powder weighs twice another
SPREAD_POWDER = 0.15  # of a scooped volume, common practice
SPREAD_LIQUID = 0.05  # of a poured volume, common practice
SPREAD_COUNTED = 0.30  # of counted drops and sprays, estimate: household droppers give 0.02 to 0.04 mL
LIGHTEST_ORDINARY_CUP_G = 130.0  # a surfactant powder below this weight per cup counts as light [g]


def drop_ml(ingredient: Ingredient) -> float:
    """Return the volume of one drop of a liquid.

    Parameters
    ----------
    ingredient : Ingredient
        A liquid, paste or oil

    Returns
    -------
    float
        Volume of one drop [mL]

    Raises
    ------
    InputError
        If the ingredient does not drip.
    """
    base = ingredient.reference_id
    if base in DROP_ML_BY_ID:
        return DROP_ML_BY_ID[base]
    if ingredient.role in DROP_ML_BY_ROLE:
        return DROP_ML_BY_ROLE[ingredient.role]
    if ingredient.form in {"liquid", "paste"}:
        return DROP_ML_OTHER
    raise InputError(
        f"drops and sprays are for liquids; weigh the {ingredient.short_name.lower()} in grams instead",
        quantity="unit",
        value="drop",
    )


def grams_from_entry(amount: float, unit: str, ingredient: Ingredient, spray_ml: float = USUAL_SPRAY_ML) -> float:
    """Return the mass of an amount in a unit of weight, volume or count.

    Parameters
    ----------
    amount : float
        The number as typed [unit]
    unit : str
        One of ``UNITS`` except the shares
    ingredient : Ingredient
        What is measured out
    spray_ml : float
        One stroke of the sprayer [mL]

    Returns
    -------
    float
        Mass [g]

    Raises
    ------
    InputError
        If the unit is unknown, or drops or sprays are asked of a powder.
    MissingDataError
        If a volume is asked of an ingredient without a cup weight.

    Notes
    -----
    grams = mL x (grams in a US cup) / 236.5882365, for every ingredient.
    """
    if unit in WEIGHT_G:
        return amount * WEIGHT_G[unit]
    if unit in VOLUME_ML:
        volume_ml = amount * VOLUME_ML[unit]
    elif unit == "drop":
        volume_ml = amount * drop_ml(ingredient)
    elif unit == "spray":
        drop_ml(ingredient)  # refuses what cannot be sprayed
        volume_ml = amount * spray_ml
    else:
        raise InputError(f'unit must be one of {", ".join(UNITS)}, got "{unit}"', quantity="unit", value=unit)
    if ingredient.us_cup_g is None:
        raise MissingDataError(
            f"{ingredient.short_name} has no weight per cup; weigh it, or enter the cup weight in the Pantry",
            ingredient=ingredient.id,
            property="us_cup_g",
        )
    return volume_ml * ingredient.us_cup_g / US_CUP_ML


def relative_spread(unit: str, ingredient: Ingredient) -> float:
    """Return how far the true mass of an entry may lie from the computed one.

    Parameters
    ----------
    unit : str
        The unit as typed
    ingredient : Ingredient
        What is measured out

    Returns
    -------
    float
        Half width of the band as a share of the mass [-]; 0 for what is weighed
    """
    if unit in WEIGHT_G or unit in SHARE_UNITS:
        return 0.0
    if unit in {"drop", "spray"}:
        return SPREAD_COUNTED
    if ingredient.form in {"liquid", "paste"} or ingredient.role == "oil":
        return SPREAD_LIQUID
    light = ingredient.us_cup_g is not None and ingredient.us_cup_g < LIGHTEST_ORDINARY_CUP_G
    return SPREAD_LIGHT_SURFACTANT if ingredient.role == "surfactant" and light else SPREAD_POWDER
