"""What is learnt from the studio's own work."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from rosy_kettle.api.schemas.common import Request, Response
from rosy_kettle.core.learning.factors import LearntError, SetAside

__all__ = ["FactorAnswer", "FactorPath", "FactorSave", "LearningAnswer"]


class FactorPath(BaseModel):
    """Which factor."""

    factor: Annotated[str, Field(min_length=1, max_length=80, pattern=r"^[a-z0-9_.-]+$")]


class FactorSave(Request):
    """Whether it is used from now on."""

    accepted: bool


class FactorAnswer(Response):
    """One default, what the studio's own work makes of it, and what is used."""

    id: str
    default: float
    yours: float
    low: float
    high: float
    n: int
    unit: str
    accepted_by_default: bool
    message: str
    default_low: float
    default_high: float
    used: float | None
    """The figure in use; null while the default is."""


class LearningAnswer(Response):
    """All factors, what they mend, and what could not be used."""

    factors: list[FactorAnswer]
    errors: list[LearntError]
    set_aside: list[SetAside]
    batches: int
    trays: int
    tests: int
    ropes: int
    shaped: int
    """Batches whose pieces were weighed."""
    drops: int
    waiting: int
    """Batches, trays, baths and measurements that have still to be read."""
    reading: bool
    """Whether they are being read now."""
