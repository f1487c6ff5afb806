"""The readings of a formula, with the names of the published evaluation result."""

from __future__ import annotations

from dataclasses import dataclass

__all__ = [
    "Assumed", "Cost", "Dough", "DoughPoint", "Evaluation", "Fizz", "Lather", "LineMass", "Missing", "OutOfRange", "Wanted",
]  # fmt: skip


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
class Wanted:
    """The dough the method is after."""

    states: tuple[str, ...]
    saturation_low: float | None
    saturation_high: float | None
    state_when_cold: str | None


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
    wanted: Wanted


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


@dataclass(frozen=True, slots=True)
class Lather:
    """Active surfactant of one dose and one piece."""

    active_g: float | None
    active_band_g: tuple[float, float] | None
    active_piece_g: float | None
    concentration_mg_l: float | None


@dataclass(frozen=True, slots=True)
class Cost:
    """Money as text with two decimals."""

    currency: str
    batch: str | None
    piece: str | None
    bath: str | None
    basis: str


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
    lather: Lather
    cost: Cost
    assumed: Assumed
    portions: tuple[Evaluation, ...]
    notes: tuple[str, ...]
    missing: tuple[Missing, ...]
    out_of_range: tuple[OutOfRange, ...]
