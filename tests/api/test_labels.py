"""Labels and product records over HTTP: from the batch, kept as printed, measured in the PDF."""

from __future__ import annotations

import io
import itertools
from typing import Any

import pdfplumber
import pytest
from flask.testing import FlaskClient

from rosy_kettle.files import formula_to_file
from rosy_kettle.store import Studio
from tests.api.test_api import created
from tests.api.test_batches import happen, in_hand
from tests.conftest import make_formula

MM = 72 / 25.4
FACTS = {
    "identity": "Solid bubble bath", "net_g": 60.0, "maker": "Łódka & Gała", "place": "Αθήνα 7", "contact": "www.example.invalid",
    "batch_code": "K-1", "best_before": "2027-05-01",
}  # fmt: skip


def drawn(client: FlaskClient, status: int = 200, **ask: Any) -> dict[str, Any]:
    answer = client.post("/api/labels/drawing", json={"width_mm": 90.0, "height_mm": 80.0, **ask})
    assert answer.status_code == status, answer.text
    told: dict[str, Any] = answer.json
    return told


def scented() -> dict[str, Any]:
    formula = make_formula(baking_soda=300, slsa_fine=90, capb_liquid=60, glycerin=30, fragrance_oil_generic=6)
    return formula_to_file(formula).model_dump(mode="json")


def made_without(client: FlaskClient, title: str) -> int:
    """Make a batch in which one line is left out."""
    formula = client.post("/api/formulas", json=scented()).json
    batch = client.post("/api/batches", json={"formula_id": formula["id"], "wishes": [{"pieces": 5}]}).json
    while batch["state"]["current"] is not None:
        step = in_hand(batch)
        if step["kind"] == "conditions":
            batch = happen(client, batch, kind="conditions", step=step["key"], room_c=20.0, humidity_pct=50.0)
        elif step["kind"] == "weigh" and title in step["title"].lower():
            batch = happen(client, batch, kind="skipped", step=step["key"], why="the jar was empty")
        elif step["kind"] == "weigh":
            batch = happen(client, batch, kind="weighed", step=step["key"], actual_g=step["target_g"])
        else:
            batch = happen(client, batch, kind="done", step=step["key"])
    happen(client, batch, kind="closed")
    number: int = batch["id"]
    return number


def text_of(label: dict[str, Any], element: str) -> str:
    return next((each["text"] for each in label["texts"] if each["element"] == element), "")


def test_two_markets_differ_by_rules_that_are_named(client: FlaskClient) -> None:
    told = drawn(client, formula=scented(), markets=["US", "EU"], facts=FACTS)
    us, eu = told["labels"]
    assert "oz" in text_of(us, "net_quantity")
    assert text_of(eu, "net_quantity") == "60 g"
    assert "Fragrance" in text_of(us, "ingredients")
    assert "Parfum" in text_of(eu, "ingredients")
    rules = {rule["id"] for rule in told["rules"]}
    assert {each["element"] for each in told["differences"]} >= {"net_quantity", "ingredients", "caution"}
    assert all(set(each["rules"]) <= rules for each in told["differences"] if each["element"] in {"net_quantity", "caution"})


def test_what_is_left_out_at_the_bench_is_not_declared(client: FlaskClient) -> None:
    batch = made_without(client, "fragrance")
    whole = drawn(client, formula=scented(), facts=FACTS)["labels"][0]
    told = drawn(client, batch_id=batch, facts=FACTS)
    assert "Fragrance" in text_of(whole, "ingredients")
    assert "Fragrance" not in text_of(told["labels"][0], "ingredients")
    assert any(each["fact"] == "left_out" and "empty" in each["source"] for each in told["known"])
    code = drawn(client, batch_id=batch)["facts"]["batch_code"]
    assert code.endswith(f"-{batch}")


def test_a_lots_certificate_changes_the_allergens(client: FlaskClient) -> None:
    lot = {
        "ingredient": "fragrance-oil-generic", "quantity_g": 500.0, "code": "SC-9", "best_before": "2029-01-01",
        "certificate": {"limit_pct": 3.0, "allergens": {"Linalool": 20.0, "Geraniol": 0.0001}},
    }  # fmt: skip
    before = drawn(client, formula=scented(), markets=["EU"], facts=FACTS)["labels"][0]
    assert any("not known" in each["message"] for each in before["missing"])
    assert client.post("/api/lots", json=lot).status_code == 201
    batch = made_without(client, "nothing is left out")
    after = drawn(client, batch_id=batch, markets=["EU"], facts=FACTS)["labels"][0]
    assert text_of(after, "allergens") == "Contains: Linalool."
    assert not any(each["element"] == "allergens" for each in after["missing"])


def test_an_incomplete_label_is_only_printed_as_a_draft(client: FlaskClient, studio: Studio) -> None:
    formula = client.post("/api/formulas", json=scented()).json["id"]
    ask = {"formula_id": formula, "market": "US", "width_mm": 120.0, "height_mm": 100.0, "facts": {"identity": "Bubble bar"}}
    refused = client.post("/api/labels", json=ask)
    assert (refused.status_code, refused.json["code"]) == (409, "blocked")
    assert "It can be printed as a draft" in refused.json["message"]
    assert {each["element"] for each in refused.json["details"]["missing"]} >= {"net_quantity"}
    kept = client.post("/api/labels", json={**ask, "draft": True})
    assert kept.status_code == 201
    assert kept.json["draft"]
    printed = studio.path.parent / "printed" / f"label-{kept.json['id']:06d}.pdf"
    with pdfplumber.open(printed) as pages:
        assert "Draft, not for sale" in pages.pages[0].extract_text()


def test_a_kept_label_stays_as_it_was(client: FlaskClient) -> None:
    formula = created(client)
    ask = {
        "formula_id": formula["id"],
        "market": "US",
        "width_mm": 120.0,
        "height_mm": 100.0,
        "facts": FACTS,
        "key": "one-asking-1",
    }
    kept = client.post("/api/labels", json=ask)
    assert kept.status_code == 201, kept.text
    assert client.post("/api/labels", json=ask).json["id"] == kept.json["id"]
    pdf = client.get(f"/api/labels/{kept.json['id']}/label.pdf").data
    changed = {"formula": {**formula["formula"], "portions": []}, "revision": formula["revision"]}
    assert client.put(f"/api/formulas/{formula['id']}", json=changed).status_code == 200
    assert client.get(f"/api/labels/{kept.json['id']}/label.pdf").data == pdf
    assert client.get(f"/api/labels/{kept.json['id']}").json["texts"] == kept.json["texts"]
    svg = client.get(f"/api/labels/{kept.json['id']}/label.svg").data.decode()
    with pdfplumber.open(io.BytesIO(pdf)) as pages:
        words = pages.pages[0].extract_text().split()
    assert all(word in svg.replace("&amp;", "&") for word in words)
    again = drawn(client, formula_id=formula["id"])
    assert again["facts"]["identity"] == "Solid bubble bath"


def test_a_sheet_of_three_by_eight_lies_where_it_was_asked(client: FlaskClient) -> None:
    """The left edge of the first letter of each column and the baseline of each row, measured in the PDF."""
    formula = client.post(
        "/api/formulas", json=formula_to_file(make_formula(baking_soda=90, kaolin=10)).model_dump(mode="json")
    ).json
    sheet = {"paper": "A4", "rows": 8, "columns": 3, "left_mm": 0.0, "top_mm": 0.5, "gap_x_mm": 0.0, "gap_y_mm": 0.0}
    ask = {
        "formula_id": formula["id"],
        "market": "EU",
        "width_mm": 70.0,
        "height_mm": 37.0,
        "facts": {
            **FACTS,
            "identity": "Bath dust",
            "directions": "Scatter in.",
            "contact": None,
            "net_g": 45.0,
            "best_before": "2027-05",
            "maker": "Kiln",
            "place": "Quay",
        },
        "copies": 30,
        "sheet": sheet,
    }
    refused = client.post("/api/labels", json={**ask, "width_mm": 72.0})
    assert "A4 has 210 by 297" in refused.json["message"]
    kept = client.post("/api/labels", json={**ask, "draft": True})
    assert kept.status_code == 201, kept.text
    with pdfplumber.open(io.BytesIO(client.get(f"/api/labels/{kept.json['id']}/label.pdf").data)) as pages:
        assert [round(side / MM) for side in (pages.pages[0].width, pages.pages[0].height)] == [210, 297]
        starts = [word for word in pages.pages[0].extract_words() if word["text"] == "Bath"]
        assert len(starts) == 24
        assert len([word for word in pages.pages[1].extract_words() if word["text"] == "Bath"]) == 6
    lefts = sorted({round(word["x0"] / MM, 1) for word in starts})
    assert [round(b - a, 1) for a, b in itertools.pairwise(lefts)] == pytest.approx([70.0, 70.0], abs=0.11)
    tops = sorted({round(word["top"] / MM, 1) for word in starts})
    assert [round(b - a, 1) for a, b in itertools.pairwise(tops)] == pytest.approx([37.0] * 7, abs=0.11)


def test_what_cannot_be_set_is_said(client: FlaskClient) -> None:
    hebrew = drawn(client, formula=scented(), facts={**FACTS, "second_text": "קצף אמבטיה"})["labels"][0]
    assert any("right to left" in each["message"] for each in hebrew["missing"])
    strange = drawn(client, formula=scented(), facts={**FACTS, "identity": "Bath 泡"})["labels"][0]
    assert any("泡" in each["message"] for each in strange["missing"])
    narrow = drawn(client, formula=scented(), facts=FACTS, width_mm=10.0, height_mm=10.0)["labels"][0]
    assert not narrow["fits"]
    assert drawn(client, 422, markets=["US"])["message"].startswith("A label is of a batch or of a formula")


def test_the_product_record_asks_for_nothing_twice(client: FlaskClient) -> None:
    batch = made_without(client, "fragrance")
    record = client.get(f"/api/records/{batch}.json").json
    titles = [part["title"] for part in record["parts"]]
    assert titles[0] == "What this record does not decide"
    assert {"Formula", "Lots it was made from", "Skin ledger", "Batch sheet", "Drying", "Label texts"} <= set(titles)
    assert abs(sum(line["share_pct"] for line in record["lines"]) - 100) < 1e-9
    assert all(line["ingredient"] != "fragrance-oil-generic" for line in record["lines"])
    assert any("from no lot on file" in sentence for sentence in record["unknown"])
    pdf = client.get(f"/api/records/{batch}.pdf")
    with pdfplumber.open(io.BytesIO(pdf.data)) as pages:
        text = "\n".join(page.extract_text() for page in pages.pages)
    assert "Nothing in this record claims" in text
    assert "is safe for" not in text
    assert client.get("/api/records/999.pdf").status_code == 404


def test_the_record_does_not_ask_for_what_stands_on_its_labels(client: FlaskClient) -> None:
    """21 CFR 740.17: the fixed caution stands on the US label, so the ledger of the record does not miss it."""
    batch = made_without(client, "fragrance")

    def missed() -> dict[str, str]:
        parts = client.get(f"/api/records/{batch}.json").json["parts"]
        rows = next(part for part in parts if part["title"] == "Skin ledger")["rows"]
        return {row[0]: row[2] for row in rows if row[0].startswith(("US-FOAM", "US-LABEL", "EU-LABEL"))}

    assert not {"US-FOAM-01", "US-FOAM-02"} & set(missed())
    assert "net weight" in missed()["US-LABEL-01"], "the pieces were never weighed dry, so no label gives their weight"
