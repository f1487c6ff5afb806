"""Files of rows with their events, made from what SQLite holds; for a large studio in a process beside the one that reads it."""

from __future__ import annotations

import os
from collections import deque
from collections.abc import Callable, Iterable, Iterator
from concurrent.futures import Future, ProcessPoolExecutor
from contextlib import contextmanager
from dataclasses import dataclass
from multiprocessing import get_context, parent_process
from threading import Thread
from typing import Any

from rosy_kettle.files.studio_zip import json_bytes
from rosy_kettle.store.plain_rows import told_rows
from rosy_kettle.usecases.studio.exchange.nouns import TOLD, events_table, table_of
from rosy_kettle.usecases.studio.exchange.read_back import batch_record

__all__ = ["Files", "Runner", "Sheaf", "beside", "told_files"]

NAMED = frozenset({"event_id", "made_at"})
"""What an event of a former studio has none of, and then does not say."""
AHEAD = 3  # sheaves handed over before the first one is waited for: enough that neither process waits, and little memory

Files = list[tuple[str, bytes]]


@dataclass(frozen=True, slots=True)
class Sheaf:
    """Some rows of one noun as SQLite holds them, and all that happened to them."""

    noun: int
    """Its place in `TOLD`."""
    rows: list[tuple[Any, ...]]
    events: list[tuple[Any, ...]]


Runner = Callable[[Callable[[Sheaf], Files], Iterable[Sheaf]], Iterable[Files]]
"""Makes the files of sheaves, in their order."""


def told_files(sheaf: Sheaf) -> Files:
    """Return the names and contents of the files of some rows."""
    noun = TOLD[sheaf.noun]
    table, events = table_of(noun.row), events_table(noun)
    head = {"format": f"rosy-kettle/{table.name.replace('_', '-').removesuffix('s')}", "version": 1}
    rows = list(told_rows(sheaf.rows, table))
    happened: dict[int, list[dict[str, Any]]] = {row["id"]: [] for row in rows}
    if events is not None:
        for each in told_rows(sheaf.events, events):
            happened[each.pop(noun.of)].append({name: value for name, value in each.items() if name not in NAMED or value})
    files = []
    for row in rows:
        data = head | {"studio": row} | ({} if events is None else {"events": happened[row["id"]]})
        if noun.folder == "batches":
            data |= batch_record(data)
        files.append((f"{noun.folder}/{noun.prefix}{row['id']:06d}.json", json_bytes(data)))
    return files


@contextmanager
def beside(many: bool) -> Iterator[Runner]:
    """Give what makes files: where they are many a second process, else this one."""
    if not many:
        yield map
        return
    with ProcessPoolExecutor(1, mp_context=get_context("spawn"), initializer=_end_with_parent) as pool:
        try:
            yield lambda make, sheaves: _ahead(pool, make, sheaves)
        finally:
            pool.shutdown(cancel_futures=True)


def _end_with_parent() -> None:
    """End this process when the one it works for has ended, however that came about: it would wait for work for good."""
    Thread(target=_wait_for_parent, daemon=True).start()


def _wait_for_parent() -> None:
    if parent := parent_process():
        parent.join()
        os._exit(1)


def _ahead(pool: ProcessPoolExecutor, make: Callable[[Sheaf], Files], sheaves: Iterable[Sheaf]) -> Iterator[Files]:
    waiting: deque[Future[Files]] = deque()
    for sheaf in sheaves:
        waiting.append(pool.submit(make, sheaf))
        if len(waiting) > AHEAD:
            yield waiting.popleft().result()
    while waiting:
        yield waiting.popleft().result()
