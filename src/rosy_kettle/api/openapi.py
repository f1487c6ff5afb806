"""Prints the API description, with ``ROSY_KETTLE_DESCRIBING=1``; it is kept beside this file, the web's types come of it."""

from __future__ import annotations

import json
import sys
import tempfile
from pathlib import Path

from rosy_kettle.api.app import create_app, openapi_document
from rosy_kettle.store import open_studio

__all__ = ["description"]


def description() -> str:
    """Return the API description as JSON text."""
    with tempfile.TemporaryDirectory() as folder:
        studio = open_studio(Path(folder))
        document = openapi_document(create_app(studio))
        studio.close()
    return json.dumps(document, indent=1, ensure_ascii=False, sort_keys=True) + "\n"


if __name__ == "__main__":
    sys.stdout.write(description())
