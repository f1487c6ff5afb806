"""When the rules of colours, restricted substances and scents fire."""

from __future__ import annotations

from collections.abc import Mapping

from rosy_kettle.core.records.product import BATH_CATEGORY
from rosy_kettle.core.safety.rules.facts import ColourFacts, Facts
from rosy_kettle.core.safety.rules.fired import Fired, Predicate, when

__all__ = ["MATERIAL_RULES", "THRESHOLD_PCT"]

THRESHOLD_PCT = {"rinse_off": 0.01, "leave_on": 0.001}  # Reg (EC) 1223/2009 Annex III entries 45, 67, 69-92
NEW_LIST_FROM, NEW_LIST_FOR_ALL = "2026-07-31", "2028-07-31"  # Reg (EU) 2023/1545
SUM_SLACK = 1e-9  # for sums of floats
CYCLIC_SILICONE_PCT = 0.1  # Reg (EU) 2018/35, Reg (EU) 2024/1328; from memory


def _named(colours: list[ColourFacts]) -> Fired | None:
    return when(bool(colours), about=tuple(colour.name for colour in colours))


def _unlisted(facts: Facts) -> Fired | None:
    found = [colour for colour in facts.colours if colour.us in {"not_listed", "unknown"}]
    unknown = tuple(f"US listing of {colour.name}" for colour in found if colour.us == "unknown")
    return when(bool(found), about=tuple(colour.name for colour in found), unknown=unknown)


def _undeclared(facts: Facts, shares: Mapping[str, float]) -> Fired | None:
    threshold = THRESHOLD_PCT[facts.allergen_mode]
    found = {name: pct for name, pct in shares.items() if pct > threshold and name not in facts.declared_allergens}
    unknown = tuple(f"allergens of {name}" for name in facts.allergens_unknown)
    return when(
        bool(found),
        value=max(found.values(), default=None),
        limit=threshold,
        unit="%",
        about=tuple(sorted(found)),
        unknown=unknown,
    )


def _newer_list(facts: Facts) -> Fired | None:
    product = facts.product
    new = product.launch_date is None or product.launch_date >= NEW_LIST_FROM
    due = new or (product.today is not None and product.today > NEW_LIST_FOR_ALL)
    return _undeclared(facts, facts.allergens_ext_pct) if due else None


def _over_certificate(facts: Facts) -> Fired | None:
    over = [scent for scent in facts.fragrance if scent.limit_pct is not None and scent.pct > scent.limit_pct]
    if not over:
        return None
    return Fired(over[0].pct, over[0].limit_pct, "%", tuple(scent.id for scent in over))


def _sum_over_certificates(facts: Facts) -> Fired | None:
    shared = sum(scent.pct / scent.limit_pct for scent in facts.fragrance if scent.limit_pct)
    return when(shared > 1 + SUM_SLACK, value=shared, limit=1.0, unit="of its limit")


def _uncertified(facts: Facts) -> Fired | None:
    names = tuple(scent.id for scent in facts.fragrance if scent.limit_pct is None)
    return when(bool(names), about=names, unknown=tuple(f"category limit of {name}" for name in names))


def _on_finished_mass(facts: Facts) -> Fired | None:
    wrong_base = facts.volatile_loss_pct > 0 and facts.pct_basis != "finished"
    portion = facts.max_portion_ifra_sum > 1 + SUM_SLACK
    return when(
        bool(facts.fragrance) and (wrong_base or portion),
        value=facts.max_portion_ifra_sum,
        limit=1.0,
        unit="of its limit in a part",
    )


def _purity(facts: Facts) -> Fired | None:
    needs = {"peanut_oil": "peanut_protein_spec", "hydrolysed_wheat_protein": "wheat_peptide_spec"}
    lacking = tuple(spec for tag, spec in needs.items() if tag in facts.tags and spec not in facts.product.records)
    return when(bool(lacking), about=lacking)


def _banned(facts: Facts) -> Fired | None:
    rows = [facts.restricted.get(name.casefold()) for name in facts.inci_pct]
    found = tuple(dict.fromkeys(row.name for row in rows if row is not None and row.prohibited))
    return when(bool(found) or "eu_prohibited" in facts.tags, about=found)


def _limited(facts: Facts) -> Fired | None:
    """Fire for a substance whose sum over all lines, under all its names, passes its limit."""
    leave_on = facts.allergen_mode == "leave_on"
    sums: dict[str, float] = {}
    for name, pct in facts.inci_pct.items():
        row = facts.restricted.get(name.casefold())
        if row is not None:
            sums[row.name] = sums.get(row.name, 0.0) + pct
    for name, pct in sums.items():
        row = facts.restricted[name.casefold()]
        most = row.leave_on_max_pct if leave_on else row.rinse_off_max_pct
        if most is not None and pct > most + SUM_SLACK:
            return Fired(pct, most, "%", (name,))
    over = [item for item in facts.preservatives if item.pct > item.eu_max]
    return Fired(over[0].pct, over[0].eu_max, "%", tuple(item.name for item in over)) if over else None


def _cyclic_silicones(facts: Facts) -> Fired | None:
    """D4 at any share; D5 and D6 above their line in what is washed off."""
    pct = facts.pct_by_tag.get("siloxane_d5_d6", 0.0)
    if "siloxane_d4" in facts.tags:
        return Fired(facts.pct_by_tag.get("siloxane_d4"), 0.0, "%")
    return when(pct > CYCLIC_SILICONE_PCT, value=pct, limit=CYCLIC_SILICONE_PCT, unit="%")


def _of_another_category(facts: Facts) -> Fired | None:
    wrong = [scent for scent in facts.fragrance if scent.other_category is not None]
    return when(bool(wrong), about=tuple(f"{s.id}: category {s.other_category}" for s in wrong))


def _not_taken_apart(facts: Facts) -> Fired | None:
    """Fire for scents nobody has taken apart, and for names on a paper that nobody knows."""
    unknown = tuple(f"allergens of {name}" for name in facts.allergens_unknown)
    unknown += tuple(f'what "{name}" is' for name in facts.substances_asked)
    return when(bool(unknown), about=(*facts.allergens_unknown, *facts.substances_asked), unknown=unknown)


def _over_the_usual(facts: Facts) -> Fired | None:
    """Fire for scents without a certificate that together pass their usual most: each may take its share of it."""
    without = [scent for scent in facts.fragrance if scent.limit_pct is None and scent.usual_pct]
    shared = sum(scent.pct / scent.usual_pct for scent in without if scent.usual_pct)
    if shared <= 1 + SUM_SLACK:
        return None
    about, unknown = tuple(s.id for s in without), tuple(f"category limit of {s.id}" for s in without)
    if len(without) == 1:
        return Fired(without[0].pct, without[0].usual_pct, "%", about, unknown)
    return Fired(shared, 1.0, "of the usual most", about, unknown)


def _meets(*natures: str) -> Predicate:
    return lambda facts: when(facts.tags.issuperset(natures))


MATERIAL_RULES: dict[str, Predicate] = {
    "US-ALL-01": lambda f: when(bool(f.fragrance)),
    "US-DIOX-01": lambda f: when("ethoxylated" in f.tags and "dioxane_statement" not in f.product.records),
    "US-COL-01": _unlisted,
    "US-COL-02": lambda f: _named([c for c in f.colours if c.us_certifiable and not c.us_lot_certified]),
    "US-COL-03": lambda f: _named([c for c in f.colours if c.us == "external"]),
    "ANY-COL-01": lambda f: _named([c for c in f.colours if c.grade != "cosmetic"]),
    "EU-COL-01": lambda f: _named([c for c in f.colours if c.eu != "yes"]),
    "PLASTIC-01": lambda f: when("plastic_microbead" in f.tags),
    "EU-PLASTIC-02": lambda f: when("plastic_glitter" in f.tags),
    "EU-ALL-01": lambda f: _undeclared(f, f.allergens26_pct),
    "EU-ALL-02": _newer_list,
    "EU-BAN-01": _banned,
    "EU-LIM-01": _limited,
    "EU-PROT-01": _purity,
    "IFRA-01": _over_certificate,
    "IFRA-02": _sum_over_certificates,
    "IFRA-03": _uncertified,
    "IFRA-04": lambda f: when(f.product.leave_on_use and any(s.ifra_category == BATH_CATEGORY for s in f.fragrance)),
    "IFRA-05": _on_finished_mass,
    "IFRA-06": _over_the_usual,
    "IFRA-07": _of_another_category,
    "US-BAN-01": lambda f: when("us_prohibited" in f.tags),
    "EU-ALL-03": _not_taken_apart,
    "EU-NANO-01": lambda f: when("nanomaterial" in f.tags),
    "NITRO-01": lambda f: when("nitrosamine_former" in f.tags and "nitrosamine_statement" not in f.product.records),
    "NITRO-02": _meets("nitrosamine_former", "nitrosating"),
    "TALC-01": lambda f: when("talc" in f.tags and "asbestos_free_statement" not in f.product.records),
    "EU-SILOX-01": _cyclic_silicones,
    "MAT-ACID-01": _meets("strong-acid"),
    "MAT-SODA-01": _meets("ready-mixed-base"),
    "MAT-COL-01": _meets("sulfide-pigment", "acid"),
    "MAT-CAT-01": _meets("cationic", "anionic"),
    "MAT-MELT-01": lambda f: when("melts-only" in f.tags and f.mixed_cold),
    "MAT-WATER-01": lambda f: when("watery" in f.tags and f.wants_no_water),
}
"""Predicates by rule id."""
