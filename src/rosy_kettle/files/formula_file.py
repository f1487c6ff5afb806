"""The formula file: UTF-8 JSON, checked against its published shape."""

from __future__ import annotations

import json
from decimal import Decimal
from typing import Annotated, Any, Literal, NoReturn

from pydantic import Field, ValidationError

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.odd_values import odd_in
from rosy_kettle.core.records import (
    MOST_LINES,
    MOST_PORTIONS,
    Formula,
    Heat,
    Line,
    Making,
    Piece,
    Portion,
    Room,
    Use,
    product_from_data,
    product_to_data,
)
from rosy_kettle.files.product_file import ProductFile
from rosy_kettle.files.shape import Celsius, NotNegative, Positive, Shape

__all__ = [
    "FormulaFile",
    "formula_file_from_data",
    "formula_from_file",
    "formula_to_file",
    "load_json",
    "read_formula_json",
    "sentence_from",
]

LARGEST_FILE_BYTES = 1_000_000
PLAIN_TEXT = r"^[^\x00-\x1f\x7f]*$"  # no control characters in a name
HardnessId = Literal["soft", "moderate", "hard", "very-hard", "softened", "ro-rain"]
USUAL_USE, USUAL_ROOM = Use(), Room()
Money = Annotated[str, Field(pattern=r"^\d{1,7}([.,]\d{1,4})?$")]


class LineFile(Shape):
    """One line. ``ingredient`` is null while a pasted name is not understood."""

    ingredient: str | None = None
    amount: Annotated[str, Field(max_length=60)] = "0"
    unit: Annotated[str, Field(max_length=20)] = "g"
    text: Annotated[str, Field(max_length=500)] = ""
    phase: Annotated[str, Field(max_length=100)] = ""
    notes: list[str] = []
    suggestions: list[str] = []
    locked: bool = False
    min_g: NotNegative | None = None
    max_g: NotNegative | None = None
    poured_g: NotNegative | None = None


class PortionFile(Shape):
    """A part of the product with its own lines."""

    name: Annotated[str, Field(max_length=100, pattern=PLAIN_TEXT)] = "body"
    lines: list[LineFile] = []
    share_pct: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] | None = None
    mass_g: NotNegative | None = None
    split: Literal["dry", "wet"] | None = None


class PieceFile(Shape):
    """One finished item; null takes the method's default."""

    mass_g: Positive | None = None
    half_thickness_mm: Positive | None = None
    packing: Literal["loose", "hand", "press", "dough", "poured"] | None = None
    wished_pieces: Annotated[int, Field(ge=1, le=100_000)] | None = None


class UseFile(Shape):
    """One bath; null takes the default of the method or of the hardness class."""

    dose_g: NotNegative | None = None
    way: Literal["crumbled", "held", "whole"] | None = None
    tub_l: Positive = USUAL_USE.tub_l
    tub_area_m2: Positive = USUAL_USE.tub_area_m2
    bath_c: Annotated[float, Field(ge=5, le=60, allow_inf_nan=False)] = USUAL_USE.bath_c
    hardness: HardnessId = "moderate"
    alkalinity_mg_l: NotNegative | None = None
    tap_ph: Annotated[float, Field(ge=3, le=12, allow_inf_nan=False)] | None = None


class RoomFile(Shape):
    """The air the dough is made and dried in."""

    temperature_c: Celsius = USUAL_ROOM.temperature_c
    humidity_pct: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] = USUAL_ROOM.humidity_pct


class HeatFile(Shape):
    """Temperature of the wet phase and heat capacity of the bowl; null takes the method's default."""

    wet_c: Celsius | None = None
    bowl_j_k: NotNegative | None = None


class MakingFile(Shape):
    """What a batch costs besides its ingredients, as decimal text in the currency of the prices."""

    packaging_per_piece: Money = "0"
    labour_minutes: Money = "0"
    fixed_minutes: Money = "0"
    labour_per_hour: Money = "0"
    overhead_pct: Money = "0"
    price_per_piece: Money = "0"


class FormulaFile(Shape):
    """A formula file, version 1."""

    format: Literal["rosy-kettle/formula"]
    version: Literal[1]
    name: Annotated[str, Field(max_length=200, pattern=PLAIN_TEXT)] = "Untitled"
    method: Annotated[str, Field(max_length=80)] = ""
    batch_g: Annotated[float, Field(gt=0, le=1e6, allow_inf_nan=False)] = 1000.0
    profile: Annotated[str, Field(max_length=80)] | None = None
    portions: list[PortionFile] = []
    piece: PieceFile = PieceFile()
    use: UseFile = UseFile()
    room: RoomFile = RoomFile()
    heat: HeatFile = HeatFile()
    making: MakingFile = MakingFile()
    product: ProductFile = ProductFile()


def read_formula_json(text: str | bytes) -> FormulaFile:
    """Return a formula file from its text.

    Raises
    ------
    InputError
        One sentence naming line and field, if the text is not a formula file.
    """
    file = formula_file_from_data(load_json(text, "formula"))
    _refuse_crossed(file)
    return file


def _refuse_crossed(file: FormulaFile) -> None:
    """Refuse a line that is to weigh at least more than at most; at the Desk both stand in the table and can be mended there."""
    for number, line in enumerate((line for portion in file.portions for line in portion.lines), 1):
        if line.min_g is not None and line.max_g is not None and line.min_g > line.max_g:
            ends = f'"min_g" {line.min_g:g} is above "max_g" {line.max_g:g}'
            sentence = f"Line {number} ({line.ingredient}): {ends}; lower the one or raise the other."
            raise InputError(sentence, quantity="min_g", value=line.min_g)


def load_json(text: str | bytes, what: str, largest_bytes: int = LARGEST_FILE_BYTES) -> Any:
    """Return what a JSON text of limited size says, refusing numbers JSON does not have.

    Raises
    ------
    InputError
        One sentence with the place, if the text is too large, not UTF-8 or no JSON.
    """
    raw = text.encode() if isinstance(text, str) else text
    if len(raw) > largest_bytes:
        largest_mb = largest_bytes // 1_000_000
        raise InputError(f"The file is larger than {largest_mb} MB; a {what} file holds less.", quantity="file", value=len(raw))
    try:
        data = json.loads(raw.decode("utf-8-sig"), parse_constant=_refuse_constant)
    except UnicodeDecodeError as error:
        raise InputError("The file is not UTF-8 text; save it as UTF-8 and try again.", quantity="file") from error
    except json.JSONDecodeError as error:
        raise InputError(
            f"The file is broken JSON at line {error.lineno}, column {error.colno}: {error.msg.lower()}.", quantity="file"
        ) from error
    except InputError:
        raise
    except ValueError as error:
        raise InputError(f"The file holds a number no {what} can mean; shorten it.", quantity="file") from error
    except RecursionError as error:
        raise InputError(f"The file is nested too deeply to be a {what} file.", quantity="file") from error
    if odd := odd_in(data):
        raise InputError(f"{odd}.", quantity="file")
    return data


def formula_file_from_data(data: Any) -> FormulaFile:
    """Return a formula file from parsed JSON, refusing what is no formula."""
    if not isinstance(data, dict):
        raise InputError("A formula file is one JSON object; this is something else.", quantity="file")
    for key in ("format", "version"):
        if key not in data:
            raise InputError(f'The field "{key}" is missing; a formula file starts with format and version.', quantity=key)
    _accept_numeric_amounts(data)
    try:
        file = FormulaFile.model_validate(data)
    except ValidationError as error:
        raise InputError(sentence_from(error, data), quantity="file") from error
    _refuse_too_large(file)
    return file


def _refuse_too_large(file: FormulaFile) -> None:
    if sum(len(portion.lines) for portion in file.portions) > MOST_LINES:
        raise InputError("The formula has more than 2 000 lines; split it.", quantity="lines")
    if len(file.portions) > MOST_PORTIONS:
        raise InputError("The formula has more than 100 portions; split it.", quantity="portions")


def formula_from_file(file: FormulaFile) -> Formula:
    """Return the frozen record of a formula file.

    Raises
    ------
    InputError
        If it has more than 2 000 lines or 100 portions.
    """
    _refuse_too_large(file)
    data = file.model_dump()
    portions = tuple(Portion(**portion | {"lines": tuple(map(_line, portion["lines"]))}) for portion in data["portions"])
    return Formula(
        name=file.name,
        portions=portions,
        method=file.method,
        batch_g=file.batch_g,
        profile=file.profile,
        piece=Piece(**data["piece"]),
        use=Use(**data["use"]),
        room=Room(**data["room"]),
        heat=Heat(**data["heat"]),
        making=Making(**{name: Decimal(text.replace(",", ".")) for name, text in data["making"].items()}),
        product=product_from_data(data["product"]),
    )


def _line(data: dict[str, Any]) -> Line:
    return Line(**data | {"notes": tuple(data["notes"]), "suggestions": tuple(data["suggestions"])})


def formula_to_file(formula: Formula) -> FormulaFile:
    """Return the file of a formula record; reading it back gives an equal record."""
    return FormulaFile.model_validate(
        {
            "format": "rosy-kettle/formula",
            "version": 1,
            "name": formula.name,
            "method": formula.method,
            "batch_g": formula.batch_g,
            "profile": formula.profile,
            "portions": [
                {
                    "name": portion.name,
                    "lines": [_line_data(line) for line in portion.lines],
                    "share_pct": portion.share_pct,
                    "mass_g": portion.mass_g,
                    "split": portion.split,
                }
                for portion in formula.portions
            ],
            "piece": {name: getattr(formula.piece, name) for name in PieceFile.model_fields},
            "use": {name: getattr(formula.use, name) for name in UseFile.model_fields},
            "room": {name: getattr(formula.room, name) for name in RoomFile.model_fields},
            "heat": {name: getattr(formula.heat, name) for name in HeatFile.model_fields},
            "making": {name: str(getattr(formula.making, name)) for name in MakingFile.model_fields},
            "product": product_to_data(formula.product),
        }
    )


def _line_data(line: Line) -> dict[str, Any]:
    data = {name: getattr(line, name) for name in LineFile.model_fields}
    return data | {"notes": list(line.notes), "suggestions": list(line.suggestions)}


def _refuse_constant(name: str) -> NoReturn:
    raise InputError(f"{name} is not a number a formula can hold; enter a finite number.", quantity="number", value=name)


def _accept_numeric_amounts(data: dict[str, Any]) -> None:
    """Amounts are text in the file; a plain number means the same and is taken as typed."""
    portions = data.get("portions")
    for portion in portions if isinstance(portions, list) else ():
        lines = portion.get("lines") if isinstance(portion, dict) else None
        for line in lines if isinstance(lines, list) else ():
            if isinstance(line, dict) and isinstance(line.get("amount"), int | float) and not isinstance(line["amount"], bool):
                line["amount"] = repr(line["amount"])


def sentence_from(error: ValidationError, data: Any = None) -> str:
    """Return one sentence naming line and field for the first thing wrong."""
    first = error.errors()[0]
    place = [part for part in first["loc"] if part not in {"body", "formula"}]
    field = next((str(part) for part in reversed(place) if isinstance(part, str)), "file")
    where = _where(place, data)
    got = repr(first.get("input"))[:60]
    said = first["msg"].removeprefix("Value error, ")
    rule = said[0].lower() + said[1:]
    if first["type"] == "missing":
        return f'{where or "The"}{" the" if where else ""} field "{field}" is missing; add it.'
    return f'{where or "The"}{" the" if where else ""} field "{field}" is wrong: {rule}, got {got}.'


def _where(place: list[Any], data: Any) -> str:
    if "lines" not in place or place.index("lines") + 1 >= len(place):
        return ""
    position = place[place.index("lines") + 1]
    before = 0
    label = ""
    try:
        if "portions" in place:
            portion = place[place.index("portions") + 1]
            portions = data["portions"]
            before = sum(len(item["lines"]) for item in portions[:portion])
            label = portions[portion]["lines"][position].get("ingredient") or ""
    except (KeyError, IndexError, TypeError, AttributeError):
        label = ""
    return f"Line {before + position + 1}{f' ({label})' if label else ''}:"
