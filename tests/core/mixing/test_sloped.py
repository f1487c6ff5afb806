"""Slopes of readings: against central differences of the true model, over every demo formula."""

from __future__ import annotations

import json
import math
from collections import Counter
from dataclasses import replace
from importlib.resources import files

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.change.balance.aims import aims_of
from rosy_kettle.core.change.balance.problem import numeric_readings
from rosy_kettle.core.mixing.sloped import Sloped, cbrt, exp, log1p, sqrt
from rosy_kettle.core.records import Formula, Room, Tables, Use
from rosy_kettle.files.formula_file import formula_file_from_data, formula_from_file
from tests.conftest import make_formula

DEMO = json.loads((files("rosy_kettle.demo") / "studio.json").read_text(encoding="utf-8"))
STEP = 1e-5  # of the batch, for the differences
KINKS_ALLOWED = 0.03  # a difference may straddle a cap or a fat table's point


def demo_formula(data: dict[str, object]) -> Formula:
    """A demo formula on reference ingredients alone: the studio's own scent becomes a plain one."""
    own = {item["id"] for item in DEMO["ingredients"]}
    text = json.dumps(data)
    for name in own:
        text = text.replace(name, "fragrance-oil-generic")
    return formula_from_file(formula_file_from_data(json.loads(text)))


COLD_BUTTER = make_formula(
    "butter-dough", baking_soda=420, slsa_fine=120, corn_starch=80, citric_acid_anhydrous=90, cocoa_butter=180, shea_butter=40,
    coconut_oil_76=30,
)  # fmt: skip
FORMULAS = {item["name"]: demo_formula(item) for item in DEMO["formulas"]} | {
    "butter that sets while it is stirred": replace(COLD_BUTTER, room=Room(10.0, 45.0)),
    "butter beside a point of its table": replace(COLD_BUTTER, room=Room(12.0, 45.0)),
    "butter in a warm room": replace(COLD_BUTTER, room=Room(27.0, 45.0)),
    "butter in a cold bath": replace(COLD_BUTTER, use=Use(bath_c=30.0, way="held")),
}


@pytest.mark.parametrize("name", FORMULAS)
def test_every_slope_agrees_with_differences_of_the_true_model(tables: Tables, name: str) -> None:
    formula = FORMULAS[name]
    weighed, _ = weigh_formula(formula, tables)
    mass_g = np.array([item.mass_g for item in weighed])
    paths = sorted(numeric_readings())
    aims = aims_of(paths, formula, tables, [item.ingredient for item in weighed])
    values, slopes = aims.at(mass_g)
    plain = aims.at(mass_g, sloped=False)[0]
    assert np.allclose(values, plain, rtol=1e-9, atol=1e-12, equal_nan=True), "the slopes leave the readings as they are"
    step, compared, wrong = STEP * mass_g.sum(), 0, []
    for line in range(mass_g.size):
        up, down = mass_g.copy(), mass_g.copy()
        up[line] += step
        down[line] -= step
        difference = (aims.at(up, sloped=False)[0] - aims.at(down, sloped=False)[0]) / (2 * step)
        for index, path in enumerate(paths):
            if math.isnan(values[index]):
                continue
            compared += 1
            near = max(abs(difference[index]), abs(values[index]) / mass_g.sum(), 1e-6)
            if abs(difference[index] - slopes[index, line]) > 0.02 * near:
                wrong.append((path, weighed[line].ingredient.id, difference[index], slopes[index, line]))
    assert compared > 20 * mass_g.size
    assert len(wrong) <= KINKS_ALLOWED * compared, wrong[:10]
    of_one = Counter(path for path, *_rest in wrong)
    assert not of_one or of_one.most_common(1)[0][1] <= 1, "a kink is at some lines, a wrong slope at all"


@given(x=st.floats(0.1, 5), y=st.floats(0.1, 5))
def test_the_rules_of_differentiation(x: float, y: float) -> None:
    """Product, quotient, power and chain rule against the textbook derivatives."""
    a, b = Sloped(x, np.array([1.0, 0.0])), Sloped(y, np.array([0.0, 1.0]))
    cases = [
        (a * b, y, x),
        (a / b, 1 / y, -x / y**2),
        (3 / a, -3 / x**2, 0),
        (2 - a + b, -1, 1),
        (a**3, 3 * x**2, 0),
        (2**a, 2**x * math.log(2), 0),
        (exp(a * b), y * math.exp(x * y), x * math.exp(x * y)),
        (log1p(a), 1 / (1 + x), 0),
        (sqrt(a), 0.5 / math.sqrt(x), 0),
        (cbrt(a), 1 / (3 * math.cbrt(x) ** 2), 0),
        (abs(-a), 1, 0),
        (min(a, b), 1 if x <= y else 0, 0 if x <= y else 1),
    ]
    for value, by_x, by_y in cases:
        assert isinstance(value, Sloped)
        assert value.slopes == pytest.approx([by_x, by_y], rel=1e-9, abs=1e-12)
