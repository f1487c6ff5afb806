"""What a kill has left half made beside a studio or among temporary files: cleared at the next start, by name and age."""

from __future__ import annotations

import re
import tempfile
import time
from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path
from shutil import rmtree

__all__ = ["clear_leftovers", "temporary_prefix"]

PART = re.compile(r"\..+\.(\d+)\.part(-journal|-wal|-shm)?")
"""A copy or a zip on its way to its name, with the number of the process that makes it."""
HALF_MADE = re.compile(r"\.coming-back|\.coming-new|\.restoring|\.restored|\.reset-\w+")
"""What stands in a studio's folder while it is restored or begun anew."""
TEMPORARY = re.compile(r"rosy-kettle-(?:export|import|check)-(?:(\d+)-)?\w+")
OLD_SECONDS = 24 * 3600.0  # after so long nobody is at work on it any more; project default


def temporary_prefix(what: str, process: int) -> str:
    """Return how the name of a temporary folder begins: export, import or check, and the process that makes it."""
    return f"rosy-kettle-{what}-{process}-"


def clear_leftovers(folder: Path) -> list[str]:
    """Throw away what was left half made, while nobody else has the studio; return the names of what went.

    Parameters
    ----------
    folder : Path
        The studio's folder

    Returns
    -------
    list of str
        Only names of the forms above, made by a process that is gone or more than a day old
    """
    gone = []
    for each in (*_here(folder), *_here(folder / "backups"), *_temporary()):
        with suppress(OSError):  # somebody else's, or gone meanwhile: the next start looks again
            if each.is_dir() and not each.is_symlink():
                rmtree(each)
            else:
                each.unlink()
            gone.append(each.name)
    return gone


def _here(folder: Path) -> Iterator[Path]:
    for each in folder.iterdir() if folder.is_dir() else ():
        part = PART.fullmatch(each.name)
        if HALF_MADE.fullmatch(each.name) or (part and _is_left(each, part[1])):
            yield each


def _temporary() -> Iterator[Path]:
    for each in Path(tempfile.gettempdir()).glob("rosy-kettle-*"):
        named = TEMPORARY.fullmatch(each.name)
        if named and _is_left(each, named[1]):
            yield each


def _is_left(path: Path, maker: str | None) -> bool:
    if maker and not Path(f"/proc/{maker}").exists():
        return True
    try:
        return time.time() - path.lstat().st_mtime > OLD_SECONDS
    except OSError:
        return False
