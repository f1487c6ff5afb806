"""What the rules are asked about; None is not known."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from types import MappingProxyType

from rosy_kettle.core.records.product import Product
from rosy_kettle.core.records.safety import RestrictedName

__all__ = ["ColourFacts", "Facts", "Fragrance", "Preservative"]


def _nothing() -> Mapping[str, float]:
    return MappingProxyType({})


@dataclass(frozen=True, slots=True)
class Fragrance:
    """One scent: share of the finished mass, its certificate's limit, its flash point."""

    id: str
    kind: str
    pct: float
    limit_pct: float | None
    ifra_category: str | None = None
    flash_c: float | None = None
    other_category: str | None = None
    """Category its certificate is for, where that is not this product's: its limit does not count."""
    usual_pct: float | None = None
    """The usual most of it in rinsed-off products, by the reference table [%]."""


@dataclass(frozen=True, slots=True)
class ColourFacts:
    """One colour and how it is listed."""

    name: str
    us: str
    eu: str
    us_certifiable: bool
    us_lot_certified: bool
    grade: str


@dataclass(frozen=True, slots=True)
class Preservative:
    """One preservative: share as counted by its limit, the limit, the highest pH it works at."""

    name: str
    pct: float
    eu_max: float
    ph_max: float | None


@dataclass(frozen=True, slots=True)
class Facts:
    """One product. Shares are of the finished mass [%]."""

    product: Product = field(default_factory=Product)
    kind: str = "bubble_bar"
    surfactant_active_pct: float = 0.0
    active_unknown: tuple[str, ...] = ()
    """Surfactants without a known active fraction; they count as foaming."""
    ingredient_order_ok: bool = True
    restricted: Mapping[str, RestrictedName] = field(default_factory=dict)
    """The table of restricted and prohibited substances."""
    allergen_mode: str = "rinse_off"
    fragrance: tuple[Fragrance, ...] = ()
    pct_basis: str = "finished"
    volatile_loss_pct: float = 0.0
    max_portion_ifra_sum: float = 0.0
    allergens26_pct: Mapping[str, float] = field(default_factory=_nothing)
    allergens_ext_pct: Mapping[str, float] = field(default_factory=_nothing)
    allergens_unknown: tuple[str, ...] = ()
    """Scents whose composition is not known."""
    substances_asked: tuple[str, ...] = ()
    """Names on a scent's paper that nobody knows."""
    declared_allergens: frozenset[str] = frozenset()
    inci_pct: Mapping[str, float] = field(default_factory=_nothing)
    tags: frozenset[str] = frozenset()
    colours: tuple[ColourFacts, ...] = ()
    preservatives: tuple[Preservative, ...] = ()
    bath_ph_est: float | None = None
    sls_like_pct: float = 0.0
    eo_g_per_bath: float | None = None
    oil_pct: float = 0.0
    unsaturated_oil_pct: float = 0.0
    salt_pct: float = 0.0
    free_water_pct: float = 0.0
    flammable_solvent_g: float = 0.0
    max_melt_temp_c: float | None = None
    fragrance_add_temp_c: float | None = None
    mixed_cold: bool = False
    """Whether nothing is melted on the way."""
    wants_no_water: bool = False
    """Whether the method takes no water but what a liquid surfactant brings."""
    pct_by_tag: Mapping[str, float] = field(default_factory=_nothing)
    """Share of what the rules call by a tag, where a rule has a line for it [%]."""

    @property
    def foams(self) -> bool:
        """Whether it counts as a foaming bath product: surfactant in it and foam not ruled out."""
        return self.has_surfactant and self.product.intended_foam is not False

    @property
    def has_surfactant(self) -> bool:
        """Whether a foaming or detergent surfactant is in it."""
        return self.surfactant_active_pct > 0 or bool(self.active_unknown)

    @property
    def youngest(self) -> float | None:
        """Age of the youngest user [months]."""
        return self.product.youngest_user_months
