"""The two long probes, each a short run with a fixed number or seed: `make chaos` and `make fuzz` run them longer."""

from __future__ import annotations

import re
import subprocess
import sys


def run(*command: str) -> str:
    done = subprocess.run([sys.executable, "-m", *command], capture_output=True, text=True, timeout=900, check=False)
    assert done.returncode == 0, done.stdout[-4_000:] + done.stderr[-2_000:]
    return done.stdout


def test_kills_lose_nothing_and_leave_nothing_over() -> None:
    """kill -9 while four hands write; begun anew, brought back and a zip taken in over HTTP; SQLite's integrity check."""
    said = run("scripts.chaos", "--kills", "6", "--reset-every", "4")
    assert re.search(r"6 kills, 1 resets, 1 restores, [12] zips, \d+ writes, 0 wrong", said), said


def test_odd_requests_meet_no_server_error() -> None:
    """schemathesis on our own description; the server's memory and SQLite's own checks are looked at in the end."""
    said = run("scripts.fuzz", "--seconds", "20", "--seed", "20")
    assert "integrity ok; 0 stray keys" in said
