"""The command line, as other programs call it."""

from __future__ import annotations

import csv
import io
import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

SCOOP = {
    "format": "rosy-kettle/formula", "version": 1, "name": "Scoop",
    "portions": [{"lines": [
        {"ingredient": "baking-soda", "amount": "218", "unit": "g"}, {"ingredient": "capb-liquid", "amount": "2", "unit": "oz"},
        {"ingredient": "corn-starch", "amount": "0,75", "unit": "cup"}, {"ingredient": "slsa-fine", "amount": "2/3", "unit": "cup"},
    ]}],
}  # fmt: skip


def run(*arguments: str, stdin: str = "") -> subprocess.CompletedProcess[str]:
    command = [str(Path(sys.executable).parent / "rosy-kettle"), *arguments]
    return subprocess.run(command, input=stdin, capture_output=True, text=True, check=False)


def evaluate(tmp_path: Path, formula: object) -> subprocess.CompletedProcess[str]:
    path = tmp_path / "formula.json"
    path.write_text(formula if isinstance(formula, str) else json.dumps(formula), encoding="utf-8")
    return run("evaluate", str(path))


def strict(text: str) -> Any:
    return json.loads(text, parse_constant=lambda name: pytest.fail(f"{name} in JSON"))


def test_evaluate_prints_the_contract(tmp_path: Path) -> None:
    done = evaluate(tmp_path, SCOOP)
    assert (done.returncode, done.stderr) == (0, "")
    result = strict(done.stdout)
    assert result["mass_g"] == pytest.approx(218 + 56.69904625 + 96 + 2 / 3 * 95)
    assert result["lines"][0].keys() >= {"ingredient", "mass_g", "pct"}
    assert [point["temperature_c"] for point in result["dough"]["by_temperature"]] == list(range(10, 61))
    assert result["dough"].keys() >= {
        "temperature_c",
        "saturation",
        "state",
        "working_window_c",
        "window_reason",
        "saturation_band",
    }
    assert result["fizz"].keys() >= {"co2_mol", "co2_l", "brisk_co2_l", "limiting", "base_to_acid", "bicarbonate_left_g"}
    assert result["lather"].keys() >= {"active_g", "concentration_mg_l"}
    assert result["cost"].keys() >= {"currency", "batch", "piece", "bath", "basis"}
    assert result["missing"] == []
    assert result["out_of_range"] == []


def test_an_empty_formula_is_no_error(tmp_path: Path) -> None:
    done = evaluate(tmp_path, SCOOP | {"portions": []})
    assert done.returncode == 0
    assert strict(done.stdout)["dough"]["saturation"] is None


@pytest.mark.parametrize(
    ("formula", "sentence"),
    [
        ('{"format"', "broken JSON"),
        (SCOOP | {"version": 2}, '"version" is wrong'),
        (
            SCOOP | {"portions": [{"lines": [{"ingredient": "baking-sodа", "amount": "1", "unit": "g"}]}]},
            "nearest are baking-soda",
        ),
        (
            SCOOP | {"portions": [{"lines": [{"ingredient": "baking-soda", "amount": "-1", "unit": "g"}]}]},
            "Line 1 (baking-soda): amount must",
        ),
        (
            SCOOP | {"portions": [{"lines": [{"ingredient": "baking-soda", "amount": "1", "unit": "stone"}]}]},
            "unit must be one of",
        ),
        (SCOOP | {"portions": [{"lines": [{"ingredient": "baking-soda", "amount": "1001", "unit": "kg"}]}]}, "1 000 kg at most"),
    ],
)
def test_bad_files_end_with_two_and_one_sentence(tmp_path: Path, formula: object, sentence: str) -> None:
    done = evaluate(tmp_path, formula)
    assert done.returncode == 2
    assert done.stdout == ""
    assert sentence in done.stderr
    assert len(done.stderr.strip().splitlines()) == 1
    assert "Traceback" not in done.stderr


@pytest.mark.parametrize(
    "arguments", [["evaluate", "/nowhere.json"], ["evaluate"], ["nonsense"], ["evaluate", "x", "--stage", "moon"]]
)
def test_bad_arguments_end_with_two(arguments: list[str]) -> None:
    done = run(*arguments)
    assert done.returncode == 2
    assert len(done.stderr.strip().splitlines()) == 1


def test_parse_writes_a_formula_file_that_evaluate_takes(tmp_path: Path) -> None:
    done = run("parse", stdin="2 cups bicarb\n1 cup SLSA\n3 tbsp coco betaine\n1 tsp moon glimmer\n")
    assert done.returncode == 0
    formula = strict(done.stdout)
    lines = formula["portions"][0]["lines"]
    assert [entry["ingredient"] for entry in lines] == ["baking-soda", "slsa-fine", "capb-liquid", None]
    assert lines[3]["text"] == "1 tsp moon glimmer"
    assert len(lines[3]["suggestions"]) == 3
    assert any("fine powder taken" in note for note in formula["notes"])
    again = evaluate(tmp_path, formula)
    assert again.returncode == 0
    assert any("moon glimmer" in item["reason"] for item in strict(again.stdout)["missing"])


def test_parse_refuses_what_is_too_long() -> None:
    assert run("parse", stdin="x\n" * 2001).returncode == 2


def test_balance_prints_what_moved(tmp_path: Path) -> None:
    path = tmp_path / "formula.json"
    path.write_text(json.dumps(SCOOP), encoding="utf-8")
    done = run("balance", str(path), "--target", "lather.active_g>=4", "--lock", "corn-starch")
    assert done.returncode == 0
    result = strict(done.stdout)
    assert result["status"] == "solved"
    assert {"ingredient", "before_g", "after_g"} <= result["changes"][0].keys()
    assert result["readings_after"]["lather"]["active_g"] >= 4
    assert len(result["lines"]) == 4
    impossible = run("balance", str(path), "--target", "lather.score>=99.9", "--target", "lather.active_g<=1")
    assert (impossible.returncode, strict(impossible.stdout)["status"]) == (0, "infeasible")
    for bad in (["--target", "x>=1"], ["--target", "lather.score>=60", "--bound", "slsa-fine=9..3"], []):
        refused = run("balance", str(path), *bad)
        assert refused.returncode == 2
        assert len(refused.stderr.strip().splitlines()) == 1


def test_ingredients_is_the_whole_table_as_csv() -> None:
    rows = list(csv.DictReader(io.StringIO(run("ingredients").stdout)))
    assert len(rows) == 201
    assert next(row for row in rows if row["id"] == "slsa-fine")["active_fraction"] == "0.68"


def test_a_series_is_judged_and_observations_are_learnt_from(tmp_path: Path) -> None:
    series = {"format": "rosy-kettle/test-series", "version": 1, "claim": {"reading": "cm", "better": "B", "than": "A", "worth": 0.5},
              "tests": [{"variant": name, "cm": value, "blind": True} for name, value in
                        (("A", 6.1), ("A", 6.0), ("A", 6.2), ("B", 7.0), ("B", 6.9), ("B", 7.1))]}  # fmt: skip
    (tmp_path / "s.json").write_text(json.dumps(series), encoding="utf-8")
    told = strict(run("judge-series", str(tmp_path / "s.json")).stdout)
    assert (told["answer"], told["more_tests"], told["per_variant"]["A"]["n"]) == ("yes", None, 3)
    formula = {"format": "rosy-kettle/formula", "version": 1, "name": "x", "portions": [{"name": "b", "lines": [
        {"ingredient": name, "amount": amount, "unit": "g"} for name, amount in
        (("baking-soda", "218"), ("slsa-fine", "82"), ("corn-starch", "113"), ("capb-liquid", "57"), ("glycerin", "37"))]}]}  # fmt: skip
    seen = [{"kind": "dried", "formula": formula, "hours": hours} for hours in (41, 38, 45, 40, 39)]
    seen.append({"kind": "felt", "formula": formula, "state": "gossip"})
    observations = {"format": "rosy-kettle/observations", "version": 1, "observations": seen}
    (tmp_path / "o.json").write_text(json.dumps(observations), encoding="utf-8")
    told = strict(run("learn", str(tmp_path / "o.json")).stdout)
    assert [(each["id"], each["n"], each["unit"]) for each in told["factors"]] == [("drying", 5, "×")]
    assert told["errors"][0]["after"] < told["errors"][0]["before"]
    assert [each["index"] for each in told["set_aside"]] == [5]
    for broken, sentence in (({"format": "x"}, "format"), (observations | {"observations": [{"kind": "dried"}]}, "no formula"),
                             (observations | {"observations": [seen[0] | {"hours": -1}]}, "Observation 1")):  # fmt: skip
        (tmp_path / "o.json").write_text(json.dumps(broken), encoding="utf-8")
        refused = run("learn", str(tmp_path / "o.json"))
        assert (refused.returncode, refused.stderr.count("\n")) == (2, 1)
        assert sentence in refused.stderr
    many = observations | {"observations": [seen[0]] * 3000}  # each brings its formula: some 2 MB in all
    (tmp_path / "o.json").write_text(json.dumps(many), encoding="utf-8")
    assert (tmp_path / "o.json").stat().st_size > 1_000_000
    assert strict(run("learn", str(tmp_path / "o.json")).stdout)["factors"][0]["n"] == 3000
    (tmp_path / "o.json").write_bytes(b" " * 20_000_001)
    assert "larger than 20 MB" in run("learn", str(tmp_path / "o.json")).stderr
    (tmp_path / "s.json").write_text(json.dumps(series | {"claim": {"reading": "cm"}}), encoding="utf-8")
    assert run("judge-series", str(tmp_path / "s.json")).returncode == 2


def test_grow_prints_the_counts_of_the_studio_it_made(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("ROSY_KETTLE_DATA", str(tmp_path))
    told = strict(run("grow", "--formulas", "3", "--batches", "2", "--weigh-ins", "10", "--seed", "5").stdout)
    assert (told["formulas"], told["batches"], told["weigh_ins"], told["seed"]) == (3, 2, 10, 5)
    assert run("grow", "--batches", "0", "--weigh-ins", "5").returncode == 2
