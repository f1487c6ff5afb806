"""Lists of stock over HTTP: odd headings, units, signs and days; looked at, taken over, taken back; nothing runs as a formula."""

from __future__ import annotations

import base64
import io
from decimal import Decimal
from time import process_time
from typing import Any

import openpyxl
import pytest
from flask.testing import FlaskClient

from rosy_kettle.files.spreadsheet import read_sheet, to_csv, to_xlsx
from rosy_kettle.reader.decimal_signs import DECIMAL_SIGNS, decimal_sign_of, read_number, two_ways
from rosy_kettle.reader.stock_list import guess_date_order

Answer = dict[str, Any]
LIST = """Artikel;Menge (kg);Preis;Lieferant;Charge;MHD
Bicarbonate of soda;5;"12,40 €";Harbour stores;NB-11;25/04/2027
Glycerin;1,25;8,90 €;Harbour stores;G-88;12/06/2027
SLSA powder;0,5;"1.021,00 €";Harbour stores;;01/12/2027
Moon glimmer;2;3,00 €;Harbour stores;M-1;
Corn starch;1;2,10 €;Harbour stores;C-1;02/03/2027
""".replace(";MHD", ";MHD ")
KEY = "import-of-a-test-1"


def sent(client: FlaskClient, data: bytes, status: int = 200, **ask: Any) -> Answer:
    body = {"content": base64.b64encode(data).decode(), "key": KEY, **ask}
    answer = client.post("/api/stock-imports", json=body)
    assert answer.status_code == status, answer.text
    made: Answer = answer.json
    return made


def test_a_list_is_looked_at_taught_taken_over_and_taken_back(client: FlaskClient) -> None:
    seen = sent(client, LIST.encode())
    assert (seen["in_all"], seen["asked"], seen["taken"]) == (5, 1, 0)
    assert {seen["headings"][at]: name for name, at in seen["columns"].items()} == {
        "Artikel": "name", "Menge (kg)": "quantity", "Preis": "price", "Lieferant": "supplier", "Charge": "code",
        "MHD": "best_before",
    }  # fmt: skip
    assert seen["rows"][0]["why"] == 'What is "Moon glimmer"?'
    rows = {row["row"]: row for row in seen["rows"]}
    assert (rows[2]["quantity_g"], rows[2]["price"], rows[2]["currency"]) == (1250.0, "8.90", "EUR")
    assert rows[3]["price"] == "1021.00"
    assert rows[1]["best_before"] == "2027-04-25"
    assert client.get("/api/lots").json["items"] == []
    taken = sent(client, LIST.encode(), dry=False, meanings={"Moon glimmer": "mica-pigment"})
    assert (taken["asked"], taken["taken"]) == (0, 5)
    assert sent(client, LIST.encode())["asked"] == 0, "the name is learnt"
    assert client.get("/api/ingredients/glycerin").json["on_hand_g"] == 1250.0
    assert sent(client, LIST.encode(), dry=False)["taken"] == 5
    assert len(client.get("/api/lots").json["items"]) == 5, "the same import twice is one"
    assert client.delete(f"/api/stock-imports/{KEY}").json["withdrawn"] == 5
    assert client.get("/api/lots").json["items"] == []
    assert client.delete(f"/api/stock-imports/{KEY}").status_code == 404


def test_days_that_can_be_read_two_ways_are_asked_about(client: FlaskClient) -> None:
    text = "Name,Grams,Best before\nGlycerin,500,03/04/05\n"
    seen = sent(client, text.encode(), columns={"name": 0, "quantity": 1, "best_before": 2, "unit": 1})
    assert "Which is the day" in seen["rows"][0]["why"]
    told = sent(client, text.encode(), date_order="day-month-year")
    assert told["rows"][0]["best_before"] == "2005-04-03"
    assert guess_date_order(["03/04/2027", "25/04/2027"]) == "day-month-year"
    assert guess_date_order(["03/04/2027", "04/25/2027"]) == "month-day-year"
    assert guess_date_order(["03/04/2027"]) is None


@pytest.mark.parametrize(("text", "value"), [
    ("1.250,5", "1250.5"), ("1,250.5", "1250.5"), ("12,4", "12.4"), ("1 250", "1250"), ("€ 8,90", "8.90"),
    ("1'250.00", "1250.00"), ("0,500", "0.500"), ("1.000.000", "1000000"), ("1250,125", "1250.125"), ("-3,5", "-3.5"),
])  # fmt: skip
def test_a_number_that_shows_its_decimal_sign_is_read_by_it(text: str, value: str) -> None:
    assert not two_ways(text) or "," not in text
    assert {read_number(text, sign) for sign in DECIMAL_SIGNS} == {Decimal(value)}


@pytest.mark.parametrize("text", ["1,250", "1.250", "€ 12.500", "999,999 kg"])
def test_a_number_that_can_be_read_two_ways_is_read_by_what_the_table_shows_or_asked_about(
    client: FlaskClient, text: str
) -> None:
    assert two_ways(text)
    assert decimal_sign_of([text]) is None
    assert read_number(text, ".") != read_number(text, ",")
    bare = text.strip("€ kg")
    asked = sent(client, f"Name;kg\nGlycerin;{bare}\nCorn starch;2\n".encode())
    assert [row["why"] for row in asked["rows"]] == [f'"{bare}" can be read two ways; say how decimals are written.', ""]
    for sign, other in (",.", ".,"):
        shown = f'Name;kg;Price\nGlycerin;{bare};"3{sign}50"\n'.encode()
        told = sent(client, f"Name;kg\nGlycerin;{bare}\n".encode(), decimal_sign=sign)["rows"][0]["quantity_g"]
        assert sent(client, shown)["rows"][0]["quantity_g"] == told == float(bare.replace(other, "").replace(sign, ".")) * 1000


def test_numbers_of_a_spreadsheet_are_never_thousands() -> None:
    book = openpyxl.Workbook()
    for row in (("Name", "kg"), ("Glycerin", 1.125), ("Corn starch", 1.25), ("Citric acid", 0.125), ("Kaolin", 1125)):
        book.active.append(row)
    out = io.BytesIO()
    book.save(out)
    cells = [row[1] for row in read_sheet(out.getvalue()).rows]
    assert [float(read_number(cell, ",") or 0) for cell in cells] == [1.125, 1.25, 0.125, 1125.0]


def test_units_of_mass_and_what_has_none() -> None:
    """The international avoirdupois pound is 453.59237 g exactly (agreement of 1959)."""
    from rosy_kettle.reader.stock_list import _grams as grams

    asked: list[str] = []
    assert grams("2 lb", "", ".", asked) == pytest.approx(907.18474)
    assert grams("3", "oz", ".", asked) == pytest.approx(85.048569)
    assert asked == []
    assert grams("3", "", ".", asked) is None
    assert grams("2 bottles", "", ".", asked) is None
    assert len(asked) == 2


def test_xlsx_comes_and_goes_and_nothing_in_it_is_a_formula(client: FlaskClient) -> None:
    book = openpyxl.Workbook()
    book.active.append(["Ingredient", "Qty", "Unit", "Cost"])
    book.active.append(["Citric acid", 2.5, "kg", 11.2])
    out = io.BytesIO()
    book.save(out)
    assert sent(client, out.getvalue(), dry=False)["taken"] == 1
    client.post("/api/lots", json={"ingredient": "glycerin", "quantity_g": 5.0, "code": "=HYPERLINK(1)", "supplier": "@cmd"})
    table = client.get("/api/stock.xlsx")
    sheet = openpyxl.load_workbook(io.BytesIO(table.data)).active
    cells = [cell for row in sheet.iter_rows() for cell in row]
    assert not [cell.coordinate for cell in cells if cell.data_type == "f"]
    assert "'=HYPERLINK(1)" in {cell.value for cell in cells}
    text = client.get("/api/stock.csv").data.decode("utf-8-sig")
    assert "'@cmd" in text
    assert [row[0] for row in read_sheet(text.encode()).rows] == ["citric-acid-anhydrous", "glycerin"]
    assert read_sheet(to_xlsx("x", ["a", "b"], [("-5", "-x")])).rows == (("-5", "'-x"),)
    assert read_sheet(to_csv(["a", "b"], [("1", "+2,5")])).rows == (("1", "'+2,5"),)


def test_what_is_no_table_is_refused_in_one_sentence(client: FlaskClient) -> None:
    assert "neither CSV nor XLSX" in sent(client, b"\0\1\2" * 50, 422)["message"]
    assert "no spreadsheet" in sent(client, b"PK\3\4 not a zip", 422)["message"]
    assert "no row" in sent(client, b"name,price\n", 422)["message"]
    assert "which column names" in sent(client, b"x,y\n1,2\n", 422, dry=False)["message"]
    assert "no column" in sent(client, b"name,y\n1,2\n", 422, columns={"name": 9})["message"]


def test_a_hundred_thousand_rows_are_taken_over_in_a_minute(client: FlaskClient) -> None:
    names = ("Glycerin", "Corn starch", "Citric acid", "Baking soda", "SLSA powder")
    rows = "\n".join(f"{names[index % 5]},{1 + index % 7} kg,{index % 90 + 1}.50,L-{index}" for index in range(100_000))
    begun = process_time()
    assert sent(client, f"Item,Qty,Price,Lot\n{rows}\n".encode(), dry=False)["taken"] == 100_000
    assert process_time() - begun < 60
    begun = process_time()
    client.get("/api/lots?q=harbour")
    client.get("/api/ingredients/glycerin")
    assert process_time() - begun < 2


def test_a_long_list_says_how_far_it_is_and_stops_without_a_trace(client: FlaskClient) -> None:
    rows = "".join(f"Glycerin;1,5;{number},00;shop;S-{number}\n" for number in range(12_000))
    data = ("Name;Menge (kg);Preis;Lieferant;Charge\n" + rows).encode()
    transfer = client.application.extensions["list_transfer"]
    seen: list[tuple[int, int]] = []
    transfer.report = lambda done, whole: seen.append((done, whole))
    assert sent(client, data)["in_all"] == 12_000
    assert seen == [(row, 12_000) for row in range(500, 12_001, 500)]
    before = client.get("/api/lots").json["items"]
    for at in (3_000, 12_000, 17_000):  # while it is read, between reading and taking over, and while it is taken over
        seen.clear()
        transfer.report = lambda done, _whole, at=at: transfer.stop() if done >= at else None
        refused = sent(client, data, 422, dry=False, meanings={"Menge": "glycerin"})
        assert refused["message"] == "The list was stopped; nothing of it was taken over."
        assert client.get("/api/lots").json["items"] == before
    assert not client.get("/api/stock-imports/progress").json["running"]
    with transfer.begin("list"):
        assert sent(client, data, 409)["code"] == "conflict"
    transfer.report = lambda _done, _whole: None
    assert sent(client, data, dry=False)["taken"] == 12_000
    assert client.delete("/api/stock-imports/progress").json["running"] is False


def test_headings_of_any_kind_are_no_dead_end(client: FlaskClient) -> None:
    seen = sent(client, b"Was es ist;Gebinde (kg);LOT\nGlycerin;1,5;A\nCorn starch;2;B\n")
    assert ({seen["headings"][at]: name for name, at in seen["columns"].items()}, seen["asked"]) == (
        {"Was es ist": "name", "Gebinde (kg)": "quantity", "LOT": "code"}, 0,
    )  # fmt: skip
    strange = b"Was;Wie viel\nMoon glimmer;1,5 kg\nStar dust;2 kg\n"
    seen = sent(client, strange)
    assert (seen["in_all"], seen["asked"], "name" in seen["columns"]) == (2, 2, False)
    assert {row["why"] for row in seen["rows"]} == {"Say which column names the ingredient."}
    assert "which column" in sent(client, strange, 422, dry=False)["message"]
    meanings = {"Moon glimmer": "mica-pigment", "Star dust": "mica-pigment"}
    told = sent(client, strange, columns={"name": 0, "quantity": 1}, meanings=meanings)
    assert [row["quantity_g"] for row in told["rows"]] == [1500.0, 2000.0]
    assert sent(client, strange)["asked"] == 2, "looking teaches nothing"
