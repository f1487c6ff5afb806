"""What a series of tests says."""

from __future__ import annotations

__all__ = ["SET_ASIDE", "series_words", "unit_of"]

UNITS = {
    "mg_l": "mg/L", "g_ml": "g/mL", "cm": "cm", "mm": "mm", "min": "min", "h": "h", "g": "g", "l": "L", "ml": "mL", "c": "°C",
    "pct": "%",
}  # fmt: skip
"""Unit by how a reading's name ends."""

SET_ASIDE = {
    "no_value": 'it has no "{reading}"',
    "no_number": '"{reading}" is no number in it',
}
"""Why a test does not count, by code."""


def unit_of(reading: str) -> str:
    """Return the unit that a reading's name ends with.

    Parameters
    ----------
    reading : str
        Key of a test's figure, such as ``foam_height_cm``

    Returns
    -------
    str
        "" where it ends with none
    """
    return next((unit for end, unit in UNITS.items() if reading.endswith(f"_{end}")), "")


def series_words(
    *, answer: str, better: str, than: str, unit: str, worth: float | None, difference: float | None, low: float | None,
    high: float | None, more: int | None, left_out: str,
) -> str:  # fmt: skip
    """Return one sentence of what a series says.

    Parameters
    ----------
    answer : str
        yes, no or cannot tell yet
    better : str
        Variant that is claimed to be better
    than : str
        Variant it is held against
    unit : str
        Of the reading; "" where its name says none
    worth : float or None
        Smallest difference that would matter [the reading's unit]
    difference : float or None
        How much better it is in the mean [the reading's unit]
    low : float or None
        Low end of the interval [the reading's unit]
    high : float or None
        High end of the interval [the reading's unit]
    more : int or None
        Further tests of each that would settle it [-]
    left_out : str
        Which of the two has no test; "" where both have

    Returns
    -------
    str
        One sentence
    """
    if left_out:
        return f"Cannot tell yet: there is no test of {left_out}."
    if difference is None or low is None or high is None:
        return "Cannot tell yet: without repeats nobody knows how far two tests of the same lie apart; repeat each at least once."
    told = f" {unit}" if unit else ""
    way = "better" if difference >= 0 else "worse"
    seen = (
        f"{better} is {way} than {than} by {abs(difference):.2g}{told} "
        f"({low:+.2g} to {high:+.2g}{told} in nineteen cases of twenty)"
    )
    if answer == "yes":
        return f"Yes: {seen}."
    if answer == "no":
        why = f"less than the {worth:g}{told} that would matter" if worth else "the other way round"
        return f"No, {why}: {seen}."
    return f"Cannot tell yet: {seen}; {_more(more)}."


def _more(more: int | None) -> str:
    return "more tests are needed" if more is None else f"about {more} more of each would settle it"
