"""Nothing of a file is ignored in silence: what no part of its format names is told, what cannot be is refused."""

from __future__ import annotations

import copy
import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from rosy_kettle.api.schemas.batches import BatchAnswer
from rosy_kettle.files.trouble_file import RECORD_KEYS

FORMULA: dict[str, Any] = {
    "format": "rosy-kettle/formula", "version": 1, "name": "x",
    "portions": [{"name": "body", "lines": [
        {"ingredient": "baking-soda", "amount": "218", "unit": "g", "text": "t", "phase": "dry", "notes": []},
        {"ingredient": "capb-liquid", "amount": "60"},
    ]}],
}  # fmt: skip
SERIES = {
    "format": "rosy-kettle/test-series", "version": 1, "claim": {"reading": "a", "better": "B", "than": "A"},
    "tests": [{"variant": "A", "a": 1.0, "anything": "kept"}],
}  # fmt: skip
TROUBLE = {"format": "rosy-kettle/trouble", "version": 1, "symptom": "cracks", "formula": FORMULA, "answers": {"packed": "hard"}}
WEIGH_INS = {
    "format": "rosy-kettle/weigh-ins", "version": 1, "formula": None, "tare_g": 0, "weigh_ins": [{"hours": 0, "mass_g": 412.3, "pieces": 6}],
}  # fmt: skip
SEEN = {
    "format": "rosy-kettle/observations",
    "version": 1,
    "observations": [{"kind": "dried", "formula": FORMULA, "hours": 41.0}],
}
COMMANDS: dict[str, tuple[dict[str, Any], tuple[str, ...]]] = {
    "evaluate": (FORMULA, ()), "balance": (FORMULA, ("--target", "dough.saturation=0.65..0.95")), "label": (FORMULA, ("--market", "US")),
    "judge-series": (SERIES, ()), "diagnose": (TROUBLE, ()), "fit-drying": (WEIGH_INS, ()), "learn": (SEEN, ()),
}  # fmt: skip
LEFT: list[tuple[str, str, Any, list[str]]] = [
    ("evaluate", "metod", "melt", ["metod"]),
    ("evaluate", "use", {"tub_litres": 3}, ["use.tub_litres"]),
    ("evaluate", "portions.0.lines.0.ammount", "3", ["portions[0].lines[0].ammount"]),
    ("evaluate", "product", {"certificates": {"lavender-oil": {"limit_pct": 3}}}, ["product.certificates.lavender-oil"]),
    ("evaluate", "product", {"label_facts": {"identity": "Soak", "foo": 1}}, ["product.label_facts.foo"]),
    ("evaluate", "notes", ["read from text"], []),
    ("balance", "room", {"humidity": 40}, ["room.humidity"]),
    ("label", "Batch_g", 3, ["Batch_g"]),
    ("judge-series", "claim.lower_better", True, ["claim.lower_better"]),
    ("judge-series", "test", [], ["test"]),
    ("diagnose", "answers.nonsense", 1, ["answers.nonsense"]),
    ("diagnose", "answers.Packed", "hard", ["answers.Packed"]),
    ("diagnose", "formula.use", {"tub_litres": 2}, ["formula.use.tub_litres"]),
    ("diagnose", "batch", {"State": {}}, ["batch.State"]),
    ("fit-drying", "weigh_ins.0.humidity", 40, ["weigh_ins[0].humidity"]),
    ("fit-drying", "formula", {**FORMULA, "metod": "x"}, ["formula.metod"]),
    ("learn", "observations.0.temp", 3, ["observations[0].temp"]),
    ("learn", "observations.0.formula.naem", "x", ["observations[0].formula.naem"]),
]  # fmt: skip
REFUSED: list[tuple[str, str, Any, str]] = [
    ("evaluate", "room", {"humidity_pct": 900}, "humidity_pct"),
    ("evaluate", "portions.0.lines.0", {"ingredient": "baking-soda", "amount": "9", "min_g": 9, "max_g": 3}, "min_g"),
    ("evaluate", "use", {"hardness": "medium"}, "hardness"),
    ("diagnose", "answers.weeks_open", -4, "weeks_open"),
    ("diagnose", "answers.room_humidity_pct", 900, "room_humidity_pct"),
    ("diagnose", "answers.tap", "medium", "tap"),
    ("fit-drying", "tare_g", 500, "tare_g"),
    ("fit-drying", "weigh_ins.0.humidity_pct", 900, "humidity_pct"),
    ("learn", "observations.0.hours", -3, "hours"),
]  # fmt: skip


def told(command: str, path: Path, change: str, value: Any) -> subprocess.CompletedProcess[str]:
    asked = copy.deepcopy(COMMANDS[command][0])
    *parents, last = (int(part) if part.isdecimal() else part for part in change.split("."))
    place: Any = asked
    for part in parents:
        place = place[part]
    place[last] = value
    path.write_text(json.dumps(asked))
    run = [str(Path(sys.executable).with_name("rosy-kettle")), command, str(path), *COMMANDS[command][1]]
    return subprocess.run(run, capture_output=True, text=True, check=False)


@pytest.mark.parametrize(("command", "change", "value", "left"), LEFT)
def test_what_no_part_of_the_format_names_is_told(command: str, change: str, value: Any, left: list[str], tmp_path: Path) -> None:
    done = told(command, tmp_path / "file.json", change, value)
    assert done.returncode == 0, done.stderr
    assert json.loads(done.stdout)["not_understood"] == left


@pytest.mark.parametrize(("command", "change", "value", "named"), REFUSED)
def test_what_cannot_be_is_refused_by_name(command: str, change: str, value: Any, named: str, tmp_path: Path) -> None:
    done = told(command, tmp_path / "file.json", change, value)
    assert (done.returncode, done.stdout) == (2, "")
    assert named in done.stderr
    assert len(done.stderr.strip().splitlines()) == 1


def test_the_keys_of_a_record_are_those_the_studio_writes() -> None:
    assert frozenset(BatchAnswer.model_fields) == RECORD_KEYS


@pytest.mark.parametrize(("address", "more"), [
    ("/api/levers", {"reading": "dough.saturation", "low": 0.7, "high": 0.8}), ("/api/explanations", {"reading": "dough.saturation"}),
    ("/api/balances", {"targets": [{"reading": "dough.saturation", "low": 0.7, "high": 0.8}]}), ("/api/substitutes", {"position": 0}),
    ("/api/charts", {}),
])  # fmt: skip
def test_an_answer_over_http_tells_it_as_well(client: FlaskClient, address: str, more: dict[str, Any]) -> None:
    body = {"formula": {**FORMULA, "use": {"tub_litres": 3}}, "extra": 1, **more}
    assert client.post(address, json=body).get_json()["not_understood"] == ["extra", "formula.use.tub_litres"]
    whole = client.post("/api/evaluations", json=body["formula"]).get_json()
    assert whole["not_understood"] == ["use.tub_litres"]
