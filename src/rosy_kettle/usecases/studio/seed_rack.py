"""Trays of the invented studio: one fresh, one that sets, one dry, and a week of its damp air."""

from __future__ import annotations

import math
import random
from datetime import UTC, datetime, timedelta

from sqlalchemy.orm import Session

from rosy_kettle.core.making.rack.air import Air
from rosy_kettle.core.making.rack.judge_tray import know_tray
from rosy_kettle.core.making.rack.tray import TrayState
from rosy_kettle.core.records import Tables
from rosy_kettle.store.formulas import list_formulas, record_of
from rosy_kettle.store.rack import AirRow, add_air, add_tray_event
from rosy_kettle.usecases.rack.run_rack import SetOut, set_out

__all__ = ["seed_rack"]

TRAYS = (
    ("Ferry-tin scoop, in cups", 10, 1.25, (0.0, 0.2, 0.6, 1.05, 1.22)), ("Peat bricks", 12, 0.6, ()),
    ("Limpet domes", 9, 0.35, (0.0, 0.1, 0.3)),
)  # fmt: skip
"""Formula, pieces, age, and when they were weighed, both as shares of the model's hours."""
PIECE_G, STEP_G, SHAKE_G = 62.0, 0.1, 0.05
AIR_DAYS, ROOM_C, HUMIDITY_PCT = 7, 19.0, 52.0


def seed_rack(session: Session, tables: Tables) -> None:
    """Set the demo's trays out, each weighed along its model's own curve with a scale's noise, and log the air of a week."""
    chance, now = random.Random(7), datetime.now(UTC)  # noqa: S311 - demo noise, no secret
    for ago in range(0, 24 * AIR_DAYS, 3):
        humidity = HUMIDITY_PCT + 8 * math.sin(ago / 30) + chance.uniform(-2, 2)
        add_air(session, AirRow(
            place="rack", at=now - timedelta(hours=24 * AIR_DAYS - ago), temperature_c=ROOM_C + chance.uniform(-1, 1),
            humidity_pct=round(humidity, 1), source="hygrometer",
        ))  # fmt: skip
    rows = {row.name: row for row in list_formulas(session)}
    for name, pieces, age, weighed in TRAYS:
        known = know_tray(TrayState(), record_of(rows[name]), tables, [Air(now.isoformat(), ROOM_C, HUMIDITY_PCT)])
        hours, prior = known.prior.hours, known.prior
        if hours is None:
            continue
        begin = now - timedelta(hours=age * hours)
        tray_id = set_out(session, SetOut(pieces, formula_id=rows[name].id, at=begin))
        for seq, share in enumerate(weighed):
            left = 1 - prior.share + prior.share * math.exp(-share * hours / prior.tau_h)
            mass_g = round((6 * PIECE_G * left + chance.gauss(0, SHAKE_G)) / STEP_G) * STEP_G
            at = begin + timedelta(hours=share * hours)
            add_tray_event(session, tray_id, seq, "weighed", {
                "mass_g": round(mass_g, 1), "pieces": 6, "step_g": STEP_G, "source": "scale", "at": at.isoformat(),
            })  # fmt: skip
