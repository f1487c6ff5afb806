"""Acknowledged means kept: also while the studio is moved under writers, and said where somebody took the newest writes away."""

from __future__ import annotations

import json
import subprocess
import sys
import threading
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from click.testing import CliRunner
from sqlalchemy import select

from rosy_kettle.cli import commands
from rosy_kettle.store import Studio, open_studio
from rosy_kettle.store.acknowledged import missing_after
from rosy_kettle.store.backups import Backup, begin_anew, bring_back, is_due, last_good, make_backup, to_thin
from rosy_kettle.store.ingredients import IngredientSynonymRow, learn_synonym
from rosy_kettle.usecases.studio.check_studio import check_studio
from rosy_kettle.usecases.studio.keep_copies import restore_studio
from rosy_kettle.usecases.studio.studio_warnings import state_of_studio

NOW = datetime(2026, 11, 24, 12, tzinfo=UTC)


def words(studio: Studio) -> set[str]:
    with studio.reading() as session:
        return set(session.scalars(select(IngredientSynonymRow.phrase)))


def write_until(studio: Studio, stopped: threading.Event, kept: list[str], name: str) -> None:
    number = 0
    while not stopped.is_set():
        number += 1
        with studio.writing() as session:
            learn_synonym(session, f"{name} {number}", "glycerin")
        kept.append(f"{name} {number}")


@pytest.mark.parametrize("move", ["begin anew", "bring back"])
def test_what_two_writers_are_told_is_kept_stands_in_the_studio_or_in_the_copy(tmp_path: Path, move: str) -> None:
    studio = open_studio(tmp_path)
    backup = make_backup(studio, by_hand=True).name
    stopped, kept = threading.Event(), list[str]()
    writers = [threading.Thread(target=write_until, args=(studio, stopped, kept, name)) for name in ("one", "other")]
    for writer in writers:
        writer.start()
    copies = [begin_anew(studio) if move == "begin anew" else bring_back(studio, backup) for _ in range(4)]
    stopped.set()
    for writer in writers:
        writer.join()
    there = words(studio)
    for copy in copies:
        folder = tmp_path / copy.removesuffix(".sqlite3")
        folder.mkdir()
        (tmp_path / "backups" / copy).rename(folder / "studio.sqlite3")
        opened = open_studio(folder)
        there |= words(opened)
        opened.close()
    studio.close()
    assert len(kept) > 20
    assert set(kept) - there == set()


def test_a_log_that_was_taken_away_is_said(tmp_path: Path) -> None:
    """Five writes in the write-ahead log of a process that is killed; the log is deleted; the file opens without them."""
    script = (
        "import os, sys\nfrom pathlib import Path\nfrom rosy_kettle.store import open_studio\n"
        "from rosy_kettle.store.ingredients import learn_synonym\n"
        "studio = open_studio(Path(sys.argv[1]))\n"
        "for number in range(5):\n"
        "    with studio.writing() as session:\n        learn_synonym(session, f'word {number}', 'glycerin')\n"
        "os.kill(os.getpid(), 9)\n"
    )
    open_studio(tmp_path).close()
    subprocess.run([sys.executable, "-c", script, str(tmp_path)], check=False)
    whole = open_studio(tmp_path)
    assert (len(words(whole)), missing_after(whole.path)) == (5, None)
    whole.watcher.close()
    whole.engine.dispose()
    subprocess.run([sys.executable, "-c", script.replace("word", "more"), str(tmp_path)], check=False)
    for ending in ("-wal", "-shm"):
        (tmp_path / f"studio.sqlite3{ending}").unlink(missing_ok=True)
    found = check_studio(tmp_path)
    assert (found.integrity, found.missing_after) == ("ok", missing_after(tmp_path / "studio.sqlite3")[0])  # type: ignore[index]
    assert missing_after(tmp_path / "studio.sqlite3")[1] == 5  # type: ignore[index]
    assert "5 acknowledged writes are missing" in found.warnings[0].text
    environment = {"ROSY_KETTLE_DATA": str(tmp_path)}
    asked = CliRunner().invoke(commands, ["check"], env=environment, standalone_mode=False)
    assert asked.exception is not None
    assert json.loads(asked.stdout)["missing_after"] == found.missing_after
    assert check_studio(tmp_path, repair=True).missing_after is None
    studio = open_studio(tmp_path)
    with studio.writing() as session:
        learn_synonym(session, "goes on", "glycerin")
    studio.close()
    assert check_studio(tmp_path).missing_after is None


def test_another_studio_in_its_place_is_no_loss(tmp_path: Path) -> None:
    studio = open_studio(tmp_path)
    backup = make_backup(studio, by_hand=True).name
    for number in range(3):
        with studio.writing() as session:
            learn_synonym(session, f"word {number}", "glycerin")
    bring_back(studio, backup)
    assert missing_after(studio.path) is None
    studio.close()
    restore_studio(tmp_path / "backups" / backup, tmp_path)
    assert check_studio(tmp_path).missing_after is None


def backups(*days_ago: float) -> list[Backup]:
    made = [Backup(f"b{days}", NOW - timedelta(days=days), 1, by_hand=False) for days in days_ago]
    return sorted(made, key=lambda each: each.made_at, reverse=True)


def test_a_clock_that_once_ran_ahead_does_not_end_the_daily_backups() -> None:
    there = backups(-3650, 0.5)
    assert not is_due(there, NOW)
    assert is_due(there, NOW + timedelta(days=1))
    assert last_good(there, NOW) == there[1]
    assert is_due(backups(-3650), NOW)
    ahead = Backup("ahead", datetime.now(UTC) + timedelta(days=3650), 1, by_hand=False)
    assert ahead not in to_thin([ahead, *backups(*range(40))]), "it is kept, and thins nothing"


def test_an_old_backup_and_a_clock_ahead_are_said(tmp_path: Path) -> None:
    studio = open_studio(tmp_path)
    name = make_backup(studio, by_hand=True).name
    studio.close()
    assert state_of_studio(studio.path).warnings == ()
    (old,) = state_of_studio(studio.path, datetime.now(UTC) + timedelta(days=3)).warnings
    assert (old.code, "3 days old" in old.text) == ("old_backup", True)
    (tmp_path / "backups" / name).rename(tmp_path / "backups" / "studio-daily-20361124T120000Z-1.sqlite3")
    state = state_of_studio(studio.path)
    assert state.last_backup_at is None
    assert [each.code for each in state.warnings] == ["old_backup", "clock_ahead"]
