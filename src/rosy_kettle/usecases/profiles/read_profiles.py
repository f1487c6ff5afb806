"""Profiles as the Desk offers them: ready-made ones, the studio's changes to them, and its own."""

from __future__ import annotations

import json
import re
from dataclasses import asdict, dataclass
from functools import cache
from importlib.resources import files
from pathlib import Path
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.change.balance.problem import numeric_readings
from rosy_kettle.core.errors import InputError
from rosy_kettle.store import Studio
from rosy_kettle.store.glances import cost_of_cheapest_third
from rosy_kettle.store.profiles import ProfileRow, list_profiles, put_profile
from rosy_kettle.usecases.each_alone import each_alone, passed_over

__all__ = ["Band", "Profile", "ProfileSettings", "current_profiles", "own_id", "read_profiles", "save_profile"]

LEDGER_PROFILES = ("adult", "family", "sensitive", "children")


@dataclass(frozen=True, slots=True)
class Band:
    """What is wanted of one reading; None is open."""

    reading: str
    low: float | None
    high: float | None


@dataclass(frozen=True, slots=True)
class ProfileSettings:
    """What a profile assumes beside its bands; None leaves it to the formula."""

    markets: tuple[str, ...] | None = None
    youngest_user_months: float | None = None
    tub_l: float | None = None
    dose_g: float | None = None
    hardness: str | None = None
    room_c: float | None = None
    humidity_pct: float | None = None


NO_SETTINGS = ProfileSettings()


@dataclass(frozen=True, slots=True)
class Profile:
    """Named target bands."""

    id: str
    name: str
    summary: str
    ledger_profile: str
    bands: tuple[Band, ...]
    ready_made: bool
    settings: ProfileSettings
    changed: bool
    """Whether a ready-made one was changed here, or it is the studio's own."""


@cache
def _ready_made() -> tuple[dict[str, Any], ...]:
    text = (files("rosy_kettle.reference") / "tables" / "profiles.json").read_text(encoding="utf-8")
    return tuple(json.loads(text))


def current_profiles(studio: Studio) -> list[Profile]:
    """Return all profiles, read anew only when something in the studio was written since."""
    stamp = studio.stamp()  # taken first: a commit between the two reads makes the profiles newer than it says, never older
    kept = _last_read.get(studio.path)
    if kept is None or kept[0] != stamp:
        with studio.reading() as session:
            kept = _last_read[studio.path] = (stamp, read_profiles(session))
    return kept[1]


_last_read: dict[Path, tuple[int, list[Profile]]] = {}


def read_profiles(session: Session) -> list[Profile]:
    """Return all profiles, ready-made ones first."""
    stored = {row.id: row for row in list_profiles(session)}
    found = []
    for data in _ready_made():
        own = stored.pop(data["id"], None)
        bands = own.bands if own else [*data["bands"], *(_cheapest_third(session) if data.get("cheapest_third") else [])]
        name, summary = (own.name, own.summary) if own else (data["name"], data["summary"])
        ledger = own.ledger_profile if own else data["ledger_profile"]
        found.append(Profile(
            data["id"], name, summary, ledger, _bands(bands), ready_made=True, settings=_settings(own), changed=own is not None,
        ))  # fmt: skip
    return found + each_alone(list(stored.values()), lambda some: [_own(row) for row in some], passed_over)


def _own(row: ProfileRow) -> Profile:
    return Profile(
        row.id, row.name, row.summary, row.ledger_profile, _bands(row.bands), ready_made=False, settings=_settings(row),
        changed=True,
    )  # fmt: skip


def save_profile(
    session: Session, profile_id: str, name: str, summary: str, ledger_profile: str, bands: list[Band],
    settings: ProfileSettings = NO_SETTINGS,
) -> None:  # fmt: skip
    """Store a profile.

    Raises
    ------
    InputError
        If a band is crossed or open at both ends, a reading is unknown, or the name is empty.
    """
    if not name.strip():
        raise InputError("A profile needs a name.", quantity="name")
    if ledger_profile not in LEDGER_PROFILES:
        raise InputError(f"The ledger knows {', '.join(LEDGER_PROFILES)}.", quantity="ledger_profile")
    known = numeric_readings()
    for band in bands:
        if band.reading not in known:
            raise InputError(f'There is no reading "{band.reading[:40]}".', quantity="reading", value=band.reading[:40])
        if band.low is None and band.high is None:
            raise InputError(f"{band.reading}: give the lower or the upper end.", quantity="band")
        if band.low is not None and band.high is not None and band.low > band.high:
            raise InputError(f"{band.reading}: the low end {band.low:g} is above the high end {band.high:g}.", quantity="band")
    rows = [{"reading": band.reading, "low": band.low, "high": band.high} for band in bands]
    assumed = {name: value for name, value in asdict(settings).items() if value is not None}
    put_profile(session, ProfileRow(
        id=profile_id, name=name.strip(), summary=summary, ledger_profile=ledger_profile, bands=rows, settings=assumed,
    ))  # fmt: skip


def own_id(session: Session, name: str) -> str:
    """Return an id that no profile has yet."""
    stem = "own-" + (re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:40] or "profile")
    taken = {profile.id for profile in read_profiles(session)}
    number, found = 1, stem
    while found in taken:
        number += 1
        found = f"{stem}-{number}"
    return found


def _cheapest_third(session: Session) -> list[dict[str, Any]]:
    """Find the cost of a piece that the cheapest third of the studio's formulas keep under."""
    cost = cost_of_cheapest_third(session)
    return [] if cost is None else [{"reading": "cost.piece", "low": None, "high": float(cost)}]


def _settings(row: ProfileRow | None) -> ProfileSettings:
    if row is None:
        return NO_SETTINGS
    kept: dict[str, Any] = {name: tuple(value) if isinstance(value, list) else value for name, value in row.settings.items()}
    return ProfileSettings(**kept)


def _bands(rows: list[dict[str, Any]]) -> tuple[Band, ...]:
    return tuple(Band(row["reading"], row["low"], row["high"]) for row in rows)
