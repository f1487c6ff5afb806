"""The constants behind each reading, with the values that stand in the tables."""

from __future__ import annotations

from rosy_kettle.core.parameters import USUAL, Constant, Parameters, constants_in

__all__ = ["Constant", "constants_of"]

_RECORDS = {
    "mass_g": (), "dough": ("dough", "mixing"), "dough.mix_temperature_c": ("fats",), "dough.puff_pct": ("gas",),
    "fizz": ("gas",), "bath": ("bath",), "lather": ("lather",), "firmness": ("firmness", "mixing"),
    "release": ("release", "mixing"), "drying": ("drying", "dough", "mixing"), "shelf": ("shelf",), "feel": ("feel",),
    "skin": ("skin",), "piece": ("pieces",), "cost": ("mixing",),
}  # fmt: skip


def constants_of(reading: str, parameters: Parameters = USUAL) -> tuple[Constant, ...]:
    """Return the constants a reading rests on, besides the properties of its ingredients.

    Parameters
    ----------
    reading : str
        Dotted path of a reading
    parameters : Parameters
        What the models rest on

    Returns
    -------
    tuple
        Constants with unit, source and confidence
    """
    records = _RECORDS.get(reading, _RECORDS[reading.split(".", maxsplit=1)[0]])
    return tuple(constant for name in records for constant in constants_in(getattr(parameters, name)).values())
