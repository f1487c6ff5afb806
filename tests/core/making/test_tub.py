"""A test in the tub: events fold to one state, what cannot be meant is refused, what was foretold follows the foam's own course."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rosy_kettle.core.errors import ConflictError, InputError
from rosy_kettle.core.making.happening import Event
from rosy_kettle.core.making.tub.foretold import foretell
from rosy_kettle.core.making.tub.tub_test import TubState, baths_of_piece, check_tub_event, tub_state_of
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Tables, Use
from tests.conftest import make_formula
from tests.core.models.test_dough import BETAINE_SCOOP


def events(*told: tuple[str, dict[str, Any]]) -> list[Event]:
    return [Event(seq, f"2026-03-01T18:{seq:02d}:00+00:00", kind, data) for seq, (kind, data) in enumerate(told, start=1)]


OPEN = ("opened", {})
FOAM = ("foam", {"minutes": 5.0, "height_cm": 4.0})


def test_events_add_up_to_one_state() -> None:
    state = tub_state_of(events(
        OPEN, FOAM, ("foam", {"minutes": 1.0, "height_cm": 0.9}), ("seen", {"floats": "sinks", "ring": "none"}),
        ("seen", {"floats": "floats"}), ("amended", {"of": 2, "height_cm": 4.4}), ("left", {"mass_g": 36.0}),
        ("photo", {"name": "a.jpg"}), ("note", {"text": "a thin one"}), ("amended", {"of": 3, "left_out": True}), ("closed", {}),
    ))  # fmt: skip
    assert (state.seq, state.opened_at, state.closed_at) == (11, "2026-03-01T18:01:00+00:00", "2026-03-01T18:11:00+00:00")
    assert [(each.minutes, each.height_cm, each.left_out) for each in state.heights] == [(1.0, 0.9, True), (5.0, 4.4, False)]
    assert state.seen == {"floats": "floats", "ring": "none"}, "the last word counts"
    assert (state.left_g, state.photos, state.notes) == (36.0, ("a.jpg",), ("a thin one",))


@given(st.permutations([("foam", {"minutes": float(at), "height_cm": at / 2}) for at in (1, 5, 10, 20)]))
def test_heights_stand_in_their_order_however_they_were_written_down(order: list[tuple[str, dict[str, Any]]]) -> None:
    state = tub_state_of(events(OPEN, *order))
    assert [each.minutes for each in state.heights] == [1.0, 5.0, 10.0, 20.0]
    assert [each.height_cm for each in state.heights] == [0.5, 2.5, 5.0, 10.0]


@pytest.mark.parametrize(("kind", "data", "error", "words"), [
    ("opened", {}, InputError, "open already"), ("amended", {"of": 9}, InputError, "no such height"),
    ("left", {"mass_g": 500.1}, InputError, "More is left"), ("amended", {"of": 1}, InputError, "no such height"),
])  # fmt: skip
def test_what_cannot_be_meant_of_an_open_test_is_refused(
    kind: str, data: dict[str, Any], error: type[Exception], words: str
) -> None:
    with pytest.raises(error, match=words):
        check_tub_event(tub_state_of(events(OPEN, FOAM), 25.0), kind, data)


def test_a_test_is_closed_once_something_was_seen_and_then_takes_only_words() -> None:
    with pytest.raises(InputError, match="Nothing has been seen yet"):
        check_tub_event(TubState(), "closed", {})
    check_tub_event(tub_state_of(events(("seen", {"ring": "none"}))), "closed", {})
    check_tub_event(tub_state_of(events(OPEN, FOAM)), "closed", {})
    closed = tub_state_of(events(OPEN, FOAM, ("closed", {})))
    for kind, data in (("foam", FOAM[1]), ("seen", {"ring": "none"}), ("left", {"mass_g": 1})):
        with pytest.raises(ConflictError, match="closed"):
            check_tub_event(closed, kind, data)
    check_tub_event(closed, "note", {"text": "the ring came off later"})
    check_tub_event(closed, "amended", {"of": 2, "height_cm": 3.0})
    check_tub_event(tub_state_of(events(OPEN, FOAM), 25.0), "left", {"mass_g": 500.0})


@pytest.mark.parametrize(("dose_g", "left_g", "baths"), [
    (24.0, 48.0, 3.0), (24.0, 0.0, 1.0), (30.0, 15.0, 1.5), (24.0, None, None), (0.0, 10.0, None),
])  # fmt: skip
def test_how_many_baths_a_piece_is_good_for(dose_g: float, left_g: float | None, baths: float | None) -> None:
    """A piece broken in three gives three baths: the one that was taken, and two of the same dose that are left."""
    assert baths_of_piece(dose_g, left_g) == baths


def test_foam_is_foretold_rising_over_the_fill_and_halved_by_each_half_life(tables: Tables) -> None:
    used = replace(BETAINE_SCOOP, use=Use(dose_g=25.0))
    lather, fill_min = evaluate(used, tables).lather, tables.parameters.lather.fill_min
    assert lather.height_cm
    assert lather.half_life_min
    said = {each.minutes: each.height_cm for each in foretell(used, tables).heights}
    assert said[fill_min] == pytest.approx(lather.height_cm), "full height when the tub is full"
    assert said[1.0] == pytest.approx(lather.height_cm / fill_min)
    assert said[5.0] == pytest.approx(5 * said[1.0])
    for earlier, later in ((10.0, 15.0), (20.0, 30.0)):
        assert said[later] / said[earlier] == pytest.approx(2 ** (-(later - earlier) / lather.half_life_min))


def test_of_a_piece_that_does_not_foam_no_height_is_foretold(tables: Tables) -> None:
    told = foretell(make_formula("damp-press", baking_soda=200, citric_acid_anhydrous=100), tables)
    assert told.heights == ()
    assert (
        told.gone_after_min
        == evaluate(make_formula("damp-press", baking_soda=200, citric_acid_anhydrous=100), tables).release.minutes
    )
