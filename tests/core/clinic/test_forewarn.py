"""What a formula is warned of before it is made."""

from __future__ import annotations

from rosy_kettle.core.clinic.forewarn import LEAST_TIMES, MOST, forewarn, with_outcomes
from rosy_kettle.core.records import Tables
from rosy_kettle.reference import load_troubles
from tests.conftest import make_formula


def test_forewarning_by_hand(tables: Tables) -> None:
    """Twelve outcomes of one cause put its weight up by twelve; nothing is warned of where nothing speaks for it."""
    troubles = load_troubles()
    own = with_outcomes(troubles, {("ring", "too-much-liquid-oil"): 12, ("ring", "none-of-these"): 2})
    weights = {prior.cause: prior.weight for prior in troubles.priors["ring"]}
    after = {prior.cause: prior.weight for prior in own.priors["ring"]}
    assert after["too-much-liquid-oil"] == weights["too-much-liquid-oil"] + 12
    assert after["unknown-cause"] == weights["unknown-cause"] + 2
    oily = make_formula(baking_soda=200, slsa_fine=60, corn_starch=40, sweet_almond_oil=160, citric_acid_anhydrous=60)
    named = {each.symptom for each in forewarn(oily, tables, troubles)}
    assert named & {"ring", "oil-film", "slippery", "separates", "slumps", "little-foam", "foam-gone-fast"}


def test_what_is_warned_of_has_a_name_a_reason_and_stands_once(tables: Tables) -> None:
    """The likeliest known cause speaks, never "some other"; the likelier stand first."""
    troubles = load_troubles()
    oily = make_formula(baking_soda=200, slsa_fine=60, corn_starch=40, sweet_almond_oil=160, citric_acid_anhydrous=60)
    found = forewarn(oily, tables, troubles)
    causes = [each.cause for each in found]
    assert 1 < len(found) <= MOST
    assert len(set(causes)) == len(causes)
    assert "unknown-cause" not in causes
    assert {"too-much-liquid-oil"} & set(causes)
    assert [each.times for each in found] == sorted((each.times for each in found), reverse=True)
    assert min(each.times for each in found) >= LEAST_TIMES
