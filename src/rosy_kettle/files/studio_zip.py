"""The zip of a studio: what may stand in it, its manifest, and checks before anything of it is believed."""

from __future__ import annotations

import hashlib
import json
import re
import struct
import zipfile
import zlib
from collections.abc import Iterator, Mapping
from pathlib import Path
from typing import Any

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.odd_values import odd_in

__all__ = ["StudioZip", "StudioZipWriter", "json_bytes", "open_studio_zip"]

FORMAT, VERSION = "rosy-kettle/studio", 1
MANIFEST = "manifest.json"
ALLOWED = re.compile(
    r"(formulas|batches|rack|tub-tests|labels)/[a-z0-9-]{1,40}\.json"
    r"|pantry/(ingredients|lots|movements)\.csv|(learning|settings|orders)\.json|photos/[0-9a-f]{32}\.jpg"
)
"""Names that may stand in the zip; anything else is refused, above all paths that lead out of it."""
SAME_TIME = (1980, 1, 1, 0, 0, 0)  # so that the same studio gives the same bytes
LEVEL = 1
LARGEST_FILE, LARGEST_ALL, MOST_FILES = 256_000_000, 8_000_000_000, 3_000_000  # bytes, bytes, files
STEEPEST, STEEP_FROM = 400, 5_000_000  # times a file may be smaller in the zip, and from which size that is looked at [bytes]


UNREADABLE = (zipfile.BadZipFile, zlib.error, struct.error, EOFError, OSError, RuntimeError, ValueError)
"""What Python raises on a zip whose bytes were changed."""
HALF_LETTER = re.compile(rb"\\u[dD][89a-fA-F]")
"""Where a half of a surrogate pair may stand; alone it is no letter (RFC 8259, 8.2)."""


def json_bytes(data: Any) -> bytes:
    """Return data as UTF-8 JSON, the same for the same data."""
    return (json.dumps(data, ensure_ascii=False, allow_nan=False, separators=(",", ":")) + "\n").encode()


def _refuse(name: str) -> Any:
    """Refuse NaN and the infinities: JSON has none (RFC 8259, 6)."""
    raise ValueError(name)


class StudioZipWriter:
    """Writes files one by one; the manifest with their sums comes last."""

    def __init__(self, path: Path) -> None:
        self._zip = zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED, compresslevel=LEVEL)
        self._sums: dict[str, str] = {}

    def add(self, name: str, data: bytes) -> None:
        """Write one file."""
        self._sums[name] = hashlib.sha256(data).hexdigest()
        self._write(name, data)

    def close(self, made_at: str) -> None:
        """Write the manifest and end the zip."""
        self._write(MANIFEST, json_bytes({"format": FORMAT, "version": VERSION, "made_at": made_at, "files": self._sums}))
        self._zip.close()

    def drop(self) -> None:
        """End without a manifest: what is there is no studio."""
        self._zip.close()

    def _write(self, name: str, data: bytes) -> None:
        entry = zipfile.ZipInfo(name, SAME_TIME)
        entry.compress_type, entry.external_attr = zipfile.ZIP_DEFLATED, 0o600 << 16
        self._zip.writestr(entry, data, compresslevel=LEVEL)


class StudioZip:
    """A studio zip whose names and sizes were looked at; each file is held against its sum when it is read."""

    def __init__(self, archive: zipfile.ZipFile, sums: Mapping[str, str], made_at: str) -> None:
        self._zip, self._sums, self.made_at = archive, sums, made_at
        self.reading = MANIFEST
        """The file that was read last."""

    def names(self, folder: str) -> Iterator[str]:
        """Return the names in a folder, in their order."""
        return iter(sorted(name for name in self._sums if name.startswith(f"{folder}/")))

    def has(self, name: str) -> bool:
        """Whether a file is there."""
        return name in self._sums

    def read(self, name: str) -> bytes:
        """Return one file.

        Raises
        ------
        InputError
            If it is not what the manifest says.
        """
        self.reading = name
        try:
            data = self._zip.read(name)
        except UNREADABLE as error:
            raise InputError(f"{name} in the zip cannot be read: it is damaged.", quantity="file") from error
        if hashlib.sha256(data).hexdigest() != self._sums[name]:
            raise InputError(f"{name} in the zip was changed since it was written; nothing was taken over.", quantity="file")
        return data

    def json(self, name: str) -> Any:
        """Return one file as data.

        Raises
        ------
        InputError
            If it is no JSON object.
        """
        text = self.read(name)
        try:
            data = json.loads(text, parse_constant=_refuse)
            if HALF_LETTER.search(text):
                json_bytes(data)
            odd = odd_in(data, residues=True)
        except (ValueError, RecursionError) as error:
            raise InputError(f"{name} in the zip is no JSON.", quantity="file") from error
        if not isinstance(data, dict):
            raise InputError(f"{name} in the zip is not what stands in its place.", quantity="file")
        if odd:
            raise InputError(f"{name} in the zip: {odd}; nothing was taken over.", quantity="file")
        return data

    def __len__(self) -> int:
        return len(self._sums)

    def close(self) -> None:
        """Let go of the file."""
        self._zip.close()


def open_studio_zip(path: Path) -> StudioZip:
    """Open a studio zip and look at everything but the content of its files.

    Raises
    ------
    InputError
        If it is no zip, no studio, one of a newer version, or holds what no studio has.
    """
    try:
        archive = zipfile.ZipFile(path)
    except UNREADABLE as error:
        raise InputError(f"{path.name} is no zip, or a damaged one; nothing was taken over.", quantity="file") from error
    try:
        _look_at_entries(archive)
        return _with_manifest(archive)
    except BaseException:
        archive.close()
        raise


def _look_at_entries(archive: zipfile.ZipFile) -> None:
    entries = archive.infolist()
    names = [entry.filename for entry in entries]
    if len(names) > MOST_FILES or len(set(names)) < len(names):
        raise InputError("The zip holds too many files, or two of one name; nothing was taken over.", quantity="file")
    strange = next((name for name in names if name != MANIFEST and not ALLOWED.fullmatch(name)), None)
    if strange is not None:
        raise InputError(f'The zip holds "{strange[:80]}", which no studio has; nothing was taken over.', quantity="file")
    whole = sum(entry.file_size for entry in entries)
    steep = any(e.file_size > STEEP_FROM and e.file_size > STEEPEST * max(1, e.compress_size) for e in entries)
    if whole > LARGEST_ALL or steep or any(entry.file_size > LARGEST_FILE for entry in entries):
        raise InputError("The zip unpacks to more than a studio can be; nothing was taken over.", quantity="file")


def _with_manifest(archive: zipfile.ZipFile) -> StudioZip:
    names = set(archive.namelist())
    if MANIFEST not in names:
        raise InputError("The zip has no manifest, so it is no studio, or was not written to its end.", quantity="file")
    try:
        manifest = json.loads(archive.read(MANIFEST))
        sums, made_at = dict(manifest["files"]), str(manifest.get("made_at", ""))
        kind, version = manifest["format"], manifest["version"]
    except (KeyError, TypeError, *UNREADABLE) as error:
        raise InputError("The manifest of the zip cannot be read; nothing was taken over.", quantity="file") from error
    if kind != FORMAT:
        raise InputError("The zip is no Rosy Kettle studio; nothing was taken over.", quantity="file")
    if not isinstance(version, int) or version > VERSION:
        raise InputError("The zip was written by a newer Rosy Kettle; install that version to read it.", quantity="file")
    lost = sorted(set(sums) ^ (names - {MANIFEST}))
    if lost:
        raise InputError(
            f"{lost[0]} stands in the zip or in its manifest, but not in both; nothing was taken over.", quantity="file"
        )
    return StudioZip(archive, sums, made_at)
