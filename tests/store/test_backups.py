"""Backups: thinned as promised, brought back while the studio is served, with what was there kept."""

from __future__ import annotations

import io
from datetime import UTC, datetime, timedelta

import pytest
from flask.testing import FlaskClient
from hypothesis import given
from hypothesis import strategies as st

from rosy_kettle.core.errors import NotFoundError
from rosy_kettle.store import Studio
from rosy_kettle.store.backups import Backup, backup_folder, bring_back, is_due, list_backups, make_backup, to_thin
from rosy_kettle.usecases.studio.back_up_daily import back_up_if_due
from tests.api.test_api import created

NOW = datetime(2026, 11, 29, 3, tzinfo=UTC)


def daily(days_ago: float) -> Backup:
    at = NOW - timedelta(days=days_ago)
    return Backup(f"studio-daily-{at:%Y%m%dT%H%M%SZ}-1.sqlite3", at, 1, by_hand=False)


def test_two_years_of_days_leave_seven_days_four_weeks_twelve_months() -> None:
    """By the calendar: 7 days, of the 4 weeks the newest of 2 are among them, of the 12 months the newest of 1."""
    backups = [daily(day) for day in range(730)]
    kept = [each for each in backups if each not in to_thin(backups)]
    ages = [(NOW - each.made_at).days for each in kept]
    assert ages[:7] == [0, 1, 2, 3, 4, 5, 6]
    weeks = {each.made_at.strftime("%G-%V") for each in kept[:10]}
    assert len(weeks) == 4
    assert len({each.made_at.strftime("%Y-%m") for each in kept}) == 12
    assert len(kept) <= 7 + 4 + 12


@given(st.lists(st.floats(0, 1000), unique=True, max_size=60))
def test_thinning_again_thins_nothing_and_the_newest_stays(ages: list[float]) -> None:
    backups = [daily(age) for age in ages]
    kept = [each for each in backups if each not in to_thin(backups)]
    assert to_thin(kept) == []
    assert not backups or max(backups, key=lambda each: each.made_at) in kept


def test_a_backup_is_due_once_a_day(studio: Studio) -> None:
    now = datetime.now(UTC)
    assert back_up_if_due(studio, now)
    assert not back_up_if_due(studio, now + timedelta(hours=23))
    assert is_due(list_backups(backup_folder(studio.path)), now + timedelta(hours=25))


def test_brought_back_the_studio_is_as_it_was_and_what_was_there_is_kept(client: FlaskClient, studio: Studio) -> None:
    created(client)
    backup = make_backup(studio, by_hand=True)
    created(client)
    restored = client.post(f"/api/backups/{backup.name}/restore")
    assert restored.status_code == 200, restored.text
    assert len(client.get("/api/formulas").json["formulas"]) == 1
    names = {each["name"] for each in client.get("/api/backups").json["items"]}
    assert {backup.name, restored.json["kept"]} <= names
    back = client.post(f"/api/backups/{restored.json['kept']}/restore")
    assert back.status_code == 200
    assert len(client.get("/api/formulas").json["formulas"]) == 2
    created(client)
    assert len(client.get("/api/formulas").json["formulas"]) == 3


def test_a_damaged_or_unknown_backup_changes_nothing(client: FlaskClient, studio: Studio) -> None:
    created(client)
    backup = make_backup(studio, by_hand=True)
    path = backup_folder(studio.path) / backup.name
    whole = bytearray(path.read_bytes())
    whole[5000:9000] = b"\0" * 4000
    path.write_bytes(whole)
    refused = client.post(f"/api/backups/{backup.name}/restore")
    assert refused.status_code == 422
    assert "damaged" in refused.json["message"]
    assert len(client.get("/api/formulas").json["formulas"]) == 1
    with pytest.raises(NotFoundError):
        bring_back(studio, "studio-kept-20200101T000000Z-1.sqlite3")
    assert client.post("/api/backups/..%2Fstudio.sqlite3/restore").status_code in {404, 422}


def test_the_studio_goes_out_and_in_over_http(client: FlaskClient) -> None:
    created(client)
    with client.get("/api/studio.zip") as sent:
        assert sent.mimetype == "application/zip"
        data = sent.data
    refused = client.post("/api/studio.zip", data={"file": (io.BytesIO(data), "studio.zip")})
    assert "not empty" in refused.json["message"]
    merged = client.post("/api/studio.zip?merge=true", data={"file": (io.BytesIO(data), "studio.zip")})
    assert (merged.status_code, merged.json["taken"], merged.json["differences"]) == (200, {}, [])
    assert client.post("/api/studio.zip", data={"file": (io.BytesIO(b"hello"), "studio.zip")}).status_code == 422
    assert client.post("/api/studio.zip").status_code == 422
    assert client.get("/api/studio.zip/progress").json["running"] is False


def test_an_empty_studio_takes_its_place_and_what_was_there_comes_back(client: FlaskClient) -> None:
    created(client)
    kept = client.delete("/api/studio").json["kept"]
    assert client.get("/api/formulas").json["formulas"] == []
    assert client.post(f"/api/backups/{kept}/restore").status_code == 200
    assert len(client.get("/api/formulas").json["formulas"]) == 1
