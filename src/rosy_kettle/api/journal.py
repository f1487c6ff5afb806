"""The journal, searched and filtered."""

from __future__ import annotations

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.journal import JournalEntry, JournalList, JournalQuery
from rosy_kettle.api.studio import current_keeper, current_studio
from rosy_kettle.store.journal import JournalAsk, JournalRow, months_of_journal, page_of_journal
from rosy_kettle.usecases.journal.keep_journal import FILTERS

__all__ = ["blueprint"]

blueprint = part("journal", __name__, "/api/journal", (422,))


@blueprint.get("", summary="What has happened, the newest first", responses={200: JournalList})
def list_(query: JournalQuery) -> Response:
    current_keeper().settle()
    month = None if query.month is None else int(query.month.replace("-", ""))
    ask = JournalAsk(
        query.q, query.formula_id, query.batch_id, query.kind, month, query.gone_wrong or None, query.cursor, query.limit + 1
    )
    with current_studio().reading() as session:
        rows = page_of_journal(session, ask)
        months = [f"{month // 100}-{month % 100:02d}" for month in months_of_journal(session)]
    shown = rows[: query.limit]
    return respond(JournalList(
        items=[_entry(row) for row in shown], next=shown[-1].id if len(rows) > query.limit else None, kinds=list(FILTERS),
        months=months,
    ))  # fmt: skip


def _entry(row: JournalRow) -> JournalEntry:
    return JournalEntry(
        id=row.id, at=row.at, kind=row.kind, title=row.title, text=row.text, formula_id=row.formula_id, batch_id=row.batch_id,
        tray_id=row.tray_id, test_id=row.test_id, version=row.version, gone_wrong=row.gone_wrong,
        drawn=row.drawn,
    )  # fmt: skip
