"""Evaluation of a formula, stored or not."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, RootModel

from rosy_kettle.api.schemas.common import Described
from rosy_kettle.core.making.plan import RunSheet
from rosy_kettle.core.records.evaluation import Evaluation

__all__ = ["EvaluationAnswer", "RunSheetAnswer", "StageQuery"]


class StageQuery(Described, BaseModel):
    """How far the product is; rules of earlier stages run too."""

    stage: Literal["formula", "batch", "label", "sale"] = "formula"


class EvaluationAnswer(Described, RootModel[Evaluation]):
    """All readings."""


class RunSheetAnswer(Described, RootModel[RunSheet]):
    """What to weigh and what to do."""
