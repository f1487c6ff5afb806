"""How a constant of a model is declared: its value with name, unit, source, confidence and the range it may lie in."""

from __future__ import annotations

from dataclasses import dataclass, field, fields
from typing import Any

__all__ = ["ESTIMATE", "IUPAC", "PRACTICE", "Constant", "constants_in", "parameter"]

PRACTICE = "fitted to common practice, no published source"
ESTIMATE = "estimate, no published source"
IUPAC = "IUPAC standard atomic weights"
_ABOUT = "about"


@dataclass(frozen=True, slots=True)
class Constant:
    """A figure a reading rests on."""

    name: str
    value: float
    unit: str
    source: str
    confidence: str
    low: float | None = None
    high: float | None = None
    """Ends of the range the value may lie in; None where it is fixed."""


def parameter(
    value: float, name: str, unit: str, source: str = PRACTICE, confidence: str = "medium",
    span: tuple[float, float] | None = None,
) -> Any:  # fmt: skip
    """Return the field of a parameter record.

    Parameters
    ----------
    value : float
        Where the constant stands until a studio has learnt better [its own unit]
    name : str
        What it is, in the trade's words
    unit : str
        Its unit; "-" for a share or a factor
    source : str
        Where it comes from
    confidence : str
        high, medium or low
    span : tuple or None
        Range it may lie in [its own unit]

    Returns
    -------
    dataclasses.Field
        With its description in the metadata
    """
    low, high = span or (None, None)
    about = {"name": name, "unit": unit, "source": source, "confidence": confidence, "low": low, "high": high}
    return field(default=value, metadata={_ABOUT: about})


def constants_in(record: Any) -> dict[str, Constant]:
    """Return the constants of a parameter record by field name, with the values it holds.

    Parameters
    ----------
    record : Any
        A parameter record

    Returns
    -------
    dict
        In the order of declaration
    """
    return {item.name: Constant(value=getattr(record, item.name), **item.metadata[_ABOUT]) for item in fields(record)}
