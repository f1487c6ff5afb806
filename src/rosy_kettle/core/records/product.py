"""What the maker says of the product beside the recipe: who it is for, how it is sold, what is on file."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, fields, replace
from functools import cache
from types import MappingProxyType
from typing import Any

__all__ = [
    "BATH_CATEGORY", "BODY_CATEGORY", "CATEGORIES", "Certificate", "ColourFile", "Product", "Substance", "certificate_from_data",
    "certificate_to_data", "product_from_data", "product_to_data",
]  # fmt: skip


VANILLIN = "Vanillin"
BATH_CATEGORY, BODY_CATEGORY = "9", "5A"
"""Rinsed-off bath products, and what stays on the body; IFRA Standards, from memory."""


CATEGORIES = (
    "1", "2", "3", "4", "5A", "5B", "5C", "5D", "6", "7A", "7B", "8", "9", "10A", "10B", "11A", "11B", "12",
)  # fmt: skip
"""Product categories of the scheme; 51st Amendment, from memory. 12 is candles and the like, not for skin."""


@dataclass(frozen=True, slots=True)
class Substance:
    """A substance of a scent as the supplier's paper has it."""

    name: str
    cas: str | None
    pct: float
    """Share of the scent [%]."""


@dataclass(frozen=True, slots=True)
class Certificate:
    """A scent's certificate for one category; None is not known, and not known is never a limit."""

    limit_pct: float | None = None
    category: str | None = None
    flash_c: float | None = None
    allergens: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    """Share of the scent by name [%], from papers that gave no more than names."""
    substances: tuple[Substance, ...] = ()
    amendment: str | None = None
    dated: str | None = None
    issuer: str | None = None
    file: str | None = None
    """Name of the paper it was read from."""
    vanillin_pct: float | None = None
    asked: tuple[str, ...] = ()
    """Names on the paper that no list knows: asked, never printed."""
    other_category: str | None = None
    """Category it is for, where that is not the product's; then its limit does not count."""

    def counted_for(self, category: str, names: Mapping[str, str]) -> Certificate:
        """Return the certificate as it counts for a product of a category, its substances under the names the lists give them.

        Parameters
        ----------
        category : str
            The product's, as the scheme calls it
        names : Mapping
            Names of substances by any of their names and CAS numbers, in small letters
        """
        known, asked = self.shares(names)
        other = None if self.category in {None, category} else self.category
        limit_pct = self.limit_pct if other is None else None
        return replace(self, limit_pct=limit_pct, other_category=other, allergens=known, substances=(), asked=asked)

    def shares(self, names: Mapping[str, str]) -> tuple[dict[str, float], tuple[str, ...]]:
        """Return the known substances with their shares [%], and the names that nobody knows.

        Parameters
        ----------
        names : Mapping
            As for ``counted_for``
        """
        listed = (*(Substance(name, None, pct) for name, pct in self.allergens.items()), *self.substances)
        known: dict[str, float] = {}
        asked: list[str] = list(self.asked)
        for each in listed:
            name = names.get((each.cas or "").strip()) or names.get(each.name.strip().casefold())
            if name is None:
                asked.append(each.name)
            else:
                known[name] = known.get(name, 0.0) + each.pct
        if known and self.vanillin_pct:
            known.setdefault(VANILLIN, self.vanillin_pct)
        return known, tuple(dict.fromkeys(asked))


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

    @property
    def scent_category(self) -> str:
        """Category of the scent scheme that its certificates must be for."""
        return BODY_CATEGORY if self.leave_on_use else BATH_CATEGORY


def certificate_from_data(data: Mapping[str, Any]) -> Certificate:
    """Return a certificate from checked plain data.

    Parameters
    ----------
    data : Mapping
        Fields of ``Certificate``; what is left out is not known, and what another version said beside is left aside
    """
    known = {field.name for field in fields(Certificate)} - {"substances", "other_category", "asked"}
    told = {name: value for name, value in data.items() if name in known and value is not None}
    listed = tuple(Substance(each["name"], each.get("cas"), each["pct"]) for each in data.get("substances") or ())
    return Certificate(**told, substances=listed)


def certificate_to_data(paper: Certificate) -> dict[str, Any]:
    """Return a certificate as plain data, fit for JSON, without what is not known.

    Parameters
    ----------
    paper : Certificate
        As it was entered
    """
    told = {name: getattr(paper, name) for name in PAPER_FIELDS if getattr(paper, name) is not None}
    listed = [{"name": each.name, "cas": each.cas, "pct": each.pct} for each in paper.substances]
    return told | {"allergens": dict(paper.allergens)} | ({"substances": listed} if listed else {})


PAPER_FIELDS = ("limit_pct", "category", "flash_c", "amendment", "dated", "issuer", "file", "vanillin_pct")


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
    certificates = {name: certificate_from_data(paper) for name, paper in data.get("certificates", {}).items()}
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
    if isinstance(paper, Certificate):
        return certificate_to_data(paper)
    found = {item.name: getattr(paper, item.name) for item in fields(paper)}
    return {name: dict(value) if isinstance(value, Mapping) else value for name, value in found.items()}
