"""The docstring of a public core function is its contract: every argument, every unit."""

from __future__ import annotations

import importlib
import inspect
import pkgutil
import re
from collections.abc import Callable, Iterator

import pytest

import rosy_kettle.core

NUMERIC = re.compile(r"\b(float|int|FloatArray)\b")
UNIT = re.compile(r"\[[^\]]+\]")


def public_functions() -> Iterator[tuple[str, Callable[..., object]]]:
    for module_info in pkgutil.walk_packages(rosy_kettle.core.__path__, "rosy_kettle.core."):
        module = importlib.import_module(module_info.name)
        for name in getattr(module, "__all__", ()):
            value = getattr(module, name)
            if inspect.isfunction(value) and value.__module__ == module.__name__:
                yield f"{module.__name__}.{name}", value


FUNCTIONS = dict(public_functions())


def parameter_block(doc: str, name: str) -> str | None:
    """The lines a docstring gives one parameter."""
    match = re.search(rf"^ *{name} : .*\n((?: {{8,}}.*\n?|\n(?= {{8,}}))*)", doc, re.MULTILINE)
    return match[0] if match else None


def test_the_core_has_public_functions() -> None:
    assert len(FUNCTIONS) > 15


@pytest.mark.parametrize("name", sorted(FUNCTIONS))
def test_every_parameter_is_described_and_every_number_has_a_unit(name: str) -> None:
    function = FUNCTIONS[name]
    doc = function.__doc__ or ""
    assert doc, f"{name} has no docstring"
    for parameter in inspect.signature(function).parameters.values():
        block = parameter_block(doc + "\n", parameter.name)
        assert block is not None, f"{name}: parameter {parameter.name} is not described"
        if NUMERIC.search(str(parameter.annotation)):
            assert UNIT.search(block), f"{name}: parameter {parameter.name} states no unit"


@pytest.mark.parametrize("name", sorted(FUNCTIONS))
def test_a_numeric_result_states_its_unit(name: str) -> None:
    function = FUNCTIONS[name]
    doc = inspect.cleandoc(function.__doc__ or "")
    if str(inspect.signature(function).return_annotation) in {"float", "FloatArray"}:
        returns = doc.split("Returns\n-------\n")[1].split("\n\n")[0]
        assert UNIT.search(returns), f"{name}: the result states no unit"


@pytest.mark.parametrize("name", sorted(name for name, function in FUNCTIONS.items() if ".. math::" in (function.__doc__ or "")))
def test_a_model_names_where_its_formula_comes_from(name: str) -> None:
    """A published source, or in so many words that it is practice, an estimate or arithmetic."""
    assert "References\n----------\n.. [1] " in inspect.cleandoc(FUNCTIONS[name].__doc__ or "")


def test_a_missing_unit_would_be_seen() -> None:
    doc = "Do.\n\n    Parameters\n    ----------\n    mass_g : float\n        Mass\n"
    block = parameter_block(doc, "mass_g")
    assert block is not None
    assert UNIT.search(block) is None
