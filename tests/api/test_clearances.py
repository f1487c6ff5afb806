"""What may leave: clearances signed and taken back, orders made, lots held, complaints, and the recall that finds all of it."""

from __future__ import annotations

import csv
import email
import io
import zipfile
from datetime import UTC, date, datetime, timedelta
from typing import Any

import pdfplumber
import pytest
from flask.testing import FlaskClient
from openpyxl import load_workbook

from rosy_kettle.files import formula_to_file
from rosy_kettle.store import Studio
from rosy_kettle.store.clearances import SIGNED, ClearanceRow, add_clearance
from tests.api.test_batches import happen, in_hand
from tests.conftest import make_formula

Answer = dict[str, Any]
FACTS = {
    "identity": "Solid bubble bath", "net_g": 60.0, "maker": "Kiln & Tide", "place": "Quay 7", "contact": "www.example.invalid",
}  # fmt: skip
RECORDS = ["safety_substantiation", "us_registration", "us_listing"]


@pytest.fixture
def made(client: FlaskClient) -> Answer:
    """A batch of one formula that nothing stands against in the US: dry, labelled, its papers on file; its glycerin is named."""
    lot = {"ingredient": "glycerin", "quantity_g": 5000.0, "code": "G-7", "best_before": "2029-05-01"}
    lot_id = client.post("/api/lots", json=lot).json["id"]
    formula = formula_to_file(make_formula(baking_soda=300, slsa_fine=90, glycerin=60)).model_dump(mode="json")
    formula["product"] |= {"records": RECORDS, "us_avg_sales_3y_usd": 2_000_000}
    formula_id = client.post("/api/formulas", json=formula).json["id"]
    batch = client.post("/api/batches", json={"formula_id": formula_id, "wishes": [{"pieces": 5}]}).json
    batch = happen(client, batch, kind="lot", ingredient="glycerin", code="G-7")
    while batch["state"]["current"] is not None:
        step = in_hand(batch)
        if step["kind"] == "conditions":
            batch = happen(client, batch, kind="conditions", step=step["key"], room_c=20.0, humidity_pct=50.0)
        elif step["kind"] == "weigh":
            batch = happen(client, batch, kind="weighed", step=step["key"], actual_g=step["target_g"])
        else:
            batch = happen(client, batch, kind="done", step=step["key"])
    happen(client, batch, kind="closed")
    tray = client.post("/api/rack", json={"pieces": 5, "batch_id": batch["id"], "place": "rack"}).json
    wrapped = {"after": tray["state"]["seq"], "event": {"kind": "wrapped"}}
    assert client.post(f"/api/rack/{tray['id']}/events", json=wrapped).status_code == 201
    ask = {"batch_id": batch["id"], "market": "US", "width_mm": 120.0, "height_mm": 110.0, "facts": FACTS}
    kept = client.post("/api/labels", json=ask)
    assert kept.status_code == 201, kept.text
    return {
        "formula": formula_id,
        "batch": batch["id"],
        "lot": lot_id,
        "code": kept.json["facts"]["batch_code"],
        "label": kept.json["id"],
    }


def of_us(client: FlaskClient, batch: int) -> Answer:
    told: Answer = next(each for each in client.get(f"/api/batches/{batch}/clearances").json["items"] if each["market"] == "US")
    return told


def say(client: FlaskClient, batch: int, status: int = 201, **said: Any) -> Answer:
    answer = client.post(f"/api/batches/{batch}/clearances", json={"market": "US", "who": "Wren", **said})
    assert answer.status_code == status, answer.text
    told: Answer = answer.json
    return told


def order(client: FlaskClient, made: Answer, status: int, **said: Any) -> Answer:
    taken = client.post("/api/orders", json={"who": "Harbour stall", "formula_id": made["formula"], "pieces": 5, **said}).json
    answer = client.put(f"/api/orders/{taken['id']}", json={"state": "made", "batch_ids": [made["batch"]]})
    assert answer.status_code == status, answer.text
    told: Answer = answer.json
    return told


def rules(told: Answer) -> set[str]:
    return {each["rule"] for each in told["blocks"]}


def test_a_clearance_is_signed_and_taken_back_with_a_reason(client: FlaskClient, made: Answer) -> None:
    assert (of_us(client, made["batch"])["blocks"], of_us(client, made["batch"])["signed"]) == ([], None)
    assert "Who signs" in say(client, made["batch"], 422, who=" ")["message"]
    assert "nothing to take back" in say(client, made["batch"], 422, state="taken-back", reason="early")["message"]
    say(client, made["batch"])
    assert of_us(client, made["batch"])["clean"]
    assert "Why" in say(client, made["batch"], 422, state="taken-back")["message"]
    say(client, made["batch"], state="taken-back", reason="the scent was wrong")
    told = of_us(client, made["batch"])
    assert told["signed"] is None
    assert [(row["state"], row["who"], row["reason"]) for row in told["history"]] == [
        ("taken-back", "Wren", "the scent was wrong"), ("signed", "Wren", ""),
    ]  # fmt: skip


def test_an_order_is_made_from_cleared_batches_only(client: FlaskClient, made: Answer) -> None:
    refused = order(client, made, 409)
    assert (refused["code"], rules(refused["details"])) == ("blocked", {"NOT-SIGNED"})
    assert rules(order(client, made, 409, **{"for": "gift"})["details"]) == {"NOT-SIGNED"}
    own = order(client, made, 200, **{"for": "own"})
    assert (own["state"], rules(own)) == ("made", {"NOT-SIGNED"}), "own use shows and never blocks"
    say(client, made["batch"])
    assert order(client, made, 200)["blocks"] == []
    assert rules(order(client, made, 409, market="EU")["details"]) >= {"EU-DOC-01", "NOT-SIGNED"}
    alone = client.post("/api/orders", json={"who": "Stall", "formula_id": made["formula"], "pieces": 2}).json
    unnamed = client.put(f"/api/orders/{alone['id']}", json={"state": "made"})
    assert rules(unnamed.json["details"]) == {"ORDER-BATCHES"}


def test_what_comes_up_later_opens_it_again(client: FlaskClient, made: Answer) -> None:
    say(client, made["batch"])
    assert client.get("/api/clearances/reopened").json["items"] == []
    held = client.put(f"/api/lots/{made['lot']}/state", json={"state": "held", "reason": "smells sharp", "who": "Ash"}).json
    assert held["lot"]["held"]
    assert "held" in {each["code"] for each in held["lot"]["said"]}
    opened = client.get("/api/clearances/reopened").json["items"]
    assert [(each["batch_id"], each["market"], rules(each)) for each in opened] == [(made["batch"], "US", {"LOT-HELD"})]
    ask = {"batch_id": made["batch"], "market": "US", "width_mm": 120.0, "height_mm": 110.0, "facts": FACTS}
    assert rules(client.post("/api/labels", json=ask).json["details"]) == {"LOT-HELD"}
    assert client.get(f"/api/labels/{made['label']}").json["draft"] is False, "printed before, and stays"
    client.put(f"/api/lots/{made['lot']}/state", json={"state": "released", "reason": "tested, fine"})
    assert of_us(client, made["batch"])["clean"]
    client.post("/api/complaints", json={"what": "itchy arms", "kind": "skin", "code": made["code"]})
    assert rules(of_us(client, made["batch"])) == {"COMPLAINT"}
    assert rules(client.get("/api/clearances/reopened").json["items"][0]) == {"COMPLAINT"}
    say(client, made["batch"], 201)
    assert of_us(client, made["batch"])["clean"], "looked into, and signed anew"


def test_no_label_promises_more_than_its_shortest_lived_material(client: FlaskClient, made: Answer) -> None:
    ask = {"batch_id": made["batch"], "market": "US", "width_mm": 120.0, "height_mm": 110.0}
    for said, status in (("2029-05-01", 201), ("2029-05", 409), ("2029-06-01", 409), ("1/2030", 409)):
        assert client.post("/api/labels", json={**ask, "facts": {**FACTS, "best_before": said}}).status_code == status, (
            said
        )  # an earlier day, its last
    why = {**FACTS, "best_before": "2029-06-01", "best_before_reason": "kept pieces were fine at 40 months"}
    assert client.post("/api/labels", json={**ask, "facts": why}).status_code == 201


def test_a_code_is_found_from_each_end(client: FlaskClient, made: Answer) -> None:
    say(client, made["batch"])
    order(client, made, 200)
    for code in ("G-7", "g-7", made["code"]):
        found = client.get("/api/recalls", query_string={"code": code}).json
        assert [each["id"] for each in found["batches"]] == [made["batch"]], code
        assert "G-7" in {each["code"] for each in found["lots"]}
        assert [each["batch_id"] for each in found["trays"]] == [made["batch"]]
        assert [each["id"] for each in found["labels"]] == [made["label"]]
        assert [each["who"] for each in found["people"]] == ["Harbour stall"]
        assert all(each["how"] for part in ("lots", "batches", "trays", "labels", "orders", "people") for each in found[part])
    assert not any(each["noun"] == "batch" for each in found["assumed"]), "its jar was named"
    assert client.get("/api/recalls?code=").status_code == 422
    nothing = client.get("/api/recalls?code=no-such-code").json
    assert not any(nothing[part] for part in nothing if part != "code")
    rows = list(csv.reader(io.StringIO(client.get(f"/api/recalls.csv?code={made['code']}").data.decode("utf-8-sig"))))
    assert {row[0] for row in rows[1:]} >= {"batches", "lots", "orders", "people", "trays", "labels"}
    mail = email.message_from_bytes(client.get("/api/recalls/letter.eml?code=G-7").data)
    assert (mail["X-Unsent"], made["code"] in mail["Subject"]) == ("1", True)
    assert client.get("/api/recalls/letter.pdf?code=G-7").data.startswith(b"%PDF")


def test_what_nobody_said_is_marked_as_assumed(client: FlaskClient, made: Answer) -> None:
    client.post("/api/lots", json={"ingredient": "baking-soda", "quantity_g": 9000.0, "code": "S-1"})
    batch = client.post("/api/batches", json={"formula_id": made["formula"], "wishes": [{"pieces": 5}]}).json
    while batch["state"]["current"] is not None:
        step = in_hand(batch)
        kind = {"conditions": {"kind": "conditions", "room_c": 20.0, "humidity_pct": 50.0}}.get(step["kind"], {"kind": "done"})
        if step["kind"] == "weigh":
            kind = {"kind": "weighed", "actual_g": step["target_g"]}
        batch = happen(client, batch, step=step["key"], **kind)
    happen(client, batch, kind="closed")
    found = client.get("/api/recalls?code=S-1").json
    assert ("batch", batch["id"]) in {(each["noun"], each["id"]) for each in found["assumed"]}
    assert "assumed" in found["batches"][0]["how"]


def test_a_serious_complaint_shows_its_clock(client: FlaskClient, made: Answer) -> None:
    """15 business days, Monday to Friday: FD&C Act s. 605 (21 USC 364a), from memory. 2026-11-02 is a Monday."""
    said = {
        "what": "went to hospital",
        "kind": "breathing",
        "serious": True,
        "at": "2026-11-02T10:00:00+00:00",
        "code": made["code"],
    }
    kept = client.post("/api/complaints", json=said).json
    assert (kept["batch_id"], kept["report_by"]) == (made["batch"], "2026-11-23")
    mild = client.post("/api/complaints", json={**said, "serious": False, "code": "nothing known"}).json
    assert (mild["batch_id"], mild["report_by"]) == (None, None)
    assert rules(of_us(client, made["batch"])) == {"COMPLAINT"}, "serious, and nobody has done anything"
    client.put(f"/api/complaints/{kept['id']}", json={"done": "reported"})
    assert rules(of_us(client, made["batch"])) == set()
    trends = client.get("/api/complaints/trends").json["items"]
    assert {("lot", "G-7", 1, 1)} <= {(each["of"], each["name"], each["count"], each["serious"]) for each in trends}
    later = (datetime.now(UTC) + timedelta(days=2)).isoformat()
    for wrong, word in (({"kind": "nose"}, "kind"), ({"what": " "}, "What was said"), ({"at": later}, "cannot have been heard")):
        refused = client.post("/api/complaints", json={**said, **wrong})
        assert refused.status_code == 422
        assert word in refused.text
    assert date.fromisoformat(kept["report_by"]).weekday() == 0


def test_a_pasted_sheet_is_read_row_by_row(client: FlaskClient) -> None:
    text = "Substance\tCAS\t%\nLinalool\t78-70-6\t12,5\nLilial  80-54-6  2-5 %\nLimonenne 4\nTotal"
    rows = client.post("/api/certificate-readings", json={"text": text}).json["rows"]
    assert [(row["known_as"], row["pct"], row["nearest"]) for row in rows] == [
        ("Linalool", 12.5, None), ("Butylphenyl Methylpropional", 5.0, None), (None, 4.0, "Limonene"),
    ]  # fmt: skip
    for category, status in (("9", 200), ("Category 5a", 200), ("banana", 422)):
        paper = {"category": category, "limit_pct": 2.0, "amendment": "51", "substances": [{"name": "Linalool", "pct": 5.0}]}
        answer = client.put("/api/ingredients/fragrance-oil-generic/certificate", json=paper)
        assert answer.status_code == status, category
    assert client.get("/api/ingredients/fragrance-oil-generic").json["certificate"]["category"] == "5A"


def test_the_assessors_folder_holds_an_exposure_sheet_without_a_verdict(client: FlaskClient, made: Answer) -> None:
    """0.01 of what is rinsed off stays, an adult weighs 60 kg: SCCS Notes of Guidance, 12th revision, from memory."""
    client.post("/api/complaints", json={"what": "itchy arms", "kind": "skin", "code": made["code"]})
    answer = client.get(f"/api/records/{made['batch']}.zip")
    folder = zipfile.ZipFile(io.BytesIO(answer.data))
    assert {"folder.pdf", "exposure.xlsx", "formula.json", "certificates.json", f"labels/label-{made['label']}-US.pdf"} == set(
        folder.namelist()
    )
    sheet = load_workbook(io.BytesIO(folder.read("exposure.xlsx")))["Exposure"]
    heads = [cell.value for cell in sheet[1]]
    soda = next(row for row in sheet.iter_rows(min_row=2, values_only=True) if row[0] == "Sodium Bicarbonate")
    assert soda[heads.index("mg/kg/day, adult")] == pytest.approx(0.01 * soda[2] / 60.0)
    assert soda[heads.index("NOAEL, mg/kg/day (assessor)")] is None
    assert str(soda[-1]).startswith("=IF(")
    with pdfplumber.open(io.BytesIO(folder.read("folder.pdf"))) as pages:
        text = " ".join(page.extract_text() for page in pages.pages)
    for part in ("Exposure", "Foreseeable misuse", "Undesirable effects", "itchy arms", "US register", "Good manufacturing"):
        assert part in text, part
    assert "is safe" not in text.replace("claims that the product is safe", "")
    assert client.get("/api/records/999.zip").status_code == 404


def test_a_certificate_that_lapses_opens_a_clearance_again(client: FlaskClient, studio: Studio) -> None:
    paper = {"limit_pct": 5.0, "category": "9", "substances": [{"name": "Linalool", "pct": 5.0}]}
    address = "/api/ingredients/fragrance-oil-generic/certificate"
    client.put(address, json=paper)
    formula = formula_to_file(make_formula(baking_soda=300, slsa_fine=90, glycerin=60, fragrance_oil_generic=4))
    formula_id = client.post("/api/formulas", json=formula.model_dump(mode="json")).json["id"]
    batch = client.post("/api/batches", json={"formula_id": formula_id, "wishes": [{"pieces": 5}]}).json["id"]
    with studio.writing() as session:
        add_clearance(session, ClearanceRow(batch_id=batch, market="US", state=SIGNED, who="Wren"))
    assert client.get("/api/clearances/reopened").json["items"] == []
    for lapsed in ({**paper, "limit_pct": None}, {**paper, "category": "12"}, {}):
        client.put(address, json=lapsed)
        assert [rules(each) for each in client.get("/api/clearances/reopened").json["items"]] == [{"IFRA-03"}], lapsed
