"""Keeps what the studio's batches, trays, baths and measurements say of the defaults, so that learning from them takes no time.

A source is looked at once, and again when something has happened to it or what it was held against has changed. It is held
against the defaults, whatever is accepted, so that accepting a factor costs nothing here.
"""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Sequence
from dataclasses import asdict
from itertools import groupby
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.learning.observations import Equation, Observation, Told, told_by
from rosy_kettle.core.parameters.learning import LearningParameters
from rosy_kettle.core.records import Tables
from rosy_kettle.reference import load_tables
from rosy_kettle.store import Studio
from rosy_kettle.store.observations import (
    ObservationRow,
    Source,
    forget_observations,
    kept_observations,
    list_sources,
    marks_of_kept,
    put_observations,
)
from rosy_kettle.usecases.each_alone import each_alone
from rosy_kettle.usecases.learning.observe import observe
from rosy_kettle.usecases.studio.skipped import Skipped
from rosy_kettle.usecases.studio.studio_tables import studio_tables
from rosy_kettle.usecases.studio.version import VERSION

__all__ = ["MOST_OF_EACH", "keep_observations", "kept_told"]

MOST_OF_EACH = 2_000
"""Newest batches, trays, baths and measurements that are learnt from; older ones have had their say in what was accepted."""
NOUNS = {"felt": "batch", "shaped": "batch", "dried": "tray", "foam": "tub test", "measured": "measurement"}
AT_ONCE = 20  # sources looked at between two looks whether to stop


def keep_observations(
    studio: Studio, report: Callable[[int, int], None] = lambda _done, _whole: None, stopped: Callable[[], bool] = lambda: False,
    skipped: Skipped | None = None,
) -> None:  # fmt: skip
    """Look at all sources that have something new to say, the newest first, until none is left or it is stopped.

    ``report`` hears how many of all sources are kept; what was looked at before a stop stays kept. What cannot be read is passed
    over, and looked at again once something has happened to it.
    """
    skipped = skipped or Skipped()
    with studio.reading() as session:
        tables = studio_tables(session, {})
        on = _rests_on(tables)
        sources, kept = list_sources(session, MOST_OF_EACH), marks_of_kept(session, on)
    waiting = [each for each in sources if each not in kept]
    done = len(sources) - len(waiting)
    report(done, len(sources))
    while waiting and not stopped():
        some, waiting = waiting[:AT_ONCE], waiting[AT_ONCE:]
        with studio.reading() as session:
            rows = [
                row
                for kind, each in groupby(some, key=lambda source: source.kind)
                for row in _rows(session, list(each), tables, on, skipped)
            ]
        with studio.writing() as session:
            put_observations(session, rows)
        done += len(some)
        report(done, len(sources))
    gone = {(each.kind, each.id) for each in kept} - {(each.kind, each.id) for each in sources}
    if gone:
        with studio.writing() as session:
            forget_observations(session, [Source(kind, id_, "") for kind, id_ in gone])


def kept_told(session: Session, tables: Tables) -> tuple[list[Told], int]:
    """Return what the sources said when they were looked at last, and how many have still to be looked at."""
    kept, sources = kept_observations(session, _rests_on(tables)), list_sources(session, MOST_OF_EACH)
    said = [kept[each] for each in sources if each in kept]
    return [_told(told) for each in said for told in each], len(sources) - len(said)


def _rests_on(tables: Tables) -> str:
    """Return a fingerprint of everything beside a source that moves what it says."""
    reference = load_tables()
    own = [
        repr(item)
        for mine, known in ((tables.ingredients, reference.ingredients), (tables.tools, reference.tools))
        for id_, item in sorted(mine.items())
        if known.get(id_) is not item
    ]
    return hashlib.sha256(repr((VERSION, own, tables.parameters, LearningParameters())).encode()).hexdigest()


def _rows(session: Session, sources: Sequence[Source], tables: Tables, on: str, skipped: Skipped) -> list[ObservationRow]:
    kind = sources[0].kind

    def look(some: Sequence[Source]) -> list[tuple[int, list[Observation]]]:
        return list(observe(session, kind, [each.id for each in some], tables))

    def pass_over(one: Source, _error: Exception) -> list[tuple[int, list[Observation]]]:
        skipped.note(NOUNS[kind], one.id, one.mark)
        return []

    seen = dict(each_alone(sources, look, pass_over))
    return [
        ObservationRow(
            kind=kind, source_id=each.id, mark=each.mark, rests_on=on,
            told=[_row(told_by(observation, tables)) for observation in seen.get(each.id, [])],
        )
        for each in sources
    ]  # fmt: skip


def _row(told: Told) -> dict[str, Any]:
    """Return what was said as JSON holds it, where a key is a word."""
    row = asdict(told)
    for equation in row["equations"]:
        equation["parts"] = [[*of, weight] for of, weight in equation["parts"].items()]
    return row


def _told(row: dict[str, Any]) -> Told:
    equations = tuple(
        Equation(**each | {
            "parts": {(role, name): weight for role, name, weight in each["parts"]},
            "between": None if each["between"] is None else tuple(each["between"]),
        })
        for each in row["equations"]
    )  # fmt: skip
    return Told(row["kind"], equations, row["code"], row["facts"])
