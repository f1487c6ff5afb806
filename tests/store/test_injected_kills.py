"""A kill before every rename, delete, link and commit of restore, import, migration and backup: nothing acknowledged is out of sight."""

from __future__ import annotations

import lzma
import os
import shutil
import sqlite3
import sys
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

import pytest
from sqlalchemy import Engine, event

from rosy_kettle.store import open_studio
from rosy_kettle.store.acknowledged import missing_after
from rosy_kettle.store.backups import begin_anew, bring_back, make_backup
from rosy_kettle.store.copies import damage_of
from rosy_kettle.store.ingredients import learn_synonym
from rosy_kettle.store.session import FILE_NAME
from rosy_kettle.usecases.studio.exchange.export_studio import export_studio
from rosy_kettle.usecases.studio.exchange.import_studio import import_studio
from rosy_kettle.usecases.studio.keep_copies import restore_studio

MOVES = frozenset({"os.rename", "os.remove", "os.link", "os.rmdir", "os.truncate"})
"""What Python tells its audit hooks (PEP 578) before files are moved."""
MOST_STEPS = 400
KILLED = 9
WORDS = {"in the file", "in the log"}
FORMER = sorted((Path(__file__).parent / "former_studios").glob("*.sqlite3.xz"))


def killed_before_step(number: int, work: Callable[[], object]) -> bool:
    """Do the work in a process of its own that ends before its n-th step; return whether it came so far."""
    child = os.fork()
    if child == 0:
        steps = 0

        def step() -> None:
            nonlocal steps
            steps += 1
            if steps == number:
                os._exit(KILLED)

        sys.addaudithook(lambda name, _facts: step() if name in MOVES else None)
        event.listen(Engine, "commit", lambda _connection: step())
        work()
        os._exit(0)
    return os.waitstatus_to_exitcode(os.waitpid(child, 0)[1]) == KILLED


def words_in(file: Path) -> set[str]:
    with closing(sqlite3.connect(file)) as connection:
        return {row[0] for row in connection.execute("SELECT phrase FROM ingredient_synonyms")}


def in_sight(folder: Path) -> set[str]:
    """Words of the studio and of every copy beside it, each of which has to be whole."""
    files = [folder / FILE_NAME, *folder.glob("studio-*.sqlite3"), *(folder / "backups").glob("studio-*.sqlite3")]
    there = [file for file in files if file.exists()]
    assert all(damage_of(file) == "" for file in there)
    return set().union(*(words_in(file) for file in there))


def written(folder: Path) -> Path:
    """A studio with one acknowledged word in its file and one in a write-ahead log that nobody has folded in."""
    made = folder / "made"
    studio = open_studio(made)
    with studio.writing() as session:
        learn_synonym(session, "in the file", "glycerin")
    make_backup(studio, by_hand=True)
    studio.fold()
    with studio.writing() as session:
        learn_synonym(session, "in the log", "glycerin")
    shutil.copytree(made, folder / "as it was")
    studio.close()
    assert (folder / "as it was" / f"{FILE_NAME}-wal").stat().st_size > 0
    return folder / "as it was"


def restore(folder: Path) -> None:
    restore_studio(next((folder / "backups").glob("*.sqlite3")), folder)


def brought_back(folder: Path) -> None:
    studio = open_studio(folder)
    bring_back(studio, next((folder / "backups").glob("*.sqlite3")).name)


def imported(folder: Path) -> None:
    import_studio(open_studio(folder), folder / "other.zip", merge=True)


WORK: dict[str, Callable[[Path], object]] = {
    "restore": restore, "bring back": brought_back, "begin anew": lambda folder: begin_anew(open_studio(folder)),
    "backup": lambda folder: make_backup(open_studio(folder), by_hand=False), "import": imported,
}  # fmt: skip


@pytest.mark.parametrize("name", WORK)
def test_a_kill_before_any_step_leaves_all_that_was_acknowledged_in_sight(name: str, tmp_path: Path) -> None:
    as_it_was = written(tmp_path)
    if name == "import":
        other = open_studio(tmp_path / "other")
        with other.writing() as session:
            learn_synonym(session, "from the other", "glycerin")
        export_studio(other, as_it_was / "other.zip")
        other.close()
    for number in range(1, MOST_STEPS):
        folder = tmp_path / f"{number}"
        shutil.copytree(as_it_was, folder)
        killed = killed_before_step(number, lambda folder=folder: WORK[name](folder))  # type: ignore[misc]
        assert in_sight(folder) >= WORDS, f"{name}, killed before step {number}"
        studio = open_studio(folder, serving=True)  # the next start takes it as it is
        assert missing_after(studio.path) is None
        studio.close()
        left = {each.name for each in (*folder.iterdir(), *(folder / "backups").iterdir()) if each.name.startswith(".")}
        assert left == set(), f"{name}, killed before step {number}"
        if not killed:
            assert number > 1
            return
    pytest.fail("it never came to its end")


def test_a_migration_that_is_killed_or_finds_no_room_is_done_whole_or_not_at_all_and_copied_once(tmp_path: Path) -> None:
    former = tmp_path / "former"
    former.mkdir()
    (former / FILE_NAME).write_bytes(lzma.decompress(FORMER[len(FORMER) // 2].read_bytes()))
    before = told_by(former)
    for number in range(1, MOST_STEPS):
        folder = tmp_path / f"{number}"
        shutil.copytree(former, folder)
        killed = [killed_before_step(number, lambda folder=folder: open_studio(folder)) for _again in range(2)]  # type: ignore[misc]
        revision, batches = told_by(folder)
        assert batches == before[1]
        open_studio(folder).close()
        assert revision in {before[0], told_by(folder)[0]}, "no step between"
        assert len(list(folder.glob("studio-before-*.sqlite3"))) == 1, f"killed before step {number}"
        if not any(killed):
            return
    pytest.fail("it never came to its end")


def told_by(folder: Path) -> list[object]:
    """Number of the tables a studio has, and how many batches."""
    asked = "SELECT version_num FROM alembic_version", "SELECT count(*) FROM batches"
    with closing(sqlite3.connect(folder / FILE_NAME)) as connection:
        return [connection.execute(each).fetchone()[0] for each in asked]
