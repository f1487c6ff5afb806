"""The studio a request works on."""

from __future__ import annotations

from flask import current_app

from rosy_kettle.store import Studio
from rosy_kettle.usecases.studio.keep_up import Keeper

__all__ = ["current_keeper", "current_studio"]


def current_studio() -> Studio:
    """Return the open studio of the running application."""
    studio: Studio = current_app.extensions["studio"]
    return studio


def current_keeper() -> Keeper:
    """Return what keeps up the lists of the running application."""
    keeper: Keeper = current_app.extensions["keeper"]
    return keeper
