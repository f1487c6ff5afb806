"""Why a piece does not dry: a sentence for each code, with its facts filled in."""

from __future__ import annotations

from collections.abc import Mapping

__all__ = ["NOT_DRYING", "not_drying_words"]

NOT_DRYING = {
    "nothing_holds": "there is neither powder nor fat to hold a piece",
    "air_too_damp": "the air is too damp: closed container, dehumidifier",
    "comes_apart": "water and glycerin come apart from the fat: leave them out, or add powder or an emulsifier",
    "sets_colder": "does not set in this room; below {below_c:.0f} °C it does",
    "sets_nowhere": "does not set in this room; no room is cold enough",
    "stays_batter": "stays a batter in this room",
    "stays_liquid": "stays liquid in this room",
    "stays_sticky": "stays sticky",
    "weeps": "a salt in it takes water from this air and weeps: leave it out, or keep it far drier and sealed",
    "sweats": "sweats in this air",
}
"""Sentence by code; facts stand in braces with the digits they are said with."""


def not_drying_words(code: str, facts: Mapping[str, float]) -> str:
    """Return why a piece does not dry.

    Parameters
    ----------
    code : str
        One of ``NOT_DRYING``
    facts : Mapping
        What the sentence names [units in the names]

    Returns
    -------
    str
        Part of a sentence, without a full stop
    """
    return NOT_DRYING[code].format(**facts)
