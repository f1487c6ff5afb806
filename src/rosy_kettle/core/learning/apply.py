"""The studio's accepted factors laid over the tables: the one place where what was learnt reaches the models."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from rosy_kettle.core.parameters import Parameters
from rosy_kettle.core.records import Ingredient, Tables

__all__ = ["reaches", "with_factors"]

DRYING = ("water_hours", "alcohol_hours", "glycerin_hours_per_pct", "powder_set_hours", "fat_set_hours")
"""What takes longer where all drying does."""
REACHES = {
    "demand": ("dough.", "firmness.", "drying."), "drying": ("drying.",), "foam": ("lather.",), "foam_half_life": ("lather.",),
    "firmness": ("firmness.",), "packing": (), "loss": ("cost.",),
}  # fmt: skip
"""Readings a kind of factor reaches, by how their ids begin; what a tool packs reaches the plan's pieces and no reading."""


def reaches(id_: str, reading: str) -> bool:
    """Return whether a factor moves a reading.

    Parameters
    ----------
    id_ : str
        Factor
    reading : str
        Id of the reading

    Returns
    -------
    bool
        By how the reading's id begins
    """
    return reading.startswith(REACHES.get(_kind(id_), ()))


def with_factors(tables: Tables, factors: Mapping[str, float]) -> Tables:
    """Return tables whose figures carry a studio's factors.

    Parameters
    ----------
    tables : Tables
        With the defaults
    factors : Mapping
        Factor by id [× or %]; one that names what is no longer there is passed over

    Returns
    -------
    Tables
        The same tables where no factor is given
    """
    if not factors:
        return tables
    thirst, packs, losses = (_named(kind, factors) for kind in ("demand", "packing", "loss"))
    ingredients = {id_: _thirsty(item, thirst) for id_, item in tables.ingredients.items()} if thirst else tables.ingredients
    tools = {id_: replace(tool, packs=packs[id_]) if id_ in packs else tool for id_, tool in tables.tools.items()}
    methods = {
        id_: replace(method, loss_fraction=losses[id_] / 100) if id_ in losses else method
        for id_, method in tables.methods.items()
    }
    parameters = _parameters(tables.parameters, factors)
    return replace(tables, ingredients=ingredients, tools=tools, methods=methods, parameters=parameters, learnt=dict(factors))


def _named(kind: str, factors: Mapping[str, float]) -> dict[str, float]:
    """Return the factors of a kind by the role, ingredient, tool or method they are of."""
    return {id_.partition(".")[2]: value for id_, value in factors.items() if _kind(id_) == kind}


def _kind(id_: str) -> str:
    return id_.partition(".")[0]


def _thirsty(item: Ingredient, thirst: Mapping[str, float]) -> Ingredient:
    """Return an ingredient that drinks by its own factor, or else by that of its role."""
    factor = thirst.get(item.id, thirst.get(item.role))
    if factor is None or item.liquid_demand_ml_100g is None:
        return item
    return replace(item, liquid_demand_ml_100g=item.liquid_demand_ml_100g * factor)


def _parameters(before: Parameters, factors: Mapping[str, float]) -> Parameters:
    drying, lather, firmness = before.drying, before.lather, before.firmness
    if "drying" in factors:
        drying = replace(drying, **{name: getattr(drying, name) * factors["drying"] for name in DRYING})
    if "foam" in factors:
        lather = replace(lather, litres_per_gram=lather.litres_per_gram * factors["foam"])
    if "foam_half_life" in factors:
        lather = replace(lather, half_life_min=lather.half_life_min * factors["foam_half_life"])
    if "firmness" in factors:
        firmness = replace(firmness, offset=factors["firmness"])
    return replace(before, drying=drying, lather=lather, firmness=firmness)
