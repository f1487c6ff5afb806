"""A stand-in for a label printer: what it is given it writes down as PDF and keeps."""

from __future__ import annotations

from pathlib import Path
from typing import Protocol

__all__ = ["LabelPrinter", "SimulatedPrinter"]


class LabelPrinter(Protocol):
    """What a real printer has to do."""

    def take(self, job: str, pages: bytes) -> None:
        """Print pages [PDF] under the name of their job.

        Raises
        ------
        OSError
            If they cannot be printed.
        """
        ...


class SimulatedPrinter:
    """Prints into a folder beside the studio."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder

    def take(self, job: str, pages: bytes) -> None:
        """Write the pages down under the name of their job, over an earlier try of the same."""
        self.folder.mkdir(exist_ok=True, mode=0o700)
        waiting = self.folder / f".{job}.waiting"
        waiting.write_bytes(pages)
        waiting.chmod(0o600)
        waiting.replace(self.folder / f"{job}.pdf")
