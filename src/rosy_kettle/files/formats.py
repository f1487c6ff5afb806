"""The file formats as JSON Schema, made of the models that read them."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel

from rosy_kettle.files.formula_file import FormulaFile
from rosy_kettle.files.label_file import LabelFactsFile
from rosy_kettle.files.series_file import TestSeriesFile
from rosy_kettle.files.trouble_file import TroubleFile
from rosy_kettle.files.weigh_ins_file import WeighInsFile

__all__ = ["format_schemas"]

MODELS: dict[str, type[BaseModel]] = {
    "formula": FormulaFile, "weigh-ins": WeighInsFile, "test-series": TestSeriesFile, "trouble": TroubleFile,
    "label-facts": LabelFactsFile,
}  # fmt: skip
DIALECT = "https://json-schema.org/draft/2020-12/schema"


def format_schemas() -> dict[str, dict[str, Any]]:
    """Return the JSON Schema of every format by name (draft 2020-12)."""
    return {name: {"$schema": DIALECT, "title": name} | model.model_json_schema() for name, model in MODELS.items()}
