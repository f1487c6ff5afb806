"""Evaluation of a formula, stored or not."""

from __future__ import annotations

from pydantic import RootModel

from rosy_kettle.core.plan import RunSheet
from rosy_kettle.core.records.evaluation import Evaluation

__all__ = ["EvaluationAnswer", "RunSheetAnswer"]


class EvaluationAnswer(RootModel[Evaluation]):
    """All readings."""


class RunSheetAnswer(RootModel[RunSheet]):
    """What to weigh and what to do."""
