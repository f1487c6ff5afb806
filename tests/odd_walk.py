"""Asks every write route of the API's own description with every odd value in every place, from bodies that are sound otherwise.

The bodies are made of the description: each field its own figure by name, by limits or by the words that are allowed, each event
one of its kinds. A new route, field or event is walked without a line here, unless its figures have to belong together.
"""

from __future__ import annotations

import copy
import json
import random
import uuid
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from urllib.parse import quote
from zipfile import ZipFile

from flask.testing import FlaskClient

from rosy_kettle.store import Studio, open_studio
from rosy_kettle.usecases.studio.exchange.export_studio import export_studio
from rosy_kettle.usecases.studio.exchange.import_studio import import_studio

Body = dict[str, Any]
ODD_NUMBERS = (
    "5e-324",
    "-5e-324",
    "1e309",
    "-1e309",
    "-0.0",
    "1e300",
    "1e16",
    "NaN",
    "1e-9",
    "0",
    "-1",
    "9007199254740993",
    "1" * 400,
)
ODD_TEXTS = (
    '"\\ud800"', '"a\\udfff"', '"a\\u0000b"', '""', '" "', '"' + "x" * 100_000 + '"', '"=1+1"', '"\\u202e\\u0007"', '"Ł🛁"', '"../.."',
    '"9999-12-31"', '"0001-01-01"', '"9999-12-31T23:59:59Z"', '"0001-01-01T00:00:00+14:00"', '"2026-05-04T09:30:00+23:59"',
    '"2026-05-04T09:30:00"', '"Infinity"', '"1e999"', '"-0"', '"١٢"',
)  # fmt: skip
ODD_OTHERS = ("null", "true", "[]", "{}", "[[[]]]", '{"a":1e309}', '{"\\ud800":1}', '["\\u0000"]')
ODD = ODD_NUMBERS + ODD_TEXTS + ODD_OTHERS
LEFT_OUT = frozenset({
    ("post", "/api/backups/{name}/restore"), ("delete", "/api/studio"), ("post", "/api/studio.zip"), ("post", "/api/backups"),
})  # fmt: skip
"""Routes that put another studio in the place of this one, or fill the disk; they have walks of their own."""
NOW = datetime.now(UTC).replace(microsecond=0)
BY_NAME: Body = {
    "formula_id": 2, "batch_id": 2, "test_id": 2, "tray_id": 2, "ingredient": "baking-soda", "wetter": "glycerin", "based_on": "baking-soda",
    "format": "rosy-kettle/formula", "version": 1, "method": "betaine-dough", "amount": "100", "unit": "g", "tool": "cube-40",
    "currency": "USD", "price": "12.50", "price_per_kg": "4.20", "from_kg": "5", "per_usd": "0.9", "fee": "5", "free_from": "50",
    "on": "2026-05-04", "bought_on": "2026-05-04", "best_before": "2027-05-04", "opened_on": "2026-06-04", "dry_at": NOW.isoformat(),
    "at": (NOW - timedelta(hours=1)).isoformat(), "set_out_at": (NOW - timedelta(hours=9)).isoformat(), "made_at": NOW.isoformat(),
    "due_at": (NOW + timedelta(days=6)).isoformat(), "starts_at": (NOW + timedelta(days=2)).isoformat(), "place": "rack",
    "ready_by": (NOW + timedelta(days=5)).isoformat(), "start_at": (NOW + timedelta(days=1)).isoformat(), "line": 0, "portion": 0,
    "to": (NOW + timedelta(days=1)).isoformat(), "zone": "Europe/London", "reading": "lather.score", "better": "A", "than": "B",
    "languages": ["en"], "confirmed_languages": ["pl"], "category": "9", "dated": "2026-03-01", "cas": "78-70-6", "symptom": "cracks", "scenario": "first-scoop", "content": "bmFtZSxxdWFudGl0eSBnCmdseWNlcmluLDUwMAo=", "hardness": "hard",
    "date_order": "day-month-year", "step": "prepare", "check": "edge", "task": "turn", "state": "damp sand", "launch_date": "2026-05-04",
    "today": "2026-05-04", "seconds": 0.0, "market": "US", "tare_g": 0.0, "identity": "Bubble bar", "net_g": 90.0, "code": "C-1",
    "labour_per_hour": "12", "labour_minutes": "30", "fixed_minutes": "10", "overhead_pct": "10", "packaging_per_piece": "0.2",
    "price_per_piece": "4", "phase": "dry", "pieces": 4, "count": 1, "trial": 1, "width_mm": 106.0, "height_mm": 106.0, "position": 0, "rolls_at_g": 30.0,
    "smears_at_g": 50.0, "mass_g": 400.0, "max_g": 500.0, "min_g": 1.0, "word": "damp sand", "bounds_g": {}, "from_h": 9, "to_h": 17,
    "columns": 1, "rows": 1,
}  # fmt: skip
"""What a field holds that has to mean something, by its name."""
SOUND: dict[str, Body] = {
    "/api/trial-designs": {"trials": 8, "bounds": [
        {"ingredient": name, "low_pct": 5.0, "high_pct": 60.0} for name in ("baking-soda", "cream-of-tartar")
    ]},
    "/api/test-series": {
        "formula_ids": [1, 3], "claim": {"reading": "foam_height_cm", "better": "B", "than": "A", "worth": 0.5, "lower_is_better": False},
    },
    "/api/labels": {"batch_id": None, "draft": True}, "/api/labels/drawing": {"batch_id": None},
    "/api/rack": {"batch_id": None}, "/api/tub-tests": {"batch_id": None}, "/api/troubles": {"test_id": None, "tray_id": None, "batch_id": None},
    "/api/stock-imports": {"columns": None, "meanings": {}}, "/api/orders/{order_id}": {"free": False, "starts_at": None, "state": "open"},
    "/api/batches": {"ready_by": None, "schools": {}, "mass_g": None, "capacity_g": None},
    "/api/formulas/{formula_id}/plans": {"ready_by": None, "schools": {}, "mass_g": None, "capacity_g": None},
    "/api/settings": {"rooms": [], "tools": [{"id": "own-tool", "name": "Spoon", "type": "scoop", "volume_ml": 30.0}]},
    "/api/ingredients": {"properties": {"us_cup_g": 200.0}}, "/api/ingredients/{ingredient_id}": {"properties": {"us_cup_g": 200.0}},
    "/api/lots/{lot_id}/state": {"state": "held"}, "/api/complaints": {"kind": "skin", "batch_id": None},
    "/api/batches/{batch_id}/clearances": {"state": "signed"},
    "/api/pairing/claims": {"code": "12345678"}, "/api/troubles/{trouble_id}/outcome": {"cause": None},
}  # fmt: skip
"""Figures of one body that have to belong together."""
OF_PARTS = {
    "batch_id": ("/api/batches?limit=1", "batches"), "tray_id": ("/api/rack?limit=1", "items"), "test_id": ("/api/tub-tests?limit=1", "items"),
    "label_id": ("/api/labels?limit=1", "items"), "run_id": ("/api/practice-runs?limit=1", "items"), "lot_id": ("/api/lots?limit=1", "items"),
    "design_id": ("/api/trial-designs?limit=1", "items"), "series_id": ("/api/test-series?limit=1", "items"),
    "trouble_id": ("/api/troubles?limit=1", "items"), "order_id": ("/api/orders?limit=1", "items"), "formula_id": ("/api/formulas?limit=1", "formulas"),
}  # fmt: skip
"""List whose newest row is meant by a part of an address, and the name its rows stand under."""
NAMED_PARTS = {
    "ingredient_id": "fragrance-oil-generic", "tool_id": "cube-40", "factor": "firmness", "place": "rack", "profile_id": "own", "key": "import-1",
    "phrase": "x",
}  # fmt: skip


@dataclass
class Walk:
    """What was asked, and what went wrong."""

    asked: int = 0
    refused: int = 0
    taken: int = 0
    wrong: list[str] = field(default_factory=list)
    sound: dict[str, str] = field(default_factory=dict)
    """What was said to the sound body, by route and event; "" where it was taken."""


def walk(client: FlaskClient, requests: int, seed: int) -> Walk:
    """Ask so many times, the same for the same seed."""
    chance, found = random.Random(seed), Walk()
    routes = list(write_routes(client))
    for method, path, bodies in routes:
        for body in bodies:
            found.sound[f"{method} {path} {body.get('event', {}).get('kind', '') if body else ''}".strip()] = _ask(
                client, found, method, path, body, None, ""
            )
    while found.asked < requests:
        method, path, bodies = chance.choice(routes)
        body = chance.choice(bodies)
        places = list(_places(body))
        where = chance.choice(places) if places and chance.random() < 0.97 else None
        _ask(client, found, method, path, body, where, chance.choice(ODD))
    return found


def write_routes(client: FlaskClient) -> Iterator[tuple[str, str, list[Body]]]:
    """Yield method, path and sound bodies of every route that writes or works on what it is sent."""
    document = client.get("/api/openapi.json").json
    for path, methods in document["paths"].items():
        for method, said in methods.items():
            if method == "get" or (method, path) in LEFT_OUT:
                continue
            content = said.get("requestBody", {}).get("content", {})
            schema = content.get("application/json", {}).get("schema")
            yield (
                method,
                path,
                [{}] if schema is None else _bodies(schema, document["components"]["schemas"], SOUND.get(path, {})),
            )


def _bodies(schema: Body, known: Body, sound: Body) -> list[Body]:
    """Return a sound body, one for each kind of event where it brings one."""
    whole = _example(schema, known, "")
    kinds = _kinds(schema, known)
    return [{**whole, **sound, "event": each, "id": None} for each in kinds] if kinds else [{**whole, **sound}]


def _kinds(schema: Body, known: Body) -> list[Body]:
    event = _resolved(schema, known).get("properties", {}).get("event", {})
    return [_example(each, known, "event") | {"id": None} for each in event.get("oneOf", ())]


def _resolved(schema: Body, known: Body) -> Body:
    while "$ref" in schema:
        schema = known[schema["$ref"].rpartition("/")[2]]
    return schema


def _example(schema: Body, known: Body, name: str) -> Any:
    """Return a value of a schema that means something."""
    schema = _resolved(schema, known)
    if "const" in schema:
        return schema["const"]
    if name in BY_NAME:
        return BY_NAME[name]
    if "enum" in schema:
        return schema["enum"][0]
    several = schema.get("anyOf") or schema.get("oneOf")
    if several:
        return _example(next(each for each in several if each.get("type") != "null"), known, name)
    if "properties" in schema:
        return {key: _example(each, known, key) for key, each in schema["properties"].items()}
    kind = schema.get("type")
    if kind == "object":
        free = schema.get("additionalProperties")
        return {"glycerin": _example(free, known, "")} if isinstance(free, dict) else {}
    if kind == "array":
        items = schema.get("items") or (schema.get("prefixItems") or [{}])[0]
        return [_example(items, known, name)] * max(1, schema.get("minItems", 1))
    if kind in {"number", "integer"}:
        return _between(schema, whole=kind == "integer")
    return {"boolean": False, "string": "A word"}.get(kind or "")


def _between(schema: Body, *, whole: bool) -> float:
    """Return a figure within its limits, near the lower one."""
    low = schema.get("minimum", schema.get("exclusiveMinimum", 0))
    high = schema.get("maximum", schema.get("exclusiveMaximum", low + 100))
    value = low + min(20, (high - low) / 2)
    return int(value) if whole else float(value)


def _places(body: Any, at: tuple[str | int, ...] = ()) -> Iterator[tuple[str | int, ...]]:
    """Yield every place of a body, the inner ones and those that hold them."""
    inner = body.items() if isinstance(body, dict) else enumerate(body) if isinstance(body, list) else ()
    for key, value in inner:
        yield (*at, key)
        yield from _places(value, (*at, key))


def _ask(
    client: FlaskClient, found: Walk, method: str, path: str, body: Body, where: tuple[str | int, ...] | None, odd: str
) -> str:
    """Ask once, with an odd value in one place or, without one, in the address."""
    address, named = path, copy.deepcopy(body)
    for part in _parts(path):
        said = quote(json.loads(odd) if where is None and odd.startswith('"') and "\\ud" not in odd else _number_of(client, part))
        address = address.replace(f"{{{part}}}", said[:300])
    if "after" in named:
        state = _state(client, address)
        named |= {"after": int(state.get("seq") or 0), "id": str(uuid.uuid4())}
        if "step" in named.get("event", {}) and state.get("steps"):
            named["event"]["step"] = state["steps"][min(state["current"], len(state["steps"]) - 1)]["key"]
    mark = f"odd-{uuid.uuid4().hex}"
    if where is not None:
        holder: Any = named
        for key in where[:-1]:
            holder = holder[key]
        holder[where[-1]] = mark
    if "key" in named and named["key"] != mark:
        named["key"] = uuid.uuid4().hex
    text = json.dumps(named).replace(f'"{mark}"', odd)
    answer = client.open(
        address, method=method.upper(), data=text if named else None, content_type="application/json" if named else None
    )
    found.asked += 1
    found.refused += answer.status_code >= 400
    found.taken += answer.status_code < 300
    if answer.status_code >= 500 and answer.status_code != 503:
        found.wrong.append(f"{method} {address[:80]} {'.'.join(map(str, where or ()))} = {odd[:40]}: {answer.status_code}")
    answer.close()
    return "" if answer.status_code < 300 else f"{answer.status_code} {answer.text[:200]}"


def _parts(path: str) -> list[str]:
    return [each.partition("}")[0] for each in path.split("{")[1:]]


def _number_of(client: FlaskClient, part: str) -> str:
    """Return what a part of an address is: the newest of its kind where there are some."""
    if part in OF_PARTS:
        address, items = OF_PARTS[part]
        rows = client.get(address).json[items]
        return str(rows[0]["id"]) if rows else "1"
    return NAMED_PARTS.get(part, "1")


def _state(client: FlaskClient, address: str) -> Body:
    """Return where that stands to which an event happens; where a batch is closed, another is begun for the next time."""
    page = client.get(address.rsplit("/", 1)[0])
    state = ((page.json or {}) if page.is_json else {}).get("state")
    state = state if isinstance(state, dict) else {}
    if address.startswith("/api/batches/") and state.get("closed_at"):
        client.post("/api/batches", json={"formula_id": 2, "wishes": [{"pieces": 4}]})
    return dict(state)


def read_all(client: FlaskClient) -> list[str]:
    """Read every page of the description with the first numbers there are, and return those that fail."""
    wrong = []
    for path, methods in client.get("/api/openapi.json").json["paths"].items():
        if "get" not in methods or "stream" in path or path == "/api/backups/{name}":
            continue
        address = path
        for part in _parts(path):
            address = address.replace(f"{{{part}}}", _number_of(client, part))
        with client.get(address) as answer:
            if answer.status_code >= 500:
                wrong.append(f"get {address}: {answer.status_code}")
    return wrong


def came_back(studio: Studio, folder: Path) -> list[str]:
    """Return the files of the studio's zip that are not the same after they were taken into an empty studio and written again."""
    export_studio(studio, folder / "out.zip")
    with closing(open_studio(folder / "again")) as again:
        import_studio(again, folder / "out.zip", merge=False)
        export_studio(again, folder / "back.zip")
    with ZipFile(folder / "out.zip") as out, ZipFile(folder / "back.zip") as back:
        names = (set(out.namelist()) | set(back.namelist())) - {"manifest.json"}
        both = set(out.namelist()) & set(back.namelist())
        return sorted(name for name in names if name not in both or out.read(name) != back.read(name))
