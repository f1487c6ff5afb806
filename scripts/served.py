"""A studio served in a process of its own, for the scripts that try to break it."""

from __future__ import annotations

import os
import re
import subprocess
import sys
from pathlib import Path

__all__ = ["COMMAND", "largest_memory_mb", "start"]

COMMAND = str(Path(sys.executable).parent / "rosy-kettle")


def start(folder: Path, *options: str) -> tuple[subprocess.Popen[str], int]:
    """Serve a folder on a free port; return the process and the port once it answers."""
    process = subprocess.Popen(
        [COMMAND, "serve", "--port", "0", *options], stdout=subprocess.PIPE, text=True,
        env=os.environ | {"ROSY_KETTLE_DATA": str(folder)},
    )  # fmt: skip
    assert process.stdout is not None
    found = re.search(r":(\d+)$", process.stdout.readline().strip())
    if not found:
        raise SystemExit("The server did not start.")
    return process, int(found[1])


def largest_memory_mb(pid: int) -> float:
    """Return the most memory a running process ever took [MB]."""
    found = re.search(r"VmHWM:\s+(\d+) kB", Path(f"/proc/{pid}/status").read_text(encoding="utf-8"))
    return int(found[1]) / 1024 if found else 0.0
