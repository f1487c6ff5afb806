"""What advice says: a sentence for each code, with its facts filled in."""

from __future__ import annotations

from collections.abc import Mapping

__all__ = ["ADVICE", "advice_words"]

ADVICE = {
    "foam_over_rim": "So much foam goes over the rim of this tub; a smaller dose does.",
    "may_float": "It may float or sink; the gas that clings to it decides.",
    "acid_spent": "About {spent_pct:.0f} % of the acid is spent in the bowl (within a factor of 2). "
                  "Fine where puff is wanted; else less water.",
    "acid_spent_pressed": "About {spent_pct:.0f} % of the acid is spent in the bowl (within a factor of 2). "
                          "Less water, or alcohol in its place, keeps the fizz.",
    "fats_soften_each_other": "Cocoa-like and lauric fats set softer together than their mean. Make a test piece first.",
    "fat_flecks": "{solid_pct:.0f} % of the fat is still solid at {bath_c:g} °C: waxy flecks on the water.",
    "lifts_kneaded": "It lifts while resting: stir until it stays down.",
    "lifts_filled": "It lifts while resting: stir, and fill moulds three quarters.",
    "lifts_little_kneaded": "It lifts a little while resting; scoops come out rounder.",
    "lifts_little_filled": "It lifts a little while resting; a pressed or poured piece swells and may crack.",
    "rest_first": "Fresh from the mixer S is about {saturation:.2f}; let it drink in for 5 to 10 minutes before judging.",
    "wet_salt": "Most of the powder is coarse crystals: it reads as wet salt.",
    "damp_by_water": "Wetted by water, damp sand holds best at S {low:g} to {high:g} and at most {water_pct:g} % free water.",
    "damp_by_alcohol": "Wetted by alcohol, damp sand holds best at S {low:g} to {high:g}.",
    "damp_by_oil": "Wetted by oil alone (a weak bond), damp sand holds best at S {low:g} to {high:g}.",
}  # fmt: skip
"""Sentence by code; facts stand in braces with the digits they are said with."""


def advice_words(code: str, facts: Mapping[str, float]) -> str:
    """Return the sentence of an advice.

    Parameters
    ----------
    code : str
        One of ``ADVICE``
    facts : Mapping
        What the sentence names [units in the names]

    Returns
    -------
    str
        One or two sentences
    """
    return ADVICE[code].format(**facts)
