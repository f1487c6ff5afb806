"""From a figure on the Desk to its formula, unit and source in three hops, as ARCHITECTURE.md writes them down."""

from __future__ import annotations

import importlib
import re
from pathlib import Path

import pytest

from rosy_kettle.core.readings.registry import declared

ROOT = Path(__file__).parents[1]
CORE = ROOT / "src/rosy_kettle/core"
FIGURES = {"Foam score": "lather.score", "Drying hours": "drying.hours", "Cost per piece": "cost.piece"}


def hops(figure: str) -> tuple[str, str, str, list[str]]:
    """Module of the declaration, function and module of the model, and where its constants and its source stand."""
    text = (ROOT / "ARCHITECTURE.md").read_text(encoding="utf-8")
    found = re.search(rf"^- {figure}: `(\S+)` → `(\w+)` in `(\S+)` → (.*)\.$", text, re.MULTILINE)
    assert found is not None, figure
    return found[1], found[2], found[3], re.findall(r"`(\S+)`", found[4])


@pytest.mark.parametrize("figure", FIGURES)
def test_three_hops_lead_from_a_figure_to_its_formula_unit_and_source(figure: str) -> None:
    declaring, function, modelling, places = hops(figure)
    reading = declared()[FIGURES[figure]]
    # One: the declaration, with the unit.
    assert reading.compute is not None
    assert reading.compute.__module__ == f"rosy_kettle.core.{declaring.removesuffix('.py').replace('/', '.')}"
    assert reading.unit
    # Two: the model, with the formula and the unit of every symbol that goes in.
    model = importlib.import_module(f"rosy_kettle.core.{modelling.removesuffix('.py').replace('/', '.')}")
    said = getattr(model, function).__doc__
    assert ".. math::" in said
    assert re.search(r"\[[^\]]+\]", said)
    # Three: the constants and the page the figure itself leads to, with its sources.
    *constants, page = places
    assert all((CORE / each).is_file() for each in constants)
    assert page == f"docs/science/{reading.page}.md"
    assert "Sources: " in (ROOT / page).read_text(encoding="utf-8")
