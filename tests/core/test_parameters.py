"""Every constant of the models stands in a parameter record, and a value learnt by a studio reaches the sheet from there."""

from __future__ import annotations

import ast
import json
import re
from dataclasses import asdict, dataclass, fields, replace
from pathlib import Path

import pytest

from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target
from rosy_kettle.core.change.why import constants_of
from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.core.making.plan import Wish, make_run_sheet, plan_order
from rosy_kettle.core.parameters import USUAL, constants_in, records
from rosy_kettle.core.parameters.declared import ESTIMATE, parameter
from rosy_kettle.core.parameters.drying import DryingParameters
from rosy_kettle.core.readings.charts import charts_of
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.readings.registry import declared_besides
from rosy_kettle.core.records import Formula, Line, Piece, Portion, Room, Tables, Use
from rosy_kettle.core.records.reading import Reading
from tests.conftest import make_formula

MODELS = Path(__file__).parents[2] / "src/rosy_kettle/core/models"
PLAIN = {0, 1, 2, 100, 10, 24, 60, 1000, 273.15}
"""Counting, halves and wholes, and conversions of units (°C to K, h to min, kg to g)."""
NUMERICAL = {
    "ROUNDS", "CHARGE_TOLERANCE", "ON_THE_WAY_TOLERANCE", "STRENGTH_TOLERANCE", "HARD_TOLERANCE", "NEWTON_STEPS", "STEPS",
    "STEP_C", "NEARLY_ROOM_C", "LONGEST_MIN", "PIECE_ROUNDING", "NINETY_PCT", "CHANCE_SHOWN", "MM_PER_MIN", "SCAN_C",
    "BOWL_MINUTES", "SOAK_MINUTES", "MOST_PROTONS", "NEUTRAL_PH", "ZERO_CELSIUS_K", "REFERENCE_K", "GAS_CONSTANT_KJ",
    "CENT", "GRAMS_PER_KG", "MINUTES_PER_HOUR", "SODIUM_PER_MOL", "SODIUM_CITRATE_G_MOL", "SPECTATORS_MOL_STRENGTH_PER_G",
    "SETTLES", "READINGS", "PH_WANTED",
}  # fmt: skip
"""Names that are no model: declarations of readings, tolerances, grids of curves, unit conversions, formula masses of salts, tables by ingredient."""
GEOMETRY = {
    "bath/equilibrium.py": "charges, their squares, and counts of protons", "bath/bath_water.py": "charges and a cube root",
    "bath/activity.py": "powers of the permittivity", "pieces/rolls.py": "circles", "fats/cooling.py": "a surface's share of a body",
    "release/release_time.py": "", "feel/bath_feel.py": "a surface's share of a body", "lather/foam.py": "a surface's share",
    "bath/readings.py": "", "dough/behaviour.py": "the narrowest band", "cost/formula_cost.py": "", "cost/readings.py": "",
}  # fmt: skip


SMALL = {1.5, 1e-9, 1e-4, 3.0, 4.0, 9.0, 16.0}
"""The same as decimals, and the narrowest figures of a loop."""


def literals(tree: ast.Module) -> list[float]:
    found: list[float] = []
    for statement in tree.body:
        target = statement.targets[0] if isinstance(statement, ast.Assign) else getattr(statement, "target", None)
        names = {each.id for each in ast.walk(target) if isinstance(each, ast.Name)} if target is not None else set()
        if names and names <= NUMERICAL:
            continue
        found += [
            node.value
            for node in ast.walk(statement)
            if isinstance(node, ast.Constant) and isinstance(node.value, int | float) and not isinstance(node.value, bool)
        ]
    return [value for value in found if value not in PLAIN]


def test_no_model_holds_a_figure_of_its_own() -> None:
    wrong = {}
    for path in sorted(MODELS.rglob("*.py")):
        name = str(path.relative_to(MODELS))
        held = literals(ast.parse(path.read_text(encoding="utf-8")))
        small = {value for value in held if isinstance(value, int) and value <= 20} | SMALL
        wrong[name] = [value for value in held if not (name in GEOMETRY and value in small) and value != 0.5]
    assert {name: held for name, held in wrong.items() if held} == {}


def test_the_page_of_constants_is_true() -> None:
    """What a maker reads of a constant is what the models use: value, unit, range and source of each."""
    page = (MODELS.parents[3] / "docs/science/constants.md").read_text(encoding="utf-8")
    told = {}
    for block in page.split("\n## ")[1:]:
        rows = [[cell.strip() for cell in row.split("|")[1:-1]] for row in block.splitlines() if row.startswith("| `")]
        told |= {(block.split("\n", 1)[0], row[0].strip("`")): row[1:] for row in rows}
    kept = {(name, field): each for name, record in records().items() for field, each in constants_in(record).items()}
    assert told.keys() == kept.keys()
    for key, (what, value, unit, span, source, sure) in told.items():
        each = kept[key]
        assert float(value) == pytest.approx(each.value, rel=1e-9), key
        assert (what, unit, source, sure) == (each.name, each.unit, each.source, each.confidence), key
        ends = [] if span == "–" else [float(end) for end in span.split(" to ")]
        assert ends == pytest.approx([end for end in (each.low, each.high) if end is not None]), key


def with_formulas() -> list[tuple[str, str]]:
    nodes = [
        (path, node)
        for path in sorted([*MODELS.rglob("*.py"), *(MODELS.parent / "mixing").rglob("*.py")])
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8")))
        if isinstance(node, ast.FunctionDef)
    ]
    told = [(f"{path.stem}.{node.name}", ast.get_docstring(node) or "") for path, node in nodes]
    return [(place, text) for place, text in told if ".. math::" in text]


def test_a_formula_in_a_docstring_names_its_constants_and_does_not_repeat_their_values() -> None:
    known = {each.name for record in fields(USUAL) for each in fields(getattr(USUAL, record.name))}
    for place, text in with_formulas():
        formulas = "".join(re.findall(r"\.\. math::(.*?)(?:\n\n|\Z)", text, flags=re.S))
        assert not re.findall(r"\d+\.\d+", formulas), place
        assert {int(each) for each in re.findall(r"\d+", formulas)} <= {0, 1, 2, 3, 4, 10, 100}, place
        assert set(re.findall(r"``([a-z]+(?:_[a-z0-9]+)+)``", text)) <= known, place


def test_every_constant_says_what_it_is() -> None:
    for record in fields(USUAL):
        for name, constant in constants_in(getattr(USUAL, record.name)).items():
            assert constant.name, name
            assert constant.unit, name
            assert constant.source, name
            assert constant.confidence in {"high", "medium", "low"}, name
            if constant.low is not None and constant.high is not None:
                assert constant.low <= constant.value <= constant.high, name


def test_all_records_are_named_by_some_reading() -> None:
    named = {constant.name for reading in (
        "dough.saturation", "dough.mix_temperature_c", "fizz.co2_l", "bath.ph_soak", "lather.score", "firmness.at_20_c",
        "release.minutes", "drying.hours", "shelf.acid_loss_pct_day", "feel.ring", "skin.harshness_mg_l", "piece.density_g_ml",
    ) for constant in constants_of(reading)}  # fmt: skip
    every = {each.name for record in fields(USUAL) for each in constants_in(getattr(USUAL, record.name)).values()}
    assert every <= named


def test_a_reading_that_is_not_declared_rests_on_what_its_kin_rest_on() -> None:
    assert constants_of("lather.whatever") == tuple(constants_in(USUAL.lather).values())
    assert constants_of("bath.whatever") == constants_of("bath.ph_soak")
    assert constants_of("nothing.at_all") == ()


def formulas() -> list[Formula]:
    """Formulas that between them call on everything the models know."""
    acid = {"baking_soda": 300, "citric_acid_anhydrous": 120, "cream_of_tartar": 30, "sea_salt_coarse": 90}
    return [
        make_formula("glycerin-dough", **acid, slsa_fine=180, corn_starch=80, glycerin=60, distilled_water=12, kaolin=40),
        make_formula(
            "betaine-dough", **acid, slsa_fine=150, capb_liquid=120, glycerin=90, isopropyl_alcohol_91=30, whole_milk_powder=120
        ),
        make_formula(
            "butter-dough",
            **acid,
            cocoa_butter=80,
            coconut_oil_76=60,
            shea_butter=40,
            sweet_almond_oil=20,
            polysorbate_80=4,
            mica_pigment=4,
        ),
        make_formula(
            "melt",
            cocoa_butter=300,
            coconut_oil_76=150,
            sweet_almond_oil=80,
            beeswax=60,
            mica_pigment=6,
            iron_oxide_red=3,
            glycerin=60,
        ),
        make_formula("melt", cocoa_butter=400, emulsifying_wax=20),
        make_formula("moulded-truffle", baking_soda=200, citric_acid_anhydrous=80, cocoa_butter=120, cetyl_alcohol=40),
        make_formula("damp-press", **acid, magnesium_chloride_flakes=12, distilled_water=8, slsa_fine=60, titanium_dioxide=6),
        make_formula("loose-dust", **acid, slsa_fine=200),
        make_formula("pre-dried-surfactant", **acid, liquid_bubble_bath=90),
    ]


SETTINGS = (
    {}, {"room": Room(27.0, 55.0), "use": Use(way="whole", hardness="very-hard", tub_l=90.0)},
    {"room": Room(14.0, 68.0), "use": Use(way="held", bath_c=34.0)}, {"room": Room(21.0, 82.0), "use": Use(way="crumbled")},
)  # fmt: skip


def told(tables: Tables) -> dict[int, str]:
    answers = {}
    for at, formula in enumerate([*formulas(), halves()]):
        for setting, changes in enumerate(SETTINGS):
            one = replace(formula, **changes)
            key = at * 10 + setting
            answers[key] = json.dumps(asdict(evaluate(one, tables)), default=str)
            if setting == 0:
                answers[1000 + at] = _or_error(lambda one=one: (charts_of(one, tables, 0), make_run_sheet(one, tables, 12)))
                wish = Wish(tool="slice-60x25", pieces=8, layers=2, sheet_mm=6.0)
                answers[2000 + at] = _or_error(lambda one=one, wish=wish: plan_order(one, tables, [wish], None, None, {}))
    return answers


def halves() -> Formula:
    plain = Portion(
        "plain", (Line("baking-soda", "200", "g"), Line("citric-acid-anhydrous", "20", "g"), Line("corn-starch", "20", "g"))
    )
    sharp = Portion(
        "sharp", (Line("baking-soda", "150", "g"), Line("citric-acid-anhydrous", "90", "g"), Line("sweet-almond-oil", "6", "g"))
    )
    return Formula("halves", (plain, sharp), method="damp-press")


def _or_error(work: object) -> str:
    try:
        return repr(work())  # type: ignore[operator]
    except WorkbenchError as error:
        return error.message


def traced(record: object, seen: set[str]) -> object:
    """The same record, telling which of its fields are asked for."""
    kind, names = type(record), {each.name for each in fields(record)}  # type: ignore[arg-type]

    def ask(self: object, name: str) -> object:
        if name in names:
            seen.add(f"{kind.__name__}.{name}")
        return object.__getattribute__(self, name)

    return type(kind.__name__, (kind,), {"__getattribute__": ask, "__slots__": ()})(**asdict(record))  # type: ignore[call-overload]


def test_what_a_studio_has_learnt_is_what_is_asked_for(tables: Tables) -> None:
    """Every constant is looked up in the tables of the studio, by what the models say of formulas that call on all of them."""
    seen: set[str] = set()
    learnt = replace(USUAL, **{each.name: traced(getattr(USUAL, each.name), seen) for each in fields(USUAL)})
    own = {"kaolin": {"cp_j_gk": None}, "sweet-almond-oil": {"required_hlb": None}}  # a studio's own may lack these
    ingredients = {**tables.ingredients, **{name: replace(tables.ingredients[name], **lacks) for name, lacks in own.items()}}
    asked = replace(tables, parameters=learnt, ingredients=ingredients)
    told(asked)
    balance(BalanceProblem(formulas()[0], (parse_target("bath.ph_soak<=7.5"),)), asked)
    rich = make_formula(
        "damp-press", baking_soda=300, citric_acid_anhydrous=150, slsa_fine=80, sweet_almond_oil=20, polysorbate_80=6
    )
    evaluate(replace(rich, piece=Piece(packing="press")), asked)
    every = {
        f"{type(getattr(USUAL, record.name)).__name__}.{name}"
        for record in fields(USUAL)
        for name in constants_in(getattr(USUAL, record.name))
    }
    assert every - seen == set()


@pytest.mark.parametrize(
    ("record", "name", "times", "reading"),
    [
        ("lather", "litres_per_gram", 1.1, "lather.foam_l"), ("drying", "water_hours", 1.1, "drying.hours"),
        ("firmness", "base", 1.2, "firmness.at_20_c"), ("release", "fizz_rate_mm_min", 1.2, "release.minutes"),
        ("dough", "play_dough_from", 1.1, "dough.state_chances"), ("bath", "transfer_m_per_h", 2.0, "bath.ph_soak"),
        ("pieces", "dough", 0.97, "piece.density_g_ml"), ("shelf", "loss_pct_day", 1.5, "shelf.acid_loss_pct_day"),
        ("mixing", "fixed_loss_share", 1.3, "cost.piece"), ("feel", "ring_scale_g", 1.3, "feel.ring"),
        ("skin", "milded_by_mixing", 1.3, "skin.harshness_mg_l"), ("gas", "highest_lift_pct", 1.3, "dough.puff_pct"),
        ("fats", "latent_j_g", 1.3, "dough.mix_temperature_c"),
    ],
)  # fmt: skip
def test_a_learnt_factor_moves_its_reading(tables: Tables, record: str, name: str, times: float, reading: str) -> None:
    held = getattr(USUAL, record)
    learnt = replace(tables, parameters=replace(USUAL, **{record: replace(held, **{name: getattr(held, name) * times})}))
    group, key = reading.split(".")
    moved = [
        getattr(getattr(evaluate(formula, tables), group), key) != getattr(getattr(evaluate(formula, learnt), group), key)
        for formula in [*formulas(), replace(formulas()[2], method="glycerin-dough", room=Room(26.0, 40.0))]
    ]
    assert any(moved)


@dataclass(frozen=True, slots=True)
class WithOneMore(DryingParameters):
    """The constants of drying and one that only this test declares."""

    draught: float = parameter(1.5, "how much faster a draught dries", "-", ESTIMATE, "low", (1.0, 3.0))


def test_one_more_constant_is_one_field(tables: Tables) -> None:
    reading = Reading(
        "drying.draught_hours", "In a draught", "h", "practice", "piece", "Hours it dries in a draught.", page="drying", question="set",
        rests_on=("drying",), compute=lambda look: look.drying and look.drying.hours / look.mix.parameters.drying.draught,
    )  # fmt: skip
    formula = formulas()[0]
    usual, learnt = (replace(tables, parameters=replace(USUAL, drying=WithOneMore(draught=times))) for times in (1.5, 2.0))
    hours = evaluate(formula, tables).drying.hours
    assert hours
    with declared_besides(reading):
        assert evaluate(formula, usual).further == {reading.id: pytest.approx(hours / 1.5)}
        assert evaluate(formula, learnt).further == {reading.id: pytest.approx(hours / 2)}
        shown = {each.name: each for each in constants_of(reading.id, learnt.parameters)}
    assert (shown["how much faster a draught dries"].value, shown["how much faster a draught dries"].high) == (2.0, 3.0)
