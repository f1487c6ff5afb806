"""The errors this product raises on purpose.

WorkbenchError
├── InputError        a value nobody can mean                    (also a ValueError)
├── MissingDataError  an ingredient lacks a property             (also a LookupError)
├── NotFoundError     nothing under that id                      (also a LookupError)
├── NotReadError      a stored record of another version          (also a LookupError)
├── ConflictError     stored data forbid it
└── TookTooLongError  the work did not end within its time       (also a TimeoutError)

Anything else that escapes is a bug.
"""

from __future__ import annotations

__all__ = [
    "ConflictError",
    "InputError",
    "MissingDataError",
    "NotFoundError",
    "NotReadError",
    "StoppedError",
    "TookTooLongError",
    "WorkbenchError",
]


class WorkbenchError(Exception):
    """Base of all errors with a message meant for the maker."""

    code = "workbench_error"

    def __init__(self, message: str, **facts: object) -> None:
        super().__init__(message)
        self.message = message
        self.facts = facts


class InputError(WorkbenchError, ValueError):
    """A value nobody can mean. Facts: ``quantity``, ``value``, ``rule``."""

    code = "invalid_input"


class StoppedError(InputError):
    """Whoever asked has changed their mind; nothing was left behind."""


class MissingDataError(WorkbenchError, LookupError):
    """An ingredient lacks a property that a reading needs. Facts: ``ingredient``, ``property``."""

    code = "missing_data"


class NotFoundError(WorkbenchError, LookupError):
    """Nothing is stored under that id. Facts: ``noun``, ``id``."""

    code = "not_found"


class NotReadError(WorkbenchError, LookupError):
    """A stored record that this version cannot read, of another one or of another hand. Facts: ``noun``, ``id``."""

    code = "not_read"


class ConflictError(WorkbenchError):
    """What is stored forbids the request. Facts: ``noun``, ``reason``."""

    code = "conflict"


class BlockedError(ConflictError):
    """The rules hold it back. Facts: ``blocks``, ``missing``: what does, as plain records."""

    code = "blocked"


class TookTooLongError(WorkbenchError, TimeoutError):
    """The work did not end within its time limit."""

    code = "took_too_long"
