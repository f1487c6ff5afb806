"""The readings of a formula, with the names of the published evaluation result."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

__all__ = [
    "Advice", "Assumed", "Bath", "Cost", "DeclaredName", "Dough", "DoughPoint", "Dry", "Evaluation", "Feel", "Firmness", "Fizz",
    "Label", "Lather", "LedgerEntry", "LineMass", "Missing", "OutOfRange", "PieceReading", "Release", "SaturationAfter", "Shelf",
    "Skin", "StateChance", "Wanted",
]  # fmt: skip

Number = float  # PieceReading has a key named float


@dataclass(frozen=True, slots=True)
class LineMass:
    """A line in grams. ``index`` counts over all lines of the formula."""

    index: int
    ingredient: str
    mass_g: float
    pct: float
    low_g: float
    high_g: float
    heaped_ml: float | None
    """Volume as it lies in the bowl: powders loose, liquids as such [mL]."""
    cost: str | None


@dataclass(frozen=True, slots=True)
class DoughPoint:
    """State of the dough at one temperature."""

    temperature_c: float
    saturation: float | None
    state: str | None


@dataclass(frozen=True, slots=True)
class StateChance:
    """How likely a state is within the band of S, 0 to 1."""

    state: str
    chance: float


@dataclass(frozen=True, slots=True)
class SaturationAfter:
    """S after some minutes in the open bowl."""

    minutes: float
    saturation: float


@dataclass(frozen=True, slots=True)
class Wanted:
    """The dough the method is after."""

    states: tuple[str, ...]
    saturation_low: float | None
    saturation_high: float | None
    state_when_cold: str | None
    saturation_from: float | None
    """S from which one of the states holds: below the method's band where crumbly dough is right too."""


@dataclass(frozen=True, slots=True)
class Dough:
    """Texture at the temperature the method is judged at, and over all temperatures."""

    temperature_c: float
    saturation: float | None
    saturation_band: tuple[float, float] | None
    state: str | None
    by_temperature: tuple[DoughPoint, ...]
    when_cold: DoughPoint
    working_window_c: tuple[float, float] | None
    window_reason: str | None
    mix_temperature_c: float | None
    wanted: Wanted
    state_chances: tuple[StateChance, ...] = ()
    stickiness: float | None = None
    puff_pct: float | None = None
    puff_stirred_pct: float | None = None
    saturation_unrested: float | None = None
    """S just after mixing, where a liquid surfactant has yet to drink in; null where nothing changes."""
    alcohol_leaving: tuple[SaturationAfter, ...] = ()


@dataclass(frozen=True, slots=True)
class Fizz:
    """Gas of the whole batch."""

    co2_mol: float | None
    co2_g: float | None
    co2_l: float | None
    co2_piece_l: float | None
    brisk_co2_l: float | None
    limiting: str | None
    base_to_acid: float | None
    bicarbonate_left_g: float | None
    brisk_mol_per_100_g: float | None = None
    prereaction_share: float | None = None
    """Share of the fast acid spent while making; null without fast acid."""


@dataclass(frozen=True, slots=True)
class Lather:
    """Active surfactant of one dose and one piece."""

    active_g: float | None
    active_band_g: tuple[float, float] | None
    active_piece_g: float | None
    concentration_mg_l: float | None
    foam_l: float | None = None
    score: float | None = None
    score_band: tuple[float, float] | None = None
    height_cm: float | None = None
    character: float | None = None
    half_life_min: float | None = None
    over_the_rim: bool = False


@dataclass(frozen=True, slots=True)
class Bath:
    """pH of one dose in the tub. Step-in and soak are what the bather meets."""

    ph_fresh: float | None = None
    ph_stepin: float | None = None
    ph_soak: float | None = None
    ph_aired: float | None = None
    ionic_strength_mol_l: float | None = None


@dataclass(frozen=True, slots=True)
class Firmness:
    """Firmness of a finished piece, 0 to 98; null for dust."""

    at_20_c: float | None = None
    at_30_c: float | None = None
    at_20_c_band: tuple[float, float] | None = None
    at_30_c_band: tuple[float, float] | None = None


@dataclass(frozen=True, slots=True)
class Release:
    """How long a piece takes to go; null when it will not at this temperature."""

    minutes: float | None = None


@dataclass(frozen=True, slots=True)
class Dry:
    """Hours until dry or set."""

    hours: float | None = None
    low_hours: float | None = None
    high_hours: float | None = None
    dries: bool | None = None
    reason: str | None = None
    why_not: str | None = None
    """Code of the reason."""


@dataclass(frozen=True, slots=True)
class Feel:
    """What one dose leaves in water, on skin and tub."""

    oil_g: float | None = None
    free_oil_g: float | None = None
    ring: float | None = None
    slip: str | None = None
    richness: str | None = None
    """none, little, rich or very-oily, by the oil of the dose."""
    tint: float | None = None
    cloud: float | None = None
    stain: float | None = None
    slip_load_g: float | None = None


@dataclass(frozen=True, slots=True)
class Skin:
    """Harshness of the surfactants, and scent against its certificates. No safety claim."""

    harshness_mg_l: float | None = None
    scent_share: float | None = None
    ledger: tuple[LedgerEntry, ...] = ()
    measures: tuple[Measure, ...] = ()


@dataclass(frozen=True, slots=True)
class PieceReading:
    """Density of a piece and whether it floats; no verdict for dust and poured pieces."""

    density_g_ml: Number | None = None
    float: str | None = None
    spin: Number | None = None
    """How much a piece of two portions turns in the water, 0 to 100; 0 for one portion."""


@dataclass(frozen=True, slots=True)
class Shelf:
    """Fast acid lost a day, standing open, in film, in a jar; null below 1 % fast acid."""

    acid_loss_pct_day: float | None = None
    in_film_pct_day: float | None = None
    in_jar_pct_day: float | None = None


@dataclass(frozen=True, slots=True)
class LedgerEntry:
    """One thing to know before the skin meets the bath; never a claim that it is safe."""

    rule: str
    severity: str
    value: float | None
    limit: float | None
    headroom: float | None
    """Share of the limit still free, below 0 when passed; null where there is none."""
    unit: str
    message: str
    source: str
    confidence: str
    jurisdiction: str
    stage: str
    unknown: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Measure:
    """A figure of the ledger with its lines; headroom is the share of the last line still free."""

    id: str
    label: str
    value: float | None
    unit: str
    kind: str
    note_outside: tuple[float | None, float | None] | None
    warn_outside: tuple[float | None, float | None] | None
    headroom: float | None
    source: str


@dataclass(frozen=True, slots=True)
class DeclaredName:
    """One name of an ingredient list."""

    name: str
    share_pct: float
    below_one_percent: bool
    colour: bool
    note: str = ""


@dataclass(frozen=True, slots=True)
class Label:
    """Ingredient list in the order of the market."""

    market: str | None = None
    declaration: tuple[str, ...] = ()
    names: tuple[DeclaredName, ...] = ()
    allergens: tuple[str, ...] = ()
    notes: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Advice:
    """What a reading gives rise to, as a code with its facts and in words; severity is note or warn."""

    reading: str
    severity: str
    message: str
    code: str
    facts: Mapping[str, float] = field(default_factory=dict)
    """Figures the sentence names, units in their names."""


@dataclass(frozen=True, slots=True)
class Cost:
    """Money as text with two decimals."""

    currency: str
    batch: str | None
    piece: str | None
    bath: str | None
    basis: str
    full_piece: str | None = None
    """A piece with packaging, labour and overhead."""
    per_active_g: str | None = None
    """Ingredients per gram of active surfactant, four decimals; null without surfactant."""


@dataclass(frozen=True, slots=True)
class Missing:
    """Why a reading is null, or what was left out."""

    reading: str
    ingredient: str | None
    property: str | None
    reason: str


@dataclass(frozen=True, slots=True)
class OutOfRange:
    """A reading outside its model, with the limit."""

    reading: str
    limit: str


@dataclass(frozen=True, slots=True)
class Assumed:
    """What was taken where the formula says nothing."""

    method: str
    piece_mass_g: float
    half_thickness_mm: float
    packing: str
    dose_g: float
    way: str
    tub_l: float
    bath_c: float
    room_c: float
    humidity_pct: float
    loss_fraction: float


@dataclass(frozen=True, slots=True)
class Evaluation:
    """All readings of one formula, or of one portion."""

    name: str
    mass_g: float
    lines: tuple[LineMass, ...]
    dough: Dough | None
    fizz: Fizz
    bath: Bath
    lather: Lather
    firmness: Firmness
    release: Release
    drying: Dry
    feel: Feel
    skin: Skin
    piece: PieceReading
    shelf: Shelf
    label: Label
    cost: Cost
    assumed: Assumed
    portions: tuple[Evaluation, ...]
    notes: tuple[str, ...]
    advice: tuple[Advice, ...]
    missing: tuple[Missing, ...]
    out_of_range: tuple[OutOfRange, ...]
    further: Mapping[str, float | None] = field(default_factory=dict)
    """Declared readings that have no key of their own above, by id."""
