"""Keys of a file that no part of its format names, and papers of what is not in the formula: left aside, and said."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any, get_args, get_origin

from pydantic import BaseModel

from rosy_kettle.files.formula_file import FormulaFile
from rosy_kettle.files.label_file import LabelFactsFile
from rosy_kettle.files.product_file import ProductFile

__all__ = ["formula_keys_left", "keys_left"]

LARGEST = 200  # keys that are told; a file of another kind has thousands
BESIDE: dict[tuple[type[BaseModel], str], type[BaseModel]] = {(ProductFile, "label_facts"): LabelFactsFile}
"""Parts of a formula file that are read by themselves."""
NOTES = frozenset({"notes", "others"})
"""Keys that a recipe read from text carries beside the shape of a formula."""


def formula_keys_left(data: Any, at: str = "") -> list[str]:
    """Return the paths of what was not understood of a formula file.

    Parameters
    ----------
    data : Any
        The file as parsed JSON, accepted before
    at : str
        Path of the formula within a larger file

    Returns
    -------
    list of str
        Dotted paths with indices in brackets; papers of ingredients that no line names are among them
    """
    if not isinstance(data, Mapping):
        return []
    own = {key: value for key, value in data.items() if key not in NOTES}
    return [*_left(FormulaFile, own, at), *_papers(data, at)][:LARGEST]


def keys_left(shape: type[BaseModel], data: Any, at: str = "") -> list[str]:
    """Return the paths of the keys of a file that its shape does not name; of formulas in it, what was not understood of them.

    Parameters
    ----------
    shape : type
        What the file was read by
    data : Any
        The file as parsed JSON, accepted before
    at : str
        Path of this part within a larger file

    Returns
    -------
    list of str
        Dotted paths with indices in brackets
    """
    return list(_within(shape, data, at))[:LARGEST]


def _left(shape: type[BaseModel], data: Any, at: str) -> Iterator[str]:
    if not isinstance(data, Mapping):
        return
    free = shape.model_config.get("extra") == "allow"
    for key, value in data.items():
        path, field = f"{at}.{key}" if at else str(key), shape.model_fields.get(key)
        beside = BESIDE.get((shape, key))
        if field is not None or beside is not None:
            yield from _within(beside if field is None else field.annotation, value, path)
        elif not free:
            yield path


def _within(annotation: Any, value: Any, at: str) -> Iterator[str]:
    """Look into parts, lists of parts and tables of parts."""
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        yield from formula_keys_left(value, at) if annotation is FormulaFile else _left(annotation, value, at)
    elif get_origin(annotation) is list:
        for index, each in enumerate(value if isinstance(value, list) else ()):
            yield from _within(get_args(annotation)[0], each, f"{at}[{index}]")
    elif get_origin(annotation) is dict:
        for key, each in value.items() if isinstance(value, Mapping) else ():
            yield from _within(get_args(annotation)[1], each, f"{at}.{key}")
    else:  # one of several, or with conditions
        parts = get_args(annotation)
        yield from (path for part in parts for path in _within(part, value, at) if not isinstance(part, str))


def _papers(data: Mapping[str, Any], at: str) -> Iterator[str]:
    """Name the papers of ingredients that stand on no line."""
    product, portions = data.get("product"), data.get("portions")
    lines = [line for portion in portions or [] for line in portion.get("lines", [])]
    held = {line.get("ingredient") for line in lines}
    for kind in ("certificates", "colours"):
        papers = product.get(kind) if isinstance(product, Mapping) else None
        yield from (f"{at}.product.{kind}.{name}".lstrip(".") for name in papers or {} if name not in held)
