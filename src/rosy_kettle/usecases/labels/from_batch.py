"""A batch as its label and record see it: what was really weighed, by the papers of the lots it really came from."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta

from sqlalchemy.orm import Session

from rosy_kettle.core.records import Certificate, Formula, Tables, certificate_from_data
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.store.batches import printed_code
from rosy_kettle.store.lots import LotRow
from rosy_kettle.usecases.batches.run_batch import Bench, open_bench
from rosy_kettle.usecases.pantry.draw_stock import Drawn, drawn_by
from rosy_kettle.usecases.rack.run_rack import Tray, look_at_trays_of
from rosy_kettle.usecases.studio.studio_settings import studio_settings
from rosy_kettle.usecases.studio.studio_tables import by_lots

__all__ = ["BatchFacts", "KnownFact", "facts_of_batch"]

DAYS_PER_MONTH = 30.4375
LONGEST_DAYS = 730  # nothing here is promised for longer without a test [d]; project default
FIZZ_LEFT_PCT = 75.0  # of the fast acid, when a wrapped piece counts as old [%]; project default


@dataclass(frozen=True, slots=True)
class KnownFact:
    """Something the studio knows of a batch, and from where."""

    fact: str
    value: str
    source: str


@dataclass(frozen=True, slots=True)
class BatchFacts:
    """All that a label or record takes from a batch."""

    bench: Bench
    formula: Formula
    """As made: what was left out is not in it."""
    tables: Tables
    """With active parts and certificates of the lots that were drawn from."""
    lots: tuple[tuple[LotRow, float], ...]
    """Each lot with what was drawn from it [g]."""
    drawn: tuple[Drawn, ...]
    """The same, and which of it is only assumed."""
    trays: tuple[Tray, ...]
    net_g: float | None
    batch_code: str
    best_before: date | None
    known: tuple[KnownFact, ...]


def facts_of_batch(session: Session, batch_id: int) -> BatchFacts:
    """Return what is known of a batch.

    Raises
    ------
    NotFoundError
        If there is no such batch.
    """
    bench = open_bench(session, batch_id)
    drawn = tuple(each for each in drawn_by(session, batch_id) if each.mass_g > 0)
    by_lot: dict[int, tuple[LotRow, float]] = {}
    for each in drawn:
        by_lot[each.lot.id] = (each.lot, by_lot.get(each.lot.id, (each.lot, 0.0))[1] + each.mass_g)
    lots = tuple(by_lot.values())
    tables = _by_drawn_lots(bench.tables, lots)
    trays = tuple(look_at_trays_of(session, batch_id))
    net, net_known = _dried_piece(trays)
    best, best_known = _best_before(bench, bench.now, lots)
    code = printed_code(bench.row)
    known = [KnownFact("batch_code", code, "day it was begun and number of the batch"), *net_known, *best_known]
    known += [
        KnownFact("left_out", step.title, f"left out at the bench: {why}")
        for key, why in bench.state.skipped for step in bench.state.steps if step.key == key
    ]  # fmt: skip
    known += [
        KnownFact("assumed_lot", each.lot.code, f"{each.mass_g:.1f} g of {each.lot.ingredient_id}: nobody named this jar")
        for each in drawn if each.assumed is not False
    ]  # fmt: skip
    maker = studio_settings(session).maker
    known += [KnownFact("maker", maker, "Settings")] if maker else []
    return BatchFacts(bench, bench.made, tables, lots, drawn, trays, net, code, best, tuple(known))


def _by_drawn_lots(tables: Tables, lots: Sequence[tuple[LotRow, float]]) -> Tables:
    """Let the lots speak that were drawn from; lots of one scent are mixed by mass, one without a paper leaves it unknown."""
    by_ingredient: dict[str, list[tuple[LotRow, float]]] = {}
    for lot, mass_g in lots:
        by_ingredient.setdefault(lot.ingredient_id, []).append((lot, mass_g))
    largest = {id_: max(found, key=lambda each: each[1])[0] for id_, found in by_ingredient.items()}
    spoken = by_lots(tables, largest)
    papers: dict[str, Certificate] = dict(tables.certificates)
    for id_, found in by_ingredient.items():
        mixed = _mixed([(_paper(lot, tables), mass_g) for lot, mass_g in found], tables.safety.substances)
        if mixed is None:
            papers.pop(id_, None)
        else:
            papers[id_] = mixed
    return replace(spoken, certificates=papers)


def _paper(lot: LotRow, tables: Tables) -> Certificate | None:
    return certificate_from_data(lot.certificate) if lot.certificate else tables.certificates.get(lot.ingredient_id)


def _mixed(papers: Sequence[tuple[Certificate | None, float]], names: Mapping[str, str]) -> Certificate | None:
    """One certificate for a scent from several lots: allergens by mass, the strictest limit and flash point."""
    known = [(paper, mass_g) for paper, mass_g in papers if paper is not None]
    if not known or len(known) < len(papers):
        return None
    whole = sum(mass_g for _, mass_g in known)
    allergens: dict[str, float] = {}
    asked: list[str] = []
    for paper, mass_g in known:
        found, unknown = paper.shares(names)
        asked += unknown
        for name, pct in found.items():
            allergens[name] = allergens.get(name, 0.0) + pct * mass_g / whole
    first = known[0][0]
    if len(known) > 1 and len({paper.category for paper, _ in known}) > 1:
        first = replace(first, category=None, limit_pct=None)  # two papers for two kinds of product: no limit is known
        return replace(first, allergens=allergens, substances=(), asked=tuple(dict.fromkeys(asked)))
    return Certificate(
        limit_pct=_strictest([paper.limit_pct for paper, _ in known]), category=first.category,
        flash_c=_strictest([paper.flash_c for paper, _ in known]), allergens=allergens, asked=tuple(dict.fromkeys(asked)),
    )  # fmt: skip


def _strictest(values: Sequence[float | None]) -> float | None:
    """Return the least of them; None where one is not known."""
    known = [value for value in values if value is not None]
    return min(known) if len(known) == len(values) else None


def _dried_piece(trays: Sequence[Tray]) -> tuple[float | None, list[KnownFact]]:
    """Return the mass of a dried piece by the last weigh-in of the tray with the lightest ones: a label promises no more."""
    found: list[tuple[float, Tray]] = []
    for tray in trays:
        weighed = [each for each in tray.state.weighings if not each.left_out]
        if weighed and tray.reading.ready:
            last = weighed[-1]
            found.append((last.mass_g / last.pieces, tray))
    if not found:
        return None, []
    mass_g, tray = min(found, key=lambda each: each[0])
    return mass_g, [KnownFact("net_g", f"{mass_g:.1f} g", f"last weigh-in of tray {tray.row.id}, dry")]


def _shelf_words(days: int) -> str:
    if days == LONGEST_DAYS:
        return f"its fizz keeps longer in film (practice), but without a test no more than {days} days are promised"
    return f"in film a quarter of the fizz is lost after {days} days (practice)"


def _best_before(bench: Bench, told: Evaluation, lots: Sequence[tuple[LotRow, float]]) -> tuple[date | None, list[KnownFact]]:
    made_on = bench.row.created_at.date()
    ends: list[tuple[date, str]] = [
        (lot.best_before, f"lot {lot.code} is best before it") for lot, _ in lots if lot.best_before is not None
    ]
    loss = told.shelf.in_film_pct_day
    if loss is not None and loss > 0:
        days = min(LONGEST_DAYS, int((100 - FIZZ_LEFT_PCT) / loss))
        ends.append((made_on + timedelta(days=days), _shelf_words(days)))
    months = bench.made.product.shelf_life_months
    if months is not None:
        ends.append(
            (made_on + timedelta(days=int(months * DAYS_PER_MONTH)), f"shelf life of {months:g} months, as the formula says")
        )
    if not ends:
        return None, []
    first, why = min(ends)
    return first, [KnownFact("best_before", first.isoformat(), why)]
