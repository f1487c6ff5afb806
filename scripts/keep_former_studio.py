"""Keep the demo studio of the present schema as a fixture, before a new migration makes it a former one: make former-studio."""

from __future__ import annotations

import lzma
import sqlite3
import tempfile
from contextlib import closing
from pathlib import Path

from alembic.script import ScriptDirectory

from rosy_kettle.store import open_studio
from rosy_kettle.store.session import FILE_NAME
from rosy_kettle.usecases.studio.seed_demo import seed_demo

ROOT = Path(__file__).parents[1]
KEPT = ROOT / "tests/store/former_studios"


def main() -> None:
    scripts = ScriptDirectory(str(ROOT / "src/rosy_kettle/store/migrations"))
    head = scripts.get_revision("head")
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        studio = open_studio(folder)
        seed_demo(studio)
        studio.close()
        with closing(sqlite3.connect(folder / FILE_NAME)) as connection:
            connection.execute("PRAGMA journal_mode=DELETE")
            connection.execute("VACUUM")
        data = (folder / FILE_NAME).read_bytes()
    target = KEPT / f"{Path(head.path).stem}.sqlite3.xz"
    target.write_bytes(lzma.compress(data, preset=9 | lzma.PRESET_EXTREME))
    print(f"{target.relative_to(ROOT)}: {target.stat().st_size} bytes")


if __name__ == "__main__":
    main()
