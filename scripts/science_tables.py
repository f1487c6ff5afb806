"""Writes the tables of docs/science that are worked out: worked examples, demo formulas, checks against others."""

from __future__ import annotations

import json
import re
from importlib.resources import files
from pathlib import Path

from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target
from rosy_kettle.core.change.why import contributions
from rosy_kettle.core.parameters import constants_in, records
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.files.formula_file import formula_file_from_data, formula_from_file
from rosy_kettle.reference import load_tables
from rosy_kettle.store import open_studio
from rosy_kettle.usecases.studio.seed_demo import seed_demo
from rosy_kettle.usecases.studio.studio_tables import studio_tables

SCIENCE = Path(__file__).parent.parent / "docs" / "science"
SCOOP = {
    "baking-soda": 218, "slsa-fine": 82, "corn-starch": 113, "cream-of-tartar": 28, "kaolin": 11, "fragrance-oil-generic": 10,
    "capb-liquid": 57, "avocado-oil": 28, "glycerin": 37, "mica-pigment": 3,
}  # fmt: skip
BUTTER = {
    "baking-soda": 400, "citric-acid-anhydrous": 200, "cream-of-tartar": 60, "slsa-fine": 120, "cocoa-butter": 90,
    "shea-butter": 90, "glycerin": 30, "polysorbate-20": 20, "fragrance-oil-generic": 15,
}  # fmt: skip
BALL = {"baking-soda": 620, "citric-acid-anhydrous": 310, "corn-starch": 50, "sweet-almond-oil": 12, "distilled-water": 8}
EXAMPLES = {
    "amounts": ("betaine-dough", SCOOP, ["mass_g"]),
    "dough": ("betaine-dough", SCOOP, ["dough.saturation", "dough.state", "dough.stickiness"]),
    "fats": ("butter-dough", BUTTER, ["firmness.at_20_c", "firmness.at_30_c"]),
    "gas": ("damp-press", BALL, ["fizz.co2_mol", "fizz.co2_l", "fizz.base_to_acid", "fizz.prereaction_share"]),
    "pieces": ("damp-press", BALL, ["piece.density_g_ml", "piece.float"]),
    "money": ("betaine-dough", SCOOP, ["cost.batch", "cost.piece", "cost.bath"]),
    "bath": ("damp-press", BALL, ["bath.ph_fresh", "bath.ph_stepin", "bath.ph_soak", "bath.ph_aired"]),
    "heat": ("butter-dough", BUTTER, ["dough.mix_temperature_c"]),
    "lather": ("betaine-dough", SCOOP, ["lather.active_g", "lather.foam_l", "lather.score", "lather.character"]),
    "firmness": ("betaine-dough", SCOOP, ["firmness.at_20_c"]),
    "drying": ("betaine-dough", SCOOP, ["drying.hours", "drying.low_hours", "drying.high_hours"]),
    "release": ("damp-press", BALL, ["release.minutes"]),
    "feel": ("betaine-dough", SCOOP, ["feel.oil_g", "feel.free_oil_g", "feel.ring", "feel.cloud"]),
    "skin": ("betaine-dough", SCOOP, ["skin.harshness_mg_l"]),
    "label": ("damp-press", BALL, ["label.declaration"]),
}
WANTED = ["lather.score>=65", "dough.saturation=0.65..0.95"]
ASKED_WHY = "drying.hours"
DIGITS = 4


def main() -> None:
    """Write worked examples into their pages and the demo table into the overview."""
    tables = load_tables()
    for page, (method, grams, paths) in EXAMPLES.items():
        result = evaluate(_formula(method, grams), tables)
        _put(page, "worked example", _example(method, grams, {path: _shown(_value(result, path)) for path in paths}))
    _put("balance", "worked example", _balanced(tables))
    _put("why", "worked example", _explained(tables))
    _put("overview", "demo table", _demo_table())
    _put("checks", "baths", _baths(tables))
    _put("constants", "constants", _constants())
    _put("balance", "wishes", _wishes(tables))


def _balanced(tables: Tables) -> str:
    problem = BalanceProblem(_formula("betaine-dough", SCOOP), tuple(parse_target(target) for target in WANTED))
    result = balance(problem, tables)
    changes = {change.ingredient: _shown(change.after_g) for change in result.changes}
    return _example("betaine-dough", SCOOP, {"status": result.status, "after_g": changes}, targets=WANTED)


def _explained(tables: Tables) -> str:
    found = contributions(_formula("betaine-dough", SCOOP), tables, ASKED_WHY)
    adds = {each.ingredient: _shown(each.adds) for each in found[:3]}
    return _example("betaine-dough", SCOOP, adds, reading=ASKED_WHY)


def _wishes(tables: Tables) -> str:
    """Thirty wishes and what is done about them, as the tests ask them."""
    from tests.core.change.test_balance_wishes import WISHES

    rows = ["| wish | asked | answer |", "|---|---|---|"]
    for name, formula, texts in WISHES:
        result = balance(BalanceProblem(formula, tuple(map(parse_target, texts))), tables)
        moves = [f"{tables.ingredients[c.ingredient].short_name} {c.before_g:.1f} → {c.after_g:.1f}" for c in result.changes]
        named = f"{', '.join(moves)} g" if moves else "nothing, it holds"
        said = "every line in proportion" if len(moves) > len(texts) + 2 else named
        rows.append(f"| {name} | {', '.join(texts)} | {result.status}: {said} |")
    return "\n".join(rows)


def _constants() -> str:
    """Every constant of every parameter record, as it stands before a studio has learnt better."""
    blocks = []
    for name, record in records().items():
        rows = [
            f"## {name}",
            "",
            "| constant | what it is | value | unit | range | source | sure |",
            "|---|---|---|---|---|---|---|",
        ]
        for field, each in constants_in(record).items():
            span = "–" if each.low is None or each.high is None else f"{each.low:g} to {each.high:g}"
            rows.append(
                f"| `{field}` | {each.name} | {each.value:.10g} | {each.unit} | {span} | {each.source} | {each.confidence} |"
            )
        blocks.append("\n".join(rows))
    return "\n\n".join(blocks)


def _baths(tables: Tables) -> str:
    """Our baths beside PHREEQC's, by the helpers of the tests that assert them."""
    from tests.science import test_bath_against_phreeqc as bath

    engine = bath.Phreeqc()
    engine.LoadBuiltInDatabase("minteq.v4.dat")
    rows = ["| bath | ours | PHREEQC | difference |", "|---|---|---|---|"]
    cases = [(60, 0, 150, 38, 0), (60, 30, 150, 38, 0), (200, 100, 150, 38, 0), (0, 30, 150, 38, 0), (60, 0, 150, 38, 80)]
    cases += [
        (60, 30, 150, 38, 80),
        (200, 100, 150, 38, 80),
        (120, 30, 90, 20, 210),
        (300, 150, 300, 42, 75),
        (40, 20, 30, 38, 75),
    ]
    for soda, citric, litres, bath_c, alkalinity in cases:
        closed, aired, _ = bath.ours(tables, soda, citric, litres, bath_c, alkalinity)
        for name, mine in (("fresh", closed), ("aired", aired)):
            other = bath.theirs(engine, soda, citric, litres, bath_c, alkalinity, aired=name == "aired")
            case = f"soda {soda} g, citric {citric} g, {litres} L, {bath_c} °C, alkalinity {alkalinity}, {name}"
            rows.append(f"| {case} | {mine:.3f} | {other:.3f} | {mine - other:+.3f} |")
    return "\n".join(rows)


def _formula(method: str, grams: dict[str, float]) -> Formula:
    lines = [{"ingredient": name, "amount": str(amount), "unit": "g"} for name, amount in grams.items()]
    data = {
        "format": "rosy-kettle/formula",
        "version": 1,
        "name": "x",
        "method": method,
        "portions": [{"name": "body", "lines": lines}],
    }
    return formula_from_file(formula_file_from_data(data))


def _value(result: object, path: str) -> object:
    for name in path.split("."):
        result = getattr(result, name)
    return result


def _shown(value: object) -> object:
    return float(f"{value:.{DIGITS}g}") if isinstance(value, float) else value


def _example(method: str, grams: dict[str, float], expect: dict[str, object], **asked: object) -> str:
    body = json.dumps({"method": method, "grams": grams, **asked, "expect": expect}, indent=1)
    return f"Worked example (a test works it out again; defaults for everything that is not said):\n\n```json\n{body}\n```"


def _put(page: str, name: str, text: str) -> None:
    path = SCIENCE / f"{page}.md"
    begin, end = f"<!-- {name} -->", f"<!-- end of {name} -->"
    block = f"{begin}\n{text}\n{end}"
    content = path.read_text(encoding="utf-8")
    if begin in content:
        content = re.sub(f"{re.escape(begin)}.*{re.escape(end)}", lambda _: block, content, flags=re.DOTALL)
    else:
        content = f"{content.rstrip()}\n\n{block}\n"
    path.write_text(content, encoding="utf-8")


def _demo_table() -> str:
    import tempfile

    with tempfile.TemporaryDirectory() as folder:
        studio = open_studio(Path(folder))
        seed_demo(studio)
        with studio.reading() as session:
            tables = studio_tables(session)
        studio.close()
    demo = json.loads((files("rosy_kettle.demo") / "studio.json").read_text(encoding="utf-8"))
    columns = (
        "formula | S | state | sticky | puff % | window °C | mixed °C | CO2 L | spent | score | character | firmness 20/30 | "
        "gone min | dry h | pH in/soak | oil g | free g | ring | tint/cloud | harsh mg/L | scent | density | float | "
        "shelf %/d | piece USD | ledger"
    ).split(" | ")
    rows = [f"| {' | '.join(columns)} |", f"|{'---|' * len(columns)}"]
    rows += [_row(formula_from_file(formula_file_from_data(data)), tables) for data in demo["formulas"]]
    return "\n".join(rows)


def _row(formula: Formula, tables: Tables) -> str:
    r = evaluate(formula, tables)
    dough = r.dough or r.portions[0].dough
    assert dough is not None
    window = "–" if dough.working_window_c is None else f"{dough.working_window_c[0]:.0f}–{dough.working_window_c[1]:.0f}"
    severities = [entry.severity for entry in r.skin.ledger]
    cells = [
        formula.name, _n(dough.saturation, 2), dough.state or "–", _n(dough.stickiness), _n(dough.puff_pct), window,
        _n(dough.mix_temperature_c), _n(r.fizz.co2_l, 1), _n(r.fizz.prereaction_share, 2), _n(r.lather.score),
        _n(r.lather.character), f"{_n(r.firmness.at_20_c)}/{_n(r.firmness.at_30_c)}", _n(r.release.minutes, 1),
        _n(r.drying.hours) if r.drying.dries else (r.drying.reason or "–"), f"{_n(r.bath.ph_stepin, 1)}/{_n(r.bath.ph_soak, 1)}",
        _n(r.feel.oil_g, 1), _n(r.feel.free_oil_g, 1), _n(r.feel.ring), f"{_n(r.feel.tint)}/{_n(r.feel.cloud)}",
        _n(r.skin.harshness_mg_l, 1), _n(r.skin.scent_share, 2), _n(r.piece.density_g_ml, 2), r.piece.float or "–",
        _n(r.shelf.acid_loss_pct_day, 2), r.cost.piece or "–",
        f"{severities.count('block')}/{severities.count('warn')}/{severities.count('note')}",
    ]  # fmt: skip
    return f"| {' | '.join(cells)} |"


def _n(value: float | None, digits: int = 0) -> str:
    return "–" if value is None else f"{value:.{digits}f}"


if __name__ == "__main__":
    main()
