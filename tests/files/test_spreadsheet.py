"""Spreadsheets that are broken or mean harm are refused in a sentence (OWASP ASVS 4.0.3: 5.5.2, 12.1.2; ISO/IEC 29500 has no DTD)."""

from __future__ import annotations

import io
import random
import zipfile

import pytest

from rosy_kettle.core.errors import InputError
from rosy_kettle.files.spreadsheet import read_sheet, to_xlsx

GOOD = to_xlsx("Lots", ["Ingredient", "Grams"], [("glycerin", "250")])
ENTITY = b'<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaaaaaaaa">]>'


def altered(old: bytes, new: bytes, part: str = "sheet1", extra: str | None = None) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(GOOD)) as old_zip, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as new_zip:
        for name in old_zip.namelist():
            text = old_zip.read(name)
            new_zip.writestr(name, text.replace(old, new) if part in name else text)
        if extra:
            new_zip.writestr(extra, b"x")
    return out.getvalue()


@pytest.mark.parametrize(
    ("data", "sentence"),
    [
        (altered(b"", b"", extra="xl/vbaProject.bin"), "macros"),
        (altered(b"<worksheet", ENTITY + b"<worksheet"), "no table needs"),
        (altered(b"</sheetData>", b"<row"), "no spreadsheet that can be opened"),
        (altered(b"</sheets>", b"", part="workbook.xml"), "no spreadsheet that can be opened"),
        (altered(b'r="A1"', b'r="ZZZZZ1"'), "no spreadsheet that can be opened"),
        (altered(b't="inlineStr"><is><t>glycerin</t></is>', b't="s"><v>9</v>'), "no spreadsheet that can be opened"),
        (GOOD[:-40], "no spreadsheet that can be opened"),
    ],
    ids=[
        "macros",
        "entities",
        "cut short",
        "no end of sheets",
        "a column that is none",
        "a text that is not there",
        "no directory",
    ],
)
def test_what_no_plain_spreadsheet_holds_is_refused(data: bytes, sentence: str) -> None:
    with pytest.raises(InputError, match=sentence):
        read_sheet(data)


def test_any_broken_file_is_read_or_refused() -> None:
    assert read_sheet(GOOD).rows == (("glycerin", "250"),)
    chance = random.Random(4)
    for _ in range(400):
        data = bytearray(GOOD)
        for _ in range(chance.randint(1, 4)):
            data[chance.randrange(len(data))] = chance.randrange(256)
        try:
            assert read_sheet(bytes(data)).headings
        except InputError as refused:
            assert str(refused).endswith(".")


def test_a_text_that_begins_like_a_zip_is_a_text() -> None:
    sheet = read_sheet(b"PK,Grams\nglycerin,250\n")
    assert (sheet.headings, sheet.rows) == (("PK", "Grams"), (("glycerin", "250"),))


def test_signs_that_xml_cannot_hold_are_shown_as_lost() -> None:
    """XML 1.0, 2.2: of the signs below a space only tab, line feed and carriage return may stand in a document."""
    sheet = read_sheet(to_xlsx("Lots", ["Ingredient"], [(f"a{chr(sign)}b",) for sign in range(1, 32)]))
    kept = {row[0] for row in sheet.rows if "\N{REPLACEMENT CHARACTER}" not in row[0]}
    assert {cell.strip("ab") for cell in kept} <= {"\t", "\n", "\r", "_x000D_"}
    assert len(sheet.rows) == 31
