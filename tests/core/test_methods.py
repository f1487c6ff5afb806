"""Methods are data: one file makes a ninth, and no other place names one."""

from __future__ import annotations

import re
from dataclasses import replace
from pathlib import Path

import pytest

from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target
from rosy_kettle.core.making.bench import bench_steps
from rosy_kettle.core.making.plan import make_run_sheet
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Tables
from rosy_kettle.files import FormulaFile, formula_to_file
from rosy_kettle.reference.loader import METHODS, method_from
from rosy_kettle.usecases.formulas.check_formula import check_formula
from tests.conftest import make_formula

ROOT = Path(__file__).parents[2]
SOURCES = [
    *(ROOT / "src/rosy_kettle").rglob("*.py"), *(ROOT / "web/src").rglob("*.ts"), *(ROOT / "web/src").rglob("*.tsx"),
]  # fmt: skip


def test_no_code_names_a_method(tables: Tables) -> None:
    names = "|".join(name for name in tables.methods if "-" in name)  # "melt" is also a phase of any method
    assert names
    found = [
        f"{path.relative_to(ROOT)}: {hit}"
        for path in SOURCES
        if path.name != "schema.ts" and ".test." not in path.name and "demo" not in path.parts
        for hit in re.findall(rf"[\"'](?:{names})[\"']", path.read_text(encoding="utf-8"))
    ]
    assert found == []


@pytest.fixture
def with_ninth(tables: Tables) -> Tables:
    text = (METHODS / "butter-dough.toml").read_text(encoding="utf-8")
    text = re.sub(r"^place = .*", "place = 9", text, flags=re.M)
    text = re.sub(r"^humidity_gate_pct = .*", "humidity_gate_pct = 33.0", text, flags=re.M)
    return replace(tables, methods={**tables.methods, "slab": replace(method_from("slab", text), name="Slab")})


def test_a_ninth_method_is_one_file(with_ninth: Tables) -> None:
    usual = make_formula("butter-dough", baking_soda=300, citric_acid_anhydrous=100, slsa_fine=150, cocoa_butter=80, kaolin=20)
    formula = replace(usual, method="slab")
    file = FormulaFile.model_validate(formula_to_file(formula).model_dump())
    assert check_formula(file, with_ninth).method == "slab"
    ours, theirs = evaluate(formula, with_ninth), evaluate(usual, with_ninth)
    assert replace(ours, assumed=theirs.assumed) == theirs
    sheet = make_run_sheet(formula, with_ninth, 5)
    assert "at most about 33 %" in " ".join(step.text for step in sheet.steps)
    assert [step.kind for step in bench_steps(formula, with_ninth, sheet)] == [
        step.kind for step in bench_steps(usual, with_ninth, make_run_sheet(usual, with_ninth, 5))
    ]
    assert balance(BalanceProblem(formula, (parse_target("lather.score>=40"),)), with_ninth).status in {"solved", "unchanged"}


def test_a_heading_is_only_for_people(with_ninth: Tables) -> None:
    """Other headings over the same kinds of work give the same steps at the bench."""
    method = with_ninth.methods["slab"]
    renamed = replace(method, steps=tuple(replace(step, stage=f"Étape {at}") for at, step in enumerate(method.steps)))
    other = replace(with_ninth, methods={**with_ninth.methods, "slab": renamed})
    formula = make_formula("slab", baking_soda=300, slsa_fine=150, cocoa_butter=80, kaolin=20, mica_pigment=4)
    usual, changed = (bench_steps(formula, each, make_run_sheet(formula, each, 5)) for each in (with_ninth, other))
    assert [(step.kind, step.low_c, step.minutes, step.pieces) for step in changed] == [
        (step.kind, step.low_c, step.minutes, step.pieces) for step in usual
    ]
    assert {"dry", "shape", "temperature"} <= {step.kind for step in changed}
