"""One gate at what comes in as JSON: values that nothing can mean are refused in one sentence, also inside free dictionaries."""

from __future__ import annotations

import json
from typing import Any

import pytest
from flask.testing import FlaskClient

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.odd_values import odd_in
from rosy_kettle.files import read_formula_json

ODD = ("5e-324", "1e309", "-1e309", "-0.0", "1e300", '"\\ud800"', '"a\\u0000b"')


@pytest.mark.parametrize("value", ODD)
def test_an_odd_value_is_refused_wherever_it_stands(client: FlaskClient, value: str) -> None:
    """RFC 8259, 8.2: a lone surrogate is no letter; 1e309 is more than a double holds (IEEE 754)."""
    for body in (
        f'{{"symptom": "cracks", "answers": {{"room_c": {value}}}}}',
        f'{{"symptom": "cracks", "answers": {{"a": [{value}]}}}}',
    ):
        answer = client.post("/api/troubles", data=body, content_type="application/json")
        assert answer.status_code == 422, body
        assert "answers" in answer.json["message"]
    assert client.get("/api/troubles").json["items"] == []
    with client.get("/api/studio.zip") as made:
        assert made.status_code == 200


@pytest.mark.parametrize("value", ODD)
def test_a_file_with_an_odd_value_is_refused_too(value: str) -> None:
    with pytest.raises(InputError):
        read_formula_json(f'{{"format": "rosy-kettle/formula", "version": 1, "name": "x", "batch_g": {value}}}')


@pytest.mark.parametrize(
    "data", [{}, {"a": [1, 2.5, "soda", None, True]}, {"a": 0.0}, {"a": 1e-9}, {"name": "Łódź 🛁"}, {"a": {"b": []}}]
)
def test_what_can_be_meant_passes(data: Any) -> None:
    assert odd_in(json.loads(json.dumps(data))) == ""


def test_what_lies_too_deep_is_said() -> None:
    deep: Any = 1
    for _ in range(100):
        deep = {"a": deep}
    assert odd_in(deep).endswith("lies too deep")
