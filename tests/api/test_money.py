"""Money over HTTP: the studio's currency, rates typed by hand, margins."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

from flask.testing import FlaskClient

from rosy_kettle.files import formula_to_file
from tests.conftest import make_formula


def written(**grams: float) -> dict[str, Any]:
    return formula_to_file(make_formula(**grams)).model_dump(mode="json")


def keep(client: FlaskClient, **said: Any) -> Any:
    settings = client.get("/api/settings").json["settings"]
    return client.put("/api/settings", json={**settings, **said})


def test_reference_prices_follow_the_typed_rate_and_say_so(client: FlaskClient) -> None:
    usd = client.get("/api/ingredients/kaolin").json
    euros = [{"currency": "EUR", "per_usd": "0.5", "on": "2026-11-29"}]
    assert keep(client, currency="EUR", rates=euros).status_code == 200
    eur = client.get("/api/ingredients/kaolin").json
    assert [Decimal(end) for end in eur["price_band"]] == [Decimal(end) / 2 for end in usd["price_band"]]
    assert "0.5 EUR a dollar as typed on 2026-11-29" in eur["price_note"]


def test_without_a_rate_nothing_falls_back_silently(client: FlaskClient) -> None:
    assert keep(client, currency="EUR").status_code == 200
    refused = client.post("/api/money", json={"formula": written(baking_soda=500)})
    assert refused.status_code == 422
    assert "type a rate for EUR" in refused.json["message"]


def test_a_price_typed_in_euros_stays_what_it_was_when_the_studio_goes_back(client: FlaskClient) -> None:
    euros = [{"currency": "EUR", "per_usd": "0.80", "on": "2026-11-29"}]
    keep(client, currency="EUR", rates=euros)
    client.put("/api/ingredients/kaolin/price", json={"price_per_kg": "12.40", "breaks": []})
    assert client.get("/api/ingredients/kaolin").json["price_per_kg"] == "12.40"
    keep(client, currency="USD", rates=euros)
    assert client.get("/api/ingredients/kaolin").json["price_per_kg"] == "15.50"
    keep(client, currency="EUR", rates=euros)
    assert client.get("/api/ingredients/kaolin").json["price_per_kg"] == "12.40"


def test_two_rates_of_one_currency_are_refused(client: FlaskClient) -> None:
    rate = {"currency": "EUR", "per_usd": "0.9", "on": "2026-11-29"}
    refused = keep(client, rates=[rate, rate])
    assert refused.status_code == 422
    assert "two rates" in refused.json["message"]


def test_parts_of_a_piece_sum_to_the_whole(client: FlaskClient) -> None:
    formula = written(baking_soda=500, slsa_fine=100)
    formula["making"] = {"packaging_per_piece": "0.2", "labour_minutes": "45", "labour_per_hour": "20", "price_per_piece": "4"}
    told = client.post("/api/money", json={"formula": formula}).json
    assert len(told["sizes"]) == 7
    at = told["written"]
    parts = sum(Decimal(at[part]) for part in ("ingredients", "packaging", "labour", "overhead"))
    assert abs(parts - Decimal(at["whole"])) <= Decimal("0.002")
    assert Decimal(told["price"]) - Decimal(at["whole"]) == Decimal(at["margin"])


def test_more_fixed_minutes_than_minutes_are_refused(client: FlaskClient) -> None:
    formula = written(baking_soda=500)
    formula["making"] = {"labour_minutes": "10", "fixed_minutes": "20"}
    refused = client.post("/api/money", json={"formula": formula})
    assert refused.status_code == 422
    assert "minutes" in refused.json["message"]
