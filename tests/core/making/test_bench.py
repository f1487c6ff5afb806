"""The bench: what happens adds up to a state, and each trouble has a way out whose figures come true."""

from __future__ import annotations

import random
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rosy_kettle.core.change.balance import Target
from rosy_kettle.core.errors import ConflictError, InputError
from rosy_kettle.core.making.bench import (
    FEELS,
    BenchState,
    BenchStep,
    answer_feel,
    as_made,
    bench_steps,
    check_event,
    in_grams,
    rescue_options,
    state_of,
)
from rosy_kettle.core.making.bench.by_hand import middle_saturation, moved_by_hands
from rosy_kettle.core.making.happening import Event
from rosy_kettle.core.making.plan import sheet_of
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables, Tolerance
from tests.conftest import make_formula, make_lines

DOUGH = Target("dough.saturation", 0.65, 0.95)


def bowl(tables: Tables) -> Formula:
    formula = make_formula(baking_soda=300, slsa_fine=90, corn_starch=90, capb_liquid=85, glycerin=45, sweet_almond_oil=28)
    return in_grams(formula, tables, 1000.0)


def steps(formula: Formula, tables: Tables) -> tuple[BenchStep, ...]:
    return bench_steps(formula, tables, sheet_of(formula, tables, 1000.0, 16, 57.0, "as entered"))


class Happening:
    """Lets things happen one after the other, as the bench does."""

    def __init__(self, planned: tuple[BenchStep, ...]) -> None:
        self.planned, self.events = planned, list[Event]()

    @property
    def state(self) -> BenchState:
        return state_of(self.planned, self.events)

    def happen(self, kind: str, **data: Any) -> BenchState:
        check_event(self.state, kind, data)
        self.events.append(Event(len(self.events) + 1, f"2026-11-24T10:{len(self.events):02d}:00+00:00", kind, data))
        return self.state

    def weigh_until(self, ingredient: str | None) -> BenchState:
        state = self.happen("conditions", step="conditions", room_c=21.0)
        while state.step is not None and state.step.kind == "weigh" and state.step.ingredient != ingredient:
            state = self.happen("weighed", step=state.step.key, actual_g=state.step.target_g, source="scale")
        return state


def test_tolerance_is_the_larger_of_half_a_gram_and_one_per_cent() -> None:
    assert Tolerance().of(20.0) == 0.5
    assert Tolerance().of(300.0) == pytest.approx(3.0)
    assert Tolerance().of(0.4) == pytest.approx(0.2), "never so wide that nothing would do"


def test_everything_is_weighed_before_anything_is_mixed(tables: Tables) -> None:
    kinds = [step.kind for step in steps(bowl(tables), tables)]
    assert kinds[0] == "conditions"
    last = max(index for index, kind in enumerate(kinds) if kind == "weigh")
    assert kinds[1 : last + 1] == ["weigh"] * last
    assert sum(step.target_g or 0 for step in steps(bowl(tables), tables)) == pytest.approx(1000.0)


def test_a_line_cannot_be_passed_in_silence(tables: Tables) -> None:
    happening = Happening(steps(bowl(tables), tables))
    state = happening.weigh_until("glycerin")
    assert state.step is not None
    with pytest.raises(InputError, match="weigh it, or say why"):
        happening.happen("done", step=state.step.key)
    with pytest.raises(InputError, match="say why"):
        happening.happen("skipped", step=state.step.key, why=" ")
    with pytest.raises(ConflictError, match="not the one in hand"):
        happening.happen("weighed", step="weigh-0", actual_g=1.0)
    after = happening.happen("skipped", step=state.step.key, why="none left")
    assert after.mass_g()[4] == 0.0
    assert after.status.count("skipped") == 1
    happening.happen("back", step=state.step.key)
    again = happening.happen("weighed", step=state.step.key, actual_g=45.0, source="hand")
    assert again.status.count("skipped") == 0
    assert again.mass_g()[4] == 45.0


def test_a_closed_record_only_takes_amendments(tables: Tables) -> None:
    happening = Happening(steps(bowl(tables), tables))
    with pytest.raises(ConflictError, match="still open"):
        happening.happen("amended", text="later")
    happening.happen("closed")
    with pytest.raises(ConflictError, match="closed"):
        happening.happen("note", text="too late")
    assert happening.happen("amended", text="one piece cracked").amendments[0][1] == "one piece cracked"


@settings(max_examples=40, deadline=None)
@given(st.integers(min_value=0, max_value=10_000))
def test_the_same_events_always_give_the_same_state(seed: int) -> None:
    """Whatever happens in whatever order: folding twice, or in two halves, ends in the same place, and nothing is lost."""
    chance = random.Random(seed)
    planned = tuple(
        BenchStep(f"weigh-{i}", "weigh", f"Weigh {i}", "", position=i, ingredient="kaolin", target_g=10.0, tolerance_g=0.5)
        for i in range(6)
    )
    happening = Happening(planned)
    for _ in range(20):
        state = happening.state
        if state.step is None or chance.random() < 0.2:
            happening.happen("back", step=chance.choice(planned).key)
        elif chance.random() < 0.3:
            happening.happen("skipped", step=state.step.key, why="none left")
        else:
            happening.happen("weighed", step=state.step.key, actual_g=chance.uniform(8, 12))
    state = happening.state
    assert state == state_of(planned, list(happening.events))
    assert len(state.history) == sum(event.kind == "weighed" for event in happening.events)
    last = {w.position: w.actual_g for w in state.history}
    assert {w.position: w.actual_g for w in state.weighings} == last
    assert state.seq == 20


def test_pouring_too_much_has_ways_out_and_their_figures_come_true(tables: Tables) -> None:
    """12 g too much glycerin."""
    planned = bowl(tables)
    happening = Happening(steps(planned, tables))
    state = happening.weigh_until("glycerin")
    step = state.step
    assert step is not None
    assert step.target_g is not None
    over = step.target_g + 12
    ways = {way.way: way for way in rescue_options(planned, tables, state, step, over, [DOUGH], 5000.0, {})}
    assert set(ways) == {"take-out", "scale-up", "keep"}, "the readings stay as wanted: to rebalance would gain nothing"
    assert "12.0 g" in ways["take-out"].text
    much = rescue_options(planned, tables, state, step, step.target_g + 120, [DOUGH], 5000.0, {})
    assert {way.way for way in much} == {"take-out", "scale-up", "rebalance", "keep"}
    oil = next(each for each in state.steps if each.ingredient == "sweet-almond-oil")
    assert oil.position is not None
    assert oil.target_g is not None
    scaled = ways["scale-up"]
    assert scaled.targets[oil.position] == pytest.approx(oil.target_g * over / step.target_g)
    happening.happen("rescued", step=step.key, actual_g=over, way="scale-up", targets=scaled.targets)
    happening.happen("weighed", step=step.key, actual_g=over, source="scale")
    made = happening.state
    assert made.step is not None
    assert made.step.target_g == pytest.approx(scaled.targets[oil.position])
    reading = evaluate(as_made(planned, made), tables)
    assert reading.mass_g == pytest.approx(scaled.batch_g)
    shown = {effect.reading: effect.after for effect in scaled.effects}
    assert reading.lather.score == pytest.approx(shown["lather.score"], rel=1e-6)
    assert reading.drying.hours == pytest.approx(shown["drying.hours"], rel=1e-6)


def test_a_way_out_that_is_closed_says_why(tables: Tables) -> None:
    planned = bowl(tables)
    happening = Happening(steps(planned, tables))
    state = happening.weigh_until("glycerin")
    step = state.step
    assert step is not None
    assert step.target_g is not None
    small = {w.way: w.why_not for w in rescue_options(planned, tables, state, step, step.target_g + 12, [DOUGH], 1001.0, {})}
    assert small["scale-up"] == "the bowl holds 1001 g"
    bare = rescue_options(planned, tables, state, step, step.target_g + 12, [DOUGH], None, {"sweet-almond-oil": 1.0})
    assert next(way.why_not for way in bare if way.way == "scale-up").startswith("only 1 g of")


def test_rebalancing_holds_the_dough_and_never_touches_what_is_poured(tables: Tables) -> None:
    planned = bowl(tables)
    happening = Happening(steps(planned, tables))
    state = happening.weigh_until("capb-liquid")
    step = state.step
    assert step is not None
    assert step.target_g is not None
    target = Target("dough.saturation", None, 0.80)
    way = next(
        way
        for way in rescue_options(planned, tables, state, step, step.target_g + 30, [target], None, {})
        if way.way == "rebalance"
    )
    assert way.why_not == ""
    assert set(way.targets) <= {other.position for other in state.steps if other.position is not None} - state.poured()
    masses = {**state.mass_g(), step.position: step.target_g + 30, **way.targets}
    made = evaluate(make_lines(*[
        (line.ingredient, f"{masses[index]:.6f}", "g") for index, line in enumerate(planned.lines)
    ]), tables)  # fmt: skip
    assert made.dough is not None
    assert made.dough.saturation is not None
    assert made.dough.saturation <= 0.80 + 1e-3


@pytest.mark.parametrize("feel", FEELS, ids=lambda feel: feel.state)
def test_every_feel_has_an_answer_in_small_steps(tables: Tables, feel: Any) -> None:
    planned = bowl(tables)
    answer = answer_feel(planned, tables, feel.state, None, rested=False)
    assert answer.mends
    for mend in answer.mends:
        if mend.mass_g is not None:
            assert 0 < mend.mass_g <= 0.02 * 1000.0, "a step, not another formula"
            assert mend.effects
    if feel.state == "play dough":
        assert [mend.kind for mend in answer.mends] == ["go-on"]
    if feel.state == "sticky":
        assert answer.mends[0].kind == "rest", "resting costs nothing, so it comes first"


def test_too_dry_adds_liquid_too_wet_adds_powder(tables: Tables) -> None:
    """What makers do (common practice, no published source): dry takes glycerin, oil or betaine, wet takes soda or starch."""
    planned = bowl(tables)
    dry = answer_feel(planned, tables, "crumbly dough", None, rested=True)
    wet = answer_feel(planned, tables, "sticky", None, rested=True)
    roles = {tables.ingredients[m.ingredient].role for m in dry.mends if m.ingredient}
    assert roles <= {"oil", "surfactant", "humectant"}
    assert roles
    assert {tables.ingredients[m.ingredient].role for m in wet.mends if m.ingredient} <= {"base", "starch"}


def test_what_was_felt_moves_the_reckoning_of_this_bowl(tables: Tables) -> None:
    """By hand: felt in the middle of crumbly (0.46) where 0.80 was reckoned, the bowl is 0.34 drier from then on."""
    p = tables.parameters.dough
    assert moved_by_hands([("crumbly dough", 0.80)], p) == pytest.approx(0.46 - 0.80)
    assert moved_by_hands([("play dough", 0.80)], p) == 0.0
    assert moved_by_hands([("crumbly dough", 0.80), ("play dough", 0.99)], p) == pytest.approx(0.46 - 0.80), "as it was to be"
    assert moved_by_hands([("crumbly dough", 0.80), ("crumbly dough", 0.99)], p) == pytest.approx(0.46 - 0.99)
    planned = bowl(tables)
    first = answer_feel(planned, tables, "crumbly dough", None, rested=True)
    mend = next(each for each in first.mends if each.kind == "add")
    assert mend.comes_to in {"crumbly dough", "play dough"}
    assert first.saturation == pytest.approx(0.46)
    reckoned = evaluate(planned, tables).dough
    assert reckoned is not None
    assert reckoned.saturation is not None
    again = answer_feel(planned, tables, "crumbly dough", None, rested=True, before=[("crumbly dough", reckoned.saturation)])
    assert again.sentence.startswith('By what you felt before, "crumbly dough" was to be expected.')
    assert again.predicted == "play dough", "what the Desk said stays what it said"


def test_a_jar_of_ones_own_mends_as_what_it_was_made_from(tables: Tables) -> None:
    own = replace(tables.ingredients["glycerin"], id="own-glycerin", based_on="glycerin")
    studio = replace(tables, ingredients={**tables.ingredients, "own-glycerin": own})
    planned = bowl(tables)
    lines = tuple(replace(line, ingredient="own-glycerin") if line.ingredient == "glycerin" else line for line in planned.lines)
    dry = answer_feel(
        replace(planned, portions=(replace(planned.portions[0], lines=lines),)), studio, "crumbly dough", None, rested=True
    )
    assert "own-glycerin" in [mend.ingredient for mend in dry.mends]


@pytest.mark.parametrize(
    ("state", "s"), [("dust", 0.025), ("play dough", (0.62 + 1.02) / 2), ("batter", (1.3 + 2.2) / 2), ("pour", 1.1 * 2.2)]
)
def test_hands_mean_the_middle_of_a_state(state: str, s: float) -> None:
    """Edges of the states by hand: 0.05, 0.30, 0.62, 1.02, 1.30, 2.20 (common practice); what pours lies a tenth over its edge."""
    assert middle_saturation(state, USUAL.dough) == pytest.approx(s)


@pytest.mark.parametrize(("stroke_ml", "water_g"), [(0.14, 0.6), (0.28, 1.1)])
def test_sprays_are_strokes_of_the_studios_own_sprayer(tables: Tables, stroke_ml: float, water_g: float) -> None:
    """Four strokes of water weigh, in grams, what they fill in millilitres."""
    damp = make_formula("damp-press", baking_soda=600, citric_acid_anhydrous=300, corn_starch=100, isopropyl_alcohol_91=2)
    mends = answer_feel(damp, replace(tables, spray_ml=stroke_ml), "dust", None, rested=True).mends
    said = {mend.ingredient: mend for mend in mends}
    assert said["distilled-water"].mass_g == water_g
    assert said["distilled-water"].text.startswith("4 sprays of water")
    assert said["isopropyl-alcohol-91"].text.startswith("5 sprays")
    assert said["isopropyl-alcohol-91"].mass_g == pytest.approx(5 * stroke_ml * 0.82, abs=0.05)  # 91 % by volume, CRC Handbook


def test_a_jar_without_a_cup_weight_is_sprayed_as_water_is(tables: Tables) -> None:
    own = replace(tables.ingredients["isopropyl-alcohol-91"], id="own-spray", based_on="isopropyl-alcohol-91", us_cup_g=None)
    studio = replace(tables, ingredients={**tables.ingredients, "own-spray": own}, spray_ml=0.2)
    damp = make_formula("damp-press", baking_soda=600, citric_acid_anhydrous=300, corn_starch=100, own_spray=2)
    said = {mend.ingredient: mend for mend in answer_feel(damp, studio, "dust", None, rested=True).mends}
    assert said["own-spray"].mass_g == 1.0
    assert said["own-spray"].text.startswith("5 sprays")


def test_too_hot_cools_and_too_cold_warms(tables: Tables) -> None:
    butter = in_grams(make_formula(
        "butter-dough", baking_soda=420, slsa_fine=110, corn_starch=60, cocoa_butter=130, shea_butter=60, sweet_almond_oil=20,
    ), tables, 1000.0)  # fmt: skip
    assert answer_feel(butter, tables, "sticky", 46.0, rested=False).mends[0].kind == "cool"
    assert answer_feel(butter, tables, "crumbly dough", 19.0, rested=False).mends[0].kind == "warm"


def test_only_what_has_acid_is_stirred_down(tables: Tables) -> None:
    lines = {"baking_soda": 300.0, "slsa_fine": 90.0, "corn_starch": 60.0, "capb_liquid": 80.0, "glycerin": 40.0}
    for acid_g, stirred in ((0.0, False), (60.0, True)):
        formula = make_formula(**lines, **({"citric_acid_anhydrous": acid_g} if acid_g else {}))
        kinds = [mend.kind for mend in answer_feel(formula, tables, "batter", None, rested=True).mends]
        assert ("stir" in kinds) is stirred
        assert "rest" not in kinds, "it has rested"


def test_what_the_desk_said_stands_beside_what_the_hands_say(tables: Tables) -> None:
    planned = bowl(tables)
    told = evaluate(planned, tables).dough
    assert told is not None
    same = answer_feel(planned, tables, str(told.state), None, rested=True)
    other = answer_feel(planned, tables, "batter", None, rested=True)
    assert "hands" not in same.sentence
    assert f'The Desk said "{told.state}", your hands say "batter"' in other.sentence
    assert "too wet" in other.sentence
    assert "too dry" in answer_feel(planned, tables, "damp sand", None, rested=True).sentence


def test_no_tile_no_answer(tables: Tables) -> None:
    with pytest.raises(InputError, match="choose one of the tiles"):
        answer_feel(bowl(tables), tables, "lovely", None, rested=False)


def test_a_line_nobody_understands_does_not_get_to_the_bench(tables: Tables) -> None:
    with pytest.raises(InputError, match="not understood"):
        in_grams(make_lines((None, "5", "g")), tables, 100.0)


def test_a_kneaded_dough_rests_ten_minutes(tables: Tables) -> None:
    """Powders drink for ten minutes before the dough is judged again (common practice, no published source)."""
    assert [step.minutes for step in steps(bowl(tables), tables) if step.kind == "rest"] == [10.0]


def test_each_drying_has_its_own_clock(tables: Tables) -> None:
    """A liquid surfactant dries into the soda overnight, eight hours (common practice); pieces dry by the model's hours."""
    tablet = in_grams(make_formula(
        "pre-dried-surfactant", baking_soda=600, corn_starch=100, capb_liquid=60, citric_acid_anhydrous=250
    ), tables, 1000.0)  # fmt: skip
    shaped = [step.kind for step in steps(tablet, tables)].index("shape")
    drying = [(at < shaped, step.minutes) for at, step in enumerate(steps(tablet, tables)) if step.kind == "dry"]
    hours = evaluate(tablet, tables).drying.hours
    assert hours is not None
    assert drying == [(True, 480.0), (False, pytest.approx(60 * hours))]


def test_a_melt_is_warm_enough_from_six_degrees_under_its_methods_figure(tables: Tables) -> None:
    """Butters are read as molten a little under it, and far above it nothing is gained (project default)."""
    butter = in_grams(
        make_formula("butter-dough", baking_soda=600, slsa_fine=150, cocoa_butter=120, shea_butter=130), tables, 1000.0
    )
    melt = next(step for step in steps(butter, tables) if step.kind == "temperature")
    assert tables.methods["butter-dough"].melt_c == 60.0
    assert (melt.low_c, melt.high_c) == (54.0, 90.0)
