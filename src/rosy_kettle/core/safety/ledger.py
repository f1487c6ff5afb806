"""The skin ledger: what the rules find, and what passes a line of the chosen profile."""

from __future__ import annotations

from collections.abc import Sequence

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.records import Product, Tables, Use
from rosy_kettle.core.records.evaluation import LedgerEntry, Measure
from rosy_kettle.core.safety.measures import MIDDLE_PH
from rosy_kettle.core.safety.rules import STAGES, Facts, Finding, run_rules
from rosy_kettle.core.safety.rules.use import INFANT_MONTHS
from rosy_kettle.core.words.asked_keys import spoken

__all__ = ["read_ledger"]

SMALL_TUB_L = 60.0  # below it the dose is scaled down [L]
USUAL_TUB_L = Use().tub_l  # [L]
SPOT_PCT = 0.1  # dye above this share of the piece spots skin and grout [%]; common practice
BATH_PH_RULE = "SKIN-PH-01"
PH_MEASURES = frozenset({"bath.ph_stepin", "bath.ph_soak"})
PH_ENTRIES = frozenset(name.upper() for name in PH_MEASURES)
PROJECT = "project default, no safety claim"
BENCH = "bench."
DUST_RULE, DUST_ENTRY = "WORK-DUST-01", "BENCH.DUST_G"
HARSH = "skin.harshness_mg_l"
SENTENCES = {
    "skin.harshness_mg_l": "The surfactants of a dose pass the {line} line for this profile. A smaller dose, a milder "
    "surfactant, or an amphoteric beside the anionic brings it down.",
    "bath.ph_stepin": "The bath at step-in lies outside the {line} band of pH. Less spare acid or less alkali brings it back.",
    "bath.ph_soak": "After a 20-minute soak the bath lies outside the {line} band of pH. Less alkali brings it back.",
    "feel.slip_load_g": "Free oil makes the tub slippery: mat, rail, and wash the tub. Less butter or more emulsifier helps.",
    "feel.stain_note": "The colour can leave a mark on a porous tub; rinse at once.",
    "feel.stain": "The colour is strong enough to stain tub and towels. Use less of it, or one that keeps to the water.",
    "bench.dust_g": "Much fine powder is weighed for this batch: extraction, mask, goggles, and the dustiest last.",
}


def read_ledger(mix: Mix, setting: Setting, facts: Facts, measures: Sequence[Measure], stage: str) -> tuple[LedgerEntry, ...]:
    """Return the entries of the ledger, blocks first.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Product, tub, dose
    facts : Facts
        What the rules are asked about
    measures : Sequence
        Figures with their lines
    stage : str
        formula, batch, label or sale; earlier stages' rules run too

    Returns
    -------
    tuple
        Entries with value, limit, message and source; none of them says that a product is safe
    """
    entries = [
        _of_rule(found, setting.tables)
        for found in run_rules(facts, setting.tables.safety, stage, setting.formula.product.markets)
    ]
    batch = STAGES.index(stage) >= STAGES.index("batch")
    for measure in _ph_once(measures):
        if measure.id in SENTENCES and (batch or not measure.id.startswith(BENCH)):
            entries += _of_measure(measure, setting.formula.product)
    if any(entry.rule in PH_ENTRIES for entry in entries):  # the rule says the same of the same pH
        entries = [entry for entry in entries if entry.rule != BATH_PH_RULE]
    if any(entry.rule == DUST_RULE for entry in entries):  # the figure would say the same of the same powders
        entries = [entry for entry in entries if entry.rule != DUST_ENTRY]
    entries += _small_tub(setting) + _spots(mix)
    order = ("block", "warn", "note")
    return tuple(sorted(entries, key=lambda entry: order.index(entry.severity)))


def _ph_once(measures: Sequence[Measure]) -> list[Measure]:
    """Leave one of step-in and soak, the further out, so that the bath's pH is judged once."""
    of_ph = [measure for measure in measures if measure.id in PH_MEASURES and measure.value is not None]
    kept = max(of_ph, key=lambda each: abs((each.value or 0.0) - MIDDLE_PH), default=None)
    return [measure for measure in measures if measure.id not in PH_MEASURES or measure is kept]


def _of_rule(found: Finding, tables: Tables) -> LedgerEntry:
    rule, fired = found.rule, found.fired
    named = [tables.ingredients[each].short_name if each in tables.ingredients else spoken(each) for each in fired.about]
    about = f" ({', '.join(named)})" if named else ""
    headroom = 1 - fired.value / fired.limit if fired.value is not None and fired.limit else None
    return LedgerEntry(
        rule=rule.id, severity=rule.severity, value=fired.value, limit=fired.limit, headroom=headroom, unit=fired.unit,
        message=rule.message + about, source=rule.citation, confidence=rule.confidence,
        jurisdiction=";".join(rule.jurisdiction), stage=rule.stage, unknown=fired.unknown,
    )  # fmt: skip


def _of_measure(measure: Measure, product: Product) -> list[LedgerEntry]:
    """Return the entry of a figure that passes a line; foam too harsh for the smallest is held back, not only warned of."""
    if measure.value is None:
        return []
    passed = "warn" if _outside(measure.value, measure.warn_outside) else None
    passed = passed or ("note" if _outside(measure.value, measure.note_outside) else None)
    if passed is None:
        return []
    ends = measure.warn_outside if passed == "warn" else measure.note_outside
    low, high = ends or (None, None)
    limit = low if low is not None and measure.value < low else high
    said = SENTENCES[measure.id].format(line=passed)
    young = product.youngest_user_months is not None and product.youngest_user_months < INFANT_MONTHS
    severity = "block" if young and measure.id == HARSH and passed == "warn" else passed
    return [_own(measure.id.upper(), severity, measure.value, limit, measure.unit, said)]


def _outside(value: float, ends: tuple[float | None, float | None] | None) -> bool:
    low, high = ends or (None, None)
    return (low is not None and value < low) or (high is not None and value > high)


def _own(rule: str, severity: str, value: float, limit: float | None, unit: str, message: str) -> LedgerEntry:
    headroom = 1 - value / limit if limit else None
    return LedgerEntry(rule, severity, value, limit, headroom, unit, message, PROJECT, "medium", "any", "formula")


def _small_tub(setting: Setting) -> list[LedgerEntry]:
    tub_l, dose_g = setting.assumed.tub_l, setting.assumed.dose_g
    if tub_l >= SMALL_TUB_L:
        return []
    suggested = dose_g * tub_l / USUAL_TUB_L
    message = (
        f"In {tub_l:g} L the same dose is {USUAL_TUB_L / tub_l:.1f} times as strong: about {suggested:.1f} g keeps it as usual."
    )
    return [_own("DOSE", "note", dose_g, suggested, "g", message)]


def _spots(mix: Mix) -> list[LedgerEntry]:
    dye_pct = 100 * mix.grams_of_nature("dye") / mix.total_g
    if dye_pct <= SPOT_PCT:
        return []
    return [_own("SPOTS", "note", dye_pct, SPOT_PCT, "%", "So much dye spots skin and grout before it dissolves.")]
