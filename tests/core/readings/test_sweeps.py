"""Sweeps: an ingredient from nothing to three times, room, humidity, dose, tub, piece; no reading jumps over its own band."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest

from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Piece, Room, Tables, Use
from rosy_kettle.core.records.evaluation import Evaluation
from tests.conftest import make_formula

MADE: dict[str, tuple[str, dict[str, float]]] = {
    "scoop": ("betaine-dough", {"baking_soda": 220, "slsa_fine": 80, "corn_starch": 110, "cream_of_tartar": 28, "kaolin": 12, "capb_liquid": 58,
                                "avocado_oil": 27, "glycerin": 37, "sea_salt_fine": 10}),
    "truffle": ("butter-dough", {"baking_soda": 400, "citric_acid_anhydrous": 200, "cream_of_tartar": 60, "slsa_fine": 120, "cocoa_butter": 90,
                                 "shea_butter": 90, "glycerin": 30, "polysorbate_80": 20}),
    "ball": ("damp-press", {"baking_soda": 400, "citric_acid_anhydrous": 200, "corn_starch": 40, "epsom_salt": 30, "slsa_fine": 10,
                            "sweet_almond_oil": 12, "distilled_water": 6}),
    "melt": ("melt", {"cocoa_butter": 60, "shea_butter": 30, "emulsifying_wax": 15, "beeswax": 5, "baking_soda": 20, "citric_acid_anhydrous": 10}),
}  # fmt: skip
BANDS: dict[str, Callable[[float, float], bool]] = {
    "dough.saturation": lambda a, b: abs(a - b) <= 0.17 * max(a, b) + 0.02,
    "firmness.at_20_c": lambda a, b: abs(a - b) <= 12,
    "drying.hours": lambda a, b: max(a, b) <= 1.5 * min(a, b) + 1,
    "lather.score": lambda a, b: abs(a - b) <= 12,
    "feel.ring": lambda a, b: abs(a - b) <= 15,
    "release.minutes": lambda a, b: max(a, b) <= 1.6 * min(a, b) + 0.5,
    "bath.ph_stepin": lambda a, b: abs(a - b) <= 0.35,
    "piece.density_g_ml": lambda a, b: abs(a - b) <= 0.07 * max(a, b),
    "skin.harshness_mg_l": lambda a, b: abs(a - b) <= 0.6 * max(a, b) + 0.5,
}
STEPS, FINER = 37, 65


def read(result: Evaluation, path: str) -> float | None:
    value: object = result
    for name in path.split("."):
        value = getattr(value, name, None)
    return value if isinstance(value, float) else None


Sweep = tuple[Callable[[float], Formula], np.ndarray]


def jumps(tables: Tables, sweep: Sweep) -> list[str]:
    """Steps over a reading's band that stay one however finely they are walked; a steep slope is no jump."""
    formula_at, points = sweep
    results = [evaluate(formula_at(float(at)), tables) for at in points]
    found = []
    for path, near in BANDS.items():
        for (low, before), (high, after) in pairwise(zip(points, (read(result, path) for result in results), strict=True)):
            if before is None or after is None or near(before, after):
                continue
            finer = [read(evaluate(formula_at(float(at)), tables), path) for at in np.linspace(low, high, FINER)]
            if any(one is not None and two is not None and not near(one, two) for one, two in pairwise(finer)):
                found.append(f"{path} between {low:.3g} and {high:.3g}: {before:.3g} to {after:.3g}")
    return found


@pytest.mark.parametrize("name", MADE)
def test_no_ingredient_makes_a_reading_jump(tables: Tables, name: str) -> None:
    method, grams = MADE[name]
    found = {}
    for swept, amount in grams.items():

        def with_share(share: float, swept: str = swept, amount: float = amount) -> Formula:
            return make_formula(method, **{**grams, swept: share * amount})

        if said := jumps(tables, (with_share, np.linspace(0.0, 3.0, STEPS))):
            found[swept] = said
    assert found == {}


@pytest.mark.parametrize("name", MADE)
def test_neither_air_nor_bath_nor_size_makes_a_reading_jump(tables: Tables, name: str) -> None:
    method, grams = MADE[name]
    body = make_formula(method, **grams)
    sweeps: dict[str, Sweep] = {
        "humidity": (lambda humidity: replace(body, room=Room(21, humidity)), np.linspace(10, 76, 60)),
        "room": (lambda at_c: replace(body, room=Room(at_c, 45)), np.linspace(12, 30, 60)),
        "dose": (lambda dose: replace(body, use=Use(dose_g=dose)), np.geomspace(10, 150, 30)),
        "tub": (lambda tub: replace(body, use=Use(tub_l=tub)), np.geomspace(40, 400, 30)),
        "piece": (lambda mass: replace(body, piece=Piece(mass_g=mass)), np.geomspace(15, 400, 40)),
    }
    assert {what: said for what, sweep in sweeps.items() if (said := jumps(tables, sweep))} == {}


def test_directions_are_those_the_science_pages_state(tables: Tables) -> None:
    method, grams = MADE["scoop"]

    def along(path: str, name: str) -> list[float]:
        sweep = (make_formula(method, **{**grams, name: share * grams[name]}) for share in np.linspace(1.0, 2.5, 12))
        return [value for formula in sweep if (value := read(evaluate(formula, tables), path)) is not None]

    for path, name, rises in (
        ("dough.saturation", "capb_liquid", True), ("dough.saturation", "corn_starch", False), ("lather.score", "slsa_fine", True),
        ("lather.score", "avocado_oil", False), ("drying.hours", "glycerin", True), ("firmness.at_20_c", "glycerin", False),
        ("feel.oil_g", "avocado_oil", True), ("skin.harshness_mg_l", "slsa_fine", True),
    ):  # fmt: skip
        values = along(path, name)
        assert len(values) > 3
        assert values == sorted(values, reverse=not rises), (path, name)
