"""The ingredient list in the order that the law of its market wants, whatever the formula.

21 CFR 701.3 (US) and Regulation (EC) No 1223/2009, Article 19(1)(g) (EU, kept by the UK); both from memory.
"""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Line, Portion, Product
from rosy_kettle.core.records.evaluation import Label
from rosy_kettle.reference import load_tables

TABLES = load_tables()
LINES = st.lists(st.tuples(st.sampled_from(sorted(TABLES.ingredients)), st.floats(0.2, 500)), min_size=2, max_size=12)
MARKETS = st.sampled_from(["US", "EU", "UK"])
FEW = settings(max_examples=60, deadline=None)


def label_of(lines: list[tuple[str, float]], market: str, method: str = "damp-press") -> Label:
    body = Portion("body", tuple(Line(name, repr(grams), "g") for name, grams in lines))
    product = Product(markets=(market,))
    return evaluate(Formula("any", (body,), method=method, product=product), TABLES).label


@FEW
@given(lines=LINES, market=MARKETS)
def test_what_is_over_one_per_cent_goes_by_weight(lines: list[tuple[str, float]], market: str) -> None:
    names = [each for each in label_of(lines, market).names if not each.colour and each.note != "in the scent"]
    majors = [each for each in names if not each.below_one_percent]
    assert [each.share_pct for each in majors] == sorted((each.share_pct for each in majors), reverse=True)
    assert names[: len(majors)] == majors, "the minor ones stand behind"
    assert all(each.share_pct >= 1 for each in majors)


@FEW
@given(lines=LINES, market=MARKETS)
def test_colours_stand_last(lines: list[tuple[str, float]], market: str) -> None:
    names = label_of(lines, market).names
    first = next((at for at, each in enumerate(names) if each.colour), len(names))
    assert all(each.colour for each in names[first:])


@FEW
@given(lines=LINES, market=MARKETS)
def test_every_name_stands_once_and_the_shares_make_the_whole(lines: list[tuple[str, float]], market: str) -> None:
    label = label_of(lines, market)
    assert len(set(label.declaration)) == len(label.declaration)
    assert label.declaration == tuple(each.name for each in label.names)
    assert sum(each.share_pct for each in label.names) == pytest.approx(100, abs=1e-6)


@FEW
@given(lines=LINES)
def test_names_are_those_of_the_market(lines: list[tuple[str, float]]) -> None:
    american, european = label_of(lines, "US").declaration, label_of(lines, "EU").declaration
    assert not {"Aqua", "Parfum", "Mel"}.intersection(american)
    assert not {"Water", "Fragrance", "Honey"}.intersection(european)
    assert label_of(lines, "UK").declaration == european


@FEW
@given(lines=LINES, market=MARKETS)
def test_the_order_of_the_lines_is_nothing_to_the_label(lines: list[tuple[str, float]], market: str) -> None:
    assert label_of(lines, market).declaration == label_of(lines[::-1], market).declaration


def test_water_goes_by_what_is_left_in_the_us_and_by_what_was_added_in_the_eu() -> None:
    """30 g of water among 100 g of soda and 20 g of starch: added it is second, a tenth of it left it is last."""
    lines = [("baking-soda", 100.0), ("distilled-water", 30.0), ("corn-starch", 20.0)]
    american, european = label_of(lines, "US"), label_of(lines, "EU")
    assert european.declaration == ("Sodium Bicarbonate", "Aqua", "Zea Mays (Corn) Starch")
    assert american.declaration == ("Sodium Bicarbonate", "Zea Mays (Corn) Starch", "Water")
    assert any("27.0 g of the batch dries off" in note for note in american.notes)


@pytest.mark.parametrize("market", ["US", "EU"])
def test_alcohol_that_has_left_is_not_there(market: str) -> None:
    names = label_of([("baking-soda", 100.0), ("isopropyl-alcohol-99", 5.0)], market).declaration
    assert not any("Isopropyl" in name for name in names)


def test_a_supplied_mixture_says_what_is_estimated() -> None:
    """Betaine comes in water with salt: water by its share, the active first, the rest evenly, and it is said so."""
    label = label_of([("baking-soda", 100.0), ("capb-liquid", 50.0)], "EU", "betaine-dough")
    assert {"Aqua", "Cocamidopropyl Betaine", "Sodium Chloride"} <= set(label.declaration)
    assert not any("estimated" in note for note in label.notes), "with one name left its share is known"
    bath = label_of([("baking-soda", 100.0), ("liquid-bubble-bath", 50.0)], "EU")
    assert any("estimated, ask the supplier" in note for note in bath.notes)


@pytest.mark.parametrize(("market", "named"), [("US", "Mica"), ("EU", "CI 77019")])
def test_mica_is_a_colour_where_it_colours_and_stands_last_at_any_share(market: str, named: str) -> None:
    """21 CFR 73.2496 lists mica as a colour additive; Reg. 1223/2009 Art. 19(1)(g) lets colours stand after all else."""
    names = label_of([("baking-soda", 900), ("mica-pigment", 60), ("glitter-cellulose", 40)], market).names
    colours = [each.name for each in names if each.colour]
    assert named in colours
    assert [each.colour for each in names] == sorted(each.colour for each in names)
    assert not {"Glycerin", "Rayon"} & set(colours), "what carries the colour of a glitter is none itself"
