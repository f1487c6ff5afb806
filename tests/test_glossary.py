"""One noun, one spelling: tables of the store, routes and tags of the API all use the words of the glossary."""

from __future__ import annotations

import json
import re
from pathlib import Path

from rosy_kettle.store import batches, certificates, formulas, ingredients, moulds, profiles, rack
from rosy_kettle.store.base import Base

ROOT = Path(__file__).parent.parent
PARTS = {"price", "prices", "synonym", "synonyms", "stock", "own", "event", "events", "log", "scent", "photo", "photos"}
"""What belongs to a noun and needs no entry of its own."""
ACTS = {
    "api", "health", "reference", "restore", "next", "bowl", "ways", "out", "stream", "scale", "zero", "drawer", "sheet", "run", "pdf",
    "json", "record", "recipe", "papers", "explanations", "comparisons", "comparison", "swaps", "charts", "evaluations", "csv",
    "openapi", "ics", "open", "xlsx", "frontier", "frontiers", "points", "branch", "print", "zip", "progress", "answers", "outcome", "change", "acts", "cards", "bowls", "formats", "svg",
    "typed", "warnings", "poured", "reopened", "trends", "letter", "eml",
}  # fmt: skip
"""Words for what is asked or done, and for kinds of file."""


def glossary() -> set[str]:
    text = (ROOT / "ARCHITECTURE.md").read_text(encoding="utf-8")
    rows = re.findall(r"(?m)^\| ([a-z ,-]+) \|", text)
    words = {word for row in rows for noun in row.split(",") for word in re.split("[ -]", noun.strip())}
    return words | {f"{word}s" for word in words} | {"batches"} | {word.removesuffix("y") + "ies" for word in words}


def test_tables_are_named_by_the_glossary() -> None:
    assert all((batches, certificates, formulas, ingredients, moulds, profiles, rack))
    known = glossary() | PARTS
    for table in Base.metadata.tables:
        assert set(table.split("_")) <= known, table


def test_routes_are_named_by_the_glossary() -> None:
    described = json.loads((ROOT / "src/rosy_kettle/api/openapi.json").read_text(encoding="utf-8"))
    known = glossary() | PARTS | ACTS
    for path in described["paths"]:
        words = set(re.split(r"[/.\-]", re.sub(r"\{[^}]*\}", "", path))) - {""}
        assert words <= known, (path, words - known)
