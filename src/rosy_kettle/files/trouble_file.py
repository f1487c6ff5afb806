"""The trouble file: what is seen, of which formula and batch, and what was answered."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from rosy_kettle.core.clinic.facts import ANSWERS
from rosy_kettle.core.errors import InputError
from rosy_kettle.files.formula_file import FormulaFile, formula_file_from_data, load_json, sentence_from
from rosy_kettle.files.not_understood import formula_keys_left, keys_left
from rosy_kettle.files.shape import Shape

__all__ = ["TroubleFile", "read_trouble_json", "trouble_keys_left"]

RECORD_KEYS = frozenset({
    "id", "formula_id", "version", "name", "method", "batch_g", "pieces", "pieces_now", "created_at", "closed_at", "planned",
    "made", "bowl", "bowls", "state", "events", "held", "before", "now", "so_far", "watch", "feel", "clock_rate",
})  # fmt: skip
"""What a batch record holds; tests compare it with what the studio writes."""


class TroubleFile(Shape):
    """One trouble."""

    format: Literal["rosy-kettle/trouble"]
    version: Literal[1]
    symptom: Annotated[str, Field(min_length=1, max_length=40)]
    formula: dict[str, Any] | None = None
    batch: dict[str, Any] | None = None
    answers: dict[str, Any] = {}

    def formula_file(self) -> FormulaFile | None:
        """Return the formula as made: its own, else that of the batch; None where neither is known."""
        made = (self.batch or {}).get("made")
        said = self.formula or (made if isinstance(made, dict) else None)
        return formula_file_from_data(said) if said else None


def read_trouble_json(text: str | bytes) -> TroubleFile:
    """Return a trouble file from its text.

    Raises
    ------
    InputError
        One sentence naming the field, if the text is no trouble.
    """
    data: Any = load_json(text, "trouble")
    if not isinstance(data, dict):
        raise InputError("A trouble file is one JSON object; this is something else.", quantity="file")
    try:
        return TroubleFile.model_validate(data)
    except ValidationError as error:
        raise InputError(sentence_from(error, data), quantity="file") from error


def trouble_keys_left(data: dict[str, Any]) -> list[str]:
    """Return the paths of what was not understood of a trouble file that was read: its own keys, answers, formula, batch."""
    answers = data.get("answers") or {}
    left = [*keys_left(TroubleFile, data), *(f"answers.{key}" for key in answers if key not in ANSWERS)]
    if data.get("formula"):
        left += formula_keys_left(data["formula"], "formula")
    return left + [f"batch.{key}" for key in data.get("batch") or {} if key not in RECORD_KEYS]
