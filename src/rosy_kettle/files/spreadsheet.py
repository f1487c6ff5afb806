"""Tables as other programs write them: CSV of any kind and XLSX without macros, in and out."""

from __future__ import annotations

import csv
import io
import zipfile
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from rosy_kettle.core.errors import InputError

__all__ = ["Sheet", "read_sheet", "to_csv", "to_xlsx"]

MOST_ROWS = 200_000
MOST_COLUMNS = 60
LARGEST_UNPACKED_BYTES = 300_000_000  # a spreadsheet that unpacks to more is a trap
DELIMITERS = ",;\t|"
FORMULA_SIGNS = ("=", "+", "-", "@", "\t", "\r")
"""What a spreadsheet would run as a formula when a cell begins with it (OWASP: CSV injection)."""


@dataclass(frozen=True, slots=True)
class Sheet:
    """A table: its headings and its rows, every cell as text."""

    headings: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]


def read_sheet(data: bytes) -> Sheet:
    """Return the first table of a file, told apart by what is in it and not by its name.

    Raises
    ------
    InputError
        If it is no table, holds macros, or is too large.
    """
    if data[:4] == b"PK\3\4":
        rows = _xlsx_rows(data)
    elif b"\0" in data[:4096]:
        raise InputError("This is neither CSV nor XLSX; save it as one of them and try again.", quantity="file")
    else:
        rows = _csv_rows(data)
    kept = [row for row in rows if any(cell.strip() for cell in row)]
    if len(kept) < 2:  # noqa: PLR2004 - headings and one row
        raise InputError("The table has no row under its headings.", quantity="file")
    width = max(index for index, cell in enumerate(kept[0], start=1) if cell.strip()) if any(kept[0]) else 0
    body = [tuple(cell.strip() for cell in (*row, *[""] * width)[:width]) for row in kept[1:]]
    return Sheet(tuple(cell.strip() for cell in kept[0][:width]), tuple(body))


def _csv_rows(data: bytes) -> list[list[str]]:
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("cp1252", errors="replace")
    first = text.partition("\n")[0]
    delimiter = max(DELIMITERS, key=first.count)
    rows = []
    try:
        for row in csv.reader(io.StringIO(text, newline=""), delimiter=delimiter):
            rows.append(row[:MOST_COLUMNS])
            if len(rows) > MOST_ROWS:
                raise InputError(f"The table has more than {MOST_ROWS} rows; split it.", quantity="file")
    except csv.Error as error:
        raise InputError(f"The table cannot be read near row {len(rows) + 1}: {error}.", quantity="file") from error
    return rows


def _xlsx_rows(data: bytes) -> list[list[str]]:
    from openpyxl import load_workbook  # here: it takes a tenth of a second that no other path needs

    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            _look_inside(archive)
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True, keep_links=False)
        rows = []
        for row in book.worksheets[0].iter_rows(max_col=MOST_COLUMNS, values_only=True):
            rows.append([_cell(value) for value in row])
            if len(rows) > MOST_ROWS:
                raise InputError(f"The table has more than {MOST_ROWS} rows; split it.", quantity="file")
    except InputError:
        raise
    except Exception as error:  # a broken file makes the library raise anything, from IndexError to zlib.error
        raise InputError("This file is no spreadsheet that can be opened; save it as CSV.", quantity="file") from error
    return rows


def _look_inside(archive: zipfile.ZipFile) -> None:
    """Refuse what no plain spreadsheet holds: macros, parts that unpack to too much, entities (OWASP ASVS 4.0.3: 5.5.2)."""
    parts = archive.infolist()
    if any("vbaproject" in each.filename.lower() for each in parts):
        raise InputError("The spreadsheet holds macros; save it as plain XLSX or CSV.", quantity="file")
    if sum(each.file_size for each in parts) > LARGEST_UNPACKED_BYTES:
        raise InputError("The spreadsheet unpacks to more than can be meant; save it as CSV.", quantity="file")
    for each in parts:
        if each.filename.lower().endswith((".xml", ".rels")):
            text = archive.read(each)
            if b"\0" in text or b"<!DOCTYPE" in text or b"<!ENTITY" in text:
                raise InputError("The spreadsheet holds something that no table needs; save it as CSV.", quantity="file")


def _cell(value: object) -> str:
    if value is None:
        return ""
    if hasattr(value, "date") and callable(value.date):  # a day of the spreadsheet's own
        return str(value.date())
    if isinstance(value, float):
        text = f"{value:.12g}"
        # A number of the spreadsheet has a decimal point; with a fourth place it cannot be taken for a thousand.
        return f"{text}0" if len(text.partition(".")[2]) == 3 else text  # noqa: PLR2004 - digits of a thousand
    return str(value)


def to_csv(headings: Sequence[str], rows: Iterable[Sequence[str]]) -> bytes:
    """Return a CSV file; no cell of it is a formula to a spreadsheet."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(headings)
    writer.writerows([_plain(cell) for cell in row] for row in rows)
    return out.getvalue().encode("utf-8-sig")


def to_xlsx(title: str, headings: Sequence[str], rows: Iterable[Sequence[str]]) -> bytes:
    """Return an XLSX file of text cells; no cell of it is a formula, and signs that XML cannot hold are shown as lost."""
    from openpyxl import Workbook  # here, as above
    from openpyxl.cell.cell import ILLEGAL_CHARACTERS_RE

    book = Workbook(write_only=True)
    sheet = book.create_sheet(title)
    sheet.append(list(headings))
    for row in rows:
        sheet.append([ILLEGAL_CHARACTERS_RE.sub("\N{REPLACEMENT CHARACTER}", _plain(cell)) for cell in row])
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _plain(cell: str) -> str:
    """Return a cell that is text to any spreadsheet: a number stays one, anything else that begins like a formula is quoted."""
    try:
        float(cell)
    except ValueError:
        return f"'{cell}" if cell.startswith(FORMULA_SIGNS) else cell
    return cell
