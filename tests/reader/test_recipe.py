"""The recipe reader: what makers write, and what is taken from it."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rosy_kettle.core.records import Tables
from rosy_kettle.reader import ReadLine, ReadRecipe
from rosy_kettle.reference import Synonym, load_tables
from rosy_kettle.usecases.formulas.guess_method import guess_method
from rosy_kettle.usecases.formulas.parse_recipe import formula_of, notes_of, parse_recipe
from tests.recipes import TWELVE_LINES


def read(text: str) -> ReadRecipe:
    return parse_recipe(text, load_tables())


def line(text: str) -> ReadLine:
    lines = read(text).lines
    assert len(lines) == 1, lines
    return lines[0]


@pytest.mark.parametrize(
    ("text", "amount", "unit", "ingredient"),
    [
        ("2/3 cup baking soda", "2/3", "cup", "baking-soda"),
        ("1 1/2 tsp glycerin", "1 1/2", "tsp", "glycerin"),
        ("1-1/2 cups bicarb", "1 1/2", "cup", "baking-soda"),
        ("½ cup cornflour", "1/2", "cup", "corn-starch"),
        ("1½ cups cornstarch", "1 1/2", "cup", "corn-starch"),
        ("0,75 kg kaolin", "0.75", "kg", "kaolin"),
        ("2 parts bicarb", "2", "part", "baking-soda"),
        ("6 % glycerine", "6", "pct", "glycerin"),
        ("glycerine 6%", "6", "pct", "glycerin"),
        ("30g poly 80", "30", "g", "polysorbate-80"),
        ("218 grams baking soda", "218", "g", "baking-soda"),
        ("3 Tablespoons cocoa butter", "3", "tbsp", "cocoa-butter"),
        ("3 T cocoa butter", "3", "tbsp", "cocoa-butter"),
        ("3 t cocoa butter", "3", "tsp", "cocoa-butter"),
        ("2 fl oz avocado oil", "2", "floz", "avocado-oil"),
        ("2 fluid ounces avocado oil", "2", "floz", "avocado-oil"),
        ("10 mls witch hazel", "10", "ml", "witch-hazel-distillate"),
        ("4 sprays witch hazel", "4", "spray", "witch-hazel-distillate"),
        ("two tablespoons of honey", "2", "tbsp", "honey"),
        ("half a cup of epsom salts", "0.5", "cup", "epsom-salt"),
        ("1 lb baking soda", "1", "lb", "baking-soda"),
        ("citric acid - 100 g", "100", "g", "citric-acid-anhydrous"),
        ("citric acid: 100 g", "100", "g", "citric-acid-anhydrous"),
        ("citric acid, 100 g", "100", "g", "citric-acid-anhydrous"),
        ("• 100 g citric acid", "100", "g", "citric-acid-anhydrous"),
        ("- 100 g citric acid", "100", "g", "citric-acid-anhydrous"),
        ("1. 100 g citric acid", "100", "g", "citric-acid-anhydrous"),
        ("[ ] 100 g citric acid", "100", "g", "citric-acid-anhydrous"),
        ("1 tbsp + 1 tsp glycerin", "4", "tsp", "glycerin"),
        ("2 x 100 g bicarb", "200", "g", "baking-soda"),
        ("1,000 g bicarb", "1000", "g", "baking-soda"),
        ("250g/8.8oz sodium bicarbonate", "250", "g", "baking-soda"),
        ("glycerin........37g", "37", "g", "glycerin"),
        ("approx. 10ml witch hazel in a spray bottle", "10", "ml", "witch-hazel-distillate"),
        ("1,5 dl honey", "150", "ml", "honey"),
        ("½ c. SLSA", "1/2", "cup", "slsa-fine"),
        ("8oz baking soda", "8", "oz", "baking-soda"),
    ],
)
def test_amount_unit_and_name_are_found(text: str, amount: str, unit: str, ingredient: str) -> None:
    found = line(text)
    assert (found.amount, found.unit, found.ingredient) == (amount, unit, ingredient)


@pytest.mark.parametrize(
    ("text", "amount", "unit", "note"),
    [
        ("10–20 drops FO", "15", "drop", "middle"),
        ("1 to 2 tsp glycerin", "1.5", "tsp", "middle"),
        ("2-3 tbsp glycerin", "2.5", "tbsp", "middle"),
        ("a pinch of mica", "0.0625", "tsp", "pinch"),
        ("2 dashes of cocoa powder", "0.25", "tsp", "dash"),
        ("a smidgen of mica", "0.03125", "tsp", "smidgen"),
        ("a splash of witch hazel", "1", "tsp", "splash"),
        ("1 stick cocoa butter", "113.4", "g", "stick"),
        ("5.3oz (150g) bicarb", "150", "g", "5.3 oz left aside"),
        ("1 cup (220 g) bicarb", "220", "g", "1 cup left aside"),
        ("2 oz avocado oil", "2", "oz", "weight"),
        ("1 heaping tbsp kaolin", "0", "g", "up to twice a level one"),
        ("a few drops lavender EO", "3", "drop", "few"),
        ("SLSA, as much as you like", "0", "g", "no amount"),
    ],
)
def test_what_was_guessed_is_noted(text: str, amount: str, unit: str, note: str) -> None:
    found = line(text)
    assert (found.amount, found.unit) == (amount, unit)
    assert note in " ".join(found.notes)


@pytest.mark.parametrize(
    ("name", "ingredient"),
    [
        ("baking soda", "baking-soda"), ("bicarb", "baking-soda"), ("Bicarbonate of Soda", "baking-soda"),
        ("Sodium Bicarbonate", "baking-soda"), ("cornflour", "corn-starch"), ("SLSA powder", "slsa-fine"),
        ("Sodium Lauryl Sulfoacetate", "slsa-fine"), ("coarse SLSA", "slsa-coarse"), ("SLS", "sls-powder"), ("SCI", "sci-powder"),
        ("coco betaine", "capb-liquid"), ("Cocamidopropyl Betaine", "capb-liquid"), ("poly 80", "polysorbate-80"),
        ("polysorbate 20", "polysorbate-20"), ("e-wax", "emulsifying-wax"), ("FO", "fragrance-oil-generic"),
        ("heather smoke fragrance oil", "fragrance-oil-generic"), ("slate mica", "mica-pigment"), ("almond oil", "sweet-almond-oil"),
        ("water", "distilled-water"), ("70% isopropyl alcohol", "isopropyl-alcohol-70"), ("91 % alcohol", "isopropyl-alcohol-91"),
        ("Isopropyl alcohol 99%", "isopropyl-alcohol-99"), ("PEG-40 hydrogenated castor oil", "peg-40-hco"),
        ("coconut oil 76", "coconut-oil-76"), ("fractionated coconut oil", "mct-oil"), ("organic refined shea butter", "shea-butter"),
        ("bicarbonat of soda", "baking-soda"), ("glyserin", "glycerin"), ("C14-16 olefin sulfonate", "aos-powder"),
        ("citric acid (monohydrate)", "citric-acid-monohydrate"), ("Theobroma Cacao (Cocoa) Seed Butter", "cocoa-butter"),
        ("lavender EO", "lavender-oil"), ("1,3-propanediol", "propanediol"),
    ],
)  # fmt: skip
def test_everyday_names_are_known(name: str, ingredient: str) -> None:
    for text in (f"20 g {name}", f"{name} 20 g"):
        found = line(text)
        assert (found.ingredient, found.amount, found.unit) == (ingredient, "20", "g"), text


@pytest.mark.parametrize(
    "name", ["palm oil", "oat milk", "polysorbate 40", "soybean oil", "unicorn tears", "propylene glycol", "sodium percarbonate"]
)
def test_strangers_are_kept_and_asked_with_three_suggestions(name: str) -> None:
    found = line(f"20 g {name}")
    assert found.ingredient is None
    assert len(found.suggestions) == 3
    assert set(found.suggestions) <= set(load_tables().ingredients)
    assert "is not known" in " ".join(found.notes)
    assert found.unknown_name == name, "so that it can be learnt with what is chosen for it"


def test_baking_powder_is_taken_at_its_word_and_questioned() -> None:
    found = line("1 cup baking powder")
    assert found.ingredient == "baking-powder"
    assert "was baking soda meant?" in " ".join(found.notes)
    assert found.suggestions == ("baking-soda",)
    assert line("1 cup bakin powder").suggestions == ("baking-soda",), "a slip of the pen is questioned too"
    plainly = line("1 cup baking soda")
    assert (plainly.suggestions, plainly.unknown_name) == ((), None)


@pytest.mark.parametrize(
    ("name", "note"),
    [
        ("citric acid", "anhydrous"),
        ("SLSA", "fine"),
        ("water", "distilled"),
        ("fragrance", "generic"),
        ("almond oil", "sweet almond"),
    ],
)
def test_a_grade_taken_for_granted_is_noted(name: str, note: str) -> None:
    assert note in " ".join(line(f"5 g {name}").notes)


def test_headings_become_phases() -> None:
    recipe = read("Dry:\n100 g bicarb\nWet phase\n5 g glycerin\ntopping: 30 g starch")
    assert [each.phase for each in recipe.lines] == ["Dry", "Wet phase", "topping"]
    assert recipe.lines[2].ingredient == "corn-starch"


def test_items_share_a_line() -> None:
    recipe = read("200 g bicarb, 100 g citric; 5 g poly80")
    assert [(each.ingredient, each.amount) for each in recipe.lines] == [
        ("baking-soda", "200"), ("citric-acid-anhydrous", "100"), ("polysorbate-80", "5"),
    ]  # fmt: skip


def test_names_may_come_first_on_a_shared_line() -> None:
    recipe = read("bicarb 200 g, cocoa butter, melted, 50 g, kaolin, 2 tbsp")
    assert [(each.ingredient, each.amount, each.unit) for each in recipe.lines] == [
        ("baking-soda", "200", "g"), ("cocoa-butter", "50", "g"), ("kaolin", "2", "tbsp"),
    ]  # fmt: skip


def test_instructions_are_left_aside_not_read_as_ingredients() -> None:
    recipe = read(
        "Loft bar\n\n200 g bicarb\n\nMethod:\n1. Sift the powders well.\n2. Add 2 tsp water slowly and knead until it holds."
    )
    assert recipe.name == "Loft bar"
    assert len(recipe.lines) == 1
    assert len(recipe.aside) == 2


def test_a_title_may_say_how_many_it_makes() -> None:
    recipe = read("Loft bar (makes about 6)\n200 g bicarb")
    assert recipe.name == "Loft bar (makes about 6)"
    assert len(recipe.lines) == 1


def test_as_much_as_needed_is_a_line_that_asks() -> None:
    found = read("200 g bicarb\nwater q.s.").lines[1]
    assert (found.ingredient, found.amount) == ("distilled-water", "0")
    assert "no amount given" in " ".join(found.notes)


def test_a_number_without_unit_is_parts_alone_and_grams_among_grams() -> None:
    assert [each.unit for each in read("2 bicarb\n1 citric acid").lines] == ["part", "part"]
    assert [each.unit for each in read("200 g bicarb\n100 citric acid").lines] == ["g", "g"]


def test_a_learned_name_wins(tables: Tables) -> None:
    recipe = parse_recipe("3 cups loft dust", tables, [Synonym("loft dust", "kaolin")])
    assert recipe.lines[0].ingredient == "kaolin"


def test_a_whole_recipe_in_cups_and_spoons() -> None:
    """Twelve lines as people write them: each right, or openly queried."""
    recipe = read(TWELVE_LINES)
    assert recipe.name == "Weather scoops"
    assert [each.ingredient for each in recipe.lines] == [
        "baking-soda", "slsa-fine", "corn-starch", "cream-of-tartar", "kaolin", "capb-liquid", "glycerin", "sweet-almond-oil",
        "polysorbate-80", "lavender-oil", "mica-pigment", None,
    ]  # fmt: skip
    assert len([note for note in notes_of(recipe) if note.startswith("Line 12")]) == 1


@pytest.mark.parametrize(
    ("text", "method"),
    [
        ("300 g bicarb\n80 g slsa\n60 g coco betaine", "betaine-dough"),
        ("300 g bicarb\n80 g slsa\n90 g glycerin", "glycerin-dough"),
        ("400 g bicarb\n200 g citric\n120 g slsa\n90 g cocoa butter\n90 g shea", "butter-dough"),
        ("200 g bicarb\n100 g citric\n135 g cocoa butter", "moulded-truffle"),
        ("60 g cocoa butter\n30 g shea\n15 g e-wax", "melt"),
        ("600 g bicarb\n300 g citric\n10 g witch hazel", "damp-press"),
        ("600 g bicarb\n300 g citric\n30 g bubble bath", "pre-dried-surfactant"),
    ],
)
def test_the_method_is_guessed_from_what_is_in_it(tables: Tables, text: str, method: str) -> None:
    assert guess_method(formula_of(read(text)), tables) == method


@settings(max_examples=150, deadline=None)
@given(st.text(alphabet=st.characters(blacklist_categories=("Cs",)), max_size=120))
def test_no_text_makes_the_reader_stumble(text: str) -> None:
    recipe = read(text)
    assert all(each.ingredient is None or each.ingredient in load_tables().ingredients for each in recipe.lines)
