"""What the background could not read: named, and tried again once it has changed."""

from __future__ import annotations

import threading
from collections.abc import Mapping

__all__ = ["Skipped"]


class Skipped:
    """Records that were passed over, each with how it stood then."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._marks: dict[tuple[str, int], object] = {}

    def note(self, noun: str, number: int, mark: object) -> None:
        """Pass a record over for as long as it stands as it does."""
        with self._lock:
            self._marks[noun, number] = mark

    def still(self, noun: str, now: Mapping[int, object]) -> set[int]:
        """Return the numbers of a noun that stand as they did when passed over; of the others nothing is said any more."""
        with self._lock:
            for of, number in list(self._marks):
                if of == noun and now.get(number) != self._marks[of, number]:
                    del self._marks[of, number]
            return {number for of, number in self._marks if of == noun}

    def told(self) -> str:
        """Return one quiet sentence of what is passed over now; "" where nothing is."""
        with self._lock:
            names = [f"{noun} {number}" for noun, number in sorted(self._marks)]
        if not names:
            return ""
        more = f" and {len(names) - 5} more" if len(names) > 5 else ""  # noqa: PLR2004 - a line on a page
        return f"Passed over, for it cannot be read: {', '.join(names[:5])}{more}. It is tried again when it changes."
