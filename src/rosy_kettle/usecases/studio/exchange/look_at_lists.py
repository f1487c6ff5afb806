"""Reads what came in whole lists as its pages will read it: whatever a page would fail on fails before it is taken in."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from sqlalchemy import select
from sqlalchemy.orm import Session

from rosy_kettle.core.errors import InputError, WorkbenchError
from rosy_kettle.core.learning.observations import told_by
from rosy_kettle.core.making.bench import check_felt
from rosy_kettle.core.practice.bowl import run_bowl
from rosy_kettle.files import FormulaFile
from rosy_kettle.store.measurements import MeasurementRow
from rosy_kettle.store.orders import OrderRow
from rosy_kettle.store.practice_runs import PracticeRunRow
from rosy_kettle.store.trial_designs import TrialDesignRow
from rosy_kettle.store.troubles import TroubleRow
from rosy_kettle.usecases.clinic.look_into import look_into
from rosy_kettle.usecases.clinic.practise import bowl_of, told_by_reference
from rosy_kettle.usecases.learning.observe import observe
from rosy_kettle.usecases.learning.run_trials import look_at_design
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from rosy_kettle.usecases.week.take_orders import PURPOSES, STATES

__all__ = ["look_at_lists"]


def look_at_lists(session: Session, where: str) -> None:
    """Read every row of a file of lists.

    Raises
    ------
    InputError, LookupError, TypeError, ValueError
        If something in it is not of its kind.
    """
    try:
        for look in LOOKS.get(where, ()):
            look(session)
    except WorkbenchError as error:
        raise InputError(f"{where} in the zip is not what stands in its place: {error.message}", quantity="file") from error


def _orders(session: Session) -> None:
    for state, purpose in session.execute(select(OrderRow.state, OrderRow.for_)):
        if state not in STATES or purpose not in PURPOSES:
            raise ValueError(state)


def _measurements(session: Session) -> None:
    tables = studio_tables(session, {})
    for _id, seen in observe(session, "measured", list(session.scalars(select(MeasurementRow.id))), tables):
        for each in seen:
            told_by(each, tables)


def _designs(session: Session) -> None:
    for id_ in session.scalars(select(TrialDesignRow.id)):
        look_at_design(session, id_)


def _troubles(session: Session) -> None:
    for row in list(session.scalars(select(TroubleRow))):
        if row.formula is not None:
            FormulaFile.model_validate(row.formula)
        look_into(session, row.id)


def _runs(session: Session) -> None:
    for row in session.scalars(select(PracticeRunRow)):
        scenario, acts = bowl_of(row)
        run_bowl(scenario, acts, told_by_reference)
        for act in acts:
            if act.kind == "called":
                check_felt(act.word)


LOOKS: Mapping[str, tuple[Callable[[Session], None], ...]] = {
    "orders.json": (_orders,),
    "learning.json": (_measurements, _designs, _troubles, _runs),
}
