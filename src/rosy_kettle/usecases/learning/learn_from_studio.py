"""What the studio's own batches, trays and tests make of the defaults, and which of it is used."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from sqlalchemy import select
from sqlalchemy.orm import Session

from rosy_kettle.core.errors import NotFoundError
from rosy_kettle.core.learning.factors import Factor, LearntError, SetAside, learn
from rosy_kettle.core.learning.observations import Observation
from rosy_kettle.core.records import Tables, Use
from rosy_kettle.store.batches import BatchEventRow, BatchRow, list_events
from rosy_kettle.store.learnt_factors import accepted_factors
from rosy_kettle.store.measurements import list_measurements
from rosy_kettle.store.tub_tests import list_tub_tests
from rosy_kettle.usecases.learning.shaped_batches import known_formula, shaped_batches
from rosy_kettle.usecases.rack.run_rack import look_at_trays
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from rosy_kettle.usecases.tub.run_test import look_at_tests

__all__ = ["Learning", "StudioFactor", "factor_to_use", "look_at_learning"]

MOST_OF_EACH = 150
"""Newest batches, trays and tests that are learnt from; older ones have had their say in what was accepted."""


@dataclass(frozen=True, slots=True)
class StudioFactor:
    """A factor, and whether it is used."""

    factor: Factor
    used: float | None
    """The figure in use; None while the default is."""


@dataclass(frozen=True, slots=True)
class Learning:
    """All factors, what they mend, and what could not be used."""

    factors: tuple[StudioFactor, ...]
    errors: tuple[LearntError, ...]
    set_aside: tuple[SetAside, ...]
    batches: int
    trays: int
    tests: int
    ropes: int
    shaped: int
    drops: int


def look_at_learning(session: Session) -> Learning:
    """Return what is learnt, always against the defaults, whatever is accepted."""
    tables = studio_tables(session, {})
    felt, dried, foam = list(_felt(session, tables)), list(_dried(session, tables)), list(_foam(session, tables))
    measured, shaped = list(_measured(session, tables)), list(shaped_batches(session, tables, MOST_OF_EACH))
    learnt, used = learn([*felt, *measured, *dried, *foam, *shaped], tables), accepted_factors(session)
    factors = [StudioFactor(each, used.pop(each.id, None)) for each in learnt.factors]
    for id_, yours in used.items():  # accepted once, and nothing speaks of it any more
        lost = Factor(id_, 1.0, yours, yours, yours, 0, "×", False, "Accepted before; nothing speaks of it now.", 1.0, 1.0)  # noqa: FBT003
        factors.append(StudioFactor(lost, yours))
    ropes = sum(each.kind == "rope" for each in measured)
    return Learning(
        tuple(factors), learnt.errors, learnt.set_aside, batches=len(felt), trays=len(dried), tests=len(foam), ropes=ropes,
        shaped=len(shaped), drops=len(measured) - ropes,
    )  # fmt: skip


def factor_to_use(session: Session, id_: str) -> Factor:
    """Return a factor that can be used from now on.

    Raises
    ------
    NotFoundError
        If nothing speaks of such a factor.
    """
    found = next((each for each in look_at_learning(session).factors if each.factor.id == id_ and each.factor.n), None)
    if found is None:
        raise NotFoundError(f'Nothing speaks of "{id_[:60]}" yet.', noun="factor", id=id_[:60])
    return found.factor


def _felt(session: Session, tables: Tables) -> Iterator[Observation]:
    """Yield what hands first found of each batch, before anything was added to mend it."""
    felt = select(BatchEventRow.batch_id).where(BatchEventRow.kind == "felt").distinct()
    rows = session.scalars(select(BatchRow).where(BatchRow.id.in_(felt)).order_by(BatchRow.id.desc()).limit(MOST_OF_EACH))
    for row in rows:
        events = list_events(session, row.id)
        first = next(event for event in events if event.kind == "felt")
        room_c = next((event.data["room_c"] for event in events if event.data.get("room_c") is not None), 21.0)
        warm_c = [event.data["value_c"] for event in events if event.kind == "temperature" and event.seq < first.seq]
        formula = known_formula(row.plan["formula"], tables)
        if formula is not None:
            temperature_c = warm_c[-1] if warm_c else room_c
            yield Observation("felt", formula, {"state": first.data["state"], "temperature_c": float(temperature_c)})


def _dried(session: Session, tables: Tables) -> Iterator[Observation]:
    """Yield the hours of trays that were weighed until they were dry."""
    for wrapped in (False, True):
        for tray in look_at_trays(session, wrapped=wrapped, query="", before=None, limit=MOST_OF_EACH):
            fit = tray.reading.fit
            if tray.row.formula is not None and fit is not None and fit.ready and fit.ready_h:
                formula = known_formula(tray.row.formula, tables)
                if formula is not None:
                    air = tray.reading.air
                    room = formula.room if air is None else replace(
                        formula.room, temperature_c=air.temperature_c, humidity_pct=air.humidity_pct
                    )  # fmt: skip
                    yield Observation("dried", replace(formula, room=room), {"hours": fit.ready_h})


def _measured(session: Session, tables: Tables) -> Iterator[Observation]:
    """Yield the rope and drop tests that count."""
    for row in list_measurements(session, MOST_OF_EACH):
        formula = known_formula(row.formula, tables)
        if formula is not None:
            yield Observation(row.kind, formula, row.facts)


def _foam(session: Session, tables: Tables) -> Iterator[Observation]:
    """Yield every height of foam of the tests whose formula is known."""
    rows = {row.id: row for row in list_tub_tests(session, query="", formula_id=None, before=None, limit=MOST_OF_EACH)}
    for test in look_at_tests(session, query="", formula_id=None, before=None, limit=MOST_OF_EACH):
        made = rows[test.row.id].formula
        formula = None if made is None else known_formula(made, tables)
        if formula is None:
            continue
        used = replace(formula, use=Use(**test.row.use))
        for height in test.state.heights:
            if not height.left_out and height.minutes > 0:
                yield Observation("foam", used, {"minutes": height.minutes, "height_cm": height.height_cm})
