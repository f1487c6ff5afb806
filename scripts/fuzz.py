"""Ask a served demo studio whatever its own description allows, and much that it does not: make fuzz.

schemathesis makes the requests; the same seed asks the same. Wrong is: a server error, an answer the description does not
name, more memory than promised, or a studio file that does not pass SQLite's own checks afterwards.
"""

from __future__ import annotations

import argparse
import os
import secrets
import sqlite3
import subprocess
import sys
import tempfile
from contextlib import closing
from pathlib import Path

from scripts.served import COMMAND, largest_memory_mb, start

MOST_MEMORY_MB = 350
CHECKS = (
    "not_a_server_error", "status_code_conformance", "content_type_conformance", "response_schema_conformance",
    "response_headers_conformance",
)  # fmt: skip


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--seconds", type=int, default=900)
    asked.add_argument("--seed", type=int, default=secrets.randbelow(1_000_000))
    options = asked.parse_args()
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        process, port = start(folder, "--seed-demo")
        fuzz = subprocess.run(
            [
                str(Path(COMMAND).parent / "schemathesis"), "run", f"http://127.0.0.1:{port}/api/openapi.json",
                "--seed", str(options.seed), "--max-time", str(options.seconds), "--max-examples", "10",
                "--phases", "examples,coverage,fuzzing", "--checks", ",".join(CHECKS), "--generation-database", "none",
                "--no-color",
            ],
            cwd=folder, env=os.environ | {"PYTHONWARNINGS": "ignore"}, check=False,
        )  # fmt: skip
        memory_mb = largest_memory_mb(process.pid)
        process.terminate()
        process.wait()
        with closing(sqlite3.connect(folder / "studio.sqlite3")) as connection:
            integrity = connection.execute("PRAGMA integrity_check").fetchone()[0]
            strays = connection.execute("PRAGMA foreign_key_check").fetchall()
    print(f"server at most {memory_mb:.0f} MB; integrity {integrity}; {len(strays)} stray keys", flush=True)
    wrong = fuzz.returncode or memory_mb > MOST_MEMORY_MB or integrity != "ok" or strays
    sys.exit(1 if wrong else 0)


if __name__ == "__main__":
    main()
