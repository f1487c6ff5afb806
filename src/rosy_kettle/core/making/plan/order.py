"""What is wanted → how big the batch, in how many bowls, with how many pieces."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from types import MappingProxyType

from rosy_kettle.core.amounts import Weighed, weigh_formula
from rosy_kettle.core.errors import InputError, MissingDataError
from rosy_kettle.core.making.plan.piece_mass import packed_density, piece_mass, tool_of
from rosy_kettle.core.mixing.batch_loss import batch_loss
from rosy_kettle.core.models.cost.formula_cost import price_per_kg
from rosy_kettle.core.models.pieces import batch_for_pieces, pieces_from_batch
from rosy_kettle.core.models.pieces.rolls import Roll, cuts_mm, roll_geometry
from rosy_kettle.core.parameters.pieces import PieceParameters
from rosy_kettle.core.records import Formula, Tables, Tool

__all__ = ["Order", "PantryNeed", "PlannedPieces", "PortionShare", "Wish", "plan_order"]

LONGEST_ROLL_MM = 300.0  # a roll wider than the paper cannot be handled [mm]; common practice
MOST_PIECES = 100_000
NO_MOULDS: Mapping[str, int] = MappingProxyType({})
MOST_BOWLS = 200  # sub-batches of one plan; more is a slip of the unit


@dataclass(frozen=True, slots=True)
class Wish:
    """Some pieces from one tool; no number of pieces takes what the mass gives."""

    pieces: int | None = None
    tool: str | None = None
    piece_mass_g: float | None = None
    scoop_fill: str = "level"
    sheet_mm: float = 6.0
    """Thickness of one rolled sheet [mm]; for rolls only."""
    layers: int = 2
    cut: str = "thread"


@dataclass(frozen=True, slots=True)
class PlannedPieces:
    """Pieces of one kind in the plan."""

    name: str
    tool: str | None
    pieces: int
    piece_mass_g: float
    basis: str
    rolls: int
    """How many rolls they are sliced from; 0 where nothing is rolled."""
    roll: Roll | None
    """Geometry of one roll."""
    trimmed_g: float
    """Ends that are cut off all rolls; they may be rolled again [g]."""


@dataclass(frozen=True, slots=True)
class PortionShare:
    """A portion's part of the batch."""

    name: str
    mass_g: float
    share_pct: float
    split: str | None


@dataclass(frozen=True, slots=True)
class PantryNeed:
    """What the batch takes of one ingredient, against what is there."""

    ingredient: str
    name: str
    needed_g: float
    on_hand_g: float | None
    """None: nobody has said."""
    short_g: float | None
    cost: Decimal | None


@dataclass(frozen=True, slots=True)
class Order:
    """The batch that fulfils the wishes."""

    batch_g: float
    loss_g: float
    pieces: tuple[PlannedPieces, ...]
    leftover_g: float
    bowls_g: tuple[float, ...]
    """Mass of each sub-batch [g]; one where everything fits the bowl."""
    portions: tuple[PortionShare, ...]
    needs: tuple[PantryNeed, ...]
    cost: Decimal | None
    notes: tuple[str, ...]
    fillings: int = 1
    """How often the moulds are filled, where there are fewer than pieces [-]."""


def plan_order(
    formula: Formula, tables: Tables, wishes: Sequence[Wish], mass_g: float | None, capacity_g: float | None,
    on_hand_g: Mapping[str, float], moulds: Mapping[str, int] = NO_MOULDS,
) -> Order:  # fmt: skip
    """Return the batch for some wishes.

    Parameters
    ----------
    formula : Formula
        The formula to make
    tables : Tables
        Reference tables and prices
    wishes : Sequence
        Pieces by tool, one or more; where a mass is given the first wish takes what the others leave
    mass_g : float or None
        Batch mass [g]; None makes the batch as large as the pieces ask
    capacity_g : float or None
        What the bowl holds [g]; None is no limit
    on_hand_g : Mapping
        What is in the Pantry by ingredient [g]; an ingredient that is not in it is not known
    moulds : Mapping
        How many there are by tool [-]; a tool that is not in it has not been counted

    Returns
    -------
    Order
        Masses, pieces, bowls, needs; what is short or unknown is said, never guessed

    Raises
    ------
    InputError
        If nothing is weighed yet, or a wish cannot be meant.
    """
    weighed, missing = weigh_formula(formula, tables)
    total_g = sum(item.mass_g for item in weighed)
    if total_g <= 0:
        raise InputError("The formula has no weighed line yet; give at least one amount.", quantity="lines")
    if not wishes:
        raise InputError("A plan needs at least one tool or piece.", quantity="wishes")
    _check(wishes, mass_g, capacity_g)
    method = tables.method_of(formula)
    if mass_g is None:
        planned = [_planned(formula, tables, weighed, wish, wish.pieces or 0) for wish in wishes]
        usable_g = sum(item.pieces * item.piece_mass_g + item.trimmed_g for item in planned)
        batch_g = batch_for_pieces(1, usable_g, method.loss_fraction, tables.parameters.mixing)
    else:
        batch_g = mass_g
        planned = _fill(formula, tables, weighed, wishes, batch_g)
    bowls = max(1, math.ceil(batch_g / capacity_g - 1e-9)) if capacity_g else 1
    if bowls > MOST_BOWLS:
        raise InputError(
            f"That takes {bowls} bowls; a plan has at most {MOST_BOWLS}. A larger bowl, or fewer pieces.", quantity="capacity_g"
        )
    loss_g = batch_g * batch_loss(method.loss_fraction, batch_g, tables.parameters.mixing)
    used_g = sum(item.pieces * item.piece_mass_g + item.trimmed_g for item in planned)
    needs = _needs(weighed, batch_g / total_g, tables, on_hand_g)
    costs = [need.cost for need in needs]
    return Order(
        batch_g=batch_g,
        loss_g=loss_g,
        pieces=tuple(planned),
        leftover_g=max(0.0, batch_g - loss_g - used_g),
        bowls_g=(batch_g / bowls,) * bowls,
        portions=_portions(formula, weighed, batch_g / total_g),
        needs=needs,
        cost=None if any(cost is None for cost in costs) else sum((cost for cost in costs if cost is not None), Decimal(0)),
        notes=(*_notes(planned, bowls, capacity_g), *_rounds(planned, moulds), *(error.message for error in missing)),
        fillings=max((_fillings(item, moulds) for item in planned), default=1),
    )


def _check(wishes: Sequence[Wish], mass_g: float | None, capacity_g: float | None) -> None:
    if mass_g is not None and not mass_g > 0:
        raise InputError(f"The batch mass must be above 0 g, got {mass_g:g}.", quantity="mass_g", value=mass_g)
    if capacity_g is not None and not capacity_g > 0:
        raise InputError(f"What the bowl holds must be above 0 g, got {capacity_g:g}.", quantity="capacity_g", value=capacity_g)
    for wish in wishes[1 if mass_g is not None else 0 :]:
        if wish.pieces is None or not 1 <= wish.pieces <= MOST_PIECES:
            raise InputError(f"Pieces must be a whole number from 1 to {MOST_PIECES}.", quantity="pieces")
    for wish in wishes:
        if wish.piece_mass_g is not None and not wish.piece_mass_g > 0:
            raise InputError("The mass of a piece must be above 0 g.", quantity="piece_mass_g", value=wish.piece_mass_g)


def _fill(
    formula: Formula, tables: Tables, weighed: Sequence[Weighed], wishes: Sequence[Wish], batch_g: float
) -> list[PlannedPieces]:
    """Let the first wish take what the others leave of a given mass."""
    loss = tables.method_of(formula).loss_fraction
    others = [_planned(formula, tables, weighed, wish, wish.pieces or 0) for wish in wishes[1:]]
    taken_g = sum(item.pieces * item.piece_mass_g + item.trimmed_g for item in others)
    one = _planned(formula, tables, weighed, wishes[0], 1)
    usable_g = batch_g * (1 - batch_loss(loss, batch_g, tables.parameters.mixing)) - taken_g
    if usable_g < one.piece_mass_g:
        raise InputError(f"{batch_g:g} g do not give one piece more; plan a larger mass.", quantity="mass_g", value=batch_g)
    pieces = pieces_from_batch(usable_g, one.piece_mass_g, 0.0, tables.parameters.mixing)[0]
    first = _planned(formula, tables, weighed, wishes[0], pieces)
    while first.pieces > 1 and first.pieces * first.piece_mass_g + first.trimmed_g > usable_g:
        first = _planned(formula, tables, weighed, wishes[0], first.pieces - 1)
    return [first, *others]


def _planned(formula: Formula, tables: Tables, weighed: Sequence[Weighed], wish: Wish, pieces: int) -> PlannedPieces:
    mass_g, basis = piece_mass(formula, tables, weighed, wish.piece_mass_g, wish.tool, wish.scoop_fill)
    tool = None if wish.tool is None else tool_of(tables, wish.tool)
    name = "piece" if tool is None else tool.name
    if tool is None or tool.type != "roll-and-slice":
        return PlannedPieces(name, wish.tool, pieces, mass_g, basis, 0, None, 0.0)
    rolls, roll = _rolls(tool, wish, pieces, tables.parameters.pieces)
    try:
        density = packed_density(formula, tables, weighed, tool)
    except MissingDataError:
        density = mass_g / tool.volume_ml
    return PlannedPieces(name, wish.tool, pieces, mass_g, basis, rolls, roll, rolls * roll.trimmed_ml * density)


def _rolls(tool: Tool, wish: Wish, pieces: int, p: PieceParameters) -> tuple[int, Roll]:
    """Find rolls of the tool's diameter, none longer than the paper, that give the slices."""
    cuts = cuts_mm(p)
    if wish.cut not in cuts or tool.diameter_mm is None or tool.height_mm is None:
        raise InputError(f"A roll is cut by {' or '.join(cuts)}.", quantity="cut", value=wish.cut[:20])
    each_mm = tool.height_mm + cuts[wish.cut]
    most = max(1, math.floor((LONGEST_ROLL_MM - 2 * p.trim_mm) / each_mm + 1e-9))
    rolls = max(1, math.ceil(pieces / most))
    width_mm = math.ceil(pieces / rolls) * each_mm + 2 * p.trim_mm
    volume_ml = math.pi / 4 * tool.diameter_mm**2 * width_mm / 1000
    return rolls, roll_geometry(volume_ml, width_mm, wish.layers, wish.sheet_mm, tool.height_mm, wish.cut, p=p)


def _portions(formula: Formula, weighed: Sequence[Weighed], scale: float) -> tuple[PortionShare, ...]:
    masses = [sum(w.mass_g for w in weighed if w.portion == index) * scale for index in range(len(formula.portions))]
    whole = sum(masses)
    return tuple(
        PortionShare(portion.name, mass_g, 100 * mass_g / whole, portion.split)
        for portion, mass_g in zip(formula.portions, masses, strict=True)
    )


def _needs(weighed: Sequence[Weighed], scale: float, tables: Tables, on_hand_g: Mapping[str, float]) -> tuple[PantryNeed, ...]:
    grams: dict[str, float] = {}
    for line in weighed:
        grams[line.ingredient.id] = grams.get(line.ingredient.id, 0.0) + line.mass_g * scale
    needs = []
    for id_, needed_g in grams.items():
        item = tables.ingredients[id_]
        held = on_hand_g.get(id_)
        try:
            cost = price_per_kg(item, tables.prices, needed_g)[0] * Decimal(repr(needed_g)) / 1000
        except MissingDataError:
            cost = None
        needs.append(PantryNeed(id_, item.short_name, needed_g, held, None if held is None else max(0.0, needed_g - held), cost))
    return tuple(needs)


def _rounds(planned: Sequence[PlannedPieces], moulds: Mapping[str, int]) -> list[str]:
    """Say where there are fewer moulds than pieces."""
    said = []
    for item in planned:
        times = _fillings(item, moulds)
        if times > 1:
            count = moulds[item.tool or ""]
            said.append(
                f"{item.pieces} pieces, {count} of {item.name}: they are filled {times} times, the next once the last are out."
            )
    return said


def _fillings(item: PlannedPieces, moulds: Mapping[str, int]) -> int:
    count = moulds.get(item.tool or "")
    return 1 if count is None else -(-item.pieces // count)


def _notes(planned: Sequence[PlannedPieces], bowls: int, capacity_g: float | None) -> list[str]:
    notes = []
    if bowls > 1:
        notes.append(f"The bowl holds {capacity_g:g} g: mix it in {bowls} bowls, one after the other.")
    rolls = [(item.name, item.roll) for item in planned if item.roll is not None]
    return notes + [f"{name}: {roll.verdict}." for name, roll in rolls if roll.verdict != "a good swirl"]
