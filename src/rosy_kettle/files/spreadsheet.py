"""Tables as other programs write them: CSV of any kind and XLSX without macros, in and out."""

from __future__ import annotations

import csv
import io
import zipfile
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from rosy_kettle.core.deadline import check_time
from rosy_kettle.core.errors import InputError, WorkbenchError
from rosy_kettle.core.words.cells import begins_formula
from rosy_kettle.files.xlsx_limits import look_inside

__all__ = ["Sheet", "read_sheet", "to_csv", "to_xlsx"]

MOST_ROWS = 200_000
MOST_COLUMNS = 60
MOST_CELLS = 2_000_000  # of a CSV file, empty ones too
LONGEST_LINE = 1_000_000
DELIMITERS = ",;\t|"


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
    if text.count(delimiter) > MOST_CELLS or max(map(len, text.splitlines()), default=0) > LONGEST_LINE:
        raise InputError("The table holds more cells than can be meant; keep the columns that are needed.", quantity="file")
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
            look_inside(archive)
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True, keep_links=False)
        rows = []
        for row in book.worksheets[0].iter_rows(max_col=MOST_COLUMNS, values_only=True):
            check_time()
            rows.append([_cell(value) for value in row])
            if len(rows) > MOST_ROWS:
                raise InputError(f"The table has more than {MOST_ROWS} rows; split it.", quantity="file")
    except WorkbenchError:
        raise
    except Exception as error:  # a broken file makes the library raise anything, from IndexError to zlib.error
        raise InputError("This file is no spreadsheet that can be opened; save it as CSV.", quantity="file") from error
    return rows


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
        return f"'{cell}" if begins_formula(cell) else cell
    return cell
