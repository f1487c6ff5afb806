"""The weigh-ins file: a pan with pieces, weighed now and then while they dry."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.rack.weigh_ins import WeighIn
from rosy_kettle.files.formula_file import FormulaFile, formula_file_from_data, load_json, sentence_from
from rosy_kettle.files.shape import Celsius, NotNegative, Percent, Shape

__all__ = ["WeighInFile", "WeighInsFile", "read_weigh_ins_json"]

MOST_WEIGH_INS = 2_000


class WeighInFile(Shape):
    """The pan with ``pieces`` pieces, less the tare, so many hours after they were set out."""

    hours: NotNegative
    mass_g: Annotated[float, Field(ge=0.001, le=1e6, allow_inf_nan=False)]
    pieces: Annotated[int, Field(ge=1, le=10_000)] = 1
    temperature_c: Celsius | None = None
    humidity_pct: Percent | None = None

    def weigh_in(self) -> WeighIn:
        """Return it for the core."""
        return WeighIn(self.hours, self.mass_g, self.pieces, self.temperature_c, self.humidity_pct)


class WeighInsFile(Shape):
    """All weigh-ins of one tray, with the formula where it is known."""

    format: Literal["rosy-kettle/weigh-ins"]
    version: Literal[1]
    formula: FormulaFile | None = None
    scale_step_g: Annotated[float, Field(ge=0.0001, le=1e4, allow_inf_nan=False)] = 0.1
    tare_g: NotNegative = 0.0
    weigh_ins: Annotated[list[WeighInFile], Field(min_length=1, max_length=MOST_WEIGH_INS)]


def read_weigh_ins_json(text: str | bytes) -> WeighInsFile:
    """Return a weigh-ins file from its text.

    Raises
    ------
    InputError
        One sentence naming the field, if the text is no weigh-ins file.
    """
    data: Any = load_json(text, "weigh-ins")
    if not isinstance(data, dict):
        raise InputError("A weigh-ins file is one JSON object; this is something else.", quantity="file")
    formula = data.get("formula")
    if formula is not None:
        data = data | {"formula": None}
    try:
        file = WeighInsFile.model_validate(data)
    except ValidationError as error:
        raise InputError(sentence_from(error, data), quantity="file") from error
    heaviest_g = max(each.mass_g for each in file.weigh_ins)
    if file.tare_g > heaviest_g:
        sentence = f'"tare_g" is {file.tare_g:g} g, more than any pan weighed ({heaviest_g:g} g); give the empty pan, or 0.'
        raise InputError(sentence, quantity="tare_g", value=file.tare_g)
    return file if formula is None else file.model_copy(update={"formula": formula_file_from_data(formula)})
