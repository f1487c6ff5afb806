"""The studio a request works on."""

from __future__ import annotations

from flask import current_app

from rosy_kettle.store import Studio

__all__ = ["current_studio"]


def current_studio() -> Studio:
    """Return the open studio of the running application."""
    studio: Studio = current_app.extensions["studio"]
    return studio
