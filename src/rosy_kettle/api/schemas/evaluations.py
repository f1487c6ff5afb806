"""Evaluation of a formula, stored or not."""

from __future__ import annotations

from typing import Any, ClassVar, Literal

from pydantic import BaseModel, RootModel

from rosy_kettle.core.plan import RunSheet
from rosy_kettle.core.records.evaluation import Evaluation

__all__ = ["EvaluationAnswer", "RunSheetAnswer", "StageQuery"]


class Query(BaseModel):
    """A query whose description is made once: the web package asks for it at every request."""

    _descriptions: ClassVar[dict[type[BaseModel], dict[str, Any]]] = {}

    @classmethod
    def model_json_schema(cls, *arguments: Any, **options: Any) -> dict[str, Any]:
        """Return pydantic's description of this query."""
        if arguments or options:
            return super().model_json_schema(*arguments, **options)
        if cls not in cls._descriptions:
            cls._descriptions[cls] = super().model_json_schema()
        return cls._descriptions[cls]


class StageQuery(Query):
    """How far the product is; rules of earlier stages run too."""

    stage: Literal["formula", "batch", "label", "sale"] = "formula"


class EvaluationAnswer(RootModel[Evaluation]):
    """All readings."""


class RunSheetAnswer(RootModel[RunSheet]):
    """What to weigh and what to do."""
