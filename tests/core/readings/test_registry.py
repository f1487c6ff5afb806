"""One reading, one declaration: what is declared shows up wherever readings are told, aimed at or explained."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

import pytest
from flask.testing import FlaskClient

from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target
from rosy_kettle.core.change.why import constants_of, contributions, levers
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.parameters import USUAL, constants_in
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.readings.registry import declared, declared_besides, watched
from rosy_kettle.core.records import Tables
from rosy_kettle.files import formula_to_file
from tests.conftest import make_formula
from tests.declared_reading import POWDER_SHARE

SCOOP = make_formula("betaine-dough", baking_soda=300, slsa_fine=150, corn_starch=100, capb_liquid=90, glycerin=30)


@pytest.fixture
def one_more() -> Iterator[None]:
    with declared_besides(POWDER_SHARE):
        yield


@pytest.mark.usefixtures("one_more")
def test_a_declared_reading_is_told_explained_and_aimed_at(tables: Tables, client: FlaskClient) -> None:
    powder = 550 / 670
    assert evaluate(SCOOP, tables).further == {POWDER_SHARE.id: pytest.approx(powder)}
    assert {each.ingredient for each in contributions(SCOOP, tables, POWDER_SHARE.id)} >= {"baking-soda", "glycerin"}
    assert constants_of(POWDER_SHARE.id) == tuple(constants_in(USUAL.lather).values())
    assert levers(SCOOP, tables, POWDER_SHARE.id, 0.85, None)
    met = balance(BalanceProblem(SCOOP, (parse_target(f"{POWDER_SHARE.id}>=0.85"),), guarded=False), tables)
    assert met.status == "solved"
    assert met.readings_after.further[POWDER_SHARE.id] >= 0.85 - 1e-3  # type: ignore[operator]
    told = {each["id"]: each for each in client.get("/api/readings").json["readings"]}
    assert told[POWDER_SHARE.id]["label"] == "Powder"
    assert told[POWDER_SHARE.id]["question"] == "hold"
    file = formula_to_file(SCOOP).model_dump()
    answer = client.post("/api/explanations", json={"formula": file, "reading": POWDER_SHARE.id, "low": 0.5}).json
    assert answer["contributions"]
    assert answer["page"] == "dough"


def test_what_is_not_declared_is_refused(tables: Tables) -> None:
    assert evaluate(SCOOP, tables).further == {}
    with pytest.raises(InputError, match="there is no reading"):
        parse_target(f"{POWDER_SHARE.id}>=0.85")


def test_a_declaration_is_whole() -> None:
    records = set(USUAL.__dataclass_fields__)
    for reading in declared().values():
        assert reading.kind in {"exact", "physical", "practice"}, reading.id
        assert reading.basis in {"batch", "piece", "dose"}, reading.id
        assert reading.explained.endswith("."), reading.id
        assert set(reading.rests_on) <= records, reading.id
        assert reading.question in {"hold", "set", "foam", "fizz", "feel", "kind", "cost"} or reading.id == "mass_g"
        if reading.scale is not None:
            assert reading.scale[0] < reading.scale[1], reading.id
    places = [reading.watched.place for reading in watched() if reading.watched]
    assert places == sorted(set(places))


def test_every_single_figure_is_the_same_by_itself_and_in_the_evaluation(tables: Tables) -> None:
    """One look serves all: what the balancer aims at is what the sheet shows."""
    whole = evaluate(replace(SCOOP, name="one"), tables)
    for path, reading in declared().items():
        if reading.compute is None or path == "mass_g" or path.startswith("cost."):
            continue
        group, name = path.split(".")
        shown = getattr(getattr(whole, group), name)
        if shown is not None:
            assert contributions(SCOOP, tables, path)[0].mass_g > 0
            aimed = sum((each.without or 0.0) + (each.adds or 0.0) for each in contributions(SCOOP, tables, path)[:1])
            assert aimed == pytest.approx(shown, rel=1e-9, abs=1e-9), path
