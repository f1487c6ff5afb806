"""Write the JSON Schema of every file format into docs/formats, from the models that read them."""

from __future__ import annotations

import json
from pathlib import Path

from rosy_kettle.files.formats import format_schemas

FOLDER = Path(__file__).parent.parent / "docs/formats"


def main() -> None:
    """Write one file a format; `tests/test_formats.py` says when they are old."""
    FOLDER.mkdir(exist_ok=True)
    for name, schema in format_schemas().items():
        (FOLDER / f"{name}.schema.json").write_text(json.dumps(schema, indent=1, ensure_ascii=False) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
