"""What the studio's own batches, trays and tests make of the defaults, and which of it is used."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

from sqlalchemy.orm import Session

from rosy_kettle.core.errors import NotFoundError
from rosy_kettle.core.learning.factors import Factor, LearntError, SetAside, learn_from
from rosy_kettle.store.learnt_factors import accepted_factors
from rosy_kettle.usecases.learning.keep_observations import kept_told
from rosy_kettle.usecases.studio.studio_tables import studio_tables

__all__ = ["Learning", "StudioFactor", "factor_to_use", "look_at_learning"]


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
    seen: Counter[str]
    """How many observations there are of each kind."""
    waiting: int
    """Batches, trays, baths and measurements that have still to be read."""


def look_at_learning(session: Session) -> Learning:
    """Return what is learnt from all that is kept, always against the defaults, whatever is accepted."""
    tables = studio_tables(session, {})
    told, waiting = kept_told(session, tables)
    learnt, used = learn_from(told, tables), accepted_factors(session)
    factors = [StudioFactor(each, used.pop(each.id, None)) for each in learnt.factors]
    for id_, yours in used.items():  # accepted once, and nothing speaks of it any more
        lost = Factor(id_, 1.0, yours, yours, yours, 0, "×", False, "Accepted before; nothing speaks of it now.", 1.0, 1.0)  # noqa: FBT003
        factors.append(StudioFactor(lost, yours))
    return Learning(tuple(factors), learnt.errors, learnt.set_aside, Counter(each.kind for each in told), waiting)


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
