"""What the pages know once: what is usual, as the records have it."""

from __future__ import annotations

from flask.testing import FlaskClient

from rosy_kettle.core.records import Formula, Portion
from rosy_kettle.files import FormulaFile, formula_to_file

BARE = {"format": "rosy-kettle/formula", "version": 1, "name": "New formula", "portions": [{"name": "body"}]}


def test_an_empty_formula_is_what_a_file_that_says_nothing_is(client: FlaskClient) -> None:
    empty = client.get("/api/reference").json["empty_formula"]
    assert empty == FormulaFile.model_validate(BARE).model_dump(mode="json")
    assert empty == formula_to_file(Formula("New formula", (Portion("body", ()),))).model_dump(mode="json")
    # A usual bath and workshop: common practice, no published source.
    assert (empty["use"]["tub_l"], empty["use"]["bath_c"]) == (150.0, 38.0)
    assert empty["room"] == {"temperature_c": 21.0, "humidity_pct": 40.0}


def test_an_empty_formula_is_kept_as_it_is_given(client: FlaskClient) -> None:
    empty = client.get("/api/reference").json["empty_formula"]
    made = client.post("/api/formulas", json=empty)
    assert made.status_code == 201
    assert made.json["formula"] | {"method": ""} == empty, "of the usual method"


def test_air_and_pan_are_told_with_the_reference(client: FlaskClient) -> None:
    """Pieces that draw water stay wet over two thirds of what air holds; a pan of 350 steps shows 0.3 %: common practice."""
    told = client.get("/api/reference").json
    assert (told["very_damp_pct"], told["pan_steps"]) == (65.0, 350)
