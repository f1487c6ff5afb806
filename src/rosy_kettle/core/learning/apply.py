"""The studio's accepted factors laid over the tables: the one place where what was learnt reaches the models."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from rosy_kettle.core.parameters import Parameters
from rosy_kettle.core.records import Ingredient, Tables

__all__ = ["can_be_used", "reaches", "with_factors"]

DRYING = ("water_hours", "alcohol_hours", "glycerin_hours_per_pct", "powder_set_hours", "fat_set_hours")
"""What takes longer where all drying does."""
REACHES = {
    "demand": ("dough.", "firmness.", "drying."), "drying": ("drying.",), "foam": ("lather.",), "foam_half_life": ("lather.",),
    "loss": ("cost.",),
}  # fmt: skip
"""Readings a kind of factor reaches, by how their ids begin."""


def can_be_used(id_: str) -> bool:
    """Return whether a factor reaches the models.

    Parameters
    ----------
    id_ : str
        Factor, such as drying or demand.starch

    Returns
    -------
    bool
        Firmness and packing are shown, and not used yet
    """
    return _kind(id_) in REACHES


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
    return reading.startswith(REACHES.get(_kind(id_), ("nothing",)))


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
    by_role = {id_.partition(".")[2]: value for id_, value in factors.items() if _kind(id_) == "demand"}
    ingredients = {id_: _thirsty(item, by_role) for id_, item in tables.ingredients.items()} if by_role else tables.ingredients
    losses = {id_.partition(".")[2]: value / 100 for id_, value in factors.items() if _kind(id_) == "loss"}
    methods = {
        id_: replace(method, loss_fraction=losses[id_]) if id_ in losses else method for id_, method in tables.methods.items()
    }
    return replace(
        tables, ingredients=ingredients, methods=methods, parameters=_parameters(tables.parameters, factors), learnt=dict(factors)
    )


def _kind(id_: str) -> str:
    return id_.partition(".")[0]


def _thirsty(item: Ingredient, by_role: Mapping[str, float]) -> Ingredient:
    if item.role not in by_role or item.liquid_demand_ml_100g is None:
        return item
    return replace(item, liquid_demand_ml_100g=item.liquid_demand_ml_100g * by_role[item.role])


def _parameters(before: Parameters, factors: Mapping[str, float]) -> Parameters:
    drying, lather = before.drying, before.lather
    if "drying" in factors:
        drying = replace(drying, **{name: getattr(drying, name) * factors["drying"] for name in DRYING})
    if "foam" in factors:
        lather = replace(lather, litres_per_gram=lather.litres_per_gram * factors["foam"])
    if "foam_half_life" in factors:
        lather = replace(lather, half_life_min=lather.half_life_min * factors["foam_half_life"])
    return replace(before, drying=drying, lather=lather)
