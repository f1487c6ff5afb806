"""What the maker has said of the studio, with what is usual where nothing was said."""

from __future__ import annotations

from dataclasses import asdict, dataclass, field, fields
from decimal import Decimal
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.making.stock.packs import Delivery
from rosy_kettle.core.records import REFERENCE_CURRENCY, USUAL_TOLERANCE, USUAL_TUBS, OwnTool, Rate, Room, Tolerance, Tub
from rosy_kettle.files.typed import refuse_untyped
from rosy_kettle.store.settings import read_settings, write_settings

__all__ = ["OpenHours", "StudioSettings", "change_settings", "not_understood", "settings_from", "studio_settings"]

USUAL_WEEK = tuple((9, 17) if day < 5 else (0, 0) for day in range(7))  # noqa: PLR2004 - Monday to Friday


@dataclass(frozen=True, slots=True)
class OpenHours:
    """When hands may work on a day of the week; from and to alike is closed [h, local]."""

    from_h: int
    to_h: int


@dataclass(frozen=True, slots=True)
class StudioSettings:
    """Maker, markets, units, money, hours and hands, and what stands in the workshop."""

    maker: str = ""
    place: str = ""
    contact: str = ""
    markets: tuple[str, ...] = ("US",)
    mass_unit: str = "g"
    temperature_unit: str = "°C"
    volume_unit: str = "mL"
    decimal_sign: str = "."
    currency: str = REFERENCE_CURRENCY
    rates: tuple[Rate, ...] = ()
    """What a US dollar costs in other currencies, typed by hand; no service is asked."""
    deliveries: tuple[Delivery, ...] = ()
    """What suppliers ask for delivery."""
    paper: str = "A4"
    """A4 or Letter, for whatever is printed."""
    hands: int = 1
    bowls: int = 1
    week: tuple[OpenHours, ...] = field(default_factory=lambda: tuple(OpenHours(*day) for day in USUAL_WEEK))
    """From Monday to Sunday."""
    zone: str = ""
    """By whose clock these hours are, as the IANA database names it; empty is that of the device that asks."""
    tubs: tuple[Tub, ...] = USUAL_TUBS
    tools: tuple[OwnTool, ...] = ()
    """Scoops, moulds and presses beside those of the reference."""
    spray_ml: float | None = None
    """One stroke of the studio's sprayer [mL]; None is as usual."""
    tolerance: Tolerance = USUAL_TOLERANCE
    """How closely is weighed at the bench."""
    rooms: tuple[Room, ...] = ()
    """The workshop's air from January to December; empty where nobody has said."""
    stand_ins: bool = False
    """Whether stand-in devices lie on the bench, to try it without a scale; what they show nobody measured."""


def studio_settings(session: Session) -> StudioSettings:
    """Return the settings; what nobody has said, or this version does not understand, is usual."""
    kept = read_settings(session)
    strange = not_understood(kept)
    return settings_from({name: said for name, said in kept.items() if name not in strange})


def not_understood(kept: dict[str, Any]) -> tuple[str, ...]:
    """Return the names of what another version said of the studio and this one cannot read, in their order.

    Every setting is looked at by itself: one that is strange takes no other with it.
    """
    if _understood(kept):
        return ()
    return tuple(name for name, said in kept.items() if not _understood({name: said}))


def _understood(kept: dict[str, Any]) -> bool:
    try:
        refuse_untyped(StudioSettings, asdict(settings_from(kept)))
    except (LookupError, TypeError, ValueError, ArithmeticError, AttributeError):
        return False
    return True


def settings_from(kept: dict[str, Any]) -> StudioSettings:
    """Return settings from what was kept.

    Raises
    ------
    LookupError, TypeError, ArithmeticError
        If they are no settings of this version.
    """
    said = dict(kept)
    if "week" in said:
        said["week"] = tuple(OpenHours(**day) for day in said["week"])
        if len(said["week"]) != len(USUAL_WEEK):
            raise LookupError("a week has seven days")
    if "rates" in said:
        said["rates"] = tuple(Rate(each["currency"], Decimal(each["per_usd"]), each["on"]) for each in said["rates"])
    if "deliveries" in said:
        said["deliveries"] = tuple(_delivery(each) for each in said["deliveries"])
    for name, kind in (("tubs", Tub), ("tools", OwnTool), ("rooms", Room)):
        if name in said:
            said[name] = tuple(kind(**each) for each in said[name])
    if "tolerance" in said:
        said["tolerance"] = Tolerance(**said["tolerance"])
    if "markets" in said:
        said["markets"] = tuple(said["markets"])
    return StudioSettings(**said)


def _delivery(said: dict[str, Any]) -> Delivery:
    free_from = said["free_from"]
    return Delivery(
        said["supplier"], Decimal(said["fee"]), None if free_from is None else Decimal(free_from), said["currency"]
    )  # fmt: skip


def change_settings(session: Session, settings: StudioSettings) -> None:
    """Keep settings; settings of another version, of names unknown to this one, stay beside them."""
    known = {each.name for each in fields(StudioSettings)}
    others = {name: said for name, said in read_settings(session).items() if name not in known}
    said = asdict(settings)
    said["rates"] = [{**each, "per_usd": str(each["per_usd"])} for each in said["rates"]]
    for each in said["deliveries"]:
        each["fee"] = str(each["fee"])
        each["free_from"] = None if each["free_from"] is None else str(each["free_from"])
    write_settings(session, {**others, **said})
