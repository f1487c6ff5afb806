"""Every event is itself: known by its id, followed or held, kept whatever kind it is, and declared in one place."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
from flask.testing import FlaskClient
from scripts.event_kinds import TARGET, text
from sqlalchemy import insert

from rosy_kettle.api.app import create_app
from rosy_kettle.api.schemas.happenings import said_union
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.bench import BATCH_EVENTS
from rosy_kettle.core.making.happening import About, Event, EventKind, Family
from rosy_kettle.core.making.rack.record import TrayState
from rosy_kettle.core.making.rack.tray import TRAY_EVENTS
from rosy_kettle.core.making.tub.tub_test import TUB_EVENTS
from rosy_kettle.store import Studio
from rosy_kettle.store.batches import BatchEventRow
from rosy_kettle.store.rack import TrayEventRow
from rosy_kettle.usecases.happen import Coming, read_before_kept
from rosy_kettle.usecases.rack.run_rack import let_tray_happen
from rosy_kettle.usecases.studio import keep_up as keep_up_module
from tests.api.test_batches import begun, conditions, in_hand
from tests.api.test_rack import set_out

Answer = dict[str, Any]
FAMILIES: tuple[Family[Any], ...] = (BATCH_EVENTS, TRAY_EVENTS, TUB_EVENTS)


def tell(client: FlaskClient, batch: Answer, after: int, event: Answer, *, hold: bool = False) -> Any:
    named = {"id": str(uuid4()), "made_at": "2026-11-24T10:00:00Z", **event}
    return client.post(f"/api/batches/{batch['id']}/events", json={"after": after, "event": named, "hold": hold})


def weigh(step: Answer, off_g: float = 0.0) -> Answer:
    return {"kind": "weighed", "step": step["key"], "actual_g": step["target_g"] + off_g, "source": "hand"}


def test_a_repeat_is_answered_as_before_and_changes_nothing(client: FlaskClient) -> None:
    batch = conditions(client, begun(client))
    event = weigh(in_hand(batch)) | {"id": str(uuid4())}
    first, again = (tell(client, batch, batch["state"]["seq"], event) for _ in range(2))
    assert (first.status_code, again.status_code) == (201, 200)
    assert first.json == again.json
    other = tell(client, batch, first.json["state"]["seq"], {"kind": "note", "text": "x", "id": event["id"]})
    assert (other.status_code, other.json["details"]["reason"]) == (409, "id")
    told = next(each for each in first.json["events"] if each["id"] == event["id"])
    assert told["made_at"] == "2026-11-24T10:00:00+00:00"
    assert told["at"] > told["made_at"], "when it was heard stands beside when it was made"


def test_the_name_may_stand_beside_the_event_too(client: FlaskClient) -> None:
    batch = begun(client)
    body = {"after": 0, "id": str(uuid4()), "event": {"kind": "note", "text": "once"}}
    codes = [client.post(f"/api/batches/{batch['id']}/events", json=body).status_code for _ in range(2)]
    assert codes == [201, 200]


@pytest.mark.parametrize("order", ["A first", "B first"])
def test_counts_and_notes_of_two_devices_both_stand_whoever_comes_first(client: FlaskClient, order: str) -> None:
    """12 pieces counted without a network, 1 by the other tablet meanwhile: 13 in the record, either way round."""
    batch = conditions(client, begun(client))
    seen = batch["state"]["seq"]
    told = [{"kind": "pieces", "count": 12}, {"kind": "pieces", "count": 1}, {"kind": "note", "text": "bowl was cracked"}]
    for event in told if order == "A first" else reversed(told):
        assert tell(client, batch, seen, event).status_code == 201
    state = client.get(f"/api/batches/{batch['id']}").json["state"]
    assert (state["pieces_done"], state["notes"]) == (13, ["bowl was cracked"])


def test_another_weighing_of_a_step_is_held_and_shown_beside_the_first(client: FlaskClient) -> None:
    batch = conditions(client, begun(client))
    step, seen = in_hand(batch), batch["state"]["seq"]
    first = tell(client, batch, seen, weigh(step, 0.1)).json
    assert tell(client, batch, seen, weigh(step, 0.4)).status_code == 409
    held = tell(client, batch, seen, weigh(step, 0.4), hold=True)
    assert held.status_code == 201
    (one,) = held.json["held"]
    assert f"{step['target_g'] + 0.4:.1f} g" in one["text"]
    assert [each["seq"] for each in one["beside"]] == [first["state"]["seq"]]
    closing = tell(client, batch, held.json["state"]["seq"], {"kind": "closed"})
    assert (closing.status_code, closing.json["details"]["reason"]) == (409, "held"), "nothing is closed over it"
    put_in = tell(client, batch, held.json["state"]["seq"], {"kind": "settled", "of": one["id"], "put_in": True}).json
    (weighing,) = put_in["state"]["weighings"]
    assert weighing["actual_g"] == pytest.approx(step["target_g"] + 0.4)
    assert (len(put_in["state"]["history"]), put_in["held"]) == (2, [])
    twice = tell(client, batch, put_in["state"]["seq"], {"kind": "settled", "of": one["id"], "put_in": False})
    assert (twice.status_code, twice.json["details"]["reason"]) == (409, "settled")


def test_what_is_set_aside_stays_in_the_record(client: FlaskClient) -> None:
    batch = conditions(client, begun(client))
    step, seen = in_hand(batch), batch["state"]["seq"]
    first = tell(client, batch, seen, weigh(step)).json
    same = tell(client, batch, seen, weigh(step), hold=True).json
    assert same["held"] == [], "the same figure is nothing to choose between"
    assert same["events"][-1]["text"].startswith("Said by another device too")
    (one,) = tell(client, batch, seen, weigh(step, 0.5), hold=True).json["held"]
    aside = tell(client, batch, seen, {"kind": "settled", "of": one["id"], "put_in": False}).json
    assert aside["state"]["weighings"] == first["state"]["weighings"]
    assert aside["events"][-1]["text"].startswith("Set aside: ")
    assert [each["id"] for each in aside["state"]["set_aside"]] == [one["id"]]


def test_the_end_of_another_step_still_follows(client: FlaskClient) -> None:
    """One tablet goes on to the next line; the other, which had not seen it, ended the one before: both stand."""
    batch = conditions(client, begun(client))
    seen = batch["state"]["seq"]
    one = tell(client, batch, seen, weigh(in_hand(batch))).json
    other = tell(client, batch, seen, weigh(in_hand(one)))
    assert other.status_code == 201
    assert len(other.json["state"]["weighings"]) == 2


def test_after_closing_what_stands_by_itself_comes_in_as_an_amendment(client: FlaskClient) -> None:
    batch = conditions(client, begun(client))
    closed = tell(client, batch, batch["state"]["seq"], {"kind": "closed"}).json
    late = {}
    for event in (
        {"kind": "pieces", "count": 12},
        {"kind": "sampled", "mass_g": 57.0},
        {"kind": "note", "text": "the bowl was cracked"},
    ):
        answer = tell(client, batch, 0, event)
        assert answer.status_code == 201
        late = answer.json
    assert [each["kind"] for each in late["events"][-3:]] == ["amended"] * 3
    assert (late["state"]["pieces_done"], late["state"]["samples_g"]) == (12, [57.0])
    assert len(late["state"]["amendments"]) == 3
    assert late["closed_at"] == closed["closed_at"]


def test_less_than_no_piece_is_refused(client: FlaskClient) -> None:
    batch = begun(client)
    answer = tell(client, batch, 0, {"kind": "pieces", "count": -1})
    assert (answer.status_code, "no piece is counted" in answer.json["message"]) == (422, True)


def test_a_kind_this_version_does_not_know_is_kept_and_said(client: FlaskClient, studio: Studio) -> None:
    batch = conditions(client, begun(client))
    tray = set_out(client)
    with studio.writing() as session:
        strange = {"seq": batch["state"]["seq"] + 1, "kind": "danced", "data": {"with": "the broom"}, "batch_id": batch["id"]}
        session.execute(insert(BatchEventRow), [strange])
        session.execute(insert(TrayEventRow), [{"seq": 1, "kind": "turned", "data": {}, "tray_id": tray["id"]}])
    told = client.get(f"/api/batches/{batch['id']}").json
    assert told["events"][-1]["text"] == 'Something this version does not know ("danced"); it is kept as it is.'
    assert [each["kind"] for each in told["state"]["unknown"]] == ["danced"]
    for page in (
        "/api/rack",
        "/api/journal",
        "/api/batches",
        f"/api/rack/{tray['id']}",
        f"/api/records/{batch['id']}.pdf",
        "/api/studio.zip",
    ):
        with client.get(page) as answer:
            assert answer.status_code == 200, page
    weighed = client.post(f"/api/rack/{tray['id']}/weigh-ins", json={"after": 1, "mass_g": 300.0, "pieces": 4})
    assert weighed.status_code == 201, "and the tray goes on"


def test_nothing_is_kept_that_cannot_be_read_back(client: FlaskClient, studio: Studio) -> None:
    tray = set_out(client)
    with studio.writing() as session, pytest.raises(InputError, match="No tray knows"):
        let_tray_happen(session, tray["id"], Coming(0, "weighed_twice", {}))
    with studio.writing() as session, pytest.raises(InputError, match="cannot be read back"):
        let_tray_happen(session, tray["id"], Coming(0, "checked", {"check": "nails"}))
    assert client.get(f"/api/rack/{tray['id']}").json["state"]["seq"] == 0


@pytest.mark.parametrize("family", FAMILIES, ids=lambda family: family.noun)
def test_every_kind_is_put_right_by_a_kind_there_is(family: Family[Any]) -> None:
    assert family.kinds
    assert {kind.righted_by for kind in family.kinds.values()} <= set(family.kinds)


def test_what_the_browser_knows_of_the_kinds_is_made_of_their_declarations() -> None:
    assert TARGET.read_text(encoding="utf-8") == text(), "run make api-types"


@dataclass(frozen=True, slots=True)
class Turned:
    """The pieces were turned over."""

    pieces: int


TURNED: EventKind[TrayState] = EventKind(
    "turned", Turned, lambda event, _about: f"Turned {event.data['pieces']} pieces over.",
    lambda state, event: replace(state, notes=(*state.notes, f"turned {event.data['pieces']}")), journal="task", righted_by="turned",
)  # fmt: skip


def test_one_declaration_is_all_that_a_new_kind_needs(client: FlaskClient, monkeypatch: pytest.MonkeyPatch) -> None:
    """Fold, sentence, journal, type of the API and rules of the browser's queue come of it; as ARCHITECTURE.md walks it."""
    monkeypatch.setitem(TRAY_EVENTS.kinds, "turned", TURNED)
    union = said_union(TRAY_EVENTS, "Tray")
    assert "TrayTurnedEvent" in {each.__name__ for each in union.__origin__.__args__}
    assert "turned: { waits: false" in text()
    studio = client.application.extensions["studio"]
    tray = set_out(client)
    with studio.writing() as session:
        assert let_tray_happen(session, tray["id"], Coming(0, "turned", {"pieces": 4}))
    assert client.get(f"/api/rack/{tray['id']}").json["state"]["notes"] == ["turned 4"]
    (entry,) = client.get("/api/journal?q=turned").json["items"]
    assert (entry["kind"], entry["text"]) == ("task", "Turned 4 pieces over.")


def test_an_event_that_its_own_sentence_breaks_on_is_not_kept() -> None:
    broken = replace(TURNED, tell=lambda event, _about: f"{event.data['feet']}")
    family: Family[TrayState] = Family("tray", "rosy_kettle.core.making.rack.happenings")
    family.kinds["turned"] = broken
    with pytest.raises(InputError, match="cannot be read back"):
        read_before_kept(family, TrayState(), Event(1, "2026-11-24T10:00:00+00:00", "turned", {"pieces": 2}), About())


def test_the_description_names_every_kind_that_a_browser_sends() -> None:
    described = json.loads((Path(create_app.__code__.co_filename).parent / "openapi.json").read_text(encoding="utf-8"))
    for family, prefix in zip(FAMILIES, ("Bench", "Tray", "Tub"), strict=True):
        sent = {f"{prefix}{name.title()}Event" for name, kind in family.kinds.items() if kind.sent}
        assert sent <= set(described["components"]["schemas"])


def test_the_background_goes_on_after_what_it_cannot_read(studio: Studio, monkeypatch: pytest.MonkeyPatch) -> None:
    """One pass breaks on something odd; the next one keeps up what has happened since."""
    passes: list[str] = []

    def keep_up(*_args: Any) -> None:
        passes.append("pass")
        if len(passes) == 1:
            raise ZeroDivisionError

    monkeypatch.setattr(keep_up_module, "keep_up", keep_up)
    monkeypatch.setattr(keep_up_module, "LOOK_SECONDS", 0.01)
    keeper = keep_up_module.Keeper(studio)
    keeper.start()
    keeper.poke()
    keeper.settle(5.0)
    keeper.stop()
    assert len(passes) >= 2
