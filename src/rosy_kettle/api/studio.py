"""The studio a request works on."""

from __future__ import annotations

import time

from flask import current_app

from rosy_kettle.store import Studio
from rosy_kettle.usecases.studio.keep_up import Keeper
from rosy_kettle.usecases.studio.kept_answers import KeptAnswers
from rosy_kettle.usecases.studio.skipped import Skipped
from rosy_kettle.usecases.studio.studio_settings import studio_settings
from rosy_kettle.usecases.studio.studio_warnings import StudioWarning, state_of_studio

__all__ = ["StandInsOf", "WarningsOf", "current_keeper", "current_studio", "kept_answers"]

KEPT_SECONDS = 60.0  # a warning changes slowly, and every first page asks for it


def current_studio() -> Studio:
    """Return the open studio of the running application."""
    studio: Studio = current_app.extensions["studio"]
    return studio


def current_keeper() -> Keeper:
    """Return what keeps up the lists of the running application."""
    keeper: Keeper = current_app.extensions["keeper"]
    return keeper


def kept_answers() -> KeptAnswers:
    """Return the answers the running application keeps until something is written."""
    kept: KeptAnswers = current_app.extensions["kept_answers"]
    return kept


class WarningsOf:
    """What is to be said of a studio, looked up anew once a minute: every page that is opened asks."""

    def __init__(self, studio: Studio, skipped: Skipped) -> None:
        self._studio, self._skipped = studio, skipped
        self._known: tuple[float, tuple[StudioWarning, ...]] = (-KEPT_SECONDS, ())

    def __call__(self) -> tuple[StudioWarning, ...]:
        """Return the warnings there are."""
        now = time.monotonic()
        if now - self._known[0] >= KEPT_SECONDS:
            self._known = (now, state_of_studio(self._studio.path).warnings)
        told = self._skipped.told()
        return (*self._known[1], StudioWarning("skipped", told)) if told else self._known[1]


class StandInsOf:
    """Whether a studio has stand-in devices, as its settings say: asked ten times a second, read after a change."""

    def __init__(self, studio: Studio) -> None:
        self._studio = studio
        self._known: tuple[int, bool] = (-1, False)

    def __call__(self) -> bool:
        """Return whether there are any."""
        stamp = self._studio.stamp()
        if self._known[0] != stamp:
            with self._studio.reading() as session:
                self._known = (stamp, studio_settings(session).stand_ins)
        return self._known[1]
