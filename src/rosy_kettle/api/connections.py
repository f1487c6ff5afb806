"""Connections to the served studio: how many one client may hold, how large a request may be, what becomes of one left alone."""

from __future__ import annotations

from contextlib import suppress
from typing import Any

from waitress.channel import ClientDisconnected, HTTPChannel
from waitress.parser import HTTPRequestParser
from waitress.utilities import RequestEntityTooLarge

from rosy_kettle.api.backups import LARGEST_ZIP_BYTES
from rosy_kettle.api.workers import changes_the_studio

__all__ = ["LARGEST_ZIP_BODY_BYTES", "Connection"]

MOST_OF_ONE_CLIENT = 300  # connections of one address; the one that was idle longest makes room
LARGEST_BODY_BYTES = 21_000_000  # a photo and its envelope; more is cut off, not read
LARGEST_ZIP_BODY_BYTES = LARGEST_ZIP_BYTES + 1_000_000  # where a whole studio comes in
ZIP_PATH = "/api/studio.zip"


class _Parser(HTTPRequestParser):  # type: ignore[misc]
    """A request that is cut off, not read, where it brings more than its address takes."""

    error: Any

    def received(self, data: bytes) -> int:
        consumed = int(super().received(data))
        if self.error or not self.headers_finished:  # a head that cannot be read has no address either
            return consumed
        most = LARGEST_ZIP_BODY_BYTES if self.path == ZIP_PATH else LARGEST_BODY_BYTES
        if max(self.content_length, self.body_bytes_received) > most:
            self.error = RequestEntityTooLarge(f"More than {most} bytes.")
            self.completed = True
        return consumed


class Connection(HTTPChannel):  # type: ignore[misc]
    """A connection that makes room for itself when its client holds too many, and keeps what a client sent before it left."""

    parser_class = _Parser

    def __init__(self, *args: Any, **options: Any) -> None:
        super().__init__(*args, **options)
        client = self.addr[0]
        mates = [each for each in self.server.active_channels.values() if each is not self and each.addr[0] == client]
        if len(mates) >= MOST_OF_ONE_CLIENT:
            idle = [each for each in mates if not each.requests and not each.will_close]
            min(idle, key=lambda each: each.last_activity, default=self).will_close = True

    def service(self) -> None:
        """Work on the next request; a change that came whole is made even if its client hung up before its turn."""
        request = self.requests[0]
        if not self.connected and not request.error and changes_the_studio(request.command, request.path):
            with suppress(ClientDisconnected):  # raised when the answer is written: by then the change is made
                self.task_class(self, request).service()
        super().service()
