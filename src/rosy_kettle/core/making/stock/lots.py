"""Lots: drawn first expiring first, and what is to be said of one before it is used."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date

from rosy_kettle.core.errors import InputError

__all__ = ["Draw", "Lot", "LotWord", "Said", "draw_from_lots", "draws_of_line", "in_drawing_order", "words_of_lot"]

NEARLY_OUT_SHARE = 0.1  # of what was bought [-]; project default
NEARLY_EXPIRED_DAYS = 30
OPEN_LONG_DAYS = 365  # oils and scents turn after about a year in an opened bottle; common practice, no published source
NEVER = date(9999, 12, 31)


@dataclass(frozen=True, slots=True)
class Lot:
    """One purchase of one ingredient."""

    id: int
    ingredient: str
    code: str
    left_g: float
    quantity_g: float
    best_before: date | None = None
    opened_on: date | None = None
    held: str | None = None
    """Why it is held back; None where it is not."""


@dataclass(frozen=True, slots=True)
class Draw:
    """What is taken from one lot."""

    lot_id: int
    mass_g: float
    assumed: bool = True
    """Whether nobody has said that it came from this one."""


@dataclass(frozen=True, slots=True)
class Said:
    """A jar that somebody named for a line: so many grams of it, or all that no other jar is named for."""

    lot_id: int
    mass_g: float | None = None


@dataclass(frozen=True, slots=True)
class LotWord:
    """Something to be said of a lot before it is used."""

    code: str
    """held, expired, expires_soon, nearly_out, below_nothing or open_long."""
    text: str


def in_drawing_order(lots: Sequence[Lot], today: date) -> list[Lot]:
    """Return lots as they are to be used: first expiring first, those that have expired or are held last.

    Parameters
    ----------
    lots : Sequence
        Lots of one ingredient
    today : date
        The day it is

    Returns
    -------
    list of Lot
        Those without a date after those with one; older purchases before newer ones
    """
    return sorted(lots, key=lambda lot: (lot.held is not None, _expired(lot, today), lot.best_before or NEVER, lot.id))


def draw_from_lots(lots: Sequence[Lot], mass_g: float, today: date, chosen: int | None = None) -> list[Draw]:
    """Return what a mass is taken from.

    Parameters
    ----------
    lots : Sequence
        Lots of the ingredient
    mass_g : float
        What was used [g]
    today : date
        The day it was used
    chosen : int or None
        Number of the lot the maker named; it is drawn from first [-]

    Returns
    -------
    list of Draw
        Together the mass, to the last digit; where the lots do not hold it, the last one drawn from goes below nothing and has to
        be counted

    Raises
    ------
    InputError
        If the chosen lot is none of them, or the mass is below nothing.
    """
    if mass_g < 0:
        raise InputError("Less than nothing cannot be used.", quantity="mass_g", value=mass_g)
    if chosen is not None and chosen not in {lot.id for lot in lots}:
        raise InputError("That lot is none of this ingredient's.", quantity="lot", value=chosen)
    order = in_drawing_order(lots, today)
    order.sort(key=lambda lot: lot.id != chosen)
    full = [lot for lot in order if lot.left_g > 0]
    taken: list[Draw] = []
    rest_g = mass_g
    for lot in full:
        part_g = min(rest_g, lot.left_g)
        if part_g > 0:
            taken.append(Draw(lot.id, part_g))
            rest_g -= part_g
    if rest_g > 0 and order:
        last = taken[-1].lot_id if taken else order[0].id
        over = next((each.mass_g for each in taken if each.lot_id == last), 0.0)
        taken = [each for each in taken if each.lot_id != last] + [Draw(last, over + rest_g)]
    return taken


def draws_of_line(lots: Sequence[Lot], mass_g: float, today: date, said: Sequence[Said]) -> list[Draw]:
    """Return what a line was taken from: first the jars that were named, each for no more than it holds; the rest is assumed.

    Parameters
    ----------
    lots : Sequence
        Lots of the ingredient
    mass_g : float
        What was used [g]
    today : date
        The day it was used
    said : Sequence
        Jars that were named, those with a mass before the one for the rest

    Returns
    -------
    list of Draw
        Together the mass; each says whether it was named or is assumed

    Raises
    ------
    InputError
        If the mass is below nothing.
    """
    by_id = {lot.id: lot for lot in lots}
    rest_g, named = mass_g, []
    for jar in sorted((each for each in said if each.lot_id in by_id), key=lambda each: each.mass_g is None):
        holds_g = max(0.0, by_id[jar.lot_id].left_g)
        part_g = min(rest_g, holds_g, rest_g if jar.mass_g is None else jar.mass_g)
        if part_g > 0:
            named.append(Draw(jar.lot_id, part_g, assumed=False))
            by_id[jar.lot_id] = replace(by_id[jar.lot_id], left_g=holds_g - part_g)
            rest_g -= part_g
    return named + draw_from_lots(list(by_id.values()), rest_g, today) if rest_g > 0 or mass_g < 0 else named


def words_of_lot(lot: Lot, today: date) -> list[LotWord]:
    """Return what is to be said of a lot before it is used.

    Parameters
    ----------
    lot : Lot
        The lot
    today : date
        The day it is

    Returns
    -------
    list of LotWord
        Nothing where nothing stands against it
    """
    found = []
    if lot.held is not None:
        found.append(LotWord("held", f"{lot.code} is held ({lot.held}); leave it until it is released."))
    if _expired(lot, today):
        found.append(LotWord("expired", f"{lot.code} was best before {lot.best_before}; look at it, smell it, or leave it."))
    elif lot.best_before is not None and (lot.best_before - today).days <= NEARLY_EXPIRED_DAYS:
        found.append(LotWord("expires_soon", f"{lot.code} is best before {lot.best_before}."))
    if lot.left_g < 0:
        found.append(LotWord("below_nothing", f"{lot.code} stands at {lot.left_g:.1f} g: count it, more was used than came in."))
    elif lot.left_g <= NEARLY_OUT_SHARE * lot.quantity_g:
        found.append(LotWord("nearly_out", f"{lot.code} is nearly out: {lot.left_g:.0f} g."))
    if lot.opened_on is not None and (today - lot.opened_on).days > OPEN_LONG_DAYS:
        found.append(LotWord("open_long", f"{lot.code} has been open since {lot.opened_on}."))
    return found


def _expired(lot: Lot, today: date) -> bool:
    return lot.best_before is not None and lot.best_before < today
