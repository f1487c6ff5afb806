"""How quick the Pantry is with 2 000 lots and 500 000 movements; prints a table in Markdown."""

from __future__ import annotations

import random
import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from sqlalchemy import insert, update

from rosy_kettle.api.app import create_app
from rosy_kettle.reference import load_tables
from rosy_kettle.store import open_studio
from rosy_kettle.store.base import now_utc
from rosy_kettle.store.lots import LotRow, MovementRow, list_stock

LOTS, MOVEMENTS, ROUNDS = 2_000, 500_000, 60


def _fill(folder: Path) -> None:
    rng = random.Random(5)  # noqa: S311 - made-up figures, no secret
    names = list(load_tables().ingredients)
    studio = open_studio(folder)
    with studio.writing() as session:
        session.execute(insert(LotRow), [
            {
                "id": at + 1, "ingredient_id": names[at % len(names)], "code": f"B{at:05d}", "supplier": "Quay stores",
                "quantity_g": 50_000.0, "left_g": 0.0, "properties": {}, "counted": True, "currency": "USD",
            }
            for at in range(LOTS)
        ])  # fmt: skip
        left_g = [50_000.0] * LOTS
        moved = [{"lot_id": at + 1, "kind": "bought", "mass_g": 50_000.0, "reason": "", "at": now_utc()} for at in range(LOTS)]
        for _ in range(MOVEMENTS - LOTS):
            at, mass_g = rng.randrange(LOTS), round(rng.uniform(1, 150), 1)
            left_g[at] -= mass_g
            moved.append({"lot_id": at + 1, "kind": "used", "mass_g": -mass_g, "reason": "", "at": now_utc()})
        for begin in range(0, len(moved), 20_000):
            session.execute(insert(MovementRow), moved[begin : begin + 20_000])
        session.execute(update(LotRow), [{"id": at + 1, "left_g": value} for at, value in enumerate(left_g)])
    studio.close()


def _p95_ms(act: Callable[[], object]) -> float:
    times = []
    for _ in range(ROUNDS):
        begun = time.perf_counter()
        act()
        times.append(1000 * (time.perf_counter() - begun))
    return statistics.quantiles(times, n=20)[-1]


def main() -> None:
    """Fill a studio that is thrown away, and time what is asked of it."""
    with tempfile.TemporaryDirectory() as folder:
        _fill(Path(folder))
        studio = open_studio(Path(folder))
        client = create_app(studio).test_client()
        with studio.reading() as session:
            print(f"| on hand of all ingredients | {_p95_ms(lambda: list_stock(session)):.1f} ms |")
        for path in ("/api/lots", "/api/lots?q=B01", "/api/lots?cursor=900&limit=200", "/api/movements", "/api/lots/700"):
            print(f"| {path} | {_p95_ms(lambda path=path: client.get(path)):.1f} ms |")
        studio.close()


if __name__ == "__main__":
    main()
