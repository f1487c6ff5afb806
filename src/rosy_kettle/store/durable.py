"""Having what was written really stand on the disk."""

from __future__ import annotations

import os
from pathlib import Path

__all__ = ["to_disk"]


def to_disk(path: Path) -> None:
    """Return once a file's content, or the names in a folder, would outlast a power cut (POSIX fsync).

    Parameters
    ----------
    path : Path
        A file or a folder

    Raises
    ------
    OSError
        If the disk does not take it.
    """
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
