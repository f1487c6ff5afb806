"""The constants behind each reading, with the values that stand in the tables."""

from __future__ import annotations

from rosy_kettle.core.parameters import USUAL, Constant, Parameters, constants_in
from rosy_kettle.core.readings.registry import declared

__all__ = ["Constant", "constants_of"]


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
    found = declared().get(reading)
    group = reading.split(".", maxsplit=1)[0]
    kin = next((each.rests_on for path, each in declared().items() if path.split(".")[0] == group), ())
    records = kin if found is None else found.rests_on
    return tuple(constant for name in records for constant in constants_in(getattr(parameters, name)).values())
