"""Kinds of figures and words that events of the bench tell, with their limits."""

from __future__ import annotations

from typing import Annotated

from rosy_kettle.core.making.happening import Between, Length

__all__ = ["Celsius", "Grams", "Key", "Percent", "Some", "Text"]

MOST_G = 100_000.0
Grams = Annotated[float, Between(0, MOST_G)]
"""A mass that may be nothing [g]."""
Some = Annotated[float, Between(0, MOST_G, above=True)]
"""A mass above nothing [g]."""
Celsius = Annotated[float, Between(-40, 200)]
Percent = Annotated[float, Between(0, 100)]
Key = Annotated[str, Length(0, 40)]
"""Key of a step."""
Text = Annotated[str, Length(1, 2000)]
