"""The trouble file: what is seen, of which formula and batch, and what was answered."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from rosy_kettle.core.errors import InputError
from rosy_kettle.files.formula_file import FormulaFile, formula_file_from_data, load_json, sentence_from
from rosy_kettle.files.shape import Shape

__all__ = ["TroubleFile", "read_trouble_json"]


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
