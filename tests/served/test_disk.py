"""Disks that are full or may not be written, mounted for the test alone (Linux mount namespaces), and a second reader."""

from __future__ import annotations

import os
import re
import shutil
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path

from scripts.served import COMMAND

from rosy_kettle.store import open_studio
from rosy_kettle.usecases.studio.exchange.export_studio import export_studio
from tests.serving import Server, ask

FORMULA = {"format": "rosy-kettle/formula", "version": 1, "name": "disk", "note": "x" * 1_500, "portions": [{"name": "p"}]}


def in_own_mounts(folder: Path, script: str) -> subprocess.Popen[str]:
    """Run a shell script that may mount what only it and its children see."""
    return subprocess.Popen(
        ["unshare", "--map-root-user", "--mount", "sh", "-c", script], text=True,
        env=os.environ | {"ROSY_KETTLE_DATA": str(folder)}, stdin=subprocess.PIPE, stdout=subprocess.PIPE,
        stderr=subprocess.PIPE, start_new_session=True,
    )  # fmt: skip


def test_a_full_disk_at_the_start_is_said_and_leaves_nothing(tmp_path: Path) -> None:
    mount = f"mount -t tmpfs -o size=64k,mode=700 tmpfs {tmp_path}"
    out, said = in_own_mounts(tmp_path, f"{mount}; {COMMAND} serve --port 0; ls -A {tmp_path}").communicate(timeout=60)
    assert "the disk is full; make room and start again." in said
    assert len(said.strip().splitlines()) == 1
    assert out.split() == ["studio.lock"]


def test_a_folder_that_may_not_be_written_is_said(tmp_path: Path) -> None:
    process = in_own_mounts(tmp_path, f"mount -t tmpfs -o ro tmpfs {tmp_path}; {COMMAND} serve --port 0")
    _out, said = process.communicate(timeout=60)
    assert process.returncode == 2
    assert "cannot be written" in said
    assert len(said.strip().splitlines()) == 1


def test_a_disk_that_fills_up_refuses_saves_goes_on_reading_and_takes_them_again(tmp_path: Path, seeded: Path) -> None:
    shutil.copy(seeded, tmp_path / "seeded")
    folder = tmp_path / "disk"
    folder.mkdir()
    size_k = seeded.stat().st_size // 1024 + 3_100  # room for the studio, what fills the disk, and 600 kB of saves
    mount = f"mount -t tmpfs -o size={size_k}k,mode=700 tmpfs {folder} && cp {tmp_path}/seeded {folder}/studio.sqlite3"
    fill, free = f"head -c 2500k /dev/zero > {folder}/x", f"rm {folder}/x"
    process = in_own_mounts(folder, f"{mount} && {fill}; {COMMAND} serve --port 0 & read go; {free}; wait")
    assert process.stdout is not None
    assert process.stdin is not None
    found = re.search(r":(\d+)$", process.stdout.readline().strip())
    assert found
    port = int(found[1])
    try:
        before, refused, kept = ask(port, "GET", "/api/formulas")[1]["in_all"], None, 0
        while refused is None and kept < 2_000:
            status, answer = ask(port, "POST", "/api/formulas", FORMULA)
            kept += status == 201
            refused = answer if status != 201 else None
        assert refused is not None
        assert refused["code"] == "busy"
        assert ask(port, "GET", "/api/formulas")[1]["in_all"] == before + kept, "everything acknowledged can be read"
        process.stdin.write("\n")
        process.stdin.flush()
        tries = iter(range(100))
        while ask(port, "POST", "/api/formulas", FORMULA)[0] != 201:
            assert next(tries) < 99
        assert ask(port, "GET", "/api/formulas")[1]["in_all"] == before + kept + 1
    finally:
        os.killpg(process.pid, 9)
        process.communicate()


def test_another_process_reads_whole_states_while_we_write(server: Server) -> None:
    """SQLite's isolation, seen from outside: a second process never meets half of a save, and the file stays sound."""
    reader = (
        "import sqlite3,sys\n"
        "c=sqlite3.connect(f'file:{sys.argv[1]}?mode=ro',uri=True)\n"
        "for _ in range(200):\n"
        "  c.execute('BEGIN'); a=c.execute('select count(*) from formulas').fetchone()[0]\n"
        "  b=c.execute('select count(distinct formula_id) from versions').fetchone()[0]; c.execute('COMMIT')\n"
        "  assert a==b,(a,b)\n"
        "print(c.execute('pragma integrity_check').fetchone()[0])\n"
    )
    path = server.folder / "studio.sqlite3"
    other = subprocess.Popen([sys.executable, "-c", reader, str(path)], stdout=subprocess.PIPE, text=True)
    written = 0
    while other.poll() is None or written == 0:
        assert server.ask("POST", "/api/formulas", FORMULA)[0] == 201
        written += 1
    assert other.communicate()[0].strip() == "ok"
    assert other.returncode == 0
    with closing(sqlite3.connect(path)) as connection:
        assert connection.execute("PRAGMA foreign_key_check").fetchall() == []


def test_commands_on_a_full_or_read_only_disk_say_so_in_one_sentence(tmp_path: Path, seeded: Path) -> None:
    """An import that finds no room, a backup into a folder that may not be written: exit 2, no trace, the studio as it was."""
    folder, full, shut = tmp_path / "disk", tmp_path / "studio.zip", tmp_path / "shut"
    for each in (folder, shut):
        each.mkdir()
    export_studio(open_studio(seeded.parent), full)
    room_k = 1_100  # for an empty studio, not for the demo
    script = f"mount -t tmpfs -o size={room_k}k,mode=700 tmpfs {folder}; {COMMAND} import {full}; echo $?; {COMMAND} check | grep integrity"
    out, said = in_own_mounts(folder, script).communicate(timeout=90)
    assert "disk is full" in said
    assert len(said.strip().splitlines()) == 1
    assert out.split("\n")[0] == "2"
    assert '"ok"' in out
    shutil.copy(seeded, tmp_path / "studio.sqlite3")
    script = (
        f"mount -t tmpfs -o ro tmpfs {shut}; {COMMAND} backup {shut}/b.sqlite3; echo $?; {COMMAND} export {shut}/a.zip; echo $?"
    )
    out, said = in_own_mounts(tmp_path, script).communicate(timeout=90)
    assert out.split() == ["2", "2"]
    assert len(said.strip().splitlines()) == 2, said
    assert said.count("cannot be written") == 2
