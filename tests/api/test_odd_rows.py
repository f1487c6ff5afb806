"""A row of another version, or of another hand, is shown as not understood and takes no page with it."""

from __future__ import annotations

import shutil
import sqlite3
from contextlib import closing
from io import BytesIO
from pathlib import Path
from zipfile import ZipFile

import pytest
from flask_openapi3 import OpenAPI

from rosy_kettle.api import put_studio
from rosy_kettle.store import Studio, open_studio
from rosy_kettle.usecases.studio.studio_settings import StudioSettings, change_settings, studio_settings
from rosy_kettle.usecases.studio.studio_warnings import settings_not_understood, state_of_studio

AFTER = "SELECT {of}, max(seq) + 1, max(at), {kind}, {data} FROM {table} GROUP BY {of} LIMIT 1"
EVENTS = (("batch_events", "batch_id", "note"), ("tray_events", "tray_id", "weighed"), ("tub_test_events", "test_id", "foam"))


def event(table: str, of: str, kind: str, data: str) -> tuple[str]:
    told = AFTER.format(table=table, of=of, kind=repr(kind), data=repr(data))
    return (f"INSERT INTO {table} ({of}, seq, at, kind, data) {told}",)


ODD_ROWS = {
    "studio": (
        "UPDATE settings SET said = json_set(said, '$.moon', 1, '$.hands', 'two')",
        "INSERT INTO own_ingredients VALUES ('own-gone', 'gone-base', 'Gone', 'Gone', '', '{}', '2026-01-01 00:00:00.000000')",
        "UPDATE lines SET ingredient_id = 'own-gone' WHERE id = (SELECT min(id) FROM lines)",
        "UPDATE lots SET ingredient_id = 'own-gone' WHERE id = (SELECT min(id) FROM lots)",
        "UPDATE orders SET formula_id = 999999 WHERE id = (SELECT min(id) FROM orders)",
        "UPDATE orders SET due_at = '9999-12-31 23:59:59.000000' WHERE id = (SELECT max(id) FROM orders)",
    ),
    "method": (
        "UPDATE versions SET method = 'moon-dough'",
        "UPDATE batches SET method = 'moon-dough'",
        "DELETE FROM formula_glances",
    ),
    "events": tuple(
        statement
        for table, of, kind in EVENTS
        for told in (("moonlit", "{}"), (kind, "[1]"), (kind, '{"mass_g": "x", "text": 7, "height_cm": []}'))
        for statement in event(table, of, *told)
    ),
}
PAGES = (
    "/api/formulas", "/api/formulas/1", "/api/batches", "/api/batches/1", "/api/rack", "/api/journal", "/api/calendar.ics",
    "/api/shopping-list", "/api/shopping-list.csv", "/api/lots", "/api/orders", "/api/settings", "/api/profiles", "/api/reference",
    "/api/ingredients", "/api/learning", "/api/tub-tests", "/api/trial-designs", "/api/troubles", "/api/labels", "/api/air/typed",
    "/api/batches/1/record.json", "/api/batches/1/record.pdf", "/api/backups/warnings",
)  # fmt: skip


def spoilt(seeded: Path, folder: Path, statements: tuple[str, ...]) -> Studio:
    shutil.copy(seeded, folder)
    with closing(sqlite3.connect(folder / seeded.name)) as connection, connection:
        for statement in statements:
            assert connection.execute(statement).rowcount > 0, statement
    return open_studio(folder)


@pytest.mark.parametrize("name", ODD_ROWS)
def test_every_page_survives_an_odd_row(name: str, app: OpenAPI, seeded: Path, tmp_path: Path) -> None:
    with closing(spoilt(seeded, tmp_path, ODD_ROWS[name])) as studio:
        put_studio(app, studio)
        client = app.test_client()
        for page in PAGES:
            with client.get(page) as answer:
                assert answer.status_code == 200, (page, answer.text[:200])
        assert client.post("/api/week", json={"days": 7, "seconds": 0, "utc_offset_min": 600}).status_code == 200
        with client.get("/api/studio.zip") as made:
            assert ZipFile(BytesIO(made.data)).testzip() is None


def test_what_is_not_understood_is_said_and_kept(seeded: Path, tmp_path: Path) -> None:
    with closing(spoilt(seeded, tmp_path, ODD_ROWS["studio"])) as studio:
        (said,) = state_of_studio(studio.path).warnings
        assert said.code == "unknown_settings"
        assert "hands, moon" in said.text
        with studio.writing() as session:
            assert studio_settings(session).hands == StudioSettings().hands
            change_settings(session, StudioSettings(hands=3))
        assert settings_not_understood(studio.path) == ("moon",)
        with studio.reading() as session:
            assert studio_settings(session).hands == 3


@pytest.mark.parametrize(("table", "of", "kind"), EVENTS)
def test_check_counts_what_is_no_event(table: str, of: str, kind: str, seeded: Path, tmp_path: Path) -> None:
    statements = event(table, of, "moonlit", "{}") + event(table, of, kind, "[1]")
    with closing(spoilt(seeded, tmp_path, statements)) as studio:
        assert state_of_studio(studio.path).events_unknown == 2


def test_a_formula_of_another_version_is_listed_and_says_its_way_out(app: OpenAPI, seeded: Path, tmp_path: Path) -> None:
    with closing(spoilt(seeded, tmp_path, ODD_ROWS["method"])) as studio:
        put_studio(app, studio)
        client = app.test_client()
        listed = client.get("/api/formulas").json["formulas"]
        assert {each["method_name"] for each in listed} == {"moon-dough"}
        assert {each["fits"] for each in listed} == {None}
        refused = client.get("/api/formulas/1/run-sheet")
        assert refused.status_code == 422
        assert "choose another" in refused.json["message"]


@pytest.mark.parametrize(
    ("said", "named"),
    [("[1]", "all of them"), ('{"week": [], "hands": 2}', "week"), ('{"week": [[9, 17]], "spray_ml": "x"}', "spray_ml")],
)
def test_settings_that_are_none_are_said(said: str, named: str, app: OpenAPI, seeded: Path, tmp_path: Path) -> None:
    with closing(spoilt(seeded, tmp_path, (f"UPDATE settings SET said = '{said}'",))) as studio:
        put_studio(app, studio)
        assert app.test_client().post("/api/week", json={"days": 7, "seconds": 0, "utc_offset_min": 600}).status_code == 200
        assert named in state_of_studio(studio.path).warnings[0].text
