"""What an evaluation says about the lines as they stand: a sentence for each code, with its facts filled in."""

from __future__ import annotations

__all__ = ["NOTES", "note_words"]

NOTES = {
    "name_twice": "{name} stands on {count} lines; all of them count.",
    "no_amount": "{name} has no amount yet; it counts as nothing.",
    "pct_sum": "The per cent lines add up to {total_pct:g} %, not 100; each counts as its share of the batch.",
}
"""Sentence by code; facts stand in braces with the digits they are said with."""


def note_words(code: str, **facts: str | float) -> str:
    """Return the sentence of a note.

    Parameters
    ----------
    code : str
        One of ``NOTES``
    facts : str or float
        What the sentence names [units in the names]

    Returns
    -------
    str
        One sentence
    """
    return NOTES[code].format(**facts)
