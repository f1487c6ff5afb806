"""The published schemas are those of the models, are valid JSON Schema, and hold for files as they are written."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from flask.testing import FlaskClient
from jsonschema import Draft202012Validator

from rosy_kettle.files import formula_to_file
from rosy_kettle.files.formats import format_schemas
from tests.conftest import make_formula

FOLDER = Path(__file__).parent.parent / "docs/formats"


@pytest.mark.parametrize("name", sorted(format_schemas()))
def test_what_is_published_is_what_is_read(name: str, client: FlaskClient) -> None:
    schema = json.loads((FOLDER / f"{name}.schema.json").read_text(encoding="utf-8"))
    assert schema == json.loads(json.dumps(format_schemas()[name])), "run python -m scripts.write_formats"
    Draft202012Validator.check_schema(schema)
    assert client.get("/api/formats").json["formats"][name] == schema


def test_a_formula_file_holds_to_its_schema_and_a_wrong_one_does_not() -> None:
    """Against the reference validator of JSON Schema, draft 2020-12."""
    validator = Draft202012Validator(format_schemas()["formula"])
    written = formula_to_file(make_formula(baking_soda=100, glycerin=10)).model_dump(mode="json")
    assert list(validator.iter_errors(written)) == []
    assert list(validator.iter_errors({**written, "version": 2}))
    assert list(validator.iter_errors({**written, "batch_g": -1}))
