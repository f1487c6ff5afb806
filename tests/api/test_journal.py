"""The journal and the lists: everything that happens is told, found by three letters, and kept figures are the true ones."""

from __future__ import annotations

import re
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy import func, select

from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.store import Studio
from rosy_kettle.store.batches import BatchEventRow
from rosy_kettle.store.formulas import find_formula, record_of
from rosy_kettle.store.glances import FormulaGlanceRow, PageOfFormulas
from rosy_kettle.store.journal import JournalAsk, JournalRow, page_of_journal
from rosy_kettle.store.rack import TrayEventRow
from rosy_kettle.usecases.formulas.list_formulas import glance_at_formulas
from rosy_kettle.usecases.journal import keep_journal
from rosy_kettle.usecases.studio.grow import grow_studio
from rosy_kettle.usecases.studio.keep_up import Keeper, keep_up
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from tests.api.test_api import SCOOP, created
from tests.api.test_rack import set_out

Answer = dict[str, Any]


@pytest.fixture(scope="module")
def grown(tmp_path_factory: pytest.TempPathFactory) -> Studio:
    from rosy_kettle.store import open_studio

    studio = open_studio(tmp_path_factory.mktemp("grown"))
    grow_studio(studio, 60, 40, 400, seed=3)
    return studio


def asked(client: FlaskClient, **query: Any) -> Answer:
    answer = client.get("/api/journal", query_string=query)
    assert answer.status_code == 200, answer.text
    return dict(answer.json)


def whole_journal(client: FlaskClient, **query: Any) -> list[Answer]:
    """All pages of a question, the newest entry first."""
    page = asked(client, limit=200, **query)
    found = list(page["items"])
    while page["next"]:
        page = asked(client, limit=200, cursor=page["next"], **query)
        found += page["items"]
    return found


def test_all_that_happens_is_told_and_leads_to_its_place(demo_client: FlaskClient) -> None:
    entries = whole_journal(demo_client)
    assert {"formula", "plan", "felt", "correction", "weigh-in", "tray", "note", "result"} <= {entry["kind"] for entry in entries}
    assert all(entry["formula_id"] or entry["batch_id"] or entry["tray_id"] or entry["test_id"] for entry in entries)
    assert [entry["id"] for entry in entries] == sorted((entry["id"] for entry in entries), reverse=True)
    batch = demo_client.get("/api/batches").json["batches"][0]["id"]
    note = {
        "after": demo_client.get(f"/api/batches/{batch}").json["state"]["seq"],
        "event": {"kind": "note", "text": "Zwieback smell"},
    }
    assert demo_client.post(f"/api/batches/{batch}/events", json=note).status_code == 201
    (found,) = asked(demo_client, q="zwi")["items"]
    assert (found["batch_id"], found["kind"]) == (batch, "note")
    assert [entry["id"] for entry in asked(demo_client, q='"zwieback smell"')["items"]] == [found["id"]]
    assert asked(demo_client, q='"smell zwieback"')["items"] == []
    assert {row["id"] for row in demo_client.get("/api/batches?q=zwieback").json["batches"]} == {batch}


def test_filters_narrow_and_what_they_do_not_know_is_refused(demo_client: FlaskClient) -> None:
    whole = whole_journal(demo_client)
    for query, holds in (
        ({"kind": "felt"}, lambda entry: entry["kind"] == "felt"),
        ({"gone_wrong": "true"}, lambda entry: entry["gone_wrong"]),
        ({"batch_id": 2}, lambda entry: entry["batch_id"] == 2),
        ({"formula_id": 4, "kind": "correction"}, lambda entry: entry["formula_id"] == 4 and entry["kind"] == "correction"),
        (
            {"month": whole[0]["at"][:7], "gone_wrong": "true"},
            lambda entry: entry["gone_wrong"] and entry["at"][:7] == whole[0]["at"][:7],
        ),
    ):  # fmt: skip
        got = whole_journal(demo_client, **query)
        assert [entry["id"] for entry in got] == [entry["id"] for entry in whole if holds(entry)], query
    for wrong in ({"kind": "gossip"}, {"month": "2026-13"}, {"month": "May"}, {"cursor": 0}, {"limit": 201}):
        answer = demo_client.get("/api/journal", query_string=wrong)
        assert answer.status_code == 422, wrong


def test_pages_hold_every_entry_once(grown: Studio) -> None:
    with grown.reading() as session:
        count = session.scalar(select(func.count()).select_from(JournalRow))
        pages, before = list[int](), None
        while rows := page_of_journal(session, JournalAsk(before=before, limit=17)):
            pages += [row.id for row in rows]
            before = rows[-1].id
        weighed = session.scalar(select(func.count()).select_from(TrayEventRow).where(TrayEventRow.kind == "weighed"))
        told = session.scalar(select(func.count()).select_from(JournalRow).where(JournalRow.kind == "weigh-in"))
        felt = session.scalar(select(func.count()).select_from(BatchEventRow).where(BatchEventRow.kind == "felt"))
        assert session.scalar(select(func.count()).select_from(JournalRow).where(JournalRow.kind == "felt")) == felt
    assert len(pages) == len(set(pages)) == count
    assert told == weighed == 400


WORDS = ["kel", "Gorse sco", "cracked", "thin ring", '"thin ring"', "batch 1", "6 pieces", "g glyc", "éstuck", "", "--", "12.5"]


@pytest.mark.parametrize("query", WORDS)
@pytest.mark.parametrize("kind", [None, "result", "weigh-in"])
def test_the_search_finds_what_a_plain_scan_finds(grown: Studio, query: str, kind: str | None) -> None:
    """Against a scan in Python of every entry: words as prefixes, what stands in quotes as a phrase."""

    def holds(entry: JournalRow) -> bool:
        # Of a weigh-in its name is searched, not its figures.
        told = entry.title if entry.kind == "weigh-in" else f"{entry.title} | {entry.text}"
        words = re.findall(r"[^\W_]+", told.lower())
        asked_for = re.findall(r'"([^"]+)"|([^\s"]+)', query)
        if query.strip() and not any(re.findall(r"[^\W_]+", phrase or word) for phrase, word in asked_for):
            return False
        for phrase, word in asked_for:
            parts = re.findall(r"[^\W_]+", (phrase or word).lower().replace("é", "e"))
            runs = [words[at : at + len(parts)] for at in range(len(words) - len(parts) + 1)]
            if phrase and parts not in runs:
                return False
            if not phrase and parts and not any(run[:-1] == parts[:-1] and run[-1].startswith(parts[-1]) for run in runs):
                return False
        return kind is None or entry.kind == kind

    with grown.reading() as session:
        everything = list(session.scalars(select(JournalRow).order_by(JournalRow.id.desc())))
        wanted = [entry.id for entry in everything if holds(entry)]
        found = [row.id for row in page_of_journal(session, JournalAsk(query, kind=kind, limit=100_000))]
    assert found == wanted


def test_the_journal_goes_on_where_it_was_and_in_the_order_of_time(grown: Studio) -> None:
    """Told in small bites or at once, the entries are the same and their moments rise."""
    with grown.writing() as session:
        before = [(row.source, row.source_id) for row in session.scalars(select(JournalRow).order_by(JournalRow.id))]
        for table in ("journal", "journal_marks"):
            session.connection().exec_driver_sql(f"DELETE FROM {table}")
        session.connection().exec_driver_sql("INSERT INTO journal_words(journal_words) VALUES ('delete-all')")
        while keep_journal.keep_journal(session, studio_tables(session), 7):
            pass
        rows = list(session.scalars(select(JournalRow).order_by(JournalRow.id)))
    assert sorted((row.source, row.source_id) for row in rows) == sorted(before)
    assert [row.at for row in rows] == sorted(row.at for row in rows)


def test_trays_set_out_the_wrong_way_round_do_not_hold_the_journal_up(client: FlaskClient, studio: Studio) -> None:
    """Set out in the past, the latest first: whatever their order, all are told in the end."""
    formula = created(client)
    for hours in range(1, 12):
        set_out(client, float(hours), formula_id=formula["id"])
    with studio.writing() as session:
        for _ in range(100):
            if not keep_journal.keep_journal(session, studio_tables(session), 3):
                break
        assert not keep_journal.entries_waiting(session)
    assert len(asked(client, kind="tray", limit=200)["items"]) == 11


def test_formulas_come_in_pages_and_each_once(grown: Studio) -> None:
    with grown.reading() as session:
        found, before = list[int](), None
        while page := glance_at_formulas(session, PageOfFormulas("", before, 7)):
            found += [glance.id for glance in page]
            before = (page[-1].updated_at, page[-1].id)
            assert all(glance.judged for glance in page)
        named = glance_at_formulas(session, PageOfFormulas("KELP scoop", None, 200))
    assert len(found) == len(set(found)) == 60
    assert all("Kelp scoop" in glance.name for glance in named)


def test_a_cursor_of_our_own_making_leads_on_and_another_is_refused(demo_client: FlaskClient) -> None:
    first = demo_client.get("/api/formulas?limit=4").json
    second = demo_client.get("/api/formulas", query_string={"limit": 200, "cursor": first["next"]}).json
    names = [row["name"] for row in first["formulas"] + second["formulas"]]
    assert len(names) == len(set(names)) == first["in_all"] == 12
    assert second["next"] is None
    for cursor in ("x", "2026-01-01~1", "2026-01-01T00:00:00+00:00~", "2026-01-01T00:00:00+00:00~9" + "9" * 20, "~1"):
        answer = demo_client.get("/api/formulas", query_string={"cursor": cursor})
        assert (answer.status_code, answer.json["details"]["quantity"]) == (422, "cursor"), cursor


@settings(max_examples=12, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    acts=st.lists(st.sampled_from(["price", "amount", "name", "ingredient", "delete", "restore", "new"]), min_size=1, max_size=5)
)
def test_once_the_background_is_idle_kept_figures_are_fresh_ones(client: FlaskClient, studio: Studio, acts: list[str]) -> None:
    """After any change: what the list keeps agrees with an evaluation made now."""
    formula = created(client)
    for number, act in enumerate(acts):
        _act(client, formula["id"], act, number)
    client.get("/api/formulas")
    with studio.reading() as session:
        tables = studio_tables(session)
        for kept in session.scalars(select(FormulaGlanceRow)):
            row = (
                session.get(type(find_formula(session, kept.formula_id)), kept.formula_id)
                if _there(client, kept.formula_id)
                else None
            )
            if row is not None:
                true = evaluate(record_of(row), tables)
                assert kept.cost_piece == true.cost.piece
                assert kept.mass_g == pytest.approx(true.mass_g)
                assert kept.state == (true.dough.state if true.dough else None)


def _there(client: FlaskClient, formula_id: int) -> bool:
    return client.get(f"/api/formulas/{formula_id}").status_code == 200


def _act(client: FlaskClient, formula_id: int, act: str, number: int) -> None:
    now = client.get(f"/api/formulas/{formula_id}")
    if act == "price":
        client.put("/api/ingredients/slsa-fine/price", json={"price_per_kg": f"{20 + number}.00", "breaks": []})
    elif act == "new":
        created(client, name=f"another {number}")
    elif act == "restore":
        client.post(f"/api/formulas/{formula_id}/restore")
    elif now.status_code == 200 and act == "delete":
        client.delete(f"/api/formulas/{formula_id}")
    elif now.status_code == 200:
        changed = now.json["formula"]
        if act == "name":
            changed |= {"name": f"name {number}"}
        elif act == "amount":
            changed["portions"][0]["lines"][0]["amount"] = str(150 + number)
        client.put(f"/api/formulas/{formula_id}", json={"revision": now.json["revision"], "formula": changed})


def test_the_background_works_by_itself_and_a_list_never_judges(client: FlaskClient, studio: Studio) -> None:
    """A formula that waits is shown at once, said to wait, and judged behind the scenes."""
    with studio.reading() as session:
        assert glance_at_formulas(session, PageOfFormulas("", None, 5)) == []
    made = client.post("/api/formulas", json=SCOOP)
    with studio.reading() as session:
        (waiting,) = glance_at_formulas(session, PageOfFormulas("", None, 5))
    assert (waiting.id, waiting.judged, waiting.state) == (made.json["id"], False, None)
    keeper = Keeper(studio)
    keeper.start()
    try:
        keeper.settle(30)
        with studio.reading() as session:
            (judged,) = glance_at_formulas(session, PageOfFormulas("", None, 5))
        assert judged.judged
        assert keeper.waiting() == 0
    finally:
        keeper.stop()


def test_the_same_seed_grows_the_same_studio(tmp_path_factory: pytest.TempPathFactory) -> None:
    from rosy_kettle.store import open_studio

    told = []
    for name in ("a", "b"):
        studio = open_studio(tmp_path_factory.mktemp(name))
        grow_studio(studio, 4, 3, 30, seed=11)
        with studio.reading() as session:
            told.append([(row.at, row.title, row.text) for row in session.scalars(select(JournalRow).order_by(JournalRow.id))])
        studio.close()
    strip = [[entry for entry in each if "kept" not in entry[2]] for each in told]
    assert strip[0] == strip[1]
    assert len(strip[0]) > 40


def begun(client: FlaskClient, formula_id: int, room_c: float, humidity_pct: float) -> int:
    batch: Answer = client.post("/api/batches", json={"formula_id": formula_id, "wishes": [{"pieces": 6}]}).json
    step = batch["state"]["steps"][batch["state"]["current"]]["key"]
    event = {"kind": "conditions", "step": step, "room_c": room_c, "humidity_pct": humidity_pct}
    assert client.post(f"/api/batches/{batch['id']}/events", json={"after": 0, "event": event}).status_code == 201
    return int(batch["id"])


def test_of_two_batches_the_difference_that_matters_is_named(client: FlaskClient) -> None:
    formula = created(client)
    first, damp = begun(client, formula["id"], 21, 40), begun(client, formula["id"], 19, 66)
    told = client.get(f"/api/batches/{first}/comparison?other={damp}").json
    assert told["differences"][0]["ingredient"] is None
    assert "humidity (40 → 66 %)" in told["sentence"]
    assert "Dry after" in told["sentence"]
    changed = client.get(f"/api/formulas/{formula['id']}").json
    changed["formula"]["portions"][0]["lines"][-1]["amount"] = "70"
    saved = client.put(f"/api/formulas/{formula['id']}", json={"revision": changed["revision"], "formula": changed["formula"]})
    assert saved.status_code == 200, saved.text
    wetter = begun(client, formula["id"], 21, 40)
    told = client.get(f"/api/batches/{first}/comparison?other={wetter}").json
    assert told["differences"][0]["ingredient"] == changed["formula"]["portions"][0]["lines"][-1]["ingredient"]
    assert {fact["id"]: fact["differs"] for fact in told["facts"]}["version"] is True
    assert client.get(f"/api/batches/{first}/comparison?other={first}").status_code == 422
    assert client.get(f"/api/batches/{first}/comparison?other=999").status_code == 404


def test_an_ingredient_in_use_names_its_formulas_and_one_of_old_versions_does_not(client: FlaskClient, studio: Studio) -> None:
    keep_up(studio)
    own = client.post(
        "/api/ingredients", json={"based_on": "glycerin", "name": "Barn glycerin", "inci": "", "note": "", "properties": {}}
    )
    assert own.status_code == 201, own.text
    name = own.json["id"] if "id" in own.json else own.json["ingredient"]["id"]
    formula = created(client, portions=[{"name": "b", "lines": [{"ingredient": name, "amount": "10", "unit": "g"}]}])
    refused = client.delete(f"/api/ingredients/{name}")
    assert (refused.status_code, refused.json["details"]["formulas"]) == (409, [formula["formula"]["name"]])
    emptied = formula["formula"] | {"portions": [{"name": "b", "lines": []}]}
    client.post(f"/api/formulas/{formula['id']}/versions", json={"note": "old"})
    assert (
        client.put(f"/api/formulas/{formula['id']}", json={"revision": formula["revision"], "formula": emptied}).status_code
        == 200
    )
    assert client.delete(f"/api/ingredients/{name}").status_code in {200, 204}
