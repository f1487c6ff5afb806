"""Jars: first expiring first, nothing lost to the last digit, and what is to be said of one before it is used."""

from __future__ import annotations

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.stock.lots import Lot, draw_from_lots, in_drawing_order, words_of_lot

TODAY = date(2026, 6, 1)
DAYS = st.one_of(st.none(), st.integers(-400, 800).map(lambda days: TODAY + timedelta(days=days)))
LOTS = st.lists(
    st.builds(
        Lot, st.just(0), st.just("glycerin"), st.just("G"), st.floats(-50, 900).map(lambda g: round(g, 1)), st.just(1000.0), DAYS
    ),
    min_size=1, max_size=6,
).map(lambda lots: [Lot(at, each.ingredient, f"G-{at}", each.left_g, 1000.0, each.best_before) for at, each in enumerate(lots)])  # fmt: skip


def lot(id_: int = 1, left_g: float = 500.0, **facts: date) -> Lot:
    return Lot(id_, "glycerin", f"G-{id_}", left_g, 1000.0, facts.get("best_before"), facts.get("opened_on"))


@given(LOTS, st.floats(0, 3000).map(lambda g: round(g, 1)))
def test_what_is_drawn_is_what_was_used_and_at_most_one_jar_goes_below_nothing(lots: list[Lot], mass_g: float) -> None:
    draws = draw_from_lots(lots, mass_g, TODAY)
    assert sum(draw.mass_g for draw in draws) == pytest.approx(mass_g, abs=1e-6)
    assert len({draw.lot_id for draw in draws}) == len(draws)
    left = {each.id: each.left_g for each in lots}
    over = [draw for draw in draws if draw.mass_g > left[draw.lot_id] + 1e-9]
    assert len(over) <= 1
    there = sum(max(0.0, each.left_g) for each in lots)
    assert bool(over) == (mass_g > there + 1e-9)


@given(LOTS)
def test_the_order_is_first_expiring_first_and_expired_last(lots: list[Lot]) -> None:
    order = in_drawing_order(lots, TODAY)
    expired = [each.best_before is not None and each.best_before < TODAY for each in order]
    assert expired == sorted(expired)
    good = [each.best_before or date.max for each, gone in zip(order, expired, strict=True) if not gone]
    assert good == sorted(good)


def test_a_jar_is_used_up_before_the_next_and_the_named_one_goes_first() -> None:
    soon, later, never = lot(1, 100.0, best_before=date(2026, 9, 1)), lot(2, 100.0, best_before=date(2027, 1, 1)), lot(3, 100.0)
    drawn = [(each.lot_id, each.mass_g) for each in draw_from_lots([never, later, soon], 150.0, TODAY)]
    assert drawn == [(1, 100.0), (2, 50.0)]
    named = [(each.lot_id, each.mass_g) for each in draw_from_lots([never, later, soon], 150.0, TODAY, chosen=3)]
    assert named == [(3, 100.0), (1, 50.0)]
    assert [(d.lot_id, d.mass_g) for d in draw_from_lots([soon], 130.0, TODAY)] == [(1, 130.0)], "below nothing, to be counted"
    assert draw_from_lots([], 10.0, TODAY) == []
    assert draw_from_lots([soon], 0.0, TODAY) == []
    for wrong in ({"mass_g": -1.0}, {"mass_g": 1.0, "chosen": 9}):
        with pytest.raises(InputError):
            draw_from_lots([soon], wrong["mass_g"], TODAY, wrong.get("chosen"))  # type: ignore[arg-type]


@pytest.mark.parametrize(("jar", "codes"), [
    (lot(), []), (lot(best_before=TODAY), ["expires_soon"]), (lot(best_before=TODAY - timedelta(days=1)), ["expired"]),
    (lot(best_before=TODAY + timedelta(days=30)), ["expires_soon"]), (lot(best_before=TODAY + timedelta(days=31)), []),
    (lot(left_g=100.0), ["nearly_out"]), (lot(left_g=100.1), []), (lot(left_g=0.0), ["nearly_out"]),
    (lot(left_g=-0.1), ["below_nothing"]), (lot(opened_on=TODAY - timedelta(days=365)), []),
    (lot(opened_on=TODAY - timedelta(days=366)), ["open_long"]),
    (lot(left_g=-4.0, best_before=date(2020, 1, 1), opened_on=date(2020, 1, 1)), ["expired", "below_nothing", "open_long"]),
])  # fmt: skip
def test_what_is_said_of_a_jar_and_from_when_on(jar: Lot, codes: list[str]) -> None:
    """An opened bottle of oil or scent turns after about a year: common practice, no published source."""
    assert [each.code for each in words_of_lot(jar, TODAY)] == codes
