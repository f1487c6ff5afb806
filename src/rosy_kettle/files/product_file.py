"""The product in a formula file: markets, ages, papers, what is on the label."""

from __future__ import annotations

import re
from datetime import date
from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from rosy_kettle.core.records.product import CATEGORIES
from rosy_kettle.files.shape import Celsius, Name, NotNegative, Percent, Positive, Shape

__all__ = ["CertificateFile", "ColourPaperFile", "ProductFile"]


def _day(text: str) -> str:
    if not 2000 <= date.fromisoformat(text).year < 2200:  # noqa: PLR2004 - as everywhere: nearer than that a day can be meant
        raise ValueError("a day lies between 2000 and 2200")
    return text


IsoDate = Annotated[str, Field(pattern=r"^\d{4}-\d{2}-\d{2}$"), AfterValidator(_day)]
Ph = Annotated[float, Field(ge=0, le=14, allow_inf_nan=False)]


def _cas(text: str) -> str:
    if re.fullmatch(r"\d{2,7}-\d{2}-\d", text.strip()) is None:
        raise ValueError("a CAS number is written like 78-70-6")
    return text.strip()


Cas = Annotated[str, Field(max_length=40), AfterValidator(_cas)]


class SubstanceFile(Shape):
    """A substance of a scent, by its name or CAS number."""

    name: Name
    cas: Cas | None = None
    pct: Percent


def _category(text: str) -> str:
    plain = re.sub(r"^\s*(ifra\s+)?(category|cat\.?|class)\s*", "", text, flags=re.IGNORECASE).strip().upper()
    if plain not in CATEGORIES:
        raise ValueError(f"the categories of the scheme are {', '.join(CATEGORIES)}")
    return plain


Category = Annotated[str, Field(max_length=120), AfterValidator(_category)]


class CertificateFile(Shape):
    """A scent's certificate and allergen sheet, which are one thing; null is not known."""

    limit_pct: Percent | None = None
    category: Category | None = None
    amendment: Name | None = None
    dated: IsoDate | None = None
    issuer: Name | None = None
    file: Name | None = None
    vanillin_pct: Percent | None = None
    substances: Annotated[list[SubstanceFile], Field(max_length=400)] = []
    flash_c: Annotated[float, Field(ge=-60, le=400, allow_inf_nan=False)] | None = None
    allergens: dict[Name, Percent] = {}


class ColourPaperFile(Shape):
    """What is on file for a colour."""

    grade: Literal["cosmetic", "food", "candle", "craft", "unknown"] | None = None
    us_lot: Name | None = None


class ProductFile(Shape):
    """Flags, papers and batch-sheet facts that the rules ask for; null is not known."""

    markets: list[Literal["US", "EU", "UK"]] = ["US"]
    profile: Literal["adult", "family", "sensitive", "children"] = "adult"
    youngest_user_months: Annotated[float, Field(ge=0, le=1440, allow_inf_nan=False)] | None = None
    adult_only_label: bool = False
    intended_foam: bool | None = None
    child_appeal: bool = False
    looks_like_food: bool = False
    leave_on_use: bool = False
    multi_use: bool = False
    single_use: bool = False
    function_obvious: bool = False
    pack: Name = "single_wrap"
    allergen_mode: Literal["rinse_off", "leave_on"] | None = None
    claims: list[Name] = []
    label: list[Name] = []
    records: list[Name] = []
    certificates: dict[Name, CertificateFile] = {}
    colours: dict[Name, ColourPaperFile] = {}
    declared_allergens: list[Name] = []
    ingredient_order_ok: bool | None = None
    warning_height_in: NotNegative | None = None
    us_avg_sales_3y_usd: NotNegative | None = None
    serious_event_open_business_days: NotNegative | None = None
    serious_event_reported: bool = False
    launch_date: IsoDate | None = None
    today: IsoDate | None = None
    product_ph: Ph | None = None
    aw: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] | None = None
    shelf_life_months: NotNegative | None = None
    min_raw_shelf_months: NotNegative | None = None
    heat_step_before_dry: bool = False
    room_m3: Positive | None = None
    max_melt_temp_c: Celsius | None = None
    uses_microwave: bool = False
    fragrance_add_temp_c: Celsius | None = None
    sealed_container: bool = False
    dryness_confirmed: bool = False
    dry_temp_c: Celsius | None = None
    cleaning_agents: list[Name] = []
