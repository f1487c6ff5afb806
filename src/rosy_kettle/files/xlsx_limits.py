"""What a spreadsheet may unpack to: looked at in small pieces before any of it is opened (OWASP ASVS 4.0.3: 5.5.2, 12.1.1)."""

from __future__ import annotations

import re
import zipfile
import zlib

from rosy_kettle.core.deadline import check_time
from rosy_kettle.core.errors import InputError

__all__ = ["look_inside"]

LARGEST_UNPACKED_BYTES = 40_000_000  # all parts together; the largest real table of stock tried came to 3 MB
LARGEST_RATIO = 250  # of a part to what it takes in the file; tables of numbers come to 10 to 30
SMALL_BYTES = 1_000_000  # below which the ratio says nothing
MOST_CELLS = 1_000_000
LONGEST_TEXT_BYTES = 200_000  # between two tags
PIECE_BYTES = 65_536
NEVER_NEEDED = (b"<!DOCTYPE", b"<!ENTITY", b"\0")
CELL = re.compile(rb"<(?:\w+:)?c[ />]")
OVERLAP = 16  # bytes kept from one piece to the next, so that no mark is cut in two


def look_inside(archive: zipfile.ZipFile) -> None:
    """Refuse what no plain table holds: macros, entities, parts that unpack to too much, too many cells or too long a text.

    Raises
    ------
    InputError
        Naming what is too much, and the way out.
    """
    parts = archive.infolist()
    if any("vbaproject" in each.filename.lower() for each in parts):
        raise InputError("The spreadsheet holds macros; save it as plain XLSX or CSV.", quantity="file")
    whole = 0
    for each in parts:
        whole += _look_at_part(archive, each, LARGEST_UNPACKED_BYTES - whole)


def _look_at_part(archive: zipfile.ZipFile, part: zipfile.ZipInfo, most_bytes: int) -> int:
    """Return how many bytes a part unpacks to, whatever its entry says."""
    is_text = part.filename.lower().endswith((".xml", ".rels"))
    unpacked, cells, text_bytes, kept = 0, 0, 0, b""
    try:
        with archive.open(part) as file:
            while piece := file.read(PIECE_BYTES):
                check_time()
                unpacked += len(piece)
                if unpacked > most_bytes or (unpacked > SMALL_BYTES and unpacked > LARGEST_RATIO * max(1, part.compress_size)):
                    raise InputError("The spreadsheet unpacks to more than can be meant; save it as CSV.", quantity="file")
                if not is_text:
                    continue
                seen = kept + piece
                if any(mark in seen for mark in NEVER_NEEDED):
                    raise InputError("The spreadsheet holds something that no table needs; save it as CSV.", quantity="file")
                cells += sum(1 for found in CELL.finditer(seen) if found.end() > len(kept))
                text_bytes = text_bytes + len(piece) if b"<" not in piece else len(piece) - piece.rindex(b"<")
                if cells > MOST_CELLS or text_bytes > LONGEST_TEXT_BYTES:
                    much = f"more than {MOST_CELLS:,} cells" if cells > MOST_CELLS else "a text of more than can be read"
                    raise InputError(f"The spreadsheet holds {much}; keep the columns that are needed.", quantity="file")
                kept = seen[-OVERLAP:]
    except (zipfile.BadZipFile, zlib.error, EOFError, NotImplementedError, RuntimeError) as error:
        raise InputError("This file is no spreadsheet that can be opened; save it as CSV.", quantity="file") from error
    return unpacked
