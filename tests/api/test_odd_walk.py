"""Every write route of the description with every odd value, then every page, a studio zip, and the same studio out of it again."""

from __future__ import annotations

from pathlib import Path

from flask_openapi3 import OpenAPI

from rosy_kettle.api import put_studio
from rosy_kettle.store import Studio
from tests.odd_walk import came_back, read_all, walk, write_routes

REQUESTS = 700
"""About twenty seconds; `make prove` asks twenty thousand times."""


def test_no_odd_value_breaks_a_page_or_the_studio_zip(app: OpenAPI, demo_studio: Studio, tmp_path: Path) -> None:
    put_studio(app, demo_studio)
    client = app.test_client()
    found = walk(client, REQUESTS, seed=27)
    assert found.wrong == []
    assert found.refused > REQUESTS / 2, "most odd values are refused"
    assert found.taken > REQUESTS / 20, "and most routes are reached"
    assert read_all(client) == []
    assert came_back(demo_studio, tmp_path) == []


def test_most_bodies_of_the_walk_are_sound(app: OpenAPI, demo_studio: Studio) -> None:
    """A body that is refused for something else says nothing of the odd value in it."""
    put_studio(app, demo_studio)
    client = app.test_client()
    found = walk(client, 0, seed=1)
    ours = {name: said for name, said in found.sound.items() if "practice-runs/{run_id}" not in name}
    refused = sorted(name for name, said in ours.items() if said)
    assert len(refused) < len(ours) / 4, refused
    for route in ("post /api/labels", "put /api/settings", "put /api/moulds/{tool_id}", "post /api/test-series", "post /api/trial-designs",
                  "post /api/stock-imports", "post /api/formulas/{formula_id}/versions", "put /api/ingredients/{ingredient_id}/certificate"):  # fmt: skip
        assert found.sound[route] == "", route
    assert len(list(write_routes(client))) > 60
