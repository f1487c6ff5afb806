"""The observations file: what was seen of formulas, to learn from."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, TypeAdapter, ValidationError

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.records import Room
from rosy_kettle.files.formula_file import FormulaFile, formula_file_from_data, load_json, sentence_from
from rosy_kettle.files.not_understood import formula_keys_left, keys_left
from rosy_kettle.files.shape import Celsius, Shape

__all__ = ["LARGEST_OBSERVATIONS_BYTES", "ObservationFile", "observation_keys_left", "read_observations_json"]

MOST_OBSERVATIONS = 5_000
LARGEST_OBSERVATIONS_BYTES = 20_000_000  # each observation brings its formula, some 3 kB
Some = Annotated[float, Field(gt=0, le=1e6, allow_inf_nan=False)]
Name = Annotated[str, Field(min_length=1, max_length=60)]


class FeltFile(Shape):
    """The hands found a state."""

    kind: Literal["felt"]
    temperature_c: Celsius = Room().temperature_c
    state: Name


class RopeFile(Shape):
    """A blend wetted until a rope rolls, and until it smears."""

    kind: Literal["rope"]
    temperature_c: Celsius = Room().temperature_c
    rolls_at_g: Some | None = None
    smears_at_g: Some | None = None
    wetter: Name


class DriedFile(Shape):
    """A tray was dry after so many hours."""

    kind: Literal["dried"]
    hours: Some


class PiecesFile(Shape):
    """Pieces from one tool were weighed."""

    kind: Literal["pieces"]
    tool: Name
    piece_g: Annotated[list[Some], Field(min_length=1, max_length=1000)]


class YieldFile(Shape):
    """A bowl gave pieces of so much together."""

    kind: Literal["yield"]
    tool: Name | None = None
    bowl_g: Some
    pieces_g: Some


class FoamFile(Shape):
    """Foam stood so high so long after the tap was opened."""

    kind: Literal["foam"]
    minutes: Some
    height_cm: Annotated[float, Field(ge=0, le=200, allow_inf_nan=False)]


class ScratchFile(Shape):
    """A dried piece was dropped until a corner broke."""

    kind: Literal["scratch"]
    drops: Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)]


ObservationFile = Annotated[
    FeltFile | RopeFile | DriedFile | PiecesFile | YieldFile | FoamFile | ScratchFile, Field(discriminator="kind")
]
KINDS: dict[str, type[Shape]] = {
    "felt": FeltFile, "rope": RopeFile, "dried": DriedFile, "pieces": PiecesFile, "yield": YieldFile, "foam": FoamFile,
    "scratch": ScratchFile,
}  # fmt: skip
OF_ALL = frozenset({"format", "version", "observations"})
ONE: TypeAdapter[Any] = TypeAdapter(ObservationFile)


def read_observations_json(text: str | bytes) -> list[tuple[Any, FormulaFile]]:
    """Return the observations of a file, each with its formula.

    Raises
    ------
    InputError
        One sentence naming the observation and the field, if the text is no observations file.
    """
    data: Any = load_json(text, "observations", LARGEST_OBSERVATIONS_BYTES)
    told = data.get("observations") if isinstance(data, dict) else None
    if not isinstance(data, dict) or (data.get("format"), data.get("version")) != ("rosy-kettle/observations", 1):
        raise InputError('An observations file says "format": "rosy-kettle/observations" and "version": 1.', quantity="format")
    if not isinstance(told, list) or len(told) > MOST_OBSERVATIONS:
        raise InputError(f'"observations" is a list of at most {MOST_OBSERVATIONS} things seen.', quantity="observations")
    return [_read(index, each) for index, each in enumerate(told)]


def observation_keys_left(data: dict[str, Any]) -> list[str]:
    """Return the paths of what was not understood of an observations file that was read."""
    left = [key for key in data if key not in OF_ALL]
    for index, each in enumerate(data["observations"]):
        at = f"observations[{index}]"
        seen = {key: value for key, value in each.items() if key != "formula"}
        left += [*keys_left(KINDS[each["kind"]], seen, at), *formula_keys_left(each["formula"], f"{at}.formula")]
    return left[:MOST_OBSERVATIONS]


def _read(index: int, data: Any) -> tuple[Any, FormulaFile]:
    if not isinstance(data, dict) or "formula" not in data:
        raise InputError(f"Observation {index + 1} names no formula.", quantity="formula")
    try:
        seen = ONE.validate_python({key: value for key, value in data.items() if key != "formula"})
        return seen, formula_file_from_data(data["formula"])
    except ValidationError as error:
        raise InputError(f"Observation {index + 1}: {sentence_from(error, data)}", quantity="observations") from error
    except InputError as error:
        raise InputError(f"Observation {index + 1}: {error.message}", quantity="formula") from error
