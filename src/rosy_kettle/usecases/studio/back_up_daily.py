"""A backup a day as long as the studio is served."""

from __future__ import annotations

import threading
from collections.abc import Callable
from datetime import UTC, datetime

from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.store import Studio
from rosy_kettle.store.backups import backup_folder, is_due, list_backups, make_backup

__all__ = ["back_up_daily", "back_up_if_due"]

LOOK_SECONDS = 600.0
FIRST_LOOK_SECONDS = 60.0  # the start is left to whoever has just opened a page


def back_up_if_due(studio: Studio, now: datetime) -> bool:
    """Make the day's backup where it is due; return whether it was."""
    if not is_due(list_backups(backup_folder(studio.path)), now):
        return False
    make_backup(studio, by_hand=False)
    return True


def back_up_daily(studio: Studio, stopped: threading.Event, say: Callable[[str], None]) -> None:
    """Look every ten minutes whether a backup is due, until stopped; one that fails is said and tried again."""
    wait = FIRST_LOOK_SECONDS
    while not stopped.wait(wait):
        wait = LOOK_SECONDS
        try:
            back_up_if_due(studio, datetime.now(UTC))
        except WorkbenchError as error:
            say(f"No backup was made: {error.message}")
        except Exception as error:  # noqa: BLE001 - whatever it was, tomorrow's backup must be tried
            say(f"No backup was made: {type(error).__name__}: {error}")
