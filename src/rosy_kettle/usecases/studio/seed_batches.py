"""A few batches of the invented studio: one that went well, one with a bad day, one still at the bench."""

from __future__ import annotations

import random
import time
from typing import Any

from sqlalchemy.orm import Session

from rosy_kettle.core.making.bench import state_of
from rosy_kettle.core.making.happening import Event
from rosy_kettle.core.making.plan import Wish
from rosy_kettle.store.batches import add_event, find_batch, list_events
from rosy_kettle.store.formulas import list_formulas
from rosy_kettle.store.happenings import event_of_row
from rosy_kettle.usecases.batches.happen_at_bench import let_happen
from rosy_kettle.usecases.batches.plan_batch import PlanAsk
from rosy_kettle.usecases.batches.run_batch import begin_batch, open_bench
from rosy_kettle.usecases.happen import Coming

__all__ = ["seed_batches"]

WELL, BAD_DAY = "Peat bricks", "Oar-blade slices"
CAPACITY_G = 4000.0
SHAKE = 0.4  # how far a demo weighing lies off, in tolerances [-]


class _Wall:
    rate = 1.0

    def now(self) -> float:
        return time.time()


class _Maker:
    """Lets a batch happen, one event after the other; only a rescue needs the whole bench."""

    def __init__(self, session: Session, formula: str, pieces: int) -> None:
        self.session = session
        row = next(row for row in list_formulas(session) if row.name == formula)
        self.batch_id = begin_batch(session, row.id, PlanAsk([Wish(pieces)], capacity_g=CAPACITY_G))
        self.chance = random.Random(pieces)  # noqa: S311 - demo noise, no secret
        self.state = open_bench(session, self.batch_id).state
        self.planned = self.state.steps
        self.events: list[Event] = []

    def happen(self, kind: str, **data: Any) -> None:
        if kind == "rescued":
            let_happen(self.session, self.batch_id, Coming(self.state.seq, kind, data), _Wall())
            rows = list_events(self.session, self.batch_id)
        else:
            rows = [add_event(self.session, self.batch_id, self.state.seq, kind, data)]
            if kind == "closed":
                find_batch(self.session, self.batch_id).closed_at = rows[0].at
        known = {event.seq for event in self.events}
        self.events += [event_of_row(row) for row in rows if row.seq not in known]
        self.state = state_of(self.planned, self.events)

    def go_on(self, until: str | None = None, *, over: str = "", without: str = "", felt: str = "play dough") -> None:
        """Do step after step until the line of one ingredient comes, or to the end."""
        while (step := self.state.step) is not None and (until is None or step.ingredient != until):
            self._do(step, over, without, felt)

    def _do(self, step: Any, over: str, without: str, felt: str) -> None:
        key = step.key
        if step.kind == "conditions":
            self.happen("conditions", step=key, room_c=18.5, humidity_pct=52.0, tap="soft")
        elif step.ingredient == over and not self.state.rescues:
            self.happen("rescued", step=key, actual_g=round(step.target_g + 12, 1), way="scale-up", source="scale")
        elif step.ingredient == without:
            self.happen("skipped", step=key, why="the bottle was empty")
        elif step.kind == "weigh":
            off = self.chance.uniform(-SHAKE, SHAKE) * step.tolerance_g
            self.happen("weighed", step=key, actual_g=round(step.target_g + off, 1), source="scale")
        else:
            if step.kind == "feel":
                self.happen("felt", state=felt)
                if felt != "play dough":
                    self.happen("corrected", ingredient="glycerin", mass_g=6.0, why=f"felt {felt}")
                    self.happen("felt", state="play dough")
            if step.kind == "shape" and step.pieces is not None:
                self.happen("pieces", count=step.pieces)
                self.happen("sampled", mass_g=round(step.piece_mass_g * 1.02, 1))
            self.happen("done", step=key)


def seed_batches(session: Session) -> None:
    """Put the demo batches in."""
    well = _Maker(session, WELL, 14)
    well.go_on()
    well.happen("outcome", pieces_good=14, pieces_spoiled=0, tub_dose_g=57.0, tub_l=150.0, foam_height_cm=4.5,
                remarks="slow and rich; a thin ring, wiped off with a cloth")  # fmt: skip
    well.happen("closed")
    bad = _Maker(session, BAD_DAY, 12)
    bad.go_on(over="glycerin", without="own-dulse", felt="crumbly dough")
    bad.happen("outcome", pieces_good=10, pieces_spoiled=2, remarks="the scent was missed at the bath, not before")
    bad.happen("closed")
    bad.happen("amended", text="two pieces cracked on the second day")
    _Maker(session, BAD_DAY, 10).go_on(until="glycerin")
