"""Two batches side by side: how they were made, what became of them, and which difference moves the readings most."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from rosy_kettle.core.change.why.compare import SETTINGS, ComparedLine, ComparedReading, compare
from rosy_kettle.core.making.bench.as_made import in_grams
from rosy_kettle.core.making.bench.record import BenchState
from rosy_kettle.core.readings.registry import notable
from rosy_kettle.core.records import Formula, Tables

__all__ = ["BatchComparison", "ComparedFact", "Difference", "MadeBatch", "Move", "compare_batches"]

BESIDE_G = 1000.0  # both batches are brought to a kilo, so that a larger bowl is no difference [g]
LEAST_WEIGHT = 0.5  # of a change a maker would notice; what moves less decides nothing [-]; project default
MOST_DIFFERENCES, MOST_MOVES = 6, 3
NO_MATTER = ("cost.",)
"""Readings that explain nothing of how a batch turned out."""


@dataclass(frozen=True, slots=True)
class MadeBatch:
    """One batch as it was made."""

    name: str
    made: Formula
    """As made, in the room it was made in."""
    state: BenchState
    batch_g: float
    version: int
    dried_h: float | None
    """Hours until it was wrapped, where the rack says so."""


@dataclass(frozen=True, slots=True)
class ComparedFact:
    """One fact of the two records."""

    id: str
    label: str
    unit: str
    first: str | int | float | None
    second: str | int | float | None
    differs: bool


@dataclass(frozen=True, slots=True)
class Move:
    """What a difference alone does to one reading of the first batch."""

    reading: str
    label: str
    unit: str
    by: float


@dataclass(frozen=True, slots=True)
class Difference:
    """One thing that was otherwise, and what it moves; the heaviest first."""

    ingredient: str | None
    """None: room, bath, piece or method."""
    name: str
    first_pct: float | None
    second_pct: float | None
    weight: float
    """Largest move, in changes a maker would notice [-]."""
    moves: tuple[Move, ...]


@dataclass(frozen=True, slots=True)
class BatchComparison:
    """Two batches side by side."""

    lines: tuple[ComparedLine, ...]
    readings: tuple[ComparedReading, ...]
    facts: tuple[ComparedFact, ...]
    differences: tuple[Difference, ...]
    sentence: str


def compare_batches(first: MadeBatch, second: MadeBatch, tables: Tables) -> BatchComparison:
    """Return two batches side by side and name the difference that moves most.

    Parameters
    ----------
    first : MadeBatch
        The batch the comparison starts from
    second : MadeBatch
        The other
    tables : Tables
        Reference tables

    Returns
    -------
    BatchComparison
        Lines and readings of a kilo of each, facts of both records, differences with what each alone moves

    Raises
    ------
    InputError
        If nothing of a batch was weighed.
    """
    a, b = (in_grams(each.made, tables, BESIDE_G) for each in (first, second))
    beside = compare(a, b, tables)
    differences = _differences(beside.readings, beside.lines)
    facts = tuple(_facts(first, second))
    return BatchComparison(beside.lines, beside.readings, facts, differences, _sentence(differences, facts))


def _differences(readings: Iterable[ComparedReading], lines: Iterable[ComparedLine]) -> tuple[Difference, ...]:
    found: dict[str | None, list[Move]] = {}
    names: dict[str | None, str] = {None: SETTINGS}
    for reading in readings:
        if reading.reading.startswith(NO_MATTER):
            continue
        for cause in reading.causes:
            names[cause.ingredient] = cause.name
            found.setdefault(cause.ingredient, []).append(Move(reading.reading, reading.label, reading.unit, cause.moves))
    shares = {line.ingredient: (line.first_pct, line.second_pct) for line in lines}
    made = []
    for ingredient, moves in found.items():
        moves.sort(key=lambda move: -_weight(move))
        first_pct, second_pct = shares.get(ingredient or "", (None, None))
        made.append(Difference(
            ingredient, names[ingredient], first_pct, second_pct, _weight(moves[0]), tuple(moves[:MOST_MOVES]),
        ))  # fmt: skip
    made.sort(key=lambda each: -each.weight)
    return tuple(each for each in made if each.weight >= LEAST_WEIGHT)[:MOST_DIFFERENCES]


def _weight(move: Move) -> float:
    return abs(move.by) / notable(move.reading, 1.0)


def _facts(first: MadeBatch, second: MadeBatch) -> Iterable[ComparedFact]:
    for id_, label, unit, of in FACTS:
        a, b = of(first), of(second)
        if a is not None or b is not None:
            yield ComparedFact(id_, label, unit, a, b, a != b)


def _said(name: str) -> Any:
    return lambda batch: batch.state.conditions.get(name)


def _became(name: str) -> Any:
    return lambda batch: batch.state.outcome.get(name) or None


def _felt(batch: MadeBatch) -> str | None:
    """Return what the hands found, in its order."""
    return ", then ".join(dict.fromkeys(felt.state for felt in batch.state.felt)) or None


def _added(batch: MadeBatch) -> str | None:
    masses: dict[str, float] = {}
    for each in batch.state.corrections:
        masses[each.ingredient] = masses.get(each.ingredient, 0.0) + each.mass_g
    return ", ".join(f"{mass_g:g} g {name}" for name, mass_g in masses.items()) or None


def _left_out(batch: MadeBatch) -> str | None:
    titles = {step.key: step.title.removeprefix("Weigh ") for step in batch.state.steps}
    return "; ".join(titles.get(step, step) for step, _why in batch.state.skipped) or None


def _too_much(batch: MadeBatch) -> str | None:
    titles = {step.key: step.title.removeprefix("Weigh ") for step in batch.state.steps}
    return "; ".join(_poured(each, titles) for each in batch.state.rescues) or None


def _poured(rescue: Mapping[str, Any], titles: Mapping[str, str]) -> str:
    return f"{titles.get(str(rescue.get('step')), 'a line')} ({rescue['actual_g']:g} g)"


FACTS: tuple[tuple[str, str, str, Any], ...] = (
    ("version", "Version", "", lambda batch: batch.version),
    ("batch_g", "Bowl", "g", lambda batch: round(batch.batch_g, 1)),
    ("room_c", "Room", "°C", _said("room_c")),
    ("humidity_pct", "Humidity", "%", _said("humidity_pct")),
    ("tap", "Tap water", "", _said("tap")),
    ("felt", "The dough felt", "", _felt),
    ("corrected", "Added to mend it", "", _added),
    ("skipped", "Left out", "", _left_out),
    ("rescued", "Poured too much", "", _too_much),
    ("dried_h", "On the rack until wrapped", "h", lambda batch: None if batch.dried_h is None else round(batch.dried_h, 1)),
    ("pieces_good", "Good pieces", "", _became("pieces_good")),
    ("pieces_spoiled", "Spoiled pieces", "", _became("pieces_spoiled")),
    ("foam_height_cm", "Foam in the tub", "cm", _became("foam_height_cm")),
    ("remarks", "Remarks", "", _became("remarks")),
)
"""Id, label, unit and where it stands."""


def _sentence(differences: tuple[Difference, ...], facts: tuple[ComparedFact, ...]) -> str:
    if differences:
        top = differences[0]
        moves = " and ".join(f"{move.label} by {move.by:+.3g} {move.unit}".rstrip() for move in top.moves[:2]).replace("-", "−")
        shares = "" if top.first_pct is None or top.second_pct is None else f" ({top.first_pct:.1f} → {top.second_pct:.1f} %)"
        said = _air(facts) if top.ingredient is None else ""
        return f"What differs most is {said or top.name + shares}: alone it moves {moves}."
    other = [fact.label.lower() for fact in facts if fact.differs and fact.id in {"felt", "corrected", "skipped", "rescued"}]
    if other:
        return f"Nothing in bowl or room differs by as much as a maker would notice; look at: {', '.join(other)}."
    return "Nothing in bowl or room differs by as much as a maker would notice."


def _air(facts: tuple[ComparedFact, ...]) -> str:
    """Say the room of both, where it differs; it is what mostly differs between two batches of one formula."""
    told = [
        f"{fact.label.lower()} ({fact.first:g} → {fact.second:g} {fact.unit})"
        for fact in facts
        if fact.id in {"room_c", "humidity_pct"} and fact.differs
        and isinstance(fact.first, int | float) and isinstance(fact.second, int | float)
    ]  # fmt: skip
    return f"the air, {' and '.join(told)}" if told else ""
