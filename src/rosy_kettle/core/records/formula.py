"""A formula: the maker's list, with the piece, the bath and the room it is meant for."""

from __future__ import annotations

from dataclasses import dataclass, field
from decimal import Decimal

from rosy_kettle.core.records.product import Product

__all__ = ["MOST_LINES", "MOST_PORTIONS", "Formula", "Heat", "Line", "Making", "Piece", "Portion", "Room", "Use"]


MOST_LINES = 2_000
"""Lines a formula may hold; what is longer is no formula, and is refused where it comes in."""
MOST_PORTIONS = 100
"""Portions a formula may hold."""


@dataclass(frozen=True, slots=True)
class Line:
    """One ingredient and its amount as typed. ``ingredient`` is None while the name is unknown."""

    ingredient: str | None
    amount: str
    unit: str
    text: str = ""
    phase: str = ""
    notes: tuple[str, ...] = ()
    suggestions: tuple[str, ...] = ()
    locked: bool = False
    min_g: float | None = None
    max_g: float | None = None
    poured_g: float | None = None


@dataclass(frozen=True, slots=True)
class Portion:
    """A part of the product with its own lines: body, second colour, topping, drizzle, embed."""

    name: str
    lines: tuple[Line, ...]
    share_pct: float | None = None
    mass_g: float | None = None
    split: str | None = None


@dataclass(frozen=True, slots=True)
class Piece:
    """One finished item. ``None`` takes the method's default."""

    mass_g: float | None = None
    half_thickness_mm: float | None = None
    packing: str | None = None
    wished_pieces: int | None = None
    """How many the recipe says it makes; the Plan begins with it."""


@dataclass(frozen=True, slots=True)
class Use:
    """One bath. ``None`` takes the default of the method, or of the hardness class."""

    dose_g: float | None = None
    way: str | None = None
    tub_l: float = 150.0
    tub_area_m2: float = 0.80
    bath_c: float = 38.0
    hardness: str = "moderate"
    alkalinity_mg_l: float | None = None
    tap_ph: float | None = None


@dataclass(frozen=True, slots=True)
class Room:
    """The air the dough is made and dried in."""

    temperature_c: float = 21.0
    humidity_pct: float = 40.0


@dataclass(frozen=True, slots=True)
class Heat:
    """How warm the wet phase goes in, and what the bowl soaks up. ``None`` takes the method's default."""

    wet_c: float | None = None
    bowl_j_k: float | None = None


@dataclass(frozen=True, slots=True)
class Making:
    """What a batch costs besides its ingredients, in the currency of the prices."""

    packaging_per_piece: Decimal = Decimal(0)
    labour_minutes: Decimal = Decimal(0)
    """Minutes of work for the batch."""
    fixed_minutes: Decimal = Decimal(0)
    """Of these, what a batch takes whatever its size: setting out, cleaning up."""
    labour_per_hour: Decimal = Decimal(0)
    overhead_pct: Decimal = Decimal(0)
    """Rent, power and the like, as a share of everything else."""
    price_per_piece: Decimal = Decimal(0)
    """What a piece is sold for; 0 is not said."""


@dataclass(frozen=True, slots=True)
class Formula:
    """A whole formula as it stands in a formula file."""

    name: str
    portions: tuple[Portion, ...]
    method: str = ""
    """Id of the method; empty is the usual one."""
    batch_g: float = 1000.0
    profile: str | None = None
    """Id of the profile it is judged by; no reading depends on it."""
    piece: Piece = field(default_factory=Piece)
    use: Use = field(default_factory=Use)
    room: Room = field(default_factory=Room)
    heat: Heat = field(default_factory=Heat)
    making: Making = field(default_factory=Making)
    product: Product = field(default_factory=Product)

    @property
    def lines(self) -> tuple[Line, ...]:
        """All lines, portion by portion."""
        return tuple(line for portion in self.portions for line in portion.lines)
