"""The one place where errors become answers: ``{code, message, details}``."""

from __future__ import annotations

import json
from typing import Any

from flask import Flask, Response, current_app, request
from pydantic import ValidationError
from sqlalchemy.exc import OperationalError
from werkzeug.exceptions import HTTPException

from rosy_kettle.core.errors import InputError, WorkbenchError
from rosy_kettle.core.odd_values import odd_in
from rosy_kettle.files.formula_file import sentence_from

__all__ = ["answer_validation_error", "register_errors"]

LARGER_REQUESTS_BYTES = {"/api/stock-imports": 20_500_000}
"""What may be sent where a file is part of the request; everywhere else a formula file and its envelope."""
STATUS = {
    "invalid_input": 422,
    "missing_data": 422,
    "not_found": 404,
    "not_read": 422,
    "conflict": 409,
    "blocked": 409,
    "took_too_long": 503,
}
BUSY = 503


def register_errors(app: Flask) -> None:
    """Answer every error in one shape."""
    app.register_error_handler(WorkbenchError, _workbench_error)
    app.register_error_handler(HTTPException, _http_error)
    app.register_error_handler(OperationalError, _database_error)
    app.register_error_handler(OverflowError, _out_of_the_calendar)
    app.register_error_handler(Exception, _our_bug)
    app.before_request(_refuse_broken_json)


def answer_validation_error(error: ValidationError) -> Response:
    """Return one sentence about the first thing wrong with a request."""
    data = request.get_json(silent=True)
    formula = data.get("formula", data) if isinstance(data, dict) else data
    return _answer(422, "invalid_input", sentence_from(error, formula), {})


def _answer(status: int, code: str, message: str, details: dict[str, Any]) -> Response:
    body = json.dumps({"code": code, "message": message, "details": details}, ensure_ascii=False, default=str)
    return Response(body, status=status, mimetype="application/json")


def _workbench_error(error: WorkbenchError) -> Response:
    return _answer(STATUS.get(error.code, 422), error.code, error.message, error.facts)


def _http_error(error: HTTPException) -> Response:
    code = (error.name or "error").lower().replace(" ", "_")
    largest = f"The request is larger than {(request.max_content_length or 0) // 1_000_000} MB."
    message = largest if error.code == 413 else (error.description or error.name)  # noqa: PLR2004
    return _answer(error.code or 500, code, message, {})


def _database_error(error: OperationalError) -> Response:
    current_app.logger.error("database: %s", error)
    return _answer(BUSY, "busy", "The studio file is busy or cannot be written; nothing was changed, try again.", {})


def _out_of_the_calendar(error: OverflowError) -> Response:
    current_app.logger.info("out of range: %s", error)
    return _answer(422, "invalid_input", "A number or a date of the request is beyond what can be kept; use a nearer one.", {})


def _our_bug(error: Exception) -> Response:
    current_app.logger.exception("unexpected error", exc_info=error)
    said = "Something went wrong on our side; nothing you typed is lost here."
    if request.method == "GET":
        said += " If it comes again, 'rosy-kettle check' names the record that cannot be read and its way out."
    return _answer(500, "internal_error", said, {})


def _refuse_broken_json() -> None:
    """Say where JSON is broken, before a model complains about a body it never got."""
    sends = request.method in {"POST", "PUT", "PATCH"}
    request.max_content_length = LARGER_REQUESTS_BYTES.get(request.path, request.max_content_length)
    if not sends or request.mimetype == "multipart/form-data" or not request.get_data(cache=True):
        return  # a photo is no JSON; whoever does not want one says so itself
    if not request.is_json:
        raise InputError("The request must be JSON: send it with content type application/json.", quantity="body")
    try:
        data = json.loads(request.get_data(), parse_constant=_refuse_constant)
    except (UnicodeDecodeError, RecursionError) as error:
        raise InputError("The request is not readable JSON in UTF-8.", quantity="body") from error
    except json.JSONDecodeError as error:
        raise InputError(
            f"The request is broken JSON at line {error.lineno}, column {error.colno}: {error.msg.lower()}.", quantity="body"
        ) from error
    except InputError:
        raise
    except ValueError as error:  # an integer of more digits than Python reads
        raise InputError("The request holds a number no formula can mean; shorten it.", quantity="body") from error
    if not isinstance(data, dict):
        raise InputError("The request must be one JSON object.", quantity="body")
    if odd := odd_in(data):
        raise InputError(f"{odd}.", quantity="body")


def _refuse_constant(name: str) -> float:
    raise InputError(f"{name} is not a number a formula can hold; enter a finite number.", quantity="body", value=name)
