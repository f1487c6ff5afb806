"""What the maker says of the product beside the recipe: who it is for, how it is sold, what is on file."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, fields
from functools import cache
from types import MappingProxyType
from typing import Any

__all__ = ["Certificate", "ColourFile", "Product", "product_from_data", "product_to_data"]


@dataclass(frozen=True, slots=True)
class Certificate:
    """A scent's certificate for one category; None is not known, and not known is never a limit."""

    limit_pct: float | None = None
    category: str | None = None
    flash_c: float | None = None
    allergens: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    """Share of the scent by allergen name [%]."""


@dataclass(frozen=True, slots=True)
class ColourFile:
    """What is on file for a colour."""

    grade: str | None = None
    us_lot: str | None = None


@dataclass(frozen=True, slots=True)
class Product:
    """Flags, papers and batch-sheet facts that rules ask for; None is not known."""

    markets: tuple[str, ...] = ("US",)
    profile: str = "adult"
    """adult, family, sensitive or children: whose limits the ledger takes."""
    youngest_user_months: float | None = None
    adult_only_label: bool = False
    intended_foam: bool | None = None
    child_appeal: bool = False
    looks_like_food: bool = False
    leave_on_use: bool = False
    multi_use: bool = False
    single_use: bool = False
    function_obvious: bool = False
    pack: str = "single_wrap"
    allergen_mode: str | None = None
    """rinse_off or leave_on; None takes leave_on for truffles and melts."""
    claims: tuple[str, ...] = ()
    label: tuple[str, ...] = ()
    records: tuple[str, ...] = ()
    certificates: Mapping[str, Certificate] = field(default_factory=lambda: MappingProxyType({}))
    colours: Mapping[str, ColourFile] = field(default_factory=lambda: MappingProxyType({}))
    declared_allergens: tuple[str, ...] = ()
    ingredient_order_ok: bool | None = None
    """None: the list made here is used, and is in order."""
    warning_height_in: float | None = None
    us_avg_sales_3y_usd: float | None = None
    serious_event_open_business_days: float | None = None
    serious_event_reported: bool = False
    launch_date: str | None = None
    today: str | None = None
    product_ph: float | None = None
    aw: float | None = None
    shelf_life_months: float | None = None
    min_raw_shelf_months: float | None = None
    heat_step_before_dry: bool = False
    room_m3: float | None = None
    max_melt_temp_c: float | None = None
    uses_microwave: bool = False
    fragrance_add_temp_c: float | None = None
    sealed_container: bool = False
    dryness_confirmed: bool = False
    dry_temp_c: float | None = None
    cleaning_agents: tuple[str, ...] = ()


def product_from_data(data: Mapping[str, Any]) -> Product:
    """Return a product from checked plain data.

    Parameters
    ----------
    data : Mapping
        Fields of ``Product``; what is left out takes its default

    Returns
    -------
    Product
        Lists as tuples, papers as records
    """
    known = {field.name for field in fields(Product)}
    values: dict[str, Any] = {
        name: tuple(value) if isinstance(value, list) else value for name, value in data.items() if name in known
    }
    certificates = {name: Certificate(**paper) for name, paper in data.get("certificates", {}).items()}
    colours = {name: ColourFile(**paper) for name, paper in data.get("colours", {}).items()}
    return Product(**(values | {"certificates": certificates, "colours": colours}))


def product_to_data(product: Product) -> dict[str, Any]:
    """Return a product as plain data, defaults left out.

    Parameters
    ----------
    product : Product
        What the maker says

    Returns
    -------
    dict
        Fit for JSON; ``product_from_data`` reads it back
    """
    data = _as_data(product)
    return {name: value for name, value in data.items() if value != _usual_data()[name]}


def _as_data(product: Product) -> dict[str, Any]:
    data = {item.name: getattr(product, item.name) for item in fields(Product)}
    papers = {name: {id_: _plain(paper) for id_, paper in data[name].items()} for name in ("certificates", "colours")}
    return {name: list(value) if isinstance(value, tuple) else value for name, value in data.items()} | papers


@cache
def _usual_data() -> dict[str, Any]:
    return _as_data(Product())


def _plain(paper: Certificate | ColourFile) -> dict[str, Any]:
    found = {item.name: getattr(paper, item.name) for item in fields(paper)}
    return {name: dict(value) if isinstance(value, Mapping) else value for name, value in found.items()}
