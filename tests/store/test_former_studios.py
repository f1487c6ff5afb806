"""Studios of every former schema, each seeded by the code of its time, are brought up to date with nothing lost."""

from __future__ import annotations

import lzma
import sqlite3
from collections.abc import Iterator, Mapping
from contextlib import closing, contextmanager
from pathlib import Path
from types import MappingProxyType
from typing import Any

import pytest
from alembic.config import Config
from alembic.script import ScriptDirectory

from rosy_kettle.api.app import create_app
from rosy_kettle.store import open_studio
from rosy_kettle.store.lots import list_stock
from rosy_kettle.store.session import FILE_NAME
from rosy_kettle.usecases.studio.exchange.export_studio import export_studio

KEPT = sorted((Path(__file__).parent / "former_studios").glob("*.sqlite3.xz"))
MIGRATIONS = Path(__file__).parents[2] / "src/rosy_kettle/store/migrations"
STOCK_BECAME_LOTS = "stock"
"""The table of one figure an ingredient, which became opening lots."""
WORKED_OUT = ("glance", "journal", "batch_glance")
"""Tables whose rows are worked out from others, and made anew."""


def rows_of(path: Path) -> dict[str, list[dict[str, Any]]]:
    """All rows of all tables, by name; what SQLite and alembic keep for themselves is left out."""
    with closing(sqlite3.connect(path)) as connection:
        connection.row_factory = sqlite3.Row
        asked = "SELECT name FROM sqlite_master WHERE type = 'table' AND sql NOT LIKE 'CREATE VIRTUAL%'"
        names = [row[0] for row in connection.execute(asked)]
        return {
            name: [dict(row) for row in connection.execute(f'SELECT * FROM "{name}"')]
            for name in names if not name.startswith(("sqlite_", "alembic_", *WORKED_OUT))
        }  # fmt: skip


@contextmanager
def brought_up(
    kept: Path, folder: Path, on_hand_g_by_id: Mapping[str, float] = MappingProxyType({})
) -> Iterator[tuple[dict[str, list[dict[str, Any]]], Any]]:
    """A former studio before, and the app on what it became."""
    path = folder / FILE_NAME
    path.write_bytes(lzma.decompress(kept.read_bytes()))
    for id_, on_hand_g in on_hand_g_by_id.items():
        with closing(sqlite3.connect(path)) as connection, connection:
            connection.execute(f"INSERT OR REPLACE INTO {STOCK_BECAME_LOTS} VALUES (?, ?, '2026-01-01')", (id_, on_hand_g))
    before = rows_of(path)
    studio = open_studio(folder)
    try:
        yield before, create_app(studio).test_client()
    finally:
        studio.close()


def test_every_former_schema_has_its_studio() -> None:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    former = [Path(each.path).stem for each in ScriptDirectory.from_config(config).walk_revisions()][1:]
    assert [each.name.removesuffix(".sqlite3.xz") for each in KEPT] == sorted(former), "make former-studio before a migration"


@pytest.mark.parametrize("kept", KEPT, ids=lambda each: each.name[:4])
def test_a_former_studio_keeps_every_row_and_answers_on_every_list(kept: Path, tmp_path: Path) -> None:
    with brought_up(kept, tmp_path) as (before, client):
        after = rows_of(tmp_path / FILE_NAME)
        for name, rows in before.items():
            if name == STOCK_BECAME_LOTS:
                continue
            now = [{key: row[key] for key in row if key in (rows[0] if rows else {})} for row in after[name]]
            assert now == rows, f"every row of {name}, in every column it had"
        assert list(tmp_path.glob("*before-*")), "a copy was made first"
        with closing(sqlite3.connect(tmp_path / FILE_NAME)) as connection:
            assert connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
            assert connection.execute("PRAGMA foreign_key_check").fetchall() == []
        formulas = client.get("/api/formulas?limit=200").json["formulas"]
        assert {each["name"] for each in formulas} == {row["name"] for row in before["formulas"]}
        for each in formulas:
            assert client.get(f"/api/formulas/{each['id']}").status_code == 200
        batches = client.get("/api/batches?limit=200").json["batches"]
        assert len(batches) == len(before.get("batches", []))
        for each in batches[:5]:
            told = client.get(f"/api/batches/{each['id']}")
            assert told.status_code == 200
            assert len(told.json["events"]) == sum(row["batch_id"] == each["id"] for row in before["batch_events"])
        for page in (
            "rack",
            "tub-tests",
            "journal",
            "lots",
            "orders",
            "learning",
            "labels",
            "troubles",
            "ingredients",
            "settings",
        ):
            assert client.get(f"/api/{page}").status_code == 200, page
        assert export_studio(client.application.extensions["studio"], tmp_path / "whole.zip") > len(before["formulas"])


@pytest.mark.parametrize("kept", [each for each in KEPT if "0004" <= each.name < "0014"], ids=lambda each: each.name[:4])
def test_what_was_on_hand_became_an_opening_lot(kept: Path, tmp_path: Path) -> None:
    said = {"glycerin": 123.4, "baking-soda": 5000.0}
    with brought_up(kept, tmp_path, said) as (before, client), client.application.extensions["studio"].reading() as session:
        assert {row["ingredient_id"]: row["on_hand_g"] for row in before[STOCK_BECAME_LOTS]}.items() >= said.items()
        on_hand_g = list_stock(session)
        assert {row["ingredient_id"]: on_hand_g[row["ingredient_id"]] for row in before[STOCK_BECAME_LOTS]} == pytest.approx(
            {row["ingredient_id"]: row["on_hand_g"] for row in before[STOCK_BECAME_LOTS]}
        )
