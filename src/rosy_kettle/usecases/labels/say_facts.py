"""The facts of a label: what was said for the last one of the formula, what the batch knows, and the maker's settings."""

from __future__ import annotations

from dataclasses import fields, replace
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.making.label.texts import LabelFacts
from rosy_kettle.store.labels import list_labels
from rosy_kettle.usecases.labels.from_batch import BatchFacts
from rosy_kettle.usecases.studio.studio_settings import studio_settings

__all__ = ["said_facts"]

OF_THE_FORMULA = ("name", "scent_name", "identity", "directions", "pao_months", "second_text")
"""What stays the same from one batch of a formula to the next."""


def said_facts(session: Session, formula_id: int | None, batch: BatchFacts | None, typed: LabelFacts | None = None) -> LabelFacts:
    """Return what a label says where the maker types nothing else.

    What is typed goes first, then what the batch knows, then the last label kept of the formula, then the settings.
    """
    settings = studio_settings(session)
    facts = LabelFacts(maker=settings.maker, place=settings.place, contact=settings.contact)
    if formula_id is not None:
        last = list_labels(session, query="", formula_id=formula_id, batch_id=None, before=None, limit=1)
        kept: dict[str, Any] = {name: last[0].facts[name] for name in OF_THE_FORMULA if last and last[0].facts.get(name)}
        facts = replace(facts, **kept)
    if batch is not None:
        best = "" if batch.best_before is None else batch.best_before.isoformat()
        facts = replace(facts, net_g=batch.net_g, batch_code=batch.batch_code, best_before=best)
    if typed is None:
        return facts
    said = {item.name: getattr(typed, item.name) for item in fields(LabelFacts)}
    return replace(facts, **{name: value for name, value in said.items() if value not in (None, "")})
