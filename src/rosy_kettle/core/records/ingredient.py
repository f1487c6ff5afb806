"""An ingredient: what it is, and the properties the models need."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal

__all__ = ["AcidTraits", "BaseTraits", "Ingredient", "PropertySource", "ReadingTraits", "SolidFatCurve", "SurfactantTraits"]


@dataclass(frozen=True, slots=True)
class PropertySource:
    """Where one property of an ingredient comes from, and how far it can be trusted."""

    property: str
    source: str
    confidence: str


@dataclass(frozen=True, slots=True)
class AcidTraits:
    """Acid strength by mass, and how fast it acts in a bath."""

    molar_mass_g_mol: float
    protons: int
    speed: float
    """Share of its protons that act while the piece dissolves, 0 to 1."""
    system: str = ""
    """The dissociating acid in the bath: citric, tartaric, malic, fumaric, ascorbic, bisulfate."""
    strong_cations: int = 0
    """Sodium or potassium it brings along per mole."""


@dataclass(frozen=True, slots=True)
class BaseTraits:
    """Base and carbonate carbon by mass; own acid is what a ready-mixed powder brings along."""

    molar_mass_g_mol: float
    base_equivalents_per_mol: float
    carbons_per_mol: float
    own_acid_equivalents_per_mol: float


@dataclass(frozen=True, slots=True)
class SurfactantTraits:
    """How a surfactant foams and bites, per gram of active, against sodium lauryl sulfate = 100."""

    foam_rel: float
    irritation_rel: float
    hard_water_sensitivity: str
    fluff: float
    """Character of its foam, 0 creamy to 100 fluffy."""


@dataclass(frozen=True, slots=True)
class ReadingTraits:
    """Small properties that single readings need; None where an ingredient plays no part."""

    hidden_fat_share: float = 0.0
    tack: float | None = None
    deliquescence_share: float | None = None
    """Relative humidity from which it turns wet by itself, 0 to 1."""
    hlb_effective: float | None = None
    oil_capacity_g_g: float | None = None
    tint_l_g_cm: float = 0.0
    cloud_l_g_cm: float = 0.0
    stain_note_mg_l: float | None = None
    stain_warn_mg_l: float | None = None
    coarse: bool = False
    humectant_strength: float = 0.0
    gels_from_share: float | None = None
    """Solid wax in oil from which it stands as a gel [-]; None for what does not gel oil."""
    citrate_mmol_g: float = 0.0
    """Citrate that a salt of citric acid brings [mmol/g]; an acid's own follows from its molar mass."""
    hardness_mmol_g: float = 0.0
    """Calcium and magnesium a gram brings into the bath [mmol/g]."""


@dataclass(frozen=True, slots=True)
class SolidFatCurve:
    """Solid fat content at fixed temperatures, linear between them."""

    state: str
    temperatures_c: tuple[float, ...]
    solid_fractions: tuple[float, ...]
    uncertainty_points: float
    source: str
    confidence: str


@dataclass(frozen=True, slots=True)
class Ingredient:
    """One row of the reference table with its traits joined on, or a studio's own ingredient.

    ``None`` means "not known"; a reading that needs it says so instead of guessing.
    """

    id: str
    name: str
    short_name: str
    inci: str
    cas: str
    role: str
    form: str
    phase_default: str
    note: str
    confidence: str
    molar_mass_g_mol: float | None = None
    true_density_g_ml: float | None = None
    bulk_density_loose_g_ml: float | None = None
    bulk_density_packed_g_ml: float | None = None
    us_cup_g: float | None = None
    us_tbsp_g: float | None = None
    us_tsp_g: float | None = None
    water_fraction: float | None = None
    active_fraction: float | None = None
    surfactant_class: str | None = None
    melt_low_c: float | None = None
    melt_high_c: float | None = None
    cp_j_gk: float | None = None
    latent_heat_j_g: float | None = None
    flash_point_c: float | None = None
    hlb: float | None = None
    required_hlb: float | None = None
    max_percent_rinse_off: float | None = None
    hygroscopic: str | None = None
    dust_hazard: str | None = None
    eye_hazard: str | None = None
    price_band_usd_per_kg_lo: Decimal | None = None
    price_band_usd_per_kg_hi: Decimal | None = None
    vegan: str | None = None
    liquid_demand_ml_100g: float | None = None
    wax_solubility_factor: float | None = None
    firmness_weight: float = 0.0
    traits: ReadingTraits = ReadingTraits()
    surfactant: SurfactantTraits | None = None
    acid: AcidTraits | None = None
    base: BaseTraits | None = None
    tempered_fat: SolidFatCurve | None = None
    fresh_fat: SolidFatCurve | None = None
    based_on: str | None = None
    sources: tuple[PropertySource, ...] = ()
    natures: frozenset[str] = frozenset()
    """What it is by nature (fast-acid, flammable, dye …), by the table; a studio's own keeps those of what it was made from."""
    inci_shares: tuple[tuple[str, float], ...] = ()
    """The names a supplied blend is made of, with their shares [-]; empty where the split is not known."""

    @property
    def reference_id(self) -> str:
        """Id of the row of the reference table it is, or was made from."""
        return self.based_on or self.id

    def has(self, nature: str) -> bool:
        """Whether it is of a nature, such as "fast-acid" or "surfactant-powder"."""
        return nature in self.natures or (nature == "surfactant-powder" and self.role == "surfactant" and self.is_powder)

    @property
    def is_fat(self) -> bool:
        """Whether it has a solid fat curve (butters, coconut-like oils, waxes, solid emulsifiers)."""
        return self.tempered_fat is not None

    @property
    def is_liquid_oil(self) -> bool:
        """Whether it is an oil that stays liquid at room temperature."""
        return self.role == "oil" and not self.is_fat

    @property
    def is_liquid(self) -> bool:
        """Whether it wets the powders: a fat by its molten share, or a liquid or paste that is no decoration."""
        return self.is_fat or (self.form in {"liquid", "paste"} and self.role != "decoration")

    @property
    def is_powder(self) -> bool:
        """Whether it is a solid that lies in the dough as grains."""
        return not self.is_liquid and self.form in {"powder", "crystal", "granule"}
