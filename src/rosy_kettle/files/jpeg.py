"""Whether bytes are a JPEG picture, by its structure (ITU-T T.81, annex B): nothing of it is decoded."""

from __future__ import annotations

__all__ = ["is_jpeg"]

MARK, START, END, SCAN = 0xFF, 0xD8, 0xD9, 0xDA
FRAMES = frozenset({*range(0xC0, 0xD0)} - {0xC4, 0xC8, 0xCC})
"""Markers of a frame header: where height and width stand."""
ALONE = frozenset({0x01, *range(0xD0, 0xD8)})
"""Markers without a length."""


def is_jpeg(data: bytes) -> bool:
    """Whether segment follows segment from the start of a picture to its scan, a frame with a size is among them, and it ends."""
    if data[:2] != bytes((MARK, START)) or data[-2:] != bytes((MARK, END)):
        return False
    at, framed = 2, False
    while at + 4 <= len(data):
        if data[at] != MARK:
            return False
        marker = data[at + 1]
        if marker in ALONE or marker == MARK:
            at += 1 if marker == MARK else 2
            continue
        length = int.from_bytes(data[at + 2 : at + 4], "big")
        if marker == SCAN:
            return framed
        if marker in FRAMES:
            height, width = (int.from_bytes(data[at + place : at + place + 2], "big") for place in (5, 7))
            framed = height > 0 and width > 0
        at += 2 + length
        if length < 2:  # noqa: PLR2004 - a length counts itself
            return False
    return False
