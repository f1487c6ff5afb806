"""Plans, batches and devices over HTTP: durable, refused in words, never changed once closed."""

from __future__ import annotations

import io
import json
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient
from PIL import Image
from sqlalchemy import text
from sqlalchemy.exc import IntegrityError

from rosy_kettle.store import Studio
from rosy_kettle.usecases.studio.studio_settings import StudioSettings, change_settings
from tests.api.test_api import created, refusal

Answer = dict[str, Any]


def begun(client: FlaskClient, **ask: Any) -> Answer:
    formula = created(client)
    answer = client.post("/api/batches", json={"formula_id": formula["id"], "wishes": [{"pieces": 5}], **ask})
    assert answer.status_code == 201, answer.text
    result: Answer = answer.json
    return result


def happen(client: FlaskClient, batch: Answer, **event: Any) -> Answer:
    answer = client.post(f"/api/batches/{batch['id']}/events", json={"after": batch["state"]["seq"], "event": event})
    assert answer.status_code == 201, answer.text
    result: Answer = answer.json
    return result


def in_hand(batch: Answer) -> Answer:
    step: Answer = batch["state"]["steps"][batch["state"]["current"]]
    return step


def conditions(client: FlaskClient, batch: Answer) -> Answer:
    return happen(client, batch, kind="conditions", step="conditions", room_c=20.0, humidity_pct=52.0, tap="soft")


def test_a_plan_answers_with_order_times_and_sheet(client: FlaskClient) -> None:
    formula = created(client)
    ask = {"wishes": [{"pieces": 12, "tool": "disher-24"}], "capacity_g": 400.0, "humidity_pct": 65.0,
           "ready_by": "2027-01-02T09:00:00Z"}  # fmt: skip
    plan = client.post(f"/api/formulas/{formula['id']}/plans", json=ask).json
    assert plan["order"]["pieces"][0]["pieces"] == 12
    assert sum(plan["order"]["bowls_g"]) == pytest.approx(plan["order"]["batch_g"])
    assert plan["run_sheet"]["batch_g"] == pytest.approx(plan["order"]["bowls_g"][0])
    assert plan["schedule"]["stages"][0]["id"] == "prepare"


@pytest.mark.parametrize("ask", [
    {"wishes": []}, {"wishes": [{"pieces": 0}]}, {"wishes": [{"pieces": 3, "tool": "spoon"}]}, {"wishes": [{"pieces": "three"}]},
    {"wishes": [{"pieces": 3}], "humidity_pct": 140.0}, {"wishes": [{"pieces": 3}], "ready_by": "Saturday"},
    {"wishes": [{"pieces": 3}], "mass_g": -4.0},
])  # fmt: skip
def test_a_plan_that_cannot_be_meant_is_refused_in_one_sentence(client: FlaskClient, ask: Answer) -> None:
    formula = created(client)
    assert refusal(client.post(f"/api/formulas/{formula['id']}/plans", json=ask), 422, "invalid_input").count(". ") == 0


def test_beginning_a_batch_freezes_its_version(client: FlaskClient) -> None:
    batch = begun(client)
    formula = client.get(f"/api/formulas/{batch['formula_id']}").json
    assert formula["versions"][0]["frozen_at"] is not None
    changed = formula["formula"] | {"name": "Other"}
    saved = client.put(f"/api/formulas/{formula['id']}", json={"revision": formula["revision"], "formula": changed}).json
    assert saved["version"] == 2
    again = client.get(f"/api/batches/{batch['id']}").json
    assert (again["version"], again["name"]) == (1, "Scoop")


def test_a_plan_of_two_bowls_goes_on_with_the_second(client: FlaskClient) -> None:
    first = begun(client, capacity_g=200.0)
    assert (first["bowl"], first["bowls"]) == (1, 2)
    second = client.post(f"/api/batches/{first['id']}/next-bowl").json
    assert (second["bowl"], second["version"], second["state"]["seq"]) == (2, first["version"], 0)
    assert second["state"]["steps"] == first["state"]["steps"], "the same steps, whatever became of the formula"
    again = client.post(f"/api/batches/{first['id']}/next-bowl")
    assert refusal(again, 409, "conflict") == f"Bowl 2 is begun already: it is batch {second['id']}."
    last = client.post(f"/api/batches/{second['id']}/next-bowl")
    assert refusal(last, 422, "invalid_input") == "This was bowl 2 of 2, the last; plan again for more."


def test_the_school_asked_for_is_the_school_at_the_bench(client: FlaskClient) -> None:
    usual = begun(client)
    other = begun(client, schools={"surfactant": "after"})
    words = "Fold the surfactant powder into the wet dough"
    assert [any(words in step["text"] for step in batch["state"]["steps"]) for batch in (usual, other)] == [False, True]


def test_what_happened_is_there_and_the_second_asker_hears_of_it(client: FlaskClient) -> None:
    batch = begun(client)
    after = conditions(client, batch)
    assert after["state"]["conditions"]["humidity_pct"] == 52.0
    late = client.post(f"/api/batches/{batch['id']}/events", json={
        "after": 0, "event": {"kind": "weighed", "step": in_hand(after)["key"], "actual_g": 5.0}})  # fmt: skip
    assert refusal(late, 409, "conflict") == "The batch has moved on; look again."
    step = in_hand(after)
    weighed = happen(client, after, kind="weighed", step=step["key"], actual_g=step["target_g"] + 0.2, source="scale")
    assert weighed["state"]["weighings"][0]["within"] is True
    assert weighed["events"][-1]["text"].endswith("by scale.")
    assert client.get(f"/api/batches/{batch['id']}").json == weighed


@pytest.mark.parametrize("event", [
    {"kind": "danced"}, {"kind": "weighed", "step": "conditions", "actual_g": -1.0}, {"kind": "weighed", "step": "x", "actual_g": "5"},
    {"kind": "felt", "state": "lovely" * 10}, {"kind": "corrected", "ingredient": "stardust", "mass_g": 3.0}, {"kind": "done"},
    {"kind": "done", "step": "weigh-0"}, {"kind": "pieces", "count": 5000}, {"kind": "conditions", "step": "conditions", "room_c": 900.0},
])  # fmt: skip
def test_nonsense_is_refused_and_nothing_happens(client: FlaskClient, event: Answer) -> None:
    batch = begun(client)
    answer = client.post(f"/api/batches/{batch['id']}/events", json={"after": 0, "event": event})
    assert answer.status_code in {409, 422}
    assert "Traceback" not in answer.text
    assert client.get(f"/api/batches/{batch['id']}").json["state"]["seq"] == 0


def test_a_way_out_is_chosen_recorded_and_changes_what_is_to_come(client: FlaskClient) -> None:
    batch = conditions(client, begun(client))
    step = in_hand(batch)
    over = step["target_g"] * 1.1
    ways = client.get(f"/api/batches/{batch['id']}/ways-out?actual_g={over}").json["ways"]
    scaled = next(way for way in ways if way["way"] == "scale-up")
    moved = happen(client, batch, kind="rescued", step=step["key"], actual_g=over, way="scale-up")
    assert [event["kind"] for event in moved["events"]] == ["conditions", "rescued", "weighed"]
    assert in_hand(moved)["target_g"] == pytest.approx(scaled["targets"][str(in_hand(moved)["position"])])
    assert moved["now"]["mass_g"] == pytest.approx(scaled["batch_g"])


def test_a_closed_record_stays_as_it_is_also_below_the_application(client: FlaskClient, studio: Studio) -> None:
    client.put("/api/ingredients/baking-soda/stock", json={"on_hand_g": 1000.0})
    batch = conditions(client, begun(client))
    step = in_hand(batch)
    soda_g = step["target_g"]
    batch = happen(client, batch, kind="weighed", step=step["key"], actual_g=soda_g)
    closed = happen(client, batch, kind="closed")
    assert closed["closed_at"] is not None
    step = next(each for each in closed["state"]["steps"] if each["kind"] == "weigh" and each["key"] != step["key"])
    weighed = {"kind": "weighed", "step": step["key"], "actual_g": 1.0}
    answer = client.post(f"/api/batches/{batch['id']}/events", json={"after": closed["state"]["seq"], "event": weighed})
    assert "closed" in refusal(answer, 409, "conflict")
    amended = happen(client, closed, kind="amended", text="a crack after two days")
    late = happen(client, amended, kind="note", text="it smelt faintly")
    assert [text for _at, text in late["state"]["amendments"]] == ["a crack after two days", "it smelt faintly"]
    assert late["events"][-1]["kind"] == "amended", "a note that comes late is an amendment"
    left = client.get("/api/ingredients/baking-soda").json["on_hand_g"]
    assert left == pytest.approx(1000.0 - soda_g)
    for statement in ("UPDATE batch_events SET kind='note'", "DELETE FROM batch_events"):
        with studio.engine.connect() as connection, pytest.raises(IntegrityError, match="never changed"):
            connection.execute(text(statement))


def test_the_record_leaves_as_json_and_pdf_and_the_sheet_too(client: FlaskClient) -> None:
    batch = conditions(client, begun(client))
    record = client.get(f"/api/batches/{batch['id']}/record.json")
    assert json.loads(record.data) == batch
    assert "attachment" in record.headers["Content-Disposition"]
    for address in (
        f"/api/batches/{batch['id']}/record.pdf",
        f"/api/formulas/{batch['formula_id']}/run-sheet.pdf?batch_g=600&pieces=10&piece_mass_g=57",
    ):
        paper = client.get(address)
        assert paper.status_code == 200
        assert paper.data.startswith(b"%PDF-1.")
        assert paper.mimetype == "application/pdf"


def test_a_photo_is_kept_small_and_a_shopping_list_is_no_photo(client: FlaskClient, tmp_path: Path) -> None:
    batch = begun(client)
    buffer = io.BytesIO()
    Image.new("RGB", (3000, 2000), (200, 120, 120)).save(buffer, "PNG")
    sent = client.post(
        f"/api/batches/{batch['id']}/photos?after=0", data={"photo": (io.BytesIO(buffer.getvalue()), "tray.png")}
    )  # fmt: skip
    assert sent.status_code == 201, sent.text
    name = sent.json["state"]["photos"][0]
    kept = client.get(f"/api/batches/{batch['id']}/photos/{name}")
    with Image.open(io.BytesIO(kept.data)) as image:
        assert image.size == (1280, 853)
    kept.close()
    assert (tmp_path / "photos" / name).exists()
    listed = client.post(f"/api/batches/{batch['id']}/photos?after=1", data={"photo": (io.BytesIO(b"soda, acid"), "list.jpg")})
    assert "no photo" in refusal(listed, 422, "invalid_input")
    assert client.get(f"/api/batches/{batch['id']}/photos/../studio.sqlite3").status_code in {404, 422}


def with_stand_ins(studio: Studio) -> None:
    with studio.writing() as session:
        change_settings(session, StudioSettings(stand_ins=True))


def test_an_empty_studio_has_no_devices_until_stand_ins_are_switched_on(client: FlaskClient, studio: Studio) -> None:
    assert client.get("/api/devices").json | {"clock_rate": 1} == {
        "readings": [], "stand_ins": False, "simulated_scale": False, "clock_rate": 1,
    }  # fmt: skip
    refused = refusal(client.post("/api/devices/drawer", json={"act": "pour", "value": 5.0}), 409, "conflict")
    assert "switch them on under Settings" in refused
    with_stand_ins(studio)
    shown = client.get("/api/devices").json
    assert {(each["device"], each["source"]) for each in shown["readings"]} == {
        ("scale", "stand-in"), ("thermometer", "stand-in"), ("hygrometer", "stand-in"),
    }  # fmt: skip


def test_the_drawer_moves_the_devices(client: FlaskClient, studio: Studio) -> None:
    with_stand_ins(studio)

    def reading(name: str) -> Answer:
        return next(each for each in client.get("/api/devices").json["readings"] if each["device"] == name)

    client.post("/api/devices/drawer", json={"act": "temperature", "device": "thermometer", "value": 55.0})
    assert reading("thermometer")["value"] > 45
    client.post("/api/devices/drawer", json={"act": "unplug", "device": "hygrometer"})
    assert reading("hygrometer") | {"at_ms": 0} == {
        "device": "hygrometer", "value": None, "unit": "% RH", "stable": False, "fault": "unplugged", "at_ms": 0,
        "source": "stand-in",
    }  # fmt: skip
    client.post("/api/devices/drawer", json={"act": "plug", "device": "hygrometer"})
    assert reading("hygrometer")["value"] is not None
    assert client.post("/api/devices/drawer", json={"act": "juggle"}).status_code == 422
    assert client.post("/api/devices/scale/zero").status_code == 200


def test_all_batches_are_listed_with_what_became_of_them(client: FlaskClient) -> None:
    batch = begun(client)
    batch = happen(client, batch, kind="note", text="wet day")
    happen(client, batch, kind="outcome", pieces_good=4, pieces_spoiled=1, foam_height_cm=6.0, remarks="slow but creamy")
    listed = client.get("/api/batches").json["batches"]
    assert listed[0]["pieces_good"] == 4
    assert "wet day" in listed[0]["remarks"]
    assert "creamy" in listed[0]["remarks"]
    assert refusal(client.get("/api/batches/99"), 404, "not_found") == "There is no batch 99."


def test_a_burst_of_pages_gets_no_more_places_than_there_are(client: FlaskClient) -> None:
    """A place is taken when it is asked for, not when the first news is read."""
    asked = [client.get("/api/devices/stream", buffered=False) for _ in range(40)]
    assert [answer.status_code for answer in asked] == [200] * 10 + [409] * 30
    for answer in asked:
        answer.close()
    with client.get("/api/devices/stream", buffered=False) as again:
        assert again.status_code == 200


def test_only_so_many_pages_listen_and_leaving_makes_room(client: FlaskClient, studio: Studio) -> None:
    with_stand_ins(studio)

    def listen() -> Any:
        return client.get("/api/devices/stream?batch=1", buffered=False)

    open_ones = [listen() for _ in range(10)]
    first = [next(iter(answer.response)) for answer in open_ones]
    assert json.loads(first[0].removeprefix(b"data: "))["readings"][0]["device"] == "scale"
    assert "Too many pages listen" in refusal(listen(), 409, "conflict")
    for answer in open_ones:
        answer.close()
    again = listen()
    assert next(iter(again.response)).startswith(b"data: ")
    again.close()
