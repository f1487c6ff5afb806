"""The practice bowl: heat against an ODE solver, delay, hidden truth, the best hand."""

from __future__ import annotations

import time
from dataclasses import replace

import pytest
from scipy.integrate import solve_ivp

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.practice.bowl import COOLS_IN_MIN, DRINKS_IN_MIN, MIXES_IN_MIN, Act, run_bowl, true_formula
from rosy_kettle.core.practice.debrief import best_hand, debrief, score_of
from rosy_kettle.core.practice.scenario import Hidden, Scenario, drawn_again
from rosy_kettle.reference import load_practice
from rosy_kettle.usecases.clinic.practise import told_by_reference, truth_words

BOWLS = load_practice()
SHAPE = Act("shape")


def bowl(*hidden: Hidden, **changes: object) -> Scenario:
    return replace(BOWLS["first-scoop"], hidden=hidden, **changes)


def masses(scenario: Scenario, added: dict[str, float] | None = None) -> dict[str, float]:
    return {line.ingredient or "": float(line.amount) for line in true_formula(scenario, added or {}).lines}


def test_heat_flows_as_newton_says() -> None:
    """Against scipy's solver of dT/dt = (room - T)/tau."""
    cold = BOWLS["cold-bowl"]
    state = run_bowl(cold, [Act("rest", value=45.0)], told_by_reference)
    begin = state.path[0].temperature_c
    solved = solve_ivp(lambda _t, y: [(cold.room_c - y[0]) / COOLS_IN_MIN], (0, 45), [begin], rtol=1e-9, atol=1e-9)
    assert state.path[-1].temperature_c == pytest.approx(solved.y[0, -1], abs=1e-6)


def test_mixing_and_drinking_follow_their_equations() -> None:
    """Drunk share against the same two equations solved by scipy; steps of a quarter of a minute are near enough."""
    state = run_bowl(bowl(), [Act("mix", value=6.0)], told_by_reference)
    solved = solve_ivp(
        lambda _t, y: [(1 - y[0]) / MIXES_IN_MIN, y[0] * (1 - y[1]) / DRINKS_IN_MIN], (0, 6), [0.7, 0.3], rtol=1e-9
    )
    last = state.path[-1]
    drunk = 1 - (last.now / last.settles_at - 1) / 0.22
    assert drunk == pytest.approx(solved.y[1, -1], abs=0.01)


def test_a_fresh_addition_feels_wetter_than_it_settles_and_comes_down_with_rest() -> None:
    acts = [Act("mix", value=4.0), Act("rest", value=15.0), Act("add", "glycerin", 20.0)]
    fresh = run_bowl(bowl(), acts, told_by_reference).path[-1]
    rested = run_bowl(bowl(), [*acts, Act("mix", value=4.0), Act("rest", value=20.0)], told_by_reference).path[-1]
    assert fresh.now > fresh.settles_at * 1.02
    assert rested.now < fresh.now
    assert rested.now == pytest.approx(rested.settles_at, rel=0.01)


def test_what_is_hidden_is_in_the_bowl() -> None:
    plain = masses(bowl())
    assert masses(bowl(Hidden("left_out", "corn-starch"))).keys() == plain.keys() - {"corn-starch"}
    assert masses(bowl(Hidden("scale", value=0.97)))["glycerin"] == pytest.approx(0.97 * plain["glycerin"])
    damp = masses(bowl(Hidden("damp", "baking-soda", 0.05)))
    assert damp["distilled-water"] == pytest.approx(0.05 * plain["baking-soda"])
    assert sum(damp.values()) == pytest.approx(sum(plain.values()))
    swapped = masses(bowl(Hidden("mislabelled", "corn-starch", other="baking-soda")))
    assert swapped["baking-soda"] == pytest.approx(plain["baking-soda"] + plain["corn-starch"])
    assert masses(bowl(), {"glycerin": 10.0})["glycerin"] == pytest.approx(plain["glycerin"] + 10)


def test_the_same_hands_meet_the_same_bowl_and_another_seed_another() -> None:
    acts = [Act("feel"), Act("add", "glycerin", 5.0), Act("feel")]
    scenario = BOWLS["market-eve"]
    assert run_bowl(scenario, acts, told_by_reference).felt == run_bowl(scenario, acts, told_by_reference).felt
    other = drawn_again(scenario, 7)
    assert other == drawn_again(scenario, 7)
    assert other.hidden != scenario.hidden
    assert drawn_again(scenario, 0).hidden == scenario.hidden


@pytest.mark.parametrize("id_", list(BOWLS))
def test_every_bowl_can_be_saved_and_says_its_truth(id_: str) -> None:
    begun = time.perf_counter()
    best = best_hand(BOWLS[id_], told_by_reference)
    assert time.perf_counter() - begun < 5
    assert best.score.whole >= 90
    assert truth_words(BOWLS[id_])
    assert best.score.whole >= score_of(BOWLS[id_], run_bowl(BOWLS[id_], [SHAPE], told_by_reference), told_by_reference).whole


def test_a_correction_is_told_with_what_it_did() -> None:
    acts = [Act("add", "corn-starch", 30.0), Act("mix", value=3.0), SHAPE]
    found = debrief(BOWLS["left-out"], acts, told_by_reference)
    (effect,) = found.effects
    assert effect.after < effect.before
    assert found.score.whole <= found.best.score.whole + 1e-9


@pytest.mark.parametrize(
    ("acts", "says"),
    [
        ([SHAPE, Act("feel")], "shaped"),
        ([Act("add", "moon-dust", 5.0)], "does not stand"),
        ([Act("add", "glycerin", -1.0)], "above 0"),
        ([Act("rest", value=900.0)], "lasts"),
        ([Act("sing")], "one can"),
        ([Act("feel")] * 201, "worn out"),
    ],
)  # fmt: skip
def test_what_cannot_be_done_is_refused(acts: list[Act], says: str) -> None:
    with pytest.raises(InputError, match=says):
        run_bowl(bowl(), acts, told_by_reference)


def test_the_bowl_runs_far_faster_than_time() -> None:
    run_bowl(bowl(), [Act("mix", value=1.0)], told_by_reference)
    begun = time.perf_counter()
    run_bowl(bowl(), [Act("rest", value=200.0)], told_by_reference)
    assert 200 * 60 / (time.perf_counter() - begun) > 200
