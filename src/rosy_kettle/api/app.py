"""The Flask application."""

from __future__ import annotations

from collections.abc import Collection
from pathlib import Path
from typing import Any

from flask import Response, request, send_from_directory
from flask_openapi3 import Info, OpenAPI
from werkzeug.exceptions import NotFound

from rosy_kettle.api import (
    backups,
    batch_papers,
    batches,
    changes,
    clearances,
    complaints,
    devices,
    errors,
    evaluations,
    formulas,
    ingredients,
    journal,
    labels,
    learning,
    lots,
    measurements,
    money,
    moulds,
    orders,
    pairing,
    photos,
    practice_runs,
    profiles,
    rack,
    reference,
    settings,
    shopping_list,
    stock_imports,
    test_series,
    trial_designs,
    troubles,
    tub_tests,
)
from rosy_kettle.api.doors import LOOPBACK_HOSTS, content_security, page_nonce, register_doors
from rosy_kettle.api.guests import Guests, refuse_strangers_alone, register_guests
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.common import ErrorAnswer
from rosy_kettle.api.studio import StandInsOf, WarningsOf, current_keeper
from rosy_kettle.api.transfer import Transfer
from rosy_kettle.api.workers import changes_the_studio, register_workers
from rosy_kettle.devices import BenchDevices
from rosy_kettle.devices.label_printer import SimulatedPrinter
from rosy_kettle.store import Studio
from rosy_kettle.usecases.learning.learner import Learner
from rosy_kettle.usecases.studio.keep_up import Keeper
from rosy_kettle.usecases.studio.kept_answers import KeptAnswers
from rosy_kettle.usecases.studio.version import VERSION

__all__ = ["create_app", "openapi_document", "put_studio"]

STATIC = Path(__file__).parent / "static"
LARGEST_REQUEST_BYTES = 1_100_000  # a formula file of 1 MB and its envelope
NONCE_MARK = "__NONCE__"
"""Stands in the built page where the nonce of each answer goes."""
CACHE_FOR_GOOD = "public, max-age=31536000, immutable"


PARTS = (
    reference, evaluations, changes, money, labels, formulas, batches, batch_papers, photos, rack, tub_tests, test_series,
    learning, trial_designs, measurements, journal, devices, profiles, ingredients, lots, stock_imports, orders,
    clearances, complaints, shopping_list, settings, moulds, backups, troubles, practice_runs, pairing,
)  # fmt: skip


def create_app(
    studio: Studio,
    bench: BenchDevices | None = None,
    hosts: Collection[str] = LOOPBACK_HOSTS,
    *,
    any_address: bool = False,
    lan: bool = False,
) -> OpenAPI:
    """Return the application for an open studio, with the devices of its bench and the names it answers under."""
    app = OpenAPI(
        __name__,
        info=Info(title="Rosy Kettle", version=VERSION),
        doc_ui=False,
        static_folder=None,
        validation_error_model=ErrorAnswer,
        validation_error_callback=errors.answer_validation_error,
    )
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_REQUEST_BYTES
    put_studio(app, studio, bench)
    app.url_map.merge_slashes = False  # a redirect would hand back what was asked for
    app.url_map.strict_slashes = False
    register_doors(app, hosts, any_address=any_address)
    if lan:
        app.extensions["guests"] = Guests(studio)
        register_guests(app, app.extensions["guests"])
    elif not any_address:
        refuse_strangers_alone(app)  # also what a proxy on this machine passes on: nobody would be asked who they are
    register_workers(app)
    errors.register_errors(app)
    for part in PARTS:
        app.register_api(part.blueprint)
    app.add_url_rule("/api/openapi.json", view_func=_description, endpoint="openapi_json")
    app.add_url_rule("/pair", view_func=pairing.pair_page, endpoint="pair_page")
    app.add_url_rule("/pair.js", view_func=pairing.pair_script, endpoint="pair_script")
    app.add_url_rule("/", view_func=_page, endpoint="page")
    app.add_url_rule("/assets/<path:name>", view_func=_asset, endpoint="asset")
    # Addresses of the pages are answered from here, because a catch-all route would turn every 405 into a page.
    app.register_error_handler(NotFound, _not_found)
    app.after_request(_secure)
    app.after_request(_keep_up)
    return app


def put_studio(app: OpenAPI, studio: Studio, bench: BenchDevices | None = None) -> None:
    """Let an application answer for a studio, with helpers of its own and the devices of its bench."""
    app.extensions["studio"] = studio
    app.extensions["kept_answers"] = KeptAnswers(studio)
    app.extensions["keeper"] = Keeper(studio, app.extensions["kept_answers"])
    app.extensions["learner"] = Learner(studio, app.extensions["keeper"].skipped)
    devices = bench or BenchDevices()
    if devices.stands_in is None:
        devices.stands_in = StandInsOf(studio)
    app.extensions["devices"] = devices
    app.extensions["warnings"] = WarningsOf(studio, app.extensions["keeper"].skipped)
    app.extensions["transfer"] = Transfer()
    app.extensions["list_transfer"] = Transfer()
    app.extensions["label_printer"] = SimulatedPrinter(studio.path.parent / "printed")


def openapi_document(app: OpenAPI) -> dict[str, Any]:
    """Return the API's own description."""
    document: dict[str, Any] = dict(app.api_doc)
    components = document.get("components", {})
    if components.get("securitySchemes") is None:
        components.pop("securitySchemes", None)
    return document


def _description() -> Response:
    return Response((Path(__file__).parent / "openapi.json").read_bytes(), mimetype="application/json")


def _page() -> Response:
    if not (STATIC / "index.html").exists():
        return Response("The pages are not built yet; run 'make setup'.", 503, mimetype="text/plain")
    page = (STATIC / "index.html").read_text(encoding="utf-8").replace(NONCE_MARK, page_nonce())
    return Response(page, mimetype="text/html", headers={"Cache-Control": "no-store"})


def _asset(name: str) -> Response:
    response = send_from_directory(STATIC / "assets", name)
    response.headers["Cache-Control"] = CACHE_FOR_GOOD  # names carry a hash of their content
    return response


def _not_found(error: NotFound) -> Response:
    asks_for_page = request.method in {"GET", "HEAD"} and not request.path.startswith(("/api/", "/assets/"))
    if asks_for_page:
        return _page()
    return respond(ErrorAnswer(code="not_found", message=f"There is nothing at {request.path}.", details={}), error.code or 404)


def _keep_up(response: Response) -> Response:
    if changes_the_studio(request.method, request.path):
        current_keeper().poke()
    return response


def _secure(response: Response) -> Response:
    response.headers.setdefault("Content-Security-Policy", content_security())
    response.headers.setdefault("X-Content-Type-Options", "nosniff")
    response.headers.setdefault("Referrer-Policy", "no-referrer")
    response.headers.setdefault("Cross-Origin-Resource-Policy", "same-origin")
    response.headers.setdefault("Cross-Origin-Opener-Policy", "same-origin")
    return response
