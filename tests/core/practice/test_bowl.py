"""The practice bowl: heat against an ODE solver, delay, hidden truth, the best hand."""

from __future__ import annotations

import time
from dataclasses import replace
from itertools import pairwise

import pytest
from scipy.integrate import solve_ivp

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.practice.bowl import COOLS_IN_MIN, DRINKS_IN_MIN, MIXES_IN_MIN, Act, run_bowl, true_formula
from rosy_kettle.core.practice.cards import drawn_cards
from rosy_kettle.core.practice.debrief import TRIES_G, best_hand, debrief, score_of
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


def test_every_deed_takes_its_minutes() -> None:
    """Half a minute to judge a handful, half to pour, six to shape (project defaults); mixing and resting what was said."""
    acts = [Act("feel"), Act("add", "glycerin", 5.0), Act("mix", value=3.0), Act("rest", value=10.0), SHAPE]
    spent = [run_bowl(bowl(), acts[:count], told_by_reference).path[-1].minutes for count in range(1, len(acts) + 1)]
    assert spent == pytest.approx([0.5, 1.0, 4.0, 14.0, 20.0])


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
    begun = time.process_time()
    best = best_hand(BOWLS[id_], told_by_reference)
    assert time.process_time() - begun < 5
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
        ([Act("called", word="sticky")], "Squeeze a handful"),
        ([Act("feel"), Act("mix", value=1.0), Act("called", word="sticky")], "Squeeze a handful"),
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
    begun = time.process_time()
    run_bowl(bowl(), [Act("rest", value=200.0)], told_by_reference)
    assert 200 * 60 / (time.process_time() - begun) > 200


def spent(minutes: float) -> list[Act]:
    return [Act("rest", value=minutes), SHAPE]


def test_points_are_taken_by_hand_for_each_part() -> None:
    """60 for the dough, ten each for foam and fizz kept, hours, waste and minutes: project defaults."""
    quick = score_of(bowl(), run_bowl(bowl(), [SHAPE], told_by_reference), told_by_reference)
    assert quick.waste == 10.0, "nothing was added"
    assert quick.minutes == 10.0, "six minutes are free"
    slow = score_of(bowl(), run_bowl(bowl(), spent(64.0), told_by_reference), told_by_reference)
    assert slow.minutes == pytest.approx(10 * (1 - (64 + 6 - 25) / 90))
    last = score_of(bowl(), run_bowl(bowl(), spent(200.0), told_by_reference), told_by_reference)
    assert last.minutes == 0.0
    mass_g = sum(masses(bowl()).values())
    wasted = score_of(
        bowl(), run_bowl(bowl(), [Act("add", "corn-starch", 0.1 * mass_g), SHAPE], told_by_reference), told_by_reference
    )
    assert wasted.waste == pytest.approx(10 * (1 - 0.1 / 0.3), rel=1e-6)
    assert quick.whole == pytest.approx(sum((quick.dough, quick.foam, quick.hours, quick.waste, quick.minutes)))


def test_a_dough_that_is_off_loses_points_by_how_far() -> None:
    """Nothing is left of 60 at a fifth off in S, and of 10 at 72 h over the recipe's own hours: project defaults."""
    partly = 0
    for added in ({"glycerin": 14.0}, {"glycerin": 60.0}, {"glycerin": 85.0}, {"corn-starch": 150.0}, {"corn-starch": 250.0}):
        acts = [*(Act("add", name, grams) for name, grams in added.items()), Act("mix", value=3.0), SHAPE]
        state = run_bowl(bowl(), acts, told_by_reference)
        last, dough = state.path[-1], state.told.dough
        assert dough is not None
        assert dough.wanted.saturation_low is not None
        assert dough.wanted.saturation_high is not None
        seen = (last.now, last.settles_at)
        off = max(0.0, dough.wanted.saturation_low - min(seen), max(seen) - dough.wanted.saturation_high)
        points = score_of(bowl(), state, told_by_reference)
        assert points.dough == pytest.approx(60 * max(0.0, 1 - off / 0.2))
        partly += 0 < points.dough < 60
        own = told_by_reference(true_formula(bowl(), {}), {}).drying.hours
        longer = max(0.0, (state.told.drying.hours or 144.0) - (own or 0.0))
        assert points.hours == pytest.approx(10 * max(0.0, 1 - longer / 72))
    assert partly >= 2


def test_acid_is_spent_while_it_waits_and_with_it_the_fizz() -> None:
    """First order in time at a constant S: exp(-k S t)."""
    state = run_bowl(bowl(), [Act("rest", value=40.0)], told_by_reference)
    first, last = state.path[0], state.path[-1]
    assert last.acid_left < first.acid_left == 1.0
    mean = sum(each.settles_at for each in state.path[:-1]) / (len(state.path) - 1)
    assert last.acid_left == pytest.approx(2.718281828459045 ** (-0.0015 * mean * 40.0), rel=1e-3)


def test_a_dough_dries_with_the_dryness_of_the_air() -> None:
    left = {}
    for humidity in (20.0, 60.0, 100.0):
        state = run_bowl(bowl(humidity_pct=humidity), [Act("rest", value=60.0)], told_by_reference)
        left[humidity] = state.path[0].settles_at - state.path[-1].settles_at
    assert left[100.0] == pytest.approx(0.0, abs=1e-12)
    assert left[20.0] / left[60.0] == pytest.approx(0.8 / 0.4)
    assert left[20.0] == pytest.approx(6e-4 * 0.8 * 60.0)


@pytest.mark.parametrize("level", [1, 2, 3])
def test_hands_err_by_as_much_as_the_bowl_is_hard(level: int) -> None:
    """Spread of two hundred judgements against the normal it is drawn from."""
    spread = {1: 0.02, 2: 0.035, 3: 0.06}[level]
    off = []
    for seed in range(200):
        state = run_bowl(bowl(level=level, seed=seed), [Act("feel")], told_by_reference)
        off.append(state.felt[0].saturation - state.path[-1].now)
    mean = sum(off) / len(off)
    assert abs(mean) < 4 * spread / 200**0.5
    assert (sum((each - mean) ** 2 for each in off) / 199) ** 0.5 == pytest.approx(spread, rel=0.2)


@pytest.mark.parametrize(("hidden", "ingredient", "share"), [
    (Hidden("scale", value=0.97), "baking-soda", 0.97), (Hidden("damp", "baking-soda", 0.05), "baking-soda", 0.95),
    (Hidden("left_out", "corn-starch"), "corn-starch", 0.0),
])  # fmt: skip
def test_hidden_masses_by_hand(hidden: Hidden, ingredient: str, share: float) -> None:
    plain, true = masses(bowl()), masses(bowl(hidden))
    assert true.get(ingredient, 0.0) == pytest.approx(share * plain[ingredient], rel=1e-5)
    if hidden.kind == "damp":
        assert true["distilled-water"] == pytest.approx(0.05 * plain[ingredient] + plain.get("distilled-water", 0.0), rel=1e-5)


def test_the_hint_takes_no_time_and_its_points() -> None:
    plain, hinted = (run_bowl(bowl(), [*acts, SHAPE], told_by_reference) for acts in ([], [Act("hint"), Act("hint")]))
    assert hinted.path == plain.path
    assert (plain.hinted, hinted.hinted) == (False, True)
    assert score_of(bowl(), plain, told_by_reference).whole - score_of(bowl(), hinted, told_by_reference).whole == pytest.approx(
        8.0
    )


@pytest.mark.parametrize("seed", [1, 7, 4242])
def test_a_seed_moves_what_is_hidden_by_at_most_a_twelfth_and_nothing_else(seed: int) -> None:
    for scenario in BOWLS.values():
        moved = drawn_again(scenario, seed)
        assert [each.kind for each in moved.hidden] == [each.kind for each in scenario.hidden]
        for before, after in zip(scenario.hidden, moved.hidden, strict=True):
            assert abs(after.value - before.value) <= 0.08 * abs(before.value) + 1e-12
        thirsty = {f"demand.{each.ingredient}": each.value for each in moved.hidden if each.kind == "thirsty"}
        assert moved.factors == thirsty, "only a thirsty powder is a factor"
        assert abs(moved.room_c - scenario.room_c) <= 2.05
        assert abs(moved.humidity_pct - scenario.humidity_pct) <= 6.5
        assert (moved.lines, moved.level, moved.dry, moved.wet) == (scenario.lines, scenario.level, scenario.dry, scenario.wet)


def test_the_best_hand_tries_steps_a_hand_would() -> None:
    """From 2 to 100 g, each more than the last, by no more than half or a few grams: no handful lies between two of them."""
    assert (TRIES_G[0], TRIES_G[-1]) == (2.0, 100.0)
    assert all(0 < more - less <= max(2.0, less / 2) for less, more in pairwise(TRIES_G))


@pytest.mark.parametrize("seed", range(5))
def test_a_card_shows_a_dough_of_the_state_it_is_called_by(seed: int) -> None:
    edges = {"dust": 0.0, "damp sand": 0.1, "play dough": 0.6, "pour": 2.2}
    upper = dict(zip(edges, [*list(edges.values())[1:], 3.0], strict=True))
    cards = drawn_cards(edges, seed)
    assert len(cards) == 12
    assert all(edges[state] <= saturation < upper[state] for saturation, state in cards)
