"""What batches, trays, baths and measurements say is kept, and is the same as if all of it were worked out now."""

from __future__ import annotations

from dataclasses import replace

from flask.testing import FlaskClient

from rosy_kettle.core.learning.factors import Learnt, learn
from rosy_kettle.store import Studio
from rosy_kettle.store.observations import KINDS, forget_observations, list_sources
from rosy_kettle.usecases.learning.keep_observations import MOST_OF_EACH, keep_observations
from rosy_kettle.usecases.learning.learn_from_studio import Learning, look_at_learning
from rosy_kettle.usecases.learning.learner import Learner
from rosy_kettle.usecases.learning.observe import observe
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from tests.api.test_api import created
from tests.api.test_learning import foamed
from tests.api.test_tub import happen


def learnt_now(studio: Studio) -> Learnt:
    """Work everything out anew, with nothing kept."""
    with studio.reading() as session:
        tables, sources = studio_tables(session, {}), list_sources(session, MOST_OF_EACH)
        seen = [
            observation
            for kind in KINDS
            for _id, observations in sorted(
                observe(session, kind, [each.id for each in sources if each.kind == kind], tables), key=lambda each: -each[0]
            )
            for observation in observations
        ]
        return learn(seen, tables)


def learnt_from_kept(studio: Studio) -> Learning:
    with studio.reading() as session:
        return look_at_learning(session)


def same(studio: Studio) -> bool:
    kept, now = learnt_from_kept(studio), learnt_now(studio)
    figures = [(each.factor.id, each.factor.n, round(each.factor.yours, 9), round(each.factor.low, 9)) for each in kept.factors]
    fresh = [(each.id, each.n, round(each.yours, 9), round(each.low, 9)) for each in now.factors]
    errors, errors_now = ([replace(each, after=round(each.after, 9)) for each in some.errors] for some in (kept, now))
    return sorted(figures) == sorted(fresh) and errors == errors_now and kept.set_aside == now.set_aside


def test_what_is_kept_is_what_would_be_worked_out_now(demo_client: FlaskClient, demo_studio: Studio) -> None:
    assert demo_client.get("/api/learning").json["waiting"] == 0
    assert same(demo_studio)
    test = next(each for each in demo_client.get("/api/tub-tests?limit=200").json["items"] if each["state"]["heights"])
    before = learnt_from_kept(demo_studio).seen["foam"]
    happen(demo_client, test, kind="amended", of=test["state"]["heights"][0]["seq"], left_out=True)
    assert learnt_from_kept(demo_studio).waiting == 1, "a bath in which something happened has to be read again"
    demo_client.get("/api/learning")
    assert learnt_from_kept(demo_studio).seen["foam"] == before - 1
    assert same(demo_studio)


def test_reading_stops_where_it_is_told_to_and_goes_on_from_there(demo_client: FlaskClient, demo_studio: Studio) -> None:
    with demo_studio.writing() as session:
        forget_observations(session, list_sources(session, MOST_OF_EACH))
    told: list[tuple[int, int]] = []
    keep_observations(demo_studio, lambda done, whole: told.append((done, whole)), lambda: len(told) > 1)
    (nothing, whole), (some, _whole) = told
    assert (nothing, whole - some) == (0, learnt_from_kept(demo_studio).waiting)
    assert 0 < some < whole
    keep_observations(demo_studio, lambda done, whole: told.append((done, whole)))
    assert told[2] == (some, whole), "what was read before the stop is not read again"
    assert told[-1] == (whole, whole)
    assert demo_client.get("/api/learning").json["waiting"] == 0
    assert same(demo_studio)


def test_a_held_reader_begins_nothing_and_answers_all_the_same(client: FlaskClient, studio: Studio) -> None:
    formula = created(client)
    foamed(client, formula["id"], 1.4, tests=2)
    learner = Learner(studio)
    learner.start()
    try:
        learner.hold()
        learner.read_up(5.0)
        assert (learner.running, learnt_from_kept(studio).waiting) == (False, 2)
        learner.go_on()
        learner.read_up(30.0)
        assert (learner.done, learner.whole) == (2, 2)
        assert learnt_from_kept(studio).waiting == 0
    finally:
        learner.close()


def test_what_changes_an_ingredient_of_the_studio_has_everything_read_again(client: FlaskClient, studio: Studio) -> None:
    formula = created(client)
    foamed(client, formula["id"], 1.4, tests=1)
    assert client.get("/api/learning").json["waiting"] == 0
    own = {"based_on": "slsa-fine", "name": "Slate-jar powder", "properties": {"active_fraction": 0.5}}
    assert client.post("/api/ingredients", json=own).status_code == 201
    assert learnt_from_kept(studio).waiting == 1
    answer = client.get("/api/learning").json
    assert answer["waiting"] == 0
    assert not answer["reading"]
