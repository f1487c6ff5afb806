"""A damaged file at the start: the newest whole backup is one press away, the damaged file stays beside it."""

from __future__ import annotations

from pathlib import Path

import pytest

from rosy_kettle.api.app import create_app
from rosy_kettle.api.rescue import good_backups, make_rescue_app
from rosy_kettle.core.errors import InputError
from rosy_kettle.store import open_studio
from rosy_kettle.store.backups import backup_folder, make_backup
from tests.api.test_api import created

HOST = {"Host": "127.0.0.1:8421"}


def damaged(folder: Path) -> str:
    """Make a studio with two backups, one of them damaged, and damage its file."""
    studio = open_studio(folder)
    created(create_app(studio).test_client())
    good = make_backup(studio, by_hand=True).name
    bad = make_backup(studio, by_hand=True).name
    studio.close()
    for path in (backup_folder(studio.path) / bad, studio.path):
        data = bytearray(path.read_bytes())
        data[4096 * 3 : 4096 * 20] = b"\7" * (4096 * 17)
        path.write_bytes(data)
    (folder / "studio.sqlite3-wal").touch()
    return good


def test_one_press_brings_the_newest_whole_backup_back(tmp_path: Path) -> None:
    good = damaged(tmp_path)
    with pytest.raises(InputError, match="damaged"):
        open_studio(tmp_path)
    assert [each.name for each in good_backups(tmp_path)] == [good]
    client = make_rescue_app(tmp_path, "It is damaged.", {"127.0.0.1"}).test_client()
    page = client.get("/", headers=HOST).data.decode()
    assert good in page
    assert page.count("Bring it back") == 1
    assert b"Brought back" in client.post(f"/rescue/{good}", headers=HOST).data
    studio = open_studio(tmp_path)
    assert len(create_app(studio).test_client().get("/api/formulas").json["formulas"]) == 1
    studio.close()
    assert len(list(tmp_path.glob("studio-damaged-*"))) == 1


def test_a_foreign_page_cannot_press_it_and_no_other_file_comes_back(tmp_path: Path) -> None:
    good = damaged(tmp_path)
    app = make_rescue_app(tmp_path, "It is damaged.", {"127.0.0.1"})
    client = app.test_client()
    foreign = client.post(f"/rescue/{good}", headers={**HOST, "Origin": "http://evil.example"})
    assert foreign.status_code == 403
    assert client.get("/", headers={"Host": "evil.example"}).status_code == 421
    assert b"not there" in client.post("/rescue/studio-kept-20200101T000000Z-1.sqlite3", headers=HOST).data
    assert not app.extensions["rescued"].is_set()
