"""Whatever is sent as a spreadsheet, little is unpacked of it: limits hold while it is read, and memory stays small."""

from __future__ import annotations

import io
import subprocess
import sys
import zipfile
from collections.abc import Callable
from pathlib import Path

import pytest

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.words.cells import begins_formula
from rosy_kettle.files.spreadsheet import read_sheet, to_csv, to_xlsx
from rosy_kettle.store.plain_rows import csv_of, rows_of_csv

MOST_MB = 350
HEAD = b'<?xml version="1.0"?><worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData><row r="1">'
TAIL = b"</row></sheetData></worksheet>"


def with_sheet(cells: bytes) -> bytes:
    """A workbook whose one sheet holds these cells in place of its own."""
    plain, out = zipfile.ZipFile(io.BytesIO(to_xlsx("x", ["name", "g"], [["soda", "1"]]))), io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED, compresslevel=9) as made:
        for part in plain.infolist():
            sheet = part.filename.startswith("xl/worksheets/")
            made.writestr(part.filename, HEAD + cells + TAIL if sheet else plain.read(part))
    return out.getvalue()


TRAPS: dict[str, Callable[[], bytes]] = {
    "thirty million empty cells": lambda: with_sheet(b"<c/>" * 30_000_000),
    "one cell of 250 MB": lambda: with_sheet(b'<c t="inlineStr"><is><t>' + b"x" * 250_000_000 + b"</t></is></c>"),
    "two million cells": lambda: with_sheet(b"".join(b"<c><v>%d</v></c>" % number for number in range(2_000_000))),
    "a csv of twenty million cells": lambda: b"name" + b"," * 20_000_000 + b"\n1",
}


SCRIPT = (
    "import resource, sys\nfrom pathlib import Path\nfrom rosy_kettle.files.spreadsheet import read_sheet\n"
    "from rosy_kettle.core.errors import InputError\n"
    "try:\n    read_sheet(Path(sys.argv[1]).read_bytes())\nexcept InputError as error:\n    print(error.message)\n"
    "peak = next(line for line in Path('/proc/self/status').read_text().splitlines() if line.startswith('VmHWM'))\n"
    "print(int(peak.split()[1]) // 1024, resource.getrusage(resource.RUSAGE_SELF).ru_utime)\n"
)


@pytest.mark.parametrize("name", list(TRAPS))
def test_a_trap_is_refused_in_little_memory_and_time(tmp_path: Path, name: str) -> None:
    file = tmp_path / "trap"
    file.write_bytes(TRAPS[name]())
    told = subprocess.run([sys.executable, "-c", SCRIPT, str(file)], capture_output=True, text=True, check=True).stdout.split(
        "\n"
    )
    assert "The " in told[0], told
    memory_mb, seconds = told[1].split()
    assert int(memory_mb) < MOST_MB
    assert float(seconds) < 10


def test_a_large_honest_table_is_read() -> None:
    rows = [[f"powder {number}", f"{number / 7:.3f}", "baking-soda"] for number in range(20_000)]
    for data in (to_xlsx("stock", ["name", "grams", "id"], rows), to_csv(["name", "grams", "id"], rows)):
        assert len(read_sheet(data).rows) == 20_000


@pytest.mark.parametrize(
    "cell", ["=1+1", "\n=1+1", "\r\n=1+1", "\t=1", " =1", "＝1+1", "\ufeff=1", "+1+1", "@x", "－1+1", "\n＝x"]
)
def test_no_cell_is_a_formula_whatever_stands_before_its_sign(cell: str) -> None:
    assert begins_formula(cell)
    assert f"'{cell}".replace('"', '""').encode() in to_csv(["x"], [[cell]])
    (row,) = rows_of_csv(csv_of(["x"], [{"x": cell}]), "a table")
    assert row["x"] == cell, "and a studio reads back what it wrote"


@pytest.mark.parametrize("cell", ["soda", "a=b", "3 - 4", "", "200"])
def test_plain_cells_stay_plain(cell: str) -> None:
    assert not begins_formula(cell)


def test_entities_and_macros_are_refused() -> None:
    bad = io.BytesIO()
    with zipfile.ZipFile(bad, "w") as made:
        made.writestr("xl/worksheets/sheet1.xml", b'<!DOCTYPE x [<!ENTITY a "b">]><x/>')
    with pytest.raises(InputError, match="something that no table needs"):
        read_sheet(bad.getvalue())
