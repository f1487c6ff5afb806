"""From a formula and what is known of the product to the facts that the rules ask for."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.skin.finished import dried_share
from rosy_kettle.core.records import ColourFile, ColourListing, Ingredient, IngredientTags
from rosy_kettle.core.safety.called import UNNAMED_OIL, tags_of
from rosy_kettle.core.safety.label import NamedPart
from rosy_kettle.core.safety.rules import ColourFacts, Facts, Preservative
from rosy_kettle.core.safety.scents import (
    AllergenShares,
    allergen_mode,
    kind_of,
)

__all__ = ["facts_of"]

NO_PAPER = ColourFile()
_UNLISTED = ColourListing("", "unknown", us_certifiable=False, eu="check", note="")


def facts_of(
    mix: Mix, setting: Setting, parts: Sequence[NamedPart], allergens: AllergenShares,
    bath_ph: float | None, worst_portion: float,
) -> Facts:  # fmt: skip
    """Return the facts of one formula.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Product, method, dose
    parts : Sequence
        Named parts of the formula [g]
    allergens : AllergenShares
        Scents and their allergens
    bath_ph : float or None
        pH the bather meets, the further out of step-in and soak [-]
    worst_portion : float
        Highest sum of scent over limit in any portion [-]

    Returns
    -------
    Facts
        Shares are of the finished mass
    """
    product, dried = setting.formula.product, dried_share(mix, setting)
    finished_g = mix.total_g * dried
    tagged = _Tagged(mix, setting, finished_g)
    hot = setting.method.scent_joins_hot
    # Scent goes in with the hot butters before they meet the powders: the wet phase counts, not the dough.
    added_c = setting.wet_c if hot else None
    return Facts(
        product=product,
        restricted=setting.tables.safety.restricted,
        kind=kind_of(setting),
        surfactant_active_pct=100 * mix.of(mix.palette.active_known) / finished_g,
        active_unknown=tagged.active_unknown,
        ingredient_order_ok=product.ingredient_order_ok is not False,
        allergen_mode=allergen_mode(setting),
        fragrance=allergens.scents,
        volatile_loss_pct=100 * (1 - dried),
        max_portion_ifra_sum=worst_portion,
        allergens26_pct=allergens.older,
        allergens_ext_pct=allergens.newer,
        allergens_unknown=allergens.unknown,
        substances_asked=allergens.asked,
        declared_allergens=frozenset(product.declared_allergens),
        inci_pct=_summed(_by_name(parts, finished_g), tagged.names_pct, allergens.older, allergens.newer, allergens.unnamed),
        tags=frozenset(tagged.pct_by_tag) | tagged.natures,
        pct_by_tag=tagged.pct_by_tag,
        mixed_cold=not hot,
        wants_no_water=not setting.method.water_binds,
        colours=tuple(tagged.colours),
        preservatives=tuple(tagged.preservatives),
        bath_ph_est=bath_ph,
        sls_like_pct=tagged.pct_by_tag.get("sls_like", 0.0),
        eo_g_per_bath=tagged.oil_g * setting.assumed.dose_g / mix.total_g,
        oil_pct=100 * (mix.grams_of_role("oil") + mix.grams_of_role("butter")) / finished_g,
        unsaturated_oil_pct=tagged.pct_by_tag.get("unsaturated", 0.0),
        salt_pct=100 * mix.grams_of_role("salt") / finished_g,
        free_water_pct=100 * (mix.water_share - (1 - dried - mix.alcohol_share)) / dried,
        flammable_solvent_g=mix.alcohol_share * mix.total_g,
        max_melt_temp_c=product.max_melt_temp_c if product.max_melt_temp_c is not None else setting.wet_c if hot else None,
        fragrance_add_temp_c=product.fragrance_add_temp_c if product.fragrance_add_temp_c is not None else added_c,
    )


class _Tagged:
    """What the rules call the lines, gathered in one walk."""

    def __init__(self, mix: Mix, setting: Setting, finished_g: float) -> None:
        self.pct_by_tag: dict[str, float] = {}
        self.colours: list[ColourFacts] = []
        self.preservatives: list[Preservative] = []
        self.active_unknown: tuple[str, ...] = ()
        self.oil_g = 0.0
        self.names_pct: dict[str, float] = {}
        """Restricted substances that an ingredient's everyday name or number gives, and its INCI name does not."""
        self.natures: frozenset[str] = frozenset()
        for item, mass_g in mix.kinds:
            if mass_g <= 0:
                continue
            self.natures |= item.natures | ({item.surfactant_class} if item.surfactant_class else set())
            tags, pct = tags_of(item, setting), 100 * mass_g / finished_g
            self._by_other_names(item, setting, pct)
            for tag in tags.tags:
                self.pct_by_tag[tag] = self.pct_by_tag.get(tag, 0.0) + pct
            if tags.essential_oil or UNNAMED_OIL in tags.tags:
                self.oil_g += mass_g
            if item.role == "surfactant" and item.active_fraction is None:
                self.active_unknown += (item.id,)
            if item.role == "colorant" or tags.colours:
                self.colours += _colours(item, tags, setting)
            if tags.preservative_factor is not None and tags.preservative_eu_max_pct is not None:
                counted = pct * tags.preservative_factor
                self.preservatives.append(Preservative(item.id, counted, tags.preservative_eu_max_pct, tags.preservative_ph_max))

    def _by_other_names(self, item: Ingredient, setting: Setting, pct: float) -> None:
        restricted = setting.tables.safety.restricted
        known = {restricted[name].name for part in item.inci.split(",") if (name := part.strip().casefold()) in restricted}
        for other in (item.name.casefold(), item.short_name.casefold(), item.cas):
            row = restricted.get(other)
            if row is not None and row.name not in known:
                known.add(row.name)
                self.names_pct[row.name] = self.names_pct.get(row.name, 0.0) + pct


def _summed(*found: Mapping[str, float]) -> dict[str, float]:
    """Add shares of the same name from several sources [%]."""
    whole: dict[str, float] = {}
    for shares in found:
        for name, pct in shares.items():
            whole[name] = whole.get(name, 0.0) + pct
    return whole


def _by_name(parts: Sequence[NamedPart], finished_g: float) -> dict[str, float]:
    shares: dict[str, float] = {}
    for part in parts:
        shares[part.name] = shares.get(part.name, 0.0) + 100 * (part.mass_g - part.leaves_g) / finished_g
    return shares


def _colours(item: Ingredient, tags: IngredientTags, setting: Setting) -> list[ColourFacts]:
    """How the colours of an ingredient are listed; a colorant nobody has looked up is unknown, not allowed."""
    safety = setting.tables.safety
    paper = setting.formula.product.colours.get(item.id, NO_PAPER)
    if not tags.colours:
        return [ColourFacts(item.short_name, "unknown", "check", us_certifiable=False, us_lot_certified=False, grade="unknown")]
    found = []
    for name in tags.colours:
        row = safety.colours.get(name, _UNLISTED)
        grade = paper.grade or "cosmetic"
        found.append(ColourFacts(name, row.us, row.eu, row.us_certifiable, paper.us_lot is not None, grade))
    return found
