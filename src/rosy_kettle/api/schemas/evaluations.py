"""Evaluation of a formula, stored or not."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from pydantic import BaseModel, RootModel

from rosy_kettle.api.schemas.common import Described
from rosy_kettle.core.making.plan import RunSheet
from rosy_kettle.core.records.evaluation import Evaluation

__all__ = ["EvaluationAnswer", "EvaluationTold", "RunSheetAnswer", "StageQuery"]


@dataclass(frozen=True, slots=True)
class EvaluationTold(Evaluation):
    """The readings, and the paths of keys that were left aside."""

    not_understood: tuple[str, ...] = ()


class StageQuery(Described, BaseModel):
    """How far the product is; rules of earlier stages run too."""

    stage: Literal["formula", "batch", "label", "sale"] = "formula"


class EvaluationAnswer(Described, RootModel[EvaluationTold]):
    """All readings, and what was not understood of the formula."""


class RunSheetAnswer(Described, RootModel[RunSheet]):
    """What to weigh and what to do."""
