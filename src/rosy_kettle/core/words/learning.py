"""What learning says of a factor, and of an observation it cannot use."""

from __future__ import annotations

__all__ = ["SET_ASIDE", "factor_words"]

SET_ASIDE = {
    "not_weighed": "its formula cannot be weighed: {why}",
    "no_dough": "of its formula no dough is known",
    "never_dries": "by the model it never dries in that room",
    "no_foam": "its formula gives no foam",
    "no_firmness": "of its formula no firmness is known",
    "no_mass": "of that tool and formula no piece is known: {why}",
    "no_state": '"{state}" is no state of a dough',
    "edge_state": '"{state}" has no other side: it says only that the dough was at least so dry or wet',
    "no_wetter": "the wetter is no line of its formula",
    "more_than_bowl": "the pieces weigh more than the bowl",
    "too_early": "at {minutes:g} min there is no foam yet",
}
"""Why an observation is set aside, by code."""
SAID = {
    "demand": "Your {name} drink {yours:.2f} times what the table says",
    "demand_one": "Your {name} drinks {yours:.2f} times what the table says",
    "drying": "Your pieces take {yours:.2f} times the model's hours",
    "foam": "Your foam stands {yours:.2f} times as high",
    "foam_half_life": "Your foam lives {yours:.2f} times as long",
    "firmness": "Your pieces are {yours:+.1f} points off in firmness",
    "packing": "Your {name} packs {yours:.2f} times as much",
    "loss": "Your loss with {name} is {yours:.1f} %",
}


def factor_words(kind: str, name: str, yours: float, low: float, high: float, n: int, *, sure: bool, beyond: bool = False) -> str:
    """Return one sentence of a learnt factor.

    Parameters
    ----------
    kind : str
        What is learnt
    name : str
        Of which role, tool or method
    yours : float
        The factor [×, points or %]
    low : float
        Low end, 90 % [×, points or %]
    high : float
        High end, 90 % [×, points or %]
    n : int
        Observations it rests on [-]
    sure : bool
        Whether the default lies outside the interval
    beyond : bool
        Whether it is further off than anything that is learnt

    Returns
    -------
    str
        One sentence
    """
    told = SAID[kind].format(name=name, yours=yours)
    doubt = "" if sure else "; the default is still possible"
    doubt = "; that is beyond what is learnt: look at your scale or your recipe" if beyond else doubt
    return f"{told} ({low:.2f} to {high:.2f}), from {n} observation{'s' if n != 1 else ''}{doubt}."
