"""Amounts: what was typed becomes grams, and says how sure it is."""

from rosy_kettle.core.amounts.entry import parse_amount
from rosy_kettle.core.amounts.resolve import Weighed, weigh_formula
from rosy_kettle.core.amounts.units import UNITS, grams_from_entry, relative_spread

__all__ = ["UNITS", "Weighed", "grams_from_entry", "parse_amount", "relative_spread", "weigh_formula"]
