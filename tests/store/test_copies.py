"""Backup, restore, reset and start: an acknowledged write is never lost, and nothing that is not ours is touched.

Checked with SQLite's own integrity check and backup API, and by a second process that holds the studio meanwhile.
"""

from __future__ import annotations

import multiprocessing
import os
import shutil
import sqlite3
import stat
import tempfile
import threading
import time
from contextlib import closing
from multiprocessing.synchronize import Event
from pathlib import Path

import pytest
from sqlalchemy import select

from rosy_kettle.core.errors import InputError
from rosy_kettle.store import open_studio
from rosy_kettle.store.batches import BatchRow, add_event, list_events
from rosy_kettle.store.ingredients import learn_synonym
from rosy_kettle.store.photos import keep_photo, photo_folder, settle_photo, settle_waiting_photos
from rosy_kettle.usecases.studio.check_studio import check_studio
from rosy_kettle.usecases.studio.keep_copies import backup_studio, restore_studio
from rosy_kettle.usecases.studio.seed_demo import reset_demo


def write(folder: Path, phrase: str) -> None:
    studio = open_studio(folder)
    with studio.writing() as session:
        learn_synonym(session, phrase, "kaolin")
    studio.close()


def phrases(path: Path) -> set[str]:
    with closing(sqlite3.connect(path)) as connection:
        assert connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
        return {row[0] for row in connection.execute("SELECT phrase FROM ingredient_synonyms")}


def serve(folder: str, ready: Event, stop: Event) -> None:
    studio = open_studio(Path(folder), serving=True)
    ready.set()
    stop.wait(60)
    studio.close()


def test_a_served_studio_is_neither_reset_nor_restored(tmp_path: Path) -> None:
    write(tmp_path, "first word")
    backup_studio(tmp_path / "copy.sqlite3", tmp_path)
    context = multiprocessing.get_context("spawn")
    ready, stop = context.Event(), context.Event()
    other = context.Process(target=serve, args=(str(tmp_path), ready, stop))
    other.start()
    assert ready.wait(60)
    try:
        for move in (lambda: reset_demo(tmp_path), lambda: restore_studio(tmp_path / "copy.sqlite3", tmp_path)):
            with pytest.raises(InputError, match="being served"):
                move()
        write(tmp_path, "while served")
        backup_studio(tmp_path / "online.sqlite3", tmp_path)
    finally:
        stop.set()
        other.join(60)
    assert phrases(tmp_path / "studio.sqlite3") >= {"first word", "while served"}
    assert phrases(tmp_path / "online.sqlite3") >= {"first word", "while served"}


def test_a_reset_keeps_every_former_studio_under_a_name_of_its_own(tmp_path: Path) -> None:
    kept = []
    for round_ in range(2):
        write(tmp_path, f"word {round_}")
        kept.append(reset_demo(tmp_path))
    assert len(set(kept)) == 2
    for round_, path in enumerate(kept):
        assert path is not None
        assert f"word {round_}" in phrases(path)
    assert not [path for path in tmp_path.iterdir() if path.name.startswith(".")], "nothing is left over"


def test_a_backup_comes_back_and_what_was_there_is_kept(tmp_path: Path) -> None:
    write(tmp_path, "early")
    rows = backup_studio(tmp_path / "b.sqlite3", tmp_path)
    assert rows["ingredient_synonyms"] >= 1
    write(tmp_path, "late")
    kept = restore_studio(tmp_path / "b.sqlite3", tmp_path)
    assert kept is not None
    assert "late" not in phrases(tmp_path / "studio.sqlite3")
    assert phrases(kept) >= {"early", "late"}
    with pytest.raises(InputError, match="there already"):
        backup_studio(tmp_path / "b.sqlite3", tmp_path)


def test_a_backup_taken_while_others_write_is_whole(tmp_path: Path, seeded: Path) -> None:
    shutil.copy(seeded, tmp_path)
    studio = open_studio(tmp_path)
    stop = threading.Event()

    def keep_writing() -> None:
        number = 0
        while not stop.is_set():
            with studio.writing() as session:
                learn_synonym(session, f"busy {number}", "kaolin")
            number += 1

    writer = threading.Thread(target=keep_writing)
    writer.start()
    try:
        for number in range(3):
            backup_studio(tmp_path / f"busy-{number}.sqlite3", tmp_path)
    finally:
        stop.set()
        writer.join()
        studio.close()
    for number in range(3):
        phrases(tmp_path / f"busy-{number}.sqlite3")


def test_a_damaged_or_foreign_backup_changes_nothing(tmp_path: Path) -> None:
    write(tmp_path, "precious")
    good = tmp_path / "good.sqlite3"
    backup_studio(good, tmp_path)
    data = bytearray(good.read_bytes())
    data[5000:9000] = b"\x55" * 4000
    (tmp_path / "bad.sqlite3").write_bytes(data)
    with closing(sqlite3.connect(tmp_path / "foreign.sqlite3")) as foreign:
        foreign.execute("CREATE TABLE formulas (id)")
        foreign.commit()
    (tmp_path / "empty.sqlite3").touch()
    for name in ("bad", "foreign", "empty", "missing"):
        with pytest.raises(InputError):
            restore_studio(tmp_path / f"{name}.sqlite3", tmp_path)
    assert "precious" in phrases(tmp_path / "studio.sqlite3")


@pytest.mark.parametrize("kind", ["empty", "text", "foreign", "newer", "damaged"])
def test_each_unfit_file_is_refused_in_its_own_words_and_left_alone(tmp_path: Path, kind: str) -> None:
    path = tmp_path / "studio.sqlite3"
    words = {
        "empty": "is empty",
        "text": "is not a Rosy Kettle studio",
        "foreign": "is not a Rosy Kettle studio",
        "newer": "newer",
        "damaged": "is damaged",
    }
    if kind == "empty":
        path.touch()
    elif kind == "text":
        path.write_text("shopping list " * 500)
    elif kind == "foreign":
        with closing(sqlite3.connect(path)) as foreign:
            foreign.execute("CREATE TABLE notes (id)")
            foreign.commit()
    elif kind == "damaged":  # a page in the middle, after a stop that left its log behind
        open_studio(tmp_path).close()
        pages = bytearray(path.read_bytes())
        middle = len(pages) // 2 // 4096 * 4096
        pages[middle : middle + 4096] = b"\x55" * 4096
        path.write_bytes(pages)
        path.with_name("studio.sqlite3-wal").touch()
    else:
        open_studio(tmp_path).close()
        with closing(sqlite3.connect(path)) as newer:
            newer.execute("UPDATE alembic_version SET version_num = '9999'")
            newer.commit()
    before = path.read_bytes()
    with pytest.raises(InputError, match=words[kind]):
        open_studio(tmp_path)
    assert path.read_bytes() == before


def test_files_are_for_their_owner_alone(tmp_path: Path) -> None:
    folder = tmp_path / "studio"
    open_studio(folder).close()
    assert stat.S_IMODE(folder.stat().st_mode) == 0o700
    assert stat.S_IMODE((folder / "studio.sqlite3").stat().st_mode) == 0o600


def test_after_a_stop_the_studio_is_one_file(tmp_path: Path) -> None:
    write(tmp_path, "folded in")
    assert not list(tmp_path.glob("studio.sqlite3-*"))


def test_what_happened_cannot_be_replaced(tmp_path: Path, seeded: Path) -> None:
    shutil.copy(seeded, tmp_path)
    studio = open_studio(tmp_path)
    studio.close()
    with closing(sqlite3.connect(tmp_path / "studio.sqlite3")) as connection:
        row = connection.execute("SELECT * FROM batch_events LIMIT 1").fetchone()
        with pytest.raises(sqlite3.IntegrityError, match="never changed"):
            connection.execute(f"INSERT OR REPLACE INTO batch_events VALUES ({','.join('?' * len(row))})", row)


def test_of_photos_left_waiting_only_those_with_an_event_stay(tmp_path: Path, seeded: Path) -> None:
    """And no other is touched: a kept copy may name what the present studio does not."""
    shutil.copy(seeded, tmp_path)
    studio = open_studio(tmp_path)
    folder = photo_folder(studio.path)
    for name in ("a", "b", "c"):
        keep_photo(studio.path, f"{name}.jpg", b"x")
    settle_photo(folder / ".c.jpg.waiting")
    with studio.writing() as session:
        batch = session.scalars(select(BatchRow).order_by(BatchRow.id.desc())).first()
        assert batch is not None
        add_event(session, batch.id, len(list_events(session, batch.id)), "photo", {"name": "a.jpg"})
    assert settle_waiting_photos(studio.path) == 1
    assert {path.name for path in folder.iterdir()} == {"a.jpg", "c.jpg"}
    studio.close()


def test_what_a_killed_first_start_left_half_made_goes_at_the_next(tmp_path: Path) -> None:
    for name in (f".studio.sqlite3.new-{2**31 - 1}", f".studio.sqlite3.new-{2**31 - 1}-wal"):
        (tmp_path / name).write_bytes(b"half")
    running = tmp_path / f".studio.sqlite3.new-{os.getppid()}"
    running.write_bytes(b"another start is at work")
    open_studio(tmp_path).close()
    assert {path.name for path in tmp_path.iterdir()} == {"studio.sqlite3", running.name}


def test_a_check_says_what_is_there_and_what_is_damaged(tmp_path: Path, seeded: Path) -> None:
    shutil.copy(seeded, tmp_path)
    studio = open_studio(tmp_path)
    studio.close()
    found = check_studio(tmp_path)
    assert (found.integrity, found.counts["formulas"], found.counts["lots"]) == ("ok", 12, 25)
    with pytest.raises(InputError, match="no studio"):
        check_studio(tmp_path / "elsewhere")
    data = bytearray((tmp_path / "studio.sqlite3").read_bytes())
    data[len(data) // 2 : len(data) // 2 + 20_000] = b"\xff" * 20_000
    (tmp_path / "studio.sqlite3").write_bytes(bytes(data))
    damaged = check_studio(tmp_path)
    assert damaged.integrity != "ok"
    assert damaged.counts == {}


def test_what_a_kill_left_half_made_goes_at_the_next_start_and_nothing_else(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """By name and age: what a living process makes, what is the maker's own, and what is no name of ours stays."""
    studio, temporary = tmp_path / "studio", tmp_path / "tmp"
    (studio / "backups").mkdir(parents=True)
    temporary.mkdir()
    monkeypatch.setattr(tempfile, "tempdir", str(temporary))
    gone, living = 2**22 + 1, os.getpid()
    left = [
        studio / f".studio.zip.{gone}.part", studio / "backups" / f".studio-daily-1.sqlite3.{gone}.part-journal",
        studio / ".restored", studio / "backups" / ".coming-back", studio / "backups" / ".coming-new",
        temporary / f"rosy-kettle-export-{gone}-x1", temporary / "rosy-kettle-import-old0",
    ]  # fmt: skip
    kept = [
        studio / f".studio.zip.{living}.part", studio / "sent.zip", studio / "notes.part", studio / ".coming-home",
        temporary / f"rosy-kettle-export-{living}-x2", temporary / "rosy-kettle-export-new0", temporary / "other-export-1-x",
    ]  # fmt: skip
    for path in (*left, *kept):
        path.mkdir() if "." not in path.name.lstrip(".") and "rosy" not in path.name else path.write_bytes(b"x")
    old = time.time() - 2 * 24 * 3600
    os.utime(temporary / "rosy-kettle-import-old0", (old, old))
    open_studio(studio, serving=True).close()
    assert not any(path.exists() for path in left)
    assert all(path.exists() for path in kept)


def test_reading_a_studio_leaves_no_log_that_looks_like_a_crash(tmp_path: Path, seeded: Path) -> None:
    shutil.copy(seeded, tmp_path)
    open_studio(tmp_path).close()
    before = {path.name for path in tmp_path.iterdir()}
    check_studio(tmp_path)
    backup_studio(tmp_path / "copy.sqlite3", tmp_path)
    assert {path.name for path in tmp_path.iterdir()} == before | {"copy.sqlite3"}


def test_a_row_that_points_nowhere_hinders_no_start_no_backup_and_no_restore(tmp_path: Path, seeded: Path) -> None:
    shutil.copy(seeded, tmp_path)
    with closing(sqlite3.connect(tmp_path / "studio.sqlite3")) as connection, connection:
        connection.execute("UPDATE orders SET formula_id = 999999 WHERE id = 1")
    (tmp_path / "studio.sqlite3-wal").touch()
    open_studio(tmp_path).close()
    backup_studio(tmp_path / "copy.sqlite3", tmp_path)
    assert restore_studio(tmp_path / "copy.sqlite3", tmp_path) is not None
    assert [each.table for each in check_studio(tmp_path).not_read] == ["orders"]
