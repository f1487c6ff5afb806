"""Amounts that go with something else's amount: "2 tsp per 500 g", "10 Tropfen je 100 g"; how much that is, is asked."""

from __future__ import annotations

import re

from rosy_kettle.reader.amounts import find_amounts

__all__ = ["MARK", "with_rates_marked"]

MARK = "\ue000"
"""Stands in a line where a rate stood; it is no letter, so that no name holds it."""

OF_WHAT = (
    r"(?:g|grams?|gramm|grammes?|gramos?|grammi|gramas?|kg|kilos?|ml|l|lit(?:re|er|ro)s?|oz|ounces?|lbs?|pounds?|cups?|tbsp|tsp|"
    r"tablespoons?|teaspoons?|tassen?|tasses?|pieces?|pcs|(?:bath )?(?:bars?|bombs?|balls?|scoops?|truffles?|melts?)|moulds?|"
    r"molds?|batch|bath|stück|pièces?)\b\.?"
)
RATE = re.compile(
    r"(?:\b(?:per|pro|por|par|pour|ogni|op|na|je|auf|for (?:every|each)|to (?:every|each)|in (?:every|each)|pour chaque) ?"
    rf"(?:(?:\d[\d.,/ ]*|an?|one|each|every) ?)?|(?<=[a-z)]) ?/ ?){OF_WHAT}"
    r"(?: (?:of|de|di|von|d['’]) ?\w+| (?:butters?|oils?|fats?|base|dough|powders?|mix)\b)?",
    re.IGNORECASE,
)


def with_rates_marked(line: str) -> tuple[str, str]:
    """Return a line with a mark where it says per how much of something else, and what it said there ("" where it says nothing).

    Parameters
    ----------
    line : str
        A tidied line

    Returns
    -------
    tuple
        Line and rate; a rate counts only behind an amount
    """
    for found in RATE.finditer(line):
        if any(not amount.is_aside and amount.end <= found.start() + 1 for amount in find_amounts(line[: found.start()])):
            return f"{line[: found.start()]} {MARK} {line[found.end() :]}".strip(), found[0].strip()
    return line, ""
