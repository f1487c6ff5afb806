"""From ingredients to named substances: supplied mixtures taken apart as far as they are known."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from rosy_kettle.core.records import ColourListing, Ingredient
from rosy_kettle.core.words.in_names import words_of

__all__ = ["EVAPORATES", "NamedPart", "composition"]

EVAPORATES = 0.9  # share of the free water that leaves a piece [-]; common practice
WATER = "Aqua"
MOSTLY_WATER = 0.95  # a liquid with more water than this dries like water, under whatever name [-]


@dataclass(frozen=True, slots=True)
class NamedPart:
    """One name of one ingredient, with the mass it brings and the mass that dries off."""

    name: str
    ingredient: str
    mass_g: float
    leaves_g: float
    colour: bool
    estimated: bool
    """Whether the split of a supplied mixture was guessed."""
    lake: bool = False
    """Whether a colour is there as its lake."""


def composition(
    items: Iterable[tuple[Ingredient, float]], colours: Mapping[str, ColourListing], *, stays_wet: bool = False
) -> list[NamedPart]:
    """Return the named parts of a formula.

    Parameters
    ----------
    items : Iterable
        Ingredients with their masses [g]
    colours : Mapping
        Listed colours by name
    stays_wet : bool
        Whether it is kept as a dough, so that its water stays in it

    Returns
    -------
    list
        Parts in the order of the lines [g]; a line without mass has none

    Notes
    -----
    Where the split of a supplied blend is known it is taken; else a mixture's water share goes to Aqua and its active
    share to the first surfactant; the rest is split evenly over
    the other names in their listed order and marked as estimated.
    """
    parts: list[NamedPart] = []
    for item, mass_g in items:
        if mass_g <= 0:
            continue
        for name, share, estimated in _shares(item):
            leaves = 0.0 if stays_wet and _is_water(item, name) else _leaving(item, name, share) * mass_g
            lake = "lake" in words_of(item.name)
            parts.append(NamedPart(name, item.id, share * mass_g, leaves, _is_colour(item, name, colours), estimated, lake))
    return parts


def _shares(item: Ingredient) -> list[tuple[str, float, bool]]:
    if item.inci_shares:
        return [(name, share, False) for name, share in item.inci_shares]
    if ", " not in item.inci:
        return [(item.inci or item.name, 1.0, False)]
    names = [name.strip() for name in item.inci.split(", ") if name.strip()]
    known: dict[str, float] = {}
    if WATER in names and item.water_fraction is not None:
        known[WATER] = item.water_fraction
    first = next((name for name in names if name != WATER), None)
    if item.role == "surfactant" and item.active_fraction is not None and first is not None:
        known[first] = min(item.active_fraction, 1 - sum(known.values()))
    rest = [name for name in names if name not in known]
    if not rest:
        # Water and actives leave a little over, salts and the like, that no name is given for.
        return [(name, share, False) for name, share in known.items()]
    even = max(0.0, 1 - sum(known.values())) / len(rest)
    return [(name, known.get(name, even), name not in known and len(rest) > 1) for name in names]


def _is_water(item: Ingredient, name: str) -> bool:
    return name == WATER or (item.water_fraction or 0.0) > MOSTLY_WATER


def _leaving(item: Ingredient, name: str, share: float) -> float:
    """Share of the ingredient that dries off under this name."""
    if item.role == "binder":
        return share * (EVAPORATES if _is_water(item, name) else 1.0)
    return share * EVAPORATES if name == WATER and item.form in {"liquid", "paste"} else 0.0


def _is_colour(item: Ingredient, name: str, colours: Mapping[str, ColourListing]) -> bool:
    return name.startswith("CI ") or (item.role == "colorant" and name in colours)
