"""When the rules of skin, bench, keeping and shelf fire."""

from __future__ import annotations

from rosy_kettle.core.safety.rules.facts import Facts
from rosy_kettle.core.safety.rules.fired import Fired, Predicate, when
from rosy_kettle.core.words.label_languages import FOOD_TAGS

__all__ = ["FOOD_ALLERGENS", "USE_RULES"]

BATH_PH = (5.0, 9.0)  # project default
SLS_LIKE_PCT = 1.0  # CIR 1983, prolonged contact
INFANT_MONTHS, CHILD_MONTHS = 36, 120  # project defaults
STRONG_OILS = frozenset({"menthol_oil", "cineole_oil", "camphor_oil", "methyl_salicylate_oil"})
SENSITISERS = frozenset({"capb", "alkyl_glucoside", "olefin_sulfonate"})
FOOD_ALLERGENS = frozenset(FOOD_TAGS)
ANIMAL_ALLERGENS = frozenset({"bee", "lanolin"})
FRESH = frozenset({"fresh_food", "liquid_milk", "honey_raw", "fresh_botanical"})
OIL_G_PER_BATH = 1.0  # essential oil, project default
SLIPPERY_PCT, SALTY_PCT, WET_PCT, UNSATURATED_PCT = 5.0, 20.0, 5.0, 2.0  # project defaults
PPM_M3_PER_G = 406.8  # ppm of isopropyl alcohol from a gram in a cubic metre at 25 °C; ideal gas
PPM_LIMIT = 400.0  # 29 CFR 1910.1000 Table Z-1, 8-h average
HOT_FAT_C = 60.0  # Moritz and Henriques 1947
SODA_DECAYS_C = 50.0  # from memory
MOULD_AW = 0.70  # project default below ISO 29621's 0.75


def _bath_ph(facts: Facts) -> Fired | None:
    ph = facts.bath_ph_est
    if ph is None:
        return None
    return when(not BATH_PH[0] <= ph <= BATH_PH[1], value=ph, limit=BATH_PH[1] if ph > BATH_PH[1] else BATH_PH[0], unit="pH")


def _strong_oils(low: float, high: float) -> Predicate:
    def fires(facts: Facts) -> Fired | None:
        young = facts.youngest is not None and low <= facts.youngest < high
        return when(
            young and bool(facts.tags & STRONG_OILS), value=facts.youngest, limit=high, unit="months",
            about=tuple(sorted(facts.tags & STRONG_OILS)),
        )  # fmt: skip

    return fires


def _much_oil(facts: Facts) -> Fired | None:
    grams = facts.eo_g_per_bath
    much = grams is not None and grams > OIL_G_PER_BATH
    return when(much or "pregnancy_caution_oil" in facts.tags, value=grams, limit=OIL_G_PER_BATH, unit="g per bath")


def _vapour(facts: Facts) -> Fired | None:
    if facts.flammable_solvent_g <= 0:
        return None
    room = facts.product.room_m3
    if room is None:
        return Fired(None, PPM_LIMIT, "ppm", unknown=("room_m3",))
    ppm = PPM_M3_PER_G * facts.flammable_solvent_g / room
    return when(ppm > PPM_LIMIT, value=ppm, limit=PPM_LIMIT, unit="ppm")


def _hot(facts: Facts) -> Fired | None:
    hot = facts.max_melt_temp_c is not None and facts.max_melt_temp_c > HOT_FAT_C
    return when(hot or facts.product.uses_microwave, value=facts.max_melt_temp_c, limit=HOT_FAT_C, unit="°C")


def _flash(facts: Facts) -> Fired | None:
    at_c = facts.fragrance_add_temp_c
    if at_c is None:
        return None
    near = [scent for scent in facts.fragrance if scent.flash_c is None or at_c >= scent.flash_c]
    unknown = tuple(f"flash point of {scent.id}" for scent in near if scent.flash_c is None)
    known = [scent.flash_c for scent in near if scent.flash_c is not None]
    return when(
        bool(near), value=at_c, limit=min(known, default=None), unit="°C", about=tuple(s.id for s in near), unknown=unknown
    )


def _sealed(facts: Facts) -> Fired | None:
    damp = facts.product.sealed_container and not facts.product.dryness_confirmed
    return when({"bicarbonate", "acid"} <= facts.tags and damp)


def _warm_drying(facts: Facts) -> Fired | None:
    at_c = facts.product.dry_temp_c
    hot = at_c is not None and at_c > SODA_DECAYS_C
    return when("bicarbonate" in facts.tags and hot, value=at_c, limit=SODA_DECAYS_C, unit="°C")


def _bleach(facts: Facts) -> Fired | None:
    meets = "acid" in facts.tags or facts.flammable_solvent_g > 0
    return when("chlorine_bleach" in facts.product.cleaning_agents and meets)


def _mould(facts: Facts) -> Fired | None:
    aw = facts.product.aw
    if facts.preservatives or "aw_or_challenge_test" in facts.product.records:
        return None
    if aw is not None:
        return when(aw > MOULD_AW, value=aw, limit=MOULD_AW, unit="water activity")
    return when(facts.free_water_pct > WET_PCT, value=facts.free_water_pct, limit=WET_PCT, unit="%", unknown=("aw",))


def _idle_preservative(facts: Facts) -> Fired | None:
    ph = facts.product.product_ph
    idle = [item for item in facts.preservatives if item.ph_max is not None and (ph is None or ph > item.ph_max)]
    unknown = ("product_ph",) if ph is None else ()
    limit = min((item.ph_max for item in idle if item.ph_max is not None), default=None)
    return when(bool(idle), value=ph, limit=limit, unit="pH", about=tuple(item.name for item in idle), unknown=unknown)


def _wetted_again(facts: Facts) -> Fired | None:
    return when(facts.product.multi_use and facts.product.pack in {"open_jar_scoop", "bar_kept_in_bathroom"})


def _shelf_life(facts: Facts) -> Fired | None:
    claimed, raw = facts.product.shelf_life_months, facts.product.min_raw_shelf_months
    if raw is not None and claimed is not None and claimed > raw:
        return Fired(claimed, raw, "months")
    turns = facts.unsaturated_oil_pct >= UNSATURATED_PCT and "antioxidant" not in facts.tags
    return when(turns, value=facts.unsaturated_oil_pct, limit=UNSATURATED_PCT, unit="%")


def _sensitisers(facts: Facts) -> Fired | None:
    found = tuple(sorted(facts.tags & SENSITISERS))
    return when(bool(found) and "surfactant_impurity_spec" not in facts.product.records, about=found)


def _food_allergens(facts: Facts) -> Fired | None:
    found = tuple(sorted(facts.tags & FOOD_ALLERGENS))
    return when(bool(found), about=found)


USE_RULES: dict[str, Predicate] = {
    "SKIN-PH-01": _bath_ph,
    "SKIN-SURF-01": lambda f: when(f.sls_like_pct > SLS_LIKE_PCT, value=f.sls_like_pct, limit=SLS_LIKE_PCT, unit="%"),
    "SKIN-SENS-01": _sensitisers,
    "SKIN-EO-01": _strong_oils(0, INFANT_MONTHS),
    "SKIN-EO-02": _strong_oils(INFANT_MONTHS, CHILD_MONTHS),
    "SKIN-EO-03": _much_oil,
    "SKIN-PHOTO-01": lambda f: when(f.product.leave_on_use and "phototoxic_oil" in f.tags),
    "SKIN-SLIP-01": lambda f: when(
        f.oil_pct >= SLIPPERY_PCT or f.kind in {"truffle", "melt"}, value=f.oil_pct, limit=SLIPPERY_PCT, unit="%"
    ),
    "SKIN-SALT-01": lambda f: when(f.salt_pct >= SALTY_PCT, value=f.salt_pct, limit=SALTY_PCT, unit="%"),
    "WORK-DUST-01": lambda f: when("fine_dust" in f.tags),
    "WORK-IPA-01": lambda f: when(
        f.flammable_solvent_g > 0 and f.product.heat_step_before_dry, value=f.flammable_solvent_g, unit="g"
    ),
    "WORK-IPA-02": _vapour,
    "WORK-HOT-01": _hot,
    "WORK-FLASH-01": _flash,
    "WORK-GAS-01": _sealed,
    "WORK-HEAT-01": _warm_drying,
    "WORK-CLEAN-01": _bleach,
    "WORK-ALLERGEN-01": _food_allergens,
    "MICRO-01": _mould,
    "MICRO-02": _idle_preservative,
    "MICRO-03": lambda f: when(bool(f.tags & FRESH), about=tuple(sorted(f.tags & FRESH))),
    "MICRO-04": _wetted_again,
    "SHELF-01": _shelf_life,
    "SKIN-BEE-01": lambda f: when(bool(f.tags & ANIMAL_ALLERGENS), about=tuple(sorted(f.tags & ANIMAL_ALLERGENS))),
    "SKIN-EPI-01": lambda f: when("convulsant_oil" in f.tags),
    "SKIN-ASTHMA-01": lambda f: when(f.kind == "dust" and bool(f.fragrance)),
    "PET-01": lambda f: when("pet_poison" in f.tags),
}
"""Predicates by rule id."""
