"""The worked examples of docs/science, worked out again."""

from __future__ import annotations

import json
import re
from pathlib import Path
from typing import Any

import pytest

from rosy_kettle.core.evaluate import evaluate
from rosy_kettle.core.records import Formula, Line, Portion, Tables

PAGES = Path(__file__).parent.parent.parent / "docs" / "science"
METHOD_PAGES = {"overview", "checks", "why", "balance", "bench"}  # they describe methods, and are tested where the methods are
BLOCK = re.compile(r"<!-- worked example -->.*?```json\n(.*?)\n```", re.DOTALL)


def examples() -> list[tuple[str, dict[str, Any]]]:
    return [
        (page.stem, json.loads(found)) for page in sorted(PAGES.glob("*.md")) for found in BLOCK.findall(page.read_text("utf-8"))
    ]


def test_every_page_of_a_model_has_one() -> None:
    assert {page.stem for page in PAGES.glob("*.md")} - METHOD_PAGES == {name for name, _ in examples()}


@pytest.mark.parametrize(("page", "example"), examples(), ids=[name for name, _ in examples()])
def test_it_comes_out_as_printed(tables: Tables, page: str, example: dict[str, Any]) -> None:
    lines = tuple(Line(name, str(grams), "g") for name, grams in example["grams"].items())
    result = evaluate(Formula(page, (Portion("body", lines),), method=example["method"]), tables)
    assert example["expect"]
    for path, printed in example["expect"].items():
        value: Any = result
        for name in path.split("."):
            value = getattr(value, name)
        if isinstance(printed, float):
            assert float(value) == pytest.approx(printed, rel=6e-4), path
        else:
            assert value == printed, path
