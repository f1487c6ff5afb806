"""Two tests in the tub of the invented studio: one that stood taller than foretold, one of another formula beside it."""

from __future__ import annotations

from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.records import Use
from rosy_kettle.store.formulas import list_formulas
from rosy_kettle.usecases.happen import Coming
from rosy_kettle.usecases.tub.run_test import TestBegin, begin_test, let_test_happen

__all__ = ["seed_tub"]

DOSE_G = 25.0
TESTS: tuple[tuple[str, tuple[tuple[float, float], ...], dict[str, Any]], ...] = (
    ("Peat bricks", ((1.0, 0.6), (5.0, 2.1), (20.0, 1.6)), {"floats": "sinks, then rises", "ring": "thin, wiped off"}),
    ("Limpet domes", ((1.0, 1.1), (5.0, 5.2), (10.0, 4.8), (20.0, 3.9)), {"floats": "floats", "ring": "none", "scent": "good"}),
)  # fmt: skip
"""Formula, minutes and centimetres of foam, and what else was seen."""


def seed_tub(session: Session) -> None:
    """Make the demo's tests, each closed with a little of the piece left."""
    rows = {row.name: row.id for row in list_formulas(session)}
    for name, heights, seen in TESTS:
        test_id = begin_test(session, TestBegin(Use(dose_g=DOSE_G, way="crumbled"), formula_id=rows[name]))
        happenings: list[tuple[str, dict[str, Any]]] = [("opened", {})]
        happenings += [("foam", {"minutes": minutes, "height_cm": height_cm}) for minutes, height_cm in heights]
        happenings += [("seen", seen), ("left", {"mass_g": 2 * DOSE_G}), ("closed", {})]
        for after, (kind, data) in enumerate(happenings):
            let_test_happen(session, test_id, Coming(after, kind, data))
