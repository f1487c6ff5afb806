"""Keeps up what the lists and the journal show, in the background, so that no request has to work it out.

A pass judges the formulas that have changed, or rest on what has, tells the journal what has happened since, and looks at the
trays on the rack, whose curves are then fitted before anyone asks. All of it can be worked out again: a kill between two steps
loses nothing, the next pass goes on.
"""

from __future__ import annotations

import logging
import threading
import time
from collections.abc import Callable
from contextlib import suppress

from sqlalchemy.exc import OperationalError

from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.store import Studio
from rosy_kettle.store.glances import count_stale
from rosy_kettle.usecases.formulas.list_formulas import judge_stale_formulas, keep_judged, rests_on
from rosy_kettle.usecases.journal.keep_journal import AT_ONCE, entries_waiting, keep_told, tell_waiting
from rosy_kettle.usecases.rack.run_rack import look_at_trays
from rosy_kettle.usecases.studio.kept_answers import KeptAnswers
from rosy_kettle.usecases.studio.skipped import Skipped
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["Keeper", "judge_formulas", "keep_up", "tell_journal"]

log = logging.getLogger(__name__)
JUDGED_AT_ONCE = 10
BREATH_SECONDS = 0.005  # between two steps, so that requests come first
LOOK_SECONDS = 2.0  # between looks for what another process has written
TRAYS_LOOKED_AT = 50
PATIENCE_SECONDS = 0.4
"""Longest a list waits for the background to come to an end [s]; what it shows then says that it is not judged yet."""


def keep_up(
    studio: Studio, stopped: Callable[[], bool] = lambda: False, breath_s: float = 0.0, skipped: Skipped | None = None
) -> None:
    """Judge and tell what is waiting, step by step, until nothing waits or it is stopped."""
    judge_formulas(studio, stopped, breath_s, skipped)
    tell_journal(studio, stopped, breath_s)


def judge_formulas(
    studio: Studio, stopped: Callable[[], bool] = lambda: False, breath_s: float = 0.0, skipped: Skipped | None = None
) -> None:
    """Judge the formulas that are waiting, some at a time, until none waits or it is stopped."""
    passed_over = skipped or Skipped()
    while not stopped() and _judge_some(studio, passed_over):
        time.sleep(breath_s)


def tell_journal(
    studio: Studio, stopped: Callable[[], bool] = lambda: False, breath_s: float = 0.0, at_once: int = AT_ONCE
) -> None:
    """Tell the journal what is waiting, so many rows of a source at a time, until none waits or it is stopped."""
    while not stopped() and _tell_some(studio, at_once):
        time.sleep(breath_s)


def formulas_waiting(studio: Studio) -> int:
    """Return how many formulas still have to be judged."""
    with studio.reading() as session:
        return count_stale(session, rests_on(studio_tables(session)))


def _judge_some(studio: Studio, skipped: Skipped) -> bool:
    with studio.reading() as session:
        judged = judge_stale_formulas(session, studio_tables(session), JUDGED_AT_ONCE, skipped)
    if judged:
        with studio.writing() as session:
            keep_judged(session, judged)
    return bool(judged)


def _tell_some(studio: Studio, at_once: int) -> bool:
    with studio.reading() as session:
        if not entries_waiting(session):
            return False
        told = tell_waiting(session, studio_tables(session), at_once)
    with studio.writing() as session:
        keep_told(session, told)
    return True


class Keeper:
    """The background of one served studio; without a thread, as in a test or a command, it works when it is asked."""

    def __init__(self, studio: Studio, answers: KeptAnswers | None = None) -> None:
        self._studio, self._answers = studio, answers
        self._news = threading.Condition()
        self._asked, self._done = 1, 0
        self._stopped = threading.Event()
        self._thread: threading.Thread | None = None
        self.skipped = Skipped()
        """What could not be read."""

    def start(self) -> None:
        """Begin to work in the background."""
        self._thread = threading.Thread(target=self._work, name="keeper", daemon=True)
        self._thread.start()

    def watch(self) -> None:
        """Start the background again where its thread has died, whatever of; asked now and then while it is served."""
        if self._thread is not None and not self._thread.is_alive() and not self._stopped.is_set():
            log.error("the background had ended; it is begun again")
            self.start()

    def stop(self) -> None:
        """Stop after the step in hand."""
        self._stopped.set()
        self.poke()
        if self._thread is not None:
            self._thread.join(timeout=10)

    def poke(self) -> None:
        """Say that something may have changed."""
        with self._news:
            self._asked += 1
            self._news.notify_all()

    def settle(self, patience_s: float = PATIENCE_SECONDS) -> None:
        """Wait until all that was asked before is kept up, or for as long as patience lasts."""
        if self._thread is None:
            keep_up(self._studio, skipped=self.skipped)
            return
        with self._news:
            asked = self._asked
            self._news.wait_for(lambda: self._done >= asked or self._stopped.is_set(), patience_s)

    def waiting(self) -> int:
        """Return how many formulas still have to be judged, while the background is at work."""
        with self._news:
            idle = self._done >= self._asked
        return 0 if idle else formulas_waiting(self._studio)

    def _look_at_rack(self) -> None:
        # What cannot be read now is said to whoever asks for the rack; here it would only have been known sooner.
        for wrapped in (False, True):
            if self._stopped.is_set():
                return
            with suppress(OperationalError, WorkbenchError), self._studio.reading() as session:
                look_at_trays(session, wrapped=wrapped, query="", before=None, limit=TRAYS_LOOKED_AT)

    def _work(self) -> None:
        kept = seen = -1
        while not self._stopped.is_set():
            with self._news:
                self._news.wait_for(lambda: self._asked > self._done or self._stopped.is_set(), LOOK_SECONDS)
                asked, idle = self._asked, self._asked == self._done
            try:
                before = self._studio.stamp()
                if idle and before == kept:
                    continue  # nobody has asked, and nobody has written
                keep_up(self._studio, self._stopped.is_set, BREATH_SECONDS, self.skipped)
                kept = before
                with self._news:
                    self._done = asked
                    self._news.notify_all()
                if (now := self._studio.stamp()) != seen and not self._stopped.is_set():
                    seen = now
                    self._look_at_rack()
                    if self._answers is not None:
                        self._answers.work_out(self._stopped.is_set)
            except (OperationalError, WorkbenchError):
                self._stopped.wait(LOOK_SECONDS)  # a full disk, a lock held for long: the next pass goes on
            except Exception:  # one odd record must not end the background for good
                log.exception("the background met something it cannot read; it goes on")
                self._stopped.wait(LOOK_SECONDS)
