"""When the rules of labels, claims and papers fire."""

from __future__ import annotations

from rosy_kettle.core.safety.rules.facts import Facts
from rosy_kettle.core.safety.rules.fired import Fired, Predicate, when
from rosy_kettle.core.safety.rules.use import INFANT_MONTHS

__all__ = ["LABEL_RULES"]

ADULT_MONTHS = 216  # project default
WARNING_HEIGHT_IN = 1 / 16  # 21 CFR 740.2(a)
SMALL_BUSINESS_USD = 1_000_000  # FD&C Act s. 612, before inflation
BEST_BEFORE_MONTHS = 30  # Reg (EC) 1223/2009 Art 19(1)(c)
US_PARTS = ("identity", "net_inch_pound", "net_metric", "ingredients", "name_place")
EU_PAPERS = ("cpsr", "pif", "notification")
US_REGISTER = ("us_registration", "us_listing")


def _lacking(wanted: tuple[str, ...], there: tuple[str, ...]) -> Fired | None:
    missing = tuple(part for part in wanted if part not in there)
    return when(bool(missing), about=missing)


def _foam_without(part: str) -> Predicate:
    def fires(facts: Facts) -> Fired | None:
        product = facts.product
        unknown = ("intended_foam",) if product.intended_foam is None else ()
        due = facts.foams and not product.adult_only_label and part not in product.label
        return when(due, value=facts.surfactant_active_pct, unit="% active", about=(part,), unknown=unknown)

    return fires


def _adults_and_children(facts: Facts) -> Fired | None:
    product = facts.product
    young = product.youngest_user_months is not None and product.youngest_user_months < ADULT_MONTHS
    return when(
        product.adult_only_label and (product.child_appeal or young),
        value=product.youngest_user_months, limit=float(ADULT_MONTHS), unit="months",
    )  # fmt: skip


def _letters(facts: Facts) -> Fired | None:
    product, height = facts.product, facts.product.warning_height_in
    due = facts.has_surfactant and not product.adult_only_label and "caution_740_17" in product.label
    too_small = height is None or height < WARNING_HEIGHT_IN
    unknown = ("warning_height_in",) if height is None else ()
    return when(due and too_small, value=height, limit=WARNING_HEIGHT_IN, unit="in", unknown=unknown)


def _small_business(facts: Facts) -> Fired | None:
    sales = facts.product.us_avg_sales_3y_usd
    small = sales is None or sales < SMALL_BUSINESS_USD
    unknown = ("us_avg_sales_3y_usd",) if sales is None else ()
    return when(small, value=sales, limit=float(SMALL_BUSINESS_USD), unit="USD", unknown=unknown)


def _registered(facts: Facts) -> Fired | None:
    sales = facts.product.us_avg_sales_3y_usd
    if sales is None or sales < SMALL_BUSINESS_USD:
        return None
    return _lacking(US_REGISTER, facts.product.records)


def _serious_event(facts: Facts) -> Fired | None:
    days = facts.product.serious_event_open_business_days
    return when(days is not None and not facts.product.serious_event_reported, value=days, limit=15.0, unit="business days")


def _eu_label(facts: Facts) -> Fired | None:
    product = facts.product
    wanted = ["rp", "ingredients", "batch", "precautions"]
    wanted += [] if product.function_obvious else ["function"]
    wanted += [] if product.single_use else ["net_metric"]
    return _lacking(tuple(wanted), product.label)


def _dates(facts: Facts) -> Fired | None:
    product, months = facts.product, facts.product.shelf_life_months
    unknown = ("shelf_life_months",) if months is None else ()
    if months is None or months <= BEST_BEFORE_MONTHS:
        lacking = "best_before" not in product.label
        return when(
            lacking, value=months, limit=float(BEST_BEFORE_MONTHS), unit="months", about=("best_before",), unknown=unknown
        )
    due = not product.single_use and "pao" not in product.label
    return when(due, value=months, limit=float(BEST_BEFORE_MONTHS), unit="months", about=("pao",))


def _under_three(facts: Facts) -> bool:
    return facts.youngest is not None and facts.youngest < INFANT_MONTHS


LABEL_RULES: dict[str, Predicate] = {
    "US-FOAM-01": _foam_without("caution_740_17"),
    "US-FOAM-02": _foam_without("directions"),
    "US-FOAM-03": _adults_and_children,
    "US-FOAM-04": lambda f: when(f.foams and f.product.adult_only_label),
    "US-FOAM-05": lambda f: when(
        f.has_surfactant and f.product.intended_foam is False, value=f.surfactant_active_pct, unit="% active"
    ),
    "US-FOAM-06": _letters,
    "US-SAFE-01": lambda f: _lacking(("safety_substantiation",), f.product.records),
    "US-LABEL-01": lambda f: _lacking(US_PARTS, f.product.label),
    "US-LABEL-02": lambda f: _lacking(("ae_contact",), f.product.label),
    "LABEL-ORDER-01": lambda f: when(not f.ingredient_order_ok),
    "US-MOCRA-01": _small_business,
    "US-MOCRA-02": _registered,
    "US-MOCRA-03": _serious_event,
    "US-CLAIM-01": lambda f: when("soap" in f.product.claims and f.has_surfactant, about=("soap",)),
    "ANY-CLAIM-01": lambda f: when("medicinal" in f.product.claims, about=("medicinal",)),
    "EU-DOC-01": lambda f: _lacking(EU_PAPERS, f.product.records),
    "EU-LABEL-01": _eu_label,
    "EU-LABEL-02": _dates,
    "EU-FOOD-01": lambda f: when(f.product.looks_like_food and "food_imitation_assessment" not in f.product.records),
    "ANY-FOOD-01": lambda f: when(f.product.looks_like_food or "edible" in f.product.claims),
    "EU-CHILD-01": lambda f: when(
        _under_three(f) and "cpsr_under3" not in f.product.records, value=f.youngest, limit=float(INFANT_MONTHS), unit="months"
    ),
    "ANY-CHILD-01": lambda f: when(_under_three(f), value=f.youngest, limit=float(INFANT_MONTHS), unit="months"),
    "NAME-01": lambda f: when("trademark_check" not in f.product.records),
}
"""Predicates by rule id."""
