"""The ingredient list in the order of a market."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from rosy_kettle.core.records.evaluation import DeclaredName
from rosy_kettle.core.safety.label.composition import NamedPart

__all__ = ["declare"]

ONE_PERCENT = 1.0  # 21 CFR 701.3(f): at most; Reg (EC) 1223/2009 Art 19(1)(g): below [%]
LEAST_LEFT_SHARE = 1e-6  # what has dried off to less than this is not there any more [-]
US_NAMES = {
    "Aqua": "Water",
    "Parfum": "Fragrance",
    "Maris Sal": "Sea Salt",
    "Mel": "Honey",
    "Cera Alba (Beeswax)": "Beeswax",
    "Paraffinum Liquidum": "Mineral Oil",
}
"""Names as a US list gives them; 21 CFR 701.3(a), (c) and common practice."""
ESTIMATED = "estimated, ask the supplier"
INCIDENTAL = frozenset({"Isopropyl Alcohol"})  # dried off, it is no ingredient: 21 CFR 701.3(l); Art 19(1)(g)


def declare(
    parts: Sequence[NamedPart], market: str, colour_names: Mapping[str, str], allergens: Iterable[str] = ()
) -> tuple[DeclaredName, ...]:
    """Return the ingredient list of a market.

    Parameters
    ----------
    parts : Sequence
        Named parts of the formula [g]
    market : str
        US, EU or UK
    colour_names : Mapping
        Common name of a colour by its CI name, for the US
    allergens : Iterable
        Fragrance allergens to be named (EU, UK)

    Returns
    -------
    tuple
        Above 1 % heaviest first, then the rest, then allergens, then colours

    Notes
    -----
    The US order is that of the finished product, with what dried off taken out; the EU and UK order is that of the
    masses as added. Alcohol that has left stands in neither. At exactly 1 % the US lets a name go to the minor ones,
    the EU and UK do not.
    """
    us = market == "US"
    masses, notes, is_colour = _summed(parts, finished=us)
    whole = sum(masses.values())
    if whole <= 0:
        return ()
    named = [_declared(name, 100 * mass / whole, notes[name], us=us, colour=is_colour[name]) for name, mass in masses.items()]
    named.sort(key=lambda each: (each.colour, each.below_one_percent, -each.share_pct, each.name))
    plain = [each for each in named if not each.colour]
    own = {each.name for each in plain}
    extra = [
        DeclaredName(name, 0.0, below_one_percent=True, colour=False, note="in the scent")
        for name in allergens
        if name not in own
    ]
    if not us:
        plain += extra
    colours = [_colour(each, colour_names, us=us) for each in named if each.colour]
    return (*plain, *colours)


def _summed(parts: Sequence[NamedPart], *, finished: bool) -> tuple[dict[str, float], dict[str, str], dict[str, bool]]:
    masses: dict[str, float] = {}
    notes: dict[str, str] = {}
    colour: dict[str, bool] = {}
    added = sum(part.mass_g for part in parts)
    for part in parts:
        left = part.mass_g - part.leaves_g
        if left <= LEAST_LEFT_SHARE * added and part.leaves_g > 0 and (finished or part.name in INCIDENTAL):
            continue
        masses[part.name] = masses.get(part.name, 0.0) + (left if finished else part.mass_g)
        notes[part.name] = ESTIMATED if part.estimated else notes.get(part.name, "")
        colour[part.name] = colour.get(part.name, False) or part.colour
    return masses, notes, colour


def _declared(name: str, share_pct: float, note: str, *, us: bool, colour: bool) -> DeclaredName:
    minor = share_pct <= ONE_PERCENT if us else share_pct < ONE_PERCENT
    return DeclaredName(US_NAMES.get(name, name) if us else name, share_pct, minor, colour, note)


def _colour(each: DeclaredName, colour_names: Mapping[str, str], *, us: bool) -> DeclaredName:
    """Name a colour: in the US by its common name with the CI number behind, elsewhere by the CI number."""
    if us:
        common = colour_names.get(each.name)
        name = f"{common} ({each.name})" if common and common != each.name else each.name
    else:
        name = next((number for number, common in colour_names.items() if common == each.name), each.name)
    return DeclaredName(name, each.share_pct, each.below_one_percent, each.colour, each.note)
